/** What every test through the interface does with its hands. */
import { openDb } from "#db/client";
import { batchEvent, draft } from "#db/schema";
import { eq } from "drizzle-orm";
import { expect, test as base, type Locator, type Page } from "@playwright/test";
import { HOUSE_DATABASE } from "./house.ts";

/** The file of journeys this worker is in: each begins with the demo as it was on its first day, since which went before is chance. */
let within = "";

/** A test in a house where no other file has sold, poured or written down anything, and no other test left a sheet unfinished or something setting. */
export const test = base.extend<{ house: undefined }>({
  house: [
    async ({ request, baseURL }, use, { file }) => {
      if (within !== file) {
        // A machine that pauses for a while has a database that is away for a moment: tried again shortly, as the page would say.
        await expect(async () => {
          const reset = await request.post("/demo/workshops.data", {
            data: { intent: "reset" },
            headers: { origin: baseURL! },
            maxRedirects: 0,
          });
          expect(await reset.text(), "the demo put back").toContain('"redirect"');
        }).toPass({ timeout: 60_000 });
        within = file;
      }
      const db = openDb(HOUSE_DATABASE);
      await db.delete(draft);
      await db.update(batchEvent).set({ endedAt: new Date() }).where(eq(batchEvent.kind, "set"));
      await db.close();
      await use(undefined);
    },
    { auto: true },
  ],
  page: async ({ page }, use, info) => {
    const asked = watch(page);
    await use(page);
    if (info.status !== info.expectedStatus) await info.attach("asked", { body: asked().join("\n"), contentType: "text/plain" });
  },
});

/** What a page asks of the server and is answered, and what it complains of, with the milliseconds since it was opened; @returns the last of it */
function watch(page: Page): () => string[] {
  const start = performance.now();
  const seen: string[] = [];
  const say = (what: string): void => void seen.push(`${Math.round(performance.now() - start)} ${what}`);
  const ours = (url: string): boolean => !/\/assets\/|\.(svg|woff2)$/.test(url);
  page.on("request", (r) => ours(r.url()) && say(`asks ${r.method()} ${r.url()}`));
  page.on("response", (r) => ours(r.url()) && say(`is answered ${r.status()} ${r.url()}`));
  page.on("requestfailed", (r) => say(`fails ${r.url()} ${r.failure()?.errorText ?? ""}`));
  page.on("console", (m) => say(`says ${m.text()}`));
  page.on("pageerror", (e) => say(`throws ${e.message}`));
  return () => seen.slice(-30);
}

/** Every answer of the server comes that much later, as on a slow connection; @returns what ends it */
export async function slowly(page: Page, ms: number): Promise<() => Promise<void>> {
  const chromium = await page.context().newCDPSession(page);
  const latency = (by: number) =>
    chromium.send("Network.emulateNetworkConditions", { offline: false, latency: by, downloadThroughput: -1, uploadThroughput: -1 });
  await latency(ms);
  return async () => {
    await latency(0);
  };
}

/** A path without a workshop is the demo's: which one was open last is another test's business. */
const inWorkshop = (path: string): string => (/^(https?:|\/(own|demo)(\/|$))/.test(path) ? path : `/demo${path}`);

/** Opens a page and waits until it answers to presses. What another test left unfinished on it is thrown away, unless it is to be gone on with. */
export async function open(page: Page, path: string, { goOn = false } = {}): Promise<void> {
  for (;;) {
    await page.goto(inWorkshop(path));
    await page.locator("html[data-ready]").waitFor();
    if (goOn) return;
    // A sheet laid over the page opens a moment after it.
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
    const left = page.getByRole("button", { name: "Throw it away" });
    if (!(await left.isVisible())) return;
    // Opened again after it: this page knows already what the sheet named.
    const thrown = page.waitForResponse((r) => new URL(r.url()).pathname.endsWith("/drafts"));
    await left.click();
    await thrown;
  }
}

/** Chooses from a list whose lines say more than a name: with a mouse ours, by touch the device's own. */
export async function choose(scope: Page | Locator, label: string, name: string | RegExp): Promise<void> {
  const box = scope.getByLabel(label, { exact: true });
  if ((await box.evaluate((e) => e.tagName)) === "SELECT") {
    const option = box.locator("option").filter({ hasText: name }).first();
    await box.selectOption(await option.getAttribute("value"));
    return;
  }
  await box.click();
  await box.page().getByRole("option").filter({ hasText: name }).first().click();
}

/** Fills the cells of one row of a table of lines, and leaves it. */
export async function fillRow(scope: Page | Locator, row: number, cells: Record<string, string>): Promise<void> {
  for (const [label, value] of Object.entries(cells)) {
    const cell = scope.getByLabel(`${label}, row ${row}`, { exact: true });
    if ((await cell.evaluate((e) => e.tagName)) === "SELECT") await cell.selectOption(value);
    else {
      await cell.fill(value);
      await cell.blur();
    }
  }
}

/** The figure of the Reckoner beside the sheet. */
export const figure = (page: Page, label: string): Locator =>
  page
    .locator("aside")
    .locator("div, summary")
    .filter({ has: page.getByText(label, { exact: true }) })
    .last();

/** Presses a button and waits for the note of what was done. */
export async function does(page: Page, button: string, note: RegExp | string): Promise<void> {
  await page.getByRole("button", { name: button, exact: true }).click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText(note);
}

/** What juts out over the right edge of a phone; nothing, where a page is no wider. */
export async function widerThanAPhone(page: Page): Promise<string[]> {
  await page.setViewportSize({ width: 390, height: 844 });
  // A chart hears of its new width a moment after the page does.
  await page.waitForFunction(() => document.documentElement.scrollWidth <= 390, undefined, { timeout: 3000 }).catch(() => undefined);
  return page.evaluate(() =>
    document.documentElement.scrollWidth <= 390
      ? []
      : [...document.querySelectorAll("body *")]
          .filter((e) => e.getBoundingClientRect().right > 390.5)
          .map((e) => `${e.tagName} ${e.textContent.slice(0, 40)}`)
          .slice(-6),
  );
}

/** Sets out a batch of so many of each size, and leaves the page on its weigh sheet. @param units by the label of their field */
export async function setOut(page: Page, recipe: string, units: Record<string, string>): Promise<void> {
  await open(page, "/bench/set-out");
  await choose(page, "Recipe", recipe);
  for (const [label, n] of Object.entries(units)) await page.getByLabel(label, { exact: true }).fill(n);
  await does(page, "Set out", `Set out ${recipe}`);
}

/** The weighings of a weigh sheet. */
export const weighed = (page: Page) => page.getByLabel(/^Weighed: /);

/** Copies every planned weight into its weighing. */
export async function weighAsPlanned(page: Page): Promise<void> {
  for (const input of await weighed(page).all())
    await input.fill(await input.locator("xpath=ancestor::li").locator("p.weight").innerText());
}

/** Buys so much of each, so that a journey doesn't hang on what others took of the shelf. @param packs what each pack holds, by material */
export async function receive(page: Page, packs: Record<string, string>): Promise<void> {
  await open(page, "/shelf/receive");
  await page.getByLabel("Supplier", { exact: true }).fill("Sallow Press");
  for (const [i, [material, holds]] of Object.entries(packs).entries()) {
    if (i > 0) await page.getByLabel(`Best before, row ${i}`).press("Enter");
    await fillRow(page, i + 1, { Material: material, "Each holds": holds, "Price of all": "9.00", "Best before": "2099-08-31" });
  }
  await does(page, "Put on the shelf", `Received ${Object.keys(packs).length} lots from Sallow Press`);
}
