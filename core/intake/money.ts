/** Signs of money: whether the sign beside a figure is the workshop's own. */

/** Letters people write besides the code and the sign. */
const ALSO: Record<string, readonly string[]> = { CHF: ["fr", "sfr"], PLN: ["zł", "zl"], SEK: ["kr"], NOK: ["kr"], DKK: ["kr"] };

const signs = new Map<string, ReadonlySet<string>>();
/** What a currency is written with, in lower case. */
function signsOf(currency: string): ReadonlySet<string> {
  const known = signs.get(currency);
  if (known) return known;
  const shown = (["symbol", "narrowSymbol"] as const).flatMap((currencyDisplay) =>
    new Intl.NumberFormat("en", { style: "currency", currency, currencyDisplay })
      .formatToParts(1)
      .flatMap((p) => (p.type === "currency" ? [p.value] : [])),
  );
  const all = new Set([currency, ...shown, ...(ALSO[currency] ?? [])].map((s) => s.toLowerCase()));
  signs.set(currency, all);
  return all;
}
const bare = (sign: string): string => sign.toLowerCase().replace(/\.$/, "");

/** @example isSignOf("€", "EUR") // true */
export const isSignOf = (sign: string, currency: string): boolean => sign === "" || signsOf(currency).has(bare(sign));

/** Which of some currencies a sign may be, those that are written so first. @example currenciesOf("£", ["EUR", "GBP"])[0] // "GBP" */
export const currenciesOf = (sign: string, among: readonly string[]): string[] => {
  const fits = among.filter((c) => isSignOf(sign, c));
  return [...fits, ...among.filter((c) => !fits.includes(c))];
};
