/** Rows of a list that are one thing together (a market day, an order, a recipe): when one of them can't be read, none of the thing goes in. */
import { groupBy } from "../collect.ts";
import type { ListRow, RowProblem } from "./list.ts";

/** Rows that belong together, in the order of the first of each. */
export interface RowGroup<F extends string> {
  key: string;
  rows: ListRow<F>[];
}

/** @example groupsOf([], (row) => row.whole) // [] */
export const groupsOf = <F extends string>(rows: readonly ListRow<F>[], key: (row: ListRow<F>) => string): RowGroup<F>[] =>
  [...groupBy(rows, key)].map(([k, of]) => ({ key: k, rows: of }));

/**
 * The one value that rows of a thing have: written once, or the same on each. Two of them contradict each other.
 * @example oneOfAll([{ row: 2, value: 20 }, { row: 3, value: null }]) // { value: 20, problem: null }
 */
export function oneOfAll<T>(
  cells: readonly { row: number; value: T | null }[],
  what = "value",
): { value: T | null; problem: RowProblem | null } {
  const [first, ...others] = cells.filter((c) => c.value !== null);
  if (!first) return { value: null, problem: null };
  const other = others.find((c) => c.value !== first.value);
  return { value: first.value, problem: other ? { row: other.row, say: `Another ${what} than in row ${first.row}.` } : null };
}

/** What a thing's other rows wait for. @example heldBack([2, 3, 4], [{ row: 3, say: "…" }], "order")[0].row // 2 */
export const heldBack = (rows: readonly number[], problems: readonly RowProblem[], what: string): RowProblem[] => {
  const bad = [...new Set(problems.map((p) => p.row))];
  return rows.filter((r) => !bad.includes(r)).map((row) => ({ row, say: `Its ${what} waits for row ${bad.join(", ")}.` }));
};
