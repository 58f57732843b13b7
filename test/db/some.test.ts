/** What is asked of some is what the same question about all says of them: a sheet that knows only what it names reckons as the whole shelf would. */
import { expect, it } from "vitest";
import { cachedSettings, saveSettings } from "#db/settings/settings";
import { allocatedUnits } from "#db/cabinet/allocations";
import { saveGiftOrder } from "#db/gifts/gifts";
import { replacementCosts, lotsOfMaterials, lotsOfProducts } from "#db/ledger/lots";
import { choosePrices, chosenPrices } from "#db/prices/prices";
import { costRecipes, unitCostsOf } from "#db/recipe/costs";
import { listProducts, productsNamed, recipeChoices } from "#db/recipe/read";
import { lastPacks } from "#db/shelf/buying";
import { listMaterials, materialsNamed } from "#db/shelf/materials";
import { euro } from "./fresh.ts";
import { buy, DAY, db, eachTestHasAWorkshop, ids, make } from "./workshop.ts";

eachTestHasAWorkshop();

it("lots, costs, packs, prices, names and what is promised", async () => {
  await make(4);
  await buy(ids.oil, 777, 3);
  await choosePrices(db, { productId: ids.product, own: null, prices: { gift: euro(9), market: euro(8) } }, { day: DAY });
  const items = [{ productId: ids.product, units: 3, price: euro(9) }];
  const order = { customer: "Choir", due: DAY, extra: euro(0), discountBp: 0, wrapMinutes: 0, note: "", items, wrapping: [] };
  await saveGiftOrder(db, order, { day: DAY });
  const settings = await cachedSettings(db);
  const all = [ids.oil, ids.wax, ids.tin, ids.box];
  for (const some of [[], [ids.oil], [ids.tin, ids.wax], all, [ids.oil, 999_999]]) {
    const among = <T extends { of: number }>(rows: readonly T[]) => rows.filter((r) => some.includes(r.of));
    expect(new Set(await lotsOfMaterials(db, some))).toEqual(new Set(among(await lotsOfMaterials(db))));
    expect(await replacementCosts(db, some)).toEqual(new Map([...(await replacementCosts(db))].filter(([of]) => some.includes(of))));
    expect(await lastPacks(db, some)).toEqual(new Map([...(await lastPacks(db, all))].filter(([of]) => some.includes(of))));
    expect(await materialsNamed(db, some, [])).toEqual((await listMaterials(db)).filter((m) => some.includes(m.id)));
  }
  expect(await materialsNamed(db, [ids.wax], [" oIL ", "nobody's"])).toHaveLength(2);
  const products = await listProducts(db);
  expect(await productsNamed(db, [ids.product], [])).toEqual(products.filter((p) => p.id === ids.product));
  expect(await productsNamed(db, [], [`${products[0]!.recipe}, ${products[0]!.label}`.toUpperCase()])).toEqual([products[0]]);
  expect(await chosenPrices(db, [ids.product])).toEqual(await chosenPrices(db));
  expect(await lotsOfProducts(db, [ids.product])).toEqual(await lotsOfProducts(db));
  expect(await allocatedUnits(db, DAY, { of: [ids.product] })).toEqual(await allocatedUnits(db, DAY));
  expect((await allocatedUnits(db, DAY)).get(ids.product)).toMatchObject({ reserved: [{ customer: "Choir", units: 3 }] });
  // A unit costs the same, whether its lots are asked for or not, and whether the others' are.
  const [whole] = await costRecipes(db, settings, DAY);
  for (const [one] of [await unitCostsOf(db, settings, DAY), await unitCostsOf(db, settings, DAY, [ids.recipe])])
    for (const [i, size] of one!.sizes.entries()) expect(whole!.sizes[i]!.cost).toMatchObject(size.cost);
  expect(await recipeChoices(db)).toMatchObject([{ id: ids.recipe, name: whole!.recipe.name, total: whole!.recipe.total }]);
});

it("the settings a page reads are those that were kept last, by whomever, and the shelf it costs by is as it stands", async () => {
  const { hourly } = await cachedSettings(db);
  await saveSettings(db, { hourly: euro(99) }, { day: DAY });
  const changed = await cachedSettings(db);
  expect([hourly === changed.hourly, changed.hourly]).toEqual([false, euro(99)]);
  const before = await unitCostsOf(db, changed, DAY);
  await buy(ids.wax, 1000, 400);
  const after = await unitCostsOf(db, changed, DAY);
  expect(after[0]!.sizes[0]!.cost.perUnit.again!.total).toBeGreaterThan(before[0]!.sizes[0]!.cost.perUnit.again!.total);
});
