/**
 * Sheets that know only what they name: the rest is asked for as it is typed, and nothing a hand does meanwhile is lost, whether the answer
 * comes late, never, or after the hand was quicker. And the ways between pages, which one listener follows.
 */
import { expect, type Page, type Route } from "@playwright/test";
import { choose, does, figure, fillRow, open, test } from "../hand.ts";

/** Holds back every answer of some address until it is let go. */
async function holdBack(page: Page, address: RegExp): Promise<() => Promise<void>> {
  const held: Route[] = [];
  let free = false;
  await page.route(address, (route) => {
    if (free) return route.continue();
    held.push(route);
    return undefined;
  });
  return async () => {
    free = true;
    await Promise.all(held.map((route) => route.continue()));
  };
}

test("an order's price and what is free come when the product is known; a price typed meanwhile stays", async ({ page }) => {
  await open(page, "/gifts/new");
  const letGo = await holdBack(page, /named\/product/);
  await fillRow(page, 1, { Product: "Juniper work bar, 70 g", Units: "2" });
  await page.getByRole("button", { name: "Add a product" }).click();
  await fillRow(page, 2, { Product: "juniper work bar, 70 G", Units: "1", "Price of one": "11.50" });
  // While nobody has answered it isn't said to be missing.
  await expect(page.getByText("isn't one of the products")).toHaveCount(0);
  await letGo();
  await expect(page.getByLabel("Price of one, row 1")).toHaveValue("13.00");
  await expect(page.getByLabel("Price of one, row 2")).toHaveValue("11.50");
  await expect(figure(page, "Goods")).toContainText("€37.50");
  await fillRow(page, 2, { Product: "A bar of the moon, 70 g" });
  await expect(page.getByText("Product, row 2: It isn't one of the products.")).toBeVisible();
  await expect(figure(page, "Price")).toContainText("—");
});

test("kept before the price was found: it waits for the price, and is kept with it", async ({ page }) => {
  await open(page, "/gifts/new");
  await page.getByLabel("For", { exact: true }).fill("Weir cottage");
  await page.getByLabel("Due").fill("2099-03-01");
  const letGo = await holdBack(page, /named\/product/);
  await fillRow(page, 1, { Product: "Juniper work bar, 70 g", Units: "2" });
  const keep = page.getByRole("button", { name: "Save the order" });
  await keep.click();
  await expect(keep).toBeDisabled();
  await letGo();
  await expect(page.getByRole("heading", { name: "Weir cottage" })).toBeVisible();
  await expect(page.getByLabel("Price of one, row 1")).toHaveValue("13.00");
});

test("keys pressed before a field has its list do what they would have done", async ({ page }) => {
  await open(page, "/shelf/receive");
  const letGo = await holdBack(page, /names\/material/);
  const first = page.getByLabel("Material, row 1");
  await first.focus();
  await page.keyboard.type("caster oil");
  await page.keyboard.press("Enter");
  await expect(first).toHaveValue("caster oil");
  await letGo();
  await expect(first).toHaveValue("Castor oil");
  await expect(first).toBeFocused();
  // Left by then: it is chosen where it was typed, and the hand is not called back.
  await page.reload();
  await page.locator("html[data-ready]").waitFor();
  await page.getByRole("button", { name: "Throw it away" }).click();
  const goOn = await holdBack(page, /names\/material/);
  await first.focus();
  await page.keyboard.type("joj");
  await page.keyboard.press("Tab");
  await goOn();
  await expect(first).toHaveValue("Jojoba oil");
  await expect(first).not.toBeFocused();
});

test("where the server doesn't answer a sheet says so and stands; it goes on by itself once it does", async ({ page }) => {
  const away = "a name can't be looked up, as the server doesn't answer. What you typed is still here.";
  for (const [path, named, fills, figureOf] of [
    ["/gifts/new", /named\/product/, () => fillRow(page, 1, { Product: "Juniper work bar, 70 g", Units: "3" }), "Goods"],
    [
      "/shelf/receive",
      /named\/bought/,
      () => fillRow(page, 1, { Material: "Castor oil", "Each holds": "500 mL", "Price of all": "7.50" }),
      "Castor oil",
    ],
  ] as const) {
    await open(page, path);
    await page.route(named, (route) => route.abort());
    await fills();
    await expect(page.getByText(away)).toBeVisible();
    await page.unroute(named);
    await expect(page.getByText(away)).toBeHidden();
    await expect(figure(page, figureOf)).toContainText("€");
  }
});

test("a material's last pack is filled in once it is known, unless another was typed by then", async ({ page }) => {
  await open(page, "/shelf/receive");
  const letGo = await holdBack(page, /named\/bought/);
  await fillRow(page, 1, { Material: "Castor oil" });
  await page.getByRole("button", { name: "Add a line" }).click();
  await fillRow(page, 2, { Material: "Beeswax, yellow", "Each holds": "77 g" });
  await letGo();
  await expect(page.getByLabel("Each holds, row 1")).toHaveValue(/\d/);
  await expect(page.getByLabel("Each holds, row 2")).toHaveValue("77 g");
  // A hand that is in the empty field by then types over what was filled in.
  await page.getByRole("button", { name: "Add a line" }).click();
  const goOn = await holdBack(page, /named\/bought/);
  await fillRow(page, 3, { Material: "Jojoba oil" });
  const third = page.getByLabel("Each holds, row 3");
  await third.focus();
  await goOn();
  await expect(third).toHaveValue(/\d/);
  await page.keyboard.type("3 L");
  await expect(third).toHaveValue("3 L");
});

