/** The acts that move stock, on a real PostgreSQL: what they keep true in any order, at once and twice. */
import { Refused } from "#core/refused";
import { sql } from "drizzle-orm";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { whatWasDone } from "../acts/book.ts";
import type { Done } from "../act/define.ts";
import { reverseAct } from "../acts/reverse.ts";
import { takeOut } from "../cabinet/cabinet.ts";
import { saveGiftOrder } from "../gifts/gifts.ts";
import { packGiftOrder } from "../gifts/pack.ts";
import { closeMarketDay } from "../markets/markets.ts";
import { act, lot } from "../schema.ts";
import { correctCount } from "../shelf/counting/count.ts";
import { receive } from "../shelf/receipts/receive.ts";
import { fairOf } from "#test/db/market";
import { euro, expectLedgerTrue } from "#test/db/fresh";
import { eachTestHasAWorkshop, buy, DAY, db, finished, idIn, ids, lotsOf, make, onHand, refused, token } from "#test/db/workshop";

eachTestHasAWorkshop();

describe("in any order", () => {
  it("keeps on hand the sum of the ledger, value conserved, nothing below zero, and every refusal without a trace", async () => {
    const done: number[] = [];
    const n = fc.integer({ min: 1, max: 12 });
    const step = fc.oneof(
      fc.record({ do: fc.constant("buy" as const), what: fc.constantFrom("oil" as const, "wax" as const, "tin" as const), n }),
      fc.record({
        do: fc.constantFrom("make" as const, "takeOut" as const, "market" as const, "gift" as const, "undo" as const),
        what: fc.constant("oil" as const),
        n,
      }),
      fc.record({ do: fc.constant("count" as const), what: fc.constantFrom("oil" as const, "wax" as const), n }),
    );
    const run = async (s: { do: string; what: "oil" | "wax" | "tin"; n: number }): Promise<Done | null> => {
      const [stock] = (await finished()).filter((l) => l.onHand > 0);
      switch (s.do) {
        case "buy":
          return buy(ids[s.what], s.what === "tin" ? s.n : s.n * 37_001, s.n * 1.37);
        case "make":
          return make(s.n);
        case "takeOut":
          return stock ? takeOut(db, { lotId: stock.id, units: s.n, reason: "tester", note: "" }, { day: DAY }) : null;
        case "market":
          return stock
            ? closeMarketDay(db, fairOf({ lines: [{ lotId: stock.id, taken: s.n, sold: s.n, given: 0, damaged: 0, price: euro(8) }] }), {
                day: DAY,
              })
            : null;
        case "gift":
          return packGiftOrder(
            db,
            {
              only: [],
              id: idIn(
                await saveGiftOrder(
                  db,
                  {
                    customer: "Choir",
                    due: DAY,
                    extra: euro(0),
                    discountBp: 0,
                    wrapMinutes: 0,
                    note: "",
                    items: [{ productId: ids.product, units: s.n, price: euro(9) }],
                    wrapping: [],
                  },
                  { day: DAY },
                ),
              ),
            },
            { day: DAY },
          );
        case "undo":
          return done.length ? reverseAct(db, done[s.n % done.length]!, { day: DAY }) : null;
        default: {
          const [l] = (await lotsOf(ids[s.what])).filter((x) => x.onHand > 0);
          return l
            ? correctCount(
                db,
                { lotId: l.id, expected: l.onHand, counted: Math.max(0, l.onHand + (s.n - 6) * 1013), reason: "weighed again" },
                { day: DAY },
              )
            : null;
        }
      }
    };
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 5, maxLength: 14 }), async (steps) => {
        for (const s of steps) {
          const [{ n: before }] = (await db.execute<{ n: string }>(sql`select count(*) n from movement`)).rows as [{ n: string }];
          try {
            const d = await run(s);
            if (d) done.push(d.actId);
          } catch (e) {
            if (!(e instanceof Refused)) throw e;
            const [{ n: after }] = (await db.execute<{ n: string }>(sql`select count(*) n from movement`)).rows as [{ n: string }];
            expect(after).toBe(before);
          }
        }
        await expectLedgerTrue(db);
      }),
      // One run that does everything, then whatever chance brings.
      {
        numRuns: 12,
        endOnFailure: true,
        examples: [
          [
            [
              { do: "make", what: "oil", n: 8 },
              { do: "takeOut", what: "oil", n: 1 },
              { do: "market", what: "oil", n: 2 },
              { do: "gift", what: "oil", n: 1 },
              { do: "count", what: "oil", n: 3 },
              { do: "undo", what: "oil", n: 3 },
              { do: "buy", what: "wax", n: 2 },
            ],
          ],
        ],
      },
    );
    const kinds = (await db.select({ kind: act.kind }).from(act)).map((a) => a.kind);
    for (const k of ["receive", "pour", "takeOut", "closeMarket", "packOrder", "undo", "count"]) expect(kinds).toContain(k);
  });
});

