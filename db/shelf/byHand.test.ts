/** Acts on the shelf by hand, and buying. */
import { mg, micros } from "#core/measure/exact";
import type { Refused } from "#core/refused";
import { reorderPoint, toBuy, usedPerDay } from "#core/stock/reorder";
import { STARTING_SETTINGS } from "#core/settings/settings";
import { addDays } from "#core/when";
import { eq, sql } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import { whatWasDone } from "../acts/book.ts";
import { reverseAct } from "../acts/reverse.ts";
import { lot } from "../schema.ts";
import { workItems } from "../today/today.ts";
import { euro, expectLedgerTrue } from "#test/db/fresh";
import { buy, DAY, db, eachTestHasAWorkshop, idIn, ids, lotsOf, make, onHand, refused, threePacks } from "#test/db/workshop";
import { monthlyUse, noteOffer, offersOf, priceHistory, whatToBuy } from "./buying.ts";
import { correctCount } from "./counting/count.ts";
import { finishHarvest, listHarvests, pick, weighHarvest } from "./harvests.ts";
import { moveOut, openLot } from "./lots.ts";
import { addFromLibrary, deleteMaterial, retireMaterial, saveMaterial } from "./keepMaterial.ts";
import { materialMovements, readMaterial } from "./materials.ts";
import { onShelf, shelfBoards } from "./overview.ts";
import { receive } from "./receipts/receive.ts";
import { noteCount, postStocktake, walkShelf } from "./counting/stocktake.ts";

eachTestHasAWorkshop();

const doing = { day: DAY };
const newest = async (id: number) => (await lotsOf(id)).reduce((a, b) => (b.id > a.id ? b : a));

