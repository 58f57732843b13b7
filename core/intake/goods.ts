/** The rows of a list that are goods, told from sums, charges and remarks, each with the values above its empty cells. */
import type { MaterialFacts } from "../material/facts.ts";
import { chargeOrTotal, textOfRow, type Body, type LeftOut } from "./body.ts";
import type { FieldId, Mapping, Purpose, Row } from "./columns.ts";
import { isNumberish } from "./table.ts";

export type Known = MaterialFacts & { id: number };
/** Materials by lower-case name, the maker's own matches of unknown names included. */
export type KnownNames = ReadonlyMap<string, Known>;

/** Columns in which one cell is often merged over several rows. */
export const MERGED = ["material", "supplier", "day"] as const satisfies readonly FieldId[];
export type BlankField = (typeof MERGED)[number];

export interface GoodsRow {
  /** Its number in the file. */
  at: number;
  /** All of it, for naming it. */
  whole: string;
  text: (f: FieldId) => string;
  /** Merged columns in which its own cell is empty. */
  blank: ReadonlySet<BlankField>;
  above: Partial<Record<BlankField, string>>;
}

/** @returns the goods in the order of the file, and what was left out */
export function partGoods(body: Body, m: Mapping, known: KnownNames, purpose: Purpose): { goods: GoodsRow[]; left: LeftOut[] } {
  const left = [...body.left];
  const above: GoodsRow["above"] = {};
  const goods = body.rows.flatMap((r): GoodsRow[] => {
    const cell = (f: FieldId): string => (m[f] === null ? "" : (r.cells[m[f]] ?? ""));
    const why = whyLeftOut(r, cell, known);
    // The name of a group, on a row above its lines, is what their empty cells mean.
    if (why === null || why === "remark") for (const f of MERGED) if (cell(f) !== "") above[f] = cell(f);
    if (why !== null) {
      left.push({ at: r.at, text: textOfRow(r), why });
      return [];
    }
    // Opening stock need not say when it was bought.
    const merged = MERGED.filter((f) => m[f] !== null && (purpose === "receipt" || f === "material"));
    return [{ at: r.at, whole: textOfRow(r), text: cell, blank: new Set(merged.filter((f) => cell(f) === "")), above: { ...above } }];
  });
  return { goods, left };
}

function whyLeftOut(r: Row, cell: (f: FieldId) => string, known: KnownNames): LeftOut["why"] | null {
  const filled = r.cells.filter((c) => c !== "");
  if (known.has(cell("material").toLowerCase())) return filled.length === 1 ? "remark" : null;
  const named = chargeOrTotal(r, cell("material"));
  if (named) return named;
  if (filled.length === 1) return isNumberish(filled[0]!) ? "total" : "remark";
  // Figures without any word, below columns of them.
  return cell("material") === "" && cell("packSize") === "" && filled.every(isNumberish) ? "total" : null;
}
