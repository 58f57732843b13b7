/** What an act closed, opened, or wrote beside the ledger is put back when the act is taken back. */
import { Refused } from "#core/refused";
import { and, eq, gt, sql } from "drizzle-orm";
import type { Tx } from "./client.ts";
import { act, batch, giftOrder, harvest, jar, jarEvent, jarPart, lot, marketDay, purchase, purchaseLine } from "./schema.ts";

/** A receipt as it stood before it was corrected. */
export interface ReceiptBefore {
  purchase: typeof purchase.$inferSelect;
  lines: (typeof purchaseLine.$inferSelect)[];
  lots: { id: number; supplierLot: string; bestBefore: string | null; sealedBestBefore: string | null; arrived: string }[];
}

/** A lot as it stood before it was opened. */
export interface OpenedBefore {
  lotId: number;
  bestBefore: string | null;
}

/** Where to go once an act is taken back: to what it changed, or, where that is gone with it, to where it would be done anew. */
export function pathAfterUndo(was: typeof act.$inferSelect): string {
  if (was.kind === "receive" || was.kind === "receiveFile") return "/shelf/receipts";
  return was.kind === "fillJar" ? "/jars" : was.path;
}

/** @throws when what the act noted isn't there any more */
export async function reopen(tx: Tx, was: typeof act.$inferSelect): Promise<void> {
  const id = was.id;
  switch (was.kind) {
    case "pour":
      await tx.update(batch).set({ pouredActId: null }).where(eq(batch.pouredActId, id));
      return;
    case "clearBatch":
      await tx.update(batch).set({ clearedActId: null }).where(eq(batch.clearedActId, id));
      return;
    case "closeMarket":
      await tx.update(marketDay).set({ closedActId: null }).where(eq(marketDay.closedActId, id));
      return;
    case "packOrder":
      await tx.update(giftOrder).set({ packedActId: null }).where(eq(giftOrder.packedActId, id));
      return;
    case "arrive":
      await tx.update(purchaseLine).set({ lotId: null, arrivedActId: null }).where(eq(purchaseLine.arrivedActId, id));
      return;
    case "harvest":
      await tx.update(harvest).set({ driedActId: null, lotId: null }).where(eq(harvest.driedActId, id));
      return;
    case "open": {
      const { lotId, bestBefore } = was.before as OpenedBefore;
      await tx.update(lot).set({ opened: null, sealedBestBefore: null, bestBefore }).where(eq(lot.id, lotId));
      return;
    }
    case "correct":
      await putReceiptBack(tx, id, was.before as ReceiptBefore);
      return;
    case "fillJar":
      await stillStanding(tx, id);
      await tx.delete(jarPart).where(eq(jarPart.actId, id));
      await tx.update(jar).set({ filledActId: null }).where(eq(jar.filledActId, id));
      return;
    case "topUp":
      await stillStanding(tx, id);
      await tx.delete(jarPart).where(eq(jarPart.actId, id));
      await tx.delete(jarEvent).where(eq(jarEvent.actId, id));
      return;
    case "strain":
      await tx.update(jar).set({ strainedActId: null }).where(eq(jar.strainedActId, id));
      return;
    case "spoil":
      await tx.update(jar).set({ spoiledActId: null }).where(eq(jar.spoiledActId, id));
      return;
  }
}

/** @throws Refused when the jar an act put something into was strained, written off, or topped up after it */
async function stillStanding(tx: Tx, actId: number): Promise<void> {
  const [part] = await tx.select({ jarId: jarPart.jarId }).from(jarPart).where(eq(jarPart.actId, actId)).limit(1);
  if (!part) return;
  const [j] = await tx.select().from(jar).where(eq(jar.id, part.jarId)).for("update");
  if (j!.strainedActId !== null) throw Refused.one("", `Jar ${j!.number} has been strained since. Take the straining back first.`);
  if (j!.spoiledActId !== null) throw Refused.one("", `Jar ${j!.number} has been written off since. Take that back first.`);
  const [later] = await tx
    .select({ id: jarPart.id })
    .from(jarPart)
    .where(and(eq(jarPart.jarId, part.jarId), gt(jarPart.actId, actId)))
    .limit(1);
  if (later && j!.filledActId === actId) throw Refused.one("", `Jar ${j!.number} has been topped up since. Take that back first.`);
}

/** @throws Refused when more of it arrived, or it was corrected again, since */
async function putReceiptBack(tx: Tx, actId: number, before: ReceiptBefore): Promise<void> {
  const { id, ...head } = before.purchase;
  const [came] = await tx
    .select({ id: purchaseLine.id })
    .from(purchaseLine)
    .where(and(eq(purchaseLine.purchaseId, id), gt(purchaseLine.arrivedActId, actId)))
    .limit(1);
  if (came) throw Refused.one("", "More of that receipt has arrived since. Take that back first, or correct it again.");
  const [again] = await tx
    .select({ id: act.id })
    .from(act)
    .where(
      sql`${act.kind} = 'correct' and ${act.id} > ${actId} and (${act.before} -> 'purchase' ->> 'id')::int = ${id} and not exists (select 1 from act u where u.undoes = ${act.id})`,
    )
    .limit(1);
  if (again) throw Refused.one("", "That receipt has been corrected again since. Take that back first.");
  await tx.update(purchase).set(head).where(eq(purchase.id, id));
  const kept = new Set(before.lines.map((l) => l.id));
  const now = await tx.select({ id: purchaseLine.id }).from(purchaseLine).where(eq(purchaseLine.purchaseId, id));
  for (const l of now) if (!kept.has(l.id)) await tx.delete(purchaseLine).where(eq(purchaseLine.id, l.id));
  const there = new Set(now.map((l) => l.id));
  for (const { id: lineId, ...l } of before.lines)
    if (there.has(lineId)) await tx.update(purchaseLine).set(l).where(eq(purchaseLine.id, lineId));
    else
      await tx
        .insert(purchaseLine)
        .overridingSystemValue()
        .values({ id: lineId, ...l });
  for (const { id: lotId, ...l } of before.lots) await tx.update(lot).set(l).where(eq(lot.id, lotId));
}
