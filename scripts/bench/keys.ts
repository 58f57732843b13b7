/**
 * From a key to the figure it changes, painted: on a recipe's sheet of so many lines, beside a bare field whose number a page repeats, in the
 * same browser and in turns. Frames are not held back to a screen's, so that what is measured is work and not waiting for one.
 */
import { chromium as browserType, type Page } from "@playwright/test";
import { BROWSER_ARGS, paste } from "../browser.ts";
import { chromium } from "../system.ts";
import { median } from "./measure.ts";

const BLOCKS = 6;
const KEYS = 12;

/** A field and a figure that repeats it, and nothing else. */
const BARE = `<!doctype html><title>bare</title><input aria-label="n" oninput="document.querySelector('output').textContent = this.value"><output>0</output>`;

/** Reads the figures beside the sheet, and records how long each key took to change it on the screen. */
const watching = (figures: string) => `(() => {
  const say = () => document.querySelector(${JSON.stringify(figures)})?.textContent ?? "";
  window.took = [];
  addEventListener("keydown", () => {
    const began = performance.now(), before = say();
    const look = () => {
      if (say() === before) return requestAnimationFrame(look);
      // After this frame is on the screen.
      requestAnimationFrame(() => setTimeout(() => window.took.push(performance.now() - began)));
    };
    requestAnimationFrame(look);
  }, true);
})()`;

async function block(page: Page, field: string): Promise<number[]> {
  const input = page.getByLabel(field, { exact: true });
  await input.fill("100");
  await page.waitForTimeout(400);
  await input.press("End");
  await page.evaluate("window.took.length = 0");
  for (let i = 0; i < KEYS; i++) {
    await page.keyboard.press(i % 2 ? "Backspace" : String(1 + (i % 9)));
    await page.waitForFunction((n) => (window as unknown as { took: number[] }).took.length > n, i);
  }
  return page.evaluate(() => (window as unknown as { took: number[] }).took);
}

/** A new recipe with so many lines of these materials. */
async function sheetOf(page: Page, site: string, materials: readonly string[], lines: number): Promise<void> {
  await page.goto(`${site}/recipes/new`);
  await page.locator("html[data-ready]").waitFor();
  // A sheet left by the run before would be gone on with, with all its lines.
  const left = page.getByRole("button", { name: "Throw it away" });
  if (await left.isVisible()) await left.click();
  const rows = Array.from({ length: lines }, (_, i) => `${materials[i % materials.length]}\t100 g`).join("\n");
  await paste(page.getByLabel("Material, row 1", { exact: true }), rows);
  await page.getByLabel("Filled with").fill("50 g");
  await page.locator("aside").getByText("Cost of one unit").first().waitFor();
  await page.evaluate("scrollTo(0, 0)");
  await page.evaluate(watching("aside"));
}

/** @param sites each with its name, its address and what its recipes are written of */
export async function benchKeys(sites: readonly { name: string; site: string; materials: readonly string[] }[]): Promise<void> {
  console.log("\nFrom a key to the figure it changes, painted, in milliseconds; a bare field's in the same run");
  const browser = await browserType.launch({
    executablePath: chromium(),
    args: [...BROWSER_ARGS, "--disable-frame-rate-limit", "--disable-gpu-vsync"],
  });
  const bare = await browser.newPage();
  await bare.setContent(BARE);
  await bare.evaluate(watching("output"));
  for (const { name, site, materials } of sites)
    for (const lines of [6, 40, 60]) {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
      await sheetOf(page, site, materials, lines);
      const took = { bare: [] as number[], sheet: [] as number[] };
      for (let b = 0; b < BLOCKS; b++) {
        await bare.bringToFront();
        took.bare.push(...(await block(bare, "n")));
        await page.bringToFront();
        took.sheet.push(...(await block(page, "Amount, row 1")));
      }
      const [field, sheet] = [median(took.bare), median(took.sheet)];
      console.log(
        `  ${name}, ${String(lines).padStart(2)} lines: ${sheet.toFixed(1)} beside ${field.toFixed(1)}, ${(sheet - field).toFixed(1)} more (wanted: at most ${lines === 6 ? 16 : 33})`,
      );
      await page.close();
    }
  await browser.close();
}
