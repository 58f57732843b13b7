/** Pouring: what was weighed leaves its lots, and finished units with a lot number of their own come in. */
import { bestBefore } from "#core/batch/bestBefore";
import { pourResult, stockValue, type PourResult } from "#core/batch/result";
import { numberer, numberHead } from "#core/lot/number";
import { KINDS, type KindId } from "#core/material/kinds";
import { micros, sum, type Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { Refused } from "#core/refused";
import { planTakes, type Lot } from "#core/stock/lots";
import { counted, wordList } from "#core/words";
import type { Day } from "#core/when";
import { eq, inArray, sql } from "drizzle-orm";
import { perform, takenNumbers, type Doing, type Done } from "../act.ts";
import type { Db, Tx } from "../client.ts";
import { draw, lockLots, lotsOfMaterials, type NewMovement } from "../ledger.ts";
import { batch, batchTake, lot, material, movement, product, productPackaging, recipe } from "../schema.ts";
import { readSettings } from "../settings.ts";
import type { TakeIn } from "./setOut.ts";

export interface PourIn {
  batchId: number;
  /** Every line with its weighed amount, in sheet order. */
  takes: readonly (TakeIn & { weighed: Mg })[];
  units: number;
  leftover: Mg;
  minutes: number;
  note: string;
}

const pieces = (n: number): string => counted(n, "pc");

/** Packaging for so many units, use-first, drawn from locked lots. @throws Refused naming what is short */
async function drawPackaging(
  tx: Tx,
  productId: number,
  units: number,
  day: Day,
  base: Omit<NewMovement, "lotId" | "qty" | "value">,
): Promise<NewMovement[]> {
  const rows = await tx
    .select({ of: productPackaging.materialId, pieces: productPackaging.pieces, name: material.name })
    .from(productPackaging)
    .innerJoin(material, eq(material.id, productPackaging.materialId))
    .where(eq(productPackaging.productId, productId));
  const needs = rows.map((r) => ({ of: r.of, amount: r.pieces * units }));
  const locked = await lockLots(
    tx,
    (
      await lotsOfMaterials(
        tx,
        needs.map((n) => n.of),
      )
    ).map((l) => l.id),
  );
  const plan = planTakes(needs, [...locked.values()], day);
  const missing = plan.flatMap((p, i) => (p.short > 0 ? [`${pieces(p.short)} of ${rows[i]!.name}`] : []));
  if (missing.length > 0) throw Refused.one("units", `The shelf is short of ${wordList(missing)}. Nothing was moved.`);
  return plan.flatMap((p) => p.takes.map((t) => draw(locked, t.lotId, t.amount, "units", pieces, base)));
}

/** The batch's finished lot: the one it had before an undo, or a new one with the next number of the scheme. */
async function finishedLot(
  tx: Tx,
  b: typeof batch.$inferSelect,
  code: string,
  scheme: string,
  day: Day,
  best: Day,
): Promise<{ id: number; number: string }> {
  if (b.lotId !== null) {
    const [old] = await tx
      .update(lot)
      .set({ bestBefore: best, arrived: day })
      .where(eq(lot.id, b.lotId))
      .returning({ id: lot.id, number: lot.number });
    return old!;
  }
  const number = numberer(scheme, day, await takenNumbers(tx, numberHead(scheme, { code, day })))(code);
  const [fresh] = await tx
    .insert(lot)
    .values({ number, productId: b.productId, arrived: day, bestBefore: best })
    .returning({ id: lot.id, number: lot.number });
  return fresh!;
}

/** Pours a batch as one act. @throws Refused by field; then nothing is moved */
export function pour(db: Db, input: PourIn, doing: Doing): Promise<Done> {
  return perform(db, "pour", doing, async (tx, actId) => {
    const [b] = await tx.select().from(batch).where(eq(batch.id, input.batchId)).for("update");
    if (!b || b.pouredActId !== null || b.clearedActId !== null) throw Refused.one("", "This batch isn't on the bench any more.");
    const [size] = await tx
      .select({ fill: product.fill, name: recipe.name, code: recipe.code, keepsMonths: recipe.keepsMonths })
      .from(product)
      .innerJoin(recipe, eq(recipe.id, product.recipeId))
      .where(eq(product.id, b.productId));
    const settings = await readSettings(tx);
    const base = { actId, reason: "used" as const, batchId: b.id };

    const locked = await lockLots(
      tx,
      input.takes.map((t) => t.lotId),
    );
    const used: Lot[] = [...locked.values()].map((l) => ({ ...l }));
    const draws = input.takes.map((t, i) => draw(locked, t.lotId, t.weighed, `takes.${i}.weighed`, grams, base));
    const packing = await drawPackaging(tx, b.productId, input.units, doing.day, base);
    const spent = { ingredients: micros(-sum(draws.map((d) => d.value))), packaging: micros(-sum(packing.map((d) => d.value)) || 0) };
    const weighed = sum(input.takes.map((t) => t.weighed));
    const figures = {
      weighed,
      ...spent,
      units: input.units,
      fill: size!.fill,
      leftover: input.leftover,
      minutes: input.minutes,
      rates: settings,
    };
    if (!pourResult(figures))
      throw Refused.one(
        "units",
        `${input.units} × ${grams(size!.fill)} and ${grams(input.leftover)} left over come to more than the ${grams(weighed)} weighed in. Check the count, the leftover or a weight.`,
      );

    const best = bestBefore(doing.day, size!.keepsMonths, used);
    const made = await finishedLot(tx, b, size!.code, settings.batchScheme, doing.day, best.day);
    await tx
      .insert(movement)
      .values([
        ...draws,
        ...packing,
        { actId, lotId: made.id, qty: input.units, value: stockValue(spent), reason: "filled" as const, batchId: b.id },
      ]);
    await tx.delete(batchTake).where(eq(batchTake.batchId, b.id));
    await tx.insert(batchTake).values(input.takes.map((t) => ({ ...t, batchId: b.id })));
    await tx
      .update(batch)
      .set({
        pouredActId: actId,
        lotId: made.id,
        day: doing.day,
        units: input.units,
        leftover: input.leftover,
        minutes: input.minutes,
        note: input.note,
        hourly: settings.hourly,
        overheadHourly: settings.overheadHourly,
      })
      .where(eq(batch.id, b.id));
    return { path: `/bench/${b.id}`, summary: `Poured ${input.units} × ${size!.name}, lot ${made.number}` };
  });
}

/** Cost and yield of a poured batch, worked out from its movements. */
export async function batchResult(tx: Tx | Db, b: typeof batch.$inferSelect): Promise<PourResult | null> {
  if (b.pouredActId === null) return null;
  const rows = await tx
    .select({ value: movement.value, kind: material.kind })
    .from(movement)
    .innerJoin(lot, eq(lot.id, movement.lotId))
    .leftJoin(material, eq(material.id, lot.materialId))
    // What it took, with what was found since to have cost more or less.
    .where(
      sql`${movement.actId} = ${b.pouredActId} or ${movement.restates} in (select p.id from ${movement} p where p.act_id = ${b.pouredActId})`,
    );
  const takes = await tx.select({ lotId: batchTake.lotId, weighed: batchTake.weighed }).from(batchTake).where(eq(batchTake.batchId, b.id));
  const [size] = await tx
    .select({ fill: product.fill })
    .from(product)
    .where(inArray(product.id, [b.productId]));
  const isPacking = (kind: KindId | null): boolean => kind !== null && KINDS[kind].group === "packaging";
  const spent = rows.filter((r) => r.kind !== null);
  return pourResult({
    weighed: sum(takes.map((t) => t.weighed ?? (0 as Mg))),
    ingredients: micros(-sum(spent.filter((r) => !isPacking(r.kind)).map((r) => r.value)) || 0),
    packaging: micros(-sum(spent.filter((r) => isPacking(r.kind)).map((r) => r.value)) || 0),
    units: b.units!,
    fill: size!.fill,
    leftover: b.leftover!,
    minutes: b.minutes!,
    rates: { hourly: b.hourly!, overheadHourly: b.overheadHourly! },
  });
}
