/** Sums of the reckon bar against a general-purpose spreadsheet engine (HyperFormula, from the registry), and by hand. */
import fc from "fast-check";
import { HyperFormula } from "hyperformula";
import { expect, it } from "vitest";
import { degrees, inOtherUnits } from "./plain.ts";
import { sumOf } from "./sum.ts";

const sheet = HyperFormula.buildEmpty({ licenseKey: "gpl-v3" });
const SHEET = sheet.getSheetId(sheet.addSheet("sums"))!;

/** Sums of whole and decimal numbers, at least one sign in each, brackets anywhere. */
const sums = fc.letrec<{ number: string; sum: string }>((tie) => ({
  number: fc.oneof(
    fc.integer({ min: 0, max: 999 }).map(String),
    fc.integer({ min: 1, max: 9999 }).map((n) => (n / 100).toFixed(2)),
    tie("sum").map((s) => `(${s})`),
  ),
  sum: fc
    .tuple(tie("number"), fc.array(fc.tuple(fc.constantFrom("+", "-", "*", "/"), tie("number")), { minLength: 1, maxLength: 4 }))
    .map(([first, rest]) => first + rest.map(([sign, n]) => ` ${sign} ${n}`).join("")),
})).sum;

it("a sum comes to what a spreadsheet makes of it; what comes to less than nothing, or goes over by nothing, is no answer", () => {
  fc.assert(
    fc.property(
      sums,
      fc.constantFrom<[string, string]>(["*", "×"], ["*", "*"], ["/", "÷"], ["-", "−"], ["-", "–"]),
      (sum, [sign, typed]) => {
        const theirs = sheet.calculateFormula(`=${sum}`, SHEET);
        const ours = sumOf(sum.replaceAll(sign, typed));
        if (typeof theirs !== "number" || theirs < -1e-9) {
          expect(ours, sum).toBeNull();
          return;
        }
        if (Math.abs(theirs) < 1e-9 || theirs > 1e9) return;
        expect(Math.abs(Number(ours!.say.replace(/[\s\u00a0\u202f]/g, "")) - theirs), sum).toBeLessThanOrEqual(0.00005 + theirs * 1e-9);
      },
    ),
  );
});

// By hand; a pound is 453.59237 g and an ounce 28.349523125 g (NIST SP 811, Appendix B.8), a cup 236.588 mL.
it.each<[string, string | null]>([
  ["1 lb + 200 g", "653.6 g"],
  ["1 lb 4 oz", null],
  ["2 lb - 1 lb", "453.6 g"],
  ["half of 2 1/2 cups", "1 1/4 cups"],
  ["a third of 800 g", "266.7 g"],
  ["third of 900 g", "300 g"],
  ["two thirds of 900 g", "600 g"],
  ["one quarter of 2 cups", "1/2 cup"],
  ["three quarters of 400 g", "300 g"],
  ["double 3/4 cup", "1 1/2 cups"],
  ["twice 40 g", "80 g"],
  ["thrice 5 g", "15 g"],
  ["half as much again as 200 g", "300 g"],
  ["20 % of 450 g", "90 g"],
  ["450 g - 10 %", "405 g"],
  ["450 g + 10 %", "495 g"],
  ["15 % off 12", "10.2"],
  ["5 % + 3 %", "8 %"],
  ["12,50 × 3", "37.5"],
  ["12.50 x 3", "37.5"],
  ["500 g / 60 g", "8.3333"],
  ["500 g / 4", "125 g"],
  ["2 (3)", null],
  ["2 * (3", null],
  ["2 g * 3 g", null],
  ["12 / 3 g", null],
  ["12 / 0", null],
  ["1 cup + 200 g", null],
  ["3 % + 200", null],
  ["200 g + 3", null],
  ["3 - 5", null],
  ["60 drops * 2", null],
  ["12", null],
  ["12 g", null],
  ["", null],
  ["2026-11-26", null],
  ["26330-01", null],
  ["beeswax + 3", null],
  ["3 + # 4", null],
])("%s is %s", (text, say) => expect(sumOf(text)?.say.replaceAll("\u00a0", " ") ?? null).toBe(say));

// °F = °C × 1.8 + 32 (NIST SP 811, Appendix B.8): water freezes and boils, both scales meet at −40.
it.each([
  ["32 F", "32 °F = 0 °C"],
  ["212°f", "212 °F = 100 °C"],
  ["100 celsius", "100 °C = 212 °F"],
  ["-40 c", "-40 °C = -40 °F"],
  ["37,5 degrees C in F", "37.5 °C = 99.5 °F"],
  [" 130 deg F to celsius ", "130 °F = 54.4 °C"],
  ["130 F in F", null],
  ["130", null],
  ["130 F in cups", null],
  ["x 130 F", null],
])("%s is %s", (text, say) => expect(degrees(text)?.say.replaceAll("\u00a0", " ") ?? null).toBe(say));

it.each([
  ["4 oz in g", ["4 oz = 113.4 g"]],
  ["8 floz = ml", ["8 fl oz = 236.59 mL"]],
  ["1 kg to lb", ["1 kg = 2.2 lb"]],
  ["1 cup in g", []],
  ["3 drops", []],
  ["2 oz", ["2 oz = 56.7 g", "2 fl oz = 59.15 mL"]],
  ["100 g", ["100 g = 3.53 oz"]],
  ["10 g in moons", []],
])("%s is %j", (text, say) => expect(inOtherUnits(text).map((a) => a.say.replaceAll("\u00a0", " "))).toEqual(say));
