/** Days as people type them, in each way of writing. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DATE_STYLE_IDS, readTypedDay, writeDay, type DateStyle, type Leaning } from "./typedDay.ts";
import { addDays, daysBetween } from "./when.ts";

// A Thursday.
const TODAY = "2026-11-26";
const read = (text: string, style: DateStyle = "dmy", leaning: Leaning = "near"): string => {
  const r = readTypedDay(text, { today: TODAY, style, leaning });
  return r.ok ? r.value : r.problem.code;
};

describe("a day", () => {
  it.each([
    ["5 12", "2026-12-05"],
    ["5/12", "2026-12-05"],
    ["5.12.", "2026-12-05"],
    ["5-12-27", "2027-12-05"],
    ["05.12.2027", "2027-12-05"],
    ["2027-12-05", "2027-12-05"],
    ["2027/1/5", "2027-01-05"],
    ["5 dec", "2026-12-05"],
    ["Dec 5", "2026-12-05"],
    ["5th of December", "2026-12-05"],
    ["December 5th, 2027", "2027-12-05"],
    ["5 Sept 28", "2028-09-05"],
    ["aug 2027", "2027-08-31"],
    ["2/2028", "2028-02-29"],
    ["2027-02", "2027-02-28"],
    ["12 25", "2026-12-25"],
    ["3 jan", "2027-01-03"],
    ["29 2", "2028-02-29"],
    ["today", "2026-11-26"],
    ["Tomorrow", "2026-11-27"],
    ["yesterday", "2026-11-25"],
    ["in 3 weeks", "2026-12-17"],
    ["3 weeks", "2026-12-17"],
    ["in a month", "2026-12-26"],
    ["in 1 year", "2027-11-26"],
    ["10 days ago", "2026-11-16"],
    ["sat", "2026-11-28"],
    ["thursday", "2026-12-03"],
    ["next fri", "2026-11-27"],
    ["last friday", "2026-11-20"],
    ["last thursday", "2026-11-19"],
    ["", "empty"],
    ["soon", "notDate"],
    ["31 2", "notDate"],
    ["30 February 2027", "notDate"],
    ["5", "notDate"],
    ["5 5 5 5", "notDate"],
    ["0 12", "notDate"],
    ["13 13", "notDate"],
    ["may", "notDate"],
  ])("%s is %s", (text, want) => expect(read(text)).toBe(want));
  it.each([
    ["1 12", "mdy", "near", "2027-01-12"],
    ["5 12", "mdy", "future", "2027-05-12"],
    ["25 12", "mdy", "near", "2026-12-25"],
    ["12/5/27", "mdy", "near", "2027-12-05"],
    ["5 12", "ymd", "near", "2027-05-12"],
    ["27-12-05", "ymd", "near", "2027-12-05"],
    ["5 12", "dmy", "past", "2025-12-05"],
    ["20 11", "dmy", "past", "2026-11-20"],
    ["20 11", "dmy", "future", "2027-11-20"],
    ["26 11", "dmy", "future", TODAY],
    ["26 11", "dmy", "past", TODAY],
    ["29 feb", "dmy", "past", "2024-02-29"],
    ["saturday", "dmy", "past", "2026-11-21"],
    ["thursday", "dmy", "past", "2026-11-19"],
  ] as const)("%s written %s, leaning to the %s, is %s", (text, style, leaning, want) => expect(read(text, style, leaning)).toBe(want));
  it("written in any style reads back the same, whatever is meant otherwise", () => {
    const day = fc.integer({ min: 0, max: 36_000 }).map((n) => addDays("2000-01-01", n));
    fc.assert(
      fc.property(day, fc.constantFrom(...DATE_STYLE_IDS), fc.constantFrom("past", "future", "near"), (d, style, leaning) => {
        expect(read(writeDay(d, style), style, leaning)).toBe(d);
      }),
    );
  });
  it("without a year it is the last, the next or the nearest such day", () => {
    const day = fc.integer({ min: 0, max: 364 }).map((n) => addDays("2026-01-01", n));
    fc.assert(
      fc.property(day, (d) => {
        const text = writeDay(d, "dmy").replace(/ \d{4}$/, "");
        const [past, future, near] = (["past", "future", "near"] as const).map((l) => read(text, "dmy", l)) as [string, string, string];
        expect(past <= TODAY && daysBetween(past, TODAY) < 366).toBe(true);
        expect(future >= TODAY && daysBetween(TODAY, future) < 366).toBe(true);
        expect([past, future]).toContain(near);
        expect(Math.abs(daysBetween(near, TODAY))).toBeLessThanOrEqual(183);
      }),
    );
  });
});
