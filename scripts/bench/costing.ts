/**
 * A thousand recipes of twelve lines costed again after every price has changed, and after one has, beside a general-purpose spreadsheet engine
 * that works out one school of the same recipes by hand-wired cells. A tenth of the materials are oils steeped from others, which cost what went
 * into them. Both answers are compared to the micro; prices are set beforehand on both sides.
 */
import { micros, mg, sum } from "#core/measure/exact";
import { unitCosts, type CostIn } from "#core/recipe/cost";
import { drawValue, type Lot } from "#core/stock/lots";
import { fillPlan } from "#core/recipe/scale";
import { stockOnHand, shelfWith, type Shelf } from "#core/stock/shelf";
import fc from "fast-check";
import { HyperFormula } from "hyperformula";
import { median } from "./measure.ts";

const BOUGHT = 360;
const STEEPED = 40;
const LOTS = 5;
const RECIPES = 1000;
const LINES = 12;
const ROUNDS = 21;
const DAY = "2026-03-15";

/** The oil and the herb that a steeped oil is made of, and how much of each goes into a lot of it. */
const oilOf = (steeped: number): number => steeped - BOUGHT;
const herbOf = (steeped: number): number => steeped - BOUGHT + STEEPED;
const OIL = mg(1_000_000);
const HERB = mg(125_000);

/** Micros for a milligram of each bought material. */
export type Prices = readonly number[];

const lotOf = (of: number, k: number, onHand: number, value: number): Lot => {
  const id = of * LOTS + k + 1;
  const arrived = `2025-0${1 + (id % 9)}-15`;
  const bestBefore = `2027-0${1 + ((id * 7) % 9)}-01`;
  // In one piece, as rows come from the database: built from parts each would have its own hidden class in the engine.
  return { id, number: `L${id}`, of, onHand, value: micros(value), arrived, bestBefore, hold: false };
};
const LOT_IDS = Array.from({ length: LOTS }, (_, k) => k);

const bought = (of: number, price: number): Lot[] =>
  LOT_IDS.map((k) => lotOf(of, k, 40_000_000 + 1000 * k, (40_000_000 + 1000 * k) * price));

/** As a jar's bottles: each lot cost what was drawn for it. */
const steeped = (of: number, oil: readonly Lot[], herb: readonly Lot[]): Lot[] =>
  LOT_IDS.map((k) => lotOf(of, k, 9_000_000 + 1000 * k, drawValue(oil[k]!, OIL) + drawValue(herb[k]!, HERB)));

/** Everything there is of each material at those prices. */
function lotsAt(prices: Prices): Map<number, Lot[]> {
  const lots = new Map(prices.map((price, i) => [i + 1, bought(i + 1, price)]));
  for (let of = BOUGHT + 1; of <= BOUGHT + STEEPED; of++) lots.set(of, steeped(of, lots.get(oilOf(of))!, lots.get(herbOf(of))!));
  return lots;
}

const draw = <T>(of: fc.Arbitrary<T>, n: number, seed: number): T[] => fc.sample(of, { numRuns: n, seed });

/** Prices of that round. */
export const pricesOf = (round: number): Prices => draw(fc.integer({ min: 2, max: 90 }), BOUGHT, round + 2);

/** What all of a material is worth and weighs. */
function cellsOf(prices: Prices, of: number): (number | string)[] {
  const weight = (lot: number): number => LOTS * lot + 1000 * 10;
  if (of <= BOUGHT) return [weight(40_000_000) * prices[of - 1]!, weight(40_000_000)];
  const drawn = (from: number, amount: number): string => `${LOTS}*ROUND(${amount}*A${from}/B${from},0)`;
  return [`=${drawn(oilOf(of), OIL)}+${drawn(herbOf(of), HERB)}`, weight(9_000_000)];
}

/** A line's cells, and after them what one unit of the recipe costs: ingredients, loss, work, overhead, all of it. */
function cellsOfRecipe(r: CostIn, row: number): string[] {
  const at = (col: string): string => `${col}${row + 1}`;
  const batch = sum(r.lines.map((l) => l.weight));
  const { units } = fillPlan(batch, r.fill, r.lossBp);
  const minutes = r.work.batchMinutes + r.unitMinutes * units;
  const hourly = (rate: number): string => `=ROUND(ROUND(${rate}*${minutes * 100}/6000,0)/${units},0)`;
  return [
    ...r.lines.map((l) => `=ROUND(${l.weight}*materials!A${l.of}/materials!B${l.of},0)`),
    `=SUM(${at("A")}:${at("L")})`,
    `=ROUND(${at("M")}*${units * r.fill}/${batch},0)`,
    `=ROUND(${at("N")}/${units},0)`,
    `=ROUND((${at("M")}-${at("N")})/${units},0)`,
    hourly(r.work.hourly),
    hourly(r.work.overheadHourly),
    `=SUM(${at("O")}:${at("R")})`,
  ];
}
/** Where a recipe's cells say what a unit costs. */
const TOTAL = LINES + 6;