test("setting out another recipe than the page came with: units typed and a press that came before its lots are not lost", async ({
  page,
}) => {
  await open(page, "/bench/set-out");
  // The page begins with the newest batch's recipe, whichever that is; here with one of one size.
  await choose(page, "Recipe", "Oat lotion bar");
  await expect(page.getByLabel("Units", { exact: true })).toBeVisible();
  await expect(page.getByRole("rowheader", { name: /oat/i }).first()).toBeVisible();
  const letGo = await holdBack(page, /set-out\.data/);
  await choose(page, "Recipe", "Juniper work bar");
  await page.getByLabel("Units", { exact: true }).fill("2");
  await page.getByRole("button", { name: "Set out", exact: true }).click();
  await expect(page).toHaveURL(/set-out/);
  await letGo();
  await expect(page.getByText("Weigh sheet for 2")).toBeVisible();
  await expect(page.getByRole("heading", { name: "Juniper work bar" })).toBeVisible();
  await page.getByRole("button", { name: "Clear off the bench" }).click();
  await expect(page.getByRole("status")).toBeVisible();

  // A hand that is in the field before anything is typed stays in it, and types over what is filled in.
  await open(page, "/bench/set-out");
  await choose(page, "Recipe", "Oat lotion bar");
  await expect(page.getByRole("rowheader", { name: /oat/i }).first()).toBeVisible();
  const goOn = await holdBack(page, /set-out\.data/);
  await choose(page, "Recipe", "Meadowsweet garden salve");
  const units = page.getByLabel("Units", { exact: true });
  await units.focus();
  await goOn();
  await expect(page.getByRole("rowheader", { name: /meadowsweet/i }).first()).toBeVisible();
  await expect(units).toBeFocused();
  await page.keyboard.type("3");
  await expect(units).toHaveValue("3");
});

test("a jar's lots and what comes back are those of the herb and the oil that are named", async ({ page }) => {
  await open(page, "/jars/fill");
  await fillRow(page, 1, { Herb: "Calendula petals, dried" });
  await expect(page.getByLabel("Herb lot, row 1")).toContainText(/-/);
  await fillRow(page, 1, { Oil: "Olive oil" });
  await expect(page.getByLabel("Oil lot, row 1")).toContainText(/-/);
  await expect(figure(page, "Oil back")).toContainText(/\d g/);
  await fillRow(page, 1, { Herb: "Olive oil" });
  await expect(page.getByText("isn't a herb of your shelf")).toBeVisible();
});

test("ways are followed without a new document, from a list and back; with a key held they are the browser's own", async ({
  page,
  context,
}) => {
  await open(page, "/recipes");
  await page.evaluate(() => Object.assign(window, { same: "document" }));
  const same = () => page.evaluate(() => (window as unknown as { same?: string }).same);
  const link = page.locator("#work").getByRole("link", { name: "Juniper work bar" }).first();
  await link.click();
  await expect(page.getByRole("heading", { name: "Juniper work bar" })).toBeVisible();
  expect(await same()).toBe("document");
  await expect(page.getByRole("link", { name: /^Recipes/ })).toHaveAttribute("aria-current", "page");
  await page.goBack();
  await expect(page.getByRole("heading", { name: "Recipes" })).toBeVisible();
  expect(await same()).toBe("document");
  // To the page it is on: nothing to go back to is added.
  const steps = await page.evaluate(() => history.length);
  await page.getByRole("link", { name: /^Recipes/ }).click();
  expect(await page.evaluate(() => history.length)).toBe(steps);
  const [other] = await Promise.all([context.waitForEvent("page"), link.click({ modifiers: ["ControlOrMeta"] })]);
  await expect(other.getByRole("heading", { name: "Juniper work bar" })).toBeVisible();
  await expect(page.getByRole("heading", { name: "Recipes" })).toBeVisible();
  await other.close();
});

test("a receipt left half written means what it named, though that is called otherwise by now and something else has its name", async ({
  page,
}) => {
  await open(page, "/shelf/receive");
  await page.getByLabel("Supplier", { exact: true }).fill("Far Shore");
  await fillRow(page, 1, { Material: "Castor oil", "Each holds": "250 mL", "Price of all": "7.10" });
  await expect(figure(page, "Paid in all")).toContainText("7.10");
  await open(page, "/shelf", { goOn: true });
  await page.getByRole("searchbox").first().fill("castor");
  await page.getByRole("link", { name: "Castor oil", exact: true }).first().click();
  await page.getByRole("link", { name: "Change facts" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Castor oil, cold-pressed");
  await does(page, "Save", "Castor oil, cold-pressed");
  await open(page, "/shelf/new", { goOn: true });
  await page.getByLabel("Name", { exact: true }).fill("Castor oil");
  await does(page, "Add to the shelf", "Castor oil");
  await open(page, "/shelf/receive", { goOn: true });
  await expect(page.getByLabel("Material, row 1")).toHaveValue("Castor oil");
  await page.getByRole("button", { name: "Put on the shelf" }).click();
  await expect(page.getByRole("link", { name: "Castor oil, cold-pressed" }).first()).toBeVisible();
});
