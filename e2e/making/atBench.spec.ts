/** A batch at the bench, beside the scale and the thermometer: weighed, over-poured, cooled, unplugged, and poured. */
import { expect, type Locator, type Page } from "@playwright/test";
import { does, open, receive, setOut, test } from "../hand.ts";
import { HOUSE_SCALE } from "../house.ts";

const pretend = (page: Page, what: string) => page.getByRole("button", { name: what, exact: true }).click();
const steps = (page: Page) => page.getByRole("navigation", { name: "Steps" });
const heading = (page: Page) => page.getByRole("region", { name: "The step at hand" }).getByRole("heading", { level: 2 });
const shows = (page: Page) => page.getByLabel("The scale shows");

test("at the bench: the pot is tared, each line weighed to its band, too much made up for by the rest, the scale pulled out and the batch poured all the same", async ({
  page,
  browser,
}) => {
  await receive(page, { "Bar carton": "30", "Paper band for bars": "30" });
  await setOut(page, "Juniper work bar", { Units: "3" });
  await page.getByRole("link", { name: "At the bench" }).click();
  await expect(heading(page)).toHaveText("Set the empty, dry pot on the scale");
  await pretend(page, "take all off");
  await pretend(page, "set the pot down");
  await expect(page.getByText("● stable")).toBeVisible();
  // One that has been on for an hour has drifted by a few tenths of a gram.
  await expect(shows(page)).toHaveText(/41[12]\.\d g/);
  await page.getByRole("button", { name: "Save it and tare" }).click();

  // The first line comes by itself, and Enter takes it once it is right.
  const lines = (await steps(page).getByRole("button").allInnerTexts()).map((t) => t.replace(/^(done|to do)\s*/, ""));
  await expect(heading(page)).toHaveText(lines[1]!);
  await expect(shows(page)).toHaveText("0.0 g");
  await pretend(page, "pour what is wanted");
  await expect(page.getByText("○ moving")).toBeVisible();
  await expect(page.getByText(/^Right, within/)).toBeVisible();
  await expect(page.getByText("● stable")).toBeVisible();
  await page.keyboard.press("Enter");

  // A second device is at the same batch, and a reload where it was left.
  await expect(heading(page)).toHaveText(lines[2]!);
  const other = await browser.newPage();
  await open(other, new URL(page.url()).pathname.replace("/demo", ""));
  await expect(heading(other)).toHaveText(lines[2]!);
  await other.close();
  await page.reload();
  await expect(heading(page)).toHaveText(lines[2]!);

  // A tenth too much of the second: the rest is made to match, and what is in the pot already has to be met.
  await expect(shows(page)).toHaveText("0.0 g");
  await pretend(page, "a tenth too much");
  await pretend(page, "pour what is wanted");
  await expect(page.getByText(/g too much$/)).toBeVisible();
  await expect(page.getByText("● stable")).toBeVisible();
  await page.getByRole("button", { name: "Take it", exact: true }).click();
  const off = page.getByRole("group", { name: "Too much went in" });
  await expect(off).toContainText("in the pot, enough for");
  await expect(off).toContainText(`To add to what is weighed already:`);
  await off.getByRole("button", { name: "Make the rest to match" }).click();
  await expect(heading(page)).toHaveText(lines[3]!);

  // Pulled out in the middle of it, the scale says so, and a hand types the rest.
  process.kill(HOUSE_SCALE);
  await expect(page.getByText("The scale is unplugged.")).toBeVisible();
  const weighings = await steps(page).getByRole("button").count();
  for (let n = 3; n < weighings; n++) {
    if (!(await page.getByLabel(/^Weighed: /).isVisible())) break;
    const name = await heading(page).innerText();
    await page
      .getByLabel(`Weighed: ${name}`)
      .fill(await page.locator("section[aria-label='The step at hand'] .font-mono").first().innerText());
    await page.getByRole("button", { name: "Use what I typed" }).click();
    await expect(steps(page).locator("[aria-current=step]")).not.toHaveText(new RegExp(`to do\\s*${name.replace(/[()+.]/g, ".")}$`));
  }

  // What has to be added to what was in the pot already is a separate step.
  const byHand = async (step: Locator): Promise<void> => {
    await step.click();
    await page.getByLabel(/^Weighed: /).fill(await page.locator("section[aria-label='The step at hand'] .font-mono").first().innerText());
    await page.getByRole("button", { name: "Use what I typed" }).click();
    await expect(steps(page).getByRole("button", { name: /^to do\s*… and more/ })).toHaveCount(0);
  };
  await byHand(steps(page).getByRole("button", { name: /and more/ }));

  // Steps are ticked off, warmths written down, a timer seen from everywhere; what was written by mistake is struck out.
  const first = await heading(page).innerText();
  await page.getByRole("button", { name: "let time fly" }).click();
  await pretend(page, "put the pot over the heat");
  await page.getByRole("button", { name: /^Write .* °C down$/ }).click();
  await expect(page.getByText(/^Warmth read, /)).toBeVisible();
  await page.getByRole("button", { name: "Done", exact: true }).click();
  await expect(heading(page)).not.toHaveText(first);
  await page.getByLabel("Note", { exact: true }).fill("The jug was cold");
  await page.getByLabel("Note", { exact: true }).press("Enter");
  await expect(page.getByText("The jug was cold")).toBeVisible();
  await page.getByRole("button", { name: /^Strike out: Warmth read/ }).click();
  await expect(page.getByRole("button", { name: /^Strike out: Warmth read/ })).toHaveCount(0);

  // Too soft by the cold spoon: so many grams of wax put it right, and are weighed.
  await steps(page).getByRole("button", { name: "A drop on a cold spoon" }).click();
  await page.getByRole("button", { name: "a little soft" }).click();
  await expect(page.getByText(/more Beeswax.* puts it right/)).toBeVisible();
  await page.getByRole("button", { name: "Add it" }).click();
  await expect(page.getByText(/^Cold spoon: a little soft; .* to be added$/)).toBeVisible();
  await byHand(steps(page).getByRole("button", { name: /^to do\s*… and more Beeswax/ }));
  // And too faint to the nose: so much more of the blend, as far as it may be.
  await steps(page).getByRole("button", { name: "A drop on a cold spoon" }).click();
  const nose = page.getByRole("region", { name: "How it smells" });
  await nose.getByRole("button", { name: "a little faint" }).click();
  await expect(nose).toContainText(/Juniper berry essential oil puts it right: scent .* % and not .* %/);
  await nose.getByRole("button", { name: "Leave it as it smells" }).click();
  await expect(page.getByText("By the nose a little faint", { exact: true })).toBeVisible();
  await steps(page).getByRole("button").last().click();
  // Of 70 g none may hold less than 65.5 by the European rule.
  for (const net of ["70.4 g", "70.2 g", "61 g"]) {
    await page.getByLabel("Net weight of one").fill(net);
    await page.getByRole("button", { name: "Use what I typed" }).click();
    await expect(page.getByRole("button", { name: `Strike out ${net}` })).toBeVisible();
  }
  await expect(page.getByText("1 is below 65.5 g, none may be.")).toBeVisible();
  await page.getByRole("button", { name: "Strike out 61 g" }).click();
  await expect(page.getByText("0.3 g over on average, none too light.")).toBeVisible();
  // Counted as they are filled, with what is left; on the sheet the count is there already.
  const filled = page.getByRole("region", { name: "Filled so far" });
  for (const n of [1, 2]) {
    await filled.getByRole("button", { name: "+1" }).click();
    await expect(filled.getByRole("status")).toHaveText(`${n} of 3 filled`);
  }
  await expect(filled).toContainText(/Filled 2 × .* together\. .* left, of which .* will stick: enough for 1 more\./);
  await page.getByRole("link", { name: "Go to the sheet and pour" }).click();
  const units = page.getByLabel(/^(Units filled|Filled,)/).first();
  await expect(units).toHaveValue("2");
  await units.fill("3");
  // Where far more was weighed in than three hold, the rest is asked about before it is booked as lost.
  await page.getByRole("button", { name: "Pour", exact: true }).click();
  await expect(page.getByRole("alert").filter({ hasText: "would be lost in pot and jug" })).toBeVisible();
  await page.getByLabel("Left in the jug").fill("52 g");
  await page.getByLabel("Minutes of work").fill("40");
  await does(page, "Pour", "Poured 3 ×");
  await expect(page.getByText("by the scale").first()).toBeVisible();
  await expect(page.getByRole("list", { name: "Net weights of 70 g" })).toContainText("70.4 g");
  await expect(page.getByText(/^Cold spoon: a little soft/)).toBeVisible();
});

