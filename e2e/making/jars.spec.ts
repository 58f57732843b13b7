/** Jars through the interface: planned, filled, tended, strained into bottles that a recipe uses; warned of, spoiled and blended. */
import { expect } from "@playwright/test";
import { choose, does, figure, fillRow, open, test } from "../hand.ts";

const inDays = (n: number): string => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);

test("herb to jar, jar to bottles, bottles to a recipe, and the tin's oil back to the herb", async ({ page }) => {
  await test.step("planned: too late for the shelf, so by gentle heat", async () => {
    await open(page, "/jars");
    await page.getByRole("link", { name: "Fill a jar" }).first().click();
    await fillRow(page, 1, { Herb: "Meadowsweet flowers, dried", Oil: "Apricot kernel oil" });
    await page.getByLabel("Oil in").fill("200 g");
    await page.getByLabel("Oil to 1 of herb").fill("10");
    await page.getByLabel("The jar holds").fill("150 mL");
    await expect(page.getByText("It takes 233 mL and the jar holds 150 mL to the brim")).toBeVisible();
    await page.getByLabel("The jar holds").fill("500 mL");
    await expect(figure(page, "Herb")).toContainText("20 g");
    // The workshop's own strainings of meadowsweet, not common practice.
    await page.locator("aside summary", { hasText: "Oil back" }).click();
    await expect(page.locator("aside").getByText(/From \d strainings of your own/)).toBeVisible();
    await page.getByLabel("Wanted by").fill(inDays(5));
    await expect(figure(page, "For the day it is wanted")).toContainText("too late");
    await page.locator("aside").getByRole("button", { name: "Slow cooker" }).click();
    await expect(figure(page, "For the day it is wanted")).toContainText("in good time");
    await expect(page.getByText("Water stands beside the jar")).toBeVisible();
    await does(page, "Fill the jar", /Filled jar J\d{5}-\d: Meadowsweet flowers in apricot kernel oil/);
  });
  await test.step("labelled and tended: heat with its timer on every screen, a temperature, a top-up", async () => {
    await page.getByRole("link", { name: "Label" }).click();
    const label = page.getByRole("region", { name: /^Label J/ });
    for (const text of ["Meadowsweet flowers, dried", "Apricot kernel oil", "Slow cooker", "Patch-test first"])
      await expect(label).toContainText(text);
    await page.getByRole("link", { name: "Back to the jar" }).click();
    await page.getByRole("button", { name: "Heat on" }).click();
    await expect(page.getByRole("region", { name: "Timers" })).toContainText(/1[12] h( \d+ min)? of heat left/);
    await page.getByLabel("Temperature").fill("300");
    await page.getByRole("button", { name: "Note", exact: true }).first().click();
    await expect(page.getByRole("alert").filter({ hasText: "between 0 and 150 °C" })).toBeVisible();
    await expect(page.getByText("Nobody has read a thermometer yet")).toBeVisible();
    await page.getByLabel("Temperature").fill("85 °C");
    await page.getByRole("button", { name: "Note", exact: true }).first().click();
    await expect(page.getByText(/^Too hot: it scorches/)).toHaveCount(2);
    await page.getByLabel("Temperature").fill("108 °F");
    await page.getByRole("button", { name: "Note", exact: true }).first().click();
    await expect(page.getByText("Temperature 42.2 °C (108 °F)")).toBeVisible();
    // What was read before stays in the log; what is shown now is about the last.
    await expect(page.getByText(/^Too hot: it scorches/)).toHaveCount(1);
    await expect(page.getByText("Nobody has read a thermometer yet")).toHaveCount(0);
    await page.getByLabel("With").fill("10 g");
    await does(page, "Top up", "with 10 g of Apricot kernel oil");
    await page.getByRole("button", { name: "Heat off" }).click();
    await expect(page.getByRole("region", { name: "Timers" })).toBeHidden();
  });
  await test.step("strained: more than went in is refused, then two bottles at their cost", async () => {
    await page.getByLabel("Oil back").fill("211 g");
    await fillRow(page, 1, { Bottle: "100 g" });
    await page.getByRole("button", { name: "Strain into bottles" }).click();
    await expect(page.getByRole("alert").filter({ hasText: "more oil than the 210 g that went in" })).toBeVisible();
    await page.getByLabel("Oil back").fill("172 g");
    await page.getByRole("button", { name: "Add a bottle" }).click();
    await fillRow(page, 2, { Bottle: "70 g" });
    await does(page, "Strain into bottles", /Strained J\d{5}-\d: 170 g in 2 bottles/);
    await expect(page.getByRole("row", { name: /Over new herb/ })).toHaveCount(2);
  });
  const bottle = await page.locator("a.lot", { hasText: /B$/ }).first().innerText();
  await test.step("in a recipe like any other oil, at its own cost", async () => {
    await open(page, "/recipes/new");
    await page.getByLabel("Name", { exact: true }).fill("Meadowsweet salve");
    await page
      .getByLabel("Letters")
      .or(page.getByLabel(/lot numbers/i))
      .first()
      .fill("MS");
    await fillRow(page, 1, { Material: "Meadowsweet flowers in apricot kernel oil", Amount: "80 g" });
    await page.getByRole("button", { name: "Add an ingredient" }).click();
    await fillRow(page, 2, { Material: "Beeswax, yellow", Amount: "11 g" });
    await page.getByLabel("Filled with").fill("30 g");
    await expect(figure(page, "Batch")).toContainText("91 g");
    await expect(page.locator("aside")).toContainText("€");
  });
  await test.step("and the bottle leads back to herb and oil", async () => {
    await open(page, `/lots/${bottle}`);
    await expect(page.getByRole("row", { name: /Meadowsweet flowers, dried/ })).toBeVisible();
    await expect(page.getByRole("row", { name: /Apricot kernel oil/ }).first()).toBeVisible();
  });
});

