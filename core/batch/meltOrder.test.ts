/** The order of a melt: every line once, hardest first, oils after what melts, and what heat harms last. */
import fc from "fast-check";
import { expect, it } from "vitest";
import { meltsAt, type Sets } from "../firmness/solids.ts";
import { meltOrder, type MeltLine } from "./meltOrder.ts";

const sets = fc.oneof(
  fc.integer({ min: 40, max: 90 }).map((melts): Sets => ({ as: "wax", strength: 1, melts })),
  fc.integer({ min: 22, max: 45 }).map((at): Sets => ({
    as: "fat",
    family: "stearic",
    solid: [
      [20, 0.5],
      [at, 0],
    ],
  })),
  fc.constant<Sets>({ as: "liquid" }),
  fc.constant<Sets>({ as: "powder" }),
);
const line: fc.Arbitrary<MeltLine> = fc.record({ sets, delicate: fc.boolean() });

it("has every line once, the hardest first, oils after them, and what heat harms off it", () => {
  fc.assert(
    fc.property(fc.array(line, { maxLength: 9 }), (lines) => {
      const stages = meltOrder(lines);
      expect(stages.flatMap((s) => s.lines).sort((a, b) => a - b)).toEqual(lines.map((_, i) => i));
      const rank = stages.map((s) => (s.offHeat ? -2 : (s.melts ?? -1)));
      expect(rank).toEqual([...rank].sort((a, b) => b - a));
      for (const s of stages)
        for (const i of s.lines) {
          expect(s.offHeat).toBe(lines[i]!.delicate || lines[i]!.sets.as === "powder");
          if (s.melts !== null) expect(s.melts - meltsAt(lines[i]!.sets)).toBeLessThanOrEqual(3);
        }
    }),
  );
});
