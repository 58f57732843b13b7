/** The demo workshop at its bench: batches made, and one left half weighed. */
import { mg, type Mg } from "#core/measure/exact";
import { batchFor, onScale } from "#core/recipe/scale";
import { STARTING_SETTINGS } from "#core/settings/settings";
import { addDays } from "#core/when";
import { pour } from "#db/bench/finishing/pour";
import { readBatch } from "#db/bench/read";
import { setOut } from "#db/bench/planning/setOut";
import { saveWeighed } from "#db/bench/weighing/weigh";
import { readRecipes } from "#db/recipe/read";
import { idIn, type World } from "./world.ts";
import { BATCHES } from "./year.ts";

/** A hand never weighs quite what the sheet says: a small, repeatable wobble in whole scale steps. */
const wobble = (planned: Mg, i: number): Mg => {
  const near = onScale(planned, STARTING_SETTINGS.scale);
  return near.outOfReach ? planned : mg(near.weight + (planned > 40_000 ? [0, 100, 0, 200, -100][i % 5]! : 0));
};

export async function makeBatch(w: World, b: (typeof BATCHES)[number]): Promise<void> {
  const day = addDays(w.today, -b.daysAgo);
  const { id, productId, smallId } = w.recipes[b.recipe];
  const [written] = await readRecipes(w.db, [id]);
  const fillOf = (product: number | null): Mg => written!.sizes.find((s) => s.id === product)?.fill ?? mg(0);
  const sizes = [{ productId, units: b.units }, ...(b.small && smallId ? [{ productId: smallId, units: b.small }] : [])];
  const batchMg = batchFor(
    sizes.map((s) => ({ units: s.units, fill: fillOf(s.productId) })),
    written!.recipe.lossBp,
  );
  const set = await setOut(w.db, { recipeId: id, batchMg, sizes }, { day });
  const batchId = idIn(set);
  const sheet = await readBatch(w.db, batchId);
  const takes = sheet!.takes.map((t, i) => {
    const onHand = sheet!.lots.find((l) => l.id === t.lotId)!.onHand;
    return {
      position: t.position,
      materialId: t.materialId,
      lotId: t.lotId,
      planned: t.planned,
      weighed: t.planned === onHand ? t.planned : mg(Math.min(wobble(t.planned, i), onHand)),
    };
  });
  await pour(
    w.db,
    {
      batchId,
      takes,
      sizes: sizes.map((s, i) => (i === 0 ? { ...s, units: b.filled ?? b.units } : s)),
      leftover: mg(b.leftover * 1000),
      minutes: b.minutes,
      note: b.note ?? "",
    },
    { day },
  );
}

/** A batch standing half weighed on the bench. */
export async function leaveOnBench(w: World): Promise<void> {
  const { id, productId } = w.recipes.lipPot;
  const set = await setOut(
    w.db,
    { recipeId: id, batchMg: batchFor([{ units: 20, fill: mg(10_000) }], 400), sizes: [{ productId, units: 20 }] },
    { day: w.today },
  );
  const batchId = idIn(set);
  const sheet = await readBatch(w.db, batchId);
  await saveWeighed(
    w.db,
    batchId,
    sheet!.takes.map(({ position, materialId, lotId, planned }, i) => ({
      position,
      materialId,
      lotId,
      planned,
      weighed: i < 2 ? wobble(planned, i) : null,
    })),
  );
}
