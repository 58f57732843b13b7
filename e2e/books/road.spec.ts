/** The whole road, through the interface: from receiving a purchase to tracing a sold tin. */
import { expect } from "@playwright/test";
import { does, figure, fillRow, open, test } from "../hand.ts";

test("a purchase is received, a recipe costed, a batch poured, priced, sold at a market and in a gift order, and any tin traced", async ({
  page,
}) => {
  await test.step("Shelf: add a material and receive a purchase of several lines", async () => {
    await open(page, "/shelf");
    await page.getByRole("link", { name: "Add a material" }).click();
    await page.getByLabel("Name", { exact: true }).fill("Hazel oil");
    await page.getByLabel("Kind").selectOption("oil");
    await page.getByRole("button", { name: "Add to the shelf" }).click();
    await expect(page.getByRole("heading", { name: "Hazel oil" })).toBeVisible();

    await open(page, "/shelf/receive");
    await page.getByLabel("Supplier", { exact: true }).fill("Wether Mill");
    await page.getByLabel("Postage").fill("4.00");
    await fillRow(page, 1, {
      Material: "Hazel oil",
      Packs: "2",
      "Each holds": "1 L",
      "Price of all": "30.00",
      "Supplier's lot": "WM-7",
      "Best before": "2099-08-31",
    });
    await expect(page.getByLabel("Best before, row 1")).toHaveValue("31 Aug 2099");
    await page.getByLabel("Best before, row 1").press("Enter");
    await fillRow(page, 2, { Material: "Screw tin, 80 mL", "Each holds": "24", "Price of all": "10.00" });
    // 40.00 of goods and 4.00 of postage: the oil carries three quarters of it, 33.00 over 1.84 kg.
    await expect(figure(page, "Paid in all")).toContainText("€44.00");
    await expect(figure(page, "Hazel oil")).toContainText("€17.93/kg");
    await does(page, "Put on the shelf", "Received 2 lots from Wether Mill");
    await expect(page.getByRole("row", { name: /Hazel oil/ })).toContainText("€17.93/kg");
    await open(page, "/shelf");
    await expect(page.getByRole("row", { name: /Hazel oil/ })).toContainText("1 840.0 g");
    await expect(page.getByRole("row", { name: /Hazel oil/ })).toContainText("€33.00");
  });
  const oilLot = await page
    .getByRole("row", { name: /Hazel oil/ })
    .locator("a.lot")
    .innerText();

  await test.step("Recipes: mixed units, grams beside every line, cost by three costing methods", async () => {
    await open(page, "/recipes/new");
    await page.getByLabel("Name", { exact: true }).fill("Hazel salve");
    await page.getByLabel("Lot letters").fill("hs");
    await fillRow(page, 1, { Material: "Beeswax, yellow", Amount: "1/2 cup", "Measured as": "pellets" });
    await fillRow(page, 2, { Material: "Hazel oil", Amount: "2 cups" });
    await expect(
      page
        .getByRole("row")
        .filter({ has: page.getByLabel("Material, row 1", { exact: true }) })
        .first(),
    ).toContainText("56.78 g");
    await fillRow(page, 3, { Material: "Vitamin E, natural", Amount: "15 drops" });
    await expect(page.getByText("0.95 g", { exact: true })).toBeVisible();
    await page.getByLabel("Container").fill("Screw tin, 80 mL");
    await page.getByLabel("Filled with").fill("2 oz");
    await fillRow(page, 1, { "Lid, label, wrap …": "Round label, 50 mm", "Pieces for one": "1" });
    await expect(figure(page, "Fills")).toContainText("8 units");
    await expect(page.locator("aside").getByText("Average cost")).toBeVisible();
    await expect(page.locator("aside").getByText("The shelf has all of it")).toBeVisible();
    await does(page, "Save the recipe", "Saved Hazel salve");
  });

  let tin = "";
  await test.step("Bench: set out, weigh, pour", async () => {
    await page.getByRole("link", { name: "Set out a batch" }).click();
    await page.getByLabel("Units", { exact: true }).fill("10");
    await expect(figure(page, "Fills")).toContainText("10 × 2 oz");
    await page.getByRole("button", { name: "Set out", exact: true }).click();
    await expect(page.getByText(/Weigh sheet for 10/)).toBeVisible();
    for (const input of await page.getByLabel(/^Weighed: /).all()) {
      const planned = await input.locator("xpath=ancestor::li").locator("p.weight").innerText();
      await input.fill(planned);
    }
    await page.getByLabel("Units filled").fill("10");
    await page.getByLabel("Left in the jug").fill("4 g");
    await page.getByLabel("Minutes of work").fill("60");
    await expect(figure(page, "Yield")).toContainText("%");
    await does(page, "Pour", "Poured 10 × Hazel salve, lot HS");
    tin = await page.locator("a.lot").filter({ hasText: /^HS/ }).first().innerText();
    await expect(figure(page, "Cost of one unit")).toContainText("€");
  });

  await test.step("Cabinet and prices", async () => {
    await open(page, "/cabinet");
    await expect(page.getByRole("row", { name: new RegExp(tin) })).toContainText("10");
    await page.getByRole("button", { name: `Take out of ${tin}` }).click();
    await does(page, "Take out", "Took 1 of");
    await open(page, "/prices");
    await page.locator("#work").getByRole("link", { name: "Hazel salve" }).click();
    await page
      .getByRole("row", { name: /Materials multiplied/ })
      .getByRole("button", { name: /for Market/ })
      .click();
    await expect(page.getByLabel("Market", { exact: true })).not.toHaveValue("");
    await page.getByLabel("Market", { exact: true }).fill("9.50");
    await page.getByLabel("Gift", { exact: true }).fill("10");
    await does(page, "Save these prices", "Prices saved for Hazel salve");
    await open(page, "/prices");
    await expect(page.getByRole("row", { name: /Hazel salve/ })).toContainText("€9.50");
  });

  await test.step("Markets: take along, count, close", async () => {
    await open(page, "/markets/new");
    await page.getByLabel("Market", { exact: true }).fill("Hollin market");
    await page.getByLabel("Hours, with the drive").fill("5");
    await page.getByLabel("Stall fee").fill("20");
    await page.getByLabel("Lot, row 1", { exact: true }).fill(tin);
    await expect(page.getByLabel("Price, row 1")).toHaveValue("9.50");
    await fillRow(page, 1, { Taken: "6", Sold: "4", Given: "1" });
    await page.getByLabel("Paid by card").fill("19");
    await expect(figure(page, "Takings")).toContainText("€38.00");
    await page.getByRole("button", { name: "Save the day" }).click();
    await expect(page.getByRole("heading", { name: "Hollin market" })).toBeVisible();
    await does(page, "Close the day", "Closed Hollin market: 4 units sold");
    await expect(figure(page, "Card fee")).toContainText("€0.33");
  });

  await test.step("Gifts: write the order, pack it", async () => {
    await open(page, "/gifts/new");
    await page.getByLabel("For", { exact: true }).fill("Lock keeper");
    await page.getByLabel("Due").fill("in 2 weeks");
    await fillRow(page, 1, { Product: "Hazel salve, 2 oz", Units: "2" });
    await expect(page.getByLabel("Price of one, row 1")).toHaveValue("10.00");
    await fillRow(page, 1, { "Box, ribbon, tissue …": "Gift box for two", "Pieces in all": "1" });
    await page.getByLabel("Asked for wrapping").fill("3");
    await expect(figure(page, "Price")).toContainText("€23.00");
    await page.getByRole("button", { name: "Save the order" }).click();
    await expect(page.getByRole("heading", { name: "Lock keeper" })).toBeVisible();
    await does(page, "Pack it", "Packed the order for Lock keeper");
    await expect(page.locator("a.lot").filter({ hasText: tin })).toBeVisible();
  });

  await test.step("Lots: from the tin back to every ingredient, and from the oil forward to every buyer", async () => {
    await open(page, "/lots");
    await page.getByLabel("Lot number").fill(tin.toLowerCase());
    await page.getByRole("button", { name: "Trace" }).click();
    await expect(page.getByRole("heading", { name: tin })).toBeVisible();
    const sheet = page.locator("section.sheet");
    for (const name of ["Hazel oil", "Beeswax, yellow", "Vitamin E, natural", "Screw tin, 80 mL"])
      await expect(sheet.getByRole("row", { name: new RegExp(name) }).first()).toBeVisible();
    await expect(sheet).toContainText("WM-7");
    await expect(sheet).toContainText("sold at Hollin market");
    await expect(sheet).toContainText("packed in an order for Lock keeper");
    await expect(figure(page, "Left")).toContainText("2 pcs");
    await sheet.locator("a.lot").filter({ hasText: oilLot }).click();
    await expect(page.getByRole("heading", { name: oilLot })).toBeVisible();
    await expect(page.locator("section.sheet")).toContainText("packed in an order for Lock keeper");
    await page.getByRole("link", { name: "sold at Hollin market" }).click();
    await expect(page.getByRole("heading", { name: "Hollin market" })).toBeVisible();
  });
});
