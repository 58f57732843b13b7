/**
 * Units, parsing and weighing.
 *
 * Sources: unit factors from NIST Special Publication 811 (2008), Appendix B.8, as printed there to seven digits; conversions
 * against js-quantities, a general-purpose library of physical quantities; kitchen figures are common practice, no source.
 */
import fc from "fast-check";
import Fraction from "fraction.js";
import Quantity from "js-quantities";
import { describe, expect, it } from "vitest";
import { kind, KIND_IDS, KINDS } from "../material/kinds.ts";
import { mg } from "./exact.ts";
import { massOf, otherOunce, volumeMl, type MassFacts } from "./mass.ts";
import { parseMoney } from "./read.ts";
import { settleNumbers } from "./habit.ts";
import { grams, gramsIn } from "./write.ts";
import { writeNumber } from "../numbers.ts";
import { parseAmount, parseNumber, plainText, showAmount } from "./parse.ts";
import { findUnit, unit, UNITS, type UnitId } from "./units.ts";

const water: MassFacts = { name: "Water-like oil", form: "liquid", densities: { liquid: 1000 }, dropsPerMl: 20 };
const facts = (name: string, form: MassFacts["form"], densities: MassFacts["densities"]): MassFacts => ({ name, form, densities });
const amount = (text: string) => {
  const a = parseAmount(text);
  if (!a.ok) throw new Error(a.problem.say);
  return a.value;
};
const weigh = (text: string, f: MassFacts): number => {
  const m = massOf(amount(text), f);
  if (!m.ok) throw new Error(m.problem.say);
  return m.value;
};
const code = (r: { ok: true } | { ok: false; problem: { code: string } }): string => (r.ok ? "ok" : r.problem.code);

describe("NIST SP 811, Appendix B.8", () => {
  // In kilograms and cubic metres, as the table prints them.
  it.each<[UnitId, number]>([
    ["oz", 2.834952e-2],
    ["lb", 4.535924e-1],
    ["cup", 2.365882e-4],
    ["floz", 2.957353e-5],
    ["tbsp", 1.478676e-5],
    ["tsp", 4.928922e-6],
    ["pint", 4.731765e-4],
    ["quart", 9.463529e-4],
    ["gal", 3.785412e-3],
  ])("%s", (id, printed) => {
    const u = unit(id);
    const si = u.size!.valueOf() / 1e6;
    expect(si.toPrecision(7)).toBe(printed.toPrecision(7));
  });
});

describe("against js-quantities", () => {
  const names: Partial<Record<UnitId, string>> = {
    mg: "mg",
    g: "g",
    kg: "kg",
    oz: "oz",
    lb: "lb",
    ml: "ml",
    l: "l",
    tsp: "tsp",
    tbsp: "tbs",
    cup: "cu",
    floz: "floz",
    pint: "pt",
    quart: "qt",
    gal: "gal",
    cl: "cl",
    dl: "dl",
  };
  it("converts any amount between any two masses or volumes alike", () => {
    const ids = Object.keys(names) as UnitId[];
    fc.assert(
      fc.property(fc.constantFrom(...ids), fc.constantFrom(...ids), fc.integer({ min: 1, max: 100_000 }), (from, to, n) => {
        fc.pre(unit(from).kind === unit(to).kind);
        const ours = new Fraction(n, 8).mul(unit(from).size!).div(unit(to).size!).valueOf();
        const theirs = Quantity(n / 8, names[from]!).to(names[to]!).scalar;
        // It keeps the customary units to eight or nine digits; ours are exact.
        expect(Math.abs(ours / theirs - 1)).toBeLessThan(1e-7);
      }),
    );
  });
});

