/** The shelf through the interface: from the library and a receipt to use-first and the stock-take; a file; a harvest; the shopping list. */
import { expect, type Page } from "@playwright/test";
import writeWorkbook, { type SheetData } from "write-excel-file/node";
import { does, figure, fillRow, open, test } from "../hand.ts";

test("received in parts, opened, used first, counted in a stock-take, and the receipt corrected", async ({ page }) => {
  await test.step("from the library", async () => {
    await open(page, "/shelf/library");
    await page.getByLabel("Find in the library").fill("hazelnut");
    await page.getByRole("checkbox", { name: /Hazelnut oil/ }).check();
    await does(page, "Take 1 onto the shelf", "1 material taken from the library");
  });
  await test.step("a receipt with tax, of which one pack has come", async () => {
    await open(page, "/shelf/receive");
    await page.getByLabel("Supplier", { exact: true }).fill("Wether Mill");
    await page.getByLabel("Postage", { exact: true }).fill("2.00");
    await page.getByRole("button", { name: "Tax, discount, another currency, a note" }).click();
    await page.getByLabel("Tax on top").fill("2.00");
    await page.getByRole("button", { name: "Not all of it has come" }).click();
    await fillRow(page, 1, {
      Material: "Hazelnut oil",
      Packs: "3",
      "Each holds": "500 mL",
      "Price of all": "36.00",
      "So far": "1",
      "Best before": "2099-01-31",
    });
    await expect(figure(page, "Paid in all")).toContainText("€40.00");
    await does(page, "Put on the shelf", "Received 1 lot from Wether Mill");
    await expect(page.getByText("2 packs of 500 mL Hazelnut oil, paid for already")).toBeVisible();
    await page.getByLabel("Packs come").fill("3");
    await page.getByRole("button", { name: "Put on the shelf" }).click();
    await expect(page.getByRole("alert").filter({ hasText: "Only 2 packs of it are still to come" })).toBeVisible();
    await page.getByLabel("Packs come").fill("2");
    await page.getByLabel("Best before", { exact: true }).fill("2098-01-31");
    await does(page, "Put on the shelf", "2 more packs of Hazelnut oil arrived");
    await expect(page.getByText("Still to come")).toBeHidden();
  });
  const tags = page.getByRole("row", { name: /^Hazelnut oil/ }).locator("a.lot");
  await test.step("the soonest best-before stands in front; an opened lot goes before it", async () => {
    await page.getByRole("link", { name: "Hazelnut oil" }).first().click();
    await expect(page.getByRole("heading", { name: "Hazelnut oil" })).toBeVisible();
    const lots = page.locator("table").first().locator("a.lot");
    const [first, second] = await lots.allInnerTexts();
    await page.getByRole("button", { name: `Open or take out ${second}` }).click();
    await does(page, "Opened today", `Opened ${second}`);
    await expect(lots.first()).toHaveText(new RegExp(second!));
    await expect(page.getByText(`Use ${second} first: best before soonest.`)).toBeVisible();
    await page.getByRole("button", { name: `Open or take out ${first}` }).click();
    await page.getByLabel("Take out", { exact: true }).fill("2 kg");
    await page.getByRole("button", { name: "Take it out" }).click();
    await expect(page.getByRole("alert").filter({ hasText: "less than this takes" })).toBeVisible();
    await page.getByLabel("Take out", { exact: true }).fill("10 g");
    await does(page, "Take it out", "thrown away");
    await page.getByRole("button", { name: "Take it back" }).click();
    await expect(page.getByRole("status", { name: "What was done" })).toContainText("Took back");
  });
  await test.step("a stock-take notes what differs and posts it as one act", async () => {
    await open(page, "/shelf/stock-take");
    const row = page.getByRole("row", { name: /^Hazelnut oil/ }).first();
    const before = await row.getByRole("cell").nth(1).innerText();
    await row.getByRole("textbox").fill("lots");
    await row.getByRole("textbox").press("Enter");
    await expect(row.getByRole("alert")).toContainText("isn't an amount");
    await row.getByRole("textbox").fill("400 g");
    await row.getByRole("textbox").press("Tab");
    await expect(row).toContainText("−");
    await expect(page.getByText(/1 of \d+ lots counted, 1 differs/)).toBeVisible();
    await open(page, "/shelf/stock-take");
    await expect(row.getByRole("textbox")).toHaveValue("400 g");
    await does(page, "Post the counts", "Stock-take: 1 lot counted, 1 corrected");
    await page.getByRole("button", { name: "Take it back" }).click();
    await expect(page.getByRole("status", { name: "What was done" })).toContainText("Took back: Stock-take");
    await open(page, "/shelf/stock-take");
    await expect(row.getByRole("cell").nth(1)).toHaveText(before);
  });
  await test.step("the price was wrong: corrected, and the shelf's cost follows", async () => {
    await open(page, "/shelf");
    await expect(tags).toHaveCount(2);
    await page.getByRole("link", { name: "Hazelnut oil" }).click();
    await page.getByRole("link", { name: "Wether Mill" }).first().click();
    await page.getByRole("link", { name: "Correct it" }).click();
    await page.getByLabel("Price of all, row 1").fill("21.00");
    await does(page, "Save the correction", "Corrected the receipt from Wether Mill");
    await expect(figure(page, "Paid in all")).toContainText("€49.00");
  });
});

