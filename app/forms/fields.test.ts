/** What each kind of field reads, and the words it gives when it can't. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { object, ValidationError, type AnySchema } from "yup";
import { between, readWeighed, readWeight, weightText, parseMoney } from "#core/measure/read";
import { dayField, moneyOr0, noteText, oneOf, optional, optionalDay, reads, scaled, wholeNumber, requiredText } from "./fields.ts";
import { mg } from "#core/measure/exact";

/** The value a field gives for a text, or the words of its problem. */
const read = (field: AnySchema, text: unknown): unknown => {
  try {
    return (object({ f: field }).validateSync({ f: text }) as { f: unknown }).f;
  } catch (e) {
    return (e as ValidationError).message;
  }
};

describe("whole numbers", () => {
  const units = wholeNumber(1, 500, "units");
  it.each([
    ["12", 12],
    [" 12 ", 12],
    ["500", 500],
  ])("reads %j", (text, value) => expect(read(units, text)).toBe(value));
  it.each([
    ["", "Enter how many units."],
    [undefined, "Enter how many units."],
    ["0", "Enter at least 1."],
    ["2.5", "Enter a whole number of units."],
    ["1/2", "Enter a whole number of units."],
    ["-3", "Amounts can't be below zero."],
    ["501", "501 units can't be right; the most here is 500."],
    ["1,000", "“1,000” could be 1000 or 1. Write it one of those ways."],
    ["a dozen", "“a dozen” isn't a number. Write it like 2.5, 2 1/2 or ½."],
  ])("refuses %j", (text, say) => expect(read(units, text)).toBe(say));
  it("takes its default when left empty, where there is one", () => {
    expect(read(wholeNumber(0, 10, "minutes", 0), "")).toBe(0);
    expect(read(wholeNumber(0, 10, "minutes", 0), null)).toBe(0);
  });
});

describe("numbers with decimals", () => {
  it.each([
    ["2", 200],
    ["2.5 %", 250],
    ["2,5", 250],
    ["", 0],
  ])("per cent: %j is %i basis points", (text, bp) => expect(read(scaled(0, 50, "per cent", 100, 0), text)).toBe(bp));
  it("says its bounds", () => {
    expect(read(scaled(0, 50, "per cent", 100), "51")).toBe("Enter 0 to 50 per cent.");
    expect(read(scaled(0, 50, "per cent", 100), "")).toBe("Enter 0 to 50 per cent.");
    const drops = between(5, 60, "drops per mL", 1)("4");
    expect(drops.ok ? null : drops.problem.say).toBe("Enter 5 to 60 drops per mL.");
  });
});

describe("weights", () => {
  it.each([
    ["60", 60_000],
    ["60 g", 60_000],
    ["2 oz", 56_699],
    ["1 kg 200 g", 1_200_000],
  ])("reads %j as %i mg", (text, value) => expect(read(reads(readWeight), text)).toBe(value));
  it.each([
    ["2 cups", /Enter a weight/],
    ["0", /more than zero/],
    ["9000 kg", /over a tonne/],
    ["heavy", /isn't an amount/],
    ["3 pcs", /Enter a weight/],
  ])("refuses %j", (text, say) => expect(read(reads(readWeight), text)).toMatch(say));
  it("a weighing may be nothing", () => {
    expect(read(reads(readWeighed), "0")).toBe(0);
    expect(read(reads(readWeighed), "0 g")).toBe(0);
    expect(read(reads(readWeighed), "0.4 g")).toBe(400);
    expect(read(optional(readWeighed), "")).toBeNull();
  });
  it("reads back what it puts in a field, to the tenth it shows", () => {
    fc.assert(
      fc.property(fc.integer({ min: 10_000, max: 900_000_000 }), (n) => {
        const back = readWeight(weightText(mg(n)));
        expect(back.ok && Math.abs(back.value - n)).toBeLessThanOrEqual(50);
      }),
    );
    expect(weightText(null)).toBe("");
    expect(weightText(mg(1_234_500))).toBe("1234.5 g");
  });
});

describe("money, days, words and choices", () => {
  it("money left empty is nothing, or missing where it must be there", () => {
    expect(read(moneyOr0(), "")).toBe(0);
    expect(read(moneyOr0(), "4.20")).toBe(4_200_000);
    expect(read(reads(parseMoney), "")).toBe("Enter an amount of money; 0 if it cost nothing.");
    expect(read(optional(parseMoney), " ")).toBeNull();
  });
  it("days", () => {
    expect(read(dayField(), "2026-11-25")).toBe("2026-11-25");
    expect(read(dayField(), "2026-02-29")).toMatch(/isn't a date/);
    expect(read(dayField(), "")).toBe("Enter a date, such as 5 Dec or tomorrow.");
    expect(read(optionalDay(), "")).toBeNull();
    expect(read(optionalDay(), "soon")).toMatch(/isn't a date/);
  });
  it("words and notes are trimmed and kept short", () => {
    expect(read(requiredText("a name", 5), "  Tin ")).toBe("Tin");
    expect(read(requiredText("a name", 5), "   ")).toBe("Enter a name.");
    expect(read(requiredText("a name", 5), "Tinted")).toBe("Keep it under 5 characters.");
    expect(read(noteText(5), undefined)).toBe("");
    expect(read(noteText(5), "Tinted")).toBe("Keep it under 5 characters.");
  });
  it("only the choices of the list", () => {
    expect(read(oneOf(["a", "b"]), "b")).toBe("b");
    expect(read(oneOf(["a", "b"]), "c")).toBe("Choose one of the list.");
    expect(read(oneOf(["a", "b"]), undefined)).toBe("Choose one of the list.");
  });
});
