/** Recipes written, changed and costed: forms, parts, sizes, and the figures that say how they were reached. */
import { expect } from "@playwright/test";
import { does, figure, fillRow, open, test, widerThanAPhone } from "../hand.ts";
import { paste } from "../../scripts/browser.ts";

test("the form is part of the measure: the same cup of wax weighs more as a block, and the wax share with it", async ({ page }) => {
  await open(page, "/recipes");
  await page.locator("#work").getByRole("link", { name: "Meadowsweet garden salve" }).click();
  await expect(page.getByText("56.78 g", { exact: true })).toBeVisible();
  await expect(figure(page, "Wax share")).toContainText("11.5 %");
  await page.getByLabel("Measured as, row 1").selectOption("block");
  await expect(page.getByText("113.56 g", { exact: true })).toBeVisible();
  await expect(figure(page, "Wax share")).toContainText("20.6 %");
  await expect(page.getByLabel("Measured as, row 1").locator("option")).toHaveText([
    "pellets, 56.8 g",
    "grated, 39 g",
    "block",
    "melted, 101.7 g",
  ]);
  await expect(page.getByLabel("Measured as, row 2").locator("option")).toHaveText(["liquid"]);
});

test("every figure of the Reckoner says how it was reached", async ({ page }) => {
  await open(page, "/recipes/1");
  await figure(page, "Ingredients").click();
  const open1 = page.locator("aside details[open]");
  await expect(open1).toContainText("Beeswax, yellow");
  await expect(open1).toContainText(/[\d.]+ g of R\d{5}-\d\d/);
  await figure(page, "Work").click();
  await expect(page.locator("aside details[open]").last()).toContainText("units at €16.00 an hour");
  await page.getByLabel("Minutes a batch").fill("0");
  await page.getByLabel("Minutes a unit").first().fill("0");
  await expect(figure(page, "Work")).toContainText("€0.00");
});

test("a material that two lines are short of is named twice, however much is typed", async ({ page }) => {
  await open(page, "/recipes/new");
  await page.getByLabel("Filled with").fill("50 g");
  for (const row of [1, 2]) await fillRow(page, row, { Material: "Beeswax, yellow", Amount: "90 kg" });
  const short = page.locator("aside p.text-honey");
  await expect(short).toHaveCount(2);
  // A key at a time: each of them is another shortage of the same name.
  await page.getByLabel("Amount, row 2", { exact: true }).fill("");
  await page.getByLabel("Amount, row 2", { exact: true }).pressSequentially("123 kg");
  await expect(short).toHaveCount(2);
});

test("a long recipe has fields where it is looked at and its words everywhere; a slip far down is gone to, and nothing is lost", async ({
  page,
}) => {
  await open(page, "/recipes/new");
  await page.getByLabel("Name", { exact: true }).fill("Of many things");
  await page.getByLabel("Lot letters").fill("MT");
  const cell = (label: string, row: number) => page.getByLabel(`${label}, row ${row}`, { exact: true });
  const rows = Array.from({ length: 50 }, (_, i) => (i % 2 ? "Beeswax, yellow\t1 g" : `Castor oil\t${i} g`));
  await paste(cell("Material", 1), rows.join("\n"));
  await expect(cell("Amount", 50)).toHaveCount(0);
  const last = page.locator(".lines tbody tr").nth(49);
  await expect(last).toContainText("Beeswax, yellow");
  await expect(last).toContainText("pellets");
  await expect(last).toContainText("%");
  await cell("Amount", 1).fill("30 g");
  const share = await last.locator("td").nth(4).textContent();
  await cell("Amount", 1).fill("3000 g");
  await expect(last.locator("td").nth(4)).not.toHaveText(share!);
  // Come to, it is filled in like any other; the field that was typed in stays one.
  await last.scrollIntoViewIfNeeded();
  await cell("Amount", 50).fill("2 bushels");
  await expect(cell("Amount", 2)).toHaveCount(0);
  await expect(page.locator(".lines tbody tr").nth(1)).toContainText("1 g");
  await expect(cell("Amount", 1)).toHaveValue("3000 g");
  await page.getByLabel("Filled with").fill("50 g");
  await page.evaluate(() => scrollTo(0, 0));
  await expect(cell("Amount", 50)).toHaveCount(0);
  await page.getByRole("button", { name: "Save the recipe" }).click();
  await expect(cell("Amount", 50)).toBeFocused();
  await expect(page.getByRole("alert").filter({ hasText: "“bushels” isn't a unit" })).toBeVisible();
  await cell("Amount", 50).fill("2 g");
  await does(page, "Save the recipe", "Saved Of many things");
  await page.reload();
  await expect(cell("Amount", 1)).toHaveValue("3000 g");
  await expect(last).toContainText("2 g");
});

