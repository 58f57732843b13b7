/** A product's prices as a ladder. The rules are common practice, no source; each row is worked out by hand. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { mg, micros, type Micros } from "../measure/exact.ts";
import { STARTING_SETTINGS } from "../settings/settings.ts";
import { ladderFindings, leastPrice, perHundredGrams, type Asked, type Finding, type Rung } from "./ladder.ts";
import { CHANNEL_IDS, viewPrice, type ChannelId } from "./pricingMethods.ts";

const rules = STARTING_SETTINGS.pricing;
const { channels } = rules;
const euro = (n: number): Micros => micros(Math.round(n * 1e6));
type Prices = Partial<Record<ChannelId, number>>;
const rung = (id: number, grams: number, cost: number | null, prices: Prices): Rung => ({
  id,
  label: `${grams} g`,
  fill: mg(grams * 1000),
  cost: cost === null ? null : euro(cost),
  prices: Object.fromEntries(Object.entries(prices).map(([c, p]) => [c, euro(p)])),
});
const say = ({ id, channel, price }: Asked): string => `${id} ${channel} ${price / 1e6}`;
const told = (found: readonly Finding[]) => found.map((f) => [f.wrong, say(f.of), f.mends.map(say)]);

describe("what doesn't fit", () => {
  it.each<[string, Rung[], ReturnType<typeof told>]>([
    [
      "a ladder that fits",
      [rung(1, 30, 2.5, { market: 7, wholesale: 3.9, online: 7.9 }), rung(2, 60, 4, { market: 12, wholesale: 6.6 })],
      [],
    ],
    // 4.30 is what 40 % and a fee of 1.2 % leave of 7.313…: in halves 7.50.
    ["less than it costs at a stall", [rung(1, 30, 4.3, { market: 4 })], [["underCost", "1 market 4", ["1 market 7.5"]]]],
    // The least a shop may pay, 4.40, is what the stall asks already: two prices have to change.
    [
      "less than it costs in wholesale, where the stall asks no more",
      [rung(1, 30, 4.35, { market: 4.4, wholesale: 4 })],
      [
        ["underCost", "1 market 4.4", ["1 market 7.5"]],
        ["underCost", "1 wholesale 4", []],
      ],
    ],
    // Where the wished share would be more than the stall asks, at least nothing is lost.
    [
      "less than it costs in wholesale",
      [rung(1, 30, 4, { market: 6, wholesale: 3.9 })],
      [["underCost", "1 wholesale 3.9", ["1 wholesale 4"]]],
    ],
    // 55 % of 8.00 is 4.40; at 8.00 for the shop the stall would ask 14.55, in halves 15.00.
    [
      "a shop that pays what anybody does",
      [rung(1, 30, 3, { market: 8, wholesale: 8 })],
      [["shopNothing", "1 wholesale 8", ["1 wholesale 4.4", "1 market 15"]]],
    ],
    // At 4.40 the shop would have it under cost; so the stall asks more.
    [
      "a shop that pays what anybody does, of what costs more than a shop would pay",
      [rung(1, 30, 5, { market: 8, wholesale: 8 })],
      [["shopNothing", "1 wholesale 8", ["1 market 15"]]],
    ],
    // Of what the maker asks anybody, the least counts: a gift at 6.00.
    [
      "a gift for less than a shop pays",
      [rung(1, 30, 2, { market: 10, gift: 6, wholesale: 6.5 })],
      [["shopNothing", "1 wholesale 6.5", ["1 wholesale 3.3", "1 gift 12"]]],
    ],
    // 14.00 for 60 g are 7.00 for 30 g; at 6.00 for 30 g, 12.00 for 60 g.
    [
      "a larger size that is dearer per gram",
      [rung(2, 60, 4, { market: 14 }), rung(1, 30, 2.5, { market: 6 })],
      [["dearerLarger", "2 market 14", ["1 market 7", "2 market 12"]]],
    ],
    // At 12.00 it would be under its cost of 13.
    [
      "a larger size that is dearer per gram and dear to make",
      [rung(1, 30, 2.5, { market: 6 }), rung(2, 60, 13, { market: 14 })],
      [["dearerLarger", "2 market 14", ["1 market 7"]]],
    ],
    // 15 % less per gram than 6.00 for 30 g: 10.20 for 60 g, in halves 10.00.
    [
      "a larger size for no more",
      [rung(1, 30, 2.5, { market: 6 }), rung(2, 60, 4, { market: 5.5 })],
      [["cheaperLarger", "2 market 5.5", ["2 market 10"]]],
    ],
    // 10.00 would be more than online asks; 3.00 for 30 g would be under its cost.
    [
      "a larger size for no more, with a price online",
      [rung(1, 30, 3.5, { market: 6, online: 6.9 }), rung(2, 60, 4, { market: 5.5, online: 8.9 })],
      [["cheaperLarger", "2 market 5.5", ["2 market 6.5"]]],
    ],
    // 10.20 for 60 g, in halves 10.00, would be under its cost of 11, and 3.00 for 30 g under 3.50: the least for 60 g is 11.134, in halves 11.50.
    [
      "a larger size for no more, and for less than it costs",
      [rung(1, 30, 3.5, { market: 6 }), rung(2, 60, 11, { market: 5.5 })],
      [
        ["underCost", "2 market 5.5", ["2 market 11.5"]],
        ["cheaperLarger", "2 market 5.5", ["2 market 11.5"]],
      ],
    ],
    [
      "alike per gram, and two of one weight",
      [rung(1, 30, 2, { market: 6 }), rung(2, 60, 4, { market: 12 }), rung(3, 60, 4, { market: 11 })],
      [],
    ],
    // Each of the two is held against both its neighbours: 15.00 for 60 g are 7.50 for 30 g, and 25.00 for 100 g.
    [
      "two of one weight, the one too dear, in the middle",
      [rung(1, 30, 2, { market: 7 }), rung(2, 60, 4, { market: 13 }), rung(3, 60, 4, { market: 15 }), rung(4, 100, 6, { market: 21 })],
      [["dearerLarger", "3 market 15", ["1 market 7.5", "3 market 14"]]],
    ],
    [
      "two of one weight, the one too cheap, in the middle",
      [rung(1, 30, 2, { market: 7 }), rung(2, 60, 4, { market: 9 }), rung(3, 60, 4, { market: 13 }), rung(4, 100, 6, { market: 20 })],
      [["dearerLarger", "4 market 20", ["2 market 12", "4 market 15"]]],
    ],
    // As much for 60 g as for 30 g is no more either.
    [
      "a larger size for the same",
      [rung(1, 30, 2.5, { market: 6 }), rung(2, 60, 4, { market: 6 })],
      [["cheaperLarger", "2 market 6", ["2 market 10"]]],
    ],
    [
      "a coin's step less online",
      [rung(1, 30, 2, { market: 12.9, online: 11.9 })],
      [["onlineLess", "1 online 11.9", ["1 online 12.9", "1 market 11.5"]]],
    ],
    // .90 is rounding; 9.90 isn't. 12.90 online is the next that isn't less; 9.50 the next at the stall that isn't more.
    ["less online, by rounding", [rung(1, 30, 2, { market: 12, online: 11.9 })], []],
    ["less online", [rung(1, 30, 2, { market: 12, online: 9.9 })], [["onlineLess", "1 online 9.9", ["1 online 12.9", "1 market 9.5"]]]],
    ["what isn't known to cost anything", [rung(1, 30, null, { market: 0.5 })], []],
  ])("%s", (_what, rungs, out) => expect(told(ladderFindings(rungs, rules))).toEqual(out));
  it("has the worst first", () => {
    const found = ladderFindings([rung(1, 30, 2.5, { market: 6, online: 3.9 }), rung(2, 60, 14, { market: 13, wholesale: 13 })], rules);
    expect(found.map((f) => f.wrong)).toEqual(["underCost", "underCost", "shopNothing", "dearerLarger", "onlineLess"]);
  });
});

it("the least price loses nothing, and a coin less would; none where the fee takes it all", () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 400_000_000 }), fc.integer({ min: 0, max: 9000 }), (cost, feeBp) => {
      const costs = { ingredients: 0, packaging: 0, work: 0, overhead: 0, loss: 0, materials: 0, total: cost } as never;
      const least = leastPrice(micros(cost), { shareBp: 10_000, feeBp, point: "tenth" })!;
      expect(viewPrice(least, costs, feeBp, 0).margin).toBeGreaterThanOrEqual(0);
      if (least > 100_000) expect(viewPrice(micros(least - 100_000), costs, feeBp, 0).margin).toBeLessThan(0);
    }),
  );
  expect(leastPrice(euro(4.3), channels.market, rules.marginBp)).toBe(euro(7.5));
  expect(leastPrice(euro(1), { shareBp: 10_000, feeBp: 10_000, point: "tenth" })).toBeNull();
});

it("a mend ends what it mends, brings nothing else, and costs nothing it didn't; one after the other they come to an end", () => {
  const size = fc.record({
    grams: fc.constantFrom(5, 15, 30, 50, 60, 100, 250),
    cost: fc.option(fc.integer({ min: 50, max: 1500 }), { freq: 6 }),
    prices: fc.record(Object.fromEntries(CHANNEL_IDS.map((c) => [c, fc.option(fc.integer({ min: 10, max: 300 }))]))),
  });
  let mended = 0;
  fc.assert(
    fc.property(fc.array(size, { minLength: 1, maxLength: 5 }), (sizes) => {
      let rungs = sizes.map(({ grams, cost, prices }, i) => {
        const priced = Object.entries(prices).flatMap(([c, p]) => (p === null ? [] : [[c, p / 10] as const]));
        return rung(i + 1, grams, cost === null ? null : cost / 100, Object.fromEntries(priced));
      });
      for (;;) {
        const before = ladderFindings(rungs, rules);
        const next = before.find((f) => f.mends.length > 0);
        if (!next) return;
        for (const m of next.mends) {
          const after = rungs.map((r) => (r.id === m.id ? { ...r, prices: { ...r.prices, [m.channel]: m.price } } : r));
          const wrongs = ladderFindings(after, rules);
          expect(wrongs.length).toBeLessThan(before.length);
          const was = rungs.find((r) => r.id === m.id)!;
          if (was.cost !== null) expect(m.price).toBeGreaterThanOrEqual(leastPrice(was.cost, channels[m.channel])!);
        }
        const { id, channel, price } = next.mends[0]!;
        rungs = rungs.map((r) => (r.id === id ? { ...r, prices: { ...r.prices, [channel]: price } } : r));
        mended++;
      }
    }),
  );
  expect(mended).toBeGreaterThan(100);
});

it("for a hundred grams", () => expect(perHundredGrams(euro(5), mg(30_000))).toBe(16_666_667));
