/**
 * Random sequences of every act the ledger knows, taken back at random: on hand is the sum of the movements, value is neither made nor
 * lost, nothing goes below zero, and no lot is made of itself. An act that is refused leaves everything as it was.
 */
import { addDays } from "#core/when";
import { mg } from "#core/measure/exact";
import { METHODS, readyDays } from "#core/infusion/methods";
import { Refused } from "#core/refused";
import fc from "fast-check";
import { and, desc, eq, gt, isNotNull, isNull, sql } from "drizzle-orm";
import { expect, it } from "vitest";
import type { Done } from "./act/define.ts";
import { takeBack } from "./act/takeBack.ts";
import { takeOut } from "./cabinet/cabinet.ts";
import { saveGiftOrder } from "./gifts/gifts.ts";
import { packGiftOrder } from "./gifts/pack.ts";
import { closeMarketDay } from "./markets/markets.ts";
import { fillJar, topUp } from "./jars/fill.ts";
import { blend, spoilJar, strainJar } from "./jars/strain.ts";
import { act, jar, lot, material, purchase, purchaseLine } from "./schema.ts";
import { correctCount } from "./shelf/count.ts";
import { finishHarvest, pick } from "./shelf/harvests.ts";
import { moveOut, openLot } from "./shelf/lots.ts";
import { saveMaterial } from "./shelf/keepMaterial.ts";
import { arrive, receive, receiveMany } from "./shelf/receive.ts";
import { correctReceipt } from "./shelf/correct.ts";
import { readReceipt } from "./shelf/receipts.ts";
import { noteCount, postStocktake } from "./shelf/stocktake.ts";
import { euro, expectLedgerTrue } from "./test/fresh.ts";
import { DAY, db, eachTestHasAWorkshop, idIn, ids, make } from "./test/workshop.ts";

eachTestHasAWorkshop();

const KINDS = [
  "receive",
  "arrive",
  "correct",
  "count",
  "stocktake",
  "moveOut",
  "open",
  "harvest",
  "fill",
  "fill",
  "topUp",
  "strain",
  "strain",
  "spoil",
  "blend",
  "make",
  "make",
  "takeOut",
  "market",
  "order",
  "file",
  "undo",
  "undo",
] as const;
/** Which act, and two dice that choose what it is done to and how much. */
const step = fc.record({ do: fc.constantFrom(...KINDS), a: fc.nat(997), b: fc.integer({ min: 1, max: 1000 }) });
type Step = { do: (typeof KINDS)[number]; a: number; b: number };

let orders = 0;
const pickOf = <T>(rows: readonly T[], n: number): T | undefined => (rows.length ? rows[n % rows.length] : undefined);
const lotsOn = (kinds: string[]) =>
  db
    .select({ id: lot.id, onHand: lot.onHand, materialId: material.id })
    .from(lot)
    .innerJoin(material, eq(material.id, lot.materialId))
    .where(and(gt(lot.onHand, 0), sql`${material.kind} in ${kinds}`))
    .orderBy(lot.id);
const openJars = () =>
  db
    .select()
    .from(jar)
    .where(and(isNotNull(jar.filledActId), isNull(jar.strainedActId), isNull(jar.spoiledActId)))
    .orderBy(jar.id);
const doing = { day: DAY };
let herb: number;