describe("reading amounts", () => {
  it.each([
    ["2 1/2 cups", "5/2", "cup"],
    ["1.5 oz", "3/2", "oz"],
    ["½ tsp", "1/2", "tsp"],
    ["2½ tbsp", "5/2", "tbsp"],
    ["1 ¼ cup", "5/4", "cup"],
    ["1⁄4 c", "1/4", "cup"],
    ["40g", "40", "g"],
    ["0,5 l", "1/2", "l"],
    ["60 drops", "60", "drop"],
    ["3 T", "3", "tbsp"],
    ["3 t", "3", "tsp"],
    ["4 fl. oz.", "4", "floz"],
    [".25 lb", "1/4", "lb"],
    ["12.5 %", "25/2", "percent"],
    ["2 parts", "2", "part"],
    ["100", "100", "g"],
    ["1 lb 4 oz", "5/4", "lb"],
    ["1 cup 2 tbsp", "9/8", "cup"],
    ["1\u202f855,7 g", "18557/10", "g"],
    ["1'200 g", "1200", "g"],
    ["1\u202f050.3 g", "10503/10", "g"],
    ["1.050,3 g", "10503/10", "g"],
    ["1.250.000 g", "1250000", "g"],
    ["1.200 kg", "6/5", "kg"],
    ["0.125 g", "1/8", "g"],
  ])("%s", (text, n, id) => {
    const a = parseAmount(text, "g");
    expect(a.ok && [a.value.n.toFraction(), a.value.unit]).toEqual([n, id]);
  });
  it.each([
    ["", "empty"],
    ["some", "notNumber"],
    ["-2 oz", "negative"],
    ["−2 oz", "negative"],
    ["3 bushels", "unknownUnit"],
    ["1/0 cup", "notNumber"],
    ["1,250 g", "ambiguous"],
    ["1.250 g", "ambiguous"],
    ["1 855.7 g", "ambiguous"],
    ["1 200 g", "ambiguous"],
    ["12 34 g", "ambiguous"],
    ["1 2 g", "ambiguous"],
    ["1,23,456 g", "ambiguous"],
    ["1.234.56 g", "ambiguous"],
    ["1 lb 4", "noUnit"],
    ["1 oz 2 tbsp", "mixedUnits"],
    ["1 g 2 drops", "mixedUnits"],
    ["1..5 g", "ambiguous"],
    ["oz", "notNumber"],
  ])("refuses %s as %s", (text, problem) => expect(code(parseAmount(text))).toBe(problem));
  it("asks for a unit when none is meant", () => expect(code(parseAmount("12"))).toBe("noUnit"));

  it("reads a number printed anywhere as that number, or asks; what stands in our own fields is always read", () => {
    const locales = ["en-GB", "de-DE", "fr-FR", "de-CH", "sv-SE", "en-IN", "es-ES", "pl-PL", "pt-BR", "en-ZA"];
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 10 ** 10 }), fc.constantFrom(1, 10, 100, 1000), fc.constantFrom(...locales), (n, d, locale) => {
        const value = n / d;
        const printed = new Intl.NumberFormat(locale, { maximumFractionDigits: 3 }).format(value);
        const cash = new Intl.NumberFormat(locale, { style: "currency", currency: "EUR" }).format(value);
        for (const read of [parseNumber(printed, "asked"), parseAmount(`${printed} g`)]) {
          if (read.ok) expect(("unit" in read.value ? read.value.n : read.value).equals(new Fraction(n, d))).toBe(true);
          else expect(read.problem.code).toBe("ambiguous");
        }
        const paid = parseMoney(cash);
        if (paid.ok) expect(Math.abs(paid.value / 1e6 - value)).toBeLessThan(0.0051);
        else expect(["ambiguous", "absurd", "notMoney"]).toContain(paid.problem.code);
        const field = parseAmount(`${plainText(value)} g`);
        expect(field.ok && field.value.n.equals(new Fraction(n, d))).toBe(true);
      }),
      { numRuns: 500 },
    );
    expect(parseMoney("12 50").ok).toBe(false);
    expect(parseMoney("€ 1’234.50")).toEqual({ ok: true, value: 1_234_500_000 });
    expect(parseMoney("1.200").ok).toBe(false);
  });

  it("settles what is typed by the workshop's habit, whatever the country that printed it; what we write is that number by any habit", () => {
    const locales = { comma: ["en-GB", "en-IN"], point: ["de-DE", "pt-BR"], space: ["sv-SE", "fr-FR"], apostrophe: ["de-CH"] } as const;
    const habits = Object.keys(locales) as (keyof typeof locales)[];
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 99_999_999 }),
        fc.constantFrom(1, 10, 100, 1000),
        fc.constantFrom(...habits.flatMap((h) => locales[h].map((l) => [h, l] as const))),
        fc.boolean(),
        (n, d, [habit, locale], plainly) => {
          const value = n / d;
          const is = (text: string) => {
            const read = parseAmount(text);
            expect(read.ok && read.value.n.equals(new Fraction(n, d)), `${text} by ${habit}`).toBe(true);
          };
          // As a keyboard has it: a space for the narrow ones, a plain apostrophe. India groups by two from a lakh on, which is asked about.
          const printed = new Intl.NumberFormat(locale, { maximumFractionDigits: 3 }).format(value);
          const typed = plainly ? printed.replace(/[\u00a0\u202f]/g, " ").replace("’", "'") : printed;
          if (locale !== "en-IN" || value < 100_000) is(settleNumbers(`${typed} g`, habit));
          const written = writeNumber(value, 0, 3);
          // Three decimals we write of kilograms and of what has no thousands only.
          for (const h of habits) for (const unit of ["kg", "oz", ...(d < 1000 ? ["g"] : [])]) is(settleNumbers(`${written} ${unit}`, h));
          for (const h of habits) is(settleNumbers(`${plainText(value)} g`, h));
          for (const h of habits) expect(settleNumbers(settleNumbers(typed, habit), h)).toBe(settleNumbers(typed, habit));
        },
      ),
      { numRuns: 2000 },
    );
    for (const [typed, habit, settled] of [
      ["1,250 g", "asked", "1,250 g"],
      ["1,250 g", "space", "1.25 g"],
      ["1,255 kg", "point", "1.2550 kg"],
      ["1.250 g", "space", "1.250 g"],
      ["1 250 g", "point", "1 250 g"],
      ["1 1/2 cups", "space", "1 1/2 cups"],
      ["2 lb 1,250 oz", "comma", "2 lb 1250 oz"],
      ["1,250,000", "point", "1,250,000"],
      ["1.250.000,5", "point", "1250000.5"],
      ["1.250 kg", "point", "1.250 kg"],
      ["1.250", "point", "1250"],
      ["12/05/2026", "comma", "12/05/2026"],
      ["1,250 / 3", "comma", "1,250 / 3"],
    ] as const)
      expect(settleNumbers(typed, habit)).toBe(settled);
    expect(settleNumbers("1.425", "point", "decimal")).toBe("1.425");
  });

  it("reads back what it writes, and never throws whatever is typed", () => {
    const written = (Object.keys(UNITS) as UnitId[]).filter((u) => u !== "percent");
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 4000 }), fc.constantFrom(1, 2, 4, 8), fc.constantFrom(...written), (n, d, id) => {
        const a = { n: new Fraction(n, d), unit: id };
        const back = parseAmount(showAmount(a));
        expect(back.ok && back.value.unit).toBe(id);
        expect(back.ok && Math.abs(back.value.n.valueOf() - n / d)).toBeLessThan(1e-3);
      }),
    );
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.stringMatching(/^[ 0-9.,/½gozcup%-]{0,12}$/)), (text) => {
        for (const r of [parseAmount(text), parseNumber(text)])
          if (!r.ok) expect(r.problem.say).toMatch(/[.?]$/);
          else expect(Number.isFinite(("n" in r.value && "unit" in r.value ? r.value.n : r.value).valueOf())).toBe(true);
      }),
    );
  });
  it("knows every spelling once", () => {
    const words = Object.values(UNITS).flatMap((u) => u.words as readonly string[]);
    expect(new Set(words).size).toBe(words.length);
    for (const u of Object.values(UNITS)) for (const w of u.words) expect(findUnit(w)).toBe(u.id);
  });
});

