/**
 * A thousand recipes of twelve lines costed anew after every price has changed, beside a general-purpose spreadsheet engine that works out one
 * school of the same recipes by hand-wired cells. Both answers are compared to the micro; prices are set beforehand on both sides.
 */
import { micros, mg, sum } from "#core/measure/exact";
import { costRecipe, type CostIn } from "#core/recipe/cost";
import type { Lot } from "#core/stock/lots";
import { fillPlan } from "#core/recipe/scale";
import { shelfOf } from "#core/stock/shelf";
import fc from "fast-check";
import { HyperFormula } from "hyperformula";
import { median } from "./measure.ts";

const MATERIALS = 400;
const LOTS = 5;
const RECIPES = 1000;
const LINES = 12;
const ROUNDS = 9;
const DAY = "2026-03-15";

const lotsAt = (prices: readonly number[]): Lot[] =>
  prices.flatMap((price, m) =>
    Array.from({ length: LOTS }, (_, k): Lot => {
      const onHand = 40_000_000 + 1000 * k;
      const id = m * LOTS + k + 1;
      return {
        ...{ id, number: `L${id}`, of: m + 1, onHand, value: micros(onHand * price) },
        ...{ arrived: `2025-0${1 + (id % 9)}-15`, bestBefore: `2027-0${1 + ((id * 7) % 9)}-01`, hold: false },
      };
    }),
  );

const draw = <T>(of: fc.Arbitrary<T>, n: number, seed: number): T[] => fc.sample(of, { numRuns: n, seed });

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

/** The same recipes costed both ways. @returns for each, what a unit of every recipe costs by the running average, in micros, with these lots */
export function bothWays(count: number) {
  const line = fc.record({ of: fc.integer({ min: 1, max: MATERIALS }), weight: fc.integer({ min: 10_000, max: 900_000 }).map(mg) });
  const recipes = draw(fc.array(line, { minLength: LINES, maxLength: LINES }), count, 1).map((lines): CostIn => ({
    ...{ lines, packaging: [], fill: mg(50_000), lossBp: 200, unitMinutes: 2 },
    work: { hourly: micros(16_000_000), overheadHourly: micros(2_500_000), batchMinutes: 60 },
  }));
  const engine = HyperFormula.buildFromSheets(
    { materials: Array.from({ length: MATERIALS }, () => [0, 1]), recipes: recipes.map(cellsOfRecipe) },
    { licenseKey: "gpl-v3" },
  );
  const [materials, costs] = [engine.getSheetId("materials")!, engine.getSheetId("recipes")!];
  return {
    ours: (lots: readonly Lot[]): number[] => {
      const shelf = shelfOf(lots, DAY);
      return recipes.map((r) => costRecipe(r, shelf).perUnit.average!.total);
    },
    /** @param cells of every material, what all of it is worth and weighs */
    theirs: (cells: [number, number][]): number[] => {
      engine.setCellContents({ sheet: materials, row: 0, col: 0 }, cells);
      return engine.getSheetValues(costs).map((row) => Number(row[TOTAL]));
    },
    close: () => engine.destroy(),
  };
}

/** Lots of every material at prices of that round, and the same as cells. */
export function pricesOf(round: number): { lots: Lot[]; cells: [number, number][] } {
  const lots = lotsAt(draw(fc.integer({ min: 2, max: 90 }), MATERIALS, round + 2));
  const cells = Array.from({ length: MATERIALS }, (_, m): [number, number] => {
    const own = lots.slice(m * LOTS, (m + 1) * LOTS);
    return [sum(own.map((l) => l.value)), sum(own.map((l) => l.onHand))];
  });
  return { lots, cells };
}

/** Prints how long each takes, and how many times quicker ours is. */
export function benchCosting(): void {
  const { ours, theirs, close } = bothWays(RECIPES);
  const times: { ours: number[]; theirs: number[] } = { ours: [], theirs: [] };
  let alike = true;
  for (let round = 0; round < ROUNDS; round++) {
    const { lots, cells } = pricesOf(round);
    const began = performance.now();
    const cellsSay = theirs(cells);
    const between = performance.now();
    const weSay = ours(lots);
    times.theirs.push(between - began);
    times.ours.push(performance.now() - between);
    alike &&= weSay.every((cost, i) => cost === cellsSay[i]);
  }
  close();
  const [we, they] = [median(times.ours.slice(2)), median(times.theirs.slice(2))];
  console.log(`\n${RECIPES} recipes of ${LINES} lines, after all prices have changed:`);
  console.log(`  a spreadsheet engine, one school  ${they.toFixed(0)} ms`);
  console.log(`  ours, all three schools           ${we.toFixed(0)} ms, ${(they / we).toFixed(1)} times quicker (wanted: 10)`);
  console.log(`  ${alike ? "Both come to the same, to the micro." : "THEY DON'T COME TO THE SAME."}`);
}
