/** Setting out a batch: a version of a recipe at a size, poured into which containers, with the lots to take. Nothing moves yet. */
import { mg, sum, type Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { scaleTo } from "#core/recipe/scale";
import type { Day } from "#core/when";
import { wordList } from "#core/words";
import { Refused } from "#core/refused";
import { passedOver } from "#core/stock/lots";
import { planTakes, shelfOf } from "#core/stock/shelf";
import { unspoken } from "#core/stock/spokenFor";
import { and, eq, inArray } from "drizzle-orm";
import { defineAct } from "../act/define.ts";
import { nothingLater } from "../act/standing.ts";
import type { Tx } from "../client.ts";
import { lockLots, lotsOfMaterials, useOf } from "../ledger/lots.ts";
import { batch, batchSize, batchTake, lot, material } from "../schema.ts";
import { onTheBench, standing } from "./standing.ts";
import { holdPromises, spokenFor } from "./spokenFor.ts";
import { readForBatch } from "../recipe/read.ts";

export interface SetOutIn {
  recipeId: number;
  /** The number of the version it is made by; the newest where none is said. */
  version?: number;
  batchMg: Mg;
  /** How many of each size are meant to be filled. */
  sizes: readonly { productId: number; units: number }[];
  /** Bases that are melted in again, as part of the batch's weight; the lines of the recipe make up the rest. */
  melted?: readonly { lotId: number; amount: Mg }[];
}

/** The bases of a batch, as they may be weighed, each with its material. @throws Refused beside `melted.0.amount` and on */
async function basesOf(tx: Tx, { melted = [], batchMg }: SetOutIn, day: Day) {
  const wanted = melted.flatMap((m, i) => (m.amount > 0 ? [{ ...m, field: `melted.${i}.amount` }] : []));
  if (wanted.length === 0) return [];
  if (sum(wanted.map((m) => m.amount)) > batchMg)
    throw Refused.one(wanted[0]!.field, `The whole batch is ${grams(batchMg)}. Melt in less, or make more of it.`);
  const locked = await lockLots(
    tx,
    wanted.map((m) => m.lotId),
  );
  return wanted.map((m) => {
    const { of, name, kind, number } = useOf(locked, m.lotId, "weigh", day, m.field);
    if (kind !== "base") throw Refused.one(m.field, `Lot ${number} isn't a base that was melted down.`);
    return { ...m, of, name };
  });
}

/**
 * Plans the lots use-first and stores the batch on the bench.
 * @throws Refused on `size` naming everything the shelf is short of, and by how much; then nothing is stored
 */
export const setOut = defineAct({
  kind: "setOut",
  run: async (tx, input: SetOutIn, { day }) => {
    const w = await readForBatch(tx, input.recipeId, input.version);
    if (!w)
      throw input.version === undefined
        ? Refused.one("recipe", "That recipe isn't here any more.")
        : Refused.one("version", `Version ${input.version} isn't there any more: it was taken back. Choose another.`);
    if (w.recipe.retired) throw Refused.one("recipe", `${w.recipe.name} is put away. Bring it back first to make it.`);
    const wanted = input.sizes.filter((s) => s.units > 0);
    const sizes = wanted.map(({ productId, units }) => {
      const size = w.sizes.find((s) => s.id === productId);
      if (!size) throw Refused.one("size", `${w.recipe.name} isn't made in that size any more.`);
      return { ...size, units };
    });
    if (sizes.length === 0) throw Refused.one("size", "That doesn't fill a single unit.");
    const melted = await basesOf(tx, input, day);
    const weights = scaleTo(
      w.lines.map((l) => l.weight),
      mg(input.batchMg - sum(melted.map((m) => m.amount))),
    );
    const needs = [
      ...w.lines.map((l, i) => ({ of: l.materialId, amount: weights[i] as number })),
      ...sizes.flatMap((s) => s.packaging.map((p) => ({ of: p.materialId, amount: p.pieces * s.units }))),
    ];
    const names = await namesOf(
      tx,
      needs.map((n) => n.of),
    );
    await holdPromises(tx);
    const spoken = await spokenFor(tx);
    const all = await lotsOfMaterials(
      tx,
      [...needs, ...melted].map((n) => n.of),
    );
    const lots = unspoken(all, spoken, day);
    for (const m of melted) {
      const free = lots.find((l) => l.id === m.lotId)?.onHand ?? 0;
      if (m.amount > free)
        throw Refused.one(m.field, `${free === 0 ? "None" : `Only ${grams(free)}`} of it is free for this batch. Nothing was set out.`);
    }
    const plan = planTakes(needs, shelfOf(lots, day));
    const short = new Map<number, { amount: number; weighed: boolean }>();
    plan.forEach((p, i) => {
      if (p.short > 0) short.set(needs[i]!.of, { amount: (short.get(needs[i]!.of)?.amount ?? 0) + p.short, weighed: i < w.lines.length });
    });
    if (short.size > 0) {
      const missing = [...short].map(([id, s]) => `${s.weighed ? grams(s.amount) : `${s.amount} pcs`} of ${names.get(id)}`);
      const over = passedOver(
        all.filter((l) => short.has(l.of)),
        day,
      );
      // Somebody else was promised some of it: that batch could be cleared off, or poured first.
      const others = new Map(spoken.promised.filter((p) => short.has(p.of)).map((p) => [p.batchId, p.recipe]));
      const whose =
        others.size > 0
          ? ` What ${wordList([...others.values()])} on the bench ${others.size === 1 ? "is" : "are"} promised doesn't count.`
          : "";
      throw Refused.one(
        "size",
        `The shelf is short of ${wordList(missing)}.${over}${whose} Nothing was set out.`,
        [...others].map(([id, name]) => ({ to: `/bench/${id}`, name })),
      );
    }
    const [row] = await tx
      .insert(batch)
      .values({ recipeId: w.recipe.id, versionId: w.recipe.versionId, day, plannedMg: input.batchMg })
      .returning({ id: batch.id });
    const batchId = row!.id;
    await tx.insert(batchSize).values(
      sizes.map(({ id, units, label, fill, unitMinutesHundredths }, position) => ({
        batchId,
        position,
        productId: id,
        planned: units,
        label,
        fill,
        unitMinutesHundredths,
      })),
    );
    await tx.insert(batchTake).values([
      ...w.lines.flatMap(({ materialId }, position) =>
        plan[position]!.takes.map((t) => ({
          batchId,
          position,
          materialId,
          name: names.get(materialId)!,
          lotId: t.lotId,
          planned: mg(t.amount),
        })),
      ),
      ...melted.map((m, i) => ({
        batchId,
        position: w.lines.length + i,
        materialId: m.of,
        name: m.name,
        lotId: m.lotId,
        planned: m.amount,
      })),
    ]);
    return {
      path: `/bench/${batchId}`,
      summary: `Set out ${w.recipe.name}, ${wordList(sizes.map((s) => `${s.units} × ${s.label}`))}`,
      about: [
        { kind: "batch", id: batchId, changes: true },
        { kind: "recipe", id: w.recipe.id },
      ],
      leaves: null,
    };
  },
  leaves: null,
  back: { never: "Clear the batch off the bench instead." },
});

const namesOf = async (tx: Tx, ids: readonly number[]): Promise<Map<number, string>> =>
  new Map(
    (
      await tx
        .select({ id: material.id, name: material.name })
        .from(material)
        .where(inArray(material.id, [...new Set(ids)]))
    ).map((m) => [m.id, m.name]),
  );

export interface TakeIn {
  position: number;
  materialId: number;
  lotId: number;
  planned: Mg;
  weighed: Mg | null;
}

/**
 * A batch on the bench, held for this act, with the lines of its weigh sheet as they may be weighed.
 * @param had what the window had of the sheet: a line that was added elsewhere since, it can't send; without it every line is asked for
 * @throws Refused once it is poured or cleared; for lines left out; beside a lot of another material
 */
export async function onBench<T extends TakeIn>(
  tx: Tx,
  batchId: number,
  takes: readonly T[],
  had?: readonly Pick<TakeIn, "position" | "lotId">[],
) {
  const open = await standing(tx, batchId);
  const stored = await tx.select().from(batchTake).where(eq(batchTake.batchId, batchId));
  const line = (t: { position: number; materialId: number }): string => `${t.position} ${t.materialId}`;
  const names = new Map(stored.map((t) => [line(t), t]));
  const sent = new Set(takes.map(line));
  const unknown = (t: (typeof stored)[number]): boolean => had?.some((h) => h.position === t.position && h.lotId === t.lotId) === false;
  if (stored.some((t) => !sent.has(line(t)) && !unknown(t)) || [...sent].some((k) => !names.has(k)))
    throw Refused.one("", "These aren't the lines this batch was set out with. Reload the page and weigh on from there.");
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
  if (wrong >= 0) throw Refused.one(`takes.${wrong}.lot`, "That lot is of another material. Choose a lot of what the line says.");
  return { batch: open, lines: takes.map((t) => ({ ...t, batchId, name: names.get(line(t))!.name, sizeId: names.get(line(t))!.sizeId })) };
}

/** @throws Refused when another batch was promised meanwhile what this one was */
async function stillFree(tx: Tx, batchId: number, day: Day): Promise<void> {
  await holdPromises(tx);
  const takes = await tx.select().from(batchTake).where(eq(batchTake.batchId, batchId));
  const spoken = await spokenFor(tx, batchId);
  const lots = await lotsOfMaterials(
    tx,
    takes.map((t) => t.materialId),
  );
  const free = new Map(unspoken(lots, spoken, day).map((l) => [l.id, l.onHand]));
  const gone = takes.filter((t) => t.planned > (free.get(t.lotId) ?? 0));
  // What is used up or thrown away since is found when it is weighed; what somebody else counts on is said now.
  const others = new Map(spoken.promised.filter((p) => gone.some((t) => t.materialId === p.of)).map((p) => [p.batchId, p.recipe]));
  if (others.size > 0)
    throw Refused.one(
      "",
      `${wordList([...new Set(gone.map((t) => t.name))])} of it ${gone.length === 1 ? "is" : "are"} promised to ${wordList([...others.values()])} by now. Clear that off first, or set this out anew.`,
      [...others].map(([id, name]) => ({ to: `/bench/${id}`, name })),
    );
}

/** Clears a batch off the bench without pouring it; can be taken back. */
export const clearBatch = defineAct({
  kind: "clearBatch",
  run: async (tx, { batchId }: { batchId: number }, { actId }) => {
    const [row] = await tx
      .update(batch)
      .set({ clearedActId: actId })
      .where(and(eq(batch.id, batchId), onTheBench))
      .returning({ id: batch.id });
    if (!row) throw Refused.one("", "This batch isn't on the bench any more.");
    return {
      path: "/bench",
      summary: "Cleared a batch off the bench; nothing was used",
      about: [{ kind: "batch", id: batchId, changes: true }],
      leaves: null,
    };
  },
  leaves: null,
  back: async (tx, _left, { undoes, day }) => {
    const [row] = await tx.update(batch).set({ clearedActId: null }).where(eq(batch.clearedActId, undoes)).returning({ id: batch.id });
    if (!row) return undefined;
    await nothingLater(tx, { kind: "batch", id: row.id }, undoes, ["pour"], "It has been poured since.");
    await stillFree(tx, row.id, day);
    return `/bench/${row.id}`;
  },
});
