/**
 * What is printed, as the boxes of its text lie on the pages: nothing over anything else, nothing past the margins, no page that is empty or
 * has a line alone.
 */
import { expect, type Page } from "@playwright/test";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { does, open, test } from "../hand.ts";

interface Box {
  text: string;
  left: number;
  right: number;
  top: number;
  bottom: number;
}
interface Sheet {
  boxes: Box[];
  width: number;
  height: number;
}

/** The margins a browser is asked for, in points: 12 mm. */
const MARGIN = (12 / 25.4) * 72;
/** Letters lean out of their boxes a little. */
const LEAN = 1.5;

/** The pages of a PDF, each with its texts from the top. */
async function sheetsOf(pdf: Uint8Array): Promise<Sheet[]> {
  const doc = await getDocument({ data: pdf, useSystemFonts: true, verbosity: 0 }).promise;
  const sheets: Sheet[] = [];
  for (let n = 1; n <= doc.numPages; n++) {
    const page = await doc.getPage(n);
    const { width, height } = page.getViewport({ scale: 1 });
    const { items } = await page.getTextContent();
    const boxes = items.flatMap((i): Box[] => {
      if (!("str" in i) || i.str.trim() === "") return [];
      const [, , , , x, y] = i.transform as [number, number, number, number, number, number];
      // From the foot of a letter without a tail to the head of a capital.
      return [{ text: i.str.trim(), left: x, right: x + i.width, top: height - y - 0.7 * i.height, bottom: height - y }];
    });
    sheets.push({ boxes, width, height });
  }
  await doc.destroy();
  return sheets;
}

const over = (a: Box, b: Box): boolean =>
  Math.min(a.right, b.right) - Math.max(a.left, b.left) > LEAN && Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > LEAN;

/** Lines of text: boxes that stand at one height. */
const lines = ({ boxes }: Sheet): number => new Set(boxes.map((b) => Math.round(b.bottom / 4))).size;

/** What is wrong with printed pages, in words. */
function faults(sheets: readonly Sheet[]): string[] {
  return sheets.flatMap(({ boxes, width, height }, n) => {
    const at = `page ${n + 1} of ${sheets.length}`;
    const clashes = boxes.flatMap((a, i) => boxes.slice(i + 1).flatMap((b) => (over(a, b) ? [`${at}: “${a.text}” over “${b.text}”`] : [])));
    const outside = boxes
      .filter((b) => b.left < MARGIN - LEAN || b.right > width - MARGIN + LEAN || b.top < MARGIN - 4 || b.bottom > height - MARGIN + 4)
      .map((b) => `${at}: “${b.text}” is past the margin`);
    const alone = sheets.length > 1 && lines(sheets[n]!) < 2 ? [`${at}: has ${lines(sheets[n]!)} lines`] : [];
    return [...clashes, ...outside, ...alone];
  });
}

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
