/** The texts of the opening stock sheet, and which material a name on it means. */
import type { MaterialFacts } from "#core/material/facts";
import { finderBy, type Meant } from "#core/meant";
import { libraryByName } from "#core/material/library";
import type { OpeningTexts } from "#core/stock/openingSheet";

export type Known = MaterialFacts & { id: number };
export const BLANK: OpeningTexts = { material: "", amount: "", cost: "", known: "paid", bought: "", supplierLot: "", bestBefore: "" };

/** A material's name on the shelf, else an entry of the library, to be taken from it. */
export const finding = (materials: readonly Known[], meant: Meant) => {
  const mine = finderBy(materials, meant);
  return (name: string): (MaterialFacts & { id?: number; key?: string }) | null => mine(name) ?? libraryByName(name);
};
