/** A maker's spreadsheets, untidy as they are, come into a new workshop within a few presses each: shown first, asked about, put in, taken back. */
import AxeBuilder from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";
import writeWorkbook from "write-excel-file/node";
import { addDays } from "#core/when";
import { paste } from "#scripts/browser";
import { removeAll, throwAwayHouse } from "#scripts/testing/throwAway";
import { DAYS, ORDERS, SHELF, WORKBOOK } from "#test/lists/willowShed";
import { does, open as openAt, test, widerThanAPhone } from "../hand.ts";
import { HOUSE_DATABASE } from "../house.ts";

// Other journeys begin a workshop of their own in the house they share: this one has a house to itself.
let url = "";
test.beforeAll(async () => void ({ url } = await throwAwayHouse(HOUSE_DATABASE, 1)));
test.afterAll(removeAll);
const open = (page: Page, path: string) => openAt(page, url + path);

test("shelf, recipes, finished goods, prices, a year's markets and orders out of spreadsheets", async ({ page }) => {
  const rows = page.getByLabel("Rows", { exact: true });
  const row = (name: string | RegExp) => page.getByRole("row", { name });

  await test.step("the first steps name them in their order", async () => {
    await open(page, "/demo/workshops");
    await page.getByRole("button", { name: "Begin your own" }).click();
    await page.getByLabel("Your workshop is called").fill("Willow shed");
    await page.getByRole("button", { name: "Go on" }).click();
    await open(page, "/own/begin");
    await page.getByRole("link", { name: /^What you keep/ }).click();
    await rows.fill("name;kind;holds mL\nSquare tin;container;27,5\nBeeswax, yellow;;\nMoon dust;;");
    await expect(page.getByText("Row 4: It doesn't say what “Moon dust” is.")).toBeVisible();
    await page.getByLabel("Moon dust").selectOption("kind:powder");
    await expect(row(/Beeswax, yellow.*Wax.*from the library/s)).toBeVisible();
    await does(page, "Add 3 materials", "Put 3 materials on the shelf from a list");
    await open(page, "/own/begin");
    await page.getByRole("link", { name: /^What is on the shelf/ }).click();
    await rows.fill(SHELF);
    await page.getByLabel("Rows without a material").selectOption("above");
    await page.getByRole("button", { name: /^Take 2 names from the library/ }).click();
    await page.getByLabel("Shea butter").selectOption({ label: "from the library: Shea butter, unrefined" });
    await does(page, "Put 4 lines on the shelf", "4 lots put on the shelf");
  });

  const workbook = { name: "willow.xlsx", mimeType: "", buffer: await writeWorkbook(WORKBOOK).toBuffer() };
  const choose = async (sheet: string): Promise<void> => {
    await page.getByLabel("File", { exact: true }).setInputFiles(workbook);
    await page.getByLabel("Its sheet").selectOption({ label: sheet });
  };
  await test.step("recipes out of a workbook: a slip of a letter is asked about, and its recipe waits", async () => {
    await open(page, "/own/recipes");
    await page.getByRole("link", { name: "From a file" }).first().click();
    await choose("Recipes");
    await expect(page.getByText("Row 10: “Shea buter” isn't on the shelf.")).toBeVisible();
    await expect(page.getByRole("button", { name: "Add 1 recipe" })).toBeEnabled();
    await page.getByLabel("Shea buter").selectOption("Shea butter, unrefined");
    await expect(row(/Willow hand salve.*Salve.*300 g.*60 g, 30 g.*WHS/s)).toBeVisible();
    await does(page, "Add 2 recipes", "Wrote 2 recipes from a list");
    await page.getByRole("link", { name: "Mint lip balm" }).first().click();
    await expect(page.getByLabel("Amount, row 2")).toHaveValue("60.5 g");
  });

  await test.step("what is finished, and what it is sold for", async () => {
    await open(page, "/own/cabinet/file");
    await choose("Finished");
    await expect(row(/Willow hand salve, 60 g.*18.*W17.*by how long the recipe keeps.*€2.17/s)).toBeVisible();
    await does(page, "Add 3 lots", "3 lots put into the cabinet that were there before the books began");
    await page.getByRole("link", { name: /^WHS/ }).first().click();
    await expect(page.getByText("was opening stock").first()).toBeVisible();
    // What isn't in the list isn't nothing: it is not known until it is said.
    await open(page, "/own/cabinet");
    await expect(page.getByText(/but for 47 whose cost isn’t known/)).toBeVisible();
    await page.getByRole("link", { name: /^MLB/ }).first().click();
    await page.getByLabel("One of them cost").fill("0.85");
    await does(page, "Say what it cost", /^Cost of MLB.* of Mint lip balm: what was paid/);
    await open(page, "/own/cabinet");
    await expect(row(/MLB.*€0.85.*€0.85/s)).toBeVisible();
    await open(page, "/own/prices/file");
    await choose("Prices");
    await expect(row(/Willow hand salve, 60 g.*€12.50.*stays.*€7.00/s)).toBeVisible();
    await does(page, "Add 3 products", "5 prices of 3 products chosen from a list");
  });

  await test.step("a year's markets: a name that is no product any more counts by its takings; what was sold has no cost, and says so", async () => {
    await open(page, "/own/markets/file");
    // A whole year, pasted; then another list over it.
    const year = Array.from({ length: 1000 }, (_, i) => `${addDays("2025-01-01", i % 50)};Old mill;Mint lip balm;${1 + (i % 9)};4,50`);
    await paste(rows, ["Date;Market;What;Sold;Each", ...year].join("\n"));
    await expect(page.getByRole("button", { name: "Add 50 market days" })).toBeEnabled();
    await paste(rows, DAYS);
    await expect(page.getByText(/It took €65.00, not 10 × €7.00/)).toBeVisible();
    await page.getByLabel("Beeswax candle").selectOption("none");
    await expect(page.getByText("Row 6: “Sum of May · 346,00”: a sum")).toBeVisible();
    expect(await widerThanAPhone(page)).toEqual([]);
    await page.setViewportSize({ width: 1280, height: 800 });
    const { violations } = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag22aa"]).analyze();
    expect(violations.map((v) => `${v.id}: ${v.nodes[0]!.html.slice(0, 160)}`)).toEqual([]);
    await does(page, "Add 3 market days", "Wrote down 3 earlier market days from a list");
    await page.getByRole("link", { name: "Old mill" }).click();
    await expect(row(/Beeswax candle.*4.*€24.00/s)).toBeVisible();
    await expect(page.getByText("Left, before what the goods cost")).toBeVisible();
  });

  await test.step("orders: what waits for its product stays out, and the whole list is taken back as one", async () => {
    await open(page, "/own/gifts/file");
    await rows.fill(ORDERS);
    await expect(row(/Nora.*20 Dec 2025.*€33.00.*handed over/s)).toBeVisible();
    await expect(row(/The choir.*19 Dec.*€48.00.*to be packed/s)).toBeVisible();
    await does(page, "Add 2 orders", "Added 2 orders from a list, 1 of them handed over before");
    await page.getByRole("link", { name: "Nora" }).click();
    await expect(page.getByText("not known", { exact: true })).toBeVisible();
    await open(page, "/own/gifts/file");
    await rows.fill(ORDERS);
    await expect(page.getByText("Nothing of them is changed: Nora; The choir.")).toBeVisible();
    await open(page, "/own/book");
    await page
      .getByRole("link", { name: /^Added 2 orders from a list/ })
      .first()
      .click();
    await page.getByRole("button", { name: "Take it back" }).click();
    await expect(page.getByRole("status", { name: "What was done" })).toContainText("Took back: Added 2 orders");
    await open(page, "/own/gifts");
    await expect(page.getByText("No gift order yet")).toBeVisible();
  });

  await test.step("the accountant has each year's markets, and is told what isn't known of them", async () => {
    await open(page, "/own/accounts?from=2025-01-01&to=2025-12-31");
    await expect(page.getByText(/^1 sale of goods whose cost isn’t known here is in the takings/)).toBeVisible();
  });
});
