/** A recipe on its sheet, with the Reckoner beside it. */
import { RECIPE_TYPES, RECIPE_TYPE_IDS } from "#core/recipe/types";
import { problemsOf, readWritten } from "#core/recipe/written";
import { writtenParts } from "#core/recipe/writtenParts";
import { FOR_WHOM_IDS, USED_ON_IDS, type UsedOn } from "#core/scent/limits";
import { done, refuse } from "#core/outcome";
import { materialsOf } from "#db/recipe/costs";
import { versionsOf } from "#db/recipe/history";
import { lettersTaken, readVersion, readWhole, type WrittenRecipe } from "#db/recipe/read";
import { firmnessLearned, firmnessTestsOf } from "#db/recipe/firmness";
import { saveRecipe } from "#db/recipe/save";
import { cachedSettings } from "#db/settings/settings";
import { anyMaterial, listMaterials } from "#db/shelf/materials";
import { array, object } from "yup";
import { isFirst, wayOn } from "../begin/begin.server.ts";
import { Keeping } from "../away/keeping.tsx";
import { ActsOf } from "../book/actsOf.tsx";
import { actsOf } from "../book/lines.server.ts";
import { db } from "../server/workshop.server.ts";
import { noteText, oneOf, reads, scaled, wholeNumber, requiredText } from "../forms/fields.ts";
import { idOf } from "../forms/ids.ts";
import { openSheet } from "../forms/openSheet.server.ts";
import { runAct, readSheet, refuseSheet } from "../forms/sheet.server.ts";
import { RecipeSheet } from "./recipeSheet.tsx";
import { stuffOf } from "#db/shelf/sheetMaterials";
import { recipeTexts } from "./recipeTexts.ts";
import { Versions } from "./versions/versions.tsx";
import type { Route } from "./+types/write";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${(loaderData as { written?: { recipe: { name: string } } } | undefined)?.written?.recipe.name ?? "Write a recipe"} · Zelbin` },
];

export async function loader({ request, params }: Route.LoaderArgs) {
  const id = "id" in params ? idOf(params.id) : null;
  const asks = new URL(request.url).searchParams;
  const asked = id === null ? asks.get("like") : null;
  const n = idOf(asks.get("version"));
  const record = id === null ? null : ({ kind: "recipe", id } as const);
  const [settings, any, now, like, versions, book, sheet, learned, tests, letters] = await Promise.all([
    cachedSettings(db()),
    anyMaterial(db()),
    id === null ? null : readWhole(db(), id),
    asked === null ? null : n > 0 ? readVersion(db(), idOf(asked), n) : readWhole(db(), idOf(asked)),
    id === null ? [] : versionsOf(db(), id),
    record && actsOf(record),
    openSheet(record),
    firmnessLearned(db()),
    id === null ? [] : firmnessTestsOf(db(), id),
    id === null ? lettersTaken(db()) : [],
  ]);
  const back = id !== null && now && n > 0 && n !== now.recipe.n && versions.some((v) => v.n === n) ? await readVersion(db(), id, n) : null;
  const written = back && now ? asItWas(now, back) : now;
  if (id !== null && !written) throw new Response("Not found", { status: 404 });
  return {
    written,
    back: back?.recipe.n ?? null,
    like,
    stuff: await stuffOf(db(), materialsOf([written ?? like].flatMap((w) => w ?? []))),
    bare: !any,
    rates: { hourly: settings.hourly, overheadHourly: settings.overheadHourly },
    scale: settings.scale,
    letters,
    // Kept, the first recipe leads on to the first batch.
    leadsOn: id === null && (await isFirst("recipe")),
    versions,
    learned,
    tests,
    book,
    opened: sheet,
  };
}

/** A recipe as an older version said it, in the sizes it is made in now. */
const asItWas = (now: WrittenRecipe, then: WrittenRecipe): WrittenRecipe => ({ ...now, recipe: then.recipe, lines: then.lines });

const schema = object({
  name: requiredText("a name", 80),
  code: reads((t) => (/^[A-Za-z]{1,4}$/.test(t.trim()) ? done(t.trim().toUpperCase()) : refuse("code", "Use one to four letters."))),
  type: oneOf(RECIPE_TYPE_IDS),
  makes: noteText(40),
  loss: scaled(0, 50, "per cent", 100, 0),
  overrun: noteText(20),
  keepsMonths: wholeNumber(1, 36, "months"),
  batchMinutes: wholeNumber(0, 6000, "minutes", 0),
  method: noteText(4000),
  usedOn: oneOf<UsedOn | "">(["", ...USED_ON_IDS]),
  forWhom: oneOf(FOR_WHOM_IDS),
  answers: array()
    .of(object({ key: noteText(200), word: noteText(200) }))
    .default([]),
  note: noteText(300),
  lines: array()
    .of(object({ material: noteText(120), entered: noteText(60), form: noteText(20) }))
    .required(),
  sizes: array()
    .of(
      object({
        id: noteText(12),
        container: noteText(120),
        fill: noteText(40),
        minutes: scaled(0, 600, "minutes", 100, 0),
        away: noteText(5),
        packaging: array()
          .of(object({ material: noteText(120), pieces: noteText(12) }))
          .required(),
      }),
    )
    .required(),
});

export async function action({ request, params }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const v = sheet.value;
  const materials = await listMaterials(db());
  const texts = { lines: v.lines, makes: v.makes, overrun: v.overrun, sizes: v.sizes.map((s) => ({ ...s, minutes: "" })) };
  const read = readWritten(texts, materials, sheet.meant("material"));
  const problems = problemsOf(read, texts);
  if (problems.length > 0) return refuseSheet(problems);
  const id = "id" in params ? idOf(params.id) : undefined;
  const { name, code, type, keepsMonths, batchMinutes, method, usedOn, forWhom } = v;
  const answers = Object.fromEntries(v.answers.map((a) => [a.key, a.word]));
  const parts = writtenParts(read, texts);
  const sizes = parts.sizes.map(({ at, ...size }) => ({
    ...size,
    id: idOf(v.sizes[at]!.id) || null,
    unitMinutesHundredths: v.sizes[at]!.minutes,
    retired: v.sizes[at]!.away === "yes",
  }));
  const leadsOn = id === undefined && (await isFirst("recipe"));
  const to = leadsOn ? await wayOn("recipe") : null;
  return runAct(
    () =>
      saveRecipe(
        db(),
        {
          ...(id === undefined ? {} : { id }),
          ...{ name, code, type, keepsMonths, batchMinutes, method, usedOn, forWhom, answers, note: v.note },
          ...parts,
          sizes,
          lossBp: v.loss,
        },
        sheet.doing,
      ),
    {
      path: (d) => to ?? d.path,
      theirs: async () => recipeTexts(await readWhole(db(), id ?? 0), new Map(materials.map((m) => [m.id, m.name]))),
    },
  );
}

export default function Write({ loaderData }: Route.ComponentProps) {
  const { written, versions, book } = loaderData;
  // A recipe just saved comes back as another sheet.
  return (
    <RecipeSheet
      key={written ? `${written.recipe.id} ${written.recipe.n} ${loaderData.opened.seen}` : "new"}
      {...loaderData}
      types={RECIPE_TYPE_IDS.map((t) => [t, RECIPE_TYPES[t].label] as const)}
    >
      {versions.length > 0 && <Versions recipeId={written!.recipe.id} versions={versions} />}
      {book && <ActsOf {...book} />}
      {written && (
        <Keeping of="recipe" id={written.recipe.id} retired={written.recipe.retired} copy={`/recipes/new?like=${written.recipe.id}`} />
      )}
    </RecipeSheet>
  );
}
