/** The whole road by keyboard alone: nothing here is clicked, and every field is gone to as a person goes to it. */
import { expect, type Page } from "@playwright/test";
import { open, test } from "../hand.ts";

/** What a screen reader would call where the focus is. */
const focused = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const at = document.activeElement;
    if (!(at instanceof HTMLElement)) return "";
    const label = "labels" in at ? (at as HTMLInputElement).labels?.[0]?.textContent : null;
    return (at.getAttribute("aria-label") ?? label ?? at.textContent).trim();
  });

/** Tabs on until the focus is where it is wanted. @throws when it never gets there */
async function to(page: Page, name: string | RegExp): Promise<void> {
  const there = (at: string): boolean => (typeof name === "string" ? at === name : name.test(at));
  const passed: string[] = [];
  for (let n = 0; n < 160; n++) {
    const at = await focused(page);
    if (there(at)) return;
    passed.push(at.slice(0, 24));
    await page.keyboard.press("Tab");
  }
  throw new Error(`Tab never came to ${String(name)}; it passed ${passed.join(" · ")}`);
}

/** Replaces what is in a field, leaving it with nothing chosen from a list by mistake. */
async function type(page: Page, field: string | RegExp, text: string): Promise<void> {
  await to(page, field);
  await page.keyboard.press("Control+A");
  await page.keyboard.type(text);
}
const press = async (page: Page, button: string | RegExp): Promise<void> => {
  await to(page, button);
  await page.keyboard.press("Enter");
};
/** Enter in a field that leads on: what is typed the moment after, by a quick hand or by a scale that types, belongs in the next. */
const enterOn = async (page: Page): Promise<void> => {
  const [from, to] = await page.evaluate(() => {
    const at = document.activeElement!;
    at.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true, cancelable: true }));
    return [at, document.activeElement].map((e) => e?.getAttribute("name"));
  });
  expect(to).not.toBe(from);
};
const said = (page: Page, text: string | RegExp) => expect(page.getByRole("status", { name: "What was done" })).toContainText(text);
/** Away from any field, so that the keys of the stations count. */
const station = async (page: Page, key: string, heading: string): Promise<void> => {
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press(key);
  await expect(page.getByRole("heading", { name: heading, exact: true })).toBeVisible();
};

/** Leaves a list by keys. It has headings of the same names as the sheet's fields, and is there a moment longer than its address: it has to be gone first. */
const leave = async (page: Page, by: () => Promise<void>): Promise<void> => {
  await page.locator("main h1").evaluate((heading) => heading.setAttribute("data-left", ""));
  await by();
  await expect(page.locator("main h1:not([data-left])")).toBeVisible();
};
/** A new sheet of the station. */
const another = (page: Page): Promise<void> => leave(page, () => page.keyboard.press("n"));

test("the whole road by keyboard alone: receive, recipe, batch, price, market, order, trace", async ({ page }) => {
  await open(page, "/");
  await test.step("receive, with a material found by a slip of its name", async () => {
    await station(page, "2", "Shelf");
    await another(page);
    await type(page, "Supplier", "Keyhole Mill");
    await type(page, "Material, row 1", "caster oil");
    await expect(page.getByRole("listbox").getByRole("option").first()).toContainText("Castor oil");
    await page.keyboard.press("Enter");
    await type(page, "Packs, row 1", "2");
    await type(page, "Each holds, row 1", "1 L");
    await type(page, "Price of all, row 1", "30");
    await press(page, "Put on the shelf");
    await said(page, "Received 1 lot from Keyhole Mill");
  });
  await test.step("a recipe", async () => {
    await station(page, "4", "Recipes");
    await another(page);
    await type(page, "Name", "Keyhole balm");
    await type(page, "Lot letters", "KH");
    await type(page, "Material, row 1", "Castor oil");
    await type(page, "Amount, row 1", "400 g");
    await type(page, "Material, row 2", "Beeswax, yellow");
    await type(page, "Amount, row 2", "80 g");
    await type(page, "Container", "Screw tin, 80 mL");
    await type(page, "Filled with", "60 g");
    await press(page, "Save the recipe");
    await said(page, "Saved Keyhole balm");
  });
  let lot = "";
  await test.step("set out from a list of our own, weigh, pour", async () => {
    await station(page, "5", "Bench");
    await another(page);
    await to(page, "Recipe");
    await page.keyboard.press("Enter");
    // the list takes the hand over from its button; it begins a new word where a second passes between two letters
    await expect(page.getByRole("option", { selected: true })).toBeFocused();
    await expect(async () => {
      await page.keyboard.type("Keyh");
      await expect(page.getByRole("option", { name: /^Keyhole balm/ })).toBeFocused({ timeout: 2000 });
    }).toPass();
    await page.keyboard.press("Enter");
    await expect(page.getByLabel("Recipe", { exact: true })).toContainText("Keyhole balm");
    await type(page, "Units", "6");
    await press(page, "Set out");
    await expect(page.getByText("Weigh sheet for 6")).toBeVisible();
    for (const weighed of await page.locator("main ol li p.weight").allInnerTexts()) {
      await to(page, /^Weighed: /);
      await page.keyboard.type(weighed.split("\n")[0]!);
      await enterOn(page);
    }
    await type(page, "Units filled", "6");
    await type(page, "Minutes of work", "40");
    await press(page, "Pour");
    await said(page, "Poured 6 × Keyhole balm");
    lot = (await page.locator("a.lot").first().innerText()).split("\n")[0]!;
  });
  await test.step("price it", async () => {
    await station(page, "7", "Prices");
    await leave(page, () => press(page, "Keyhole balm"));
    await type(page, "Market", "12");
    await type(page, "Gift", "13");
    await press(page, "Save these prices");
    await said(page, /Prices/);
  });
  await test.step("take it to a market and close the day", async () => {
    await station(page, "8", "Markets");
    await another(page);
    await type(page, "Market", "Keyhole lane");
    await type(page, "Hours, with the drive", "5");
    await type(page, "Lot, row 1", lot);
    await page.keyboard.press("Enter");
    await type(page, "Taken, row 1", "4");
    await type(page, "Sold, row 1", "3");
    await press(page, "Close the day");
    await said(page, "Closed Keyhole lane: 3 units sold");
  });
  await test.step("an order, packed", async () => {
    await station(page, "9", "Gifts");
    await another(page);
    await type(page, "For", "Locksmith");
    await type(page, "Due", "tomorrow");
    await type(page, "Product, row 1", "Keyhole");
    await expect(page.getByRole("option", { name: /^Keyhole balm/ })).toBeVisible();
    await page.keyboard.press("Enter");
    await type(page, "Units, row 1", "1");
    await press(page, "Save the order");
    await said(page, "Saved the order for Locksmith");
    await press(page, "Pack it");
    await said(page, "Packed the order for Locksmith");
  });
  await test.step("and traced", async () => {
    await station(page, "0", "Lots");
    await type(page, "Lot number", lot);
    await page.keyboard.press("Enter");
    await expect(page.getByText("Keyhole lane").first()).toBeVisible();
    await expect(page.getByText("Locksmith").first()).toBeVisible();
  });
});
