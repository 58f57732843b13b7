/** Buying: offers seen at suppliers', what was paid over time, what is used in a month, and what there is to buy. */
import { micros, type Base } from "#core/measure/exact";
import { Refused } from "#core/refused";
import type { Offer } from "#core/stock/offers";
import { LEARN_DAYS, reorderPoint, toBuy, usedPerDay, type MonthUse, type ReorderRule } from "#core/stock/reorder";
import { groupBy } from "#core/collect";
import { addDays, type Day } from "#core/when";
import { and, asc, desc, eq, gte, sql, type Placeholder, type SQLWrapper } from "drizzle-orm";
import { object } from "yup";
import { sqlNumber } from "../columnsOf.ts";
import { defineAct } from "../act/define.ts";
import { undoId, leftRow } from "../act/left.ts";
import { notReversed } from "../ledger/effective.ts";
import type { Reads } from "../client.ts";
import { act, material, materialUse, offer, purchase, purchaseLine } from "../schema.ts";
import { cachedUntilWrite } from "../cache.ts";
import { anyOf } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { stockLevels } from "./low.ts";

export interface SeenOffer extends Offer {
  /** Null for a pack that was bought, not only seen. */
  id: number | null;
  materialId: number;
  seen: Day;
}

/** Offers noted by hand, and the newest purchase of each pack from each supplier; of these materials, or all. */
export async function offersOf(db: Reads, ids?: readonly number[]): Promise<SeenOffer[]> {
  if (ids?.length === 0) return [];
  const all = ids === undefined;
  const among = (column: SQLWrapper, at: Placeholder) => (all ? undefined : anyOf(column, at));
  const [noted, bought] = await Promise.all([
    runPrepared(db, all ? "all_offers" : "offers_of", { ids: ids ?? [] }, (at) =>
      db.select().from(offer).where(among(offer.materialId, at.ids)),
    ),
    runPrepared(db, all ? "all_bought" : "bought_of", { ids: ids ?? [] }, (at) =>
      db
        .selectDistinctOn([purchaseLine.materialId, purchase.supplier, purchaseLine.packSize], {
          materialId: purchaseLine.materialId,
          supplier: purchase.supplier,
          packSize: purchaseLine.packSize,
          packs: purchaseLine.packs,
          qty: purchaseLine.qty,
          price: purchaseLine.price,
          landed: purchaseLine.landed,
          seen: purchase.day,
        })
        .from(purchaseLine)
        .innerJoin(purchase, eq(purchase.id, purchaseLine.purchaseId))
        // A sample that came for nothing is no offer.
        .where(and(notReversed(purchase.actId), sql`${purchaseLine.price} > 0`, among(purchaseLine.materialId, at.ids)))
        .orderBy(purchaseLine.materialId, purchase.supplier, purchaseLine.packSize, desc(purchase.day), desc(purchaseLine.id)),
    ),
  ]);
  const of = (n: number, packs: number): number => Math.round(n / packs);
  return [
    ...noted,
    ...bought.map((b) => ({
      id: null,
      materialId: b.materialId,
      supplier: b.supplier,
      packSize: b.packSize,
      qty: of(b.qty, b.packs),
      // What was paid per pack in the workshop's currency; postage is what its share of the receipt was.
      price: micros(of(Math.min(b.price, b.landed), b.packs)),
      postage: micros(of(Math.max(0, b.landed - b.price), b.packs)),
      seen: b.seen,
    })),
  ];
}

export type OfferIn = Omit<typeof offer.$inferInsert, "id">;

/** Notes an offer. */
export const noteOffer = defineAct({
  kind: "offer",
  run: async (tx, input: OfferIn) => {
    const [m] = await tx.select({ name: material.name }).from(material).where(eq(material.id, input.materialId));
    if (!m) throw Refused.one("", "That material isn't on the shelf any more.");
    const [row] = await tx.insert(offer).values(input).returning({ id: offer.id });
    return {
      path: `/shelf/${input.materialId}/buying`,
      summary: `Noted ${input.packSize} of ${m.name} at ${input.supplier}`,
      about: [{ kind: "material", id: input.materialId }],
      leaves: { id: row!.id },
    };
  },
  leaves: object({ id: undoId() }),
  back: async (tx, { id }) => {
    await tx.delete(offer).where(eq(offer.id, id));
  },
});

/** Forgets an offer that was noted. @throws Refused when it is gone already */
export const dropOffer = defineAct({
  kind: "dropOffer",
  run: async (tx, { materialId, id }: { materialId: number; id: number }) => {
    const [row] = await tx
      .delete(offer)
      .where(and(eq(offer.id, id), eq(offer.materialId, materialId)))
      .returning();
    if (!row) throw Refused.one("", "That offer isn't noted any more.");
    return {
      path: `/shelf/${materialId}/buying`,
      summary: `Forgot ${row.packSize} at ${row.supplier}`,
      about: [{ kind: "material", id: materialId }],
      leaves: { row },
    };
  },
  leaves: object({ row: leftRow(offer) }),
  back: async (tx, { row }) => {
    await tx.insert(offer).overridingSystemValue().values(row);
  },
});

