import fc from "fast-check";
import { expect, it } from "vitest";
import { addDays } from "../when.ts";
import { RETENTION, toDrop } from "./retention.ts";

/** What is left after backups on each of so many days, dropping after each as Zelbin does. */
function after(days: number, times = ["07:10", "19:30"]): string[] {
  let left: string[] = [];
  for (let d = 0; d < days; d++)
    for (const t of times) {
      left.push(`${addDays("2025-01-01", d)}T${t}`);
      const gone = toDrop(left);
      left = left.filter((m) => !gone.includes(m));
    }
  return left;
}

it("saves the last eight, seven days, five weeks and twelve months, each by its newest", () => {
  const left = after(700);
  const end = addDays("2025-01-01", 699);
  expect(end).toBe("2026-12-01");
  const lastEight = [0, 1, 2, 3].flatMap((d) => [`${addDays(end, -d)}T19:30`, `${addDays(end, -d)}T07:10`]);
  const sevenDays = [0, 1, 2, 3, 4, 5, 6].map((d) => `${addDays(end, -d)}T19:30`);
  // 1 Dec 2026 is a Tuesday: of the weeks before, their Sundays.
  const fiveWeeks = ["2026-12-01", "2026-11-29", "2026-11-22", "2026-11-15", "2026-11-08"].map((d) => `${d}T19:30`);
  const months = ["2026-12-01", "2026-11-30", "2026-10-31", "2026-09-30", "2026-08-31", "2026-07-31", "2026-06-30", "2026-05-31"];
  const twelveMonths = [...months, "2026-04-30", "2026-03-31", "2026-02-28", "2026-01-31"].map((d) => `${d}T19:30`);
  expect(left).toEqual([...new Set([...lastEight, ...sevenDays, ...fiveWeeks, ...twelveMonths])].sort());
});

it("never drops the newest, nor the only one of a month, and has always one of each of the last days there were any", () => {
  const moment = fc.tuple(fc.nat(900), fc.integer({ min: 10, max: 23 })).map(([d, h]) => `${addDays("2025-01-01", d)}T${h}:00`);
  fc.assert(
    fc.property(fc.uniqueArray(moment, { minLength: 1, maxLength: 60 }), (all) => {
      const gone = toDrop(all);
      const left = all.filter((m) => !gone.includes(m));
      expect(left).toContain(all.toSorted().at(-1));
      expect(left.length).toBeLessThanOrEqual(RETENTION.last + RETENTION.days + RETENTION.weeks + RETENTION.months);
      const days = [...new Set(all.map((m) => m.slice(0, 10)))].sort().slice(-RETENTION.days);
      for (const d of days) expect(left.filter((m) => m.startsWith(d)).length).toBeGreaterThan(0);
      const months = [...new Set(all.map((m) => m.slice(0, 7)))].sort().slice(-RETENTION.months);
      for (const month of months) expect(left.some((m) => m.startsWith(month))).toBe(true);
      // Asked again, it drops nothing more.
      expect(toDrop(left)).toEqual([]);
    }),
  );
});
