/** What is in a lot, by every way: nothing is lost and nothing is twice. */
import fc from "fast-check";
import { expect, it } from "vitest";
import { contentsOf, type Contained } from "./contents.ts";

it("an oil in two bottles of one jar, both in one salve: all of it, once", () => {
  // 900 g of oil in a jar; bottles of 500 and 250 g; 400 and 100 g of them in a salve of 600 g, and 20 g of the oil itself.
  const links = [
    { from: 1, to: 2, qty: 600_000 },
    { from: 1, to: 3, qty: 300_000 },
    { from: 2, to: 4, qty: 400_000 },
    { from: 3, to: 4, qty: 100_000 },
    { from: 1, to: 4, qty: 20_000 },
  ];
  const made = new Map([
    [2, 500_000],
    [3, 250_000],
    [4, 600_000],
  ]);
  expect(Object.fromEntries(contentsOf(4, links, made))).toEqual({ 1: 480_000 + 120_000 + 20_000, 2: 400_000, 3: 100_000 });
});

it("through any layers of mixing what is drawn on from the start is in the end, all of it", () =>
  fc.assert(
    fc.property(
      fc.array(fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 5 }),
      (layers) => {
        // Each layer parts what there is of one thing over some lots, and all of those go into the next.
        const links: Contained[] = [];
        const made = new Map<number, number>();
        let [at, id] = [1, 1];
        made.set(1, 1000);
        for (const shares of layers) {
          const next = id + shares.length + 1;
          const all = shares.reduce((a, n) => a + n, 0);
          shares.forEach((n, i) => {
            const part = id + i + 1;
            links.push({ from: at, to: part, qty: (1000 * n) / all }, { from: part, to: next, qty: (1000 * n) / all });
            made.set(part, (1000 * n) / all);
          });
          made.set(next, 1000);
          [at, id] = [next, next];
        }
        expect(contentsOf(at, links, made).get(1)).toBeCloseTo(1000, 6);
      },
    ),
  ));

it("a record that loops ends", () => {
  const links = [
    { from: 1, to: 2, qty: 5 },
    { from: 2, to: 1, qty: 5 },
    { from: 2, to: 3, qty: 5 },
  ];
  expect(
    contentsOf(
      3,
      links,
      new Map([
        [1, 5],
        [2, 5],
        [3, 5],
      ]),
    ).get(2),
  ).toBe(5);
});