/** Who the newest offer was seen at; empty while there is none. */
export async function lastOfferAt(db: Reads): Promise<string> {
  const [row] = await runPrepared(db, "last_offer_at", {}, () =>
    db.select({ supplier: offer.supplier }).from(offer).orderBy(desc(offer.id)).limit(1),
  );
  return row?.supplier ?? "";
}

/** Who the last receipt copied today was from; empty while there is none. A pile of receipts is often one shop's. */
export async function lastReceiptFrom(db: Reads, today: Day): Promise<string> {
  const [row] = await runPrepared(db, "last_receipt_from", { today }, (at) =>
    db
      .select({ supplier: purchase.supplier })
      .from(purchase)
      .innerJoin(act, eq(act.id, purchase.actId))
      .where(and(notReversed(purchase.actId), sql`${act.at}::date = ${at.today}::date`))
      .orderBy(desc(purchase.id))
      .limit(1),
  );
  return row?.supplier ?? "";
}

/** The pack each of these materials was bought in last, as it was written. */
export async function lastPacks(db: Reads, ids: readonly number[]): Promise<Map<number, string>> {
  if (ids.length === 0) return new Map();
  const rows = await runPrepared(db, "last_packs", { ids }, (at) =>
    db
      .selectDistinctOn([purchaseLine.materialId], { materialId: purchaseLine.materialId, packSize: purchaseLine.packSize })
      .from(purchaseLine)
      .innerJoin(purchase, eq(purchase.id, purchaseLine.purchaseId))
      .where(and(notReversed(purchase.actId), anyOf(purchaseLine.materialId, at.ids)))
      .orderBy(purchaseLine.materialId, desc(purchase.day), desc(purchaseLine.id)),
  );
  return new Map(rows.map((r) => [r.materialId, r.packSize]));
}

/** A purchase of a material in its price history. */
export type PriceRow = Awaited<ReturnType<typeof priceHistory>>[number];

/** Every purchase of a material, oldest first, for its price history. */
export const priceHistory = (db: Reads, materialId: number) =>
  runPrepared(db, "price_history", { materialId }, (at) =>
    db
      .select({
        id: purchaseLine.id,
        purchaseId: purchase.id,
        day: purchase.day,
        supplier: purchase.supplier,
        packs: purchaseLine.packs,
        packSize: purchaseLine.packSize,
        per: purchaseLine.qty,
        value: purchaseLine.landed,
      })
      .from(purchaseLine)
      .innerJoin(purchase, eq(purchase.id, purchaseLine.purchaseId))
      .where(and(eq(purchaseLine.materialId, at.materialId), notReversed(purchase.actId)))
      .orderBy(asc(purchase.day), asc(purchaseLine.id)),
  );

/** What was used of materials, month by month, as far back as it teaches anything. */
export async function monthlyUse(db: Reads, today: Day, ids: readonly number[]): Promise<Map<number, MonthUse[]>> {
  if (ids.length === 0) return new Map();
  const rows = await runPrepared(db, "monthly_use", { from: addDays(today, -LEARN_DAYS - 31), ids }, (at) =>
    db
      .select()
      .from(materialUse)
      .where(and(gte(materialUse.month, at.from), anyOf(materialUse.materialId, at.ids)))
      .orderBy(asc(materialUse.month)),
  );
  return groupBy(rows, (r) => r.materialId);
}

export interface Wanted {
  materialId: number;
  name: string;
  kind: (typeof material.$inferSelect)["kind"];
  /** That can be used: what is on hold or past its day doesn't count. */
  onHand: Base;
  coming: Base;
  point: Base;
  perDay: number | null;
  amount: Base;
  offers: SeenOffer[];
}

/** Materials below their point, with what is used of each in a day. */
async function reminded(db: Reads, today: Day) {
  const rows = await runPrepared(db, "reminded", { today }, (at) =>
    db
      .select({
        id: material.id,
        name: material.name,
        kind: material.kind,
        reorderBy: material.reorderBy,
        reorderAt: material.reorderAt,
        onHand: sqlNumber(sql`s.usable`),
        coming: sqlNumber(sql`s.coming`),
      })
      .from(material)
      .innerJoin(sql`${stockLevels(at.today)} s`, sql`s.id = ${material.id}`)
      .where(sql`s.usable + s.coming < s.point`)
      .orderBy(asc(material.name)),
  );
  const use = await monthlyUse(
    db,
    today,
    rows.map((r) => r.id),
  );
  return rows.map((m) => ({ ...m, perDay: usedPerDay(use.get(m.id) ?? [], today) }));
}

/** Everything below its point, with how much to buy and who sells it. */
export async function whatToBuy(db: Reads, today: Day, rule: ReorderRule): Promise<Wanted[]> {
  const rows = await cachedUntilWrite(db, "reminded", today, () => reminded(db, today));
  const low = rows.flatMap((s) => {
    const amount = toBuy(s, rule);
    return amount > 0 ? [{ ...s, point: reorderPoint(s, rule)!, amount }] : [];
  });
  const offers = groupBy(
    await offersOf(
      db,
      low.map((m) => m.id),
    ),
    (o) => o.materialId,
  );
  return low.map(({ id, name, kind, onHand, coming, point, perDay, amount }) => ({
    materialId: id,
    name,
    kind,
    onHand,
    coming,
    point,
    perDay,
    amount,
    offers: offers.get(id) ?? [],
  }));
}
