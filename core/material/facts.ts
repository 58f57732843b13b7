/** A material's facts, gathered the way weighing and counting take them. */
import type { Mg } from "../measure/exact.ts";
import type { Densities, Form } from "../measure/mass.ts";
import type { StockFacts } from "../stock/packs.ts";
import { kind, type KindId } from "./kinds.ts";

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