test("two windows at one stock-take: what the other counted is shown before it is posted, and nothing is overwritten unseen", async ({
  page,
  context,
}) => {
  await open(page, "/shelf/stock-take");
  const other = await context.newPage();
  await other.goto(page.url());
  const fields = (of: Page) => of.locator("input[data-count]");
  const count = async (of: Page, n: number, text: string) => {
    await fields(of).nth(n).fill(text);
    await fields(of).nth(n).press("Enter");
  };
  const field = fields(page).first();
  await count(other, 0, "20 g");
  await expect(other.getByText(/^1 of \d+ lots counted/)).toBeVisible();
  // The first window hasn't seen that, and counts the same lot.
  await count(page, 0, "30 g");
  await expect(page.getByRole("alert").filter({ hasText: "Counted 20 g in another window. Look again." })).toBeVisible();
  await expect(field).toHaveValue("30 g");
  await page.getByRole("button", { name: "Post the counts" }).click();
  await expect(page.getByRole("alert").filter({ hasText: /^Nothing was posted: the count of R\d/ })).toBeVisible();
  // Seen by now, it may be said otherwise.
  await field.press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: "in another window. Look again" })).toBeHidden();
  // One's own, in ounces and corrected at once, is nobody else's.
  await count(page, 2, "1 oz");
  await count(page, 2, "33 g");
  await count(page, 2, "34 g");
  await expect(page.getByText(/^2 of \d+ lots counted/)).toBeVisible();
  await expect(page.getByText("in another window")).toHaveCount(0);
  await count(other, 1, "40 g");
  await expect(other.getByText(/^3 of \d+ lots counted/)).toBeVisible();
  await page.getByRole("button", { name: "Post the counts" }).click();
  await expect(page.getByRole("alert").filter({ hasText: /^Nothing was posted: another window counted R\d/ })).toBeVisible();
  await expect(fields(page).nth(1)).toHaveValue("40 g");
  await expect(page.getByText("Counted 40 g in another window.")).toBeVisible();
  await does(page, "Post the counts", "Stock-take: 3 lots counted, 3 corrected");
  await other.close();
});

