/** A period's statement: each reason of the ledger in one line of it, and lines that add up. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { REASONS, type Reason } from "../ledger/reasons.ts";
import { micros, sum } from "../measure/exact.ts";
import {
  feesOf,
  FLOW_IDS,
  flowOf,
  placesOf,
  salesSums,
  statementLines,
  statementOf,
  wholeStock,
  type Moved,
  type Sale,
} from "./statement.ts";

const CORRECTS = ["corrected", "restated", "undone"] as const;
const STAND = (Object.keys(REASONS) as Reason[]).filter((r) => !CORRECTS.some((c) => c === r));

describe("a statement", () => {
  it("has a line for every reason but those that only correct another movement", () => {
    expect(STAND.map((r) => [r, flowOf(r)])).toEqual([
      ["received", "bought"],
      ["strained", "making"],
      ["blended", "making"],
      ["remelted", "making"],
      ["harvested", "grown"],
      ["opening", "began"],
      ["infused", "making"],
      ["leftOver", "making"],
      ["wasted", "thrown"],
      ["given", "given"],
      ["returned", "sentBack"],
      ["counted", "counted"],
      ["used", "making"],
      ["filled", "making"],
      ["sold", "sold"],
      ["tester", "given"],
      ["gift", "given"],
      ["own", "given"],
      ["damaged", "thrown"],
      ["cameBack", "sold"],
      ["ordered", "sold"],
      ["wrapped", "sold"],
    ]);
    for (const r of CORRECTS) expect(() => flowOf(r)).toThrow(REASONS[r].say);
  });

  it("adds up from the stock at the start to the stock at the end, whatever moved and whatever is in jars", () => {
    const amount = fc.integer({ min: -1e12, max: 1e12 }).map(micros);
    const moved: fc.Arbitrary<Moved> = fc.record({
      stock: fc.constantFrom("ingredient", "packaging", "finished"),
      reason: fc.constantFrom(...STAND),
      before: amount,
      within: amount,
    });
    fc.assert(
      fc.property(fc.array(moved, { maxLength: 40 }), amount, amount, (all, start, end) => {
        const s = statementOf(all, { start, end });
        expect(wholeStock(s.start) + sum(FLOW_IDS.map((f) => s.flows[f]))).toBe(wholeStock(s.end));
        expect(wholeStock(s.start)).toBe(sum(all.map((m) => m.before)) + start);
        for (const dearer of [null, { start: end, end: start }]) {
          const part = (of: string) => sum(statementLines(s, dearer).flatMap((l) => (l.part === of ? [l.amount] : [])));
          expect(part("start") + part("moved")).toBe(part("end"));
          expect(part("end")).toBe(wholeStock(s.end) + (dearer?.end ?? 0));
        }
      }),
    );
  });

  it("doesn't call lost what is in a jar", () => {
    const of = (reason: Reason, within: number): Moved => ({ stock: "ingredient", reason, before: micros(0), within: micros(within) });
    const s = statementOf([of("received", 100), of("infused", -60)], { start: micros(0), end: micros(60) });
    expect(s.flows).toMatchObject({ bought: 100, making: 0 });
    expect(s.end).toMatchObject({ ingredient: 40, jars: 60, finished: 0 });
    // Written off, it is.
    expect(statementOf([of("infused", -60)], { start: micros(0), end: micros(0) }).flows.making).toBe(-60);
    expect(statementOf([of("strained", 50)], { start: micros(60), end: micros(0) }).flows.making).toBe(-10);
  });
});

describe("sales", () => {
  const sale = (of: Partial<Sale>): Sale => ({
    ...{
      channel: "market",
      id: 1,
      place: "Fair",
      day: "2026-05-04",
      takings: micros(10),
      stall: micros(3),
      travel: micros(2),
      card: micros(1),
      costKnown: true,
    },
    ...of,
  });
  it("stand together by where they were, the largest first, with what it cost to be there", () => {
    const all = [
      sale({}),
      sale({ id: 2, place: "Quay", takings: micros(30) }),
      sale({ id: 3, takings: micros(15) }),
      sale({ id: 4, channel: "order", place: "Nan" }),
    ];
    expect(placesOf(all, "market").map((p) => [p.place, p.takings, p.fees, p.of.map((s) => s.id)])).toEqual([
      ["Quay", 30, 6, [2]],
      ["Fair", 25, 12, [1, 3]],
    ]);
    expect(placesOf(all, "order").map((p) => p.place)).toEqual(["Nan"]);
    expect(feesOf(all[0]!)).toBe(6);
    expect(salesSums(all, micros(-20))).toEqual({ takings: 65, fees: 24, left: 21 });
  });
});
