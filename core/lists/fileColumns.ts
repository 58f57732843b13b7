/** The columns of a list's file: a heading, and the value of each row. `csv.ts` writes them. */

/** What the numbers of a column are, and in what they are written: grams of milligrams, the currency of its millionths, hundredths of a share. */
export const PER_ONE = { number: 1, grams: 1000, money: 1_000_000, percent: 0.01 } as const;

/** A column of a list's file: its heading, and its value in a row. */
export type FileColumn<R> =
  | { head: string; of: (row: R) => string | null; as?: undefined }
  | { head: string; of: (row: R) => number | null; as: keyof typeof PER_ONE };

/**
 * An amount that is weighed in some rows and counted in others: a column for the figure, and one for its unit.
 * @param of milligrams or pieces
 * @example amountColumns("on hand", () => 1500, () => "weight").map((c) => c.of({})) // [1.5, "g"]
 */
export const amountColumns = <R>(
  head: string,
  of: (row: R) => number | null,
  measured: (row: R) => "weight" | "count",
): readonly [FileColumn<R>, FileColumn<R>] => [
  {
    head,
    as: "number",
    of: (r) => {
      const n = of(r);
      return n === null ? null : n / (measured(r) === "weight" ? PER_ONE.grams : 1);
    },
  },
  { head: "unit", of: (r) => (measured(r) === "weight" ? "g" : "pcs") },
];
