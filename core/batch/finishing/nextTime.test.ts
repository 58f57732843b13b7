/** What a batch teaches: found where something was off, not found where only the batch was larger, and written so that it reads back as it is. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { mg } from "../../measure/exact.ts";
import { readWeighed } from "../../measure/read.ts";
import { changedLines, nextTime, type RecipeLine } from "./nextTime.ts";

const STEP = mg(100);
const line = (materialId: number, weight: number, entered = `${weight / 1000} g`): RecipeLine => ({
  materialId,
  name: ["Oil", "Wax", "Butter"][materialId]!,
  entered,
  weight: mg(weight),
});
const BALM = { lines: [line(0, 160_000, "¾ cup"), line(1, 48_000), line(2, 32_000)], lossBp: 200, batchMinutes: 40 };
const wentIn = (weights: readonly number[]) =>
  weights.map((w, i) => ({ materialId: i, name: BALM.lines[i]?.name ?? "Starch", weighed: mg(w) }));
const says = (weights: readonly number[], past = [{ lostShare: 0.02, minutes: 40 }]) =>
  nextTime(BALM, wentIn(weights), past, STEP).map((c) => c.say);

describe("what to change the next time", () => {
  it.each([
    ["as written", [160_000, 48_000, 32_000], []],
    ["twice as much of everything", [320_000, 96_000, 64_000], []],
    ["within what a hand is off", [161_000, 48_900, 31_500], []],
    ["more wax", [160_000, 52_000, 32_000], ["Wax: 52 g instead of 48 g"]],
    ["more wax in twice as much", [320_000, 104_000, 64_000], ["Wax: 52 g instead of 48 g"]],
    ["no butter", [160_000, 48_000, 0], ["Butter left out"]],
    ["something that isn't in it", [160_000, 48_000, 32_000, 9_996], ["10 g of Starch, which isn't in it"]],
  ])("%s", (_, weights, expected) => expect(says(weights)).toEqual(expected));

  it("loss and minutes are the middle of this batch and those before, and told from it by a point and by a fifth", () => {
    const as = (...past: [number, number][]) =>
      says(
        [160_000, 48_000, 32_000],
        past.map(([lostShare, minutes]) => ({ lostShare, minutes })),
      );
    expect(as([0.041, 55])).toEqual(["Loss 4 % instead of 2 %", "55 minutes instead of 40"]);
    // One spill and one long morning among five don't say what a batch is like.
    expect(as([0.3, 120], [0.021, 40], [0.018, 41], [0.02, 38], [0.022, 0])).toEqual([]);
    expect(as([0.029, 47])).toEqual([]);
    expect(as([-0.02, 0])).toEqual(["Loss 0 % instead of 2 %"]);
    // Half of it gone is no loss of a pot: not of this batch, and not among those before.
    expect(as([0.53, 41])).toEqual([]);
    expect(as([0.041, 41], [0.53, 41], [0.5, 41])).toEqual(["Loss 4 % instead of 2 %"]);
  });

  it("whatever the size of the batch, what went in otherwise is found and nothing else, and what is written reads back as it is", () =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 5_000, max: 400_000 }), { minLength: 3, maxLength: 9 }),
        fc.double({ min: 0.5, max: 30, noNaN: true }),
        fc.nat(),
        fc.constantFrom(0.5, 0.9, 1.1, 1.6),
        (weights, larger, which, times) => {
          const lines = weights.map((w, i) => ({ materialId: i, name: `M${i}`, entered: `${w / 1000} g`, weight: mg(w) }));
          const off = which % weights.length;
          // The one that is off must not be half of the pot: then it is the others that are.
          fc.pre(weights[off]! < weights.reduce((a, w) => a + w, 0) / 3);
          const went = lines.map((l, i) => ({ ...l, weighed: mg(Math.round(l.weight * larger * (i === off ? times : 1))) }));
          const changes = nextTime({ lines, lossBp: 0, batchMinutes: 0 }, went, [], STEP);
          const told = Math.abs(weights[off]! * larger * (times - 1)) > STEP + 1;
          expect(changes.map((c) => c.of)).toEqual(told ? [{ line: off }] : []);
          for (const l of changedLines(lines, changes, () => expect.fail()).lines)
            if (l.materialId === off && told) {
              expect(readWeighed(l.entered)).toMatchObject({ ok: true, value: l.weight });
              expect(Math.abs(l.weight - weights[off]! * times)).toBeLessThan(51);
            } else expect(l).toEqual(lines[l.materialId]);
        },
      ),
    ));

  it("where lines are shares, another amount of one makes grams of all; a material in two lines keeps their proportion", () => {
    const shares = [line(0, 300_000, "3 parts"), line(1, 100_000, "1 part")];
    const add = () => expect.fail();
    expect(changedLines(shares, [{ of: { line: 1 }, now: 120_000 }], add)).toEqual({
      inGrams: true,
      lines: [line(0, 300_000, "300 g"), line(1, 120_000, "120 g")],
    });
    expect(changedLines(shares, [{ of: "loss", now: 400 }], add)).toEqual({ inGrams: false, lines: shares });
    const twice = [line(1, 10_000), line(0, 100_000, "1 cup"), line(1, 30_000)];
    expect(changedLines(twice, [{ of: { line: 1 }, now: 60_000 }], add).lines).toEqual([line(1, 15_000), twice[1], line(1, 45_000)]);
  });
});
