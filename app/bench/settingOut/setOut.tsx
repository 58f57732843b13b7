/** Setting out a batch: which recipe, how large, into which pots, out of which lots. */
import { readSize, SIZE_MODE_IDS, type SizeMode } from "#core/batch/planning/size";
import { basesOnShelf } from "#db/bench/planning/base";
import { setOut } from "#db/bench/planning/setOut";
import { groupBy } from "#core/collect";
import { mg } from "#core/measure/exact";
import { readWeighed } from "#core/measure/read";
import { unreserved } from "#core/stock/reservations";
import { today } from "#db/clock";
import { readReservations } from "#db/bench/planning/reservations";
import { materialsOf } from "#db/recipe/costs";
import { lastRecipeSetOut, lastSetOut } from "#db/bench/read";
import { readForBatch, recipeChoices } from "#db/recipe/read";
import { versionsOf } from "#db/recipe/history";
import { cachedSettings } from "#db/settings/settings";
import { array, object } from "yup";
import { db } from "../../server/workshop.server.ts";
import { idField, noteText, oneOf, optional, wholeNumber } from "../../forms/fields.ts";
import { idOf } from "../../forms/ids.ts";
import { openSheet } from "../../forms/openSheet.server.ts";
import { runAct, readSheet, refuseSheet } from "../../forms/sheet.server.ts";
import { stuffOf } from "#db/shelf/sheetMaterials";
import { SetOutSheet } from "./setOutSheet.tsx";
import type { Route } from "./+types/setOut";

export const meta: Route.MetaFunction = () => [{ title: "Set out a batch · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const asked = new URL(request.url).searchParams;
  const [settings, choices, sheet, bases, newest] = await Promise.all([
    cachedSettings(db()),
    recipeChoices(db()),
    openSheet(),
    basesOnShelf(db()),
    asked.has("recipe") ? idOf(asked.get("recipe")!) : lastRecipeSetOut(db()),
  ]);
  const wanted = choices.find((c) => c.id === newest) ?? choices[0];
  const [versions, last] = wanted ? await Promise.all([versionsOf(db(), wanted.id), lastSetOut(db(), wanted.id)]) : [[], []];
  const older = versions.find((v, i) => i > 0 && String(v.n) === asked.get("version"));
  const written = wanted ? await readForBatch(db(), wanted.id, older?.n) : null;
  const free = written ? await freeOf([...materialsOf([written]), ...bases.map((b) => b.materialId)]) : null;
  return {
    choices,
    /** The recipe that is chosen, by one of its versions, with what it takes; another's is asked for once it is chosen. */
    chosen: written && free ? { written, versions, last, ...free } : null,
    settings,
    bases,
    /** The base that is to be poured again. */
    melt: bases.find((b) => String(b.lotId) === asked.get("melt"))?.lotId ?? null,
    lot: /^\d{1,9}$/.exec(asked.get("lot") ?? "")?.[0] ?? "",
    /** The size that so many units are wanted of; without it the first. */
    size: idOf(asked.get("size")),
    units: /^\d{1,5}$/.exec(asked.get("units") ?? "")?.[0] ?? "",
    opened: sheet,
  };
}

/** What is free of these materials for another batch, and what is reserved for those on the bench. */
async function freeOf(materials: readonly number[]) {
  const [stuff, { holders, ...reserved }] = await Promise.all([stuffOf(db(), materials), readReservations(db())]);
  const left = groupBy(
    unreserved(
      stuff.flatMap((s) => s.lots),
      reserved,
      today(),
    ),
    (l) => l.of,
  );
  return {
    stuff: stuff.map((s) => ({ ...s, lots: left.get(s.id) ?? [] })),
    holders: holders.filter((p) => materials.includes(p.of)),
  };
}

const schema = object({
  recipe: wholeNumber(1, 1e9, "recipes"),
  version: wholeNumber(0, 1e9, "versions", 0),
  mode: oneOf(SIZE_MODE_IDS),
  weight: noteText(40),
  lot: wholeNumber(0, 1e9, "lots", 0),
  units: array().of(noteText(12)).required(),
  parts: array()
    .of(object({ product: idField(), units: wholeNumber(0, 10_000, "units", 0) }))
    .default([]),
  melted: array()
    .of(object({ lot: idField(), amount: optional(readWeighed) }))
    .default([]),
});

/** The field a problem of the size belongs beside. */
const fieldOf = (mode: SizeMode): string => (mode === "lot" ? "lot" : mode === "grams" ? "weight" : "units.0");

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { recipe, mode, weight, lot, units, melted, parts } = sheet.value;
  const version = sheet.value.version || undefined;
  const w = await readForBatch(db(), recipe, version);
  if (!w)
    return refuseSheet([
      version === undefined
        ? { field: "recipe", say: "Choose a recipe." }
        : { field: "version", say: "Choose a version that still exists." },
    ]);
  const { stuff } = await freeOf(w.lines.map((l) => l.materialId));
  const lots = stuff.flatMap((s) => s.lots);
  const read = readSize({ mode, weight, lotId: lot, units }, w, lots);
  if (!read.ok) return refuseSheet([{ field: fieldOf(mode), say: read.problem.say }]);
  const sizes = w.sizes.map((s, i) => ({ productId: s.id, units: read.value.units[i]! }));
  const bases = melted.map((m) => ({ lotId: m.lot, amount: m.amount ?? mg(0) }));
  return runAct(() =>
    setOut(
      db(),
      {
        ...{ recipeId: recipe, version, batchMg: read.value.batch, sizes },
        parts: parts.map((p) => ({ productId: p.product, units: p.units })),
        melted: bases,
      },
      sheet.doing,
    ),
  );
}

export default function SetOut({ loaderData }: Route.ComponentProps) {
  return <SetOutSheet {...loaderData} />;
}