test("a body butter is chilled, whipped and scraped down, and a cup of it before and after says how much air is in it", async ({
  page,
}) => {
  await setOut(page, "Rosehip body butter", { Units: "1" });
  await page.getByRole("link", { name: "At the bench" }).click();
  await steps(page).getByRole("button", { name: "Chill and whip" }).click();
  await page.getByRole("button", { name: "Too soft to stand" }).click();
  await expect(page.getByText("Chill it on: it won't hold air.")).toBeVisible();
  await page.getByRole("button", { name: "Dents under a thumb" }).click();
  await expect(page.getByText("Whipping, chilled: dents under a thumb")).toBeVisible();
  await page.getByRole("button", { name: "Paddle, at the slowest" }).click();
  await expect(page.getByText("paddle, at the slowest, since")).toBeVisible();
  for (const n of [1, 2]) {
    await page.getByRole("button", { name: "Scraped down", exact: true }).click();
    await expect(page.getByText(`${n} of about 8`)).toBeVisible();
  }
  for (const [cup, grams] of [
    ["A cup before", "210 g"],
    ["A cup after", "105 g"],
  ] as const) {
    await page.getByLabel(cup).fill(grams);
    await page.getByRole("button", { name: "Use what I typed" }).click();
    await expect(page.getByText(`${cup} whipping, ${grams}`)).toBeVisible();
  }
  await expect(page.getByText("100.0 % air")).toBeVisible();
  await expect(page.getByText("Write it into the recipe as its air")).toBeVisible();
  await page.getByRole("button", { name: "Done; go on" }).click();
  await page.getByRole("link", { name: "The whole sheet" }).click();
  await does(page, "Clear off the bench", "Cleared a batch off the bench");
});
