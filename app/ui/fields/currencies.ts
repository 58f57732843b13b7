/** Currencies a workshop keeps its books in, or buys in (ISO 4217). */
export const CURRENCIES = ["EUR", "USD", "GBP", "CAD", "AUD", "NZD", "CHF", "SEK", "NOK", "DKK", "PLN"] as const;