/** The same recipes costed both ways: for each, what a unit costs by the running average, in micros. */
export function bothWays(count: number, start: Prices) {
  const line = fc.record({ of: fc.integer({ min: 1, max: BOUGHT + STEEPED }), weight: fc.integer({ min: 10_000, max: 900_000 }).map(mg) });
  const recipes = draw(fc.array(line, { minLength: LINES, maxLength: LINES }), count, 1).map((lines): CostIn => ({
    ...{ lines, packaging: [], fill: mg(50_000), lossBp: 200, unitMinutes: 2 },
    work: { hourly: micros(16_000_000), overheadHourly: micros(2_500_000), batchMinutes: 60 },
  }));
  const rows = Array.from({ length: BOUGHT + STEEPED }, (_, i) => cellsOf(start, i + 1));
  const engine = HyperFormula.buildFromSheets({ materials: rows, recipes: recipes.map(cellsOfRecipe) }, { licenseKey: "gpl-v3" });
  const [materials, costs] = [engine.getSheetId("materials")!, engine.getSheetId("recipes")!];
  const totals = { start: { sheet: costs, row: 0, col: TOTAL }, end: { sheet: costs, row: count - 1, col: TOTAL } };
  const said = (): number[] => engine.getRangeValues(totals).map(([total]) => Number(total));
  /** The recipes that take a material. */
  const takes = new Map<number, number[]>();
  for (const [i, r] of recipes.entries()) for (const of of new Set(r.lines.map((l) => l.of))) takes.set(of, [...(takes.get(of) ?? []), i]);
  let shelf: Shelf;
  let ours: number[] = [];
  const cost = (r: CostIn): number => unitCosts(r, shelf).perUnit.average!.total;
  return {
    /** After all prices have changed. @param lots of every material at them */
    ours: (lots: readonly Lot[]): number[] => {
      shelf = stockOnHand(lots, DAY);
      return (ours = recipes.map(cost));
    },
    theirs: (prices: Prices): number[] => {
      engine.setCellContents(
        { sheet: materials, row: 0, col: 0 },
        prices.map((_, i) => cellsOf(prices, i + 1)),
      );
      return said();
    },
    /** After one has. @param lots of the materials whose cost that changes */
    oursOfSome: (lots: readonly Lot[]): number[] => {
      const changed = new Set(lots.map((l) => l.of));
      shelf = shelfWith(shelf, stockOnHand(lots, DAY), changed);
      for (const i of new Set([...changed].flatMap((of) => takes.get(of) ?? []))) ours[i] = cost(recipes[i]!);
      return ours;
    },
    theirsOfOne: (prices: Prices, of: number): number[] => {
      engine.setCellContents({ sheet: materials, row: of - 1, col: 0 }, [cellsOf(prices, of)]);
      return said();
    },
    close: () => engine.destroy(),
  };
}

/** All lots at prices. */
export const everything = (prices: Prices): Lot[] => [...lotsAt(prices).values()].flat();

/** Another price for an oil, and the lots of it and of what is steeped in it. */
export function anotherPrice(prices: Prices, oil: number): { prices: Prices; lots: Lot[] } {
  const changed = prices.map((p, i) => (i + 1 === oil ? p + 1 : p));
  const lots = lotsAt(changed);
  return { prices: changed, lots: [...lots.get(oil)!, ...lots.get(oil + BOUGHT)!] };
}

/** Prints how long each takes, and how many times quicker ours is. */
export function benchCosting(): void {
  const { close, ...both } = bothWays(RECIPES, pricesOf(0));
  const times = { ours: [] as number[], theirs: [] as number[], oursOfOne: [] as number[], theirsOfOne: [] as number[] };
  let alike = true;
  const timed = (into: number[], work: () => number[]): number[] => {
    const began = performance.now();
    const costs = work();
    into.push(performance.now() - began);
    return costs;
  };
  for (let round = 1; round <= ROUNDS; round++) {
    const prices = pricesOf(round);
    const lots = everything(prices);
    const all = timed(times.theirs, () => both.theirs(prices));
    alike &&= timed(times.ours, () => both.ours(lots)).every((cost, i) => cost === all[i]);
    const oil = 1 + (round % STEEPED);
    const one = anotherPrice(prices, oil);
    const after = timed(times.theirsOfOne, () => both.theirsOfOne(one.prices, oil));
    alike &&= timed(times.oursOfOne, () => both.oursOfSome(one.lots)).every((cost, i) => cost === after[i]);
  }
  close();
  // By then both are warm.
  const of = (ms: number[]): number => median(ms.slice(10));
  const say = (what: string, we: number, they: number, wanted: number): void =>
    console.log(
      `  ${what}: a spreadsheet engine, one school ${they.toFixed(1)} ms; ours, all three ${we.toFixed(1)} ms, ${(they / we).toFixed(1)} times quicker (wanted: ${wanted})`,
    );
  console.log(`\n${RECIPES} recipes of ${LINES} lines, steeped oils among them:`);
  say("after all prices have changed", of(times.ours), of(times.theirs), 10);
  say("after one has", of(times.oursOfOne), of(times.theirsOfOne), 3);
  console.log(`  ${alike ? "Both come to the same, to the micro." : "THEY DON'T COME TO THE SAME."}`);
}
