/** What comes to the shelf, goes from it, and is counted, in contests. */
import { mg } from "#core/measure/exact";
import { reverseAct } from "#db/acts/reverse";
import { meltDown } from "#db/bench/finishing/meltDown";
import { takeOut } from "#db/cabinet/cabinet";
import { openingFinished } from "#db/listsIn/finished";
import { comeBack } from "#db/cabinet/comeBack";
import type { Db } from "#db/client";
import { lot } from "#db/schema";
import { correctReceipt } from "#db/shelf/receipts/correct";
import { correctCount, holdLot } from "#db/shelf/counting/count";
import { moveOut, openLot, sayDrips, sayDryness } from "#db/shelf/lots";
import { saveMaterial } from "#db/shelf/keepMaterial";
import { sayScentMost } from "#db/shelf/scentMost";
import { openingStock, sayCost } from "#db/shelf/counting/opening";
import { arrive, receive, receiveMany } from "#db/shelf/receipts/receive";
import { readReceipt } from "#db/shelf/receipts/receipts";
import { noteCount, postStocktake, walkShelf } from "#db/shelf/counting/stocktake";
import { desc, eq } from "drizzle-orm";
import { DAY } from "#test/db/jar";
import { atOnce, buying, euro, fresh, idIn, now, type Contestant, type World } from "../world.ts";

const KILO = 1_000_000;

/** A kilogram of what nothing is made of, just received or found on the shelf; its lot. */
export async function aSpareLot(db: Db, w: World): Promise<number> {
  await receive(db, buying(w.ids.spare, KILO, 9), now());
  return newestOf(db, w.ids.spare);
}
const newestOf = async (db: Db, materialId: number): Promise<number> => {
  const [row] = await db.select({ id: lot.id }).from(lot).where(eq(lot.materialId, materialId)).orderBy(desc(lot.id)).limit(1);
  return row!.id;
};

const opened = (db: Db, materialId: number) =>
  openingStock(
    db,
    {
      add: [],
      lines: [{ materialId, qty: mg(KILO), cost: euro(9), costKnown: "guessed", supplierLot: "", bought: null, bestBefore: null }],
    },
    now(),
  );

export const STOCK = {
  receive: atOnce((db, w) => receive(db, buying(w.ids.oil, KILO, 9), now())),
  receiveFile: atOnce((db, w) =>
    receiveMany(
      db,
      {
        add: [{ name: fresh("Oil"), kind: "oil" }],
        receipts: [buying(-1, KILO, 8), buying(w.ids.oil, KILO, 9), buying(w.ids.herb, KILO, 7)],
      },
      now(),
    ),
  ),
  opening: atOnce((db, w) => opened(db, w.ids.oil)),
  sayCost: {
    ready: async (db, w) => {
      await opened(db, w.ids.oil);
      const lotId = await newestOf(db, w.ids.oil);
      return (at) => sayCost(at, { lotId, cost: euro(11), costKnown: "paid" }, now());
    },
  },
  arrive: {
    ready: async (db, w) => {
      const bought = buying(w.ids.oil, KILO, 9);
      const id = idIn(await receive(db, { ...bought, lines: bought.lines.map((l) => ({ ...l, arrived: 0 })) }, now()));
      const { lines } = (await readReceipt(db, id))!;
      return (at) => arrive(at, { lineId: lines[0]!.line.id, packs: 1, supplierLot: "", bestBefore: null }, now());
    },
  },
  correct: {
    ready: async (db, w) => {
      const id = idIn(await receive(db, buying(w.ids.oil, KILO, 9), now()));
      const { lines } = (await readReceipt(db, id))!;
      const line = { ...buying(w.ids.oil, KILO, 12).lines[0]!, id: lines[0]!.line.id };
      return (at) => correctReceipt(at, { ...buying(w.ids.oil, KILO, 12), id, note: "", lines: [line] }, now());
    },
  },
  count: {
    maybe: true,
    ready: async (db, w) => {
      const [at] = await db.select({ onHand: lot.onHand }).from(lot).where(eq(lot.id, w.lots.oil[0]));
      const expected = at!.onHand;
      return (on) => correctCount(on, { lotId: w.lots.oil[0], counted: expected - 1000, expected, reason: "counted" }, now());
    },
  },
  stocktake: {
    maybe: true,
    ready: async (db) => {
      for (const r of (await walkShelf(db)).slice(0, 4)) await noteCount(db, r.id, r.onHand, "");
      return (at) => postStocktake(at, {}, now());
    },
  },
  moveOut: atOnce((db, w) => moveOut(db, { lotId: w.lots.oil[0], amount: 1000, reason: "wasted", note: "" }, now())),
  open: {
    ready: async (db, w) => {
      const lotId = await aSpareLot(db, w);
      return (at) => openLot(at, { lotId }, now());
    },
  },
  dryness: atOnce((db, w) => sayDryness(db, { lotId: w.lots.herb[0], dryness: "dry" }, now())),
  drips: atOnce((db, w) => sayDrips(db, { lotId: w.lots.oil[0], perMl: 28 }, now())),
  hold: {
    ready: async (db, w) => {
      const lotId = await aSpareLot(db, w);
      return (at) => holdLot(at, { lotId, reason: "smells odd" }, now());
    },
  },
  scentMost: {
    ready: async (db) => {
      const scent = idIn(await saveMaterial(db, { name: fresh("Scent"), kind: "essentialOil", densities: {} }, now()));
      await receive(db, buying(scent, KILO, 9), now());
      const lotId = await newestOf(db, scent);
      return (at) => sayScentMost(at, { lotId, ppm: 7000 }, now());
    },
  },
  comeBack: {
    ready: async (db, w) => {
      await takeOut(db, { lotId: w.lots.made[1], units: 1, reason: "gift", note: "" }, now());
      return (at) => comeBack(at, { lotId: w.lots.made[1], units: 1, fate: "kept", from: { orderId: null, dayId: null }, note: "" }, now());
    },
    // Of several windows one has it back.
    maybe: true,
  },
  meltDown: atOnce((db, w) => meltDown(db, { lotId: w.lots.made[0], units: 1, weight: mg(9000), note: "too soft" }, now())),
  openingFinished: atOnce((db, w) =>
    openingFinished(
      db,
      {
        lots: [DAY, null].map((made) => ({
          ...{
            productId: w.ids.product,
            units: 3,
            cost: made === null ? null : euro(2),
            lotOnIt: fresh("H"),
            made,
            bestBefore: null,
            worked: false,
          },
        })),
      },
      now(),
    ),
  ),
  takeOut: atOnce((db, w) => takeOut(db, { lotId: w.lots.made[0], units: 1, reason: "own", note: "" }, now())),
  undo: {
    ready: async (db, w) => {
      const { actId } = await takeOut(db, { lotId: w.lots.made[1], units: 1, reason: "own", note: "" }, now());
      return (at) => reverseAct(at, actId, now());
    },
  },
} as const satisfies Record<string, Contestant>;
