/** Material facts the way the core's readers take them. */
import { kind } from "#core/material/kinds";
import type { StockFacts } from "#core/stock/packs";
import type { MaterialRow } from "#db/shelf/materials";

/** A material's facts in its usual form, or another. */
export const stockFacts = (m: MaterialRow, form = kind(m.kind).forms[0] ?? "block"): StockFacts => ({
  name: m.name,
  form,
  densities: m.densities,
  dropsPerMl: m.dropsPerMl,
  pieceMg: m.pieceMg,
  measured: kind(m.kind).measured,
});