describe("weighing", () => {
  // Common practice, no source: the three kitchen figures of the trade.
  it("½ oz of wax pellets is about 2 level tbsp", () => {
    const pellets = facts("Beeswax", "pellets", KINDS.wax.start);
    expect(weigh("2 tbsp", pellets) / weigh("1/2 oz", pellets)).toBeCloseTo(1, 1);
    expect(Math.abs(weigh("2 tbsp", pellets) / weigh("1/2 oz", pellets) - 1)).toBeLessThan(0.03);
  });
  it("2 oz of coconut oil is about 4 tbsp", () => {
    const coconut = facts("Coconut oil", "block", { block: 920 });
    expect(Math.abs(weigh("4 tbsp", coconut) / weigh("2 oz", coconut) - 1)).toBeLessThan(0.05);
  });
  it("60 drops are about 3 mL", () => expect(weigh("60 drops", water)).toBe(weigh("3 mL", water)));

  it("a cup of pellets holds about half the wax of a cup of melted wax, grated less still", () => {
    const wax = (form: "pellets" | "grated" | "block") => weigh("1 cup", facts("Wax", form, KINDS.wax.start));
    expect(wax("pellets") / wax("block")).toBeCloseTo(0.5, 4);
    expect(wax("grated")).toBeLessThan(wax("pellets"));
  });
  it("doubles with the amount and halves with the drops per mL", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 500 }),
        fc.constantFrom<UnitId>("g", "oz", "cup", "tsp", "drop", "ml"),
        fc.integer({ min: 300, max: 1400 }),
        (n, id, density) => {
          const f = { ...facts("x", "liquid", { liquid: density }), dropsPerMl: 20 };
          const one = massOf({ n: new Fraction(n), unit: id }, f);
          const two = massOf({ n: new Fraction(2 * n), unit: id }, f);
          expect(one.ok && two.ok && Math.abs(two.value - 2 * one.value)).toBeLessThanOrEqual(1);
        },
      ),
    );
    expect(weigh("30 drops", { ...water, dropsPerMl: 15 })).toBe(2000);
  });
  it.each<[string, MassFacts, string]>([
    ["3 mL", facts("Herb", "dried", {}), "noDensity"],
    ["1 cup", facts("Wax", "grated", { pellets: 480 }), "noDensity"],
    ["3 pcs", water, "wrongKind"],
    ["2 parts", water, "wrongKind"],
    ["0 g", water, "zero"],
    ["0.0001 mg", water, "zero"],
    ["20000 kg", water, "absurd"],
  ])("refuses %s: %#", (text, f, problem) => expect(code(massOf(amount(text), f))).toBe(problem));
  it("weighs pieces where one has a weight", () => expect(weigh("3 pcs", { ...water, pieceMg: 350 })).toBe(1050));
  it("shows the other reading of oz for what pours, and only for that", () => {
    const oil = facts("Oil", "liquid", { liquid: 920 });
    expect(otherOunce(amount("4 oz"), oil)).toBe(weigh("4 fl oz", oil));
    expect(otherOunce(amount("4 oz"), facts("Shea", "block", { block: 920 }))).toBeNull();
    expect(code(volumeMl(amount("4 oz")))).toBe("notVolume");
  });
  it("writes grams for reading and for columns", () => {
    expect([grams(mg(56_699)), grams(mg(4_675)), grams(mg(1_050_300)), gramsIn(2)(mg(56_699))]).toEqual([
      "56.7 g",
      "4.68 g",
      "1\u202f050.3 g",
      "56.70 g",
    ]);
  });
  it("gives every weighed kind a form, and every starting density one of its forms", () => {
    for (const id of KIND_IDS) {
      const k = kind(id);
      expect(k.forms.length > 0).toBe(k.measured === "weight");
      for (const form of Object.keys(k.start)) expect(k.forms).toContain(form);
    }
  });
});
