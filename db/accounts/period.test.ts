/** A period's money: of a short year by hand, and of any workshop by dice. */
import type { Period } from "#core/accounts/period";
import { FLOW_IDS, statementOf, wholeStock } from "#core/accounts/statement";
import { sum } from "#core/measure/exact";
import { worthByCostingMethod } from "#core/stock/costingMethods";
import { addDays } from "#core/when";
import { sql } from "drizzle-orm";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { aWorldForDice, play, step } from "#test/db/dice";
import { euro } from "#test/db/fresh";
import { fairOf } from "#test/db/market";
import { asCorrection, buy, DAY, db, eachTestHasAWorkshop, finished, idIn, ids, lotsOf } from "#test/db/workshop";
import type { Reads } from "../client.ts";
import { takeOut } from "../cabinet/cabinet.ts";
import { saveGiftOrder } from "../gifts/gifts.ts";
import { packGiftOrder } from "../gifts/pack.ts";
import { reverseAct } from "../acts/reverse.ts";
import { valueOfJar, steepingJars } from "../jars/read.ts";
import { closeMarketDay } from "../markets/markets.ts";
import { replacementCosts } from "../ledger/lots.ts";
import { onShelf } from "../shelf/overview.ts";
import { correctReceipt } from "../shelf/receipts/correct.ts";
import { partsOfFlow, dearerOn, inJars, movedIn, receiptsIn, salesIn, spanOfBooks } from "./period.ts";

eachTestHasAWorkshop();

const statement = async (on: Reads, period: Period) => statementOf(await movedIn(on, period), await inJars(on, period));
const MAY: Period = { from: "2026-05-01", to: "2026-05-31" };
const JUNE: Period = { from: "2026-06-01", to: "2026-06-30" };

const market = (lotId: number, day: string) =>
  fairOf({
    ...{ day, stallFee: euro(12), travel: euro(3), byCard: euro(20), cardFeeBp: 200 },
    lines: [{ lotId, taken: 3, sold: 2, given: 1, damaged: 0, price: euro(8) }],
  });

/** What the ledger says now of everything. */
async function worthNow(on: Reads): Promise<number> {
  const { rows } = await on.execute(sql`select coalesce(sum(value), 0)::text as worth from lot`);
  const jars = await Promise.all((await steepingJars(on)).map((j) => valueOfJar(on, j.jar.id)));
  return Number(rows[0]!.worth) + sum(jars);
}

