/** What a poured batch would have come to by its plan, at what its own lots cost, so that only how it went tells the two apart. */
import { pourResult, type PourResult } from "#core/batch/finishing/result";
import { mg, micros, mulDiv, sum, type Mg } from "#core/measure/exact";
import { minutesBySize } from "#core/recipe/cost";
import { scaleTo } from "#core/recipe/scale";
import { sql } from "drizzle-orm";
import { readNumber, orNone, rowsOf } from "../../columnsOf.ts";
import type { Reads } from "../../client.ts";
import { movementsOf } from "../../ledger/lots.ts";
import { lot, movement, recipeLine } from "../../schema.ts";
import type { BatchSheet } from "../read.ts";

export interface Plan {
  /** The base, and what is stirred into parts of it. */
  weighed: Mg;
  /** What is left when all that was planned is filled and lost as the recipe says. */
  leftover: Mg;
  minutes: number;
  /** Sizes that were planned, in order, as the result has them. */
  productIds: number[];
  result: PourResult | null;
  /** Every material it wanted went into it, so that what the plan would have cost is known. */
  costed: boolean;
}

/** @param sheet of a poured batch; nothing of any other, or of one that nothing was planned of by size */
export async function planOf(db: Reads, { batch: b, recipe, sizes, takes }: BatchSheet): Promise<Plan | null> {
  const planned = sizes.filter((s) => s.planned > 0);
  if (b.pouredActId === null || planned.length === 0) return null;
  const [lines, spent] = await Promise.all([
    rowsOf(
      db,
      { of: readNumber, weight: readNumber },
      sql`select material_id as of, weight::float8 as weight from ${recipeLine} where version_id = ${b.versionId} order by position`,
    ),
    rowsOf(
      db,
      { of: readNumber, into: orNone(readNumber), qty: readNumber, value: readNumber },
      sql`select l.material_id as of, ${movement.intoLotId} as into, -sum(${movement.qty})::float8 as qty, -sum(${movement.value})::float8 as value
      from ${movement} join ${lot} l on l.id = ${movement.lotId} and l.material_id is not null
      where ${movementsOf(b.pouredActId)} group by l.material_id, ${movement.intoLotId}`,
    ),
  ]);
  const inPot = new Map(spent.flatMap((s) => (s.into === null && s.qty > 0 ? [[s.of, s] as const] : [])));
  const weights = scaleTo(
    lines.map((l) => mg(l.weight)),
    b.plannedMg,
  );
  const ingredients = lines.map((l, i) => {
    const cost = inPot.get(l.of);
    return cost ? micros(mulDiv(cost.value, weights[i]!, cost.qty)) : null;
  });
  const nominal = planned.map((s) => ({ units: s.planned, fill: s.fill, unitMinutes: s.unitMinutesHundredths / 100 }));
  const minutes = minutesBySize(recipe.batchMinutes, nominal);
  const filled = nominal.reduce((a, s) => a + s.units * s.fill, 0);
  const stirredIn = (sizeId: number): Mg => sum(takes.flatMap((t) => (t.sizeId === sizeId ? t.planned : [])));
  const weighed = sum([b.plannedMg, ...planned.map((s) => stirredIn(s.id))]);
  const leftover = mg(Math.max(0, weighed - filled - mulDiv(weighed, recipe.lossBp, 10_000)));
  return {
    weighed,
    leftover,
    minutes: minutes.reduce((a, m) => a + m, 0),
    productIds: planned.map((s) => s.productId),
    costed: ingredients.every((i) => i !== null) && planned.every((s) => (s.units ?? 0) > 0),
    result: pourResult({
      weighed,
      ingredients: sum(ingredients.map((i) => i ?? micros(0))),
      sizes: planned.map((s, i) => ({
        units: s.planned,
        fill: s.fill,
        added: stirredIn(s.id),
        // Its packaging, and what was stirred into it.
        packaging: micros(
          s.units
            ? mulDiv(
                spent.reduce((a, x) => a + (x.into !== null && x.into === s.lotId ? x.value : 0), 0),
                s.planned,
                s.units,
              )
            : 0,
        ),
        // Where nobody said how long it took, neither side has work in it.
        minutes: b.minutes ? minutes[i]! : 0,
      })),
      leftover,
      rates: { hourly: b.hourly ?? micros(0), overheadHourly: b.overheadHourly ?? micros(0) },
    }),
  };
}
