/**
 * What is printed, as the boxes of its text lie on the pages: nothing over anything else, nothing past the margins, no page that is empty or
 * has a line alone.
 */
import { expect, type Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { faults, sheetsOf, textOf } from "../../test/papers.ts";
import { does, open, test } from "../hand.ts";

/** Names that are on the page but are cut off where it is printed. */
const cut = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>("main *")]
      .filter((e) => {
        const { overflowX, visibility, position } = getComputedStyle(e);
        if (e.getClientRects().length === 0 || visibility === "hidden" || position === "absolute") return false;
        return (overflowX === "hidden" || overflowX === "clip") && e.scrollWidth > e.clientWidth + 1 && e.innerText.trim() !== "";
      })
      .map((e) => e.innerText.slice(0, 60)),
  );

/** Prints a page on both kinds of paper. @returns how many pages each took */
async function prints(page: Page, path: string): Promise<number[]> {
  await open(page, path);
  const pages: number[] = [];
  for (const [format, width] of [
    ["A4", 703],
    ["Letter", 725],
  ] as const) {
    await page.setViewportSize({ width, height: 900 });
    await page.emulateMedia({ media: "print" });
    expect.soft(await cut(page), `${path} on ${format}`).toEqual([]);
    await page.emulateMedia({ media: null });
    const margin = { top: "12mm", bottom: "12mm", left: "12mm", right: "12mm" };
    const sheets = await sheetsOf(new Uint8Array(await page.pdf({ format, margin })));
    expect.soft(faults(sheets), `${path} on ${format}`).toEqual([]);
    pages.push(sheets.length);
  }
  await page.setViewportSize({ width: 1280, height: 800 });
  return pages;
}

test("every paper, on A4 and letter: nothing over anything else, past a margin, cut, or alone on a page", async ({ page }) => {
  test.setTimeout(600_000);
  // What is worked with by hand fits one page.
  for (const path of ["/bench/16", "/shelf/shopping", "/gifts/1", "/gifts/4", "/jars/12/label"])
    expect.soft([path, await prints(page, path)]).toEqual([path, [1, 1]]);
  for (const path of ["/shelf/stock-take", "/recipes/1", "/bench/1", "/shelf/receipts/3", "/markets/1", "/prices/1", "/jars/12", "/"])
    await prints(page, path);
  // What went into the demo's first batch, and what came out of it, each with its trace drawn.
  await open(page, "/bench/1");
  const lots = await page.locator("main a[href*='/lots/']").evaluateAll((tags) => tags.map((a) => a.getAttribute("href")!));
  expect(lots.length).toBeGreaterThan(3);
  for (const lot of [lots[0]!, lots[1]!, lots.at(-1)!]) await prints(page, lot);
});

test("a recall's letters: each on a page of its own, dated and signed, with nobody else's name", async ({ page }) => {
  test.setTimeout(200_000);
  await open(page, "/lots/recalls/new?find=beeswax");
  await page
    .getByRole("link", { name: /^Begin with/ })
    .last()
    .click();
  await page.getByLabel("A rehearsal").check();
  await page.getByLabel("What is wrong").fill("The oil is rancid: it smells of crayons.");
  await does(page, "Begin the rehearsal", "Rehearsed recalling");
  await page.getByRole("link", { name: "Letters" }).click();
  await page.getByRole("heading", { name: "Letters" }).waitFor();
  const path = new URL(page.url()).pathname;
  const to = await page.locator("main section").evaluateAll((all) => all.map((s) => s.getAttribute("aria-label")!));
  expect(to.length).toBeGreaterThan(2);
  expect(await prints(page, path)).toEqual([to.length, to.length]);
  const sheets = await sheetsOf(new Uint8Array(await page.pdf({ format: "A4" })));
  // The same letters as a file, with nothing on any but its own page.
  const [saved] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "Save as PDF" }).click()]);
  expect(saved.suggestedFilename()).toMatch(/^recall-\d+-letters\.pdf$/);
  const file = await sheetsOf(readFileSync(await saved.path()));
  expect([file.length, faults(file)]).toEqual([to.length, []]);
  for (const [n, sheet] of file.entries())
    expect([to[n], textOf([sheet]).includes(to[n]!.replace("Notice for ", ""))]).toEqual([to[n], true]);
  const people = to.filter((name) => !name.startsWith("Notice"));
  for (const [n, sheet] of sheets.entries()) {
    const text = sheet.boxes.map((b) => b.text).join(" ");
    for (const part of [
      "REHEARSAL",
      "RECALL",
      "Aldermoss Workroom",
      "Telephone 0555 0147",
      String(new Date().getFullYear()),
      "Why:",
      "What to do:",
    ])
      expect(text).toContain(part);
    expect(people.filter((name) => text.includes(name))).toEqual(people.filter((name) => name === to[n]));
  }
});
