/** A year of a maker's spreadsheets comes into an empty workshop list by list, each as one act, and goes again as it came. */
import { readRows } from "#core/intake/table";
import { textOfSheet, type WorkbookCell } from "#core/intake/workbook";
import { reverseAct } from "#db/acts/reverse";
import { readBook } from "#db/acts/book";
import type { OpenDb } from "#db/client";
import { giftItem, giftOrder, lot, marketDay, pastSale, price, product, recipe, recipeVersion } from "#db/schema";
import { saveSettings } from "#db/settings/settings";
import { expectLedgerTrue, freshDb } from "#test/db/fresh";
import { BOUGHT, DAYS, ORDERS, SHELF, WORKBOOK } from "#test/lists/willowShed";
import { asc, isNotNull } from "drizzle-orm";
import readWorkbook from "read-excel-file/node";
import writeWorkbook from "write-excel-file/node";
import { afterAll, beforeAll, expect, it } from "vitest";
import { readPeriod } from "#app/accounts/read.server.ts";
import { action as finished } from "#app/cabinet/file.tsx";
import { action as orders } from "#app/gifts/file.tsx";
import { loader as gifts } from "#app/gifts/gifts.tsx";
import { action as days } from "#app/markets/file.tsx";
import { loader as markets } from "#app/markets/markets.tsx";
import { action as prices } from "#app/prices/file.tsx";
import { action as recipes } from "#app/recipes/file.tsx";
import { serveOnly } from "#app/server/workshop.server.ts";
import { action as opening } from "#app/shelf/opening/file.tsx";
import { action as receipts } from "#app/shelf/receipts/file.tsx";
import { load, post } from "../posting.ts";

const TODAY = "2026-12-01";
let db: OpenDb;
let drop: () => Promise<void>;
let sheets: Record<string, string>;
beforeAll(async () => {
  ({ db, drop } = await freshDb());
  process.env.ZELBIN_TODAY = TODAY;
  serveOnly({ db });
  await saveSettings(db, { workshop: "Willow shed", currency: "EUR" }, { day: TODAY });
  const file = await writeWorkbook(WORKBOOK).toBuffer();
  const read = await readWorkbook(file, { parseNumber: (number) => ({ number }) });
  sheets = Object.fromEntries(read.map((s) => [s.sheet, textOfSheet(s.data as unknown as WorkbookCell[][])]));
});
afterAll(() => drop());

interface Looked {
  digest: string;
  say: string | null;
  fresh: number;
  rows: number;
  there: string[];
  problems: { row: number; say: string }[];
  unknown: { name: string }[];
  remarks: { row: number }[];
  left: { at: number; why: string }[];
  more: { library?: Record<string, { key: string }> };
}
const LIST = { columns: {}, matches: {}, numbers: "", dates: "", extras: {}, shown: "" };
const look = async (action: unknown, text: string, over: object = {}): Promise<Looked> =>
  ((await post(action, { ...LIST, ...over, text, intent: "look" })).data as { preview: Looked }).preview;
const add = async (action: unknown, text: string, over: object = {}) =>
  post(action, { ...LIST, ...over, text, intent: "add", shown: (await look(action, text, over)).digest, token: crypto.randomUUID() });

const euro = (n: number) => Math.round(n * 1e6);
const productNames = async () =>
  new Map((await db.select({ id: product.id, label: product.label }).from(product)).map((p) => [p.id, p.label]));

