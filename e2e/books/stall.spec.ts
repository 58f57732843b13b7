/** At the stall and the packing table: on a phone, short of stock, on hold, and taken back. */
import { expect } from "@playwright/test";
import { does, figure, fillRow, open, test } from "../hand.ts";

test("a phone at the stall: count what went, see the profit, close the day, and take the closing back", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, "/markets");
  await page.getByRole("link", { name: "Plan a market day" }).click();
  await page.getByLabel("Market", { exact: true }).fill("Quay fair");
  await page.getByLabel("Stall fee").fill("15");
  await page.getByLabel("Hours, with the drive").fill("4");
  await open(page, "/cabinet");
  const bar = await page.locator("a.lot").filter({ hasText: /^OB/ }).first().innerText();
  await page.goBack();
  await page.locator("html[data-ready]").waitFor();
  await page.getByLabel("Market", { exact: true }).fill("Quay fair");
  await page.getByLabel("Stall fee").fill("15");
  await fillRow(page, 1, { Lot: bar.split(" ")[0]!, Taken: "5", Sold: "3", Given: "1", Damaged: "2", Price: "8.50" });
  await page.getByRole("button", { name: "Save the day" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "6 went, but only 5 were taken along" })).toBeVisible();
  await fillRow(page, 1, { Damaged: "" });
  await page.getByLabel("Paid by card").fill("99");
  await page.getByRole("button", { name: "Close the day" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "More was paid by card than was taken" })).toBeVisible();
  await page.getByLabel("Paid by card").fill("");
  await expect(figure(page, "Takings")).toContainText("€25.50");
  await does(page, "Close the day", "Closed Quay fair: 3 units sold");
  await expect(page.getByRole("button", { name: "Close the day" })).toHaveCount(0);
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByRole("button", { name: "Close the day" })).toBeVisible();
  await expect(page.getByLabel("Sold, row 1")).toHaveValue("3");
});

test("a day that hasn't come can't be closed, a lot can't stand twice, and an unknown one is named", async ({ page }) => {
  await open(page, "/markets/5");
  const first = await page.getByLabel("Lot, row 1", { exact: true }).inputValue();
  await page.getByRole("button", { name: "Add a lot" }).click();
  const rows = await page.getByLabel(/^Lot, row/).count();
  await fillRow(page, rows, { Lot: first, Taken: "1" });
  await expect(page.getByRole("button", { name: "Close the day" })).toHaveCount(0);
  await page.getByRole("button", { name: "Save the day" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "is here twice" })).toBeVisible();
  await fillRow(page, rows, { Lot: "XX000000-9" });
  await page.getByRole("button", { name: "Save the day" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "No lot XX000000-9 is in the cabinet" })).toBeVisible();
  await page.getByRole("button", { name: `Remove row ${rows}` }).click();
  await page.getByRole("button", { name: "Save the day" }).click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Saved Aldermoss winter market");
});

test("an order short of stock says what is missing while it is written, and again when packing is tried", async ({ page }) => {
  await open(page, "/gifts/new");
  await page.getByRole("button", { name: "Save the order" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Enter who it is for" })).toBeVisible();
  await expect(page.getByRole("alert").filter({ hasText: "Enter a date" })).toBeVisible();
  await page.getByLabel("For", { exact: true }).fill("Harbour office");
  await page.getByLabel("Due").fill("2099-02-01");
  await fillRow(page, 1, { Product: "Rosehip body butter, 120 g", Units: "30" });
  await fillRow(page, 1, { "Box, ribbon, tissue …": "Gift box for four", "Pieces in all": "99" });
  await expect(page.locator("aside").getByText(/Still missing: \d+ × Rosehip body butter/)).toBeVisible();
  await expect(page.locator("aside").getByText(/Still missing: \d+ × Gift box for four/)).toBeVisible();
  await page.getByRole("button", { name: "Save the order" }).click();
  await expect(page.getByRole("heading", { name: "Harbour office" })).toBeVisible();
  await page.getByRole("button", { name: "Pack it" }).click();
  await expect(
    page
      .getByRole("alert")
      .filter({ hasText: /too little to pack it: \d+ × Rosehip body butter, 120 g.* and \d+ × Gift box for four missing/ }),
  ).toBeVisible();
  await fillRow(page, 1, { Product: "Pixie dust", Units: "none" });
  await page.getByRole("button", { name: "Save the order" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "“Pixie dust” isn't a product" })).toBeVisible();
  await expect(page.getByRole("alert").filter({ hasText: "“none” isn't a number" })).toBeVisible();
});

test("a lot on hold is marked wherever it appears and is not packed; off hold, it is", async ({ page }) => {
  await open(page, "/cabinet");
  const tag = page.locator("a.lot").filter({ hasText: /^RB/ }).first();
  const number = (await tag.innerText()).split(/\s/)[0]!;
  await tag.click();
  await page.getByLabel("Why on hold").fill("Smells of the old rosehip");
  await page.getByRole("button", { name: "Put on hold" }).click();
  await expect(page.getByText("On hold: Smells of the old rosehip. It is used for nothing")).toBeVisible();
  await open(page, "/cabinet");
  await expect(page.locator("a.lot").filter({ hasText: number })).toContainText("on hold");

  await open(page, "/gifts/new");
  await page.getByLabel("For", { exact: true }).fill("Mill house");
  // Sooner than what is promised of it already.
  await page.getByLabel("Due").fill(new Date().toISOString().slice(0, 10));
  await fillRow(page, 1, { Product: "Rosehip body butter, 120 g", Units: "1" });
  await page.getByRole("button", { name: "Save the order" }).click();
  await expect(page.getByRole("heading", { name: "Mill house" })).toBeVisible();
  await page.getByRole("button", { name: "Pack it" }).click();
  await expect(page.getByRole("alert").filter({ hasText: /1 × Rosehip body butter, 120 g .* missing/ })).toBeVisible();

  await open(page, `/lots/${number}`);
  await page.getByRole("button", { name: "Take off hold" }).click();
  await expect(page.getByRole("button", { name: "Put on hold" })).toBeVisible();
  await open(page, "/gifts");
  await page.getByRole("link", { name: "Mill house" }).click();
  await does(page, "Pack it", "Packed the order for Mill house");
  await expect(page.getByText("Packed out of")).toBeVisible();
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByRole("button", { name: "Pack it" })).toBeVisible();
});

test("Today leads to each thing that waits", async ({ page }) => {
  await open(page, "/");
  const tasks = await page.locator("main section li a").evaluateAll((links) => links.map((a) => a.getAttribute("href")!));
  expect(tasks.length).toBeGreaterThan(8);
  for (const href of new Set(tasks)) {
    await page.goto("/demo/");
    await page.locator("html[data-ready]").waitFor();
    // What doesn't fit a glance is folded away.
    await page.locator("main section details").evaluateAll((folded) => folded.forEach((more) => more.setAttribute("open", "")));
    await page.locator(`main section li a[href="${href}"]`).first().click();
    await expect(page).toHaveURL(new RegExp(href.replace(/[?]/g, "\\?")));
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
  }
});
