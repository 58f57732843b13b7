/** A material's facts as its sheet says them. */
import { factsIn } from "#core/material/facts";
import { KINDS } from "#core/material/kinds";
import { FORM_IDS, type Densities, type Form } from "#core/measure/mass";
import { showStock } from "#core/measure/write";
import { forField } from "#core/numbers";
import type { MaterialRow } from "#db/shelf/materials";
import type { useSheet } from "../../forms/useSheet.ts";

const shown = (n: number | undefined): string => (n === undefined ? "" : String(n / 1000));
const text = (n: number | null | undefined): string => (n == null ? "" : String(Math.round(n * 100) / 100));
export const densityTexts = (d: Densities): Record<Form, string> =>
  Object.fromEntries(FORM_IDS.map((f) => [f, shown(d[f])])) as Record<Form, string>;

/** What the sheet starts with. */
export const factsText = (m: MaterialRow | null, lids: readonly { id: number; name: string }[]) => ({
  name: m?.name ?? "",
  kind: m?.kind ?? "oil",
  inci: m?.inci ?? "",
  botanical: m?.botanical ?? "",
  allergen: m?.allergen ?? "",
  note: m?.note ?? "",
  reorderBy: (m?.reorderBy ?? "never") as string,
  reorder: m?.reorderAt != null ? forField(showStock(m.reorderAt, factsIn(m).measured)) : "",
  dropsPerMl: text(m?.dropsPerMl),
  piece: m?.pieceMg ? `${m.pieceMg / 1000} g` : "",
  densities: densityTexts(m?.densities ?? KINDS.oil.start),
  meltFrom: text(m?.meltFrom),
  meltTo: text(m?.meltTo),
  keepsSealed: text(m?.keepsSealed),
  keepsOpened: text(m?.keepsOpened),
  vegan: (m?.vegan ?? "") as string,
  refined: (m?.refined ?? "") as string,
  kept: (m?.kept ?? "") as string,
  scentNote: (m?.scentNote ?? "") as string,
  feel: (m?.feel ?? "") as string,
  smell: (m?.smell ?? "") as string,
  oilKept: text(m?.oilKept),
  cautions: (m?.cautions ?? []) as string[],
  brim: text(m?.brimMl),
  usable: text(m?.usableMl),
  inner: text(m?.innerMm),
  fill: text(m?.fillMm),
  empty: m?.emptyMg ? `${m.emptyMg / 1000} g` : "",
  madeOf: m?.madeOf ?? "",
  lid: lids.find((l) => l.id === m?.lidId)?.name ?? "",
});

/** A material's facts being filled in. */
export type FactsSheet = ReturnType<typeof useSheet<ReturnType<typeof factsText>>>;
