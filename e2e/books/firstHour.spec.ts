/** Day one: a workshop of one's own beside the demo, from nothing to a priced tin with its lot number; then more of it, by thumb. */
import AxeBuilder from "@axe-core/playwright";
import { expect, type Locator, type Page } from "@playwright/test";
import { open, widerThanAPhone, test } from "../hand.ts";

/** Does with a page what a maker does, and counts each press and each field. */
function counting(page: Page) {
  let n = 0;
  const hit = async (l: Locator): Promise<void> => {
    n++;
    await l.click();
  };
  return {
    presses: () => n,
    press: (name: string | RegExp) => hit(page.getByRole("button", { name, exact: typeof name === "string" })),
    follow: (name: string) => hit(page.getByRole("link", { name, exact: true }).first()),
    tick: (name: string) => hit(page.getByRole("checkbox", { name, exact: true })),
    hit,
    fill: async (label: string, text: string): Promise<void> => {
      n++;
      await page.getByLabel(label, { exact: true }).fill(text);
    },
    at: async (path: string): Promise<void> => {
      await page.waitForURL(`**${path}`);
      await page.locator("html[data-ready]").waitFor();
    },
  };
}

test("from the demo to a priced, lot-numbered tin of one's own in under forty-five presses and fields", async ({ page }) => {
  const began = Date.now();
  const { press, follow, tick, hit, fill, at, presses } = counting(page);
  await open(page, "/");
  await expect(page).toHaveURL(/\/demo\/$/);
  await hit(page.getByRole("button", { name: "Workshops" }));
  await hit(page.getByRole("menuitem", { name: /Begin your own/ }));
  await press("Begin your own");
  await at("/own/begin/name");
  await fill("Your workshop is called", "Larkspur Kitchen");
  await press("Go on");
  await at("/begin/work");
  await fill("An hour of your work", "18");
  await press("Go on");
  await at("/begin/materials");
  await tick("Beeswax, yellow");
  await tick("Sunflower oil");
  // What is ticked stays ticked while something else is looked for, and over a reload.
  await page.getByLabel("Find in the library").fill("lavnder");
  await tick("Lavender essential oil");
  await page.reload();
  await expect(page.getByRole("list", { name: "Ticked" }).getByRole("button")).toHaveCount(3);
  await press("Take 3 and go on");
  await at("/begin/containers");
  await tick("Glass jar, 60 mL (2 oz)");
  await tick("Round label, 50 mm");
  await press("Take 2 and go on");
  await at("/begin/opening");
  // The jar brought the lid that fits it.
  const rows = [
    ["Beeswax, yellow", "500 g", "9.50"],
    ["Sunflower oil", "3 L", "21"],
    ["Lavender essential oil", "30 mL", ""],
    ["Glass jar, 60 mL (2 oz)", "48", "28"],
    ["Round label, 50 mm", "100", "7"],
    ["Metal lid for a 60 mL jar", "48", "9"],
  ] as const;
  for (const [i, [name, amount, cost]] of rows.entries()) {
    await expect(page.getByLabel(`Material, row ${i + 1}`, { exact: true })).toHaveValue(name);
    await fill(`On hand, row ${i + 1}`, amount);
    if (cost) await fill(`It cost, row ${i + 1}`, cost);
  }
  await expect(page.locator("aside").filter({ hasText: "Without a cost" })).toContainText("1 lot");
  await press("Put 6 lots on the shelf");
  await at("/recipes/new");
  await fill("Name", "Lavender salve");
  for (const [i, [name, amount]] of [
    ["Beeswax, yellow", "60 g"],
    ["Sunflower oil", "400 g"],
    ["Lavender essential oil", "60 drops"],
  ].entries()) {
    await fill(`Material, row ${i + 1}`, name!);
    await fill(`Amount, row ${i + 1}`, amount!);
  }
  await fill("Container", "Glass jar, 60 mL (2 oz)");
  // Nothing said of how much: full.
  await expect(page.getByLabel("Lot letters")).toHaveValue("LS");
  await expect(page.getByText("Nobody has said what Lavender essential oil cost")).toBeVisible();
  await press("Save and go on");
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Saved Lavender salve");
  await at("/bench/set-out");
  // What the recipe is written for.
  await expect(page.getByLabel("Units", { exact: true })).toHaveValue("7");
  await press("Set out");
  await page.waitForURL(/bench\/\d+$/);
  for (const [of, weight] of [
    ["Weighed: Beeswax, yellow, line 1", "59.6"],
    ["Weighed: Sunflower oil, line 2", "397.0"],
    ["Weighed: Lavender essential oil, line 3", "2.6"],
  ] as const) {
    await fill(of, weight);
  }
  await fill("Units filled", "7");
  await press("Pour");
  await expect(page.getByRole("status", { name: "What was done" })).toContainText(/Poured 7 × Lavender salve, lot LS\d{6}-1/);
  await follow("Its price");
  await page.waitForURL(/prices\/\d+$/);
  await fill("Market", "9.50");
  await press("Save these prices");
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Prices");
  await expect(page.getByRole("complementary", { name: "First steps" })).toBeHidden();
  console.log(`${presses()} presses and fields, ${((Date.now() - began) / 1000).toFixed(0)} s`);
  expect(presses()).toBeLessThan(45);

  await test.step("which one is open stands on every screen; the demo knows nothing of it", async () => {
    await page.goto("/");
    await expect(page).toHaveURL(/\/own\/$/);
    await expect(page.getByRole("button", { name: /Yours Larkspur Kitchen/ })).toBeVisible();
    await page.getByRole("button", { name: "Workshops" }).click();
    await page.getByRole("menuitem", { name: /Go to the demo/ }).click();
    await expect(page.getByRole("button", { name: /^Demo / })).toBeVisible();
    await open(page, "/demo/recipes");
    await expect(page.getByText("Lavender salve")).toHaveCount(0);
    expect((await page.request.get("/own/recipes")).ok()).toBe(true);
    // Nothing done on a page of the one is ever sent to the other.
    expect((await page.request.post("/recipes/new", { data: {} })).status()).toBe(404);
  });
});

