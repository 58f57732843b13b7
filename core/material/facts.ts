/** A material's facts, gathered the way weighing and counting take them. */
import type { Mg } from "../measure/exact.ts";
import type { Densities, Form, MassFacts } from "../measure/mass.ts";
import { kind, type KindId } from "./kinds.ts";

/** What weighing or counting a material takes to know. */
export interface StockFacts extends MassFacts {
  measured: "weight" | "count";
}

export type Vegan = "" | "yes" | "no";
export type Refined = "" | "refined" | "unrefined";

/** Where it is stored. */
export const KEPT = {
  "": "not said",
  room: "at room temperature",
  cool: "cool and dark",
  fridge: "in the fridge",
  freezer: "in the freezer",
} as const;
export type Kept = keyof typeof KEPT;

/** What reminds a maker to buy. */
export const REORDER_BY = { never: "Don't remind me", hand: "Below a point I set", use: "Below a point learned from use" } as const;
export type ReorderBy = keyof typeof REORDER_BY;

export interface MaterialFacts {
  name: string;
  kind: KindId;
  densities: Densities;
  dropsPerMl: number | null;
  pieceMg: Mg | null;
}

/** The form a material is usually measured in; counted ones have none, and any will do. */
export const usualForm = (id: KindId): Form => kind(id).forms[0] ?? "block";

/** @example factsIn(beeswax, "pellets").densities.pellets // 480 */
export const factsIn = (m: MaterialFacts, form: Form = usualForm(m.kind)): StockFacts => ({
  name: m.name,
  form,
  densities: m.densities,
  dropsPerMl: m.dropsPerMl,
  pieceMg: m.pieceMg,
  measured: kind(m.kind).measured,
});
