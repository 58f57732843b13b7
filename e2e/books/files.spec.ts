/** Every list as a file: the rows that are shown, in their order, and figures that add up to the screen's and to each other. */
import { expect, type Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import ICAL from "ical.js";
import Papa from "papaparse";
import { addDays } from "#core/when";
import { today } from "#db/clock";
import { removeAll, throwAwayHouse } from "#scripts/testing/throwAway";
import writeWorkbook, { type SheetData } from "write-excel-file/node";
import { does, open as openAt, test } from "../hand.ts";
import { HOUSE_DATABASE } from "../house.ts";

// It changes how numbers are written, so it has a house to itself.
let url = "";
test.beforeAll(async () => void ({ url } = await throwAwayHouse(HOUSE_DATABASE, 0)));
test.afterAll(removeAll);
const open = (page: Page, path: string) => openAt(page, `${url}/demo/${path}`);

type Rows = Record<string, string>[];

/** Presses the nth press of that name, and reads the file it gives. */
async function saved(page: Page, press: string | RegExp, delimiter = ","): Promise<Rows> {
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByText(press, { exact: true }).last().click()]);
  const text = readFileSync(await file.path(), "utf8");
  expect(file.suggestedFilename()).toMatch(/^[\da-z-]+-\d{4}-\d\d-\d\d\.csv$/);
  expect(text.startsWith("\ufeff")).toBe(true);
  const { data, errors } = Papa.parse<Record<string, string>>(text.slice(1), { header: true, delimiter, skipEmptyLines: true });
  expect(errors).toEqual([]);
  return data;
}
const CSV = "Save as CSV";
const sumOf = (rows: Rows, column: string): number => rows.reduce((a, r) => a + Math.round(Number(r[column]) * 1e6), 0);