it("the shelf and what was bought, each material asked about once", async () => {
  const asIs = { priceOf: "", supplier: "", day: "", twice: "", blanks: {}, money: {}, rates: {}, known: "paid" };
  const shelf = {
    ...asIs,
    matches: { "Beeswax, yellow": "library:beeswax-yellow", "Olive oil": "library:olive", "Shea butter": "library:shea-unrefined" },
  };
  const sheet = { ...LIST, ...shelf, blanks: { material: "above" } };
  const first = (await post(opening, { ...sheet, text: SHELF, intent: "look" })).data as { preview: { digest: string } };
  expect(await post(opening, { ...sheet, text: SHELF, intent: "receive", shown: first.preview.digest })).toMatchObject({ status: 302 });
  const bought = {
    ...{
      ...LIST,
      ...asIs,
      matches: { "Calendula flowers": "kind:herb", "Shea butter": "Shea butter, unrefined" },
      money: { "£": "GBP" },
      rates: { "£": "1.15" },
    },
    text: BOUGHT,
  };
  const second = (await post(receipts, { ...bought, intent: "look" })).data as { preview: { digest: string } };
  expect(await post(receipts, { ...bought, intent: "receive", shown: second.preview.digest })).toMatchObject({ status: 302 });
  const lots = await db.select({ name: lot.name, onHand: lot.onHand, value: lot.value }).from(lot).orderBy(asc(lot.id));
  expect(lots.map((l) => [l.name, l.onHand, l.value])).toEqual([
    ["Beeswax, yellow", 1_200_000, euro(21.6)],
    ["Olive oil", 3_000_000, euro(24)],
    ["Olive oil", 1_500_000, euro(13.5)],
    ["Shea butter, unrefined", 800_000, euro(9.6)],
    ["Olive oil", 1_000_000, euro(8.2)],
    ["Shea butter, unrefined", 1_000_000, euro(11.4)],
    ["Calendula flowers", 250_000, euro(10.35)],
  ]);
});

it("recipes out of a workbook, a slip of a letter settled by one choice; nothing goes in before it is said", async () => {
  const shown = await look(recipes, sheets.Recipes!);
  expect(shown).toMatchObject({ fresh: 1, unknown: [{ name: "Shea buter" }] });
  expect(shown.left.map((l) => l.why)).toEqual(["title", "total"]);
  expect(shown.problems[0]!.say).toBe("“Shea buter” isn't on the shelf.");
  expect(shown.more.library).toMatchObject({ "Shea buter": { key: "shea-unrefined" } });
  // The name has its answer; what was looked at before it was isn't what goes in.
  const matches = { "Shea buter": "Shea butter, unrefined" };
  expect((await post(recipes, { ...LIST, matches, text: sheets.Recipes, intent: "add", shown: shown.digest })).say).toContain(
    "changed since",
  );
  expect(await add(recipes, sheets.Recipes!, { matches })).toMatchObject({ status: 302, to: "/recipes" });
  const rows = await db
    .select({ name: recipe.name, code: recipe.code, total: recipeVersion.total })
    .from(recipe)
    .innerJoin(recipeVersion, isNotNull(recipe.versionId))
    .orderBy(asc(recipe.id));
  expect(new Set(rows.map((r) => `${r.name} ${r.code}`))).toEqual(new Set(["Willow hand salve WHS", "Mint lip balm MLB"]));
  expect([...(await productNames()).values()]).toEqual(["60 g", "30 g", "4.5 g"]);
  expect((await look(recipes, sheets.Recipes!, { matches })).there).toEqual(["Willow hand salve", "Mint lip balm"]);
  expect((await add(recipes, sheets.Recipes!, { matches })).say).toBe("Nothing in it is new.");
});

it("what was finished and what it is sold for: a worked-out cost is a cost, a day is printed or follows from the recipe", async () => {
  expect((await look(finished, sheets.Finished!)).say).toBeNull();
  expect(await add(finished, sheets.Finished!)).toMatchObject({ status: 302, to: "/cabinet" });
  const lots = await db.select().from(lot).where(isNotNull(lot.productId)).orderBy(asc(lot.id));
  expect(lots.map((l) => [l.name, l.label, l.onHand, l.value, l.supplierLot, l.arrived, l.bestBefore, l.bestBy, l.costKnown])).toEqual([
    ["Willow hand salve", "60 g", 18, euro(2.17 * 18), "W17", "2026-10-12", "2027-10-12", "keeping", "guessed"],
    ["Willow hand salve", "30 g", 7, 0, "", TODAY, "2027-03-31", "printed", "none"],
    ["Mint lip balm", "4.5 g", 40, 0, "", "2026-11-02", "2027-11-02", "keeping", "none"],
  ]);
  expect((await look(finished, sheets.Finished!)).there).toHaveLength(3);
  expect(await add(prices, sheets.Prices!)).toMatchObject({ status: 302, to: "/prices" });
  const of = await productNames();
  expect((await db.select().from(price).orderBy(asc(price.id))).map((p) => [of.get(p.productId), p.channel, p.price])).toEqual([
    ["60 g", "market", euro(12.5)],
    ["60 g", "wholesale", euro(7)],
    ["30 g", "market", euro(7.5)],
    ["4.5 g", "market", euro(4.5)],
    ["4.5 g", "wholesale", euro(2.4)],
  ]);
  await expectLedgerTrue(db);
});

