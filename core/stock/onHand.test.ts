/** What is on the shelf: gone through again, until when, what for, for whom it is reserved, and what it is worth. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { micros } from "../measure/exact.ts";
import type { KindId } from "../material/kinds.ts";
import { bestBy } from "./bestBy.ts";
import { whyFirst, type Lot } from "./lots.ts";
import { unitsFor, unitsForStall, allocateUnits } from "./allocations.ts";
import { replay, type Entry } from "../ledger/replay.ts";
import { worthByCostingMethod } from "./costingMethods.ts";
import { mayUse, type Use } from "./use.ts";

describe("going through a lot again", () => {
  const entry = fc.record({
    how: fc.constantFrom("came" as const, "found" as const, "drawn" as const, "counted" as const),
    qty: fc.nat(1_000_000),
    value: fc.nat(50_000_000).map(micros),
  });
  it("conserves value, is what drawing one after the other gives, and ends with nothing worth nothing", () => {
    fc.assert(
      fc.property(fc.nat(1_000_000), fc.array(entry, { maxLength: 8 }), (start, more) => {
        const entries = [{ how: "came" as const, qty: 1_000_000 + start, value: micros(30_000_000) }, ...more];
        const r = replay(entries);
        const done = entries.slice(0, r.values.length);
        const signed = (pick: (i: number) => number): number => done.reduce((a, e, i) => a + (e.how === "drawn" ? -1 : 1) * pick(i), 0);
        expect(r.left.onHand).toBe(signed((i) => r.qtys[i]!));
        if (done.at(-1)?.how === "counted") expect(r.left.onHand).toBe(done.at(-1)!.qty);
        for (const [i, e] of done.entries()) if (e.how !== "counted") expect(r.qtys[i]).toBe(e.qty);
        expect(r.left.value).toBe(signed((i) => r.values[i]!));
        expect(r.left.value).toBeGreaterThanOrEqual(0);
        if (r.left.onHand === 0) expect(r.left.value).toBe(0);
        if (r.shortAt !== null) expect(entries[r.shortAt]!.qty).toBeGreaterThan(r.left.onHand);
        else expect(r.values).toHaveLength(entries.length);
      }),
    );
  });
  it("worked example: 100 g for 30.00, half of it drawn, 10 g found at what the lot cost, and the rest drawn", () => {
    const of = (how: Entry["how"], qty: number, value = 0) => ({ how, qty, value: micros(value) });
    expect(replay([of("came", 100, 30), of("drawn", 50), of("found", 10), of("drawn", 60)])).toEqual({
      values: [30, 15, 3, 18],
      qtys: [100, 50, 10, 60],
      left: { onHand: 0, value: 0 },
      shortAt: null,
    });
    // Counted at 40 after 50 were drawn, and at 90 where nothing was.
    expect(replay([of("came", 100, 30), of("drawn", 50), of("counted", 40)])).toMatchObject({ values: [30, 15, -3], qtys: [100, 50, -10] });
    expect(replay([of("came", 100, 30), of("counted", 90)])).toMatchObject({ qtys: [100, -10], left: { onHand: 90, value: 27 } });
    expect(replay([of("counted", 10)]).shortAt).toBe(0);
    expect(replay([of("came", 100, 30), of("drawn", 101)]).shortAt).toBe(1);
    expect(replay([of("found", 10)]).shortAt).toBe(0);
  });
});

describe("best before", () => {
  it.each([
    // printed, arrived, opened, keeps sealed, keeps opened, the day that counts, and why
    ["2027-06-30", "2026-01-31", "2026-01-31", 12, 1, "2026-02-28", "opened"],
    ["2026-02-01", "2026-01-31", "2026-01-31", 12, 6, "2026-02-01", "printed"],
    [null, "2026-01-31", "2026-01-31", null, 6, "2026-07-31", "opened"],
    ["2027-06-30", "2026-01-31", "2026-01-31", 12, null, "2027-06-30", "printed"],
    [null, "2026-03-01", null, 6, 3, "2026-09-01", "keeping"],
    [null, "2026-03-01", "2026-08-01", 6, 3, "2026-09-01", "keeping"],
    [null, "2026-03-01", null, null, 3, null, ""],
  ] as const)(
    "printed %s, arrived %s, opened %s, keeps %s and %s months: %s",
    (printed, arrived, opened, keepsSealed, keepsOpened, day, by) =>
      expect(bestBy({ printed, arrived, opened }, { keepsSealed, keepsOpened })).toEqual({ day, by }),
  );
});

describe("what a lot may be used for", () => {
  const today = "2026-11-25";
  const lot = { number: "R1", onHand: 5, bestBefore: null as string | null, hold: false };
  const code = (l: Partial<typeof lot> & { kind: KindId | null }, use: Use) => {
    const may = mayUse({ ...lot, ...l }, use, today);
    return may.ok ? "yes" : may.problem.code;
  };
  it.each<[KindId | null, Use, string]>([
    ["oil", "carrier", "yes"],
    ["wax", "carrier", "kind"],
    ["wax", "weigh", "yes"],
    ["container", "weigh", "kind"],
    ["container", "wrap", "yes"],
    ["softButter", "blend", "kind"],
    ["herb", "herb", "yes"],
    [null, "order", "yes"],
    [null, "stall", "yes"],
    ["oil", "order", "kind"],
  ])("%s for %s: %s", (kind, use, said) => expect(code({ kind }, use)).toBe(said));
  it("on hold or past its day, for nothing that is made or packed; what was sold was sold", () => {
    for (const use of ["weigh", "carrier", "blend"] as const) {
      expect(code({ kind: "oil", hold: true }, use)).toBe("hold");
      expect(code({ kind: "oil", bestBefore: "2026-11-24" }, use)).toBe("expired");
      expect(code({ kind: "oil", bestBefore: today }, use)).toBe("yes");
    }
    expect(code({ kind: null, hold: true, bestBefore: "2026-11-24" }, "stall")).toBe("yes");
  });
});

describe("what is promised", () => {
  const day = "2026-11-25";
  const lot = fc.record({
    onHand: fc.integer({ min: 1, max: 30 }),
    hold: fc.boolean(),
    bestBefore: fc.constantFrom(null, "2026-01-01", "2026-12-02", "2027-01-01"),
  });
  const stall = fc.record({ lotId: fc.nat(4), taken: fc.nat(20), dayId: fc.nat(2) });
  const wish = fc.record({
    orderId: fc.nat(5),
    units: fc.integer({ min: 1, max: 20 }),
    due: fc.constantFrom("2026-12-01", "2026-12-02", "2026-12-03"),
  });
  it("everything here is on hold, past its day, on its way, promised or free, and nothing is twice", () => {
    fc.assert(
      fc.property(
        fc.array(lot, { maxLength: 5 }),
        fc.array(stall, { maxLength: 5 }),
        fc.array(wish, { maxLength: 5 }),
        (lots, stalls, wishes) => {
          const all = lots.map((l, id) => ({ ...l, id, number: `T${id}`, of: 1, value: micros(0), arrived: day }));
          const s = allocateUnits(
            all,
            stalls.map((x) => ({ ...x, name: "Fair" })),
            wishes.map((w) => ({ ...w, of: 1, customer: "Choir" })),
            day,
          ).get(1);
          fc.pre(s !== undefined);
          const promised = s.reserved.reduce((a, p) => a + p.units, 0);
          expect(s.held + s.expired + s.onTheWay + promised + s.free).toBe(s.here);
          for (const n of [s.held, s.expired, s.onTheWay, s.free]) expect(n).toBeGreaterThanOrEqual(0);
          // The sooner due is served first: one that goes short leaves nothing to the later ones, and nothing that is good on its day.
          const short = s.reserved.findIndex((p) => p.units < p.wished);
          if (short >= 0) {
            expect(s.reserved.slice(short + 1).reduce((a, p) => a + p.units, 0)).toBe(0);
            expect(unitsFor(s, null, s.reserved[short]!.due)).toBe(0);
          }
          // Each is promised no more than is open and good on its day.
          for (const p of s.reserved) {
            const good = s.lots.filter((l) => l.lot.bestBefore === null || l.lot.bestBefore >= p.due);
            const sooner = s.reserved.filter((x) => x.due >= p.due).reduce((a, x) => a + x.units, 0);
            expect(sooner).toBeLessThanOrEqual(good.reduce((a, l) => a + l.open, 0));
          }
          // A stall may have of a lot what leaves every order all it was promised, and not one more.
          for (const l of s.lots.filter((x) => x.usable > 0)) {
            const room = unitsForStall(s, l.lot.id, new Map(), null);
            const without = (n: number) =>
              allocateUnits(
                all.map((x) => ({ ...x })),
                [...stalls.map((x) => ({ ...x, name: "Fair" })), { dayId: 9, name: "New", lotId: l.lot.id, taken: n }],
                wishes.map((w) => ({ ...w, of: 1, customer: "Choir" })),
                day,
              )
                .get(1)!
                .reserved.reduce((a, p) => a + p.units, 0);
            expect(without(room)).toBe(promised);
            if (room < l.open) expect(without(room + 1)).toBeLessThan(promised);
          }
          for (const w of wishes) expect(unitsFor(s, w.orderId, w.due)).toBeLessThanOrEqual(unitsFor(s, w.orderId, null));
        },
      ),
    );
  });
});

describe("what is on hand", () => {
  const lot = (id: number, bestBefore: string | null, arrived: string): Lot => ({
    id,
    number: `L${id}`,
    of: 1,
    onHand: 1,
    value: micros(1),
    arrived,
    bestBefore,
    hold: false,
  });
  it("is worth what was paid, or what it would cost again; what was never bought stays at its cost", () => {
    const stock = [
      { id: 1, onHand: 500, value: micros(5_000) },
      { id: 2, onHand: 7, value: micros(70) },
    ];
    expect(worthByCostingMethod(stock, new Map([[1, { value: micros(20_000), per: 1000 }]]))).toEqual({
      lot: 5_070,
      average: 5_070,
      again: 10_070,
    });
    expect(worthByCostingMethod([], new Map())).toEqual({ lot: 0, average: 0, again: 0 });
  });
  it("says why a lot is used first", () => {
    const [a, b, c] = [lot(1, "2027-01-01", "2026-02-01"), lot(2, "2027-02-01", "2026-01-01"), lot(3, null, "2026-01-01")];
    expect(whyFirst([a, b])).toBe("best before soonest");
    expect(whyFirst([a, c])).toBe("the only one with a best before");
    expect(whyFirst([c, lot(4, null, "2026-01-02")])).toBe("came first");
    expect(whyFirst([c, lot(4, null, "2026-01-01")])).toContain("alike");
    expect(whyFirst([a])).toBeNull();
  });
});
