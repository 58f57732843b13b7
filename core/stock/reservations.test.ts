/** What is reserved for the bench is set aside once, whole, and with its worth; and what a batch's record calls a deviation. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { deviations } from "../batch/finishing/deviations.ts";
import { mg, micros } from "../measure/exact.ts";
import type { Lot } from "./lots.ts";
import { planTakes, stockOnHand } from "./shelf.ts";
import { unreserved } from "./reservations.ts";

const DAY = "2026-11-27";
const lots = fc
  .array(
    fc.record({ of: fc.integer({ min: 1, max: 3 }), onHand: fc.integer({ min: 1, max: 900 }), value: fc.integer({ min: 0, max: 50_000 }) }),
    {
      minLength: 1,
      maxLength: 10,
    },
  )
  .map((all) =>
    all.map((l, i): Lot => ({
      ...l,
      id: i + 1,
      number: `L${i + 1}`,
      value: micros(l.value),
      arrived: "2026-11-01",
      bestBefore: null,
      hold: false,
    })),
  );
const takes = fc.array(fc.record({ lotId: fc.integer({ min: 1, max: 12 }), amount: fc.integer({ min: 0, max: 1200 }) }), { maxLength: 8 });
const needs = fc.array(fc.record({ of: fc.integer({ min: 1, max: 4 }), amount: fc.integer({ min: 0, max: 1500 }) }), { maxLength: 4 });

describe("what is promised", () => {
  it("is gone from what is free, never more than there is, and nothing of it is promised twice", () => {
    fc.assert(
      fc.property(lots, takes, needs, (shelf, out, packs) => {
        const free = new Map(unreserved(shelf, { takes: out, needs: packs }, DAY).map((l) => [l.id, l]));
        for (const l of shelf) {
          const left = free.get(l.id);
          const promised = out.filter((t) => t.lotId === l.id).reduce((n, t) => n + t.amount, 0);
          expect(left?.onHand ?? 0).toBeLessThanOrEqual(Math.max(0, l.onHand - promised));
          // What it is worth goes with it, to a rounding.
          if (left) expect(Math.abs(left.value / left.onHand - l.value / l.onHand)).toBeLessThanOrEqual(3 / left.onHand + 1);
        }
        // So much of each material as is promised, and is there, is gone: no more and no less.
        for (const of of [1, 2, 3]) {
          const own = shelf.filter((l) => l.of === of);
          const there = own.reduce((n, l) => n + l.onHand, 0);
          const taken = own.reduce(
            (n, l) =>
              n +
              Math.min(
                l.onHand,
                out.filter((t) => t.lotId === l.id).reduce((m, t) => m + t.amount, 0),
              ),
            0,
          );
          const packed = Math.min(
            there - taken,
            packs.filter((p) => p.of === of).reduce((n, p) => n + p.amount, 0),
          );
          expect([...free.values()].filter((l) => l.of === of).reduce((n, l) => n + l.onHand, 0)).toBe(there - taken - packed);
        }
      }),
    );
  });
  it("leaves a plan of what is free that, with what is promised, the shelf can give", () => {
    fc.assert(
      fc.property(lots, needs, needs, (shelf, promised, wanted) => {
        const free = unreserved(shelf, { takes: [], needs: promised }, DAY);
        const both = [...planTakes(promised, stockOnHand(shelf, DAY)), ...planTakes(wanted, stockOnHand(free, DAY))].flatMap(
          (p) => p.takes,
        );
        for (const l of shelf) expect(both.filter((t) => t.lotId === l.id).reduce((n, t) => n + t.amount, 0)).toBeLessThanOrEqual(l.onHand);
      }),
    );
  });
});

describe("deviations", () => {
  const line = (planned: number, weighed: number | null) => ({
    material: "Wax",
    planned: mg(planned),
    weighed: weighed === null ? null : mg(weighed),
  });
  it.each([
    [line(40_000, 40_300), []],
    [line(40_000, 40_500), ["Wax: 40.5 g weighed, 40 g planned."]],
    [line(40_000, 0), ["Wax was left out; 40 g planned."]],
    [line(40_000, null), ["Wax was left out; 40 g planned."]],
    [line(0, 5000), ["Wax: 5 g weighed out of a lot that wasn't planned."]],
  ])("%j: %j", (l, said) => expect(deviations([l], [], mg(100))).toEqual(said));
  it("counts what was filled otherwise than planned", () => {
    expect(
      deviations(
        [],
        [
          { label: "60 g", planned: 12, units: 11 },
          { label: "15 g", planned: 4, units: 4 },
          { label: "5 g", planned: 0, units: 2 },
          { label: "100 g", planned: 1, units: null },
        ],
        mg(100),
      ),
    ).toEqual(["11 × 60 g filled, 12 planned.", "2 × 5 g filled, 0 planned.", "0 × 100 g filled, 1 planned."]);
  });
});
