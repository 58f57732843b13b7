/** A recipe on its sheet, with the Reckoner beside it. */
import { RECIPE_TYPES, RECIPE_TYPE_IDS } from "#core/recipe/types";
import { done, refuse } from "#core/outcome";
import type { FieldProblem } from "#core/refused";
import { today } from "#db/clock";
import { readShelfCosts } from "#db/recipe/costs";
import { readRecipes } from "#db/recipe/read";
import { saveRecipe } from "#db/recipe/save";
import { readSettings } from "#db/settings";
import { listMaterials } from "#db/shelf/materials";
import { array, object } from "yup";
import { db } from "../db.server.ts";
import { idOf } from "../forms/ids.ts";
import { note, oneOf, reads, scaled, wholeNumber, words } from "../forms/fields.ts";
import { act, readSheet, refuseSheet } from "../forms/sheet.server.ts";
import { RecipeSheet } from "./recipeSheet.tsx";
import { isBlank, readWritten } from "./written.ts";
import type { Route } from "./+types/write";

export const meta: Route.MetaFunction = ({ data }) => [
  { title: `${(data as { written?: { recipe: { name: string } } } | undefined)?.written?.recipe.name ?? "Write a recipe"} · Zelbin` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const id = "id" in params ? idOf(params.id) : null;
  const [settings, materials, { lots, again }, found] = await Promise.all([
    readSettings(db()),
    listMaterials(db()),
    readShelfCosts(db()),
    id === null ? [] : readRecipes(db(), [id]),
  ]);
  const written = found[0] ?? null;
  if (id !== null && !written) throw new Response("Not found", { status: 404 });
  const facts = materials.map(({ id, name, kind, densities, dropsPerMl, pieceMg }) => ({ id, name, kind, densities, dropsPerMl, pieceMg }));
  return {
    written,
    materials: facts,
    lots,
    again: [...again],
    rates: { hourly: settings.hourly, overheadHourly: settings.overheadHourly },
    token: crypto.randomUUID(),
  };
}

const schema = object({
  name: words("a name", 80),
  code: reads((t) => (/^[A-Za-z]{1,4}$/.test(t.trim()) ? done(t.trim().toUpperCase()) : refuse("code", "Use one to four letters."))),
  type: oneOf(RECIPE_TYPE_IDS),
  makes: note(40),
  fill: note(40),
  loss: scaled(0, 50, "per cent", 100, 0),
  keepsMonths: wholeNumber(1, 36, "months"),
  batchMinutes: wholeNumber(0, 6000, "minutes", 0),
  unitMinutes: scaled(0, 600, "minutes", 100, 0),
  method: note(4000),
  lines: array()
    .of(object({ material: note(120), entered: note(60), form: note(20) }))
    .required(),
  packaging: array()
    .of(object({ material: note(120), pieces: note(12) }))
    .required(),
});

export async function action({ request, params }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const v = sheet.value;
  const read = readWritten(v, await listMaterials(db()));
  const problems: FieldProblem[] = read.lines.flatMap((l, i) =>
    isBlank(v.lines[i]!) || l.out.ok ? [] : [{ field: `lines.${i}.${l.field}`, say: l.out.problem.say }],
  );
  const filled = v.packaging.map((p, i) => ({ ...p, i })).filter((p) => p.material.trim() !== "");
  read.packaging.forEach((p, i) => {
    if (!p.material) problems.push({ field: `packaging.${filled[i]!.i}.material`, say: `“${filled[i]!.material}” isn't on the shelf.` });
    else if (p.pieces === null) problems.push({ field: `packaging.${filled[i]!.i}.pieces`, say: "Enter a whole number of pieces." });
  });
  if (read.makes && !read.makes.ok) problems.push({ field: "makes", say: read.makes.problem.say });
  if (!read.fill.ok) problems.push({ field: "fill", say: read.fill.problem.say });
  if (read.problem)
    problems.push({
      field: read.problem.code === "partsNeedWhole" ? "makes" : read.problem.code === "noLines" ? "lines.0.material" : "",
      say: read.problem.say,
    });
  if (problems.length > 0 || !read.fill.ok) return refuseSheet(problems);

  const { name, code, type, keepsMonths, batchMinutes, method } = v;
  const fill = read.fill.value;
  const lines = read.lines.flatMap((l, i) =>
    l.out.ok && l.material ? [{ materialId: l.material.id, entered: v.lines[i]!.entered, form: l.form, weight: l.out.weight }] : [],
  );
  const packaging = read.packaging.map((p) => ({ materialId: p.material!.id, pieces: p.pieces! }));
  return act(() =>
    saveRecipe(
      db(),
      {
        name,
        code,
        type,
        keepsMonths,
        batchMinutes,
        method,
        fill,
        lines,
        packaging,
        makes: read.makes?.ok ? read.makes.value : null,
        total: read.total,
        lossBp: v.loss,
        unitMinutesHundredths: v.unitMinutes,
      },
      { day: today(), token: sheet.token },
      "id" in params ? idOf(params.id) : undefined,
    ),
  );
}

export default function Write({ loaderData }: Route.ComponentProps) {
  const { written, token } = loaderData;
  // A recipe just kept comes back as another sheet.
  return (
    <RecipeSheet
      key={written?.recipe.id ?? "new"}
      {...loaderData}
      token={token}
      types={RECIPE_TYPE_IDS.map((t) => [t, RECIPE_TYPES[t].label] as const)}
    />
  );
}
