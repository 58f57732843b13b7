/** Pouring: what was weighed leaves its lots, and finished units come in, each size with its own lot number. */
import { bestBefore } from "#core/batch/finishing/bestBefore";
import { WAITS } from "#core/batch/finishing/check";
import { isFarLoss, filledOf, FILL_TOLERANCE, stockValues } from "#core/batch/finishing/result";
import { numberer, numberHead } from "#core/lot/number";
import { allocate, mg, micros, sum, type Mg, type Micros } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { minutesBySize } from "#core/recipe/cost";
import { ofSteps } from "#core/recipe/scale";
import { onBench, type TakeIn } from "../planning/standing.ts";
import { Refused } from "#core/refused";
import { wordList } from "#core/words";
import type { Day } from "#core/when";
import { asc, eq } from "drizzle-orm";
import { defineAct } from "../../act/define.ts";
import type { Tx } from "../../client.ts";
import { freeLots, holdLots } from "../../ledger/holds.ts";
import { draw, lockLots, lotsOfMaterials, requireUsable, type NewMovement } from "../../ledger/lots.ts";
import { requireNoLaterActs } from "../../ledger/effective.ts";
import { takenNumbers } from "../../ledger/numbers.ts";
import { batch, batchSize, lot, movement, product, recipe, recipeVersion } from "../../schema.ts";
import { readSettings } from "../../settings/settings.ts";
import { keepLeftover } from "../planning/base.ts";
import { beginsSetting, neverSet } from "../weighing/events.ts";
import { drawPackaging, packagingOf, type Filled } from "../planning/packaging.ts";
import { nothingElsewhere, writeTakes, type Kept } from "../weighing/weigh.ts";

export interface PourIn {
  batchId: number;
  /** Every line with its weighed amount, in sheet order. */
  takes: readonly (TakeIn & { weighed: Mg })[];
  /** How many of each size were filled; a size nobody planned may be among them. */
  sizes: readonly { productId: number; units: number }[];
  leftover: Mg;
  /** It goes into a spare mould: a base on the shelf, at nothing, since its cost is in what was filled. */
  keepsLeftover?: boolean;
  minutes: number;
  note: string;
  /** What the sheet had when it was last saved, so that what was weighed elsewhere since isn't lost; nothing where nobody else is at it. */
  kept?: readonly Kept[];
}

type SizeRow = typeof batchSize.$inferSelect;

/** The sizes of a batch that were filled, one nobody planned added; and those that stayed empty. @throws Refused for another recipe's */
async function sizesFilled(tx: Tx, b: typeof batch.$inferSelect, filled: PourIn["sizes"]): Promise<Filled[]> {
  const planned = await tx.select().from(batchSize).where(eq(batchSize.batchId, b.id)).orderBy(asc(batchSize.position));
  const out: Filled[] = [];
  for (const [i, { productId, units }] of filled.entries()) {
    if (units === 0) continue;
    let row = planned.find((p) => p.productId === productId);
    if (!row) {
      const [size] = await tx.select().from(product).where(eq(product.id, productId));
      if (!size || size.recipeId !== b.recipeId) throw Refused.one(`sizes.${i}.units`, "That isn't a size of this recipe.");
      const { label, fill, unitMinutesHundredths } = size;
      [row] = await tx
        .insert(batchSize)
        .values({ batchId: b.id, position: planned.length + i, productId, planned: 0, label, fill, unitMinutesHundredths })
        .returning();
    }
    out.push({ ...row!, units, at: i });
  }
  if (out.length === 0) throw Refused.one("sizes.0.units", "Enter how many were filled.");
  for (const p of planned)
    if (!out.some((o) => o.id === p.id))
      await tx.update(batchSize).set({ units: 0, minutesHundredths: null }).where(eq(batchSize.id, p.id));
  return out;
}

/** The finished lot of each size: the one it had before the pouring was taken back, or a new one with the next number of the scheme. */
async function finishedLots(
  tx: Tx,
  sizes: readonly SizeRow[],
  made: { name: string; code: string; scheme: string; day: Day; best: readonly Day[] },
): Promise<{ id: number; number: string }[]> {
  const { name, code, day } = made;
  const next = numberer(made.scheme, day, await takenNumbers(tx, numberHead(made.scheme, { code, day })));
  const out: { id: number; number: string }[] = [];
  for (const [i, { lotId, productId, label, fill }] of sizes.entries()) {
    const best = made.best[i]!;
    const facts = { name, label, fill, arrived: day, printed: best, bestBefore: best, bestBy: "printed" as const };
    const [row] =
      lotId === null
        ? await tx
            .insert(lot)
            .values({ ...facts, number: next(code), productId })
            .returning({ id: lot.id, number: lot.number })
        : await tx.update(lot).set(facts).where(eq(lot.id, lotId)).returning({ id: lot.id, number: lot.number });
    out.push(row!);
  }
  return out;
}

