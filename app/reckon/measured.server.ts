/** Amounts of a material: what they weigh, in any form and unit, and how strong they are in a whole. */
import { finder } from "#core/find";
import { factsIn, type StockFacts } from "#core/material/facts";
import { kind } from "#core/material/kinds";
import { FORMS, massOf, type Form } from "#core/measure/mass";
import { mg } from "#core/measure/exact";
import { showAmount } from "#core/measure/parse";
import { grams } from "#core/measure/write";
import { unit } from "#core/measure/units";
import type { Outcome } from "#core/outcome";
import { convert, strength, type Answer } from "#core/reckon/answer";
import { formIn, type Question } from "#core/reckon/question";
import { listMaterials, type MaterialRow } from "#db/shelf/materials";
import { db } from "../server/workshop.server.ts";
import { cant, type Reading } from "./reading.ts";

type Measuring = Extract<Question, { kind: "convert" | "strength" }>;
/** More materials of one name than this are too many to read through. */
const MOST = 3;

/** The form that is meant: the one said, else the usual one of those it has a density for. */
function formOf(m: MaterialRow, said: Form | null): Form {
  const { forms } = kind(m.kind);
  if (said && forms.includes(said)) return said;
  return forms.find((f) => m.densities[f]) ?? forms[0] ?? "block";
}

/** In a material that comes in several forms, a cup of each weighs another amount: the others are listed under the answer. */
function otherForms(q: Measuring, m: MaterialRow, form: Form): string[] {
  if (unit(q.amount.unit).kind !== "volume") return [];
  const others = kind(m.kind).forms.flatMap((f) => {
    const w = f === form ? null : massOf(q.amount, factsIn(m, f));
    return w?.ok ? [`${FORMS[f]} ${grams(w.value, 2)}`] : [];
  });
  return others.length > 0 ? [`In another form: ${others.join(", ")}`] : [];
}

function answer(q: Measuring, m: MaterialRow): Outcome<Answer> {
  const form = formOf(m, q.form);
  const named: StockFacts = factsIn(m, form);
  const facts =
    kind(m.kind).forms.length > 1 && unit(q.amount.unit).kind === "volume" ? { ...named, name: `${m.name}, ${FORMS[form]}` } : named;
  const found =
    q.kind === "strength"
      ? strength(q.amount, facts, q.whole)
      : convert(q.amount, q.to ?? (unit(q.amount.unit).kind === "mass" ? "oz" : "g"), facts);
  return found.ok ? { ok: true, value: { ...found.value, steps: [...found.value.steps, ...otherForms(q, m, form)] } } : found;
}

const weighedMaterials = async () => (await listMaterials(db())).filter((x) => kind(x.kind).measured === "weight" && !x.retired);
const findAmong = (materials: readonly MaterialRow[]) => {
  const find = finder(materials, (m) => ({ name: m.name, also: m.inci }));
  // "Elderflowers, dried" is a name; "dried elderflowers" says a form.
  return (words: string, most: number): MaterialRow[] => {
    const names = find(words, most);
    return names.length > 0 ? names : find(formIn(words).rest, most);
  };
};

/** What several amounts weigh together, each as the likeliest material of its name, and what goes into each of so many pots. */
export async function together({ parts, into }: Extract<Question, { kind: "together" }>): Promise<Reading[]> {
  const find = findAmong(await weighedMaterials());
  let all = 0;
  const steps: string[] = [];
  const places: Reading["places"] = [];
  for (const { amount, material, form } of parts) {
    const byWeight = unit(amount.unit).kind === "mass";
    const [m] = material === "" ? [] : find(material, 1);
    // A weight needs no density, whatever it is called.
    if (!m && !byWeight)
      return [cant(material === "" ? `Say what the ${showAmount(amount)} are of.` : `Nothing on the shelf is called “${material}”.`)];
    const weight = massOf(amount, m ? factsIn(m, formOf(m, form)) : { name: material, form: "block", densities: {} });
    if (!weight.ok) return [cant(weight.problem.say)];
    all += weight.value;
    steps.push([showAmount(amount), m?.name ?? material, byWeight ? "" : `= ${grams(weight.value, 2)}`].filter(Boolean).join(" "));
    if (m) places.push({ to: `/shelf/${m.id}`, name: `${m.name} on the shelf` });
  }
  const each = into === null ? "" : `${into} × ${grams(mg(Math.round(all / into)), 2)}`;
  const say = parts.length === 1 ? `${steps[0]!} is ${each}` : `${grams(mg(all), 2)} together${each && `, ${each}`}`;
  return [{ say, steps: parts.length === 1 ? [] : steps, places: places.slice(0, MOST) }];
}

/** @returns a reading for each material that may be meant; when none answers, why the likeliest doesn't */
export async function measured(q: Measuring): Promise<Reading[]> {
  const found = findAmong(await weighedMaterials())(q.material, MOST);
  if (found.length === 0) return [cant(`Nothing on the shelf is called “${q.material}”.`)];
  const answers = found.map((m) => ({ m, out: answer(q, m) }));
  const good = answers.flatMap(({ m, out }): Reading[] =>
    out.ok ? [{ ...out.value, places: [{ to: `/shelf/${m.id}`, name: `${m.name} on the shelf` }] }] : [],
  );
  const [first] = answers;
  return good.length > 0 ? good : [cant(first!.out.ok ? "" : first!.out.problem.say)];
}
