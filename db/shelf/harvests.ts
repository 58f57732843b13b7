/** Harvests: a picking, weighed again as it dries, becomes a herb lot with its year. */
import { groupBy } from "#core/collect";
import { DRYING_METHODS, harvestValue, readDry, type DryingMethod, type HerbValue } from "#core/infusion/drying";
import type { Dryness } from "#core/material/dryness";
import type { Mg } from "#core/measure/exact";
import type { UnitCost } from "#core/measure/money";
import { grams } from "#core/measure/write";
import { Refused } from "#core/refused";
import { addMonths, sayFullDay, type Day } from "#core/when";
import { and, asc, desc, eq, inArray, isNull, or } from "drizzle-orm";
import { object } from "yup";
import { defineAct } from "../act/define.ts";
import { undoId } from "../act/left.ts";
import { requireNoLaterActs, isEffective } from "../ledger/effective.ts";
import type { Reads, Tx } from "../client.ts";
import { LISTED_AT_MOST } from "../lists.ts";
import { harvest, harvestCheck, lot, material, movement } from "../schema.ts";
import { readSettings } from "../settings/settings.ts";
import { makeLots } from "./makeLots.ts";

/** Harvests with their weighings, those still drying first; of one id, of one material, or all. */
export async function listHarvests(db: Reads, only?: { id?: number; materialId?: number; drying?: boolean }) {
  const rows = await db
    .select({ harvest, material: harvest.name, number: lot.number, onHand: lot.onHand, bestBefore: lot.bestBefore })
    .from(harvest)
    .leftJoin(lot, eq(lot.id, harvest.lotId))
    .where(
      and(
        or(isNull(harvest.pickedActId), isEffective(harvest.pickedActId)),
        only?.id === undefined ? undefined : eq(harvest.id, only.id),
        only?.materialId === undefined ? undefined : eq(harvest.materialId, only.materialId),
        only?.drying ? isNull(harvest.driedActId) : undefined,
      ),
    )
    .orderBy(desc(isNull(harvest.driedActId)), desc(harvest.picked), desc(harvest.id))
    .limit(LISTED_AT_MOST);
  const ids = rows.map((r) => r.harvest.id);
  const checks = ids.length
    ? await db.select().from(harvestCheck).where(inArray(harvestCheck.harvestId, ids)).orderBy(asc(harvestCheck.day), asc(harvestCheck.id))
    : [];
  const of = groupBy(checks, (c) => c.harvestId);
  return rows.map((r) => ({ ...r, checks: of.get(r.harvest.id) ?? [] }));
}

export type HarvestRow = Awaited<ReturnType<typeof listHarvests>>[number];

export interface PickIn {
  materialId: number;
  picked: Day;
  place: string;
  fresh: Mg;
  method: DryingMethod;
  celsius: number | null;
  minutes: number;
  note: string;
}

/** Notes a picking and how it is dried. @throws Refused for something that isn't a herb */
export const pick = defineAct({
  kind: "pick",
  run: async (tx, input: PickIn, { actId }) => {
    const [m] = await tx.select({ name: material.name, kind: material.kind }).from(material).where(eq(material.id, input.materialId));
    if (!m || m.kind !== "herb") throw Refused.one("material", "Choose one of the herbs of your shelf, or add it first.");
    const [row] = await tx
      .insert(harvest)
      .values({ ...input, name: m.name, pickedActId: actId })
      .returning({ id: harvest.id });
    return {
      path: `/shelf/harvests/${row!.id}`,
      summary: `Picked ${grams(input.fresh)} of ${m.name}, drying: ${DRYING_METHODS[input.method].toLowerCase()}`,
      about: aboutHarvest(row!.id, input.materialId),
      leaves: { harvestId: row!.id },
    };
  },
  leaves: object({ harvestId: undoId() }),
  // A picking that was taken back is listed no more; that is asked of the act it was noted by.
  back: async (tx, { harvestId }, { undoes }) => {
    await requireNoLaterActs(
      tx,
      { kind: "harvest", id: harvestId },
      undoes,
      ["weighHarvest", "harvest"],
      "It has been weighed or dried since.",
    );
    return "/shelf/harvests";
  },
});

const aboutHarvest = (id: number, materialId: number) => [
  { kind: "harvest" as const, id, changes: true },
  { kind: "material" as const, id: materialId },
];

async function drying(tx: Tx, id: number): Promise<typeof harvest.$inferSelect> {
  const [h] = await tx
    .select()
    .from(harvest)
    .where(and(eq(harvest.id, id), or(isNull(harvest.pickedActId), isEffective(harvest.pickedActId))))
    .for("no key update");
  if (!h || h.driedActId !== null) throw Refused.one("", "That harvest isn't drying any more.");
  return h;
}

