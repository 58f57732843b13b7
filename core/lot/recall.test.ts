/** A recall's account holds whatever happened to a lot, and every reason there is has its place. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { REASONS, type Reason } from "../ledger/reasons.ts";
import { reached, type Went } from "./reach.ts";
import { accountOf, letterTo, noticeFor, sayCame, sayElapsed, together } from "./recall.ts";
import { WHERE } from "../ledger/whereabouts.ts";
import { trace, traceFrom } from "./trace.ts";

const reason = fc.constantFrom(...(Object.keys(REASONS) as Reason[]));
const moved = fc.record({ qty: fc.integer({ min: -500, max: 500 }), reason, atStall: fc.boolean() });
const link = fc.record({ from: fc.integer({ min: 1, max: 9 }), to: fc.integer({ min: 1, max: 9 }) });

describe("a lot's account", () => {
  it("adds up: what came is here, in something else, or somewhere; and here is the ledger's sum", () => {
    fc.assert(
      fc.property(fc.array(moved, { maxLength: 30 }), (all) => {
        const a = accountOf(all);
        expect(a.here).toBe(all.reduce((n, m) => n + m.qty, 0));
        expect(a.came).toBe(a.here + a.on + WHERE.reduce((n, w) => n + a[w], 0));
        expect(a.lost).toBeGreaterThanOrEqual(0);
      }),
    );
  });
  it("of several lots is the sum of theirs", () => {
    fc.assert(
      fc.property(fc.array(moved), fc.array(moved), (x, y) => {
        const both = together([accountOf(x), accountOf(y)]);
        expect(both.here).toBe([...x, ...y].reduce((n, m) => n + m.qty, 0));
        expect(both.came).toBe(accountOf(x).came + accountOf(y).came);
      }),
    );
  });
});

const went = (over: Partial<Went>): Went => ({
  lotId: 1,
  reason: "ordered",
  qty: -2,
  day: "2026-11-14",
  note: "",
  orderId: 1,
  marketDayId: null,
  contactId: 7,
  ...over,
});

describe("who has some of it", () => {
  it("is one letter for all orders of one person, and nobody whose order came back whole", () => {
    const { people, markets, others } = reached(
      [1],
      [
        went({}),
        went({ orderId: 2, qty: -3 }),
        went({ contactId: 8, orderId: 3 }),
        went({ contactId: 8, orderId: 3, qty: 2 }),
        went({ reason: "sold", orderId: null, marketDayId: 4, contactId: 9, qty: -5 }),
        went({ reason: "tester", orderId: null, marketDayId: 4, contactId: 9, qty: -1 }),
        went({ reason: "gift", orderId: null, contactId: null, qty: -1, note: "the choir" }),
      ],
    );
    expect(people.map((h) => [h.contactId, h.units])).toEqual([[7, 5]]);
    expect(markets.map((h) => [h.contactId, h.units])).toEqual([[9, 6]]);
    expect(others.handed).toMatchObject([{ units: 1, note: "the choir" }]);
  });
  it("what came back is off whoever had it: lists and account say the same, whoever was named and whoever wasn't", () => {
    const outs = fc.array(
      fc.record({
        at: fc.constantFrom("order", "stall", "hand"),
        who: fc.integer({ min: 1, max: 3 }),
        units: fc.integer({ min: 1, max: 6 }),
      }),
      { minLength: 1, maxLength: 8 },
    );
    fc.assert(
      fc.property(
        outs,
        fc.array(fc.record({ of: fc.nat(), named: fc.boolean(), units: fc.integer({ min: 1, max: 6 }) })),
        (gone, backs) => {
          const at = (o: (typeof gone)[number]): Partial<Went> =>
            o.at === "order"
              ? { orderId: o.who, contactId: o.who }
              : o.at === "stall"
                ? { reason: "sold", orderId: null, marketDayId: o.who, contactId: 10 + o.who }
                : { reason: "gift", orderId: null, contactId: null };
          const left = new Map(gone.map((o) => [`${o.at} ${o.at === "hand" ? 0 : o.who}`, 0]));
          for (const o of gone)
            left.set(`${o.at} ${o.at === "hand" ? 0 : o.who}`, left.get(`${o.at} ${o.at === "hand" ? 0 : o.who}`)! + o.units);
          let all = gone.reduce((n, o) => n + o.units, 0);
          const rows = [
            went({ reason: "filled", qty: 60, orderId: null, contactId: null }),
            ...gone.map((o) => went({ ...at(o), qty: -o.units })),
          ];
          for (const b of backs) {
            const o = gone[b.of % gone.length]!;
            const key = `${o.at} ${o.at === "hand" ? 0 : o.who}`;
            const named = b.named && o.at !== "hand";
            const n = Math.min(b.units, named ? left.get(key)! : all);
            if (n === 0 || all < n) continue;
            if (named) left.set(key, left.get(key)! - n);
            all -= n;
            rows.push(went({ ...(named ? at(o) : { orderId: null, contactId: null }), reason: "cameBack", qty: n }));
          }
          const r = reached([1], rows);
          const a = r.accounts.get(1)!;
          const units = (hs: readonly { units: number }[]) => hs.reduce((n, h) => n + h.units, 0);
          // A return that names nobody is off somebody; only where it was said of one and taken off another could they differ by order.
          expect(units(r.people) + units(r.markets) + units(r.others.handed)).toBe(a.named + a.stall + a.handed);
          expect([units(r.people), units(r.markets), units(r.others.handed)]).toEqual([a.named, a.stall, a.handed]);
          expect(a.came).toBe(a.here + a.on + WHERE.reduce((n, w) => n + a[w], 0));
          for (const h of [...r.people, ...r.markets]) expect(h.units).toBeGreaterThan(0);
        },
      ),
    );
  });
  it("tracing from several reaches what any of them reaches, each once, and none of them", () => {
    fc.assert(
      fc.property(fc.array(link, { maxLength: 25 }), fc.uniqueArray(fc.integer({ min: 1, max: 9 }), { minLength: 1 }), (links, starts) => {
        const all = traceFrom(starts, links, "forward").map((s) => s.lot);
        const each = new Set(starts.flatMap((s) => trace(s, links, "forward").map((x) => x.lot)));
        for (const s of starts) each.delete(s);
        expect([...all].sort()).toEqual([...each].sort());
      }),
    );
  });
});

describe("what people read", () => {
  // 21 CFR 7.49 (c)(1), from memory: what it is with size and lot, why, what to do, and how to answer.
  const notice = {
    workshop: "Alder Lane",
    maker: "Marta",
    reachUs: "2 Alder Lane\n0400 123",
    written: "Sunday 29 November 2026",
    reason: "The oil is rancid.",
    toDo: "Bring it back.",
    rehearsal: false,
  };
  const had = [{ units: 2, what: "Hand balm, 60 g", number: "HB261101-1", when: "Sat 14 Nov" }];
  it.each([letterTo("Ada", had, notice), noticeFor("Harvest fair", had, notice)])(
    "is dated, says who writes and that it is a recall, names product, size, lot, why, what to do, and how to answer",
    (text) => {
      for (const part of [
        "Hand balm, 60 g",
        "HB261101-1",
        "Sat 14 Nov",
        notice.written,
        "RECALL",
        notice.reason,
        notice.toDo,
        "Marta, Alder Lane",
      ])
        expect(text).toContain(part);
      expect(text).not.toContain("REHEARSAL");
      expect(text.startsWith("Alder Lane\n2 Alder Lane\n0400 123\n\nSunday")).toBe(true);
      expect(/How to answer: .*2 Alder Lane, 0400 123\n/.test(text)).toBe(true);
    },
  );
  it("without an address there is room to write one", () =>
    expect(letterTo("Ada", had, { ...notice, reachUs: "" })).toMatch(/How to answer: .*_{20}/));
  it("a rehearsal's letter says so before anything else", () => {
    for (const text of [letterTo("Ada", had, { ...notice, rehearsal: true }), noticeFor("Fair", had, { ...notice, rehearsal: true })])
      expect(text.startsWith("REHEARSAL")).toBe(true);
  });
  it.each([
    [0, "0 s"],
    [59_999, "59 s"],
    [60_000, "1 min 0 s"],
    [3_600_000, "1 h"],
    [3_900_000, "1 h 5 min"],
    [90_000_000, "1 day 1 h"],
  ])("%d ms is %s", (ms, said) => expect(sayElapsed(ms)).toBe(said));
  it("says nothing of what there is none of", () => {
    const a = accountOf([{ qty: 1, reason: "filled", atStall: false }]);
    expect(sayCame(a, { people: 0, markets: 0, told: 0, back: 0 })).toBe("1 unit: 1 here.");
  });
});
