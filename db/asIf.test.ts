/**
 * Taking back is true at any time. Random sequences of acts are done in one workshop, and some of them taken back later, in random order;
 * in a second workshop only those are done that stand in the end. Ledger, batches, jars, market days and orders agree to the micro: what
 * was taken back is as if it had never been.
 */
import { METHODS, readyDays } from "#core/infusion/methods";
import { mg } from "#core/measure/exact";
import { Refused } from "#core/refused";
import fc from "fast-check";
import { and, asc, eq, gt, isNotNull, isNull, sql } from "drizzle-orm";
import { expect, it } from "vitest";
import type { Done } from "./act/define.ts";
import { takeBack } from "./act/takeBack.ts";
import { batchResult, pour } from "./bench/pour.ts";
import { readBatch } from "./bench/read.ts";
import { setOut } from "./bench/setOut.ts";
import { takeOut } from "./cabinet/cabinet.ts";
import type { OpenDb } from "./client.ts";
import { saveGiftOrder } from "./gifts/gifts.ts";
import { packedLots, packGiftOrder } from "./gifts/pack.ts";
import { fillJar, topUp } from "./jars/fill.ts";
import { readJar } from "./jars/read.ts";
import { blend, strainJar } from "./jars/strain.ts";
import { closeMarketDay, listMarketDays } from "./markets/markets.ts";
import { batch, jar, lot, material, purchase } from "./schema.ts";
import { correctReceipt } from "./shelf/correct.ts";
import { correctCount } from "./shelf/count.ts";
import { saveMaterial } from "./shelf/keepMaterial.ts";
import { moveOut } from "./shelf/lots.ts";
import { arrive, receive } from "./shelf/receive.ts";
import { readReceipt } from "./shelf/receipts.ts";
import { euro, expectLedgerTrue } from "./test/fresh.ts";
import { aWorkshop, DAY, idIn, type Workshop } from "./test/workshop.ts";

const KINDS = [
  "receive",
  "arrive",
  "correct",
  "correct",
  "count",
  "moveOut",
  "fill",
  "topUp",
  "strain",
  "blend",
  "make",
  "make",
  "takeOut",
  "market",
  "order",
] as const;
const step = fc.record({
  do: fc.constantFrom(...KINDS),
  a: fc.nat(997),
  b: fc.integer({ min: 1, max: 1000 }),
  back: fc.option(fc.nat(30), { freq: 2 }),
});
type Step = { do: (typeof KINDS)[number]; a: number; b: number; back: number | null };

const doing = { day: DAY };
/** What an act of the first workshop is called in the second: lots, jars and receipts by their numbers here. */
interface World extends Workshop {
  herb: number;
  lots: Map<number, number>;
  jars: Map<number, number>;
  receipts: Map<number, number>;
}
/** An act with all it was told, to be done again in another workshop. */
type Again = (w: World) => Promise<Done>;

const at = (of: Map<number, number>, id: number): number => {
  const found = of.get(id);
  if (found === undefined) throw new Error(`nothing in the second workshop stands for ${id}`);
  return found;
};
const pickOf = <T>(rows: readonly T[], n: number): T | undefined => (rows.length ? rows[n % rows.length] : undefined);
const onHand = (db: OpenDb, kinds: string[]) =>
  db
    .select({ id: lot.id, onHand: lot.onHand, materialId: material.id })
    .from(lot)
    .innerJoin(material, eq(material.id, lot.materialId))
    .where(and(gt(lot.onHand, 0), sql`${material.kind} in ${kinds}`))
    .orderBy(lot.id);
const finishedOn = (db: OpenDb) =>
  db
    .select()
    .from(lot)
    .where(and(isNotNull(lot.productId), gt(lot.onHand, 0)))
    .orderBy(lot.id);