test("each list is saved as it is shown, and the files agree with each other", async ({ page }) => {
  let shelf: Rows = [];
  let lots: Rows = [];

  await test.step("materials and lots: their worths are the screen's, and each other's", async () => {
    await open(page, "shelf");
    shelf = await saved(page, CSV);
    const about = await page.getByText("Ingredients worth").innerText();
    const [ingredients, packaging] = [...about.matchAll(/€([\d\u2009 ]+\.\d\d)/g)].map((m) => Number(m[1]!.replace(/\D(?!\d\d$)/g, "")));
    expect(sumOf(shelf, "worth (EUR)") / 1e6).toBeCloseTo(ingredients! + packaging!, 1);
    await open(page, "lots");
    lots = await saved(page, "Save all lots as CSV");
    const ofMaterials = lots.filter((l) => l["from"] !== "our bench");
    expect(sumOf(ofMaterials, "worth (EUR)")).toBe(sumOf(shelf, "worth (EUR)"));
    await page.getByLabel("Lot number").fill("SB");
    await page.getByRole("button", { name: "Trace" }).click();
    await expect(page).toHaveURL(/number=SB/);
    expect((await saved(page, CSV)).map((l) => l["lot"])).toEqual(
      lots.filter((l) => /SB/.test(l["lot"]!) || /sb/i.test(l["of"]!)).map((l) => l["lot"]),
    );
  });

  await test.step("what is searched for on the shelf is what is saved", async () => {
    await open(page, "shelf");
    await page.getByLabel("Find a material").fill("butter");
    const found = (await saved(page, CSV)).map((m) => m["material"]!);
    expect(found.sort()).toEqual(
      shelf
        .map((m) => m["material"]!)
        .filter((name) => /butter/i.test(name))
        .sort(),
    );
  });

  await test.step("a slip of the fingers finds the same for the file as for the page", async () => {
    await page.getByLabel("Find a material").fill("sunflwer oil");
    const shown = page.getByRole("rowheader").filter({ hasText: "Sunflower oil, high oleic" });
    await expect(shown).toBeVisible();
    expect((await saved(page, CSV)).map((m) => m["material"])).toContain("Sunflower oil, high oleic");
  });

  await test.step("movements add up, lot by lot, to what is left of it", async () => {
    await open(page, "book");
    const acts = await saved(page, CSV);
    const moved = await saved(page, "What they moved as CSV");
    expect(acts.length).toBeGreaterThan(150);
    for (const l of lots) {
      const own = moved.filter((m) => m["lot"] === l["lot"]);
      expect(sumOf(own, "in or out"), l["lot"]).toBe(Math.round(Number(l["left"]) * 1e6));
      expect(sumOf(own, "worth (EUR)"), l["lot"]).toBe(Math.round(Number(l["worth (EUR)"]) * 1e6));
    }
    expect(new Set(moved.map((m) => m["act"])).size).toBeLessThan(acts.length);
    await page.getByLabel("What", { exact: true }).selectOption({ label: "Batch poured" });
    await page.getByRole("button", { name: "Search" }).click();
    await expect(page).toHaveURL(/kind=pour/);
    const poured = await saved(page, CSV);
    expect(poured.length).toBe(acts.filter((a) => a["kind"] === "Batch poured").length);
    expect(new Set((await saved(page, "What they moved as CSV")).map((m) => m["act"]))).toEqual(new Set(poured.map((a) => a["act"])));
    await open(page, "shelf/1/history");
    const material = await page.getByRole("heading", { level: 1 }).innerText();
    const own = await saved(page, CSV);
    expect(own).toEqual(
      moved.filter((m) => m["material or product"] === material).sort((a, b) => Number(b["movement"]) - Number(a["movement"])),
    );
  });

  await test.step("found and sorted rows leave as they are, and so do their lines", async () => {
    await open(page, "shelf/receipts");
    await page.getByRole("button", { name: "Paid" }).click();
    const receipts = await saved(page, CSV);
    const paid = receipts.map((r) => Number(r["paid (EUR)"]));
    expect(paid).toEqual([...paid].sort((a, b) => b - a));
    await page.getByLabel("Find among the receipts").fill("Skerrow");
    const found = await saved(page, CSV);
    expect(found).toEqual(receipts.filter((r) => r["supplier"] === "Skerrow Oil Press"));
    const lines = await saved(page, "Their lines as CSV");
    expect(sumOf(lines, "cost with its shares (EUR)")).toBe(sumOf(found, "paid (EUR)"));
    expect([...new Set(lines.map((l) => l["day"]))]).toEqual([...new Set(found.map((r) => r["day"]))]);
    await open(page, "markets");
    const [days, sold] = [await saved(page, CSV), await saved(page, "Their lines as CSV")];
    expect(sumOf(sold, "takings (EUR)")).toBe(sumOf(days, "takings (EUR)"));
    expect(sumOf(sold, "cost of stock gone (EUR)")).toBe(sumOf(days, "cost of stock gone (EUR)"));
    await open(page, "gifts");
    const [orders, items] = [await saved(page, CSV), await saved(page, "Their lines as CSV")];
    const asked = orders.map((o) => items.filter((i) => i["for"] === o["for"] && i["due"] === o["due"] && i["kind"] !== "wrapping"));
    orders.forEach((o, i) => {
      const full = asked[i]!.reduce((a, l) => a + Number(l["units"]) * Number(l["price of one, before the discount (EUR)"]), 0);
      expect(Number(o["price (EUR)"]), o["for"]).toBeCloseTo(full * (1 - Number(o["discount (%)"]) / 100), 1);
    });
  });

  await test.step("every other list has its file", async () => {
    const kept: Record<string, [column: string, rows: number]> = {
      "shelf/harvests": ["herb", 3],
      jars: ["jar", 3],
      recipes: ["one costs, lot cost (EUR)", 8],
      bench: ["units filled", 10],
      cabinet: ["all costs, one (EUR)", 8],
      prices: ["Market: price (EUR)", 8],
      people: ["times bought from", 3],
    };
    for (const [path, [column, least]] of Object.entries(kept)) {
      await open(page, path);
      const rows = await saved(page, CSV);
      expect(rows.length, path).toBeGreaterThanOrEqual(least);
      expect(rows[0], path).toHaveProperty([column]);
    }
    await open(page, "cabinet");
    const cabinet = await saved(page, CSV);
    expect(sumOf(cabinet, "worth in materials (EUR)")).toBe(
      sumOf(
        lots.filter((l) => l["from"] === "our bench"),
        "worth (EUR)",
      ),
    );
  });

  await test.step("a list that can't be read says so, and saves nothing", async () => {
    await open(page, "gifts");
    await page.route("**/gifts/lines?*", (r) => r.abort());
    await page.getByText("Their lines as CSV").first().click();
    await expect(page.getByText("The list couldn't be read just now.")).toBeVisible();
    await page.unroute("**/gifts/lines?*");
    expect((await saved(page, "Their lines as CSV")).length).toBeGreaterThan(3);
    await expect(page.getByText("The list couldn't be read just now.").last()).toBeVisible();
  });

  await test.step("where numbers have a decimal comma, so do the files", async () => {
    const typed = async (habit: string): Promise<void> => {
      await open(page, "settings");
      await page.getByLabel("Numbers are typed").selectOption(habit);
      await page.getByRole("button", { name: "Save" }).first().click();
      await expect(page.getByLabel("What was done")).toContainText("Settings saved");
    };
    await typed("space");
    await open(page, "cabinet");
    expect((await saved(page, CSV, ";"))[0]!["worth in materials (EUR)"]).toMatch(/^\d+,\d+$/);
    await open(page, "lots");
    expect((await saved(page, "Save all lots as CSV", ";")).length).toBe(lots.length);
    await typed("asked");
  });
});

