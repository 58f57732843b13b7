/** Columns' widths come to the room, and nobody gives way who needn't. */
import fc from "fast-check";
import { expect, it } from "vitest";
import { columnWidths } from "./widths.ts";

it("come to the room; none is narrower than it can be while there is room for that", () => {
  const column = fc
    .tuple(fc.integer({ min: 1, max: 400 }), fc.integer({ min: 0, max: 400 }))
    .map(([least, more]) => ({ least, wanted: least + more }));
  fc.assert(
    fc.property(fc.array(column, { minLength: 1, maxLength: 9 }), fc.integer({ min: 100, max: 800 }), (columns, room) => {
      const wanted = columns.map((c) => c.wanted);
      const least = columns.map((c) => c.least);
      const widths = columnWidths(wanted, least, room);
      const sum = (all: number[]): number => all.reduce((a, n) => a + n, 0);
      expect(sum(widths)).toBeCloseTo(room, 6);
      const [fits, squeezes] = [sum(wanted) <= room, sum(least) > room];
      widths.forEach((w, i) => {
        expect(w).toBeGreaterThan(0);
        if (fits) expect(w).toBeGreaterThanOrEqual(wanted[i]!);
        else expect(w).toBeLessThanOrEqual(wanted[i]! + 1e-9);
        if (!squeezes) expect(w).toBeGreaterThanOrEqual(least[i]! - 1e-9);
        // A figure keeps its place while others can still give way.
        if (!fits && !squeezes && wanted[i] === least[i]) expect(w).toBeCloseTo(wanted[i]!, 6);
      });
    }),
  );
});
