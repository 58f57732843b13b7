/** By dice: what comes onto the shelf, is counted, corrected, opened, held and taken off it. */
import { mg } from "#core/measure/exact";
import { and, eq, gt, isNotNull, isNull } from "drizzle-orm";
import { lot, movement, purchase, recall, recallLot, stockCount } from "#db/schema";
import { correctReceipt } from "#db/shelf/receipts/correct";
import { beginRecall, closeRecall } from "#db/lots/recall";
import { correctCount, holdLot } from "#db/shelf/counting/count";
import { finishHarvest, pick } from "#db/shelf/harvests";
import { moveOut, openLot } from "#db/shelf/lots";
import { openingStock, sayCost } from "#db/shelf/counting/opening";
import { arrive, receive, receiveMany } from "#db/shelf/receipts/receive";
import { readReceipt } from "#db/shelf/receipts/receipts";
import { noteCount, postStocktake } from "#db/shelf/counting/stocktake";
import { sayScentMost } from "#db/shelf/scentMost";
import { euro } from "../fresh.ts";
import { DAY, idIn } from "../workshop.ts";
import { at, doing, NotThere, onHand, part, pickOf, WEIGHED, type Throw } from "./world.ts";

export const SHELF = {
  receive: (_db, a, b) => {
    const packs = 1 + (b % 4);
    const arrived = a % (packs + 1);
    const herb = a % 3 === 2;
    // Now and then the same again at another price: two lines of one material and pack.
    const twice = a % 5 === 0 ? [0, 1] : [0];
    return (v) =>
      receive(
        v.db,
        {
          supplier: "Mill",
          day: DAY,
          postage: euro(b / 100),
          tax: euro((a % 50) / 100),
          discount: euro(0.01 * (b % 7)),
          rate: a % 2 ? 1_000_000 : 934_567,
          lines: [
            ...twice.map((n) => ({
              materialId: herb ? v.herb : v.ids.oil,
              supplierLot: "",
              packs,
              arrived,
              packSize: "100 g",
              qty: packs * 100_000,
              price: euro(3 + b / 50 + 20 * n),
              bestBefore: null,
            })),
            {
              materialId: v.ids.wax,
              supplierLot: "",
              packs: 1,
              packSize: "50 g",
              qty: 50_000,
              price: euro(1 + a / 100),
              bestBefore: null,
            },
          ],
        },
        doing,
      );
  },

  arrive: async (db, _a, b) => {
    const all = await db.select({ id: purchase.id }).from(purchase).orderBy(purchase.id);
    for (const { id } of all) {
      const waiting = (await readReceipt(db, id))?.lines.find((l) => l.line.lotId === null);
      if (!waiting) continue;
      const packs = 1 + (b % waiting.line.packs);
      return async (v) => {
        const theirs = (await readReceipt(v.db, at(v.receipts, id)))!.lines.find((l) => l.line.lotId === null)!;
        return arrive(v.db, { lineId: theirs.line.id, packs, supplierLot: "", bestBefore: null }, doing);
      };
    }
    return null;
  },

  correct: async (db, a, b) => {
    const bought = pickOf(await db.select({ id: purchase.id }).from(purchase).orderBy(purchase.id), a);
    const found = bought && (await readReceipt(db, bought.id));
    if (!found) return null;
    const wanted = found.lines.map(({ line }, i) => ({
      lotId: line.lotId,
      packs: line.packs,
      packSize: line.packSize,
      qty: i === 0 && b % 3 === 0 ? part(line.qty * 2, b) : line.qty,
      price: euro(((a * 7 + b + i) % 4000) / 100),
    }));
    return async (v) => {
      const id = at(v.receipts, bought.id);
      const theirs = (await readReceipt(v.db, id))!.lines;
      const lines = wanted.map(({ lotId, ...l }) => {
        const { line } = theirs.find((t) => t.line.lotId === (lotId === null ? null : at(v.lots, lotId)))!;
        return { id: line.id, materialId: line.materialId, supplierLot: "", bestBefore: null, ...l };
      });
      // Now and then a line was never bought at all.
      const kept = b % 11 === 0 && lines.length > 1 ? lines.slice(1) : lines;
      return correctReceipt(v.db, { id, supplier: "Mill", day: DAY, postage: euro(b / 90), lines: kept }, doing);
    };
  },

  file: (_db, _a, b) => {
    const line = { materialId: 0, supplierLot: "", packs: 2, packSize: "10", qty: 2 * b, price: euro(b / 100), bestBefore: null };
    return (v) => {
      const one = { supplier: "Filed", day: DAY, postage: euro(0), lines: [{ ...line, materialId: v.ids.wax }] };
      return receiveMany(v.db, { add: [], receipts: [one, { ...one, supplier: "Another" }] }, doing);
    };
  },

  opening: (_db, a, b) => {
    const costKnown = (["paid", "guessed", "none"] as const)[a % 3]!;
    const line = { cost: euro(b / 70), costKnown, supplierLot: "", bought: null, bestBefore: null };
    return (v) => openingStock(v.db, { add: [], lines: [{ ...line, materialId: a % 2 ? v.ids.wax : v.herb, qty: 1000 * b }] }, doing);
  },

  sayCost: async (db, a, b) => {
    const came = await db.select({ id: movement.lotId }).from(movement).where(eq(movement.reason, "opening")).orderBy(movement.id);
    const l = pickOf(came, a);
    const costKnown = (["paid", "guessed", "none"] as const)[b % 3]!;
    return l ? (v) => sayCost(v.db, { lotId: at(v.lots, l.id), cost: euro(b / 30), costKnown, ofOne: b % 2 === 0 }, doing) : null;
  },

  count: async (db, a, b) => {
    const l = pickOf(await onHand(db, WEIGHED), a);
    const change = b % 2 ? -part((l?.onHand ?? 0) / 2, b) : b % 40;
    if (!l || change === 0) return null;
    // What was counted is what was there, also where less or more of it had been used by the books.
    const counted = l.onHand + change;
    return async (v) => {
      const lotId = at(v.lots, l.id);
      const [now] = await v.db.select().from(lot).where(eq(lot.id, lotId));
      if (now!.onHand === counted) throw new NotThere("it is what the shelf says already");
      return correctCount(v.db, { lotId, expected: now!.onHand, counted, reason: "weighed" }, doing);
    };
  },

  stocktake: async (db, a, b) => {
    const counts = (await onHand(db, WEIGHED))
      .slice(0, 1 + (a % 4))
      .map((l) => ({ id: l.id, counted: Math.max(0, l.onHand + (b % 2 ? -part(l.onHand / 2, b) : b)) }));
    return async (v) => {
      await v.db.delete(stockCount);
      for (const { id, counted } of counts) await noteCount(v.db, at(v.lots, id), counted, "");
      return postStocktake(v.db, {}, doing);
    };
  },

  moveOut: async (db, a, b) => {
    const l = pickOf(await onHand(db, WEIGHED), a);
    const reason = (["wasted", "given", "returned", "own"] as const)[b % 4]!;
    return l ? (v) => moveOut(v.db, { lotId: at(v.lots, l.id), amount: part(l.onHand, b), reason, note: "" }, doing) : null;
  },

  open: async (db, a) => {
    const l = pickOf(await onHand(db, ["oil", "herb"]), a);
    return l ? (v) => openLot(v.db, { lotId: at(v.lots, l.id) }, doing) : null;
  },

  hold: async (db, a, b) => {
    const l = pickOf(await db.select().from(lot).where(gt(lot.onHand, 0)).orderBy(lot.id), a);
    return l ? (v) => holdLot(v.db, { lotId: at(v.lots, l.id), reason: b % 3 ? `Why ${b}` : null }, doing) : null;
  },

  recall: async (db, a, b) => {
    const l = pickOf(await db.select().from(lot).orderBy(lot.id), a);
    const recall = { reason: `Why ${b}`, toDo: "Put it aside.", rehearsal: b % 4 === 0 };
    return l ? (v) => beginRecall(v.db, { lotIds: [at(v.lots, l.id)], ...recall }, doing) : null;
  },

  /** One that goes on is closed: as a false alarm, which lifts its holds and no other's, or for good. */
  closeRecall: async (db, a, b) => {
    const open = pickOf(
      await db
        .select({ id: recall.id, reason: recall.reason, lotId: recallLot.lotId })
        .from(recall)
        .innerJoin(recallLot, and(eq(recallLot.recallId, recall.id), eq(recallLot.start, true)))
        .where(and(isNotNull(recall.begunActId), isNull(recall.closedActId)))
        .orderBy(recall.id),
      a,
    );
    if (!open) return null;
    return async (v) => {
      const [theirs] = await v.db
        .select({ id: recall.id })
        .from(recall)
        .innerJoin(
          recallLot,
          and(eq(recallLot.recallId, recall.id), eq(recallLot.lotId, at(v.lots, open.lotId)), eq(recallLot.start, true)),
        )
        .where(and(isNotNull(recall.begunActId), isNull(recall.closedActId), eq(recall.reason, open.reason)))
        .orderBy(recall.id);
      if (!theirs) throw new NotThere("that recall never began there");
      return closeRecall(v.db, { recallId: theirs.id, free: b % 3 > 0 }, doing);
    };
  },

  scentMost: async (db, a, b) => {
    const l = pickOf(await onHand(db, ["essentialOil"]), a);
    return l ? (v) => sayScentMost(v.db, { lotId: at(v.lots, l.id), ppm: b % 4 ? b * 10 : null }, doing) : null;
  },

  harvest: (_db, a, b) => {
    return async (v) => {
      const picking = {
        materialId: v.herb,
        picked: DAY,
        place: "",
        fresh: mg(b * 1000),
        method: "air",
        celsius: null,
        note: "",
      } as const;
      const picked = await pick(v.db, { ...picking, minutes: a % 90 }, doing);
      const dry = { dry: mg(b * 200), snaps: a % 3 > 0, minutes: a % 90, market: null };
      return finishHarvest(v.db, { harvestId: idIn(picked), ...dry, valuedBy: a % 2 ? "hours" : "nothing" }, doing);
    };
  },
} satisfies Record<string, Throw>;
