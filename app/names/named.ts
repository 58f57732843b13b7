/**
 * What a sheet has to know of a thing it names. A page brings what its sheet names already; the rest is asked for by name (`useNamed`), so that
 * no sheet grows with the shelf.
 */
import type { JarLot, JarMaterial } from "#core/infusion/plan";
import type { Straining } from "#core/infusion/absorption";
import type { MaterialFacts } from "#core/material/facts";
import type { Micros } from "#core/measure/exact";
import type { UnitCost } from "#core/measure/money";
import type { MaterialChoice } from "#core/recipe/written";
import type { Lot } from "#core/stock/lots";
import { shelfOf, type Shelf } from "#core/stock/shelf";
import type { Day } from "#core/when";

/** A material with its lots on hand and what it costs again. */
export interface Stuff extends MaterialChoice {
  lots: Lot[];
  again: UnitCost | null;
}

/** A material as it is bought: what it cost the last time, and the pack it came in. */
export interface Bought extends MaterialFacts {
  id: number;
  emptyMg: number | null;
  again: UnitCost | null;
  pack: string | null;
  retired: boolean;
}

/** A size of a recipe as an order takes it. */
export interface Product {
  id: number;
  /** With its size: "Hand balm, 60 mL tin". */
  name: string;
  price: Micros | null;
  cost: Micros | null;
  /** Units an order can have, and why there are no more of them. */
  free: number;
  spoken: string;
  /** With what is open of each, the work in one unit of it, and why it better waits. */
  lots: (Lot & { work: Micros; waits: string | null })[];
}

/** A herb or an oil a jar can be filled with, and what the workshop's strainings of it teach. */
export interface JarStuff extends JarMaterial {
  lots: JarLot[];
  past: Straining[];
}

/** A lot of oil by its material's name and its number: "Olive oil · OO-3". */
export interface OilLot extends Lot {
  name: string;
}

export interface Named {
  material: Stuff;
  bought: Bought;
  product: Product;
  jar: JarStuff;
  oilLot: OilLot;
}
export type NamedKind = keyof Named;

/** As many names are asked for at once, so that the address stays short however long they are. */
export const MOST_NAMES = 20;

/** The shelf as far as a sheet knows it. */
export const shelfOfStuff = (stuff: readonly Stuff[], today: Day): Shelf =>
  shelfOf(
    stuff.flatMap((s) => s.lots),
    today,
    new Map(stuff.flatMap((s) => (s.again ? [[s.id, s.again] as const] : []))),
  );
