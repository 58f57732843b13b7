/** The stations, in the order of the work; the one list of them. */
export const STATIONS = [
  ["/", "Today"],
  ["/shelf", "Shelf"],
  ["/jars", "Jars"],
  ["/recipes", "Recipes"],
  ["/bench", "Bench"],
  ["/cabinet", "Cabinet"],
  ["/prices", "Prices"],
  ["/markets", "Markets"],
  ["/gifts", "Gifts"],
  ["/lots", "Lots"],
] as const;
