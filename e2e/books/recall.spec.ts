/** A supplier's notice: from their lot number to every tin, everybody told, and the same as a rehearsal. */
import { expect } from "@playwright/test";
import { readFile } from "node:fs/promises";
import { does, figure, open, test, widerThanAPhone } from "../hand.ts";

const NOTICE = "The supplier found a solvent in this wax.";

test("recall a supplier's lot: all it is in is held, people are told one by one, the list goes along as a file, and a false alarm frees it", async ({
  page,
}) => {
  await open(page, "/lots/recalls/new");
  await page.getByLabel("Lot number, theirs or yours").fill("beeswax");
  await page.getByRole("button", { name: "Find it" }).click();
  await page
    .getByRole("link", { name: /^Begin with/ })
    .last()
    .click();
  const reaches = page.getByLabel("What it reaches");
  await expect(reaches).toContainText("Can’t be found");
  const made = await figure(page, "Units made of it").innerText();
  await page.getByRole("button", { name: "Hold them all and begin" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "what is wrong" }).first()).toBeVisible();
  await page.getByLabel("What is wrong").fill(NOTICE);
  await does(page, "Hold them all and begin", /Recalled R\d+-\d+: held \d+ lots/);
  expect(await figure(page, "Units made of it").innerText()).toBe(made);
  const recall = page.url();

  // What it holds can't be sold, and Today leads back here.
  const tin = await page.locator("table").filter({ hasText: "Left" }).locator("a.lot").first().innerText();
  await open(page, "/");
  await expect(page.getByRole("region", { name: "Today", exact: true }).getByRole("link").first()).toContainText(`Recall: ${NOTICE}`);
  await open(page, `/lots/${tin.split(/\s/)[0]}`);
  await expect(page.getByText(`On hold: Recall: ${NOTICE}`)).toBeVisible();

  await page.goto(recall);
  await page.locator("html[data-ready]").waitFor();
  const first = page.getByRole("button", { name: /^Told today/ }).first();
  const who = (await first.getAttribute("aria-label"))!.replace("Told today: ", "");
  await first.click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText(`${who} told`);
  await expect(figure(page, "Told")).toContainText(/1 of \d/);
  await page.getByLabel(`Came back from ${who}`).fill("99999");
  await page.getByLabel(`Came back from ${who}`).press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: "more can't have come back" })).toBeVisible();
  await page.getByLabel(`Came back from ${who}`).fill("1");
  await page.getByLabel(`Note on ${who}`).fill("brought by hand");
  await page.getByLabel(`Note on ${who}`).press("Enter");
  await expect(figure(page, "Came back")).toContainText("1 unit");

  const coming = page.waitForEvent("download");
  await page.getByRole("link", { name: "As a file" }).click();
  const csv = await readFile(await (await coming).path(), "utf8");
  expect(csv.split(/\r?\n/)[0]).toContain("how to reach them");
  expect(csv).toContain(who);
  expect(csv).toContain("brought by hand");

  await page.getByRole("link", { name: "Letters" }).click();
  await expect(page.getByText(`Dear ${who},`)).toBeVisible();
  expect(await page.getByText(NOTICE).count()).toBeGreaterThan(1);
  await page.getByRole("link", { name: "Back to the recall" }).click();
  await does(page, "False alarm: free it all", /Closed recall \d+, \d+ lots free again/);
  await expect(page.getByRole("status").filter({ hasText: "Closed after" })).toContainText("1 of");
  expect(await widerThanAPhone(page)).toEqual([]);
  await open(page, `/lots/${tin.split(/\s/)[0]}`);
  await expect(page.getByText("On hold:")).toHaveCount(0);
});

test("rehearse a recall from a tin whose way is drawn: nothing is held, and how long it took stays written down", async ({ page }) => {
  // What it is called hangs on the day the demo was made.
  await open(page, "/cabinet");
  const tin = (await page.locator("a.lot").filter({ hasText: /^SB/ }).first().innerText()).split(/\s/)[0]!;
  await open(page, `/lots/${tin}`);
  // Drawn from supplier to customer, each of them pressable.
  const drawn = page.getByRole("group", { name: "Drawn from supplier to customer" });
  await expect(drawn.getByRole("link", { name: new RegExp(tin) })).toBeVisible();
  expect(await drawn.getByRole("link").count()).toBeGreaterThan(8);
  await page.getByRole("link", { name: "Recall it" }).click();
  await page.getByLabel("A rehearsal").check();
  await page.getByLabel("What is wrong").fill("Only to see how long it takes.");
  await does(page, "Begin the rehearsal", `Rehearsed recalling ${tin}`);
  await expect(page.getByRole("timer")).toHaveText(/\d s$/);
  await does(page, "Stop the clock", "Closed rehearsal");
  await open(page, "/lots/recalls");
  await expect(page.getByRole("row").filter({ hasText: "Only to see how long it takes." })).toContainText(/\d s/);
  await open(page, `/lots/${tin}`);
  await expect(page.getByText("On hold:")).toHaveCount(0);
});
