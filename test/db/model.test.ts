/**
 * The ledger against a second opinion: a plain model in exact fractions, kept beside it through random purchases, counts and
 * draws. On hand must agree to the milligram, and value within the micros that rounding each draw may cost.
 */
import { mg, micros } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { addDays } from "#core/when";
import { planTakes, stockOnHand } from "#core/stock/shelf";
import fc from "fast-check";
import Fraction from "fraction.js";
import { expect, it } from "vitest";
import { pour } from "#db/bench/finishing/pour";
import { readBatch } from "#db/bench/read";
import { saveWeighed } from "#db/bench/weighing/weigh";
import { lotsOfMaterials } from "#db/ledger/lots";
import { correctCount } from "#db/shelf/counting/count";
import { expectLedgerTrue } from "./fresh.ts";
import { buy, DAY, db, eachTestHasAWorkshop, finished, idIn, ids, lotsOf, put, filled } from "./workshop.ts";

eachTestHasAWorkshop();

interface ModelLot {
  onHand: number;
  value: Fraction;
  /** What it came in with, for what is found later. */
  bought: { qty: number; cost: number };
  draws: number;
}

/** The model draws in proportion, without ever rounding. */
function drawFrom(lot: ModelLot, amount: number): Fraction {
  const value = lot.value.mul(amount).div(lot.onHand);
  lot.value = lot.value.sub(value);
  lot.onHand -= amount;
  lot.draws++;
  return value;
}

const act = fc.oneof(
  fc.record({
    do: fc.constant("buy" as const),
    what: fc.constantFrom("oil" as const, "wax" as const),
    grams: fc.integer({ min: 30, max: 900 }),
    cents: fc.integer({ min: 1, max: 4000 }),
    days: fc.option(fc.integer({ min: 1, max: 400 })),
  }),
  fc.record({
    do: fc.constant("count" as const),
    what: fc.constantFrom("oil" as const, "wax" as const),
    change: fc.integer({ min: -20_000, max: 9_000 }),
  }),
  fc.record({ do: fc.constant("make" as const), units: fc.integer({ min: 1, max: 6 }), off: fc.integer({ min: -900, max: 900 }) }),
);

it("agrees with an exact model through any purchases, counts and batches", async () => {
  const model = new Map<number, ModelLot>();
  for (const id of [ids.oil, ids.wax, ids.tin])
    for (const l of await lotsOf(id))
      model.set(l.id, { onHand: l.onHand, value: new Fraction(l.value), bought: { qty: l.bought!, cost: l.landed! }, draws: 0 });

  const newest = async (material: number) => (await lotsOf(material)).reduce((a, b) => (b.id > a.id ? b : a));

  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 3, maxLength: 9 }), async (acts) => {
      for (const a of acts) {
        if (a.do === "buy") {
          await buy(ids[a.what], a.grams * 1000, a.cents / 100, a.days === null ? null : addDays(DAY, a.days));
          const l = await newest(ids[a.what]);
          const cost = a.cents * 10_000 + 1_010_000;
          model.set(l.id, { onHand: a.grams * 1000, value: new Fraction(cost), bought: { qty: a.grams * 1000, cost }, draws: 0 });
        } else if (a.do === "count") {
          const [l] = (await lotsOf(ids[a.what])).filter((x) => x.onHand > 0);
          if (!l || l.onHand + a.change < 0 || a.change === 0) continue;
          await correctCount(db, { lotId: l.id, expected: l.onHand, counted: l.onHand + a.change, reason: "weighed again" }, { day: DAY });
          const m = model.get(l.id)!;
          if (a.change < 0) drawFrom(m, -a.change);
          else {
            m.onHand += a.change;
            m.value = m.value.add(new Fraction(m.bought.cost).mul(a.change).div(m.bought.qty));
            m.draws++;
          }
        } else await makeBoth(model, a.units, a.off);
      }
      for (const id of [ids.oil, ids.wax, ids.tin])
        for (const l of await lotsOf(id)) {
          const m = model.get(l.id)!;
          expect([l.number, l.onHand]).toEqual([l.number, m.onHand]);
          expect(Math.abs(l.value - m.value.valueOf())).toBeLessThanOrEqual(m.draws + 1);
        }
      await expectLedgerTrue(db);
    }),
    { numRuns: 10, endOnFailure: true },
  );
});

/** Makes a batch in the database, weighing a little off the plan, and draws the same from the model. */
async function makeBoth(model: Map<number, ModelLot>, units: number, off: number): Promise<void> {
  let batchId: number;
  try {
    batchId = idIn(await put(units));
  } catch (e) {
    if (e instanceof Refused) return;
    throw e;
  }
  const sheet = (await readBatch(db, batchId))!;
  const takes = sheet.takes.map(({ position, materialId, lotId, planned }) => {
    const onHand = sheet.lots.find((l) => l.id === lotId)!.onHand;
    return { position, materialId, lotId, planned, weighed: mg(Math.max(1, Math.min(onHand, planned + off))) };
  });
  await saveWeighed(db, batchId, takes);
  const tins = planTakes([{ of: ids.tin, amount: units }], stockOnHand(await lotsOfMaterials(db, [ids.tin]), DAY))[0]!.takes;
  try {
    await pour(db, { batchId, takes, sizes: filled(units), leftover: mg(0), minutes: 10, note: "" }, { day: DAY });
  } catch (e) {
    if (e instanceof Refused) return;
    throw e;
  }
  let spent = new Fraction(0);
  for (const t of takes) spent = spent.add(drawFrom(model.get(t.lotId)!, t.weighed));
  for (const t of tins) spent = spent.add(drawFrom(model.get(t.lotId)!, t.amount));
  const made = (await finished()).at(-1)!;
  expect(made.onHand).toBe(units);
  expect(Math.abs(made.value - spent.valueOf())).toBeLessThanOrEqual(40);
  expect(micros(made.value)).toBeGreaterThan(0);
}
