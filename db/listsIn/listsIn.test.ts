/** Lists that came in as one act: refused whole, taken back whole, or not at all once something rests on them. */
import { addDays } from "#core/when";
import { mg } from "#core/measure/exact";
import { eq, inArray } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import { openingFinished } from "./finished.ts";
import { takeOut } from "../cabinet/cabinet.ts";
import { cabinetOutlook } from "../cabinet/outlook.ts";
import { salesIn } from "../accounts/period.ts";
import { lotsOfProducts, replacementCosts } from "../ledger/lots.ts";
import { addOrders } from "./orders.ts";
import { listGiftOrders, saveGiftOrder } from "../gifts/gifts.ts";
import { packedLots, packGiftOrder } from "../gifts/pack.ts";
import { addPastDays } from "./pastDays.ts";
import { closeMarketDay, lastDayAt, listMarketDays, marketSums } from "../markets/markets.ts";
import { sayCost } from "../shelf/counting/opening.ts";
import { choosePrices, choosePricesOfList, chosenPrices } from "../prices/prices.ts";
import { deleteProduct } from "../recipe/keep.ts";
import { readRecipes } from "../recipe/read.ts";
import { addMaterials } from "./materials.ts";
import { addRecipes } from "./recipes.ts";
import { saveRecipe } from "../recipe/save.ts";
import { giftOrder, lot, marketDay, material, movement, pastSale, price, recipe } from "../schema.ts";
import { euro, expectLedgerTrue } from "#test/db/fresh";
import { saveMaterial } from "../shelf/keepMaterial.ts";
import { balm, buy, DAY, db, eachTestHasAWorkshop, finished, idIn, ids, make, refused, size, token } from "#test/db/workshop";
import { reverseAct } from "../acts/reverse.ts";

eachTestHasAWorkshop();

const doing = () => ({ day: DAY, token: token() });
const back = (actId: number) => reverseAct(db, actId, doing());
const said = async (doing: Promise<unknown>): Promise<string> => (await refused(doing))[0]!.say;

describe("orders", () => {
  const order = (customer: string, handedOver: string | null, productId = ids.product) => ({
    ...{ customer, due: DAY, note: "", handedOver },
    items: [{ productId, units: 2, price: euro(9) }],
  });
  it("go in whole or not at all: no product that has gone, no day that hasn't come", async () => {
    expect(await said(addOrders(db, { orders: [order("A", null), order("B", null, 999)] }, doing()))).toContain("isn't here any more");
    expect(await said(addOrders(db, { orders: [order("A", null), order("B", addDays(DAY, 1))] }, doing()))).toContain("handed over");
    expect(await said(addOrders(db, { orders: [] }, doing()))).toContain("at least one");
    expect(await db.$count(giftOrder)).toBe(0);
  });
  it("are taken back until one of them is saved or packed; one that was ever packed stays for good", async () => {
    const { actId } = await addOrders(db, { orders: [order("A", null), order("B", DAY)] }, doing());
    const [open] = (await listGiftOrders(db)).filter((o) => o.packedActId === null);
    expect((await listGiftOrders(db)).map((o) => [o.customer, o.handedOver, o.packedActId === actId])).toEqual([
      ["A", null, false],
      ["B", DAY, true],
    ]);
    // What was handed over before the books is in no lot.
    expect(
      await db
        .select()
        .from(movement)
        .where(eq(movement.giftOrderId, open!.id + 1)),
    ).toEqual([]);
    const { items, wrapping, id, customer, due, extra, discountBp, wrapMinutes } = open!;
    const head = { id, customer, due, extra, discountBp, wrapMinutes, wrapping };
    const goods = items.map(({ productId, units, price: of }) => ({ productId, units, price: of }));
    const saved = await saveGiftOrder(db, { ...head, items: goods, note: "ring first" }, doing());
    expect(await said(back(actId))).toContain("saved or packed since");
    await back(saved.actId);
    await make(2);
    const packed = await packGiftOrder(db, { id: open!.id, only: [] }, doing());
    expect(await said(back(actId))).toContain("saved or packed since");
    await back(packed.actId);
    expect(await said(back(actId))).toContain("name it for good");
    // Two alike on one list are two; of two windows with that list the second finds them there.
    const other = await addOrders(db, { orders: [order("C", DAY), order("C", DAY)] }, doing());
    expect(await said(addOrders(db, { orders: [order("D", null), order("c", DAY)] }, doing()))).toContain("in the books already");
    expect((await back(other.actId)).path).toBe("/gifts");
    expect((await listGiftOrders(db)).map((o) => o.customer)).toEqual(["A", "B"]);
  });
});