test("the calendar leaves as a file and as a feed, and a feed says when nothing changed", async ({ page }) => {
  await open(page, "");
  await page.getByRole("link", { name: "Calendar" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Calendar");
  const listed = await page.getByRole("table").getByRole("link").allInnerTexts();
  expect(listed).toContain("Aldermoss winter market");

  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "Save as a file (.ics)" }).click()]);
  const titlesOf = (text: string): string[] =>
    new ICAL.Component(ICAL.parse(text) as unknown[])
      .getAllSubcomponents("vevent")
      .filter((e) => e.getFirstPropertyValue("status") !== "CANCELLED")
      .map((e) => String(e.getFirstPropertyValue("summary")));
  const titles = titlesOf(readFileSync(await file.path(), "utf8"));
  for (const title of listed) expect(titles).toContain(title);

  const feed = await page.locator("aside code").innerText();
  expect(feed).toBe(`${url}/demo/calendar.ics`);
  const first = await page.request.get(feed);
  expect([first.status(), first.headers()["content-type"]]).toEqual([200, "text/calendar; charset=utf-8"]);
  const etag = first.headers()["etag"]!;
  expect((await page.request.get(feed, { headers: { "if-none-match": etag } })).status()).toBe(304);

  await page.getByLabel("Jars to strain").uncheck();
  await page.getByLabel("Best before").uncheck();
  await expect(page.getByText("is at its best")).toHaveCount(0);
  // The feed's address follows as soon as both are off.
  const left = async (): Promise<string[]> => titlesOf(await (await page.request.get(await page.locator("aside code").innerText())).text());
  await expect.poll(async () => (await left()).filter((t) => /Last day|at its best/.test(t))).toEqual([]);

  // The next request sees a change.
  await open(page, "gifts");
  await page.getByRole("link", { name: "Marrowfield allotments" }).click();
  await page.getByLabel("Note").fill("Six boxes, ribbons too.");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByLabel("What was done")).toContainText("Saved the order for Marrowfield allotments");
  const again = await page.request.get(feed, { headers: { "if-none-match": etag } });
  expect(again.status()).toBe(200);
  expect(await again.text()).toMatch(/SEQUENCE:[1-9]/);
});

