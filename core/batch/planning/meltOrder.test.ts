/** The order of a melt: every line once, hardest first, oils after what melts, and what heat harms last. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { meltsAt, type Sets } from "../../firmness/solids.ts";
import { meltSequence, type MeltLine } from "./meltOrder.ts";
import { weighOrder, type WeighLine } from "./weighOrder.ts";

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
      const stages = meltSequence(lines);
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

describe("the order of a weigh sheet", () => {
  const of = (material: string, sets: Sets, position: number, more: Partial<WeighLine> & { lot?: number } = {}) => ({
    ...{ material, sets, position, sizeId: null as number | null, delicate: false, lot: 1 },
    ...more,
  });
  const lines = [
    of("Sunflower oil, high oleic", { as: "liquid" }, 0),
    of("Lavender essential oil", { as: "liquid" }, 1, { delicate: true }),
    of("Rose clay", { as: "powder" }, 2, { sizeId: 7 }),
    of("Shea butter, unrefined", { as: "fat", family: "stearic", solid: [[20, 0.5], [35, 0]] }, 3), // prettier-ignore
    of("Beeswax, yellow", { as: "wax", strength: 1, melts: 63 }, 4),
    of("Beeswax, yellow", { as: "wax", strength: 1, melts: 63 }, 4, { lot: 2 }),
  ];
  const order = (method: string): string => weighOrder(lines, method).map((l) => l.material.split(/[ ,]/)[0]).join(" "); // prettier-ignore
  it.each([
    // Nothing said, or not of all: as it is melted, what goes into a part alone last.
    ["", "Beeswax Beeswax Shea Sunflower Lavender Rose"],
    ["Melt the shea first.", "Beeswax Beeswax Shea Sunflower Lavender Rose"],
    // All of it said: as it is said, each where it is spoken of first.
    ["Warm the sunflower oil. Beeswax in, then the shea, more beeswax; lavender last.", "Sunflower Beeswax Beeswax Shea Lavender Rose"],
    ["LAVENDER and shea butter, sunflower oil, beeswax.", "Lavender Shea Sunflower Beeswax Beeswax Rose"],
  ])("by the method %j", (method, expected) => expect(order(method)).toBe(expected));
  it("lots of one line stay as they were", () =>
    expect(
      weighOrder(lines, "")
        .slice(0, 2)
        .map((l) => l.lot),
    ).toEqual([1, 2]));
});