/**
 * The size each line goes into alone; null where it goes into the whole pot.
 * @throws Refused beside what was weighed for a part of which nothing was filled
 */
function partsOf(lines: readonly { sizeId: number | null; weighed: Mg; name: string }[], sizes: readonly Filled[]): (Filled | null)[] {
  return lines.map(({ sizeId, weighed, name }, i) => {
    const size = sizes.find((s) => s.id === sizeId);
    if (sizeId !== null && !size && weighed > 0)
      throw Refused.one(
        `takes.${i}.weighed`,
        `${name} was weighed for a part of which none is filled. Count what was filled, or strike the weight out (0).`,
      );
    return size ?? null;
  });
}

const spentOn = (moves: readonly NewMovement[]): Micros => micros(-moves.reduce((a, m) => a + m.value, 0) || 0);

/** Pours a batch as one act. @throws Refused by field; then nothing is moved */
export const pour = defineAct({
  kind: "pour",
  run: async (tx, input: PourIn, { actId, day }) => {
    const { batch: b, lines } = await onBench(tx, input.batchId, input.takes);
    if (input.kept) await nothingElsewhere(tx, b.id, input.takes, input.kept);
    const [made] = await tx
      .select({ version: recipeVersion, code: recipe.code })
      .from(recipeVersion)
      .innerJoin(recipe, eq(recipe.id, recipeVersion.recipeId))
      .where(eq(recipeVersion.id, b.versionId));
    const { version, code } = made!;
    const settings = await readSettings(tx);
    const sizes = await sizesFilled(tx, b, input.sizes);
    const base = { actId, reason: "used" as const, batchId: b.id };

    const needs = await packagingOf(tx, sizes);
    const packs = await lotsOfMaterials(
      tx,
      needs.map((n) => n.of),
    );
    const locked = await lockLots(tx, [...input.takes.map((t) => t.lotId), ...packs.map((l) => l.id)]);
    const used = input.takes.map((t, i) => ({ ...requireUsable(locked, t.lotId, "weigh", day, `takes.${i}.lot`) }));
    const into = partsOf(lines, sizes);
    const drawn = input.takes.map((t, i) => draw(locked, t.lotId, t.weighed, `takes.${i}.weighed`, grams, base));
    const addedTo = (s: Filled | null): Mg => sum(input.takes.flatMap((t, i) => (into[i] === s ? t.weighed : [])));
    const weighed = sum(input.takes.map((t) => t.weighed));
    const filled = sizes.reduce((a, s) => a + filledOf({ ...s, added: addedTo(s) }), 0);
    if (weighed > 0 && input.leftover >= weighed)
      throw Refused.one("leftover", `All of the ${grams(weighed)} weighed in would be left over. Check the weight, or what was left.`);
    if (filled > weighed - input.leftover + weighed * FILL_TOLERANCE)
      throw Refused.one(
        `sizes.${sizes[0]!.at}.units`,
        `${wordList([...sizes.map((s) => `${s.units} × ${s.label}`), `${grams(input.leftover)} left over`])} come to more than the ${grams(weighed)} weighed in. Check the count, the leftover or a weight.`,
      );

    const lost = weighed - input.leftover - filled;
    if (input.note.trim() === "" && weighed > 0 && isFarLoss(lost / weighed, version.lossBp))
      throw Refused.one(
        "leftover",
        `${wordList(sizes.map((s) => `${s.units} × ${s.label}`))} hold ${grams(filled)} of the ${grams(weighed)} weighed in: ${grams(lost)} would be lost in pot and jug. Enter what was left, or correct the count; if it really went, say how in the note.`,
      );

    // A part keeps no longer than the base, nor than what was stirred into it alone.
    const best = sizes.map(
      (s) =>
        bestBefore(
          day,
          version.keepsMonths,
          used.filter((_, i) => into[i] === null || into[i] === s),
        ).day,
    );
    const lots = await finishedLots(tx, sizes, {
      name: version.name,
      code,
      scheme: settings.batchScheme,
      day,
      best,
    });
    const waits = { by: "check", source: b.id } as const;
    const filledLots = lots.map((l) => l.id);
    await freeLots(tx, filledLots, waits);
    if (settings.checkFirst) await holdLots(tx, filledLots, { ...waits, reason: WAITS });
    const lotOf = new Map<Filled | null, number | null>([[null, null], ...sizes.map((s, i) => [s, lots[i]!.id] as const)]);
    const draws = drawn.map((d, i) => ({ ...d, intoLotId: lotOf.get(into[i]!)! }));
    const packing = drawPackaging(
      locked,
      needs,
      sizes.map((s, i) => ({ ...s, into: lots[i]!.id })),
      day,
      base,
    );
    const values = stockValues(
      spentOn(draws.filter((_, i) => into[i] === null)),
      mg(Math.max(0, addedTo(null) - input.leftover)),
      sizes.map((s, i) => ({
        ...s,
        added: addedTo(s),
        own: spentOn([...packing[i]!, ...draws.filter((_, n) => into[n] === s)]),
      })),
    );
    await tx.insert(movement).values([
      ...draws,
      ...packing.flat(),
      ...sizes.map((s, i) => ({
        actId,
        lotId: lots[i]!.id,
        qty: s.units,
        value: values[i]!,
        reason: "filled" as const,
        batchId: b.id,
      })),
    ]);
    const kept =
      input.keepsLeftover && input.leftover > 0
        ? await keepLeftover(
            tx,
            { actId, day },
            {
              name: version.name,
              lines: lines.filter((_, i) => into[i] === null),
              leftover: input.leftover,
              best: bestBefore(
                day,
                version.keepsMonths,
                used.filter((_, i) => into[i] === null),
              ).day,
            },
          )
        : null;
    await writeTakes(tx, b.id, lines);
    const minutes = sharedMinutes(input.minutes, version.batchMinutes, sizes);
    for (const [i, s] of sizes.entries())
      await tx.update(batchSize).set({ units: s.units, lotId: lots[i]!.id, minutesHundredths: minutes[i]! }).where(eq(batchSize.id, s.id));
    await tx
      .update(batch)
      .set({
        pouredActId: actId,
        day,
        leftover: input.leftover,
        minutes: input.minutes,
        note: input.note,
        netRule: settings.netRule,
        scaleStep: ofSteps(1, settings.scale),
        hourly: settings.hourly,
        overheadHourly: settings.overheadHourly,
      })
      .where(eq(batch.id, b.id));
    await beginsSetting(tx, b.id, version.type, day);
    const numbers = wordList(lots.map((l) => l.number));
    const left = kept ? `; ${grams(input.leftover)} left over saved as ${kept.number}` : "";
    return {
      path: `/bench/${b.id}`,
      summary:
        sizes.length === 1
          ? `Poured ${sizes[0]!.units} × ${version.name}, lot ${numbers}${left}`
          : `Poured ${wordList(sizes.map((s) => `${s.units} × ${s.label}`))} of ${version.name}, lots ${numbers}${left}`,
      about: [
        { kind: "batch", id: b.id, changes: true },
        { kind: "recipe", id: b.recipeId },
        ...sizes.map((s) => ({ kind: "product" as const, id: s.productId })),
        ...input.takes.map((t) => ({ kind: "material" as const, id: t.materialId })),
      ],
      leaves: null,
    };
  },
  leaves: null,
  back: async (tx, _left, { undoes }) => {
    const [held] = await tx.select({ id: batch.id }).from(batch).where(eq(batch.pouredActId, undoes)).for("no key update");
    if (held)
      await requireNoLaterActs(tx, { kind: "batch", id: held.id }, undoes, ["checkBatch"], "What was poured has been checked since.");
    const [was] = await tx.update(batch).set({ pouredActId: null }).where(eq(batch.pouredActId, undoes)).returning({ id: batch.id });
    if (was) await neverSet(tx, was.id);
  },
});

/** The minutes a batch took, in hundredths, shared over its sizes as they were expected to fall. */
function sharedMinutes(minutes: number, batchMinutes: number, sizes: readonly Filled[]): number[] {
  const expected = minutesBySize(
    batchMinutes,
    sizes.map((s) => ({ ...s, unitMinutes: s.unitMinutesHundredths / 100 })),
  ).map((m) => Math.round(m * 100));
  return allocate(minutes * 100, expected.some((m) => m > 0) ? expected : sizes.map((s) => s.units * s.fill));
}