test("a lot that isn't dry goes on no shelf without a reason; spoiled, its cost is said; and the way back", async ({ page }) => {
  await open(page, "/jars/fill");
  await fillRow(page, 1, { Herb: "Plantain leaf, dried", Oil: "Sunflower oil, high oleic" });
  await choose(page, "Herb lot, row 1", "98 g");
  await expect(page.getByText("Plantain leaf, dried isn't dry")).toBeVisible();
  await page.getByLabel("Oil in").fill("300 g");
  await page.getByRole("button", { name: "Fill the jar" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "isn't dry" })).toBeVisible();
  await page.getByLabel("Why you fill it all the same").fill("Half a jar, cloth top, to compare");
  await does(page, "Fill the jar", /Filled jar/);
  await expect(page.getByText("because: Half a jar, cloth top")).toBeVisible();
  await page.getByRole("button", { name: "It has spoiled" }).click();
  await page.getByLabel("What happened").fill("Grey film");
  await does(page, "Write it off", /Wrote off jar J\d{5}-\d, €/);
  await expect(page.getByText(/Written off: €[\d.]+ of herb and oil was lost/)).toBeVisible();
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByRole("heading", { name: "Strain it" })).toBeVisible();
  await page.getByLabel("Add a photo").setInputFiles({ name: "jar.png", mimeType: "image/png", buffer: Buffer.from("no picture at all") });
  await expect(page.getByRole("alert").filter({ hasText: "isn't a picture or a PDF inside" })).toBeVisible();
});

test("the wall: one press shakes all that are due, and two oils pour together into one lot", async ({ page }) => {
  await open(page, "/jars");
  await page.getByRole("button", { name: /^All \d shaken$/ }).click();
  await expect(page.getByRole("button", { name: /^All \d shaken$/ })).toBeHidden();
  await expect(page.getByText("shaken today").first()).toBeVisible();
  await page.getByRole("link", { name: "Blend oils" }).click();
  await page.getByLabel("The blend is called").fill("Garden oil");
  await page.getByLabel("Lot, row 1").press("ArrowDown");
  // The list is read when the field is first gone to.
  await expect(page.getByRole("option").first()).toBeVisible();
  const names = await page.getByRole("option").locator(".font-semibold").allTextContents();
  await page.keyboard.press("Escape");
  const birch = names.find((n) => n.startsWith("Birch leaf in"))!;
  const jojoba = names.find((n) => n.startsWith("Jojoba"))!;
  await fillRow(page, 1, { Lot: birch, Amount: "20 g" });
  await fillRow(page, 2, { Lot: birch, Amount: "10 g" });
  await page.getByRole("button", { name: "Pour together" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "two lots at least" })).toBeVisible();
  await fillRow(page, 2, { Lot: jojoba, Amount: "10 g" });
  await expect(figure(page, "In all")).toContainText("30 g");
  await does(page, "Pour together", /Blended 2 lots into R\d{5}-\d\d, Garden oil/);
  await expect(page.getByRole("heading", { name: "Garden oil" })).toBeVisible();
});
