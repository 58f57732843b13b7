/** What was done stays done, and can be taken back: sizes from one pot, a correction that reaches everything, two windows on one sheet. */
import { addDays } from "#core/when";
import { expect } from "@playwright/test";
import { openHouse } from "#scripts/database";
import { freePort } from "#scripts/places";
import { serve } from "#scripts/server/serve";
import { choose, does, figure, fillRow, open, test } from "../hand.ts";
import { HOUSE_DATABASE } from "../house.ts";

/** The same workroom a week on: the same books, served on that day. */
async function aWeekOn() {
  const day = addDays(new Date().toISOString().slice(0, 10), 7);
  process.env.ZELBIN_TODAY = day;
  const house = await openHouse(HOUSE_DATABASE);
  const site = await serve(house, await freePort());
  const close = async (): Promise<void> => {
    await site.close();
    await house.close();
    delete process.env.ZELBIN_TODAY;
  };
  return { day, url: site.url, close };
}

test("two sizes from one pot become two lots, go to a market and into an order; the receipt is corrected after, and that is taken back later", async ({
  page,
}) => {
  await test.step("a purchase, and a recipe in two sizes: one by weight, one a pot that is simply filled", async () => {
    await open(page, "/shelf/receive");
    await page.getByLabel("Supplier", { exact: true }).fill("Tollgate Oils");
    await fillRow(page, 1, { Material: "Castor oil", Packs: "1", "Each holds": "2 kg", "Price of all": "40.00" });
    // The shortest-lived of its lots, so that it is used first.
    await page.getByLabel("Best before, row 1").fill(addDays(new Date().toISOString().slice(0, 10), 70));
    await does(page, "Put on the shelf", "Received 1 lot from Tollgate Oils");
    await open(page, "/recipes/new");
    await page.getByLabel("Name", { exact: true }).fill("Tollgate balm");
    await page.getByLabel("Lot letters").fill("tg");
    await fillRow(page, 1, { Material: "Beeswax, yellow", Amount: "60 g", "Measured as": "block" });
    await fillRow(page, 2, { Material: "Castor oil", Amount: "440 g" });
    await page.getByLabel("Container").fill("Screw tin, 80 mL");
    await page.getByLabel("Filled with").fill("95 g");
    await expect(page.getByRole("note").getByText(/mL is more than the \d+ mL Screw tin, 80 mL holds/)).toBeVisible();
    await page.getByLabel("Filled with").fill("50 g");
    await page.getByRole("button", { name: "Add a size" }).click();
    await page.getByLabel("Container").nth(1).fill("Glass pot, 12 mL");
    await expect(page.locator("aside").getByText("One of each size")).toBeVisible();
    await does(page, "Save the recipe", "Saved Tollgate balm");
  });

  const lots: string[] = [];
  await test.step("set out as a mix, weighed in ounces beside grams, counted size by size", async () => {
    await page.getByRole("link", { name: "Set out a batch" }).click();
    await page.getByLabel("How large").selectOption("written");
    await page.getByLabel("Pots of 50 g").fill("6");
    await page.getByLabel("Pots of 12 mL").fill("");
    await expect(figure(page, "and")).toContainText(/1\d × 12 mL/);
    await page.getByRole("button", { name: "Set out", exact: true }).click();
    await expect(page.getByText(/Weigh sheet for 6 × 50 g and 1\d × 12 mL, by version 1/)).toBeVisible();
    await page.getByRole("button", { name: "ounces" }).click();
    await expect(page.locator("li p.weight").first()).toContainText(/2\.1\d? oz 60\.\d g/);
    await page.getByRole("button", { name: "grams" }).click();
    for (const input of await page.getByLabel(/^Weighed: /).all())
      await input.fill(await input.locator("xpath=ancestor::li").locator("p.weight").innerText());
    await page.getByLabel("Filled, 50 g").fill("6");
    await page.getByLabel("Filled, 12 mL").fill("12");
    await page.getByLabel("Minutes of work").fill("60");
    await does(page, "Pour", /Poured 6 × 50 g and 12 × 12 mL of Tollgate balm, lots TG/);
    lots.push(...(await page.locator("section.sheet a.lot").filter({ hasText: /^TG/ }).allInnerTexts()));
    expect(lots).toHaveLength(2);
  });
  const record = page.url().replace(/\?.*/, "");

  await test.step("the tins go to a market, the pots into an order", async () => {
    await open(page, "/markets/new");
    await page.getByLabel("Market", { exact: true }).fill("Tollgate fair");
    await fillRow(page, 1, { Lot: lots[0]!, Taken: "6", Sold: "5", Price: "9" });
    await page.getByRole("button", { name: "Save the day" }).click();
    await does(page, "Close the day", "Closed Tollgate fair: 5 units sold");
    await open(page, "/gifts/new");
    await page.getByLabel("For", { exact: true }).fill("Toll house");
    await page.getByLabel("Due").fill("in 2 weeks");
    await fillRow(page, 1, { Product: "Tollgate balm, 12 mL", Units: "4", "Price of one": "4" });
    await page.getByRole("button", { name: "Save the order" }).click();
    await does(page, "Pack it", "Packed the order for Toll house");
  });
  const order = page.url().replace(/\?.*/, "");
  const paid = async (): Promise<string[]> => {
    const seen: string[] = [];
    await page.goto(record);
    for (const label of ["Cost of one, 50 g", "Cost of one, 12 mL"]) seen.push(await figure(page, label).innerText());
    await page.goto(order);
    seen.push(await figure(page, "Costs").innerText());
    await open(page, "/markets");
    await page.getByRole("link", { name: "Tollgate fair" }).first().click();
    seen.push(await figure(page, "Stock that went").innerText());
    return seen;
  };
  const before = await paid();

  await test.step("the receipt was wrong: batch, day and order follow, and say by how much and why", async () => {
    await open(page, "/shelf/receipts");
    await page.getByRole("link", { name: "Tollgate Oils" }).click();
    await page.getByRole("link", { name: "Correct it" }).click();
    await page.getByLabel("Price of all, row 1").fill("400.00");
    await does(page, "Save the correction", "Corrected the receipt from Tollgate Oils");
    const after = await paid();
    for (const [i, figures] of after.entries()) expect(figures).not.toBe(before[i]);
    for (const at of [record, order]) {
      await page.goto(at);
      await expect(page.getByRole("heading", { name: "Corrected since" })).toBeVisible();
      await expect(page.getByRole("link", { name: "Corrected the receipt from Tollgate Oils" }).first()).toBeVisible();
    }
  });

  await test.step("a week later: what stands in the way is named with a link; the correction itself goes back, and every figure is as it was", async () => {
    const week = await aWeekOn();
    await open(page, `${week.url}/book?find=tollgate`);
    const received = page.getByRole("listitem").filter({ hasText: "Received 1 lot from Tollgate Oils" });
    await received.getByRole("button").click();
    await expect(received.getByRole("alert")).toContainText("Take that back first");
    await received.getByRole("alert").getByRole("link", { name: "Corrected the receipt from Tollgate Oils" }).click();
    await expect(page.getByRole("heading", { name: "Corrected the receipt from Tollgate Oils" })).toBeVisible();
    await expect(page.getByRole("row", { name: /receipt corrected/ })).toBeVisible();
    await page.getByRole("button", { name: "Take it back" }).click();
    await expect(page.getByRole("status", { name: "What was done" })).toContainText("Took back: Corrected the receipt");
    await open(page, `${week.url}/book?find=took+back`);
    const last = page.getByRole("listitem").filter({ hasText: "Took back: Corrected the receipt from Tollgate Oils" });
    await expect(last.locator(`time[datetime="${week.day}"]`)).toBeVisible();
    await week.close();
    expect(await paid()).toEqual(before);
    await open(page, "/book?find=poured+tollgate");
    await page.getByRole("button", { name: /^Take back: Poured/ }).click();
    await expect(page.getByRole("alert")).toContainText("has been used or counted since");
    await expect(page.getByRole("alert").getByRole("link").first()).toBeVisible();
  });
});

