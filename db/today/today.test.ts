/** What Today says waits, case by case. */
import { addDays } from "#core/when";
import { describe, expect, it } from "vitest";
import { reverseAct } from "../acts/reverse.ts";
import { clearBatch } from "../bench/planning/clear.ts";
import { saveGiftOrder } from "../gifts/gifts.ts";
import { packGiftOrder } from "../gifts/pack.ts";
import { closeMarketDay, saveMarketDay } from "../markets/markets.ts";
import { choosePrices, chosenPrices } from "../prices/prices.ts";
import { saveMaterial } from "../shelf/keepMaterial.ts";
import { fairOf } from "#test/db/market";
import { euro } from "#test/db/fresh";
import { buy, DAY, db, eachTestHasAWorkshop, finished, idIn, ids, put } from "#test/db/workshop";
import { workItems } from "./today.ts";

eachTestHasAWorkshop();

/** Everything that waits on a day, as "station kind name". */
const waits = async (day = DAY): Promise<string[]> => (await workItems(db, day)).map((w) => `${w.station} ${w.kind} ${w.name}`);
const market = (day: string, lotId: number) => fairOf({ day, lines: [{ lotId, taken: 2, sold: 1, given: 0, damaged: 0, price: euro(8) }] });
const gift = (due: string) => ({
  customer: "Choir",
  due,
  extra: euro(0),
  discountBp: 0,
  wrapMinutes: 0,
  note: "",
  items: [{ productId: ids.product, units: 2, price: euro(9) }],
  wrapping: [],
});

describe("today", () => {
  it("starts with nothing but a product without a price, and that goes once it has one", async () => {
    expect(await waits()).toEqual(["prices unpriced Test balm, 50 g"]);
    await choosePrices(db, { productId: ids.product, own: null, prices: { market: euro(8) } }, { day: DAY });
    expect(await waits()).toEqual([]);
    await choosePrices(db, { productId: ids.product, own: euro(9), prices: { market: euro(8.5), gift: euro(10) } }, { day: DAY });
    expect((await chosenPrices(db)).get(ids.product)).toEqual({ market: 8_500_000, gift: 10_000_000 });
  });
  it("lots: soon within sixty days, expired the day after, neither when used up", async () => {
    await buy(ids.oil, 1000, 1, addDays(DAY, 60));
    expect(await waits(addDays(DAY, -1))).not.toContain("shelf soon Oil");
    expect(await waits()).toContain("shelf soon Oil");
    expect(await waits(addDays(DAY, 60))).toContain("shelf soon Oil");
    expect(await waits(addDays(DAY, 61))).toContain("shelf expired Oil");
  });
  it("finished lots as well, with their number and what is left", async () => {
    const [made] = await finished();
    const [w] = (await workItems(db, addDays(made!.bestBefore!, -3))).filter((x) => x.station === "cabinet");
    expect(w).toEqual({
      station: "cabinet",
      kind: "soon",
      id: made!.id,
      name: "Test balm, 50 g",
      number: made!.number,
      day: made!.bestBefore,
      amount: 5,
      measured: "count",
      total: 1,
    });
  });
  it("low: below what was asked to be reminded of, none at all included", async () => {
    await saveMaterial(db, { name: "Tin", kind: "container", reorderBy: "hand", reorderAt: 35, id: ids.tin }, { day: DAY });
    expect(await waits()).not.toContain("shelf low Tin");
    await saveMaterial(db, { name: "Tin", kind: "container", reorderBy: "hand", reorderAt: 36, id: ids.tin }, { day: DAY });
    expect(await waits()).toContain("shelf low Tin");
    await saveMaterial(db, { name: "Lid", kind: "closure", reorderBy: "hand", reorderAt: 1 }, { day: DAY });
    const low = (await workItems(db, DAY)).filter((w) => w.kind === "low");
    expect(low.map((w) => [w.name, w.amount, w.measured])).toEqual([
      ["Lid", 0, "count"],
      ["Tin", 35, "count"],
    ]);
  });
  it("the bench: while a batch is set out, not once it is cleared, again when that is taken back", async () => {
    const id = idIn(await put(1));
    expect(await waits()).toContain("bench open Test balm");
    const cleared = await clearBatch(db, { batchId: id }, { day: DAY });
    expect(await waits()).not.toContain("bench open Test balm");
    await reverseAct(db, cleared.actId, { day: DAY });
    expect(await waits()).toContain("bench open Test balm");
  });
  it("markets: coming up for three weeks, to close from the day on, gone when closed", async () => {
    const [made] = await finished();
    const day = addDays(DAY, 21);
    const id = idIn(await saveMarketDay(db, market(day, made!.id), { day: DAY }));
    expect(await waits(addDays(DAY, -1))).not.toContain("markets comingUp Fair");
    expect(await waits()).toContain("markets comingUp Fair");
    expect(await waits(day)).toContain("markets toClose Fair");
    expect(await waits(addDays(day, 90))).toContain("markets toClose Fair");
    await closeMarketDay(db, { ...market(day, made!.id), id: id }, { day });
    expect((await waits(day)).filter((w) => w.startsWith("markets"))).toEqual([]);
  });
  it("gifts: from three weeks ahead until packed, late ones too", async () => {
    const id = idIn(await saveGiftOrder(db, gift(addDays(DAY, 21)), { day: DAY }));
    expect(await waits(addDays(DAY, -1))).not.toContain("gifts toPack Choir");
    expect(await waits()).toContain("gifts toPack Choir");
    expect(await waits(addDays(DAY, 40))).toContain("gifts toPack Choir");
    const packed = await packGiftOrder(db, { id, only: [] }, { day: DAY });
    expect(await waits()).not.toContain("gifts toPack Choir");
    await reverseAct(db, packed.actId, { day: DAY });
    expect(await waits()).toContain("gifts toPack Choir");
  });
  it("says the soonest first", async () => {
    const [made] = await finished();
    await saveGiftOrder(db, gift(addDays(DAY, 5)), { day: DAY });
    await saveMarketDay(db, market(addDays(DAY, 3), made!.id), { day: DAY });
    await saveGiftOrder(db, { ...gift(addDays(DAY, 1)), customer: "School" }, { day: DAY });
    const names = (await workItems(db, DAY)).filter((w) => w.day !== null).map((w) => w.name);
    expect(names).toEqual(["School", "Fair", "Choir"]);
  });
});
