/** The first week: what is put away, found, mended, remembered and read at arm's length. */
import { expect } from "@playwright/test";
import { choose, does, figure, fillRow, open, test } from "../hand.ts";

test("suppliers and recipes: copied, put away, brought back; the never used deleted, the used kept with the reason", async ({ page }) => {
  await open(page, "/people?of=supplier");
  await expect(page.getByRole("tab", { name: "Suppliers" })).toHaveAttribute("aria-selected", "true");
  await page.getByRole("link", { name: "Skerrow Oil Press" }).click();
  await page.getByRole("button", { name: "Put it away" }).click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Put Skerrow Oil Press away");
  await open(page, "/shelf/receive");
  await page.getByLabel("Supplier", { exact: true }).fill("skerow");
  await expect(page.getByRole("option", { name: /Skerrow/ })).toHaveCount(0);
  await open(page, "/people?of=supplier");
  await page.getByRole("link", { name: "Skerrow Oil Press" }).click();
  await page.getByRole("button", { name: "Delete it" }).click();
  await expect(page.getByText(/can't be deleted: the books name it/)).toBeVisible();
  await does(page, "Bring it back", "Brought Skerrow Oil Press back");
  await page.getByRole("link", { name: "Copy it" }).click();
  // Until the new sheet is there, what is typed would be the copied one's.
  await expect(page).toHaveURL(/people\/new/);
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("");
  await expect(page.getByLabel("Where to order")).toHaveValue("Call first; closed in July");
  await page.getByLabel("Name", { exact: true }).fill("Skerrow Oil Press, the shop");
  await does(page, "Save", "Saved Skerrow Oil Press, the shop");
  await does(page, "Delete it", "Deleted Skerrow Oil Press, the shop");

  await open(page, "/recipes");
  await page.locator("#work").getByRole("link", { name: "Oat lotion bar" }).first().click();
  await page.getByRole("link", { name: "Copy it" }).click();
  // Until then the sheet that is typed on would be the copied one's.
  await expect(page.getByRole("heading", { level: 1, name: "Like Oat lotion bar" })).toBeVisible();
  await page.getByLabel("Name", { exact: true }).fill("Oat bar for winter");
  await page.getByLabel("Lot letters").fill("OW");
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Oat bar for winter");
  await does(page, "Save the recipe", "Saved Oat bar for winter");
  await does(page, "Put it away", "Put Oat bar for winter away");
  await open(page, "/bench/set-out");
  await page.getByLabel("Recipe", { exact: true }).click();
  await expect(page.getByRole("option", { name: /Oat lotion bar/ })).toBeVisible();
  await expect(page.getByRole("option", { name: /Oat bar for winter/ })).toHaveCount(0);
  await page.keyboard.press("Escape");
  await open(page, "/recipes");
  await page.getByText("1 recipe put away").click();
  await page.getByRole("link", { name: "Oat bar for winter" }).click();
  await does(page, "Delete it", "Deleted Oat bar for winter");
});

test("a list finds while typing, sorts by a heading, and is found again as it was left", async ({ page }) => {
  await open(page, "/recipes");
  const names = () => page.locator("tbody th a").allInnerTexts();
  await page.getByLabel("Find among the recipes").fill("hand bukthorn");
  await expect.poll(names).toEqual(["Sea buckthorn hand balm", "Sea buckthorn hand balm"]);
  await page.locator("#work").getByRole("link", { name: "Sea buckthorn hand balm" }).first().click();
  await expect(page.getByRole("button", { name: "Save the recipe" })).toBeVisible();
  await page.getByRole("link", { name: "Recipes", exact: true }).click();
  await expect(page.getByLabel("Find among the recipes")).toHaveValue("hand bukthorn");
  await page.getByLabel("Find among the recipes").fill("");
  const wax = page.getByRole("columnheader", { name: "Wax" });
  await wax.getByRole("button").click();
  await expect(wax).toHaveAttribute("aria-sort", "descending");
  const shares = async () => (await page.locator("tbody tr td:nth-child(5)").allInnerTexts()).map(parseFloat).filter((n) => !isNaN(n));
  expect(await shares()).toEqual([...(await shares())].sort((a, b) => b - a));
  await wax.getByRole("button").click();
  await expect(wax).toHaveAttribute("aria-sort", "ascending");
  await page.getByLabel("Find among the recipes").fill("no such thing");
  await expect(page.getByText("None of the recipes matches “no such thing”.")).toBeVisible();
});

test("what was said of a field goes when the field is right, not before; no figure stands meanwhile", async ({ page }) => {
  await open(page, "/shelf/receive");
  await page.getByLabel("Supplier", { exact: true }).fill("Mend and Make");
  await fillRow(page, 1, { Material: "Castor oil", "Each holds": "1 L", "Price of all": "12 quid" });
  await expect(figure(page, "Paid in all")).toContainText("—");
  await expect(page.locator("aside").getByText(/No figures until it adds up: Price, row 1/)).toBeVisible();
  await page.getByRole("button", { name: "Put on the shelf" }).click();
  const price = page.getByLabel("Price of all, row 1");
  const held = page.getByRole("button", { name: /^Not saved/ });
  await expect(held).toBeVisible();
  await expect(price).toHaveAttribute("aria-invalid", "true");
  // Still wrong: it stays said.
  await price.fill("12,5x");
  await page.waitForTimeout(900);
  await expect(price).toHaveAttribute("aria-invalid", "true");
  await price.fill("12.50");
  await expect(price).not.toHaveAttribute("aria-invalid", "true");
  await expect(held).toHaveCount(0);
  await expect(figure(page, "Paid in all")).toContainText("€12.50");
  // Nothing was kept by trying.
  await open(page, "/people?of=supplier");
  await expect(page.getByText("Mend and Make")).toHaveCount(0);
  await open(page, "/shelf/receive", { goOn: true });
  await page.getByRole("button", { name: "Throw it away" }).click();
});

test("small sheets laid over a page and files are kept unfinished too", async ({ page }) => {
  await open(page, "/cabinet");
  await page
    .getByRole("button", { name: /^Take out of/ })
    .first()
    .click();
  await page.getByLabel("Note", { exact: true }).fill("For the school fair");
  await page.waitForTimeout(800);
  await page.reload();
  await expect(page.getByLabel("Note", { exact: true })).toHaveValue("For the school fair");
  await page.getByRole("button", { name: "Throw it away" }).click();
  // Left at once: what was thrown away doesn't come back.
  await open(page, "/", { goOn: true });
  await expect(page.getByRole("link", { name: /^Taking out of/ })).toHaveCount(0);
  await open(page, "/cabinet", { goOn: true });
  await expect(page.getByRole("dialog")).toHaveCount(0);

  await open(page, "/shelf/receive/file");
  await page
    .getByLabel("Rows", { exact: true })
    .fill("material;packs;size;price;supplier;date\nCastor oil;1;1 L;9,90;File Mill;2026-06-01");
  await expect(page.getByRole("button", { name: "Put 1 line on the shelf" })).toBeEnabled();
  await page.waitForTimeout(800);
  await open(page, "/", { goOn: true });
  await page
    .getByRole("region", { name: "Left unfinished" })
    .getByRole("link", { name: /^Receipts from a file/ })
    .click();
  await expect(page.getByLabel("Rows", { exact: true })).toHaveValue(/File Mill/);
  await expect(page.getByRole("button", { name: "Put 1 line on the shelf" })).toBeEnabled();
  await page.getByRole("button", { name: "Throw it away" }).click();
});

test("closed sheets are read, not filled in; what was done on Today is done there and can be taken back", async ({ page }) => {
  for (const path of ["/markets/1", "/gifts/1", "/bench/1"]) {
    await open(page, path);
    await expect(page.locator("main :is(input, select, textarea)")).toHaveCount(0);
    await expect(page.getByRole("button", { name: "Print" })).toBeVisible();
  }
  await open(page, "/gifts/1");
  await page.getByRole("link", { name: "Write another like it" }).click();
  await expect(page.getByLabel("Product, row 1")).not.toHaveValue("");
  await expect(page.getByLabel("For", { exact: true })).toHaveValue("");

  await open(page, "/");
  const today = page.getByRole("region", { name: "Today", exact: true });
  await today.getByRole("button", { name: /^Thrown away/ }).click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("thrown away");
  await expect(page).toHaveURL(/\/demo\/?$/);
  await expect(today.getByRole("button", { name: /^Thrown away/ })).toHaveCount(0);
  await page.getByRole("status", { name: "What was done" }).getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Took back");
  await open(page, "/");
  await expect(today.getByRole("button", { name: /^Thrown away/ })).toHaveCount(1);
  await expect(page.getByRole("region", { name: "The week ahead" }).getByRole("listitem")).not.toHaveCount(0);
});

test("an order that lacks units leads to the batch, the jar and the purchase it waits for, each with its last day", async ({ page }) => {
  await open(page, "/gifts/new");
  await page.getByLabel("For", { exact: true }).fill("Heron Lock kitchen");
  await page.getByLabel("Due", { exact: true }).fill("in 30 days");
  await fillRow(page, 1, { Product: "Sea buckthorn hand balm, 60 g", Units: "60", "Price of one": "11.50" });
  await page.getByLabel("Product, row 1", { exact: true }).press("Enter");
  await fillRow(page, 2, { Product: "Meadowsweet garden salve, 60 g", Units: "40", "Price of one": "9.00" });
  await does(page, "Save the order", "Heron Lock kitchen");
  const order = page.url();

  await open(page, "/gifts");
  const row = page.getByRole("row", { name: /Heron Lock kitchen/ });
  await expect(row).toContainText("Missing");
  const steps = row.getByRole("list", { name: "To begin" });
  await expect(steps.getByRole("listitem").filter({ hasText: /^Make \d+ × Meadowsweet garden salve, 60 g/ })).toContainText("pour by");
  const make = steps.getByRole("link", { name: /^Make \d+ × Sea buckthorn hand balm, 60 g/ });
  const units = /^Make (\d+)/.exec(await make.innerText())![1]!;
  await make.click();
  // As many of that size as are missing, and none of the other.
  await expect(page.getByLabel("Pots of 60 g", { exact: true })).toHaveValue(units);
  await expect(page.getByLabel("Pots of 12 mL", { exact: true })).toHaveValue("");

  await open(page, new URL(order).pathname);
  const aside = page.locator("aside").getByRole("list", { name: "To begin" });
  await aside.getByRole("link", { name: /^Fill a jar for .* Meadowsweet in sunflower oil/ }).click();
  // As it was steeped the last time.
  await expect(page.getByLabel("Herb, row 1", { exact: true })).toHaveValue(/^Meadowsweet/);
  await expect(page.getByLabel("The oil will be called")).toHaveValue("Meadowsweet in sunflower oil");

  await open(page, "/");
  const waits = page.getByRole("listitem").filter({ hasText: "Order for Heron Lock kitchen" }).first();
  await expect(waits.getByRole("listitem").filter({ hasText: "Buy" }).first()).toContainText("order by");
  await waits.getByRole("link", { name: /^Buy .* Sea buckthorn berry oil/ }).click();
  await expect(page).toHaveURL(/shelf\/\d+\/buying$/);

  // An oil made here can be made again where a batch is short of it.
  await open(page, "/bench/set-out");
  await choose(page, "Recipe", "Meadowsweet garden salve");
  await page.getByLabel("Units", { exact: true }).fill("90");
  await expect(page.getByRole("link", { name: "Buy Meadowsweet in sunflower oil" })).toBeVisible();
  await page.getByRole("link", { name: "Fill a jar of Meadowsweet in sunflower oil" }).click();
  await expect(page.getByLabel("The oil will be called")).toHaveValue("Meadowsweet in sunflower oil");
});

test("pictures have their tables", async ({ page }) => {
  for (const [path, part, row] of [
    ["/jars", "Their weeks", /Could be strained from|At its best/],
    ["/cabinet", "By age", /^Left/],
  ] as const) {
    await open(page, path);
    await expect(page.locator(".recharts-bar-rectangle").first()).toBeVisible();
    await page.getByText("The same as a table").click();
    await expect(page.getByRole("columnheader", { name: row }).first()).toBeVisible();
    await expect(page.getByRole("heading", { name: part })).toBeVisible();
  }
  await open(page, "/shelf");
  await expect(page.getByRole("row", { name: /Beeswax, yellow/ })).toContainText(/months|days|years/);
});

test.describe("by thumb", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  test("main figures stay in reach, stations fit a thumb, the device's own wheel chooses", async ({ page }) => {
    await open(page, "/bench/set-out");
    await choose(page, "Recipe", "Oat lotion bar");
    await page.getByLabel("Units", { exact: true }).fill("9");
    await expect(figure(page, "Fills")).toContainText("9 × 50 g");
    await page.getByLabel("Units", { exact: true }).scrollIntoViewIfNeeded();
    await expect(figure(page, "Fills")).toBeInViewport();
    await expect(page.locator("aside").getByText("Left over")).toBeHidden();
    await page.getByRole("button", { name: "All figures" }).tap();
    await expect(page.locator("aside").getByText("Left over")).toBeVisible();
    for (const jar of await page.locator("nav .jar").all()) {
      const box = (await jar.boundingBox())!;
      expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(44);
      expect(box.x + box.width).toBeLessThanOrEqual(390);
    }
  });
});
