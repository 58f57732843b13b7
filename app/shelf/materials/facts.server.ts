/** Reading a material's posted facts. */
import { DRIPS_LEAST, DRIPS_MOST } from "#core/measure/drops";
import { KIND_IDS, kind } from "#core/material/kinds";
import { CAUTION_IDS } from "#core/material/cautions";
import { factsIn, KEPT, REORDER_BY, type Kept, type ReorderBy } from "#core/material/facts";
import { isFelt, SCENT_NOTES, SKIN_FEELS, SMELLS, type ScentNote, type SkinFeel, type Smell } from "#core/material/senses";
import { isScent } from "#core/scent/dilution";
import { holds } from "#core/material/container";
import { FORM_IDS, type Densities, type Form } from "#core/measure/mass";
import { done, refuse } from "#core/outcome";
import { readStock } from "#core/stock/packs";
import type { Reads } from "#db/client";
import type { MaterialIn } from "#db/shelf/keepMaterial";
import { materialsOfKind } from "#db/shelf/materials";
import type { FieldProblem } from "#core/refused";
import { array, object, type InferType } from "yup";
import { between, readMl, readPlain, readWeight } from "#core/measure/read";
import { noteText, oneOf, optional, reads, requiredText } from "../../forms/fields.ts";
import { refuseSheet } from "../../forms/sheet.server.ts";

/** Grams per mL, stored in whole mg per mL; anything outside is a slip of the decimal point. */
const density = () =>
  reads<number | null>((text) => {
    if (text.trim() === "") return done(null);
    const n = readPlain(text);
    return n.ok && n.value >= 0.05 && n.value <= 3
      ? done(Math.round(n.value * 1000))
      : refuse("density", "A density here is between 0.05 and 3 g per mL; most oils are near 0.92.");
  });

const REORDER_IDS = Object.keys(REORDER_BY) as ReorderBy[];
const KEPT_IDS = Object.keys(KEPT) as Kept[];
const months = between(1, 120, "months", 1);

/** The lids a container's facts can name. */
export const lids = (db: Reads) => materialsOfKind(db, "closure");

export const factsSchema = object({
  name: requiredText("a name", 80),
  kind: oneOf(KIND_IDS),
  inci: noteText(200),
  allergen: noteText(120),
  note: noteText(),
  reorder: noteText(40),
  dropsPerMl: optional(between(DRIPS_LEAST, DRIPS_MOST, "drops per mL", 1)),
  piece: optional(readWeight),
  botanical: noteText(120),
  reorderBy: oneOf(REORDER_IDS),
  meltFrom: optional(between(-30, 150, "°C", 1)),
  meltTo: optional(between(-30, 150, "°C", 1)),
  keepsSealed: optional(months),
  keepsOpened: optional(months),
  vegan: oneOf(["", "yes", "no"] as const),
  refined: oneOf(["", "refined", "unrefined"] as const),
  kept: oneOf(KEPT_IDS),
  scentNote: oneOf(Object.keys(SCENT_NOTES) as ScentNote[]),
  feel: oneOf(Object.keys(SKIN_FEELS) as SkinFeel[]),
  smell: oneOf(Object.keys(SMELLS) as Smell[]),
  oilKept: optional((t) => {
    const n = between(0, 20, "grams", 100)(t);
    return n.ok ? done(n.value / 100) : n;
  }),
  cautions: array().of(oneOf(CAUTION_IDS)).required(),
  brim: optional(readMl),
  usable: optional(readMl),
  inner: optional(between(1, 1000, "mm", 1)),
  fill: optional(between(1, 1000, "mm", 1)),
  empty: optional(readWeight),
  madeOf: noteText(80),
  lid: noteText(120),
  densities: object(Object.fromEntries(FORM_IDS.map((f) => [f, density()])) as Record<Form, ReturnType<typeof density>>),
});

/** Turns the posted facts into what is stored, or says what is wrong with them. */
export function materialFrom(
  value: InferType<typeof factsSchema>,
  lids: readonly { id: number; name: string }[],
): { ok: true; value: MaterialIn } | { ok: false; reply: ReturnType<typeof refuseSheet> } {
  const k = kind(value.kind);
  const densities: Densities = Object.fromEntries(k.forms.flatMap((f) => (value.densities[f] ? [[f, value.densities[f]]] : [])));
  const facts = factsIn({ name: value.name, kind: value.kind, densities, dropsPerMl: value.dropsPerMl, pieceMg: value.piece });
  const problems: FieldProblem[] = [];
  const reorder = value.reorder ? readStock(value.reorder, facts) : null;
  if (reorder && !reorder.ok) problems.push({ field: "reorder", say: reorder.problem.say });
  if (value.reorderBy === "hand" && !reorder?.ok) problems.push({ field: "reorder", say: "Say below how much to remind you." });
  if (value.meltFrom !== null && value.meltTo !== null && value.meltFrom > value.meltTo)
    problems.push({ field: "meltTo", say: "It can't end below where it starts." });
  if (value.keepsOpened !== null && value.keepsSealed !== null && value.keepsOpened > value.keepsSealed)
    problems.push({ field: "keepsOpened", say: "Opened, it can't keep longer than unopened." });
  const lid = value.kind === "container" && value.lid ? lids.find((l) => l.name.toLowerCase() === value.lid.toLowerCase()) : undefined;
  if (value.kind === "container" && value.lid && !lid) problems.push({ field: "lid", say: "Choose a lid of your shelf, or add it first." });
  const size = { brimMl: value.brim, usableMl: value.usable, innerMm: value.inner, fillMm: value.fill };
  const holding = holds(size);
  if (value.brim !== null && holding && holding.ml > value.brim)
    problems.push({
      field: holding.by === "measured" ? "usable" : "fill",
      say: `That comes to ${holding.ml.toFixed(1)} mL, more than it holds to the brim.`,
    });
  if (problems.length > 0) return { ok: false, reply: refuseSheet(problems) };
  return {
    ok: true,
    value: {
      name: value.name,
      kind: value.kind,
      inci: value.inci,
      allergen: value.allergen,
      note: value.note,
      densities,
      dropsPerMl: value.dropsPerMl,
      pieceMg: value.piece,
      reorderBy: value.reorderBy,
      reorderAt: value.reorderBy === "hand" && reorder?.ok ? reorder.value : null,
      botanical: k.group === "ingredient" ? value.botanical : "",
      meltFrom: value.meltFrom,
      meltTo: value.meltTo,
      keepsSealed: value.keepsSealed,
      keepsOpened: value.keepsOpened,
      vegan: value.vegan,
      refined: value.refined,
      kept: value.kept,
      scentNote: isScent(value) ? value.scentNote : "",
      feel: isFelt(value) ? value.feel : "",
      smell: isFelt(value) ? value.smell : "",
      oilKept: value.kind === "herb" ? value.oilKept : null,
      cautions: value.cautions,
      ...size,
      emptyMg: value.empty,
      madeOf: value.madeOf,
      lidId: lid?.id ?? null,
    },
  };
}
