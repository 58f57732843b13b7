/** Reading a material's posted facts. */
import { KIND_IDS, kind } from "#core/material/kinds";
import { factsIn } from "#core/material/facts";
import { FORM_IDS, type Densities, type Form } from "#core/measure/mass";
import { done, refuse } from "#core/outcome";
import { readStock } from "#core/stock/packs";
import type { MaterialIn } from "#db/shelf/materials";
import type { FieldProblem } from "#core/refused";
import { object, type InferType } from "yup";
import { between, note, oneOf, optional, readWeight, reads, words } from "../forms/fields.ts";
import { refuseSheet } from "../forms/sheet.server.ts";

/** Grams per mL, kept in whole mg per mL; anything outside is a slip of the decimal point. */
const density = () =>
  reads<number | null>((text) => {
    if (text.trim() === "") return done(null);
    const n = Number(text.replace(",", "."));
    return n >= 0.05 && n <= 3
      ? done(Math.round(n * 1000))
      : refuse("density", "A density here is between 0.05 and 3 g per mL; most oils are near 0.92.");
  });

export const factsSchema = object({
  name: words("a name", 80),
  kind: oneOf(KIND_IDS),
  inci: note(200),
  allergen: note(120),
  note: note(),
  reorder: note(40),
  dropsPerMl: optional(between(5, 60, "drops per mL", 1)),
  piece: optional(readWeight),
  densities: object(Object.fromEntries(FORM_IDS.map((f) => [f, density()])) as Record<Form, ReturnType<typeof density>>),
});

/** Turns the posted facts into what is stored, or says what is wrong with them. */
export function materialFrom(
  value: InferType<typeof factsSchema>,
): { ok: true; value: MaterialIn } | { ok: false; reply: ReturnType<typeof refuseSheet> } {
  const k = kind(value.kind);
  const densities: Densities = Object.fromEntries(k.forms.flatMap((f) => (value.densities[f] ? [[f, value.densities[f]]] : [])));
  const facts = factsIn({ name: value.name, kind: value.kind, densities, dropsPerMl: value.dropsPerMl, pieceMg: value.piece });
  const problems: FieldProblem[] = [];
  const reorder = value.reorder ? readStock(value.reorder, facts) : null;
  if (reorder && !reorder.ok) problems.push({ field: "reorder", say: reorder.problem.say });
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
      reorderAt: reorder?.ok ? reorder.value : null,
    },
  };
}
