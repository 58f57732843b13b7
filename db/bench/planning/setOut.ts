/** Setting out a batch: a version of a recipe at a size, poured into which containers, with the lots to take. Nothing moves yet. */
import { mg, sum, type Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { scaleTo } from "#core/recipe/scale";
import type { Day } from "#core/when";
import { wordList } from "#core/words";
import { Refused } from "#core/refused";
import { passedOver } from "#core/stock/lots";
import { planTakes, stockOnHand } from "#core/stock/shelf";
import { unreserved } from "#core/stock/reservations";
import { inArray } from "drizzle-orm";
import { defineAct } from "../../act/define.ts";
import type { Tx } from "../../client.ts";
import { lockLots, lotsOfMaterials, requireUsable } from "../../ledger/lots.ts";
import { batch, batchSize, batchTake, material } from "../../schema.ts";
import { insertPart } from "../parts/parts.ts";
import { partsToSetOut, type PlannedPart } from "../parts/setOutParts.ts";
import { lockReservations, readReservations } from "./reservations.ts";
import { readForBatch } from "../../recipe/read.ts";

export interface SetOutIn {
  recipeId: number;
  /** The number of the version it is made by; the newest by default. */
  version?: number;
  batchMg: Mg;
  /** How many of each size are meant to be filled. */
  sizes: readonly { productId: number; units: number }[];
  /** Of what was made of part of a pot before, how many; each out of its size. */
  parts?: readonly { productId: number; units: number }[];
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
    const { of, name, kind, number } = requireUsable(locked, m.lotId, "weigh", day, m.field);
    if (kind !== "base") throw Refused.one(m.field, `Lot ${number} isn't a base that was melted down.`);
    return { ...m, of, name };
  });
}

/** What is to be made: by which version, and into which sizes that are made of it. */
async function wanted(tx: Tx, { recipeId, version, sizes }: SetOutIn) {
  const w = await readForBatch(tx, recipeId, version);
  if (!w)
    throw version === undefined
      ? Refused.one("recipe", "That recipe isn't here any more.")
      : Refused.one("version", `Version ${version} isn't there any more: it was taken back. Choose another.`);
  if (w.recipe.retired) throw Refused.one("recipe", `${w.recipe.name} is put away. Bring it back first to make it.`);
  const filled = sizes.flatMap(({ productId, units }) => {
    if (units === 0) return [];
    const size = w.sizes.find((s) => s.id === productId);
    if (!size) throw Refused.one("size", `${w.recipe.name} isn't made in that size any more.`);
    return [{ ...size, units }];
  });
  if (filled.length === 0) throw Refused.one("size", "That doesn't fill a single unit.");
  return { w, sizes: filled };
}

/** Something a batch takes of the shelf: weighed into it, or so many pieces. */
interface Need {
  of: number;
  amount: number;
  measured: "weight" | "count";
}

/**
 * Out of which lots each is taken, use-first, out of what nobody else has reserved.
 * @throws Refused on `size` naming everything the shelf is short of, and by how much; beside a base of which there is less
 */
async function planned(tx: Tx, needs: readonly Need[], melted: Awaited<ReturnType<typeof basesOf>>, names: Map<number, string>, day: Day) {
  await lockReservations(tx);
  const reserved = await readReservations(tx);
  const all = await lotsOfMaterials(
    tx,
    [...needs, ...melted].map((n) => n.of),
  );
  const lots = unreserved(all, reserved, day);
  for (const m of melted) {
    const free = lots.find((l) => l.id === m.lotId)?.onHand ?? 0;
    if (m.amount > free)
      throw Refused.one(m.field, `${free === 0 ? "None" : `Only ${grams(free)}`} of it is free for this batch. Nothing was set out.`);
  }
  const plan = planTakes(needs, stockOnHand(lots, day));
  const short = new Map<number, Need>();
  plan.forEach((p, i) => {
    const need = needs[i]!;
    if (p.short > 0) short.set(need.of, { ...need, amount: (short.get(need.of)?.amount ?? 0) + p.short });
  });
  if (short.size === 0) return plan;
  const missing = [...short.values()].map((s) => `${s.measured === "weight" ? grams(s.amount) : `${s.amount} pcs`} of ${names.get(s.of)}`);
  const over = passedOver(
    all.filter((l) => short.has(l.of)),
    day,
  );
  // Another batch has reserved some of it: that batch could be cleared off, or poured first.
  const others = new Map(reserved.holders.filter((p) => short.has(p.of)).map((p) => [p.batchId, p.recipe]));
  const whose = others.size > 0 ? ` What is reserved for ${wordList([...others.values()])} on the bench doesn't count.` : "";
  throw Refused.one(
    "size",
    `The shelf is short of ${wordList(missing)}.${over}${whose} Nothing was set out.`,
    [...others].map(([id, name]) => ({ to: `/bench/${id}`, name })),
  );
}