/** Does one act; null when there is nothing to do it to. */
async function run({ do: what, a, b }: Step): Promise<Done | null> {
  const part = (n: number): number => Math.max(1, Math.floor((n * b) / 1000));
  switch (what) {
    case "receive": {
      const of = [ids.oil, ids.wax, herb][a % 3]!;
      const packs = 1 + (b % 4);
      return receive(
        db,
        {
          supplier: "Mill",
          day: DAY,
          postage: euro(b / 100),
          tax: euro((a % 50) / 100),
          discount: euro(0.01 * (b % 7)),
          rate: a % 2 ? 1_000_000 : 934_567,
          lines: [
            {
              materialId: of,
              supplierLot: "",
              packs,
              arrived: a % (packs + 1),
              packSize: "100 g",
              qty: packs * 100_000,
              price: euro(3 + b / 50),
              bestBefore: null,
            },
            { materialId: ids.tin, supplierLot: "", packs: 1, packSize: "10 pcs", qty: 10, price: euro(5), bestBefore: null },
          ],
        },
        {},
      );
    }
    case "arrive": {
      const line = pickOf(await db.select().from(purchaseLine).where(isNull(purchaseLine.lotId)).orderBy(purchaseLine.id), a);
      return line ? arrive(db, { lineId: line.id, packs: 1 + (b % line.packs), supplierLot: "", bestBefore: null }, doing) : null;
    }
    case "correct": {
      const bought = pickOf(await db.select({ id: purchase.id }).from(purchase).orderBy(purchase.id), a);
      const found = bought && (await readReceipt(db, bought.id));
      if (!found) return null;
      const lines = found.lines.map(({ line }, i) => ({
        id: line.id,
        materialId: line.materialId,
        supplierLot: "",
        packs: line.packs,
        packSize: line.packSize,
        // Now and then the amount was wrong as well.
        qty: i === 0 && b % 3 === 0 ? part(line.qty * 2) : line.qty,
        price: euro(((a * 7 + b + i) % 4000) / 100),
        bestBefore: null,
      }));
      return correctReceipt(
        db,
        {
          id: found.receipt.id,
          supplier: "Mill",
          day: DAY,
          postage: euro(b / 90),
          lines: b % 11 === 0 ? lines.slice(1).concat(lines.length > 1 ? [] : lines) : lines,
        },
        doing,
      );
    }
    case "count": {
      const l = pickOf(await db.select().from(lot).where(gt(lot.onHand, 0)).orderBy(lot.id), a);
      return l
        ? correctCount(
            db,
            { lotId: l.id, expected: l.onHand, counted: b % 2 ? part(l.onHand) - 1 : l.onHand + (b % 40), reason: "weighed" },
            doing,
          )
        : null;
    }
    case "stocktake": {
      const all = await lotsOn(["oil", "wax", "herb", "infusedOil"]);
      for (const l of all.slice(0, 1 + (a % 4))) await noteCount(db, l.id, b % 2 ? part(l.onHand) : l.onHand + b, "");
      return postStocktake(db, {}, doing);
    }
    case "moveOut": {
      const l = pickOf(await lotsOn(["oil", "wax", "herb", "infusedOil"]), a);
      return l
        ? moveOut(
            db,
            { lotId: l.id, amount: part(l.onHand), reason: (["wasted", "given", "returned", "own"] as const)[b % 4]!, note: "" },
            doing,
          )
        : null;
    }
    case "open": {
      const l = pickOf(await lotsOn(["oil", "herb"]), a);
      return l ? openLot(db, { lotId: l.id }, doing) : null;
    }
    case "harvest": {
      const picked = await pick(
        db,
        { materialId: herb, picked: DAY, place: "", fresh: mg(b * 1000), method: "air", celsius: null, minutes: a % 90, note: "" },
        doing,
      );
      return finishHarvest(
        db,
        {
          harvestId: idIn(picked),
          dry: mg(b * 200),
          snaps: a % 3 > 0,
          minutes: a % 90,
          valuedBy: a % 2 ? "hours" : "nothing",
          market: null,
        },
        doing,
      );
    }
    case "fill": {
      const h = pickOf(await lotsOn(["herb"]), a);
      const o = pickOf(await lotsOn(["oil", "infusedOil"]), b);
      if (!h || !o) return null;
      return fillJar(
        db,
        {
          name: `Steeped ${a % 3}`,
          method: a % 2 ? "shelf" : "cooker",
          methodName: "",
          vessel: "",
          vesselMl: null,
          fillMl: null,
          looseMl: null,
          day: DAY,
          ready: readyDays(DAY, METHODS.shelf.times),
          wished: null,
          heatMinutes: null,
          why: a % 5 ? "for a trial" : "",
          note: "",
          expected: mg(o.onHand),
          parts: [
            { role: "herb", materialId: h.materialId, lotId: h.id, cut: "cut", qty: mg(part(h.onHand)) },
            { role: "carrier", materialId: o.materialId, lotId: o.id, cut: null, qty: mg(part(o.onHand)) },
          ],
        },
        {},
      );
    }
    case "topUp": {
      const j = pickOf(await openJars(), a);
      const o = pickOf(await lotsOn(["oil"]), b);
      return j && o ? topUp(db, { jarId: j.id, lotId: o.id, qty: mg(part(o.onHand)) }, doing) : null;
    }
    case "strain": {
      const j = pickOf(await openJars(), a);
      if (!j) return null;
      const { rows } = await db.execute<{ oil: string }>(
        sql`select sum(qty) as oil from jar_part where jar_id = ${j.id} and role = 'carrier'`,
      );
      const back = Math.max(3, part(Number(rows[0]!.oil) * 1.05));
      const first = Math.max(1, Math.floor(back / 3));
      return strainJar(
        db,
        {
          jarId: j.id,
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
    case "spoil": {
      const j = pickOf(await openJars(), a);
      return j && b % 2 === 0 ? spoilJar(db, { jarId: j.id, why: "mould" }, doing) : null;
    }
    case "blend": {
      const oils = await lotsOn(["oil", "infusedOil"]);
      const [x, y] = [pickOf(oils, a), pickOf(oils, b)];
      return x && y
        ? blend(
            db,
            {
              name: `Blend ${a % 2}`,
              takes: [
                { lotId: x.id, qty: mg(part(x.onHand)) },
                { lotId: y.id, qty: mg(part(y.onHand)) },
              ],
              note: "",
            },
            doing,
          )
        : null;
    }
    case "make":
      return make(1 + (a % 4));
    case "takeOut": {
      const l = pickOf(
        await db
          .select()
          .from(lot)
          .where(and(isNotNull(lot.productId), gt(lot.onHand, 0))),
        a,
      );
      return l ? takeOut(db, { lotId: l.id, units: 1, reason: "tester", note: "" }, doing) : null;
    }
    case "market": {
      const l = pickOf(
        await db
          .select()
          .from(lot)
          .where(and(isNotNull(lot.productId), gt(lot.onHand, 0)))
          .orderBy(lot.id),
        a,
      );
      if (!l) return null;
      const sold = part(l.onHand);
      const line = { lotId: l.id, taken: l.onHand, sold, given: Math.min(a % 2, l.onHand - sold), damaged: 0, price: euro(5) };
      const costs = { stallFee: euro(10), travel: euro(2), byCard: euro(0), cardFeeBp: 175, minutes: 60 };
      return closeMarketDay(db, { name: "Fair", day: DAY, note: "", ...costs, lines: [line] }, doing);
    }
    case "order": {
      const saved = await saveGiftOrder(
        db,
        {
          customer: "Choir",
          // Sooner than any before, so that none that couldn't be packed has first call on what there is.
          due: addDays(DAY, -++orders),
          extra: euro(1),
          discountBp: 0,
          wrapMinutes: 5,
          note: "",
          items: [{ productId: ids.product, units: 1 + (a % 2), price: euro(6) }],
          wrapping: [{ materialId: ids.box, pieces: 1 }],
        },
        doing,
      );
      return packGiftOrder(db, { id: idIn(saved), only: [] }, doing);
    }
    case "file": {
      const lines = [
        {
          materialId: a % 2 ? ids.box : ids.wax,
          supplierLot: "",
          packs: 2,
          packSize: "10",
          qty: 2 * b,
          price: euro(b / 100),
          bestBefore: null,
        },
      ];
      const one = { supplier: "Filed", day: DAY, postage: euro(0), lines };
      return receiveMany(db, { add: [], receipts: [one, { ...one, supplier: "Another" }] }, doing);
    }
    case "undo": {
      const recent = await db.select({ id: act.id }).from(act).orderBy(desc(act.id)).limit(8);
      return takeBack(db, pickOf(recent, a)!.id, doing);
    }
  }
}

it("keeps its promises through any sequence of acts", async () => {
  const done = new Map<string, number>();
  let herbs = 0;
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 8, maxLength: 16 }), async (steps) => {
      herb = idIn(await saveMaterial(db, { name: `Herb ${++herbs}`, kind: "herb", densities: {} }, doing));
      await receive(
        db,
        {
          supplier: "Mill",
          day: DAY,
          postage: euro(0),
          // Enough to fill and to make from, whatever the runs before used up.
          lines: [
            [herb, 200_000] as const,
            [ids.oil, 500_000] as const,
            [ids.wax, 200_000] as const,
            [ids.tin, 20] as const,
            [ids.box, 2] as const,
          ].map(([materialId, qty]) => ({ materialId, supplierLot: "", packs: 1, packSize: "1", qty, price: euro(4), bestBefore: null })),
        },
        {},
      );
      await make(2);
      for (const s of steps) {
        const before = await db.execute(
          sql`select sum(on_hand) as qty, sum(value) as value, (select count(*) from movement) as moves from lot`,
        );
        try {
          if (await run(s)) done.set(s.do, (done.get(s.do) ?? 0) + 1);
        } catch (e) {
          if (!(e instanceof Refused)) throw e;
          const after = await db.execute(
            sql`select sum(on_hand) as qty, sum(value) as value, (select count(*) from movement) as moves from lot`,
          );
          expect(after.rows, `${s.do} was refused and moved something`).toEqual(before.rows);
        }
      }
      await expectLedgerTrue(db);
    }),
    { numRuns: 36, endOnFailure: true },
  );
  // A test that never did an act would say nothing of it.
  for (const kind of new Set(KINDS)) expect(done.get(kind) ?? 0, `${kind} was never done`).toBeGreaterThan(0);
}, 180_000);