test("a year's money adds up, leads to what it is made of, and leaves as a file", async ({ page }) => {
  await open(page, "book");
  await page.getByRole("link", { name: "Money for the accountant" }).click();
  const year = today().slice(0, 4);
  await page.getByRole("link", { name: year, exact: true }).click();
  await expect(page.getByText(new RegExp(`1 January ${year} to \\w+ 31 December ${year}`))).toBeVisible();
  await expect(page.getByText("no tax advice")).toBeVisible();
  // On any day of the calendar: what lies behind the demo's workshop, to this day.
  const since = (days: number): string => `accounts?from=${addDays(today(), -days)}&to=${today()}`;
  await open(page, since(364));
  const money = await saved(page, "Save all of it as CSV");
  const amount = (part: RegExp): number =>
    sumOf(
      money.filter((l) => part.test(l["part"]!)),
      "amount (EUR)",
    );
  expect(amount(/^stock at the start/) + amount(/^what moved it/)).toBe(amount(/^stock at the end/));
  const takings = money.filter((l) => l["part"]!.startsWith("sales"));
  const shown = async (row: string): Promise<number> => {
    const cells = await page.getByRole("row", { name: row }).first().getByRole("cell").allInnerTexts();
    return Number(cells.at(-1)!.replace(/[^\d.-]/g, ""));
  };
  expect(sumOf(takings, "amount (EUR)") / 1e6).toBeCloseTo(await shown("Takings"), 2);
  expect(amount(/^purchases/)).toBe(
    sumOf(
      money.filter((l) => l["line"]!.startsWith("Bought")),
      "amount (EUR)",
    ),
  );
  // Its end is what is there now.
  await open(page, "lots");
  const lots = await saved(page, "Save all lots as CSV");
  const jars = money.filter((l) => l["part"] === "stock at the end" && l["line"] === "In jars that steep");
  expect(amount(/^stock at the end/)).toBe(sumOf(lots, "worth (EUR)") + sumOf(jars, "amount (EUR)"));

  await open(page, since(364));
  const lost = await shown("Lost in making");
  await page.getByRole("link", { name: "Lost in making" }).click();
  const foot = page
    .locator("table", { has: page.getByRole("columnheader", { name: "What was done" }) })
    .locator("tfoot td")
    .last();
  expect(Number((await foot.innerText()).replace(/[^\d.-]/g, ""))).toBeCloseTo(lost, 2);
  const jar = page.getByRole("link", { name: /^Jar J\d{5}-1/ }).first();
  const [number] = /J\d{5}-1/.exec(await jar.innerText())!;
  await jar.click();
  await expect(page.getByText(number).first()).toBeVisible();

  // By replacement cost the file has two lines more, and still adds up.
  await open(page, "settings");
  await page.getByLabel("What a gram costs").selectOption("again");
  await page.getByRole("button", { name: "Save" }).first().click();
  await expect(page.getByLabel("What was done")).toContainText("Settings saved");
  await open(page, since(150));
  const again = await saved(page, "Save all of it as CSV");
  const of = (part: string): number =>
    sumOf(
      again.filter((l) => l["part"] === part),
      "amount (EUR)",
    );
  expect(again.map((l) => l["line"])).toContain("Dearer or cheaper to buy again");
  expect(of("stock at the start") + of("what moved it")).toBe(of("stock at the end"));

  await open(page, `accounts?from=${today()}&to=${addDays(today(), -1)}`);
  await expect(page.getByText("The last day is before the first. This year is shown.")).toBeVisible();
});

test("customers come in out of a spreadsheet: shown first, those who are known left as they are, and taken back as one", async ({
  page,
}) => {
  await open(page, "people?of=customer");
  await page.getByRole("link", { name: "From a file" }).click();
  const rows: SheetData = [
    ["Customer", "Where", "Phone", "Remarks"].map((value) => ({ value })),
    ["Fen school", "Fen Road 1", "0555 0133", "no nuts"].map((value) => ({ value })),
    ["nan next door", "", "", "changed"].map((value) => ({ value })),
    ["Fen School", "", "", ""].map((value) => ({ value })),
    [{ value: "Lock keeper" }, null, { value: 5550144 }],
  ];
  await page
    .getByLabel("File", { exact: true })
    .setInputFiles({ name: "people.xlsx", mimeType: "", buffer: await writeWorkbook(rows, { sheet: "People" }).toBuffer() });
  await expect(page.getByText("Nothing of it is changed: nan next door.")).toBeVisible();
  await expect(page.getByText("Row 4: “Fen School” is in row 2 already.")).toBeVisible();
  await expect(page.getByLabel("Noted")).toHaveValue("3");
  await page.getByLabel("Name", { exact: true }).selectOption("none");
  await expect(page.getByText("Say which column has the name.")).toBeVisible();
  await page.getByLabel("Name", { exact: true }).selectOption("0");
  await does(page, "Add 2 names", "Added 2 customers from a list");
  await expect(page.getByRole("row", { name: /Fen school.*Fen Road 1.*0555 0133.*no nuts/s })).toBeVisible();
  await expect(page.getByRole("row", { name: /Lock keeper.*5550144/s })).toBeVisible();
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Took back");
  await open(page, "people?of=customer");
  await expect(page.getByText("Fen school")).toHaveCount(0);
  await expect(page.getByRole("link", { name: "Nan next door" })).toBeVisible();
});