/** Writes down what is to be filled, and how many of each as something else. @returns the rows of the parts, in their order */
async function fill(
  tx: Tx,
  batchId: number,
  sizes: Awaited<ReturnType<typeof wanted>>["sizes"],
  parts: readonly PlannedPart[],
): Promise<number[]> {
  const rows = await tx
    .insert(batchSize)
    .values(
      sizes.map(({ id, units, label, fill, unitMinutesHundredths }, position) => ({
        ...{ batchId, position, productId: id, planned: units },
        ...{ label, fill, unitMinutesHundredths },
      })),
    )
    .returning();
  const ids = [];
  for (const [i, { at, variant, units }] of parts.entries()) {
    const size = rows.find((r) => r.position === at)!;
    ids.push((await insertPart(tx, size, sizes.length + i, variant, units)).id);
  }
  return ids;
}

/**
 * Plans the lots use-first and stores the batch on the bench.
 * @throws Refused on `size` naming everything the shelf is short of, and by how much; beside `parts.0.units` and `melted.0.amount`; then
 *   nothing is stored
 */
export const setOut = defineAct({
  kind: "setOut",
  run: async (tx, input: SetOutIn, { day }) => {
    const { w, sizes } = await wanted(tx, input);
    const melted = await basesOf(tx, input, day);
    const weights = scaleTo(
      w.lines.map((l) => l.weight),
      mg(input.batchMg - sum(melted.map((m) => m.amount))),
    );
    const parts = partsToSetOut(w, sizes, input.parts ?? []);
    /** What is weighed: the pot's lines, what is melted in after them, and what is stirred into each part. */
    const lines = [
      ...w.lines.map((l, i) => ({ of: l.materialId, amount: weights[i]!, position: i, part: null })),
      ...parts
        .flatMap((p, part) => p.stirred.map((s) => ({ ...s, part })))
        .map((s, i) => ({ ...s, position: w.lines.length + melted.length + i })),
    ];
    const asIs = sizes.map((s, at) => ({ ...s, units: s.units - parts.reduce((a, p) => (p.at === at ? a + p.units : a), 0) }));
    const sold = [...asIs, ...parts.map((p) => ({ ...p.variant, units: p.units }))].filter((s) => s.units > 0);
    const needs: Need[] = [
      ...lines.map(({ of, amount }) => ({ of, amount, measured: "weight" as const })),
      ...sold.flatMap((s) => s.packaging.map((p) => ({ of: p.materialId, amount: p.pieces * s.units, measured: "count" as const }))),
    ];
    const names = await namesOf(
      tx,
      needs.map((n) => n.of),
    );
    const plan = await planned(tx, needs, melted, names, day);
    const [row] = await tx
      .insert(batch)
      .values({ recipeId: w.recipe.id, versionId: w.recipe.versionId, day, plannedMg: input.batchMg })
      .returning({ id: batch.id });
    const batchId = row!.id;
    const partIds = await fill(tx, batchId, sizes, parts);
    await tx.insert(batchTake).values([
      ...lines.flatMap(({ of, position, part }, i) =>
        plan[i]!.takes.map((t) => ({
          ...{ batchId, position, materialId: of, name: names.get(of)!, sizeId: part === null ? null : partIds[part]! },
          ...{ lotId: t.lotId, planned: mg(t.amount) },
        })),
      ),
      ...melted.map((m, i) => ({
        ...{ batchId, position: w.lines.length + i, materialId: m.of, name: m.name },
        ...{ lotId: m.lotId, planned: m.amount },
      })),
    ]);
    return {
      path: `/bench/${batchId}`,
      summary: `Set out ${w.recipe.name}, ${wordList(sold.map((s) => `${s.units} × ${s.label}`))}`,
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