/** Chooses an act by its dice in the first workshop; null when there is nothing to do it to. */
async function choose(w: World, { do: what, a, b }: Step): Promise<Again | null> {
  const { db } = w;
  const part = (n: number): number => Math.max(1, Math.floor((n * b) / 1000));
  switch (what) {
    case "receive": {
      const packs = 1 + (b % 4);
      const arrived = a % (packs + 1);
      const herb = a % 3 === 2;
      return (v) =>
        receive(
          v.db,
          {
            supplier: "Mill",
            day: DAY,
            postage: euro(b / 100),
            lines: [
              {
                materialId: herb ? v.herb : v.ids.oil,
                supplierLot: "",
                packs,
                arrived,
                packSize: "100 g",
                qty: packs * 100_000,
                price: euro(3 + b / 50),
                bestBefore: null,
              },
              {
                materialId: v.ids.wax,
                supplierLot: "",
                packs: 1,
                packSize: "50 g",
                qty: 50_000,
                price: euro(1 + a / 100),
                bestBefore: null,
              },
            ],
          },
          doing,
        );
    }
    case "arrive": {
      const all = await db.select({ id: purchase.id }).from(purchase).orderBy(purchase.id);
      for (const { id } of all) {
        const waiting = (await readReceipt(db, id))?.lines.find((l) => l.line.lotId === null);
        if (!waiting) continue;
        const packs = 1 + (b % waiting.line.packs);
        return async (v) => {
          const theirs = (await readReceipt(v.db, at(v.receipts, id)))!.lines.find((l) => l.line.lotId === null)!;
          return arrive(v.db, { lineId: theirs.line.id, packs, supplierLot: "", bestBefore: null }, doing);
        };
      }
      return null;
    }
    case "correct": {
      const bought = pickOf(await db.select({ id: purchase.id }).from(purchase).orderBy(purchase.id), a);
      const found = bought && (await readReceipt(db, bought.id));
      if (!found) return null;
      const wanted = found.lines.map(({ line }, i) => ({
        lotId: line.lotId,
        packs: line.packs,
        packSize: line.packSize,
        qty: i === 0 && b % 3 === 0 ? part(line.qty * 2) : line.qty,
        price: euro(((a * 7 + b + i) % 4000) / 100),
      }));
      return async (v) => {
        const id = at(v.receipts, bought.id);
        const theirs = (await readReceipt(v.db, id))!.lines;
        const lines = wanted.map(({ lotId, ...l }) => {
          const { line } = theirs.find((t) => t.line.lotId === (lotId === null ? null : at(v.lots, lotId)))!;
          return { id: line.id, materialId: line.materialId, supplierLot: "", bestBefore: null, ...l };
        });
        return correctReceipt(v.db, { id, supplier: "Mill", day: DAY, postage: euro(b / 90), lines }, doing);
      };
    }
    case "count": {
      const l = pickOf(await onHand(db, ["oil", "wax", "herb", "infusedOil"]), a);
      const change = b % 2 ? -part((l?.onHand ?? 0) / 2) : b % 40;
      if (!l || change === 0) return null;
      return async (v) => {
        const lotId = at(v.lots, l.id);
        const [now] = await v.db.select().from(lot).where(eq(lot.id, lotId));
        return correctCount(v.db, { lotId, expected: now!.onHand, counted: now!.onHand + change, reason: "weighed" }, doing);
      };
    }
    case "moveOut": {
      const l = pickOf(await onHand(db, ["oil", "wax", "herb", "infusedOil"]), a);
      return l ? (v) => moveOut(v.db, { lotId: at(v.lots, l.id), amount: part(l.onHand), reason: "wasted", note: "" }, doing) : null;
    }
    case "fill": {
      const h = pickOf(await onHand(db, ["herb"]), a);
      const o = pickOf(await onHand(db, ["oil", "infusedOil"]), b);
      if (!h || !o) return null;
      return async (v) => {
        const materialOf = async (lotId: number) => (await v.db.select({ of: lot.materialId }).from(lot).where(eq(lot.id, lotId)))[0]!.of!;
        const [herbLot, oilLot] = [at(v.lots, h.id), at(v.lots, o.id)];
        return fillJar(
          v.db,
          {
            ...{
              name: `Steeped ${a % 3}`,
              method: "cooker",
              methodName: "",
              vessel: "",
              vesselMl: null,
              fillMl: null,
              looseMl: null,
              day: DAY,
            },
            ...{
              ready: readyDays(DAY, METHODS.shelf.times),
              wished: null,
              heatMinutes: null,
              why: "for a trial",
              note: "",
              expected: mg(o.onHand),
            },
            parts: [
              { role: "herb", materialId: await materialOf(herbLot), lotId: herbLot, cut: "cut", qty: mg(part(h.onHand)) },
              { role: "carrier", materialId: await materialOf(oilLot), lotId: oilLot, cut: null, qty: mg(part(o.onHand)) },
            ],
          },
          doing,
        );
      };
    }
    case "topUp":
    case "strain": {
      const j = pickOf(
        await db
          .select()
          .from(jar)
          .where(and(isNotNull(jar.filledActId), isNull(jar.strainedActId)))
          .orderBy(jar.id),
        a,
      );
      if (!j) return null;
      const found = (await readJar(db, j.id))!;
      if (what === "topUp") {
        const o = pickOf(await onHand(db, ["oil"]), b);
        return o ? (v) => topUp(v.db, { jarId: at(v.jars, j.id), lotId: at(v.lots, o.id), qty: mg(part(o.onHand)) }, doing) : null;
      }
      const back = Math.max(3, part(found.oil));
      const first = Math.max(1, Math.floor(back / 3));
      return (v) =>
        strainJar(
          v.db,
          {
            jarId: at(v.jars, j.id),
            back: mg(back),
            secondBack: null,
            sediment: mg(0),
            herbOut: null,
            pressed: false,
            bottles: [mg(first), mg(back - first)],
          },
          doing,
        );
    }
    case "blend": {
      const oils = await onHand(db, ["oil", "infusedOil"]);
      const [x, y] = [pickOf(oils, a), pickOf(oils, b)];
      if (!x || !y || x.id === y.id) return null;
      return (v) =>
        blend(
          v.db,
          { name: `Blend ${a % 2}`, note: "", takes: [x, y].map((t) => ({ lotId: at(v.lots, t.id), qty: mg(part(t.onHand)) })) },
          doing,
        );
    }
    case "make": {
      const units = 1 + (a % 3);
      const [oil, wax] = [pickOf(await onHand(db, ["oil"]), a), pickOf(await onHand(db, ["wax"]), b)];
      if (!oil || !wax || oil.onHand < units * 41_000 || wax.onHand < units * 11_000) return null;
      const weighed = [mg(units * 40_000 + (b % 900)), mg(units * 10_000 + (a % 90))];
      return async (v) => {
        const set = await setOut(
          v.db,
          { recipeId: v.ids.recipe, batchMg: mg(units * 50_000), sizes: [{ productId: v.ids.product, units }] },
          doing,
        );
        const { takes } = (await readBatch(v.db, idIn(set)))!;
        const lots = [at(v.lots, oil.id), at(v.lots, wax.id)];
        const chosen = [0, 1].map((position) => {
          const { materialId, planned } = takes.find((t) => t.position === position)!;
          return { position, materialId, planned, lotId: lots[position]!, weighed: weighed[position]! };
        });
        return pour(
          v.db,
          { batchId: idIn(set), takes: chosen, sizes: [{ productId: v.ids.product, units }], leftover: mg(0), minutes: 30, note: "" },
          doing,
        );
      };
    }
    case "takeOut": {
      const l = pickOf(await finishedOn(db), a);
      return l ? (v) => takeOut(v.db, { lotId: at(v.lots, l.id), units: 1, reason: "tester", note: "" }, doing) : null;
    }
    case "market": {
      const l = pickOf(await finishedOn(db), a);
      if (!l) return null;
      const sold = part(l.onHand);
      const costs = { stallFee: euro(10), travel: euro(2), byCard: euro(0), cardFeeBp: 175, minutes: 60 };
      const lines = (lotId: number) => [{ lotId, taken: l.onHand, sold, given: 0, damaged: 0, price: euro(5) }];
      return (v) => closeMarketDay(v.db, { name: "Fair", day: DAY, note: "", ...costs, lines: lines(at(v.lots, l.id)) }, doing);
    }
    case "order": {
      const l = pickOf(await finishedOn(db), a);
      if (!l) return null;
      const order = { customer: "Choir", due: DAY, extra: euro(1), discountBp: 0, wrapMinutes: 5, note: "", wrapping: [] };
      return async (v) => {
        const items = [{ productId: v.ids.product, units: part(l.onHand), price: euro(6) }];
        const saved = await saveGiftOrder(v.db, { ...order, items }, doing);
        return packGiftOrder(v.db, { id: idIn(saved), only: [{ productId: v.ids.product, lotId: at(v.lots, l.id) }] }, doing);
      };
    }
  }
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

async function aWorld(): Promise<World & { drop: () => Promise<void> }> {
  const w = await aWorkshop();
  const herb = idIn(await saveMaterial(w.db, { name: "Herb", kind: "herb", densities: {} }, doing));
  for (const [materialId, qty] of [
    [herb, 200_000],
    [w.ids.oil, 900_000],
  ] as const)
    await receive(
      w.db,
      {
        supplier: "Mill",
        day: DAY,
        postage: euro(0),
        lines: [{ materialId, supplierLot: "", packs: 1, packSize: "1", qty, price: euro(4), bestBefore: null }],
      },
      doing,
    );
  return { ...w, herb, lots: new Map(), jars: new Map(), receipts: new Map() };
}
const alike = (w: World, m: Made): void => {
  for (const kind of ["lots", "jars", "receipts"] as const) for (const id of m[kind]) w[kind].set(id, id);
};

/** What the records of a workshop come to, of what stands: by their place among those, so that two workshops compare. */
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
    days: days.map((d) => d.lines.map((l) => [l.sold, l.gone])),
    orders: await Promise.all(orders.map(async (o) => (await packedLots(db, o.id)).map((l) => [l.qty, l.value, l.work]))),
    jars: await Promise.all(jars.map((j) => read(j.id))),
  };
}
const stock = async (db: OpenDb) =>
  new Map((await db.select({ id: lot.id, onHand: lot.onHand, value: lot.value }).from(lot)).map((l) => [l.id, [l.onHand, l.value]]));