test("a name is looked up as it is typed; where the server doesn't answer it isn't said to be missing, and the figures come when it does", async ({
  page,
}) => {
  await open(page, "/recipes/1");
  await expect(figure(page, "Cost of one unit")).toContainText("€");
  await page.route(/named\/material/, (route) => route.abort());
  await fillRow(page, 2, { Material: "Castor oil", Amount: "100 g" });
  await expect(page.getByText("a name can't be looked up, as the server doesn't answer")).toBeVisible();
  await expect(page.getByText("isn't on the shelf")).toHaveCount(0);
  await page.unroute(/named\/material/);
  await expect(page.getByRole("row").filter({ has: page.getByLabel("Material, row 2") })).toContainText("100.00 g");
  await expect(figure(page, "Cost of one unit")).toContainText("€");
  await fillRow(page, 2, { Material: "Castor oil of the moon" });
  await expect(page.getByText("“Castor oil of the moon” isn't on the shelf").first()).toBeVisible();
  await expect(figure(page, "Cost of one unit")).toContainText("—");
});

test("parts need a batch weight; ratios and per cent become grams that add up to it", async ({ page }) => {
  await open(page, "/recipes/new");
  await page.getByLabel("Filled with").fill("50 g");
  await fillRow(page, 1, { Material: "Coconut oil", Amount: "8 parts" });
  await fillRow(page, 2, { Material: "Cocoa butter, raw", Amount: "8 parts" });
  await fillRow(page, 3, { Material: "Beeswax, yellow", Amount: "6.5 parts" });
  await expect(page.locator("aside").getByText("Say how much the batch makes")).toBeVisible();
  await page.getByLabel("Batch weight").fill("450 g");
  for (const grams of ["160.00 g", "130.00 g"]) await expect(page.getByText(grams, { exact: true }).first()).toBeVisible();
  await expect(figure(page, "Batch")).toContainText("450 g");
  await page.getByRole("button", { name: "Add an ingredient" }).click();
  await fillRow(page, 4, { Material: "Lavender essential oil", Amount: "2 %" });
  await expect(page.getByText("9.00 g", { exact: true })).toBeVisible();
  await expect(figure(page, "Batch")).toContainText("450 g");
  await fillRow(page, 4, { Amount: "101 %" });
  await expect(page.locator("aside").getByText("more than the whole")).toBeVisible();
});

test("a recipe in another size makes a new product; the old one keeps its lots and both are priced by name", async ({ page }) => {
  await open(page, "/recipes");
  await page.locator("#work").getByRole("link", { name: "Oat lotion bar" }).click();
  await page.getByLabel("Filled with").fill("40 g");
  await does(page, "Save the recipe", "Saved Oat lotion bar");
  await open(page, "/cabinet");
  await expect(page.getByRole("rowheader", { name: /Oat lotion bar/ })).toContainText("50 g");
  await open(page, "/prices");
  await expect(page.getByRole("row", { name: /Oat lotion bar/ })).toContainText("40 g");
  await expect(page.getByRole("row", { name: /Oat lotion bar/ })).toContainText("no price");
  await open(page, "/");
  // Further down than a glance where there are many.
  await expect(page.getByRole("region", { name: "Without a price" }).getByText("Oat lotion bar, 40 g has no price")).toBeAttached();
  await open(page, "/recipes");
  await page.locator("#work").getByRole("link", { name: "Oat lotion bar" }).click();
  await page.getByLabel("Filled with").fill("50 g");
  await does(page, "Save the recipe", "Saved Oat lotion bar");
  await open(page, "/prices");
  await expect(page.getByRole("row", { name: /Oat lotion bar/ })).not.toContainText("no price");
});

