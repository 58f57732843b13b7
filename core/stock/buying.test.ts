/** Sharing a receipt out, learning from use, and choosing packs. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { CENT, micros, mg, sum, type Micros } from "../measure/exact.ts";
import { delivered, forAYear, forOnce, shoppingList, type Offer } from "./offers.ts";
import { landReceipt, RATE_1, splitLanded, type ReceiptIn } from "./receipt.ts";
import { reorderPoint, toBuy, usedPerDay } from "./reorder.ts";

const euro = (n: number): Micros => micros(Math.round(n * 100) * CENT);
const receipt = (over: Partial<ReceiptIn> = {}): ReceiptIn => ({
  lines: [
    { price: euro(10), weight: mg(3_000_000) },
    { price: euro(30), weight: mg(1_000_000) },
  ],
  postage: euro(4),
  tax: euro(0),
  discount: euro(0),
  spreadBy: "value",
  rate: RATE_1,
  ...over,
});
const land = (over: Partial<ReceiptIn> = {}) => {
  const r = landReceipt(receipt(over));
  if (!r.ok) throw new Error(r.problem.code);
  return r.value;
};

describe("a receipt", () => {
  it("shares postage by price or by weight, tax and discount by price", () => {
    expect(land().lines.map((l) => l.landed)).toEqual([euro(11), euro(33)]);
    expect(land({ spreadBy: "weight" }).lines.map((l) => l.landed)).toEqual([euro(13), euro(31)]);
    expect(land({ tax: euro(8), discount: euro(4) }).lines).toMatchObject([
      { tax: euro(2), discount: euro(1), landed: euro(12) },
      { tax: euro(6), discount: euro(3), landed: euro(36) },
    ]);
  });
  it("a foreign receipt is shared in the workshop's currency, to the cent of what was paid", () => {
    const r = land({ rate: 934_567 });
    expect(r).toMatchObject({ paid: euro(44), paidHere: euro(41.12) });
    expect(sum(r.lines.map((l) => l.landed))).toBe(euro(41.12));
  });
  it.each<[Partial<ReceiptIn>, string]>([
    [{ discount: euro(40.01) }, "discount"],
    [{ spreadBy: "weight", lines: [{ price: euro(1), weight: null }] }, "noWeight"],
  ])("%j is refused", (over, code) => {
    const r = landReceipt(receipt(over));
    expect(r.ok ? "ok" : r.problem.code).toBe(code);
  });
  it("whatever is on it, the lines add up to what was paid, and none is worth less than nothing", () => {
    const cents = fc.integer({ min: 0, max: 100_000 });
    fc.assert(
      fc.property(
        fc.array(fc.record({ price: cents, weight: fc.integer({ min: 0, max: 9_000_000 }) }), { minLength: 1, maxLength: 8 }),
        cents,
        cents,
        fc.nat(1000),
        fc.constantFrom("value" as const, "weight" as const),
        fc.integer({ min: 1000, max: 90_000_000 }),
        (lines, postage, tax, part, spreadBy, rate) => {
          const goods = lines.reduce((a, l) => a + l.price, 0);
          const r = landReceipt({
            lines: lines.map((l) => ({ price: micros(l.price * CENT), weight: mg(l.weight) })),
            postage: micros(postage * CENT),
            tax: micros(tax * CENT),
            discount: micros(Math.floor((goods * part) / 1000) * CENT),
            spreadBy,
            rate,
          });
          if (!r.ok) throw new Error(r.problem.say);
          expect(sum(r.value.lines.map((l) => l.landed))).toBe(r.value.paidHere);
          for (const l of r.value.lines) expect(l.landed >= 0 && l.landed % CENT === 0).toBe(true);
        },
      ),
    );
  });
  it("packs that have come and packs to come share a line's cost", () => {
    expect(splitLanded(euro(10), 1, 2)).toEqual([euro(3.33), euro(6.67)]);
    expect(splitLanded(euro(10), 0, 2)).toEqual([0, euro(10)]);
  });
});

describe("when to buy", () => {
  const rule = { leadDays: 14, coverDays: 60 };
  const line = { onHand: 100, coming: 0, reorderBy: "use" as const, reorderAt: null, perDay: 10 };
  it("learns what is used in a day from half a year, or from the first use on", () => {
    expect(usedPerDay([{ month: "2026-10-01", used: 3100 }], "2026-11-01")).toBe(100);
    expect(usedPerDay([{ month: "2024-01-01", used: 9999 }], "2026-11-01")).toBeNull();
    expect(usedPerDay([{ month: "2026-11-01", used: 500 }], "2026-11-10")).toBeNull();
    expect(
      usedPerDay(
        [
          { month: "2026-09-01", used: -50 },
          { month: "2026-10-01", used: 40 },
        ],
        "2026-11-01",
      ),
    ).toBe(0);
    expect(usedPerDay([], "2026-11-01")).toBeNull();
  });
  it("by use: twice the days to delivery; by hand: the point set; never: never", () => {
    expect(reorderPoint(line, rule)).toBe(280);
    expect(reorderPoint({ ...line, reorderBy: "hand", reorderAt: 50 }, rule)).toBe(50);
    expect(reorderPoint({ ...line, reorderBy: "never", reorderAt: 50 }, rule)).toBeNull();
    expect(reorderPoint({ ...line, perDay: null }, rule)).toBeNull();
  });
  it("buys up to the point and the cover after it, less what is there and what is to come", () => {
    expect(toBuy(line, rule)).toBe(280 + 600 - 100);
    expect(toBuy({ ...line, coming: 100 }, rule)).toBe(280 + 600 - 200);
    expect(toBuy({ ...line, coming: 180 }, rule)).toBe(0);
    expect(toBuy({ ...line, reorderBy: "hand", reorderAt: 150, perDay: null }, rule)).toBe(200);
  });
});

describe("offers", () => {
  const offer = (supplier: string, packSize: string, qty: number, price: number, postage = 0): Offer => ({
    supplier,
    packSize,
    qty,
    price: euro(price),
    postage: euro(postage),
  });
  const small = offer("A", "100 g", 100_000, 2);
  const large = offer("B", "1 kg", 1_000_000, 10, 2);
  it("a large pack is the cheapest when it is all used, the small one when the rest would go off", () => {
    const once = (perDay: number | null, keepsDays: number | null, amount = 100_000) =>
      forOnce([small, large], { amount, perDay, keepsDays })[0]!;
    expect(once(null, 365).offer).toBe(small);
    expect(once(3000, 365).offer).toBe(large);
    expect(once(3000, 365).wasted).toBe(0);
    expect(once(500, 365)).toMatchObject({ offer: small, packs: 1, wasted: 0 });
    // 900 g left over, 182.5 g of it used in time.
    const [, dear] = forOnce([small, large], { amount: 100_000, perDay: 500, keepsDays: 365 });
    expect(dear).toMatchObject({ offer: large, used: 282_500, wasted: 717_500, paid: euro(12) });
    expect(once(1, null).wasted).toBe(0);
  });
  it("over a year a pack that lasts two is half wasted when it keeps one", () => {
    const [best, other] = forAYear([small, large], { amount: 500_000, perDay: null, keepsDays: 365 });
    expect(best).toMatchObject({ offer: small, packs: 5, wasted: 0, paid: euro(10) });
    expect(other).toMatchObject({ offer: large, packs: 1, used: 500_000, wasted: 500_000 });
    expect(forAYear([small, large], { amount: 500_000, perDay: null, keepsDays: null })[0]!.offer).toBe(large);
  });
  it("always buys enough, and what is used and wasted is what was bought", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5_000_000 }),
        fc.nat(40_000),
        fc.option(fc.integer({ min: 1, max: 900 })),
        (amount, perDay, keepsDays) => {
          for (const p of [
            ...forOnce([small, large], { amount, perDay, keepsDays }),
            ...forAYear([small, large], { amount, perDay, keepsDays }),
          ]) {
            expect(p.used + p.wasted).toBe(p.packs * p.offer.qty);
            expect(p.wasted).toBeGreaterThanOrEqual(0);
          }
          for (const p of forOnce([small, large], { amount, perDay, keepsDays })) expect(p.used).toBeGreaterThanOrEqual(amount);
        },
      ),
    );
  });
  it("a shopping list takes the cheapest delivered in whole packs, by supplier, the unknown last", () => {
    const list = shoppingList([
      { materialId: 1, name: "Shea", amount: 1_200_000, offers: [small, large] },
      { materialId: 2, name: "Ghost", amount: 5, offers: [] },
      { materialId: 3, name: "Wax", amount: 250_000, offers: [small] },
    ]);
    expect(list.map((g) => [g.supplier, g.cost, g.lines.map((l) => `${l.packs} × ${l.offer?.packSize}`)])).toEqual([
      ["A", euro(6), ["3 × 100 g"]],
      ["B", euro(20), ["2 × 1 kg"]],
      [null, 0, ["0 × undefined"]],
    ]);
    expect(delivered(large)).toEqual({ value: euro(12), per: 1_000_000 });
  });
});
