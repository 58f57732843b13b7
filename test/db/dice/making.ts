/** By dice: what is steeped, blended and made of the shelf, and where it goes. */
import { unitsOut } from "#core/cabinet/out";
import { groupBy } from "#core/collect";
import { mg } from "#core/measure/exact";
import { addDays } from "#core/when";
import { and, eq, gt, isNotNull, isNull } from "drizzle-orm";
import { ladleOut } from "#db/bench/parts/ladle";
import { meltDown } from "#db/bench/finishing/meltDown";
import { splitPart } from "#db/bench/parts/parts";
import { pour } from "#db/bench/finishing/pour";
import { readBatch } from "#db/bench/read";
import { setOut } from "#db/bench/planning/setOut";
import { comeBack } from "#db/cabinet/comeBack";
import { takeOut } from "#db/cabinet/cabinet";
import type { OpenDb } from "#db/client";
import { saveGiftOrder } from "#db/gifts/gifts";
import { packGiftOrder } from "#db/gifts/pack";
import { fillJar, topUp } from "#db/jars/fill";
import { readJar } from "#db/jars/read";
import { blend, spoilJar, strainJar } from "#db/jars/strain";
import { outAt, outOf } from "#db/ledger/out";
import { closeMarketDay } from "#db/markets/markets";
import { jar, lot, product } from "#db/schema";
import { euro } from "../fresh.ts";
import { DAY, idIn, jarOf } from "../workshop.ts";
import { at, doing, onHand, part, pickOf, type Throw } from "./world.ts";

let orders = 0;
const finishedOn = (db: OpenDb) =>
  db
    .select()
    .from(lot)
    .where(and(isNotNull(lot.productId), gt(lot.onHand, 0)))
    .orderBy(lot.id);
const openJars = (db: OpenDb) =>
  db
    .select()
    .from(jar)
    .where(and(isNotNull(jar.filledActId), isNull(jar.strainedActId), isNull(jar.spoiledActId)))
    .orderBy(jar.id);

