/**
 * A year in a workshop by dice, for the second reckoning: each does one thing of a maker's, and writes down what was done as a notebook would.
 */
import { mg, micros } from "#core/measure/exact";
import { accountAmong } from "#core/lot/reach";
import { eq, isNotNull } from "drizzle-orm";
import { expect } from "vitest";
import Fraction from "fraction.js";
import { reverseAct } from "#db/acts/reverse";
import { ladleOut } from "#db/bench/parts/ladle";
import { splitPart } from "#db/bench/parts/parts";
import { pour } from "#db/bench/finishing/pour";
import { readBatch } from "#db/bench/read";
import { setOut } from "#db/bench/planning/setOut";
import { comeBack } from "#db/cabinet/comeBack";
import { takeOut } from "#db/cabinet/cabinet";
import { saveGiftOrder } from "#db/gifts/gifts";
import { packGiftOrder } from "#db/gifts/pack";
import { fillJar } from "#db/jars/fill";
import { readJar } from "#db/jars/read";
import { strainJar } from "#db/jars/strain";
import { beginRecall, closeRecall } from "#db/lots/recall";
import { finishedOf, reachOf } from "#db/lots/reach";
import { outAt } from "#db/ledger/out";
import { closeMarketDay } from "#db/markets/markets";
import { lot, purchaseLine } from "#db/schema";
import { correctReceipt } from "#db/shelf/receipts/correct";
import { correctCount } from "#db/shelf/counting/count";
import { readReceipt } from "#db/shelf/receipts/receipts";
import { receive } from "#db/shelf/receipts/receive";
import { PLACES, type Fact } from "./reckoning.ts";
import { idIn, jarOf, type Workshop } from "./workshop.ts";

export const cents = (n: number) => micros(n * 10_000);

export interface Year extends Workshop {
  herb: number;
  day: string;
}
/** A fact, and the act it was done by. */
export interface Written {
  fact: Fact;
  actId: number;
}

const lotsNow = (y: Year, materialId: number | null) =>
  y.db
    .select()
    .from(lot)
    .where(materialId === null ? isNotNull(lot.productId) : eq(lot.materialId, materialId))
    .orderBy(lot.id);
const pick = async (y: Year, materialId: number | null, n: number, least = 1) => {
  const there = (await lotsNow(y, materialId)).filter((l) => l.onHand >= least);
  return there[n % Math.max(1, there.length)];
};
const newest = async (y: Year, most: number) => (await y.db.select().from(lot).orderBy(lot.id)).slice(-most).map((l) => l.id);
const some = (n: number, thousandths: number): number => Math.max(1, Math.floor((n * thousandths) / 1000));