test("a material’s density, once given, turns spoons into grams that were refused before; a bottle’s drops become a volume", async ({
  page,
}) => {
  await open(page, "/recipes/new");
  await fillRow(page, 1, { Material: "Birch leaf, dried", Amount: "2 tbsp" });
  await expect(page.getByText("has no density for dried").first()).toBeVisible();
  await open(page, "/shelf");
  await page.getByRole("link", { name: "Birch leaf, dried" }).click();
  await page.getByRole("link", { name: "Change facts" }).click();
  await page.getByLabel("Dried, g per mL").fill("12");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("alert").filter({ hasText: "A density here is between 0.05 and 3" })).toBeVisible();
  await page.getByLabel("Dried, g per mL").fill("0.12");
  await does(page, "Save", "Saved Birch leaf, dried");
  await open(page, "/recipes/new");
  await fillRow(page, 1, { Material: "Birch leaf, dried", Amount: "2 tbsp" });
  await expect(page.getByText("3.55 g", { exact: true }).first()).toBeVisible();
  await test.step("a bottle is asked once how it drips; its drops become a volume that no other bottle changes", async () => {
    const drops = async (): Promise<void> => {
      await open(page, "/recipes/new");
      await fillRow(page, 1, { Material: "Lavender essential oil", Amount: "20 drops" });
    };
    await drops();
    await expect(page.getByRole("button", { name: "orifice bottle? 0.59 g" })).toBeVisible();
    await open(page, "/shelf");
    await page.getByRole("link", { name: "Lavender essential oil" }).click();
    await page.locator("main button", { hasText: "…" }).first().click();
    await page.getByLabel("Drops to the mL from this bottle").fill("90");
    await page.getByRole("button", { name: "Say so" }).click();
    await expect(page.getByRole("alert").filter({ hasText: "Enter 5 to 60 drops per mL." })).toBeVisible();
    await page.getByLabel("Drops to the mL from this bottle").fill("25");
    await does(page, "Say so", "25 drops to the mL");
    await drops();
    await page.getByRole("button", { name: "from your bottle 0.71 g" }).click();
    await expect(page.getByLabel("Amount, row 1")).toHaveValue("0.8 mL");
    await expect(page.getByRole("button", { name: /bottle/ })).toBeHidden();
    await open(page, "/bench");
    await page.getByRole("link", { name: /Elderflower lip pot.*weighed/ }).click();
    await expect(page.getByText(/Some 16 drops\./)).toBeVisible();
  });
});

test("own figure: a price a maker would ask, seen on every channel beside what the methods say; what doesn't fit the ladder is mended there", async ({
  page,
}) => {
  await open(page, "/prices/1");
  const asked = await page.getByLabel("Market", { exact: true }).inputValue();
  const own = page.getByRole("row", { name: /Own figure/ });
  await expect(own.getByRole("cell").first()).toHaveText("—");
  await page.getByLabel("Own figure").fill("13.20");
  await expect(own.getByRole("button", { name: "Take €13.00 for Market" })).toBeVisible();
  await expect(own.getByRole("button", { name: "Take €7.30 for Wholesale" })).toBeVisible();
  await own.getByRole("button", { name: /for Gift/ }).click();
  await expect(page.getByLabel("Gift", { exact: true })).toHaveValue("14.00");
  await page.getByLabel("Market", { exact: true }).fill("1");
  await expect(page.locator("aside details").filter({ hasText: "Market, margin" })).toContainText("-€");
  await page.getByLabel("Market", { exact: true }).fill("1.234");
  await page.getByRole("button", { name: "Save these prices" }).click();
  await expect(
    page
      .getByRole("alert")
      .filter({ hasText: "could be" })
      .or(page.getByRole("alert").filter({ hasText: "at most two decimals" })),
  ).toBeVisible();

  await page.getByLabel("Market", { exact: true }).fill("1");
  await does(page, "Save these prices", "Prices saved for");
  await open(page, "/prices");
  await page.getByRole("link", { name: /^Ladder, \d+ to look at$/ }).click();
  await expect(page.getByText(/^60 g: €1\.00 at a market is less than it costs, €\d\.\d\d, and the fee\.$/)).toBeVisible();
  await expect(page.getByText(/a shop pays €\d\.\d\d, and whoever buys at a market €1\.00: that leaves the shop nothing/)).toBeVisible();
  await page.setViewportSize({ width: 390, height: 800 });
  expect(await widerThanAPhone(page)).toEqual([]);
  await page
    .getByRole("listitem")
    .filter({ hasText: "less than it costs" })
    .getByRole("button", { name: /^Ask €\d+\.\d\d for 60 g at a market$/ })
    .click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Another price chosen for Sea buckthorn hand balm, 60 g");
  await expect(page.getByText("is less than it costs")).toHaveCount(0);
  // As the other journeys in this house have it.
  await open(page, "/prices/1");
  await page.getByLabel("Market", { exact: true }).fill(asked);
  await does(page, "Save these prices", "Prices saved for");
});
