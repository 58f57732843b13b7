/** Setting out a batch: a recipe at a size, with the lots to take. Nothing moves yet. */
import type { Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { scaleTo } from "#core/recipe/scale";
import { wordList } from "#core/words";
import { Refused } from "#core/refused";
import { planTakes } from "#core/stock/lots";
import { and, eq, inArray, isNull } from "drizzle-orm";
import { perform, type Doing, type Done } from "../act.ts";
import type { Db } from "../client.ts";
import { lotsOfMaterials } from "../ledger.ts";
import { batch, batchTake, lot, material } from "../schema.ts";
import { readRecipes } from "../recipe/read.ts";

export interface SetOutIn {
  recipeId: number;
  batchMg: Mg;
  units: number;
}

/**
 * Plans the lots use-first and stores the batch on the bench.
 * @throws Refused on `size` naming everything the shelf is short of, and by how much; then nothing is stored
 */
export function setOut(db: Db, input: SetOutIn, doing: Doing): Promise<Done> {
  return perform(db, "setOut", doing, async (tx) => {
    const [w] = await readRecipes(tx, [input.recipeId]);
    if (!w) throw Refused.one("recipe", "That recipe isn't here any more.");
    const weights = scaleTo(
      w.lines.map((l) => l.weight),
      input.batchMg,
    );
    const needs = [
      ...w.lines.map((l, i) => ({ of: l.materialId, amount: weights[i] as number })),
      ...w.packaging.map((p) => ({ of: p.materialId, amount: p.pieces * input.units })),
    ];
    const ids = needs.map((n) => n.of);
    const names = new Map(
      (await tx.select({ id: material.id, name: material.name }).from(material).where(inArray(material.id, ids))).map((m) => [
        m.id,
        m.name,
      ]),
    );
    const plan = planTakes(needs, await lotsOfMaterials(tx, ids), doing.day);
    const short = new Map<number, { amount: number; weighed: boolean }>();
    plan.forEach((p, i) => {
      if (p.short > 0) short.set(needs[i]!.of, { amount: (short.get(needs[i]!.of)?.amount ?? 0) + p.short, weighed: i < w.lines.length });
    });
    if (short.size > 0) {
      const missing = [...short].map(([id, s]) => `${s.weighed ? grams(s.amount) : `${s.amount} pcs`} of ${names.get(id)}`);
      throw Refused.one("size", `The shelf is short of ${wordList(missing)}. Nothing was set out.`);
    }
    const [row] = await tx
      .insert(batch)
      .values({ recipeId: w.recipe.id, productId: w.product.id, day: doing.day, plannedMg: input.batchMg, plannedUnits: input.units })
      .returning({ id: batch.id });
    const takes = w.lines.flatMap((l, position) =>
      plan[position]!.takes.map((t) => ({ batchId: row!.id, position, materialId: l.materialId, lotId: t.lotId, planned: t.amount as Mg })),
    );
    await tx.insert(batchTake).values(takes);
    return { path: `/bench/${row!.id}`, summary: `Set out ${w.recipe.name}` };
  });
}

export interface TakeIn {
  position: number;
  materialId: number;
  lotId: number;
  planned: Mg;
  weighed: Mg | null;
}

/** Stores what has been weighed so far, and lots changed by hand. @throws Refused once the batch is poured, or for a lot of another material */
export async function saveWeighed(db: Db, batchId: number, takes: readonly TakeIn[]): Promise<void> {
  await db.transaction(async (tx) => {
    const [open] = await tx
      .select({ id: batch.id })
      .from(batch)
      .where(and(eq(batch.id, batchId), isNull(batch.pouredActId), isNull(batch.clearedActId)))
      .for("update");
    if (!open) throw Refused.one("", "This batch isn't on the bench any more.");
    const lots = new Map(
      (
        await tx
          .select({ id: lot.id, of: lot.materialId })
          .from(lot)
          .where(
            inArray(
              lot.id,
              takes.map((t) => t.lotId),
            ),
          )
      ).map((l) => [l.id, l.of]),
    );
    const wrong = takes.findIndex((t) => lots.get(t.lotId) !== t.materialId);
    if (wrong >= 0) throw Refused.one(`takes.${wrong}.lot`, "That lot is of another material.");
    await tx.delete(batchTake).where(eq(batchTake.batchId, batchId));
    await tx.insert(batchTake).values(takes.map((t) => ({ ...t, batchId })));
  });
}

/** Clears a batch off the bench without pouring it; can be taken back. */
export function clearBatch(db: Db, batchId: number, doing: Doing): Promise<Done> {
  return perform(db, "clearBatch", doing, async (tx, actId) => {
    const [row] = await tx
      .update(batch)
      .set({ clearedActId: actId })
      .where(and(eq(batch.id, batchId), isNull(batch.pouredActId), isNull(batch.clearedActId)))
      .returning({ id: batch.id });
    if (!row) throw Refused.one("", "This batch isn't on the bench any more.");
    return { path: "/bench", summary: "Cleared a batch off the bench; nothing was used" };
  });
}
