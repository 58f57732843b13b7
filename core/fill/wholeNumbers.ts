/**
 * A question whose answer is so many whole things: what is to be least or most, and what must hold. The answer is the best there is and
 * whether it is proven; who solves it (HiGHS, in a worker) isn't known here.
 */

export interface Row {
  of: readonly number[];
  least?: number;
  most?: number;
}

export interface WholeNumbers {
  /** What is to be least. */
  cost: readonly number[];
  rows: readonly Row[];
  /** From nought to so many of each; no end where it is null. */
  most: readonly (number | null)[];
}

export interface Solved {
  values: number[];
  /** What the best that was found costs, and the least anything could: alike once it is proven. */
  cost: number;
  bound: number;
}

/** @returns null where nothing fits */
export type Solve = (question: WholeNumbers) => Promise<Solved | null>;

const sum = (of: readonly number[]): string =>
  of.flatMap((n, i) => (n === 0 ? [] : [`${n < 0 ? "-" : "+"} ${Math.abs(n)} x${i}`])).join(" ") || "0 x0";

/**
 * The question in the LP format that solvers of linear programs read.
 * @example asLp({ cost: [1, 2], rows: [{ of: [3, 1], least: 4 }], most: [5, null] }).split("\n")[1] // " cost: + 1 x0 + 2 x1"
 */
export function asLp({ cost, rows, most }: WholeNumbers): string {
  const lines = rows.flatMap((r, i) => [
    ...(r.least === undefined ? [] : [` a${i}: ${sum(r.of)} >= ${r.least}`]),
    ...(r.most === undefined ? [] : [` b${i}: ${sum(r.of)} <= ${r.most}`]),
  ]);
  const bounds = most.flatMap((m, i) => (m === null ? [] : [` 0 <= x${i} <= ${m}`]));
  const names = cost.map((_, i) => `x${i}`).join(" ");
  return ["Minimize", ` cost: ${sum(cost)}`, "Subject To", ...lines, "Bounds", ...bounds, "Generals", ` ${names}`, "End", ""].join("\n");
}
