/** The bench by hand: lots changed and split, keys from line to line, pouring, taking it back, and the record on paper. */
import { expect } from "@playwright/test";
import { choose, does, figure, open, receive, setOut, slowly, test, weighAsPlanned, weighed } from "../hand.ts";

test("a line split over two lots by hand draws from both, and the lots stay as chosen", async ({ page }) => {
  // For all bars of this file: the demo has not so many, and the tests before take some.
  await receive(page, { "Bar carton": "40", "Paper band for bars": "40" });
  await setOut(page, "Juniper work bar", { Units: "3" });
  const wax = page.locator("li").filter({ hasText: "Beeswax" }).first();
  const lot = wax.getByRole("combobox");
  await lot.click();
  expect(await page.getByRole("option").count()).toBeGreaterThan(1);
  await page.keyboard.press("Escape");
  await wax.getByRole("button", { name: "Add another lot" }).click();
  const more = page.locator("li").filter({ hasText: "… and more Beeswax" });
  await expect(more).toBeVisible();
  expect(await more.getByRole("combobox").innerText()).not.toBe(await lot.innerText());
  await more.getByRole("button", { name: "Remove" }).click();
  await expect(more).toHaveCount(0);

  await wax.getByRole("button", { name: "Add another lot" }).click();
  await weighAsPlanned(page);
  const planned = parseFloat(await wax.locator("p.weight").innerText());
  await wax.getByLabel(/^Weighed/).fill(`${(planned - 20).toFixed(1)} g`);
  await more.getByLabel(/^Weighed/).fill("20 g");
  await page.getByLabel("Units filled").fill("3");
  await page.getByLabel("Minutes of work").fill("40");
  await does(page, "Pour", "Poured 3 × Juniper work bar");
  const rows = page.locator("section.sheet tbody tr").filter({ hasText: "Beeswax" });
  await expect(rows).toHaveCount(2);
  await expect(rows.nth(1)).toContainText("20.0 g");
});

test("poured while what was weighed is still being kept: the answer that comes late stands in nobody's way", async ({ page }) => {
  await setOut(page, "Juniper work bar", { Units: "2" });
  // Nothing of it is answered until it has been seen to be under way.
  let goOn = (): void => undefined;
  const seen = new Promise<void>((done) => (goOn = done));
  await page.route("**/weighed", async (route) => {
    await seen;
    await new Promise((done) => setTimeout(done, 500));
    await route.continue();
  });
  await page.route("**/bench/*.data", async (route) => {
    if (route.request().method() === "GET") await new Promise((done) => setTimeout(done, 900));
    await route.continue();
  });
  await weighAsPlanned(page);
  await page.getByLabel("Units filled").fill("2");
  await expect(page.getByText("Saving …")).toBeVisible();
  goOn();
  await does(page, "Pour", "Poured 2 × Juniper work bar");
});

test("Enter goes from weighing to weighing and on to the count", async ({ page }) => {
  await setOut(page, "Juniper work bar", { Units: "2" });
  const count = await weighed(page).count();
  await weighed(page).first().focus();
  for (let i = 0; i < count; i++) {
    await expect(weighed(page).nth(i)).toBeFocused();
    await page.keyboard.type("1 g");
    await page.keyboard.press("Enter");
  }
  await expect(page.getByLabel("Units filled")).toBeFocused();
  await expect(page.locator("aside").getByText(`${count} of ${count} weighed`)).toBeVisible();
  await expect(figure(page, "In the pot")).toContainText(`${count} g`);
  await does(page, "Clear off the bench", "Cleared a batch off the bench");
  await page.getByRole("button", { name: "Take it back" }).click();
  // All of it is there again, the last one too though it was cleared off at once.
  await expect(page.getByRole("heading", { name: "Juniper work bar" })).toBeVisible();
  for (let i = 0; i < count; i++) await expect(weighed(page).nth(i)).toHaveValue("1 g");
});

test("more tins than the pot held are not believed; a poured batch taken back is on the bench again with all its weights", async ({
  page,
}) => {
  await setOut(page, "Meadowsweet garden salve", { Units: "4" });
  await weighAsPlanned(page);
  await page.getByLabel("Units filled").fill("9");
  await page.getByRole("button", { name: "Pour", exact: true }).click();
  await expect(page.getByRole("alert").filter({ hasText: /9 × 60 g and 0 g left over come to more than the .* weighed in/ })).toBeVisible();
  await page.getByLabel("Units filled").fill("four");
  await page.getByLabel("Left in the jug").fill("1 cup");
  await page.getByRole("button", { name: "Pour", exact: true }).click();
  await expect(page.getByRole("alert").filter({ hasText: "“four” isn't a number" })).toBeVisible();
  await expect(page.getByRole("alert").filter({ hasText: "Enter a weight" })).toBeVisible();

  await page.getByLabel("Units filled").fill("4");
  await page.getByLabel("Left in the jug").fill("2 g");
  await page.getByLabel("What happened").fill("Set in the funnel once.");
  // What is typed of the pouring outlives a reload, as the weights do.
  await page.waitForTimeout(900);
  await page.reload();
  await page.locator("html[data-ready]").waitFor();
  await expect(page.getByLabel("What happened")).toHaveValue("Set in the funnel once.");
  await expect(page.getByLabel("Left in the jug")).toHaveValue("2 g");
  await expect(weighed(page).first()).not.toHaveValue("");
  await does(page, "Pour", "Poured 4 × Meadowsweet garden salve");
  await expect(page.getByText("Set in the funnel once.")).toBeVisible();
  const number = await page.locator("a.lot").first().innerText();
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Took back: Poured 4");
  await expect(page.getByText(/Weigh sheet for 4/)).toBeVisible();
  await expect(weighed(page).first()).not.toHaveValue("");
  await expect(page.getByLabel("Units filled")).toHaveValue("4");
  await does(page, "Pour", number);
});

