/** Advice does no harm: what a press puts into a pot is only what carries, and it brings up nothing grave that wasn't there before. */
import fc from "fast-check";
import { expect, it } from "vitest";
import { SPOON_IDS, firmnessFix } from "../../batch/finishing/spoon.ts";
import { TRADE } from "../../firmness/model.ts";
import { carries } from "../../material/kinds.ts";
import { mg, sum } from "../../measure/exact.ts";
import { readWeighed } from "../../measure/read.ts";
import { isScent, scentShare } from "../../scent/dilution.ts";
import { FOR_WHOM_IDS, USED_ON_IDS } from "../../scent/limits.ts";
import { ALL, known, pot } from "#test/core/pot";
import { RECIPE_TYPE_IDS } from "../types.ts";
import { judge } from "./judge.ts";
import type { Judged } from "./judgement.ts";

/** Any few things of the library, of every kind, in amounts a hand might write. */
const recipes = fc.record({
  type: fc.constantFrom(...RECIPE_TYPE_IDS),
  parts: fc
    .uniqueArray(fc.constantFrom(...ALL.map((m) => m.libraryKey!)), { minLength: 1, maxLength: 7 })
    .chain((keys) => fc.tuple(...keys.map((k) => fc.integer({ min: 1, max: 300 }).map((g): [string, number] => [k, g])))),
  usedOn: fc.constantFrom(...USED_ON_IDS),
  forWhom: fc.constantFrom(...FOR_WHOM_IDS),
});

/** Weights after a press, by row. */
const after = (of: Judged, rows: readonly { row: number; entered: string }[]): Judged => {
  const weights = new Map(
    rows.map((r) => {
      const w = readWeighed(r.entered);
      return [r.row, w.ok ? w.value : mg(0)];
    }),
  );
  const lines = of.lines.map((l) => ({ ...l, weight: weights.get(l.row) ?? l.weight }));
  const total = sum(lines.map((l) => l.weight));
  return { ...of, total, lines: lines.map((l) => ({ ...l, share: l.weight / total })) };
};

it("of what is made heavier by a press nothing is dosed, and no press brings up what another judge would stop", () => {
  let pressed = 0;
  fc.assert(
    fc.property(recipes, ({ type, parts, ...who }) => {
      const of = { ...pot(type, parts), ...who };
      const said = judge(of);
      const keys = new Set(said.map((j) => j.key));
      for (const j of said.filter((x) => x.mend && x.mend.rows.length > 0)) {
        const then = after(of, j.mend!.rows);
        for (const [i, l] of then.lines.entries()) if (l.weight > of.lines[i]!.weight) expect(carries(l), `${j.key}: ${l.name}`).toBe(true);
        if (then.lines.some((l, i) => l.weight > of.lines[i]!.weight))
          expect(judge(then).filter((x) => x.gravity >= 2 && !keys.has(x.key))).toEqual([]);
        pressed++;
      }
    }),
    { numRuns: 400 },
  );
  expect(pressed).toBeGreaterThan(100);
});

it("nor does a cold spoon's verdict add anything dosed to the pot", () => {
  fc.assert(
    fc.property(recipes, fc.constantFrom(...SPOON_IDS), ({ type, parts }, verdict) => {
      const { lines } = pot(type, parts);
      const inPot = lines.map((l, position) => ({
        ...{ name: l.name, position, planned: l.weight, weighed: l.weight, sets: l.sets, scent: scentShare(known.get(l.of)!) },
        ...{ carries: carries(l), onHand: 1e9, perMg: null },
      }));
      const fix = firmnessFix(inPot, verdict, type, TRADE);
      if (fix) expect([carries(lines[fix.line]!), isScent(lines[fix.line]!)]).toEqual([true, false]);
    }),
    { numRuns: 400 },
  );
});