it("the markets of a year, with what each took, and nothing out of any lot", async () => {
  const before = await db.select({ id: lot.id, onHand: lot.onHand }).from(lot);
  const shown = await look(days, DAYS);
  expect(shown).toMatchObject({ fresh: 2, unknown: [{ name: "Beeswax candle" }], remarks: [{ row: 7 }] });
  expect(await add(days, DAYS, { matches: { "Beeswax candle": "none" } })).toMatchObject({ status: 302, to: "/markets" });
  const { rows } = await load(markets, "/markets");
  expect(rows.map((d) => [d.name, d.day, d.closed, d.unitsSold, d.takings, d.fees, d.known])).toEqual([
    ["On the green", "2026-05-16", true, 0, euro(212.5), euro(30), null],
    ["On the green", "2026-05-02", true, 18, euro(133.5), euro(30), null],
    ["Old mill", "2025-12-13", true, 14, euro(89), 0, null],
  ]);
  expect(await db.select({ id: lot.id, onHand: lot.onHand }).from(lot)).toEqual(before);
  expect((await look(days, DAYS, { matches: { "Beeswax candle": "none" } })).there).toEqual([
    "On the green, Saturday 2 May 2026",
    "On the green, Saturday 16 May 2026",
    "Old mill, Saturday 13 December 2025",
  ]);
});

it("orders: one long collected, one to be packed, one that waits for its product; the accountant has them in their years", async () => {
  const shown = await look(orders, ORDERS);
  expect(shown).toMatchObject({ fresh: 2, unknown: [{ name: "Rose soap" }], say: null });
  expect(await add(orders, ORDERS)).toMatchObject({ status: 302, to: "/gifts" });
  const { rows } = await load(gifts, "/gifts");
  expect(rows.map((o) => [o.customer, o.due, o.packed, o.price, o.items])).toEqual([
    ["The choir", "2026-12-19", false, euro(48), "12 × Mint lip balm, 4.5 g"],
    ["Nora", "2025-12-20", true, euro(33), "2 × Willow hand salve, 60 g, 2 × Mint lip balm, 4.5 g"],
  ]);
  const of = async (year: number) => readPeriod({ from: `${year}-01-01`, to: `${year}-12-31` });
  const last = await of(2025);
  expect(last.years).toContain("2025");
  expect(last.sales.map((s) => [s.place, s.day, s.takings, s.costKnown])).toEqual([
    ["Old mill", "2025-12-13", euro(89), false],
    ["Nora", "2025-12-20", euro(33), false],
  ]);
  expect(last.sums.takings).toBe(euro(122));
  expect((await of(2026)).sums.takings).toBe(euro(346));
});

it("all of it is taken back, the newest first, and nothing of it stays but the materials and their empty lots", async () => {
  const acts = (await readBook(db, {}, 20)).filter((a) => a.kind !== "settings");
  expect(acts.map((a) => a.kind)).toEqual([
    "addOrders",
    "pastDays",
    "listPrices",
    "openingFinished",
    "addRecipes",
    "receiveFile",
    "opening",
  ]);
  // A recipe goes only after what was made, sold and priced of it.
  await expect(reverseAct(db, acts[4]!.id, { day: TODAY })).rejects.toThrow();
  for (const a of acts.slice(0, 4)) await reverseAct(db, a.id, { day: TODAY });
  for (const table of [giftOrder, giftItem, marketDay, pastSale]) expect(await db.$count(table)).toBe(0);
  expect(
    (await db.select({ onHand: lot.onHand, value: lot.value }).from(lot).where(isNotNull(lot.productId))).every(
      (l) => l.onHand === 0 && l.value === 0,
    ),
  ).toBe(true);
  await expectLedgerTrue(db);
});

it("a table with one column, and one without what it needs, say so", async () => {
  expect(readRows("").ok).toBe(false);
  expect((await post(prices, { ...LIST, text: "", intent: "look" })).fields).toEqual(["text"]);
  expect((await look(finished, "Colour,Length\nred,4")).say).toBe("Say which column has the units.");
  expect((await look(days, "Market;Day;Takings\nMill;03/04/26;12")).say).toContain("Say how dates are written.");
  expect((await look(days, "Market;Day;Takings\nMill;2026-04-03;1,234")).say).toContain("Say how numbers are written.");
});
