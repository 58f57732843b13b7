/**
 * From a press to the painted answer, in the browser, in a workshop of five years: twenty presses of an ordinary day, each many times.
 * The clock runs in the page: from the press itself until the frame is drawn in which what was waited for is there.
 */
import { chromium as playwright, type Page } from "@playwright/test";
import { BROWSER_ARGS } from "../browser.ts";
import { chromium } from "../system.ts";

/** So many times each, the first of them to warm up. */
const TIMES = 12;
const WARM_UP = 2;
/** What a hand takes for at once. */
const WANTED_MS = 100;

/** What takes longer isn't there. */
const LONGEST_MS = 5000;

interface Press {
  name: string;
  /** The page it is pressed on. */
  on: string;
  /** What is pressed. */
  press: string;
  /** What has to be there then, and wasn't before: an element, and a part of its text. */
  then: readonly [css: string, text: string];
  /** What has to be done first, such as what is then taken back. */
  first?: { press: string; then: readonly [css: string, text: string] };
}

const note = (text: string) => ['[aria-label="What was done"]', text] as const;
const title = (text: string) => ["h1", text] as const;
const station = (name: string): string => `nav a:has-text("${name}")`;
const SAVE_SETTINGS = { press: 'button:has-text("Save")', then: note("Settings saved") };

const PRESSES: readonly Press[] = [
  { name: "Today to the shelf", on: "/", press: station("Shelf"), then: title("Shelf") },
  { name: "A board of the shelf", on: "/shelf?board=wax", press: 'main a[href*="board=oil"]', then: ["main table", "Apricot kernel oil"] },
  { name: "A material", on: "/shelf?board=oil", press: 'main table a[href*="/shelf/"]', then: ["h2", "In and out"] },
  { name: "Its history", on: "/shelf/8", press: 'a[href$="/history"]', then: ["title", "In and out"] },
  { name: "The receipts", on: "/shelf", press: 'main a[href$="/shelf/receipts"]', then: title("Receipts") },
  { name: "To receive", on: "/shelf", press: 'main a[href$="/shelf/receive"]', then: title("Receive a purchase") },
  { name: "Today to the jars", on: "/", press: station("Jars"), then: title("Jars") },
  { name: "Today to the recipes", on: "/", press: station("Recipes"), then: title("Recipes") },
  { name: "A recipe", on: "/recipes", press: 'main a[href$="/recipes/1"]', then: ["button", "Save the recipe"] },
  { name: "To set out", on: "/bench", press: 'a[href$="/bench/set-out"]', then: title("Set out a batch") },
  { name: "A batch's record", on: "/bench", press: 'main a[href$="/bench/15"]', then: ["h2", "Weighed"] },
  { name: "Today to the cabinet", on: "/", press: station("Cabinet"), then: title("Cabinet") },
  { name: "A product's prices", on: "/prices", press: 'main a[href$="/prices/1"]', then: ["button", "Save these prices"] },
  { name: "A market day", on: "/markets", press: 'main a[href$="/markets/1"]', then: ["a", "All days"] },
  { name: "An order", on: "/gifts", press: 'main a[href$="/gifts/6"]', then: ["a", "All orders"] },
  { name: "The book", on: "/", press: 'header a[href$="/book"]', then: title("The book") },
  { name: "Save prices", on: "/prices/1", press: 'button:has-text("Save these prices")', then: note("Prices saved") },
  { name: "Save an order", on: "/gifts/6", press: 'button:has-text("Save the order")', then: note("Saved the order") },
  { name: "Save settings", on: "/settings", ...SAVE_SETTINGS },
  { name: "Take it back", on: "/settings", first: SAVE_SETTINGS, press: 'button:has-text("Take it back")', then: note("Took back") },
];

/** In the page: from the next press until the frame is drawn that has what is waited for. */
const watching = ([css, text]: Press["then"]) => `(() => {
  window.took = 0;
  addEventListener("pointerdown", () => {
    const began = performance.now();
    const look = () => {
      const there = [...document.querySelectorAll(${JSON.stringify(css)})].some((e) => e.textContent.includes(${JSON.stringify(text)}));
      if (!there) return requestAnimationFrame(look);
      // What is there at the beginning of a frame is drawn in it; what waits for no time comes after the frame.
      setTimeout(() => (window.took = performance.now() - began));
    };
    requestAnimationFrame(look);
  }, { capture: true, once: true });
})()`;

/** As long as a finger takes from arriving at something to pressing it. */
const ARRIVING_MS = 80;

async function pressed(page: Page, { press, then }: Pick<Press, "press" | "then">): Promise<number> {
  const target = page.locator(press).first();
  await target.hover();
  await page.waitForTimeout(ARRIVING_MS);
  await page.evaluate(watching(then));
  await target.click();
  await page.waitForFunction("window.took > 0");
  return page.evaluate("window.took");
}

/** Milliseconds from the press to its answer on the screen. */
async function timeOf(page: Page, url: string, { on, first, ...press }: Press): Promise<number> {
  await page.goto(url + on);
  await page.locator("html[data-ready]").waitFor();
  if (first) {
    await pressed(page, first);
    await page.waitForTimeout(ARRIVING_MS);
  }
  return pressed(page, press);
}

const percentile = (sorted: readonly number[], p: number): number => sorted[Math.min(sorted.length - 1, Math.ceil(p * sorted.length) - 1)]!;

/** Prints the median and the 95th percentile of each press, and of all of them. */
export async function benchPresses(url: string): Promise<void> {
  const browser = await playwright.launch({ executablePath: chromium(), args: BROWSER_ARGS });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, bypassCSP: true });
  page.setDefaultTimeout(LONGEST_MS);
  console.log(`\nFrom a press to the painted answer at five years, ms (wanted: at most ${WANTED_MS} at the 95th percentile)\n`);
  const all: number[] = [];
  for (const one of PRESSES) {
    const took: number[] = [];
    try {
      for (let n = 0; n < TIMES; n++) took.push(await timeOf(page, url, one));
    } catch (e) {
      console.log(`  ${one.name.padEnd(24)}  ${(e as Error).message.split("\n")[0]}`);
      continue;
    }
    const sorted = took.slice(WARM_UP).sort((a, b) => a - b);
    all.push(...sorted);
    console.log(
      `  ${one.name.padEnd(24)}${percentile(sorted, 0.5).toFixed(0).padStart(6)}${percentile(sorted, 0.95).toFixed(0).padStart(6)}`,
    );
  }
  all.sort((a, b) => a - b);
  console.log(`  ${"all of them".padEnd(24)}${percentile(all, 0.5).toFixed(0).padStart(6)}${percentile(all, 0.95).toFixed(0).padStart(6)}`);
  await browser.close();
}
