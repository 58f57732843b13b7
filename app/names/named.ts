/**
 * What a sheet has to know of a thing it names. A page brings what its sheet names already; the rest is asked for by name (`useLookup`), so that
 * no sheet grows with the shelf.
 */
import { stockOnHand, type Shelf } from "#core/stock/shelf";
import type { Day } from "#core/when";
import type { Product } from "#db/gifts/products";
import type { JarStuff } from "#db/jars/jarStuff";
import type { OilLot } from "#db/jars/read";
import type { PurchasedMaterial, SheetMaterial } from "#db/shelf/sheetMaterials";

export interface Named {
  material: SheetMaterial;
  bought: PurchasedMaterial;
  product: Product;
  jar: JarStuff;
  oilLot: OilLot;
}
export type NamedKind = keyof Named;

/** As many names are asked for at once, so that the address stays short however long they are. */
export const MOST_NAMES = 20;

/** The shelf as far as a sheet knows it. */
export const shelfOfStuff = (stuff: readonly SheetMaterial[], today: Day): Shelf =>
  stockOnHand(
    stuff.flatMap((s) => s.lots),
    today,
    new Map(stuff.flatMap((s) => (s.again ? [[s.id, s.again] as const] : []))),
  );
