/** A recipe thought through before anything is melted: from a scribble to grams, judged, fixed, filled, saved, compared. */
import { expect, type Page } from "@playwright/test";
import { does, figure, open, test } from "../hand.ts";

const said = (page: Page) => page.getByRole("region", { name: "What a colleague would say" });
const turnTo = (page: Page, name: string) => page.getByRole("tab", { name, exact: true }).click();

test("from a scribble to version 2: read line by line, judged, mended, filled, kept, and set beside what it was", async ({ page }) => {
  await open(page, "/recipes/new");
  await page.getByRole("button", { name: "Paste a recipe" }).click();
  const dialog = page.getByRole("dialog");
  const text = dialog.getByRole("textbox", { name: "The recipe" });
  await dialog.getByRole("button", { name: "Read it" }).click();
  await expect(dialog.getByRole("alert")).toContainText("Paste or type a recipe first");
  await text.fill(
    "Salve of the first frost\nIngredients:\n1/4 cup beeswax\n2 cups sunflower oil\n20-40 drops lavender essential oil\n10 g unicorn dust\nMethod\n1. Melt the wax over hot water.\n2. Pour at 54 °C.",
  );
  await dialog.getByRole("button", { name: "Read it" }).click();
  // Nothing goes in while something is open.
  await dialog.getByRole("button", { name: "Put it in the recipe" }).click();
  await expect(dialog.getByRole("alert")).toContainText("2 lines are still to be answered");
  await dialog.getByRole("button", { name: /^grated, / }).click();
  await dialog.getByRole("button", { name: "40 drops" }).click();
  await dialog.getByRole("listitem").filter({ hasText: "unicorn dust" }).getByRole("button", { name: "Leave it out" }).click();
  await dialog.getByRole("button", { name: "Put it in the recipe" }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Salve of the first frost");
  await expect(page.getByLabel("Material, row 1")).toHaveValue("Beeswax, yellow");
  await expect(page.getByLabel("Measured as, row 1")).toHaveValue("grated");
  await expect(page.getByLabel("Step 2", { exact: true })).toHaveValue("Pour at 54 °C.");
  await page.getByLabel("Made as").selectOption("salve");
  await page.getByLabel("Lot letters").fill("FF");
  await page.getByLabel("Filled with").fill("60 g");

  // 19.5 g of wax in half a litre of oil: too soft for a salve. One press brings it right, another takes that back.
  await expect(said(page)).toContainText("Likely softer than a salve");
  const press = said(page).getByRole("button", { name: /^Make it .* of Beeswax/ });
  await press.click();
  await expect(said(page)).not.toContainText("softer than a salve");
  await expect(figure(page, "Likely firmness")).toContainText("scoops");
  await said(page).getByRole("button", { name: "Put it back" }).click();
  await expect(page.getByLabel("Amount, row 1")).toHaveValue("1/4 cup");
  await press.click();

  // Drops past counting: known, and it stays with the version.
  const drops = said(page).getByRole("listitem").filter({ hasText: "40 drops" });
  await drops.getByRole("button", { name: /^I know/ }).click();
  await drops.getByLabel("A note that stays with it").fill("my counter clicks");
  await page.keyboard.press("Enter");
  await expect(said(page).getByText("1 is known")).toBeVisible();
  await page.getByLabel("Keeps, months").fill("3");

  await turnTo(page, "Fills");
  await page.getByLabel("Only with what is on hand").uncheck();
  await page.getByLabel("Fill it").selectOption("least");
  await expect(page.getByText("There is no better: that is proven.")).toBeVisible();
  await page
    .getByRole("button", { name: /and leaves nothing/ })
    .first()
    .click();
  await expect(page.getByRole("row", { name: /^Left over/ })).toContainText(/0\.[0-4] g/);
  await does(page, "Save the recipe", "Saved Salve of the first frost");

  await expect(said(page).getByText("1 is known")).toBeVisible();
  await turnTo(page, "More or less");
  await page.getByLabel("Make it", { exact: true }).selectOption("times");
  await page.getByLabel("Times").fill("2");
  await page.getByRole("button", { name: "Put it in the recipe, in grams" }).click();
  await page.getByLabel("What changed, and why").fill("twice as much");
  await does(page, "Save the recipe", "version 2");

  await page.getByRole("link", { name: /Two side by side/ }).click();
  await expect(page.getByRole("heading", { name: "Salve of the first frost: versions side by side" })).toBeVisible();
  const batch = page.getByRole("row", { name: /^Batch/ });
  const [a, b] = (await batch.getByRole("cell").allTextContents()).map((t) => Number.parseFloat(t.replaceAll("\u202f", "")));
  expect(b! / a!).toBeCloseTo(2, 2);
  await page.getByRole("link", { name: "Go back to version 1" }).click();
  await expect(page.getByText("This is version 1 as it was.")).toBeVisible();
  await does(page, "Save the recipe", "version 3");
  await page.locator("summary").filter({ hasText: "Versions" }).click();
  await expect(page.getByRole("row", { name: /^3, made by now/ })).toContainText("Back to version 1");
});

test("scent: who it is for counts, a spill is put right, and a ceiling is said with its press", async ({ page }) => {
  await open(page, "/recipes");
  await page.locator("#work").getByRole("link", { name: "Sea buckthorn hand balm" }).first().click();
  await turnTo(page, "Scent");
  await page.getByLabel("Who uses it").selectOption("children");
  await expect(page.getByText("for children, a quarter at the most")).toBeVisible();
  await page.getByLabel("Amount, row 6").fill("240 drops");
  await expect(said(page)).toContainText("is much: hands and feet take 0.75 % at most");
  await said(page).getByRole("button", { name: "Lower all of it to 0.75 %" }).click();
  await expect(said(page)).not.toContainText("is much");
  await page.getByText("Too much of one went in").click();
  await page.getByLabel("Went in").pressSequentially("1 drop");
  // Half an amount is no mistake yet: said once the field is left.
  await expect(page.getByText("That isn't more than was meant.")).toBeHidden();
  await page.getByLabel("Went in").press("Tab");
  await expect(page.getByText("That isn't more than was meant.")).toBeVisible();
  await page.getByLabel("Went in").fill("12 g");
  await expect(page.getByText(/As it is: 2\.[0-9] % scent/)).toBeVisible();
  await page.getByRole("button", { name: "Write it as it is" }).click();
  await expect(page.getByLabel("Amount, row 6")).toHaveValue("12 g");
  // A row that was changed by hand since is not put back over it.
  await page.getByLabel("Amount, row 6").fill("1 g");
  await said(page).getByRole("button", { name: "Put it back" }).click();
  await expect(page.getByLabel("Amount, row 6")).toHaveValue("1 g");
});

test("a recipe pasted where a name goes is read; a blend is built by its notes; a lot's own paper counts, until it is struck out", async ({
  page,
}) => {
  await open(page, "/recipes/new");
  await page.getByLabel("Material, row 1", { exact: true }).evaluate((cell) => {
    const data = new DataTransfer();
    data.setData(
      "text/plain",
      "1/4 cup beeswax pellets\n1 cup sunflower oil\n40 drops lavender essential oil\n1 mL spearmint essential oil",
    );
    cell.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await page.getByRole("dialog").getByRole("button", { name: "Put it in the recipe" }).click();
  await expect(page.getByLabel("Material, row 4", { exact: true })).toHaveValue("Spearmint essential oil");
  await turnTo(page, "Scent");
  await page.getByLabel("Proportions").selectOption("notes");
  await page.getByLabel("top : middle").fill("1 : 2 : 3");
  await page.getByLabel("Make it, per cent").fill("1.2");
  await page.getByLabel("Make it, per cent").blur();
  const blend = page.getByRole("tabpanel");
  await expect(blend.getByRole("alert")).toContainText("Enter 2 numbers, such as 2 : 1.");
  await page.getByLabel("top : middle").fill("1 : 3");
  await blend.getByRole("button", { name: "Put it in the recipe" }).click();
  await expect(page.getByRole("row", { name: /^Lavender essential oil middle/ })).toContainText(/75 %\s*0\.90 %/);
  await expect(page.getByRole("row", { name: /^Spearmint essential oil top/ })).toContainText(/25 %\s*0\.30 %/);

  await open(page, "/shelf");
  await page.getByRole("link", { name: "Lavender essential oil" }).first().click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Lavender essential oil");
  await page.locator("main a.lot").first().click();
  const most = page.getByLabel("Of a product at most, per cent");
  await most.fill("400");
  await page.getByRole("button", { name: "Write it down" }).click();
  await expect(page.getByText("Enter 0 to 100 per cent.")).toBeVisible();
  await most.fill("0.3");
  await does(page, "Write it down", "may be 0.3 % of a product");
  await open(page, "/recipes");
  await page.locator("#work").getByRole("link", { name: "Sea buckthorn hand balm" }).first().click();
  await expect(said(page)).toContainText(/Lavender essential oil: 0\.5\d % is over the 0\.30 % that lot R[\d-]+ may be/);
  await open(page, "/book");
  await page
    .getByRole("link", { name: /may be 0\.3 % of a product/ })
    .first()
    .click();
  await does(page, "Take it back", "Took back");
  await open(page, "/recipes");
  await page.locator("#work").getByRole("link", { name: "Sea buckthorn hand balm" }).first().click();
  await expect(page.getByText("60 drops of Lavender")).toBeVisible();
  await expect(said(page)).not.toContainText("may be");
});

test("one press makes it free of beeswax; costs and keeping are foreseen; steps are drafted and moved by keys", async ({ page }) => {
  await open(page, "/recipes");
  await page.locator("#work").getByRole("link", { name: "Sea buckthorn hand balm" }).first().click();
  await turnTo(page, "Instead");
  await page.getByRole("button", { name: "Without beeswax" }).click();
  // Candelilla in the demo; another wax, where another journey has put one on the shelf.
  await expect(page.getByLabel("Material, row 1")).toHaveValue(/wax$/);
  await expect(figure(page, "Likely firmness")).toContainText("takes a nail to scoop");
  await said(page).getByRole("button", { name: "Put it back" }).click();
  await expect(page.getByLabel("Material, row 1")).toHaveValue("Beeswax, yellow");
  await expect(page.getByLabel("Amount, row 1")).toHaveValue("2/3 cup");
  await turnTo(page, "Costs");
  const few = page.getByRole("row", { name: /^2 / });
  await expect(few.getByRole("cell").last()).toContainText("€");
  await turnTo(page, "Cautions");
  await expect(page.getByText("Allergen: Bee product")).toBeVisible();
  // Whom it is for: an infant gets no scent at all, however little is in it.
  await turnTo(page, "Scent");
  await page.getByLabel("Who uses it").selectOption("infants");
  await expect(page.getByText(/scent: there should be none/)).toBeVisible();
  await page.getByLabel("Who uses it").selectOption("anyone");
  await expect(page.getByText(/scent: there should be none/)).toHaveCount(0);
  await turnTo(page, "Keeps");
  await expect(page.getByText("it is no preservative")).toBeVisible();

  await page.getByRole("button", { name: "Add drafted steps" }).click();
  const weigh = "Weigh everything, taring the vessel each time, the hardest first.";
  await expect(page.getByLabel("Step 3", { exact: true })).toHaveValue(weigh);
  await page.getByLabel("Step 3", { exact: true }).press("Alt+ArrowUp");
  await expect(page.getByLabel("Step 2", { exact: true })).toHaveValue(weigh);
  await expect(page.getByLabel("Step 2", { exact: true })).toBeFocused();
  await page.getByRole("button", { name: "Move step 4" }).scrollIntoViewIfNeeded();
  const box = (await page.getByRole("button", { name: "Move step 2" }).boundingBox())!;
  const onto = (await page.getByRole("button", { name: "Move step 4" }).boundingBox())!;
  await page.mouse.move(box.x + 8, box.y + 8);
  await page.mouse.down();
  await page.mouse.move(box.x + 8, box.y + 30, { steps: 4 });
  await page.mouse.move(onto.x + 8, onto.y + 12, { steps: 8 });
  await page.mouse.up();
  await expect(page.getByLabel("Step 4", { exact: true })).toHaveValue(weigh);
  await page.getByRole("button", { name: "Cost it by that" }).click();
  await expect(page.getByLabel("Minutes a batch")).not.toHaveValue("55");
});

test("a recipe of what only the library has: its title, its sizes, and all of it on the shelf by one press", async ({ page }) => {
  await open(page, "/recipes/new");
  await page.getByRole("button", { name: "Paste a recipe" }).click();
  const dialog = page.getByRole("dialog");
  await dialog
    .getByRole("textbox", { name: "The recipe" })
    .fill("Tallow salve\n100 g tallow\n20 g lanolin\na good quarter cup olive oil\n20 g beeswax\nFill two 2 oz jars and three 1 oz");
  await dialog.getByRole("button", { name: "Read it" }).click();
  await expect(dialog.getByText("becomes its name")).toBeVisible();
  await expect(dialog.getByText("“good” is read as 1/4 cup.")).toBeVisible();
  await expect(dialog.getByText(/^194 g in all 4 lines; what it fills takes 198\.4 g\.$/)).toBeVisible();
  await dialog.getByRole("button", { name: "Put it in the recipe" }).click();
  await expect(dialog.getByRole("alert")).toContainText("Tallow, beef and Lanolin are still to be put on the shelf, or to be left out.");
  await dialog.getByRole("button", { name: "Put all 2 on the shelf" }).click();
  await expect(dialog.getByText("Not on the shelf yet, but in the library")).toBeHidden();
  await dialog.getByRole("button", { name: "Put it in the recipe" }).click();
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Tallow salve");
  await expect(page.getByLabel("Material, row 1")).toHaveValue("Tallow, beef");
  await expect(page.getByLabel("Filled with").first()).toHaveValue("2 oz");
  await expect(page.getByLabel("Filled with").nth(1)).toHaveValue("1 oz");
  await expect(page.getByLabel("Step 1", { exact: true })).toHaveValue("Fill two 2 oz jars and three 1 oz");
  // Nothing is an error any more, and the figures of all of it are there.
  await expect(figure(page, "Batch")).toContainText("194 g");
  await open(page, "/book", { goOn: true });
  await expect(page.getByRole("link", { name: /library/i }).first()).toBeVisible();
});

test("a recipe leaves as a file and comes back the same; what isn't one says why", async ({ page }) => {
  await open(page, "/recipes");
  await page.locator("#work").getByRole("link", { name: "Sea buckthorn hand balm" }).first().click();
  const coming = page.waitForEvent("download");
  await page.getByRole("link", { name: "JSON" }).click();
  const file = await coming;
  expect(file.suggestedFilename()).toBe("sea-buckthorn-hand-balm.json");
  await open(page, "/recipes/new");
  await page.getByRole("button", { name: "Paste a recipe" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("textbox", { name: "The recipe" }).fill('{ "recipe": 7 }');
  await dialog.getByRole("button", { name: "Read it" }).click();
  await expect(dialog.getByRole("alert")).toContainText("isn't a recipe");
  await dialog.locator("input[type=file]").setInputFiles(await file.path());
  await expect(dialog.getByRole("textbox", { name: "The recipe" })).toHaveValue(/Sea buckthorn/);
  await dialog.getByRole("button", { name: "Read it" }).click();
  await expect(page.getByLabel("Amount, row 1")).toHaveValue("2/3 cup");
  await expect(page.getByLabel("Amount, row 6")).toHaveValue("60 drops");
  await expect(figure(page, "Batch")).toContainText("494.5 g");
  await said(page).getByRole("button", { name: "Put it back" }).click();
  await expect(page.getByLabel("Amount, row 1")).toHaveValue("");
});

test("what is left of a lot finds the recipes that would use it up, and is set out whole", async ({ page }) => {
  await open(page, "/recipes");
  await page.locator("#work").getByRole("link", { name: "Sea buckthorn hand balm" }).first().click();
  await figure(page, "Ingredients").click();
  // What is under a figure is drawn once it is opened.
  const lots = page.locator("aside details[open]");
  await expect(lots).toContainText(/R\d{5}-\d\d/);
  const number = (await lots.textContent())!.match(/R\d{5}-\d\d/)![0];
  await open(page, `/lots/${number}`);
  await page.getByRole("button", { name: "What would use it up?" }).click();
  const row = page.getByRole("row", { name: /Sea buckthorn hand balm/ });
  await expect(row).toContainText(/\d+ × 60 g/);
  await row.getByRole("link", { name: "Set out Sea buckthorn hand balm" }).click();
  await expect(page.getByRole("heading", { name: /Set out/ })).toBeVisible();
  await expect(page.locator("body")).toContainText(number);
});