describe("acts on the shelf", () => {
  it("opening brings best-before forward and back again", async () => {
    await saveMaterial(db, { name: "Oil", kind: "oil", densities: {}, keepsOpened: 6, id: ids.oil }, doing);
    await buy(ids.oil, 1_000_000, 9, "2028-01-01");
    const l = await newest(ids.oil);
    const done = await openLot(db, { lotId: l.id }, doing);
    expect(await newest(ids.oil)).toMatchObject({ opened: DAY, bestBefore: "2026-11-04" });
    expect((await refused(openLot(db, { lotId: l.id }, doing)))[0]!.say).toContain("open already");
    await reverseAct(db, done.actId, doing);
    expect(await newest(ids.oil)).toMatchObject({ opened: null, bestBefore: "2028-01-01" });
  });
  it("taking out says why, moves its share of the value, and never more than is there", async () => {
    const l = (await lotsOf(ids.oil))[0]!;
    await moveOut(db, { lotId: l.id, amount: 900_000, reason: "wasted", note: "rancid" }, doing);
    expect((await lotsOf(ids.oil))[0]).toMatchObject({ onHand: 900_000, value: l.value / 2 });
    expect((await materialMovements(db, ids.oil))[0]).toMatchObject({ reason: "wasted", note: "rancid" });
    expect(await refused(moveOut(db, { lotId: l.id, amount: 900_001, reason: "given", note: "" }, doing))).toMatchObject([
      { field: "amount" },
    ]);
  });
  it("a refused take-back names only what came after it", async () => {
    const l = (await lotsOf(ids.oil))[0]!;
    await moveOut(db, { lotId: l.id, amount: 100_000, reason: "wasted", note: "before" }, doing);
    const found = await correctCount(db, { lotId: l.id, expected: 1_700_000, counted: 1_900_000, reason: "found" }, doing);
    await moveOut(db, { lotId: l.id, amount: 1_850_000, reason: "given", note: "after" }, doing);
    const refusal = await reverseAct(db, found.actId, doing).catch((e: unknown) => e as Refused);
    expect((refusal as Refused).problems[0]!.see!.map((s) => s.name)).toEqual([expect.stringContaining("given to someone")]);
  });
  it("a stock-take posts every correction as one act, and takes them all back", async () => {
    const [oil, wax] = [(await lotsOf(ids.oil))[0]!, (await lotsOf(ids.wax))[0]!];
    expect((await refused(postStocktake(db, {}, doing)))[0]!.say).toContain("Nothing has been counted");
    await noteCount(db, oil.id, 1_750_000, "spilt");
    await noteCount(db, wax.id, 1, "");
    await noteCount(db, wax.id, wax.onHand + 5_000, "");
    const [tin] = await lotsOf(ids.tin);
    await noteCount(db, tin!.id, tin!.onHand, "");
    expect((await walkShelf(db)).filter((r) => r.counted !== null)).toHaveLength(3);
    expect(await onHand(ids.oil)).toBe(oil.onHand);
    const done = await postStocktake(db, {}, doing);
    expect([await onHand(ids.oil), await onHand(ids.wax)]).toEqual([1_750_000, wax.onHand + 5_000]);
    expect((await walkShelf(db)).every((r) => r.counted === null)).toBe(true);
    await reverseAct(db, done.actId, doing);
    expect([await onHand(ids.oil), await onHand(ids.wax)]).toEqual([oil.onHand, wax.onHand]);
    await expectLedgerTrue(db);
  });
  it("a lot that moved since it was counted holds the stock-take back by name, and nothing is posted", async () => {
    const [oil, wax] = [(await lotsOf(ids.oil))[0]!, (await lotsOf(ids.wax))[0]!];
    await noteCount(db, oil.id, 1, "");
    await noteCount(db, wax.id, 1, "");
    await correctCount(db, { lotId: wax.id, expected: wax.onHand, counted: wax.onHand - 1, reason: "x" }, doing);
    expect(await refused(postStocktake(db, {}, doing))).toMatchObject([{ field: `lot.${wax.id}` }]);
    expect(await onHand(ids.oil)).toBe(oil.onHand);
  });
  it("a harvest is picked, weighed as it dries, and becomes a lot with its year; one that doesn't snap isn't dry", async () => {
    const herb = idIn(await saveMaterial(db, { name: "Mint", kind: "herb", densities: {}, keepsSealed: 24 }, doing));
    const start = async () =>
      idIn(
        await pick(
          db,
          { materialId: herb, picked: DAY, place: "bed", fresh: mg(500_000), method: "air", celsius: null, minutes: 30, note: "" },
          doing,
        ),
      );
    const id = await start();
    expect((await workItems(db, DAY)).find((w) => w.kind === "drying")).toMatchObject({ id, name: "Mint", amount: 500_000 });
    await weighHarvest(db, { harvestId: id, day: addDays(DAY, 2), weight: mg(120_000), celsius: null, note: "" }, doing);
    expect(await refused(weighHarvest(db, { harvestId: id, day: DAY, weight: mg(500_001), celsius: null, note: "" }, doing))).toMatchObject(
      [{ field: "weight" }],
    );
    const dry = { harvestId: id, dry: mg(100_000), snaps: true, minutes: 60, valuedBy: "hours" as const, market: null };
    expect(await refused(finishHarvest(db, { ...dry, dry: mg(400_000) }, doing))).toMatchObject([{ field: "dry" }]);
    // It dries: what is heavier than before, or lighter than after, wants a word.
    const weigh = (n: number, weight: number, note = "") =>
      weighHarvest(db, { harvestId: id, day: addDays(DAY, n), weight: mg(weight), celsius: null, note }, doing);
    expect((await refused(weigh(3, 120_001)))[0]).toMatchObject({
      field: "weight",
      say: expect.stringContaining("more than the 120 g of Wednesday 6 May 2026") as string,
    });
    expect((await refused(weigh(1, 119_999)))[0]!.say).toContain("less than the 120 g");
    await reverseAct(db, (await weigh(3, 130_000, "Rained in")).actId, doing);
    await reverseAct(db, (await weigh(1, 120_000)).actId, doing);
    const heavy = { ...dry, dry: mg(120_001) };
    expect((await refused(finishHarvest(db, heavy, { day: addDays(DAY, 3) })))[0]).toMatchObject({ field: "dry" });
    const damp = await finishHarvest(db, { ...heavy, why: "Weighed with its bag" }, { day: addDays(DAY, 3) });
    expect((await materialMovements(db, herb))[0]).toMatchObject({ note: "Weighed with its bag" });
    await reverseAct(db, damp.actId, doing);
    const done = await finishHarvest(db, dry, { day: addDays(DAY, 3) });
    expect(await newest(herb)).toMatchObject({ onHand: 100_000, value: euro(16), dryness: "dry", grown: 2026, bestBefore: "2028-05-04" });
    await reverseAct(db, done.actId, doing);
    expect((await listHarvests(db, { drying: true })).map((h) => h.harvest.id)).toEqual([id]);
    await finishHarvest(db, { ...dry, snaps: false, valuedBy: "nothing" }, { day: addDays(DAY, 3) });
    expect(await newest(herb)).toMatchObject({ value: 0, dryness: "damp" });
    expect(
      (
        await refused(
          pick(
            db,
            { materialId: ids.oil, picked: DAY, place: "", fresh: mg(1), method: "air", celsius: null, minutes: 0, note: "" },
            doing,
          ),
        )
      )[0]!.field,
    ).toBe("material");
  });
  it("what is referred to can't be deleted, and says by what; put away, it is off the shelf and keeps its history", async () => {
    const [p] = await refused(deleteMaterial(db, { id: ids.oil }, doing));
    expect(p!.say).toMatch(/1 lot, 1 recipe line and 1 receipt line.*Put it away/);
    await retireMaterial(db, { id: ids.oil, retired: true }, doing);
    expect((await onShelf(db, DAY, {}, 99)).map((m) => m.name)).not.toContain("Oil");
    expect((await readMaterial(db, ids.oil))!.lots).toHaveLength(1);
    await retireMaterial(db, { id: ids.oil, retired: false }, doing);
    const loose = idIn(await saveMaterial(db, { name: "Unused", kind: "oil", densities: {} }, doing));
    await deleteMaterial(db, { id: loose }, doing);
    expect(await readMaterial(db, loose)).toBeNull();
  });
  it("the library goes on the shelf once", async () => {
    const take = async (...keys: string[]) => (await whatWasDone(db, (await addFromLibrary(db, { keys }, doing)).actId))!.summary;
    expect(await take("jojoba", "olive", "jojoba", "nonsense")).toContain("2 materials");
    expect(await take("jojoba", "castor")).toContain("1 material taken");
    const [j] = await onShelf(db, DAY, { find: "jojoba" }, 9);
    expect((await readMaterial(db, j!.id))!.material).toMatchObject({ libraryKey: "jojoba", keepsSealed: 48, densities: { liquid: 866 } });
  });
});

