/**
 * Taking back is true at any time. Random sequences of acts are done in one workshop, and some of them taken back later, in random order;
 * in a second workshop only those are done that stand in the end. Ledger, batches, jars, market days and orders agree to the micro, and so does
 * all that is worked out from them: use, reminders, what buying again costs, pace and Today. What was taken back is as if it had never been.
 */
import { Refused } from "#core/refused";
import { addDays } from "#core/when";
import { asc, isNotNull, sql } from "drizzle-orm";
import fc from "fast-check";
import { expect, it } from "vitest";
import { reverseAct } from "#db/acts/reverse";
import { batchResult } from "#db/bench/finishing/result";
import { cabinetOutlook } from "#db/cabinet/outlook";
import type { OpenDb } from "#db/client";
import { readNumber, readText, orNone, rowsOf } from "#db/columnsOf";
import { packedLots } from "#db/gifts/pack";
import { readJar } from "#db/jars/read";
import { replacementCosts } from "#db/ledger/lots";
import { listMarketDays } from "#db/markets/markets";
import { batch, jar, lot, material, purchase } from "#db/schema";
import { chosenPrices } from "#db/prices/prices";
import { monthlyUse } from "#db/shelf/buying";
import { stockLevels } from "#db/shelf/low";
import { aWorldForDice, choose, dice, type Kind } from "./dice.ts";
import { NotThere, type Again, type World } from "./dice/world.ts";
import { expectLedgerTrue } from "./fresh.ts";
import { DAY } from "./workshop.ts";
import { workItems } from "#db/today/today";

const step = fc.record({ ...dice, back: fc.option(fc.nat(30), { freq: 2 }) });

/** When things are taken back: in another month than they were done in. */
const LATER = addDays(DAY, 40);
/** The second workshop's numbers, by those of the first. */
interface Other extends World {
  lots: Map<number, number>;
  jars: Map<number, number>;
  receipts: Map<number, number>;
}

/** Ids of everything an act may make, to see what it made. */
const made = async (db: OpenDb) => ({
  lots: (await db.select({ id: lot.id }).from(lot).orderBy(asc(lot.id))).map((r) => r.id),
  jars: (await db.select({ id: jar.id }).from(jar).orderBy(asc(jar.id))).map((r) => r.id),
  receipts: (await db.select({ id: purchase.id }).from(purchase).orderBy(asc(purchase.id))).map((r) => r.id),
});
type Made = Awaited<ReturnType<typeof made>>;
const newIn = (before: Made, after: Made): Made => ({
  lots: after.lots.slice(before.lots.length),
  jars: after.jars.slice(before.jars.length),
  receipts: after.receipts.slice(before.receipts.length),
});

const aWorld = async (): Promise<Other & { drop: () => Promise<void> }> => ({
  ...(await aWorldForDice()),
  lots: new Map(),
  jars: new Map(),
  receipts: new Map(),
});
const alike = (w: Other, m: Made): void => {
  for (const kind of ["lots", "jars", "receipts"] as const) for (const id of m[kind]) w[kind].set(id, id);
};

/** What the records of a workshop come to, of what is in effect: by their place among those, so that two workshops compare. */
async function results(db: OpenDb) {
  const poured = await db.select().from(batch).where(isNotNull(batch.pouredActId)).orderBy(batch.id);
  const days = (await listMarketDays(db)).filter((d) => d.closedActId !== null).sort((x, y) => x.id - y.id);
  const { rows: orders } = await db.execute<{ id: number }>(sql`select id from gift_order where packed_act_id is not null order by id`);
  const jars = await db.select({ id: jar.id }).from(jar).where(isNotNull(jar.filledActId)).orderBy(jar.id);
  const read = async (id: number) => {
    const j = (await readJar(db, id))!;
    return [j.value, j.oil, j.herb, ...j.bottles.map((b) => b.value)];
  };
  return {
    batches: await Promise.all(poured.map((b) => batchResult(db, b))),
    days: days.map((d) => [...d.lines.map((l) => [l.sold, l.gone]), ...d.sales.map((s) => [s.units, s.takings])]),
    prices: [...(await chosenPrices(db))],
    orders: await Promise.all(orders.map(async (o) => (await packedLots(db, o.id)).map((l) => [l.qty, l.value, l.work]))),
    jars: await Promise.all(jars.map((j) => read(j.id))),
  };
}
/** What is shown of the books by names, since the two workshops number things otherwise. @param recalls whether each was begun in both */
async function shown(db: OpenDb, recalls: boolean) {
  const materials = (await db.select().from(material).orderBy(material.name)).filter((m) => !m.retired);
  const names = new Map(materials.map((m) => [m.id, m.name]));
  const byName = <T>(all: ReadonlyMap<number, T>): [string, T][] =>
    [...all].map(([id, of]) => [names.get(id)!, of] as [string, T]).sort((x, y) => x[0].localeCompare(y[0]));
  const use = await monthlyUse(
    db,
    LATER,
    materials.map((m) => m.id),
  );
  const levels = await rowsOf(
    db,
    { name: readText, usable: readNumber, coming: readNumber, point: orNone(readNumber) },
    sql`select s.name, s.usable, s.coming, s.point from ${stockLevels(LATER)} s where s.usable + s.coming > 0 or s.point is not null order by s.name`,
  );
  const work = await workItems(db, LATER);
  const found = await db.select({ of: lot.productId, day: lot.arrived }).from(lot).where(isNotNull(lot.productId)).limit(1);
  return {
    again: byName(await replacementCosts(db)),
    use: byName(use).flatMap(([name, months]) => months.flatMap((m) => (m.used === 0 ? [] : [[name, m.month, m.used]]))),
    levels,
    pace: found.length === 0 ? [] : byPace((await cabinetOutlook(db, LATER)).paces),
    // A batch that was set out, an order that was written and a picking stand on, where only what came of them was taken back.
    today: work
      .filter(
        (w) => !["bench", "prices", "gifts", "markets"].includes(w.station) && w.kind !== "drying" && (recalls || w.kind !== "recall"),
      )
      .map((w) => [w.station, w.kind, w.name, w.amount, w.total].join(" "))
      .sort(),
    toCome: await rowsOf(
      db,
      { supplier: readText, packs: readNumber, landed: readNumber },
      sql`select p.supplier, sum(l.packs) as packs, sum(l.landed) as landed from purchase_line l join purchase p on p.id = l.purchase_id
        where l.lot_id is null and exists (select 1 from standing_act sa where sa.id = p.act_id) group by 1, l.material_id, l.price / l.packs order by 1, 2, 3`,
    ),
  };
}
const byPace = (paces: ReadonlyMap<number, number | null>) => [...paces.values()].sort((a, b) => (a ?? -1) - (b ?? -1));
const stock = async (db: OpenDb) =>
  new Map(
    (await db.select({ id: lot.id, onHand: lot.onHand, value: lot.value, hold: lot.holdReason }).from(lot)).map((l) => [
      l.id,
      // Why it is held, whichever reason came first.
      { is: [l.onHand, l.value], held: l.hold?.split("; ").sort() ?? [] },
    ]),
  );

