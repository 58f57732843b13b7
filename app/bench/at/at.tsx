/** At the bench: one step at a time, large, beside the scale and the thermometer. */
import { setsBy } from "#core/firmness/solids";
import type { Mg } from "#core/measure/exact";
import { harmedByHeat } from "#core/recipe/method";
import { headspace, overfull } from "#core/recipe/sizes";
import { carries } from "#core/material/kinds";
import { scentShare } from "#core/scent/dilution";
import { eventsOf } from "#db/bench/weighing/events";
import { samplesOf } from "#db/bench/weighing/samples";
import { variantsOf } from "#db/bench/parts/parts";
import { readBatch } from "#db/bench/read";
import { firmnessLearned } from "#db/recipe/firmness";
import { cachedSettings } from "#db/settings/settings";
import { materialsNamed } from "#db/shelf/materials";
import { redirect } from "react-router";
import { benchShows, db } from "../../server/workshop.server.ts";
import { idOf } from "../../forms/ids.ts";
import { potIds, potsOf, weighedInOrder } from "../potsOf.ts";
import { Resend } from "../../forms/beside/resend.tsx";
import { AtBench } from "./atBench.tsx";
import { couldMend } from "./method/couldMend.server.ts";
import { mostScent, partsOf } from "./parts/partsOf.ts";
import type { Route } from "./+types/at";

export const meta: Route.MetaFunction = ({ loaderData: d }) => [
  { title: `${(d as { sheet?: { recipe: { name: string } } } | undefined)?.sheet?.recipe.name ?? "Batch"} at the bench · Zelbin` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  const [sheet, events, samples, settings, learned, variants] = await Promise.all([
    readBatch(db(), id),
    eventsOf(db(), id),
    samplesOf(db(), id),
    cachedSettings(db()),
    firmnessLearned(db()),
    variantsOf(db(), id),
  ]);
  if (!sheet) throw new Response("Not found", { status: 404 });
  if (sheet.batch.clearedActId !== null && sheet.batch.spoiledActId === null) throw redirect("/bench");
  if (sheet.batch.pouredActId !== null || sheet.batch.spoiledActId !== null) throw redirect(`/bench/${id}`);
  const materials = new Map((await materialsNamed(db(), potIds(sheet), [])).map((m) => [m.id, m]));
  const { density, liquids, containers } = potsOf(sheet, materials);
  const fills = (productId: number, fill: Mg) => {
    const container = containers.find((c) => c.productId === productId);
    if (!container || density === null) return { over: null, room: "" };
    const ml = fill / density;
    return { over: overfull(ml, container), room: headspace(ml, container) };
  };
  return {
    batch: sheet.batch,
    recipe: {
      name: sheet.recipe.name,
      n: sheet.recipe.n,
      method: sheet.recipe.method,
      type: sheet.recipe.type,
      lossBp: sheet.recipe.lossBp,
      overrunBp: sheet.recipe.overrunBp,
    },
    sizes: sheet.sizes.map(({ id, label, planned, units, fill, partOf, ladled, productId }) => ({
      ...{ id, label, planned, units: units ?? 0, fill, partOf, ladled },
      ...fills(productId, fill),
    })),
    parts: partsOf(sheet, materials),
    variants,
    takes: weighedInOrder(sheet, materials).map((t) => {
      const m = materials.get(t.materialId)!;
      return {
        ...t,
        allergen: m.allergen,
        sets: setsBy(m),
        scent: scentShare(m),
        carries: carries(m),
        delicate: harmedByHeat(m),
      };
    }),
    lots: sheet.lots,
    liquids,
    couldMend: await couldMend(sheet, materials),
    mostScent: mostScent(sheet, materials),
    events,
    samples,
    netRule: settings.netRule,
    constants: learned.constants,
    scale: settings.scale,
    /** What is on the bench as the page is read, so that nothing moves once it listens. */
    shows: benchShows(),
  };
}

export default function At({ loaderData }: Route.ComponentProps) {
  return (
    <Resend>
      <AtBench {...loaderData} />
    </Resend>
  );
}