test("two windows saving one recipe: both sheets are shown field by field, and neither is lost; a poured batch keeps its version", async ({
  page,
  context,
}) => {
  await open(page, "/recipes");
  await page.locator("#work").getByRole("link", { name: "Birch and juniper foot balm" }).click();
  await expect(page.getByRole("heading", { name: "Birch and juniper foot balm" })).toBeVisible();
  const recipe = page.url();
  const other = await context.newPage();
  await open(other, recipe);
  await other.getByLabel("Minutes a batch").fill("61");
  await other.getByLabel("Step 1", { exact: true }).fill("Wax first. Stir for four minutes.");
  await other.getByLabel("What changed, and why").fill("longer stirring");
  await does(other, "Save the recipe", "Saved Birch and juniper foot balm, version 2");
  await other.close();

  await page.getByLabel("Step 1", { exact: true }).fill("Wax first, then cocoa.");
  await page.getByLabel("Keeps, months").fill("11");
  await page.getByRole("button", { name: "Save the recipe" }).click();
  const both = page.getByRole("region", { name: "Changed meanwhile" });
  await expect(both).toContainText("Saved Birch and juniper foot balm, version 2");
  await expect(both.getByRole("row", { name: /^Method/ })).toContainText("Stir for four minutes");
  await expect(
    both
      .getByRole("row", { name: /^Minutes a batch/ })
      .getByRole("radio")
      .last(),
  ).toBeChecked();
  await both
    .getByRole("row", { name: /^Method/ })
    .getByRole("radio")
    .last()
    .check();
  await both.getByRole("button", { name: "Go on with this" }).click();
  await expect(page.getByLabel("Step 1", { exact: true })).toHaveValue("Wax first. Stir for four minutes.");
  await expect(page.getByLabel("Minutes a batch")).toHaveValue("61");
  await expect(page.getByLabel("Keeps, months")).toHaveValue("11");
  await does(page, "Save the recipe", "Saved Birch and juniper foot balm, version 3");
  await page.locator("summary").filter({ hasText: "Versions" }).click();
  await expect(page.getByRole("row", { name: /longer stirring/ })).toBeVisible();

  await open(page, "/bench");
  await page.locator("#work").getByRole("link", { name: "Birch and juniper foot balm" }).first().click();
  await expect(page.getByText("by version 1, which is no longer the newest")).toBeVisible();
  await expect(page.getByText("Scent below 50 °C, stir three minutes.")).toBeVisible();

  // A batch is made by the newest unless an older one is chosen: its lines are weighed, and the sheet is by it.
  await open(page, recipe);
  await page.getByRole("link", { name: /Two side by side/ }).click();
  await page.getByRole("link", { name: "Set out a batch by version 2" }).click();
  const by = page.getByRole("combobox", { name: "Made by" });
  await expect(by).toContainText("Version 2");
  await expect(page.getByText("It is made by version 3 now.")).toBeVisible();
  await choose(page, "Recipe", "Oat lotion bar");
  await expect(by).toHaveCount(0);
  await choose(page, "Recipe", "Birch and juniper foot balm");
  await expect(by).toContainText("Version 3");
  await choose(page, "Made by", "Version 2");
  await page.getByLabel("Units", { exact: true }).fill("2");
  await does(page, "Set out", "Set out Birch and juniper foot balm");
  await expect(page.getByText("Weigh sheet for 2")).toContainText("by version 2");
});