it("what is taken back, later and in any order, is as if it had never been", async () => {
  const seen = { acts: 0, back: 0, refused: 0 };
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 8, maxLength: 16 }), async (steps) => {
      const [first, second] = [await aWorld(), await aWorld()];
      try {
        alike(first, await made(first.db));
        const start = await made(second.db);
        const done: { kind: Kind; again: Again; actId: number; made: Made; stands: boolean; due: number }[] = [];
        const settle = async (now: number): Promise<void> => {
          for (const d of done.filter((x) => x.stands && x.due <= now).sort((x, y) => x.due - y.due)) {
            d.due = Infinity;
            try {
              await reverseAct(first.db, d.actId, { day: LATER });
              d.stands = false;
              seen.back++;
            } catch (e) {
              if (!(e instanceof Refused)) throw e;
              seen.refused++;
            }
          }
        };
        for (const [i, s] of steps.entries()) {
          const again = await choose(first, s);
          if (again) {
            const before = await made(first.db);
            try {
              const { actId } = await again(first);
              const m = newIn(before, await made(first.db));
              alike(first, m);
              done.push({ kind: s.do, again, actId, made: m, stands: true, due: s.back === null ? Infinity : i + s.back });
              seen.acts++;
            } catch (e) {
              if (!(e instanceof Refused)) throw e;
            }
          }
          await settle(i);
        }
        await settle(1000);

        alike(second, start);
        // A recall of a lot goes on when what brought the lot is taken back; where the lot never was, it never began.
        let recalls = true;
        for (const d of done.filter((x) => x.stands)) {
          const before = await made(second.db);
          // A note on a lot stays in the book when what brought the lot is taken back; there is nothing to note it on here.
          const noted = await Promise.resolve(second)
            .then(d.again)
            .catch((e: unknown) => {
              if (!(e instanceof NotThere && ["open", "hold", "recall", "closeRecall", "scentMost", "count"].includes(d.kind))) throw e;
              recalls &&= d.kind !== "recall" && d.kind !== "closeRecall";
              return null;
            });
          if (!noted) continue;
          const m = newIn(before, await made(second.db));
          for (const kind of ["lots", "jars", "receipts"] as const) d.made[kind].forEach((id, n) => second[kind].set(id, m[kind][n]!));
        }
        const [here, there] = [await stock(first.db), await stock(second.db)];
        const gone = new Set(done.filter((d) => !d.stands).flatMap((d) => d.made.lots));
        for (const [id, held] of here) {
          if (gone.has(id)) expect(held.is, `lot ${id}`).toEqual([0, 0]);
          else expect(held, `lot ${id}`).toEqual(there.get(second.lots.get(id)!));
        }
        expect(await results(first.db)).toEqual(await results(second.db));
        expect(await shown(first.db, recalls)).toEqual(await shown(second.db, recalls));
        await expectLedgerTrue(first.db);
        await expectLedgerTrue(second.db);
      } finally {
        await first.drop();
        await second.drop();
      }
    }),
    { numRuns: 25, endOnFailure: true },
  );
  // A run that took nothing back, or was never refused, would say little.
  expect(seen.acts).toBeGreaterThan(100);
  expect(seen.back).toBeGreaterThan(25);
  expect(seen.refused).toBeGreaterThan(3);
});