export interface WeighHarvestIn {
  harvestId: number;
  day: Day;
  weight: Mg;
  celsius: number | null;
  note: string;
}

/**
 * A herb grows no heavier as it dries: one weighing above another before it is a slip of the hand, or needs a word.
 * @throws Refused beside `field`
 */
async function lighterThanBefore(tx: Tx, harvestId: number, day: Day, weight: Mg, field: string, why: string): Promise<void> {
  if (why.trim() !== "") return;
  const all = await tx
    .select()
    .from(harvestCheck)
    .where(eq(harvestCheck.harvestId, harvestId))
    .orderBy(asc(harvestCheck.day), asc(harvestCheck.id));
  const before = all.filter((c) => c.day <= day).at(-1);
  const after = all.find((c) => c.day > day);
  const off =
    before && weight > before.weight ? { than: before, is: "more" } : after && weight < after.weight ? { than: after, is: "less" } : null;
  if (off)
    throw Refused.one(
      field,
      `That is ${off.is} than the ${grams(off.than.weight)} of ${sayFullDay(off.than.day)}, and it dries. Check the weight, or say beside it why.`,
    );
}

/** Notes a weighing on the way. @throws Refused for more than was picked, a day before it, or more than it weighed before without a word why */
export const weighHarvest = defineAct({
  kind: "weighHarvest",
  dayOf: (input: WeighHarvestIn) => input.day,
  run: async (tx, input) => {
    const h = await drying(tx, input.harvestId);
    if (input.weight > h.fresh) throw Refused.one("weight", `That is more than the ${grams(h.fresh)} picked. Check the weight.`);
    if (input.day < h.picked) throw Refused.one("day", "That is before it was picked.");
    await lighterThanBefore(tx, h.id, input.day, input.weight, "weight", input.note);
    const [row] = await tx.insert(harvestCheck).values(input).returning({ id: harvestCheck.id });
    return {
      path: `/shelf/harvests/${h.id}`,
      summary: `Weighed ${h.name} as it dries: ${grams(input.weight)}`,
      about: aboutHarvest(h.id, h.materialId),
      leaves: { checkId: row!.id },
    };
  },
  leaves: object({ checkId: undoId() }),
  back: async (tx, { checkId }) => {
    await tx.delete(harvestCheck).where(eq(harvestCheck.id, checkId));
  },
});

export interface DryIn {
  harvestId: number;
  dry: Mg;
  snaps: boolean;
  /** Minutes in all. */
  minutes: number;
  valuedBy: HerbValue;
  /** Needed for the market price. */
  market: UnitCost | null;
  /** Why it is heavier than it was weighed last, where it is. */
  why?: string;
}

/**
 * Puts a dried harvest on the shelf as a lot of its herb. One that doesn't snap is noted as not yet dry, and can't go into a shelf
 * infusion without a reason.
 */
export const finishHarvest = defineAct({
  kind: "harvest",
  run: async (tx, { why = "", ...input }: DryIn, { actId, day }) => {
    const h = await drying(tx, input.harvestId);
    const dry = readDry(h.fresh, input.dry, input.snaps);
    if (!dry.ok) throw Refused.one("dry", dry.problem.say);
    if (day < h.picked) throw Refused.one("dry", "It can't be dry before it was picked.");
    await lighterThanBefore(tx, h.id, day, input.dry, "dry", why);
    const [m] = await tx.select().from(material).where(eq(material.id, h.materialId));
    const { hourly } = await readSettings(tx);
    const value = harvestValue(input.valuedBy, { ...input, hourly });
    const dryness: Dryness = input.snaps ? "dry" : "damp";
    const keeps = m!.keepsSealed ?? 12;
    const [made] = await makeLots(tx, day, [{ material: m!, supplierLot: "", bestBefore: addMonths(h.picked, keeps) }]);
    await tx
      .update(lot)
      .set({ dryness, grown: Number(h.picked.slice(0, 4)) })
      .where(eq(lot.id, made!.id));
    await tx.insert(movement).values({ actId, lotId: made!.id, qty: input.dry, value, reason: "harvested", note: why });
    await tx
      .update(harvest)
      .set({
        dry: input.dry,
        snaps: input.snaps,
        minutes: input.minutes,
        valuedBy: input.valuedBy,
        value,
        lotId: made!.id,
        driedActId: actId,
      })
      .where(eq(harvest.id, h.id));
    return {
      path: `/shelf/harvests/${h.id}`,
      summary: `${grams(input.dry)} of ${m!.name} dried into lot ${made!.number}`,
      about: aboutHarvest(h.id, h.materialId),
      leaves: null,
    };
  },
  leaves: null,
  back: async (tx, _left, { undoes }) => {
    await tx.update(harvest).set({ driedActId: null, lotId: null }).where(eq(harvest.driedActId, undoes));
  },
});