it("what is taken back, later and in any order, is as if it had never been", async () => {
  const seen = { acts: 0, back: 0, refused: 0 };
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 8, maxLength: 16 }), async (steps) => {
      const [first, second] = [await aWorld(), await aWorld()];
      try {
        alike(first, await made(first.db));
        const start = await made(second.db);
        const done: { again: Again; actId: number; made: Made; stands: boolean; due: number }[] = [];
        const settle = async (now: number): Promise<void> => {
          for (const d of done.filter((x) => x.stands && x.due <= now).sort((x, y) => x.due - y.due)) {
            d.due = Infinity;
            try {
              await takeBack(first.db, d.actId, doing);
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
              done.push({ again, actId, made: m, stands: true, due: s.back === null ? Infinity : i + s.back });
              seen.acts++;
            } catch (e) {
              if (!(e instanceof Refused)) throw e;
            }
          }
          await settle(i);
        }
        await settle(1000);

        alike(second, start);
        for (const d of done.filter((x) => x.stands)) {
          const before = await made(second.db);
          await d.again(second);
          const m = newIn(before, await made(second.db));
          for (const kind of ["lots", "jars", "receipts"] as const) d.made[kind].forEach((id, n) => second[kind].set(id, m[kind][n]!));
        }
        const [here, there] = [await stock(first.db), await stock(second.db)];
        const gone = new Set(done.filter((d) => !d.stands).flatMap((d) => d.made.lots));
        for (const [id, held] of here) expect(held, `lot ${id}`).toEqual(gone.has(id) ? [0, 0] : there.get(second.lots.get(id)!));
        expect(await results(first.db)).toEqual(await results(second.db));
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
}, 300_000);