test("receipts out of a file: columns matched, styles found, unknown names matched, bad lines named", async ({ page }) => {
  await open(page, "/shelf/receive/file");
  const file = (name: string, text: string | Buffer) =>
    page
      .getByLabel("File", { exact: true })
      .setInputFiles({ name, mimeType: "text/csv", buffer: typeof text === "string" ? Buffer.from(text) : text });
  await file("photo.csv", Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 1, 2, 3]));
  await expect(page.getByRole("alert").filter({ hasText: "isn't a table as text" })).toBeVisible();
  // As an older spreadsheet saves it, in Windows-1252.
  await file(
    "mill.csv",
    Buffer.from(
      "Ware;Menge;Inhalt;Gesamt;Shop;Date\r\nJojoba oil;2;250 mL;1.027,80 €;Wether Mill;03.11.2025\r\nSpring nettle;1;250 g;6,90 €;Wether Mill;03.11.2025\r\nCastor oil;1;a jug;5,40 €;Wether Mill;03.11.2025\r\n".replaceAll(
        "€",
        "\x80",
      ),
      "latin1",
    ),
  );
  await expect(page.getByText("Say which column is material, price, each holds.")).toBeVisible();
  await page.getByLabel("Material", { exact: true }).selectOption({ label: "Ware · Jojoba oil" });
  await page.getByLabel("Packs", { exact: true }).selectOption({ label: "Menge · 2" });
  await page.getByLabel("Each holds", { exact: true }).selectOption({ label: "Inhalt · 250 mL" });
  await page.getByLabel("Price", { exact: true }).selectOption({ label: "Gesamt · 1.027,80 €" });
  await expect(page.getByText("“Gesamt” could be for one pack or for all 2 of them.")).toBeVisible();
  await page.getByLabel("The price is that of").selectOption("all");
  await expect(page.getByRole("cell", { name: "€1 027.80" })).toBeVisible();
  await expect(page.getByText("Row 4, each holds (“Inhalt”):")).toBeVisible();
  await page.getByLabel("Spring nettle").selectOption("kind:herb");
  await expect(page.getByText("Row 3, material")).toBeHidden();
  await does(page, "Put 2 lines on the shelf", "Received 2 lots on 1 receipt from a file");
  await expect(page.getByRole("link", { name: "Spring nettle" })).toBeVisible();
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Took back");

  // A spreadsheet's own file: its second sheet, under a merged title, with days and numbers as it has them, and a sum beneath.
  await open(page, "/shelf/receive/file");
  const goods: SheetData = [
    [{ value: "Orders of the autumn", columnSpan: 5 }],
    [],
    ["Date", "Supplier", "Item", "Size", "Line total"].map((value) => ({ value })),
    [{ value: new Date("2026-10-02"), type: Date, format: "dd.mm.yyyy" }, ...["Press house", "Jojoba oil", "250 mL"], { value: 12.345 }],
    [{ value: new Date("2026-10-02"), type: Date, format: "dd.mm.yyyy" }, ...["Press house", "Castor oil", "1 kg"], { value: 9.9 }],
    [null, null, "Total", null, { value: 22.245 }],
  ];
  const notes: SheetData = [[{ value: "a" }, { value: "b" }]];
  await file(
    "autumn.xlsx",
    await writeWorkbook([
      { sheet: "Notes", data: notes },
      { sheet: "Goods", data: goods },
    ]).toBuffer(),
  );
  await page.getByLabel("Its sheet").selectOption("Goods");
  await expect(page.getByText("A currency that only a cell’s format shows is not seen")).toBeVisible();
  await expect(page.getByText("Row 6, “Total")).toBeVisible();
  await does(page, "Put 2 lines on the shelf", "Received 2 lots on 1 receipt from a file");
  await open(page, "/shelf/receipts");
  await expect(page.getByRole("row", { name: /Press house.*€22\.2[45]/ })).toBeVisible();
  await open(page, "/shelf/receive/file");
  await file("old.xls", Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1, 0, 0]));
  await expect(page.getByRole("alert").filter({ hasText: "Save it as .xlsx or as CSV" })).toBeVisible();
  await file("broken.xlsx", Buffer.from("PK\x03\x04 and nothing else"));
  await expect(page.getByRole("alert").filter({ hasText: "can't be read as a spreadsheet" })).toBeVisible();
});

