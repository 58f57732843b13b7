/** What is ladled out of the pot for a part, as it is weighed: the part is charged by it, and what is stirred in follows it. */
import { ofLadled, partTotal, additionWeight } from "#core/batch/planning/parts";
import { allocate, mg, sum, type Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { Refused } from "#core/refused";
import { and, eq, isNotNull } from "drizzle-orm";
import type { Db, Tx } from "../../client.ts";
import { batchSize, batchTake, productAddition, recipeVersion } from "../../schema.ts";
import { lockBatchOnBench } from "../planning/standing.ts";

export interface LadleIn {
  batchId: number;
  /** The part's. */
  sizeId: number;
  /** Null strikes it out. */
  weighed: Mg | null;
  /** What was there when it was put on the scale. */
  was: Mg | null;
}

/** What isn't weighed yet of a part's additions, planned again so that the part has as much of each in a hundred as was meant. */
async function follow(tx: Tx, part: typeof batchSize.$inferSelect, lossBp: number): Promise<void> {
  const shares = await tx.select().from(productAddition).where(eq(productAddition.productId, part.productId));
  const lines = await tx.select().from(batchTake).where(eq(batchTake.sizeId, part.id));
  const total =
    part.ladled === null
      ? partTotal(part.planned, part.fill, lossBp)
      : ofLadled(
          part.ladled,
          shares.reduce((a, s) => a + s.ppm, 0),
        );
  for (const { materialId, ppm } of shares) {
    const own = lines.filter((l) => l.materialId === materialId);
    const open = own.filter((l) => l.weighed === null);
    if (open.length === 0) continue;
    const left = Math.max(0, additionWeight(total, ppm) - sum(own.map((l) => l.weighed ?? mg(0))));
    const weights = open.map((l) => l.planned);
    const by = allocate(left, weights.some((w) => w > 0) ? weights : weights.map(() => 1));
    for (const [i, l] of open.entries())
      await tx
        .update(batchTake)
        .set({ planned: mg(by[i]!) })
        .where(eq(batchTake.id, l.id));
  }
}

/**
 * Keeps what was ladled out of the pot for a part.
 * @throws Refused for nothing, for what another window weighed meanwhile, and for more than is in the pot
 */
export async function ladleOut(db: Db, { batchId, sizeId, weighed, was }: LadleIn): Promise<void> {
  await db.transaction(async (tx) => {
    const open = await lockBatchOnBench(tx, batchId);
    const [part] = await tx
      .select()
      .from(batchSize)
      .where(and(eq(batchSize.id, sizeId), eq(batchSize.batchId, batchId), isNotNull(batchSize.partOf)));
    if (!part) throw Refused.one("", "That part isn't here any more.");
    if (weighed !== null && weighed <= 0)
      throw Refused.one("", "There is nothing in it: tare the empty jug first, then weigh what is ladled into it.");
    if (part.ladled !== was && part.ladled !== weighed)
      throw Refused.one("", `It has just been weighed elsewhere: ${part.ladled === null ? "struck out" : grams(part.ladled)}. Look again.`);
    const sizes = await tx.select().from(batchSize).where(eq(batchSize.batchId, batchId));
    const lines = await tx.select().from(batchTake).where(eq(batchTake.batchId, batchId));
    const pot = sum(lines.flatMap((l) => (l.sizeId === null ? [l.weighed ?? l.planned] : [])));
    const others = sum(sizes.flatMap((s) => (s.id === sizeId || s.ladled === null ? [] : [s.ladled])));
    if (weighed !== null && weighed + others > pot)
      throw Refused.one("", `Only ${grams(mg(Math.max(0, pot - others)))} are in the pot. Check the weight, and that the jug was tared.`);
    await tx.update(batchSize).set({ ladled: weighed }).where(eq(batchSize.id, sizeId));
    const [version] = await tx.select({ lossBp: recipeVersion.lossBp }).from(recipeVersion).where(eq(recipeVersion.id, open.versionId));
    await follow(tx, { ...part, ladled: weighed }, version!.lossBp);
  });
}
