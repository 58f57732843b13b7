/** A list's rows as a test writes them, and the products it names. */
import { listRows, listTable, writtenIn, type ListSpec } from "#core/listsIn/list";
import type { Reading } from "#core/listsIn/cells";
import { productFinder } from "#core/listsIn/products";
import { readRows } from "#core/intake/table";
import type { Sized } from "#core/recipe/productNames";

export const TODAY = "2026-12-01";
const sized = (id: number, recipe: string, label: string, retired = false): Sized => ({ id, recipe, label, container: "Tin", retired });
const PRODUCTS = [
  sized(1, "Hand balm", "60 g"),
  sized(2, "Hand balm", "30 g"),
  sized(3, "Lip balm", "4.5 g"),
  sized(4, "Old salve", "50 g", true),
  sized(5, "Twin", "20 g"),
  sized(6, "Twin", "20 g"),
];

/** A list's rows, read as it is written; with what has to be said first. */
export function rowsIn<F extends string>(text: string, spec: ListSpec<F>) {
  const all = readRows(text, { least: 1 });
  if (!all.ok) throw new Error(all.problem.say);
  const table = listTable(all.value, spec);
  const { rows, left } = listRows(table.rows, table.columns, spec);
  const { written, asked } = writtenIn(rows, spec, { numbers: null, dates: null }, TODAY);
  const reading: Reading = { ...written, own: "EUR", today: TODAY };
  return {
    rows,
    left: [...table.left, ...left].sort((a, b) => a.at - b.at).map((l) => [l.at, l.why]),
    asked,
    reading,
    columns: table.columns,
  };
}
export const finder = (matches = {}) => productFinder(PRODUCTS, matches);
export const said = (problems: readonly { row: number; say: string }[]) => problems.map((p) => `${p.row}: ${p.say}`);
