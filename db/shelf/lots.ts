/** Acts on one lot by hand: opening it, and taking some of it out for a reason. */
import { DRYNESS, type Dryness } from "#core/infusion/dryness";
import { kind } from "#core/material/kinds";
import type { Base } from "#core/measure/exact";
import { showStock } from "#core/measure/write";
import { Refused } from "#core/refused";
import { openedBestBefore } from "#core/stock/lots";
import { REASONS, type MoveOutReason } from "#core/stock/reasons";
import { eq } from "drizzle-orm";
import { perform, type Doing, type Done } from "../act.ts";
import type { Db, Tx } from "../client.ts";
import { draw, lockLots } from "../ledger.ts";
import type { OpenedBefore } from "../reopen.ts";
import { lot, material, movement } from "../schema.ts";

/** A lot of a material with what it is measured in. @throws Refused beside `field` when it isn't there */
async function lotOfMaterial(tx: Tx, id: number, field: string) {
  const [row] = await tx
    .select({ lot, name: material.name, kind: material.kind, keepsOpened: material.keepsOpened })
    .from(lot)
    .innerJoin(material, eq(material.id, lot.materialId))
    .where(eq(lot.id, id));
  if (!row) throw Refused.one(field, "That lot isn't here any more.");
  return row;
}

/**
 * Notes that a lot was opened: from now on it keeps as long as its material does once opened, and never longer than it would have.
 * @throws Refused when it is open already
 */
export function openLot(db: Db, lotId: number, doing: Doing): Promise<Done> {
  return perform(db, "open", doing, async (tx) => {
    const { lot: l, keepsOpened, name } = await lotOfMaterial(tx, lotId, "");
    if (l.opened !== null) throw Refused.one("", "That lot is open already.");
    const best = openedBestBefore(doing.day, l.bestBefore, keepsOpened);
    await tx.update(lot).set({ opened: doing.day, sealedBestBefore: l.bestBefore, bestBefore: best }).where(eq(lot.id, lotId));
    const before: OpenedBefore = { lotId, bestBefore: l.bestBefore };
    return { path: `/shelf/${l.materialId}`, summary: `Opened ${l.number} of ${name}${best ? `, best before ${best}` : ""}`, before };
  });
}

export interface MoveOutIn {
  lotId: number;
  amount: Base;
  reason: MoveOutReason;
  note: string;
}

/** Takes some of a lot off the shelf, to be thrown away, given, sent back or used oneself. @throws Refused when it hasn't got that much */
export function moveOut(db: Db, input: MoveOutIn, doing: Doing): Promise<Done> {
  return perform(db, "moveOut", doing, async (tx, actId) => {
    const { lot: l, kind: k, name } = await lotOfMaterial(tx, input.lotId, "amount");
    const show = (n: Base): string => showStock(n, kind(k).measured);
    const locked = await lockLots(tx, [input.lotId]);
    const { reason, note } = input;
    await tx.insert(movement).values(draw(locked, input.lotId, input.amount, "amount", show, { actId, reason, note }));
    return { path: `/shelf/${l.materialId}`, summary: `${show(input.amount)} of ${name}, ${l.number}: ${REASONS[reason]}` };
  });
}

/** Says how dry a herb lot is; what stands in jars already is not asked again. @throws Refused for anything but a herb */
export function sayDryness(db: Db, lotId: number, dryness: Dryness, doing: Doing): Promise<Done> {
  return perform(db, "dryness", doing, async (tx) => {
    const { lot: l, kind: k, name } = await lotOfMaterial(tx, lotId, "dryness");
    if (k !== "herb") throw Refused.one("dryness", `${name} isn't a herb.`);
    await tx.update(lot).set({ dryness }).where(eq(lot.id, lotId));
    return { path: `/shelf/${l.materialId}`, summary: `${l.number} of ${name}: ${DRYNESS[dryness]}` };
  });
}