describe("a period's money", () => {
  it("has sales on the day of the market, not of the counting, with fees to the cent, and what they cost", async () => {
    const [made] = await finished();
    const each = made!.value / 5;
    // The last day of May, counted in June.
    await closeMarketDay(db, market(made!.id, "2026-05-31"), { day: "2026-06-02" });
    const order = await saveGiftOrder(
      db,
      {
        customer: "Choir",
        due: "2026-07-01",
        extra: euro(2),
        discountBp: 1000,
        wrapMinutes: 0,
        note: "",
        wrapping: [],
        items: [{ productId: ids.product, units: 2, price: euro(9) }],
      },
      { day: DAY },
    );
    await packGiftOrder(db, { id: idIn(order), only: [] }, { day: "2026-06-05" });
    expect(await salesIn(db, MAY)).toEqual([
      {
        channel: "market",
        id: 1,
        place: "Fair",
        day: "2026-05-31",
        takings: euro(16),
        stall: euro(12),
        travel: euro(3),
        card: euro(0.4),
        costKnown: true,
      },
    ]);
    expect(await salesIn(db, JUNE)).toMatchObject([
      { channel: "order", place: "Choir", day: "2026-06-05", takings: euro(18), stall: 0, card: 0 },
    ]);
    const [may, june] = [await statement(db, MAY), await statement(db, JUNE)];
    expect([may.flows.sold, may.flows.given]).toEqual([-2 * each, -each]);
    expect(june.flows.sold).toBe(-2 * each);
    expect(june.start).toEqual(may.end);
    expect(may.end.finished).toBe(2 * each);
    expect(june.end.finished).toBe(0);
    expect((await partsOfFlow(db, MAY, "sold")).map((a) => [a.say, a.day, a.value])).toEqual([
      ["Closed Fair: 2 units sold", "2026-05-31", -2 * each],
    ]);
  });

  it("has a correction where the receipt is, and nothing of what was taken back", async () => {
    const before = await statement(db, MAY);
    const done = await buy(ids.oil, 1000, 10);
    const id = (await receiptsIn(db, MAY)).at(-1)!.id;
    const fixed = await asCorrection(id);
    await correctReceipt(db, { ...fixed, id, lines: fixed.lines.map((l) => ({ ...l, price: euro(30) })) }, { day: "2026-06-10" });
    const [may, june] = [await statement(db, MAY), await statement(db, JUNE)];
    expect(may.flows.bought - before.flows.bought).toBe(euro(31.01));
    expect(june.flows.bought).toBe(0);
    expect((await receiptsIn(db, MAY)).at(-1)).toMatchObject({ id, supplier: "Mill", paid: euro(31.01), toCome: 0 });
    expect(await receiptsIn(db, JUNE)).toEqual([]);
    const { rows } = await db.execute(sql`select max(id) as id from act`);
    await reverseAct(db, Number(rows[0]!.id), { day: "2026-06-11" });
    expect((await statement(db, MAY)).flows.bought - before.flows.bought).toBe(euro(11.01));
    await reverseAct(db, done.actId, { day: "2026-06-12" });
    expect(await statement(db, MAY)).toEqual(before);
  });

  it("by replacement cost is dearer by what the newest receipt says, on that day", async () => {
    const [was] = await lotsOf(ids.wax);
    expect(await dearerOn(db, DAY)).toBe(0);
    await buy(ids.wax, was!.onHand, 20);
    // As much again, at another price: what was there before is worth the difference more.
    expect(await dearerOn(db, DAY)).toBe(euro(21.01) - was!.value);
    expect(await dearerOn(db, addDays(DAY, -1))).toBe(0);
  });

  it("has own use where it belongs, and the days the books have", async () => {
    const [made] = await finished();
    await takeOut(db, { lotId: made!.id, units: 1, reason: "own", note: "" }, { day: "2026-05-09" });
    expect((await partsOfFlow(db, MAY, "given")).map((a) => a.value)).toEqual([(0 - made!.value) / 5]);
    expect(await spanOfBooks(db)).toEqual({ from: DAY, to: "2026-05-09" });
  });

  it("of any workshop adds up, to the micro, to what is there; and what was bought is what was paid for and has come", async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 8, maxLength: 30 }), async (steps) => {
        const w = await aWorldForDice();
        try {
          await play(w, steps);
          const all = { from: addDays(DAY, -400), to: addDays(DAY, 400) };
          const s = await statement(w.db, all);
          expect(wholeStock(s.start)).toBe(0);
          expect(sum(FLOW_IDS.map((f) => s.flows[f]))).toBe(wholeStock(s.end));
          expect(wholeStock(s.end)).toBe(await worthNow(w.db));
          const paid = await receiptsIn(w.db, all);
          expect(s.flows.bought).toBe(sum(paid.map((r) => r.paid)) - sum(paid.map((r) => r.toCome)));
          // As the shelf says it of what is there now.
          const worth = worthByCostingMethod(await onShelf(w.db, all.to, {}, 1000), await replacementCosts(w.db));
          expect(await dearerOn(w.db, all.to)).toBe(worth.again - worth.lot);
          for (const f of FLOW_IDS) expect(sum((await partsOfFlow(w.db, all, f)).map((a) => a.value)), f).toBe(s.flows[f]);
        } finally {
          await w.drop();
        }
      }),
      { numRuns: 12 },
    );
  });
});