test("the first steps and an empty station read well, on a phone too", async ({ page }) => {
  for (const path of [
    "begin",
    "begin/name",
    "begin/work",
    "begin/materials",
    "begin/containers",
    "begin/opening",
    "",
    "shelf",
    "markets",
    "jars",
  ]) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await open(page, `/own/${path}`);
    const { violations } = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]).analyze();
    expect(violations.map((v) => `${path}: ${v.id}: ${v.nodes[0]!.html.slice(0, 160)}`)).toEqual([]);
    expect(await widerThanAPhone(page), path).toEqual([]);
  }
});

test.describe("by thumb", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });
  test("opening stock from a CSV, names taken from the library, a recipe in two sizes, and a price", async ({ page }) => {
    await open(page, "/own/shelf/opening/file");
    await page
      .getByLabel("Rows", { exact: true })
      .fill(
        "what;amount;cost;best before\nOlive oil;2,5 kg;24,50;31.12.2027\nBeeswax, yellow;0,8 kg;;\nGrandma's rosewater wax;200 g;3,20;",
      );
    await page.getByRole("combobox", { name: "Material", exact: true }).selectOption("0");
    await expect(page.getByText("Olive oil", { exact: true }).first()).toBeVisible();
    await page.getByRole("button", { name: /from the library/ }).tap();
    await page.getByLabel("Grandma's rosewater wax").selectOption("kind:wax");
    await page.getByLabel("The costs in it are").selectOption("guessed");
    await page.getByRole("button", { name: "Put 3 lines on the shelf" }).tap();
    await expect(page.getByRole("status", { name: "What was done" })).toContainText("3 lots put on the shelf");
    await page.getByRole("link", { name: "Olive oil" }).tap();
    await expect(page.getByText("a guess", { exact: true })).toBeVisible();
    await expect(page.getByText("opening stock").first()).toBeVisible();
    await page.getByRole("button", { name: /^Open or take out/ }).tap();
    await page.getByLabel("All of it cost").fill("26.00");
    await page.getByRole("button", { name: "Say what it cost" }).tap();
    await expect(page.getByRole("status", { name: "What was done" })).toContainText("what was paid");

    await open(page, "/own/recipes/new");
    await page.getByLabel("Name", { exact: true }).fill("Olive balm");
    await page.getByLabel("Lot letters").fill("OB");
    await page.getByLabel("Material, row 1").fill("olve");
    await page.getByRole("option", { name: /^Olive oil/ }).tap();
    await page.getByLabel("Amount, row 1").fill("800 g");
    await page.getByLabel("Material, row 2").fill("wax yell");
    await page.getByRole("option", { name: /^Beeswax, yellow/ }).tap();
    await page.getByLabel("Amount, row 2").fill("150 g");
    // While a container is half typed nothing jumps.
    const container = page.getByLabel("Container");
    await container.focus();
    const top = async () => (await container.boundingBox())!.y;
    const began = await top();
    await container.fill("60 ml jar");
    expect(Math.abs((await top()) - began)).toBeLessThan(2);
    await page.getByRole("option", { name: /^Glass jar/ }).tap();
    // What to expect says in a line what it would say.
    await expect(page.getByRole("tab", { name: "Sets" })).toContainText("in the kitchen");
    expect(Math.abs((await top()) - began)).toBeLessThan(2);
    await page.getByLabel("Filled with").fill("50 g");
    await page.getByRole("button", { name: "Add a size" }).tap();
    // A container that isn't there yet is taken from the library without leaving the sheet.
    const second = page.getByLabel("Container").nth(1);
    await second.fill("tin 30");
    await page.getByRole("option", { name: /^Screw tin, 30 mL.*from the library/ }).tap();
    await expect(second).toHaveValue("Screw tin, 30 mL (1 oz)");
    await page.getByLabel("Filled with").nth(1).fill("25 g");
    await page.getByRole("button", { name: "Save the recipe" }).tap();
    await expect(page.getByRole("status", { name: "What was done" })).toContainText("Saved Olive balm");
    await open(page, "/own/prices");
    await page.locator("#work").getByRole("link", { name: "Olive balm" }).first().tap();
    await page.getByLabel("Market", { exact: true }).fill("7");
    await page.getByRole("button", { name: "Save these prices" }).tap();
    await expect(page.getByRole("status", { name: "What was done" })).toContainText("Prices");
  });
});

test("a workshop of one's own, filled: nothing wrong by WCAG 2.2 AA on any of its screens, and nothing wider than a phone", async ({
  page,
}) => {
  test.setTimeout(900_000);
  const screens =
    " shelf shelf/1 shelf/1/facts shelf/1/buying shelf/receive shelf/stock-take shelf/shopping shelf/opening recipes recipes/1 bench bench/1 bench/set-out cabinet prices prices/1 markets markets/new gifts gifts/new lots people people/new book book/1 jars settings workshops";
  for (const path of screens.split(" ")) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await open(page, `/own/${path}`);
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    const { violations } = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]).analyze();
    expect(violations.map((v) => `${path}: ${v.id}: ${v.nodes[0]!.html.slice(0, 160)}`)).toEqual([]);
    expect(await widerThanAPhone(page), path).toEqual([]);
  }
});