/** Does one thing in the workshop, and writes down what was done; nothing where there is nothing to do it to. */
export const DOES = {
  buy: async (y: Year, a: number, b: number): Promise<Written> => {
    const wants = [
      { materialId: y.ids.oil, qty: 1000 * (200 + b), cents: 300 + 3 * b },
      { materialId: a % 2 ? y.ids.wax : y.herb, qty: 1000 * (100 + (a % 300)), cents: 200 + a },
      { materialId: y.ids.tin, qty: 6 + (b % 20), cents: 150 + b },
    ].slice(0, 1 + (a % 3));
    const [postage, tax, discount] = [a % 700, b % 90, b % 40] as const;
    const lines = wants.map((w) => ({
      materialId: w.materialId,
      qty: w.qty,
      price: cents(w.cents),
      supplierLot: "",
      packs: 1,
      packSize: "1",
      bestBefore: null,
    }));
    const d = await receive(
      y.db,
      { supplier: "Mill", day: y.day, postage: cents(postage), tax: cents(tax), discount: cents(discount), lines },
      { day: y.day },
    );
    const got = (await readReceipt(y.db, idIn(d)))!.lines.map(({ line }) => line.lotId!);
    return {
      fact: { do: "buy", lines: wants.map((w, i) => ({ lot: got[i]!, qty: w.qty, cents: w.cents })), postage, tax, discount },
      actId: d.actId,
    };
  },

  steep: async (y: Year, a: number, b: number): Promise<Written | null> => {
    const [herb, oil] = [await pick(y, y.herb, a, 1000), await pick(y, y.ids.oil, b, 1000)];
    if (!herb || !oil) return null;
    const parts = [
      { role: "herb" as const, materialId: y.herb, lotId: herb.id, cut: "cut" as const, qty: mg(some(herb.onHand, 300)) },
      { role: "carrier" as const, materialId: y.ids.oil, lotId: oil.id, cut: null, qty: mg(some(oil.onHand, b)) },
    ];
    const d = await fillJar(y.db, jarOf(parts, { name: `Jar ${a % 4}`, method: "cooker", why: "a trial", day: y.day }), { day: y.day });
    return {
      fact: { do: "steep", jar: idIn(d), month: y.day.slice(0, 7), parts: parts.map((p) => ({ lot: p.lotId, qty: p.qty })) },
      actId: d.actId,
    };
  },

  strain: async (y: Year, a: number, b: number, written: readonly Written[]): Promise<Written | null> => {
    const strained = written.flatMap(({ fact }) => (fact.do === "strain" ? [fact.jar] : []));
    const open = written.flatMap(({ fact }) => (fact.do === "steep" && !strained.includes(fact.jar) ? [fact.jar] : []));
    const id = open[a % Math.max(1, open.length)];
    if (id === undefined) return null;
    const back = Math.max(4, some((await readJar(y.db, id))!.oil, 400 + (b % 500)));
    const bottles = [some(back, 250), back - some(back, 250)].map(mg);
    const d = await strainJar(
      y.db,
      { jarId: id, back: mg(back), secondBack: null, sediment: mg(0), herbOut: null, pressed: false, bottles },
      { day: y.day },
    );
    const got = await newest(y, 2);
    return { fact: { do: "strain", jar: id, bottles: got.map((l, i) => ({ lot: l, qty: bottles[i]! })) }, actId: d.actId };
  },

  pour: async (y: Year, a: number, b: number): Promise<Written | null> => {
    const units = 2 + (a % 5);
    const [oil, wax] = [await pick(y, y.ids.oil, a, units * 43_000), await pick(y, y.ids.wax, b, units * 13_000)];
    if (!oil || !wax) return null;
    const sizes = [{ productId: y.ids.product, units }];
    const batchId = idIn(await setOut(y.db, { recipeId: y.ids.recipe, batchMg: mg(units * 50_000), sizes }, { day: y.day }));
    const parted = a % 3 === 0;
    if (parted) {
      const [size] = (await readBatch(y.db, batchId))!.sizes;
      const additions = [{ material: "Wax", measure: { ppm: 30_000 } }];
      await splitPart(y.db, { batchId, sizeId: size!.id, name: "firm", units: 1 + (b % (units - 1)), additions }, y.day);
    }
    const sheet = (await readBatch(y.db, batchId))!;
    const part = sheet.sizes.find((s) => s.partOf !== null);
    const ladled = part && b % 3 > 0 ? part.planned * 50_000 - 9 * b : null;
    if (ladled !== null) await ladleOut(y.db, { batchId, sizeId: part!.id, weighed: mg(ladled), was: null });
    const weighed = [units * 40_000 + 3 * b, units * 10_000 + a, 900 + b];
    const takes = [oil, wax, wax].slice(0, parted ? 3 : 2).map((l, position) => {
      const { materialId, planned } = sheet.takes.find((t) => t.position === position)!;
      return { position, materialId, planned, lotId: l.id, weighed: mg(weighed[position]!) };
    });
    const leftover = b % 4 === 0 ? 700 + a : 0;
    // Tins: soonest best before first, and of those without a day the oldest.
    let open = (await lotsNow(y, y.ids.tin)).filter((l) => l.onHand > 0).sort((x, z) => x.arrived.localeCompare(z.arrived) || x.id - z.id);
    const packs = sheet.sizes.flatMap((s, into) => {
      const out: { lot: number; qty: number; into: number }[] = [];
      for (let left = s.planned; left > 0 && open.length > 0;) {
        const [first] = open as [(typeof open)[number]];
        const qty = Math.min(left, first.onHand);
        out.push({ lot: first.id, qty, into });
        left -= qty;
        open = open.map((l) => (l === first ? { ...l, onHand: l.onHand - qty } : l)).filter((l) => l.onHand > 0);
      }
      return out;
    });
    const d = await pour(
      y.db,
      {
        ...{ batchId, takes, leftover: mg(leftover), keepsLeftover: leftover > 0, minutes: 40, note: "as it went" },
        sizes: sheet.sizes.map((s) => ({ productId: s.productId, units: s.planned })),
      },
      { day: y.day },
    );
    const made = (await readBatch(y.db, batchId))!;
    const base = leftover > 0 ? (await newest(y, 1))[0]! : null;
    const at = sheet.sizes.indexOf(part!);
    return {
      fact: {
        ...{ do: "pour", batch: batchId, month: y.day.slice(0, 7), leftover, base, packs },
        takes: takes.map((t) => ({ lot: t.lotId, qty: t.weighed, into: t.position === 2 ? at : null })),
        sizes: made.sizes.map((s) => ({ lot: s.lot!.id, units: s.units!, fill: 50_000, ladled: s.partOf === null ? null : ladled })),
      },
      actId: d.actId,
    };
  },

  market: async (y: Year, a: number, b: number): Promise<Written | null> => {
    const there = (await lotsNow(y, null)).filter((l) => l.onHand > 0).slice(-3);
    if (there.length === 0) return null;
    const lines = there.map((l, i) => {
      const sold = Math.min(l.onHand, (a + i) % 4);
      const given = Math.min(l.onHand - sold, b % 2);
      const damaged = Math.min(l.onHand - sold - given, a % 2);
      return { lotId: l.id, taken: l.onHand, sold, given, damaged, price: cents(900 + b) };
    });
    const takings = lines.reduce((n, l) => n + l.sold, 0) * (900 + b);
    const byCard = Math.floor(takings / 2);
    const costs = { stallFee: cents(2000 + a), travel: cents(b), byCard: cents(byCard), cardFeeBp: 175, minutes: 300 };
    const d = await closeMarketDay(y.db, { name: "Fair", day: y.day, note: "", ...costs, lines }, { day: y.day });
    return {
      fact: {
        ...{ do: "market", day: idIn(d), costs: 2000 + a + b, card: new Fraction(byCard).mul(175).div(10_000) },
        lines: lines.map((l) => ({ lot: l.lotId, sold: l.sold, given: l.given, damaged: l.damaged, cents: 900 + b })),
      },
      actId: d.actId,
    };
  },

  order: async (y: Year, a: number, b: number): Promise<Written | null> => {
    const there = (await lotsNow(y, null)).filter((l) => l.onHand > 0);
    const chosen = [...new Set([there[a % Math.max(1, there.length)], there[b % Math.max(1, there.length)]])].flatMap((l) => l ?? []);
    if (chosen.length === 0) return null;
    const items = chosen.map((l) => ({ productId: l.productId!, units: some(l.onHand, b), price: cents(1100) }));
    const order = { customer: `Choir ${a % 5}`, due: y.day, extra: cents(0), discountBp: 0, wrapMinutes: 5, note: "", wrapping: [], items };
    const saved = await saveGiftOrder(y.db, order, { day: y.day });
    const only = chosen.map((l, line) => ({ line, lotId: l.id }));
    const d = await packGiftOrder(y.db, { id: idIn(saved), only }, { day: y.day }).catch(async (e: unknown) => {
      // What couldn't be packed would be promised for ever.
      await reverseAct(y.db, saved.actId, { day: y.day });
      throw e;
    });
    return {
      fact: { do: "order", order: idIn(saved), lines: chosen.map((l, i) => ({ lot: l.id, qty: items[i]!.units })) },
      actId: d.actId,
    };
  },

  handOut: async (y: Year, a: number): Promise<Written | null> => {
    const l = await pick(y, null, a);
    if (!l) return null;
    const { actId } = await takeOut(y.db, { lotId: l.id, units: 1, reason: "tester", note: "" }, { day: y.day });
    return { fact: { do: "handOut", lot: l.id, qty: 1 }, actId };
  },

  comeBack: async (y: Year, a: number, b: number): Promise<Written | null> => {
    const lots = await lotsNow(y, null);
    const l = lots[a % Math.max(1, lots.length)];
    const out = l ? await outAt(y.db, l.id) : [];
    const from = out[b % Math.max(1, out.length)];
    if (!l || !from) return null;
    const to = from.orderId !== null ? "named" : from.dayId !== null ? "stall" : "handed";
    const back = {
      lotId: l.id,
      units: 1,
      fate: b % 2 ? "kept" : "thrown",
      from: { orderId: from.orderId, dayId: from.dayId },
      note: "",
    } as const;
    const { actId } = await comeBack(y.db, back, { day: y.day });
    return { fact: { do: "comeBack", lot: l.id, qty: 1, to, thrown: b % 2 === 0 }, actId };
  },

  count: async (y: Year, a: number, b: number): Promise<Written | null> => {
    const l = await pick(y, [y.ids.oil, y.ids.wax, y.herb, null][a % 4]!, b);
    if (!l) return null;
    const less = l.productId === null ? some(l.onHand, b % 90) : 1;
    const counted = b % 3 === 0 && l.productId === null ? l.onHand + less : l.onHand - less;
    const { actId } = await correctCount(y.db, { lotId: l.id, expected: l.onHand, counted, reason: "counted" }, { day: y.day });
    return { fact: { do: "count", lot: l.id, counted }, actId };
  },

  /** Two recalls over one another, both false alarms: each holds what it reaches for as long as it is open, and no longer. */
  recall: async (y: Year, a: number, b: number): Promise<"done"> => {
    const lots = await y.db.select().from(lot).orderBy(lot.id);
    const held = async () => (await y.db.select().from(lot).where(isNotNull(lot.holdReason)).orderBy(lot.id)).map((l) => l.id);
    const open = [lots[a % lots.length]!, lots[b % lots.length]!].map((l, i) => ({
      lotIds: [l.id],
      reason: `Why ${i}`,
      toDo: "Stop.",
      rehearsal: false,
    }));
    const reached: number[][] = [];
    const begun: number[] = [];
    for (const recall of open) {
      begun.push(idIn(await beginRecall(y.db, recall, { day: y.day })));
      const reach = await reachOf(y.db, recall.lotIds);
      reached.push(reach.lots.map((l) => l.id));
      const account = accountAmong(reach, finishedOf(reach));
      expect(account.came).toBe(account.here + account.on + PLACES.reduce((n, p) => n + account[p], 0));
    }
    for (let still = 2; still >= 0; still--) {
      const all = [...new Set(reached.slice(2 - still).flat())].sort((x, z) => x - z);
      expect(await held()).toEqual(all);
      if (still > 0) await closeRecall(y.db, { recallId: begun[2 - still]!, free: true }, { day: y.day });
    }
    return "done";
  },

  /** A receipt turns out to have cost otherwise. */
  correct: async (y: Year, a: number, b: number, written: readonly Written[]): Promise<"done" | null> => {
    const bought = written.filter(({ fact }) => fact.do === "buy");
    const one = bought[a % Math.max(1, bought.length)]?.fact;
    if (one?.do !== "buy") return null;
    const [of] = await y.db.select().from(purchaseLine).where(eq(purchaseLine.lotId, one.lines[0]!.lot));
    const id = of!.purchaseId;
    const found = (await readReceipt(y.db, id))!;
    const now = one.lines.map((_, i) => 100 + ((a * 7 + b * 3 + i * 11) % 4000));
    const lines = found.lines.map(({ line, lot: came }) => ({
      ...line,
      price: cents(now[one.lines.findIndex((l) => l.lot === line.lotId)]!),
      supplierLot: came!.supplierLot,
      bestBefore: came!.printed,
    }));
    await correctReceipt(y.db, { ...found.receipt, postage: cents(b % 800), lines }, { day: y.day });
    one.lines.forEach((l, i) => (l.cents = now[i]!));
    one.postage = b % 800;
    return "done";
  },

  /** Something done long since is taken back. */
  takeBack: async (y: Year, a: number, b: number, written: Written[]): Promise<"done" | null> => {
    const at = written.length - 1 - ((a + b) % 40);
    const one = written[at];
    if (!one || at < 4) return null;
    await reverseAct(y.db, one.actId, { day: y.day });
    written.splice(at, 1);
    return "done";
  },
};