describe("earlier market days", () => {
  const fair = (market: string, day: string, productId: number | null = ids.product) => ({
    ...{ market, day, stallFee: euro(20), travel: euro(3), minutes: 240, note: "" },
    sales: [{ productId, name: "Balm", units: 3, takings: euro(27) }],
  });
  it("are each there once, and lie behind us", async () => {
    await addPastDays(db, { days: [fair("Fair", DAY)] }, doing());
    expect(await said(addPastDays(db, { days: [fair("Mill", DAY), fair("FAIR", DAY)] }, doing()))).toContain("in the books already");
    expect(await said(addPastDays(db, { days: [fair("Mill", DAY), fair("mill ", DAY)] }, doing()))).toContain("in the books already");
    expect(await said(addPastDays(db, { days: [fair("Mill", addDays(DAY, 1))] }, doing()))).toContain("hasn't been yet");
    expect(await said(addPastDays(db, { days: [] }, doing()))).toContain("at least one");
    expect(await db.$count(marketDay)).toBe(1);
    // The next day there begins like it.
    expect(await lastDayAt(db, "fair")).toBe((await listMarketDays(db))[0]!.id);
  });
  it("hold their products for as long as they are there, and go without a trace in the ledger", async () => {
    const spare = (
      await readRecipes(db, [idIn(await saveRecipe(db, balm({ name: "Other", code: "OT", sizes: [size(30), size(60)] }), doing()))])
    )[0]!.sizes[1]!.id;
    const { actId } = await addPastDays(db, { days: [fair("Fair", DAY, spare), fair("Mill", DAY, null)] }, doing());
    expect(await said(deleteProduct(db, { id: spare }, doing()))).toContain("1 sale of an earlier market day");
    expect((await back(actId)).path).toBe("/markets");
    expect([await db.$count(marketDay), await db.$count(pastSale)]).toEqual([0, 0]);
    await deleteProduct(db, { id: spare }, doing());
  });
});

describe("finished goods", () => {
  const tins = (units: number, productId = ids.product) => ({
    ...{ productId, units, cost: euro(2), lotOnIt: "H1", made: "2026-01-10" },
    ...{ bestBefore: "2027-01-10", worked: true },
  });
  it("are lots of their own, each with what it cost, and can be taken back until one is gone", async () => {
    expect(await said(openingFinished(db, { lots: [tins(4), tins(1, 999)] }, doing()))).toContain("isn't here any more");
    const { actId } = await openingFinished(db, { lots: [tins(4), tins(4)] }, doing());
    const lots = (await finished()).filter((l) => l.onHand === 4);
    expect(lots.map((l) => [l.onHand, l.value])).toEqual([
      [4, euro(8)],
      [4, euro(8)],
    ]);
    expect(new Set(lots.map((l) => l.number)).size).toBe(2);
    expect(await said(openingFinished(db, { lots: [tins(4)] }, doing()))).toContain("in the books already");
    const out = await takeOut(db, { lotId: lots[0]!.id, units: 1, reason: "own", note: "" }, doing());
    expect(await said(back(actId))).toContain("has been used or counted since");
    await back(out.actId);
    await back(actId);
    expect((await db.select().from(lot).where(eq(lot.supplierLot, "H1"))).map((l) => [l.onHand, l.value])).toEqual([
      [0, 0],
      [0, 0],
    ]);
    await expectLedgerTrue(db);
  });
});

it("goods from before the books sell at the pace they go since they came in, and say nothing of what a material costs", async () => {
  const size2 = (await readRecipes(db, [idIn(await saveRecipe(db, balm({ name: "Other", code: "OT", sizes: [size(30)] }), doing()))]))[0]!
    .sizes[0]!.id;
  const line = { productId: size2, units: 9, cost: euro(2), lotOnIt: "", bestBefore: null, worked: false };
  const older = await openingFinished(db, { lots: [{ ...line, made: addDays(DAY, -400) }] }, doing());
  const costs = await replacementCosts(db);
  expect([...costs.keys()].every((of) => typeof of === "number" && of > 0)).toBe(true);
  const [first] = await db.select().from(lot).where(eq(lot.productId, size2));
  await takeOut(db, { lotId: first!.id, units: 1, reason: "own", note: "" }, doing());
  const later = addDays(DAY, 40);
  await addOrders(
    db,
    { orders: [{ customer: "Ada", due: later, note: "", handedOver: null, items: [{ productId: size2, units: 4, price: euro(5) }] }] },
    { day: later },
  );
  const [order] = await listGiftOrders(db);
  await packGiftOrder(db, { id: order!.id, only: [] }, { day: later });
  expect((await cabinetOutlook(db, later)).paces.get(size2)).toBe(4 / 40);
  // One that was taken back never came: the other's day counts.
  const newer = await openingFinished(db, { lots: [{ ...line, lotOnIt: "B", made: addDays(DAY, -800) }] }, { day: addDays(DAY, -30) });
  await back(newer.actId);
  expect((await cabinetOutlook(db, later)).paces.get(size2)).toBe(4 / 40);
  expect(await said(back(older.actId))).toContain("has been used or counted since");
});