describe("buying", () => {
  it("use is learned from the ledger, net of what was taken back, and the same rule holds in SQL and in core", async () => {
    await saveMaterial(db, { name: "Wax", kind: "wax", densities: {}, reorderBy: "use", id: ids.wax }, doing);
    const later = addDays(DAY, 40);
    const months = (await monthlyUse(db, later, [ids.wax])).get(ids.wax)!;
    expect(months).toEqual([{ materialId: ids.wax, month: "2026-05-01", used: 50_000 }]);
    const again = await make(2);
    expect((await monthlyUse(db, later, [ids.wax])).get(ids.wax)![0]!.used).toBe(70_000);
    await reverseAct(db, again.actId, doing);
    expect((await monthlyUse(db, later, [ids.wax])).get(ids.wax)![0]!.used).toBe(50_000);
    // Low at every lead time for which the rule of core says so, and at no other.
    const stock = {
      onHand: await onHand(ids.wax),
      coming: 0,
      reorderBy: "use" as const,
      reorderAt: null,
      perDay: usedPerDay(months, later),
    };
    const seen: boolean[] = [];
    for (const leadDays of [1, 30, 170, 180, 181, 400]) {
      await db.execute(
        sql`insert into settings (id, data) values (1, ${JSON.stringify({ ...STARTING_SETTINGS, leadDays })}) on conflict (id) do update set data = excluded.data`,
      );
      const rule = { leadDays, coverDays: 60 };
      const low = stock.onHand < reorderPoint(stock, rule)!;
      seen.push(low);
      expect(
        (await workItems(db, later)).some((w) => w.kind === "low" && w.name === "Wax"),
        `lead ${leadDays}`,
      ).toBe(low);
      expect((await onShelf(db, later, { find: "Wax" }, 1))[0]!.low).toBe(low);
      expect((await shelfBoards(db, later)).find((b) => b.kind === "wax")!.low).toBe(low ? 1 : 0);
      expect((await whatToBuy(db, later, rule)).map((w) => w.amount)).toEqual(low ? [toBuy(stock, rule)] : []);
    }
    expect(new Set(seen).size).toBe(2);
  });
  it("packs still to come hold a reminder back", async () => {
    await saveMaterial(db, { name: "Wax", kind: "wax", densities: {}, reorderBy: "hand", reorderAt: 1_000_000, id: ids.wax }, doing);
    expect((await whatToBuy(db, DAY, STARTING_SETTINGS))[0]).toMatchObject({ name: "Wax", point: 1_000_000 });
    await receive(db, { supplier: "Press", day: DAY, postage: euro(0), lines: [threePacks({ materialId: ids.wax, arrived: 0 })] }, {});
    expect(await whatToBuy(db, DAY, STARTING_SETTINGS)).toEqual([]);
  });
  it("offers are those noted and the newest purchase of each pack; the history has every purchase", async () => {
    await noteOffer(
      db,
      { materialId: ids.oil, supplier: "Cheap", packSize: "5 kg", qty: 5_000_000, price: euro(30), postage: euro(4), seen: DAY },
      doing,
    );
    await buy(ids.oil, 1_000_000, 14);
    const offers = await offersOf(db, [ids.oil]);
    expect(offers.map((o) => [o.supplier, o.id === null, o.qty, o.price, o.postage])).toEqual([
      ["Cheap", false, 5_000_000, euro(30), euro(4)],
      ["Mill", true, 1_000_000, euro(14), euro(1.01)],
    ]);
    expect((await priceHistory(db, ids.oil)).map((r) => r.value)).toEqual([euro(21.01), euro(15.01)]);
    expect(await db.select({ n: lot.id }).from(lot).where(eq(lot.number, "none"))).toEqual([]);
    expect(micros(offers[1]!.price + offers[1]!.postage)).toBe(euro(15.01));
  });
});