test("a long list says how far it is, and can be stopped: nothing of it is kept", async ({ page }) => {
  await open(page, "/shelf/receive/file");
  const lines = Array.from({ length: 6000 }, (_, i) => `Castor oil;1;1 kg;9,90;Long Mill ${i};2026-06-01`).join("\n");
  await page
    .getByLabel("File", { exact: true })
    .setInputFiles({ name: "long.csv", mimeType: "text/csv", buffer: Buffer.from(`item;qty;size;total;supplier;date\n${lines}`) });
  await page.getByRole("button", { name: /Put 6\s000 lines on the shelf/ }).click();
  await expect(page.getByRole("progressbar", { name: "Putting on the shelf" })).toBeVisible();
  await page.getByRole("button", { name: "Stop", exact: true }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Stopped. Nothing of it was kept." }).first()).toBeVisible({
    timeout: 20_000,
  });
  await open(page, "/shelf/receipts");
  await expect(page.getByText("Long Mill")).toHaveCount(0);
});

test("a picking is weighed as it dries and becomes a lot with its year", async ({ page }) => {
  await open(page, "/shelf/harvests/new");
  await page.getByLabel("Herb").fill("Calendula petals, dried");
  await page.getByLabel("Fresh weight").fill("400 g");
  await page.getByLabel("At, °C").fill("70");
  await expect(page.getByText("lose what they are dried for")).toBeVisible();
  await page.getByLabel("At, °C").fill("45");
  await does(page, "Set it to dry", "Picked 400 g of Calendula petals, dried");
  await page.getByLabel("Weighs", { exact: true }).fill("90 g");
  await page.getByRole("button", { name: "Note it" }).click();
  await expect(figure(page, "Now")).toContainText("90 g");
  await page.getByLabel("Dry weight").fill("350 g");
  await page.getByLabel(/It snaps/).check();
  await page.getByRole("button", { name: "Put it on the shelf" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "hardly lost any water" })).toBeVisible();
  await page.getByLabel("Dry weight").fill("82 g");
  await page.getByLabel("Minutes in all").fill("30");
  await expect(page.getByText("Worth €8.00")).toBeVisible();
  await does(page, "Put it on the shelf", "82 g of Calendula petals, dried dried into lot");
});

test("what is low is on the shopping list by supplier, as CSV too; an offer is compared; what refers to a material keeps it", async ({
  page,
}) => {
  await open(page, "/shelf");
  await page.getByRole("link", { name: "Castor oil" }).click();
  await page.getByRole("link", { name: "Change facts" }).click();
  await page.getByLabel("Remind me to buy").selectOption("hand");
  await page.getByLabel("Remind me below").fill("9 kg");
  await does(page, "Save", "Saved Castor oil");
  await page.getByRole("link", { name: "Buying" }).click();
  await page.getByLabel("An offer seen at").fill("Wether Mill");
  await page.getByLabel("Pack", { exact: true }).fill("5 bushels");
  await page.getByLabel("Price", { exact: true }).fill("9.00");
  await page.getByRole("button", { name: "Note the offer" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "isn't a unit" })).toBeVisible();
  await page.getByLabel("Pack", { exact: true }).fill("1 L");
  await does(page, "Note the offer", "Noted 1 L of Castor oil at Wether Mill");
  await expect(page.getByRole("row", { name: /Wether Mill/ })).toContainText("€9.38/kg");
  await open(page, "/shelf/shopping");
  await expect(page.getByRole("heading", { name: "Wether Mill" })).toBeVisible();
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "As CSV" }).click();
  const csv = await (await download).createReadStream().then(async (s) => Buffer.concat(await s.toArray()).toString());
  expect(csv).toMatch(/^\ufeffsupplier,material,wanted,unit,packs,each holds,price of all \(EUR\)\r\n/);
  expect(csv).toContain("Wether Mill,Castor oil,");
  await open(page, "/shelf");
  await page.getByText("Value by costing method").click();
  await expect(page.getByRole("row", { name: /Replacement cost/ })).toContainText("€");
  await page.getByRole("link", { name: "Jojoba oil" }).click();
  await page.getByRole("button", { name: "Delete it" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "can't be deleted: it is in" })).toBeVisible();
  await page.getByRole("button", { name: "Put it away instead" }).click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Put Jojoba oil away");
  await page.getByRole("button", { name: "Bring it back" }).click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("back on the shelf");
});