it("what goods of unknown cost were sold for is no profit until their cost is said; then everything they went into has it", async () => {
  const line = { productId: ids.product, units: 10, cost: null, lotOnIt: "H9", made: null, bestBefore: null, worked: false };
  const came = await openingFinished(db, { lots: [line] }, doing());
  const [tins] = await db.select().from(lot).where(eq(lot.supplierLot, "H9"));
  const stall = { name: "Mill", day: DAY, stallFee: euro(5), travel: euro(0), byCard: euro(0), cardFeeBp: 0, minutes: 60, note: "" };
  const sold = { lotId: tins!.id, taken: 6, sold: 3, given: 1, damaged: 0, price: euro(8) };
  await closeMarketDay(db, { ...stall, lines: [sold] }, { day: DAY });
  await addOrders(
    db,
    { orders: [{ customer: "Ada", due: DAY, note: "", handedOver: null, items: [{ productId: ids.product, units: 2, price: euro(7) }] }] },
    doing(),
  );
  const [order] = await listGiftOrders(db);
  await packGiftOrder(db, { id: order!.id, only: [{ line: 0, lotId: tins!.id }] }, { day: DAY });
  const period = { from: DAY, to: DAY };
  const known = async () => [
    (await marketSums(db)).map((d) => [d.costKnown, d.stockCost]),
    (await salesIn(db, period)).map((s) => s.costKnown),
    (await packedLots(db, order!.id)).map((l) => [l.costKnown, l.value]),
    (await lotsOfProducts(db, [ids.product])).filter((l) => l.id === tins!.id).map((l) => [l.onHand, l.value]),
  ];
  const unknown = [[[false, 0]], [false, false], [["none", 0]], [[4, 0]]];
  expect(await known()).toEqual(unknown);
  // One of them, not all ten: and what went at the stall and in the order has its share.
  const cost = await sayCost(db, { lotId: tins!.id, cost: euro(1.5), costKnown: "guessed", ofOne: true }, doing());
  expect(cost.path).toBe(`/lots/${tins!.number}`);
  expect(await known()).toEqual([[[true, euro(6)]], [true, true], [["guessed", euro(3)]], [[4, euro(6)]]]);
  await expectLedgerTrue(db);
  expect(await said(back(came.actId))).toContain("What one of these lots cost was said since");
  await back(cost.actId);
  expect(await known()).toEqual(unknown);
  await expectLedgerTrue(db);
});

describe("prices", () => {
  it("of a list taken back count no more; what was chosen since stays", async () => {
    const { actId } = await choosePricesOfList(
      db,
      { lines: [{ productId: ids.product, prices: { market: euro(9), online: euro(10) } }] },
      doing(),
    );
    expect((await chosenPrices(db)).get(ids.product)).toEqual({ market: euro(9), online: euro(10) });
    await choosePrices(db, { productId: ids.product, own: null, prices: { market: euro(11) } }, doing());
    await back(actId);
    expect((await chosenPrices(db)).get(ids.product)).toEqual({ market: euro(11) });
    const gone = { lines: [ids.product, 999].map((productId) => ({ productId, prices: { gift: euro(9) } })) };
    expect(await said(choosePricesOfList(db, gone, doing()))).toContain("isn't here any more");
    expect(await said(choosePricesOfList(db, { lines: [] }, doing()))).toContain("isn't here any more");
    expect((await db.select().from(price).where(eq(price.channel, "gift"))).length).toBe(0);
  });
});