describe("the ledger itself", () => {
  it.each([
    ["changing a movement", sql`update movement set qty = 1`],
    ["deleting one", sql`delete from movement`],
    ["emptying it", sql`truncate movement cascade`],
    ["changing an act", sql`update act set day = '2026-01-01'`],
    ["deleting one", sql`delete from act`],
    ["emptying the book", sql`truncate act cascade`],
    ["moving stock beside it", sql`update lot set on_hand = on_hand + 1`],
    ["changing value beside it", sql`update lot set value = 0 where value > 0`],
    ["a lot that starts full", sql`insert into lot (number, material_id, arrived, on_hand) values ('X1', 1, '2026-01-01', 5)`],
    ["a lot of two things", sql`insert into lot (number, material_id, product_id, arrived) values ('X2', 1, 1, '2026-01-01')`],
  ])("refuses %s", async (_, statement) => {
    await expect(db.execute(statement)).rejects.toThrow();
    await expectLedgerTrue(db);
  });
});

describe("two windows at once", () => {
  it("only one gets the last of a lot; the others are told and nothing of theirs moves", async () => {
    const l = (await finished()).at(-1)!;
    const results = await Promise.allSettled(
      Array.from({ length: 6 }, () => takeOut(db, { lotId: l.id, units: 3, reason: "own", note: "" }, { day: DAY, token: token() })),
    );
    expect(results.filter((r) => r.status === "fulfilled")).toHaveLength(1);
    for (const r of results) if (r.status === "rejected") expect(r.reason).toBeInstanceOf(Refused);
    expect((await finished()).at(-1)!.onHand).toBe(2);
    await expectLedgerTrue(db);
  });
  it("a form posted twice, even at the same moment, counts once and leads to the same place", async () => {
    const same = {
      supplier: "Mill",
      day: DAY,
      postage: euro(0),
      lines: [{ materialId: ids.box, supplierLot: "", packs: 1, packSize: "10", qty: 10, price: euro(5), bestBefore: null }],
    };
    const t = token();
    const posts = await Promise.all([receive(db, same, { token: t }), receive(db, same, { token: t }), receive(db, same, { token: t })]);
    expect(new Set(posts.map((p) => p.actId)).size).toBe(1);
    expect(await onHand(ids.box)).toBe(20);
  });
  it("numbers lots apart when several purchases arrive together", async () => {
    await Promise.all(Array.from({ length: 5 }, () => buy(ids.wax, 1000, 1)));
    const numbers = (await db.select({ n: lot.number }).from(lot)).map((r) => r.n);
    expect(new Set(numbers).size).toBe(numbers.length);
  });
  it("a count says what it was and what it is", async () => {
    const [l] = await lotsOf(ids.box);
    const done = await correctCount(db, { lotId: l!.id, expected: 10, counted: 7, reason: "crushed" }, { day: DAY });
    expect((await whatWasDone(db, done.actId))!.summary).toBe(`Counted ${l!.number}: 7 pcs, was 10 pcs`);
    expect(await lotsOf(ids.box)).toMatchObject([{ onHand: 7, value: 4_207_000 }]);
  });
  it("a count made on a stale figure is refused", async () => {
    const [l] = (await lotsOf(ids.box)).filter((x) => x.onHand > 0);
    expect(await refused(correctCount(db, { lotId: l!.id, expected: l!.onHand + 1, counted: 3, reason: "x" }, { day: DAY }))).toMatchObject(
      [{ field: "counted" }],
    );
  });
});
