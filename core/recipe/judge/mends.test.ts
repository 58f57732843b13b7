/** What mends a recipe does, pressed on the sheet as it is typed. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { FOR_WHOM_IDS, USED_ON_IDS } from "../../scent/limits.ts";
import { judged, SHELF, texts, type Key, type Sheet } from "#test/core/typedSheet";
import type { Scale } from "../scale.ts";
import type { RecipeType } from "../types.ts";
import { readWritten, type RecipeText } from "../written.ts";
import type { Judgement } from "./judgement.ts";

/** The sheet with a judgement's change typed in. */
function mended(written: RecipeText, { mend }: Judgement): RecipeText {
  const entered = new Map(mend!.rows.map((r) => [r.row, r.entered]));
  return {
    ...written,
    makes: mend!.makes ?? written.makes,
    lines: written.lines.map((l, i) => ({ ...l, entered: entered.get(i) ?? l.entered })),
  };
}

describe("what mends it", () => {
  const amounts = {
    wax: fc.integer({ min: 2, max: 150 }),
    oil: fc.integer({ min: 100, max: 400 }),
    lavender: fc.integer({ min: 0, max: 30 }),
    clove: fc.integer({ min: 0, max: 12 }),
    bergamot: fc.integer({ min: 0, max: 30 }),
    lime: fc.integer({ min: 0, max: 30 }),
    e: fc.integer({ min: 0, max: 40 }),
    fill: fc.integer({ min: 20, max: 90 }),
  };
  it("each press takes away what it was said for, and leaves every line with an amount", () => {
    fc.assert(
      fc.property(
        fc.record(amounts),
        fc.constantFrom<RecipeType>("salve", "lipBalm", "lotionBar"),
        fc.constantFrom(...USED_ON_IDS),
        fc.constantFrom(...FOR_WHOM_IDS),
        fc.constantFrom<Scale>({ unit: "g", step: 100 }, { unit: "g", step: 1000 }, { unit: "oz", step: 50 }),
        (a, type, usedOn, forWhom, scale) => {
          const lines = (
            [
              ["beeswax-yellow", `${a.wax} g`],
              ["olive", `${a.oil} g`],
              ["eo-lavender", `${a.lavender} g`],
              ["eo-clove-bud", `${a.clove / 10} g`],
              ["eo-bergamot", `${a.bergamot / 10} g`],
              ["eo-lime", `${a.lime / 10} g`],
              ["vitamin-e", `${a.e} g`],
            ] satisfies [Key, string][]
          ).filter(([, t]) => t !== "0 g");
          const sheet: Sheet = { type, lines, usedOn, forWhom, scale, fill: `${a.fill} g` };
          const written = texts(sheet);
          const said = judged(sheet);
          // Too much is lowered, but where there should be none there is nothing to lower it to.
          const tooMuch = said.filter((j) => j.key.startsWith("scent.") && !(j.key === "scent.use" && forWhom === "infants"));
          expect(tooMuch.every((j) => j.mend !== null)).toBe(true);
          for (const j of said.filter((x) => x.mend)) {
            const after = mended(written, j);
            expect(readWritten(after, SHELF).lines.every((l) => l.out.ok)).toBe(true);
            expect([j.key, judged(sheet, after).map((x) => x.key)].flat().filter((k) => k === j.key)).toEqual([j.key]);
          }
        },
      ),
    );
  });
  it("with shares on the sheet no grams are pressed into it, and the whole is made larger instead", () => {
    const shares: Sheet = {
      type: "salve",
      makes: "300 g",
      fill: "56 g",
      lines: [
        ["beeswax-yellow", "4 %"],
        ["olive", "96 %"],
      ],
    };
    const said = judged(shares);
    expect(said.map((j) => [j.key, j.mend])).toEqual([
      ["set.soft", null],
      ["left over", expect.objectContaining({ rows: [], makes: "280.0 g" })],
    ]);
  });
});