describe("materials", () => {
  const of = (name: string, libraryKey: string | null = null) => ({
    ...{ name, libraryKey, kind: "oil" as const, brimMl: null, keepsSealed: 9, allergen: "nuts", note: "" },
  });
  it("have the library's figures with what the list says on top; and go until one is saved, bought or used", async () => {
    expect(await said(addMaterials(db, { materials: [of("Plum oil"), of("PLUM OIL")] }, doing()))).toContain(
      "already a material called PLUM OIL",
    );
    expect(await said(addMaterials(db, { materials: [] }, doing()))).toContain("at least one");
    expect(await db.$count(material, eq(material.name, "Plum oil"))).toBe(0);
    const { actId } = await addMaterials(db, { materials: [of("Plum oil"), of("Jojoba oil", "jojoba")] }, doing());
    const [plum, jojoba] = await db
      .select()
      .from(material)
      .where(inArray(material.name, ["Plum oil", "Jojoba oil"]))
      .orderBy(material.id);
    expect([plum!.libraryKey, plum!.keepsSealed, plum!.allergen, plum!.densities]).toEqual([null, 9, "nuts", { liquid: 920 }]);
    expect([jojoba!.libraryKey, jojoba!.keepsSealed, jojoba!.densities]).toEqual(["jojoba", 9, { liquid: 866 }]);
    const bought = await buy(plum!.id, 1000, 5);
    expect(await said(back(actId))).toContain("can't be deleted");
    await back(bought.actId);
    // Its lot is named by the books for good.
    expect(await said(back(actId))).toContain("can't be deleted");
    const other = await addMaterials(db, { materials: [of("Pear oil")] }, doing());
    const [pear] = await db.select().from(material).where(eq(material.name, "Pear oil"));
    const saved = await saveMaterial(db, { id: pear!.id, name: "Pear oil", kind: "oil", densities: { liquid: 900 } }, doing());
    expect(await said(back(other.actId))).toContain("saved since");
    await back(saved.actId);
    expect((await back(other.actId)).path).toBe("/shelf");
    expect(await db.$count(material, eq(material.name, "Pear oil"))).toBe(0);
  });
});

describe("recipes", () => {
  it("go in with the materials they want, or not at all; and go until one is written again", async () => {
    const line = { materialId: -1, entered: "100 g", form: "liquid" as const, weight: mg(100_000) };
    const of = (name: string, code: string) => ({ ...balm({ name, code }), lines: [line], total: mg(100_000) });
    const add = [{ libraryKey: "jojoba" }];
    expect(await said(addRecipes(db, { add, recipes: [of("One", "ON"), of("one", "OE")] }, doing()))).toContain(
      "already a recipe called one",
    );
    expect(await said(addRecipes(db, { add, recipes: [of("One", "ON"), of("Two", "ON")] }, doing()))).toContain(
      "has the letters ON already",
    );
    expect(await said(addRecipes(db, { add, recipes: [] }, doing()))).toContain("at least one");
    expect([await db.$count(recipe), await db.$count(material, eq(material.libraryKey, "jojoba"))]).toEqual([1, 0]);
    const { actId } = await addRecipes(db, { add, recipes: [of("One", "ON"), of("Two", "TW")] }, doing());
    const [jojoba] = await db.select().from(material).where(eq(material.libraryKey, "jojoba"));
    const [one] = (await readRecipes(db)).filter((r) => r.recipe.name === "One");
    expect(one!.lines.map((l) => l.materialId)).toEqual([jojoba!.id]);
    expect(one!.sizes.map((s) => s.containerId)).toEqual(balm().sizes.map((s) => s.containerId));
    const sizes = of("One", "ON").sizes.map((s, i) => ({ ...s, id: one!.sizes[i]!.id }));
    const lines = [{ ...line, materialId: jojoba!.id, entered: "90 g", weight: mg(90_000) }];
    const again = await saveRecipe(db, { ...of("One", "ON"), id: one!.recipe.id, lines, total: mg(90_000), sizes }, doing());
    expect(await said(back(actId))).toContain("saved or deleted since");
    await back(again.actId);
    const had = await openingFinished(
      db,
      { lots: [{ productId: one!.sizes[0]!.id, units: 1, cost: null, lotOnIt: "", made: null, bestBefore: null, worked: false }] },
      doing(),
    );
    expect(await said(back(actId))).toContain("since. Take that back first");
    // Taken back, its lot still names the size.
    await back(had.actId);
    expect(await said(back(actId))).toContain("since. Take that back first");
    expect((await db.select().from(recipe)).length).toBe(3);
  });
});