export const MAKING = {
  fill: async (db, a, b) => {
    const h = pickOf(await onHand(db, ["herb"]), a);
    const o = pickOf(await onHand(db, ["oil", "infusedOil"]), b);
    if (!h || !o) return null;
    return async (v) => {
      const materialOf = async (lotId: number) => (await v.db.select({ of: lot.materialId }).from(lot).where(eq(lot.id, lotId)))[0]!.of!;
      const [herbLot, oilLot] = [at(v.lots, h.id), at(v.lots, o.id)];
      return fillJar(
        v.db,
        jarOf(
          [
            { role: "herb", materialId: await materialOf(herbLot), lotId: herbLot, cut: "cut", qty: mg(part(h.onHand, b)) },
            { role: "carrier", materialId: await materialOf(oilLot), lotId: oilLot, cut: null, qty: mg(part(o.onHand, b)) },
          ],
          { name: `Steeped ${a % 3}`, method: "cooker", why: "for a trial", expected: mg(o.onHand) },
        ),
        doing,
      );
    };
  },

  topUp: async (db, a, b) => {
    const [j, o] = [pickOf(await openJars(db), a), pickOf(await onHand(db, ["oil"]), b)];
    return j && o ? (v) => topUp(v.db, { jarId: at(v.jars, j.id), lotId: at(v.lots, o.id), qty: mg(part(o.onHand, b)) }, doing) : null;
  },

  strain: async (db, a, b) => {
    const j = pickOf(await openJars(db), a);
    if (!j) return null;
    const back = Math.max(3, part((await readJar(db, j.id))!.oil, b));
    const first = Math.max(1, Math.floor(back / 3));
    const out = {
      back: mg(back),
      secondBack: null,
      sediment: mg(0),
      herbOut: null,
      pressed: false,
      bottles: [mg(first), mg(back - first)],
    };
    return (v) => strainJar(v.db, { jarId: at(v.jars, j.id), ...out }, doing);
  },

  spoil: async (db, a, b) => {
    const j = pickOf(await openJars(db), a);
    return j && b % 2 === 0 ? (v) => spoilJar(v.db, { jarId: at(v.jars, j.id), why: "mould" }, doing) : null;
  },

  blend: async (db, a, b) => {
    const oils = await onHand(db, ["oil", "infusedOil"]);
    const [x, y] = [pickOf(oils, a), pickOf(oils, b)];
    if (!x || !y || x.id === y.id) return null;
    return (v) =>
      blend(
        v.db,
        { name: `Blend ${a % 2}`, note: "", takes: [x, y].map((t) => ({ lotId: at(v.lots, t.id), qty: mg(part(t.onHand, b)) })) },
        doing,
      );
  },

  make: async (db, a, b) => {
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
        {
          batchId: idIn(set),
          takes: chosen,
          sizes: [{ productId: v.ids.product, units }],
          leftover: mg(b % 3 === 0 ? 500 : 0),
          keepsLeftover: b % 3 === 0,
          minutes: 30,
          note: "",
        },
        doing,
      );
    };
  },

  /** Two of them, one with a little more wax stirred in: parted off at the bench, or as it is set out where that was made before. */
  makeInParts: async (db, a, b) => {
    const [oil, wax] = [pickOf(await onHand(db, ["oil"]), a), pickOf(await onHand(db, ["wax"]), b)];
    if (!oil || !wax || oil.onHand < 82_000 || wax.onHand < 25_000) return null;
    const weighed = [mg(80_000 + (b % 900)), mg(20_000 + (a % 90)), mg(1000 + (b % 90))];
    return async (v) => {
      const [before] = await v.db.select({ id: product.id }).from(product).where(eq(product.variant, "firm"));
      const parts = before && a % 2 === 0 ? [{ productId: before.id, units: 1 }] : [];
      const sizes = [{ productId: v.ids.product, units: 2 }];
      const batchId = idIn(await setOut(v.db, { recipeId: v.ids.recipe, batchMg: mg(100_000), sizes, parts }, doing));
      if (parts.length === 0) {
        const sizeId = (await readBatch(v.db, batchId))!.sizes[0]!.id;
        const additions = [{ material: "Wax", measure: { ppm: 20_000 } }];
        await splitPart(v.db, { batchId, sizeId, name: "firm", units: 1, additions }, DAY);
      }
      const sheet = (await readBatch(v.db, batchId))!;
      // Ladled out by eye, and now and then weighed.
      const firm = sheet.sizes.find((s) => s.partOf !== null)!;
      if (b % 3 > 0) await ladleOut(v.db, { batchId, sizeId: firm.id, weighed: mg(40_000 + 19 * b), was: null });
      const lots = [at(v.lots, oil.id), at(v.lots, wax.id), at(v.lots, wax.id)];
      const takes = [0, 1, 2].map((position) => {
        const { materialId, planned } = sheet.takes.find((t) => t.position === position)!;
        return { position, materialId, planned, lotId: lots[position]!, weighed: weighed[position]! };
      });
      const filled = sheet.sizes.map((s) => ({ productId: s.productId, units: 1 }));
      return pour(v.db, { batchId, takes, sizes: filled, leftover: mg(0), minutes: 30, note: "" }, doing);
    };
  },

  meltDown: async (db, a, b) => {
    const l = pickOf(await finishedOn(db), a);
    // Now and then nearly nothing comes out of it; nothing at all is refused.
    const weight = mg(b % 7 === 0 ? b % 2 : 49_500 + (b % 900));
    return l ? (v) => meltDown(v.db, { lotId: at(v.lots, l.id), units: 1, weight, note: "soft" }, doing) : null;
  },

  /** Out of nothing but what was melted down. */
  pourAgain: async (db, a) => {
    const base = pickOf(
      (await onHand(db, ["base"])).filter((l) => l.onHand > 49_200),
      a,
    );
    if (!base) return null;
    return async (v) => {
      const [lotId, amount] = [at(v.lots, base.id), mg(base.onHand)];
      const sizes = [{ productId: v.ids.product, units: 1 }];
      const set = await setOut(v.db, { recipeId: v.ids.recipe, batchMg: amount, sizes, melted: [{ lotId, amount }] }, doing);
      const takes = (await readBatch(v.db, idIn(set)))!.takes.map((t) => ({ ...t, weighed: amount }));
      return pour(v.db, { batchId: idIn(set), takes, sizes, leftover: mg(0), minutes: 30, note: "" }, doing);
    };
  },

  takeOut: async (db, a) => {
    const l = pickOf(await finishedOn(db), a);
    return l ? (v) => takeOut(v.db, { lotId: at(v.lots, l.id), units: 1, reason: "tester", note: "" }, doing) : null;
  },

  comeBack: async (db, a, b) => {
    const ids = (await db.select({ id: lot.id }).from(lot).where(isNotNull(lot.productId)).orderBy(lot.id)).map((l) => l.id);
    const out = groupBy(await outOf(db, ids), (r) => r.lotId);
    const l = pickOf(
      ids.filter((id) => unitsOut(out.get(id) ?? []) > 0),
      a,
    );
    return l === undefined
      ? null
      : async (v) => {
          const lotId = at(v.lots, l);
          const [last] = await outAt(v.db, lotId);
          const from = { orderId: last?.orderId ?? null, dayId: last?.dayId ?? null };
          return comeBack(v.db, { lotId, units: 1, fate: b % 2 ? "kept" : "thrown", from, note: "" }, doing);
        };
  },

  market: async (db, a, b) => {
    const l = pickOf(await finishedOn(db), a);
    if (!l) return null;
    const sold = part(l.onHand, b);
    const costs = { stallFee: euro(10), travel: euro(2), byCard: euro(0), cardFeeBp: 175, minutes: 60 };
    const lines = (lotId: number) => [{ lotId, taken: l.onHand, sold, given: 0, damaged: 0, price: euro(5) }];
    return (v) => closeMarketDay(v.db, { name: "Fair", day: DAY, note: "", ...costs, lines: lines(at(v.lots, l.id)) }, doing);
  },

  order: async (db, a, b) => {
    const l = pickOf(await finishedOn(db), a);
    if (!l) return null;
    // Sooner than any before, so that none that couldn't be packed has first call on what there is.
    const due = addDays(DAY, -++orders);
    const order = { customer: "Choir", due, extra: euro(1), discountBp: 0, wrapMinutes: 5, note: "", wrapping: [] };
    return async (v) => {
      const items = [{ productId: v.ids.product, units: part(l.onHand, b), price: euro(6) }];
      const saved = await saveGiftOrder(v.db, { ...order, items }, doing);
      return packGiftOrder(v.db, { id: idIn(saved), only: [{ line: 0, lotId: at(v.lots, l.id) }] }, doing);
    };
  },
} satisfies Record<string, Throw>;