test("what a batch teaches is ticked and becomes the recipe's next version with one press; taken back, it is as it was", async ({
  page,
}) => {
  // As many as of the recipe before, typed before the server has said what this one fills: they are a hand's, and stay.
  await open(page, "/bench/set-out");
  await choose(page, "Recipe", "Meadowsweet garden salve");
  await expect(page.getByLabel("Units", { exact: true })).not.toHaveValue("");
  await page.getByLabel("Units", { exact: true }).fill("4");
  const quick = await slowly(page, 1500);
  await choose(page, "Recipe", "Oat lotion bar");
  await page.getByLabel("Units", { exact: true }).fill("4");
  await expect(page.getByLabel("Units", { exact: true })).toHaveValue("4");
  await quick();
  await does(page, "Set out", "Set out Oat lotion bar, 4 ×");
  await weighAsPlanned(page);
  // A good tenth more wax than it wants, and one bar fewer than planned.
  const wax = page.locator("li").filter({ hasText: "Beeswax" }).first();
  await wax.getByLabel(/^Weighed/).fill(`${(parseFloat(await wax.locator("p.weight").innerText()) * 1.12).toFixed(1)} g`);
  await page.getByLabel("Units filled").fill("3");
  await page.getByLabel("Left in the jug").fill("45 g");
  await page.getByLabel("Minutes of work").fill("70");
  await does(page, "Pour", "Poured 3 × Oat lotion bar");
  // It sets, seen from everywhere; once it is done it is checked, held back for what was found, and released by a second look.
  await expect(page.getByRole("region", { name: "Timers" })).toContainText("Oat lotion bar, press the bars out");
  await page.getByRole("button", { name: "It is done" }).click();
  await expect(page.getByText("It sets.")).toHaveCount(0);
  await page.getByLabel("Its face").selectOption("grainy");
  await page.getByRole("button", { name: "Release it" }).click();
  await expect(page.getByText("Found: grainy. Say why it goes all the same.")).toBeVisible();
  await does(page, "Hold it back", "Held back Oat lotion bar");
  await expect(page.locator("a.lot").first()).toContainText("on hold");
  await page.getByRole("button", { name: "Check again" }).click();
  await page.getByLabel("Note", { exact: true }).fill("Smooth a day later");
  await does(page, "Release it", "Released Oat lotion bar");
  await expect(page.locator("a.lot").first()).not.toContainText("on hold");
  const plan = page.getByRole("row").filter({ has: page.getByRole("rowheader", { name: "Filled, 50 g" }) });
  await expect(plan).toContainText("−1");
  await expect(page.getByRole("checkbox", { name: /^Beeswax.* instead of / })).toBeChecked();
  for (const other of await page.getByRole("checkbox").all())
    if (!/^Beeswax/.test((await other.locator("xpath=ancestor::label").innerText()).trim())) await other.uncheck();
  const record = new URL(page.url()).pathname;
  await does(page, "Write version 2 so", "Saved Oat lotion bar, version 2, after lot");
  const other = await page.context().newPage();
  await open(other, record);
  await expect(other.getByText("has moved on since")).toBeVisible();
  await other.close();
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Took back");
  await open(page, record);
  await expect(page.getByRole("button", { name: "Write version 2 so" })).toBeVisible();
});

test("on paper: the record without the buttons and the Line", async ({ page }) => {
  await open(page, "/bench/1");
  await expect(page.getByRole("navigation")).toBeVisible();
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("navigation")).toBeHidden();
  await expect(page.getByRole("button", { name: "Print" })).toBeHidden();
  await expect(page.getByRole("heading", { name: "Weighed" })).toBeVisible();
  await expect(page.getByText("Best before")).toBeVisible();
});

test("a batch that failed is written off with its reason, stands in the list of those, and can be brought back", async ({ page }) => {
  await setOut(page, "Juniper work bar", { Units: "2" });
  await page.getByRole("button", { name: "Write it off" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Enter what went wrong" })).toBeVisible();
  await page.getByLabel("What went wrong").fill("Water in the pot");
  await page.getByRole("button", { name: "Write it off" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Nothing of it was weighed" })).toBeVisible();
  await weighed(page).first().fill("20 g");
  await does(page, "Write it off", /Wrote off Juniper work bar: 20 g, €/);
  await expect(page.getByText("It failed: Water in the pot")).toBeVisible();
  const list = await page.context().newPage();
  await open(list, "/bench");
  await expect(list.getByRole("row").filter({ hasText: "Water in the pot" })).toBeVisible();
  await list.close();
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByRole("button", { name: "Pour", exact: true })).toBeVisible();
  await expect(weighed(page).first()).toHaveValue(/20 g/);
  await does(page, "Clear off the bench", "Cleared a batch off the bench");
});
