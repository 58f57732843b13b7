/** What must hold on every screen: readable by screen readers, within a phone's width, by keyboard, and light. */
import AxeBuilder from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";
import { gzipSync } from "node:zlib";
import { does, fillRow, open, test, widerThanAPhone } from "../hand.ts";
import { paste } from "../../scripts/browser.ts";

const SCREENS = [
  "/",
  "/shelf",
  "/shelf/receive",
  "/shelf/new",
  "/shelf/1",
  "/shelf/1/facts",
  "/shelf/receive/file",
  "/shelf/opening",
  "/shelf/opening/file",
  "/shelf/receipts",
  "/shelf/receipts/3",
  "/shelf/receipts/3/correct",
  "/shelf/shopping",
  "/shelf/stock-take",
  "/shelf/harvests",
  "/shelf/harvests/new",
  "/shelf/harvests/1",
  "/shelf/harvests/4",
  "/shelf/library",
  "/shelf/8/buying",
  "/shelf/8/history",
  "/jars",
  "/jars/fill",
  "/jars/blend",
  "/jars/1",
  "/jars/12",
  "/jars/12/label",
  "/recipes",
  "/recipes/new",
  "/recipes/1",
  "/recipes/1/versions",
  "/bench",
  "/bench/set-out",
  "/bench/1",
  "/bench/16",
  "/bench/16/at",
  "/cabinet",
  "/prices",
  "/prices/1",
  "/markets",
  "/markets/new",
  "/markets/1",
  "/markets/5",
  "/gifts",
  "/gifts/new",
  "/gifts/1",
  "/gifts/5",
  "/lots",
  "/lots?number=zzz",
  "/lots/recalls",
  "/lots/recalls/new?find=beeswax",
  "/settings",
  "/workshops",
  "/backups",
  "/calendar",
  "/accounts?of=making",
  "/people",
  "/people?of=market",
  "/people/new?of=customer",
  "/people/file?of=customer",
  "/cabinet/file",
  "/shelf/file",
  "/recipes/file",
  "/prices/file",
  "/prices/ladder",
  "/markets/file",
  "/gifts/file",
  "/people/1",
  "/recipes/new?like=1",
  "/gifts/new?like=1",
  "/markets/new?like=1",
  "/book",
  "/book/1",
  "/book?find=poured",
];

/** Fields for words; every other field a hand types into is one for an amount, and says so. */
const FOR_WORDS =
  /^(Name|.* is called|The oil will be called|What you call it|Which jar|Who does the work|Lot letters|Note|A word|Words|What .*|Where|Why .*|.*Supplier's lot.*|Lot on it.*|All from|INCI name|Botanical name|Allergen to name|Made of|Batches|Jars|How to reach them|Where to order|Where it is.*)$/;

/** Fields that are for neither words, names, days nor amounts. */
const unmarked = (page: Page): Promise<string[]> =>
  page.evaluate(
    (words) =>
      [...document.querySelectorAll<HTMLInputElement>("#work input:not([data-amount], [role=combobox], [type=search], [type=hidden])")]
        .filter((i) => i.type === "text" && !i.parentElement!.querySelector("[aria-label='Choose a day']"))
        .map((i) => i.getAttribute("aria-label") ?? i.labels?.[0]?.textContent ?? i.outerHTML)
        .filter((label) => !new RegExp(words).test(label)),
    FOR_WORDS.source,
  );

/** What a hand would find in the fields of a page, in order. */
const filled = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLInputElement | HTMLTextAreaElement>("#work input, #work textarea")]
      .filter((i) => i.type !== "hidden" && i.offsetParent !== null)
      .map((i) => {
        const label = i.getAttribute("aria-label") ?? i.labels?.[0]?.innerText ?? "";
        return `${label}: ${"checked" in i && /checkbox|radio/.test(i.type) ? i.checked : i.value}`;
      }),
  );

/** Adds up by how much what was drawn moves by itself, as the browser reckons it (Layout Instability, W3C community draft). */
const watchesShifts = (page: Page) =>
  page.addInitScript(() => {
    Object.assign(window, { shifted: 0 });
    new PerformanceObserver((seen) => {
      for (const e of seen.getEntries() as (PerformanceEntry & { value: number; hadRecentInput: boolean })[])
        if (!e.hadRecentInput) Object.assign(window, { shifted: (window as unknown as { shifted: number }).shifted + e.value });
    }).observe({ type: "layout-shift", buffered: true });
  });
const shifted = (page: Page): Promise<number> => page.evaluate(() => (window as unknown as { shifted: number }).shifted);

/** The files of the faces that a page asked for ahead, and of those that words on it were set in. */
const faces = (page: Page): Promise<{ ahead: number; set: number }> =>
  page.evaluate(async () => {
    await document.fonts.ready;
    return {
      ahead: document.querySelectorAll("link[rel=preload][as=font]").length,
      set: [...document.fonts].filter((f) => f.status === "loaded").length,
    };
  });

/** What axe-core finds wrong by WCAG 2.2 AA. */
async function faults(page: Page, where: string): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]).analyze();
  return violations.map((v) => `${where}: ${v.id}: ${v.nodes[0]!.html.slice(0, 160)}`);
}

test("with what pops up open: nothing wrong by WCAG 2.2 AA either", async ({ page }) => {
  await open(page, "/shelf/receive");
  await page.getByRole("button", { name: "Workshops" }).click();
  expect(await faults(page, "workshops' menu")).toEqual([]);
  await page.keyboard.press("Escape");
  await page.getByLabel("Material, row 1").fill("oil");
  await expect(page.getByRole("listbox").getByRole("option").first()).toBeVisible();
  expect(await faults(page, "names to choose from")).toEqual([]);
  await page.getByLabel("Material, row 1").fill("nothing of the kind");
  await page.getByRole("option", { name: /^Add / }).click();
  expect(await faults(page, "adding a material")).toEqual([]);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Choose a day" }).first().click();
  await expect(page.getByRole("grid")).toBeVisible();
  expect(await faults(page, "the calendar")).toEqual([]);
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: /^Reckon/ }).click();
  await page.getByLabel("Question").fill("2 cups olive oil");
  expect(await faults(page, "the reckon bar")).toEqual([]);
});

test("on every screen: WCAG 2.2 AA as far as axe-core can tell, nothing wider than a phone, nothing moves by itself, fields are full as they are sent, and nothing fails on the way", async ({
  page,
  browser,
  baseURL,
}) => {
  test.setTimeout(900_000);
  const errors: string[] = [];
  page.on("pageerror", (e) => errors.push(`${page.url()}: ${e.message}`));
  page.on("console", (m) => m.type() === "error" && errors.push(`${page.url()}: ${m.text()}`));
  await watchesShifts(page);
  const asSent = await browser.newPage({ javaScriptEnabled: false, viewport: { width: 1280, height: 800 }, baseURL });
  for (const path of SCREENS) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await open(page, path);
    expect(await faces(page), path).toEqual({ ahead: 3, set: 3 });
    expect(await shifted(page), path).toBeLessThan(0.005);
    await asSent.goto(`/demo${path}`);
    expect(await filled(asSent), path).toEqual(await filled(page));
    expect(await faults(page, path)).toEqual([]);
    expect(await unmarked(page), path).toEqual([]);
    expect(await widerThanAPhone(page), path).toEqual([]);
  }
  await asSent.close();
  expect(errors).toEqual([]);
});

test("the first page loads under 150 kB of script, compressed, and asks nobody outside", async ({ page, baseURL }) => {
  const scripts: Promise<number>[] = [];
  const outside: string[] = [];
  const packed = new Set<string>();
  page.on("response", (r) => {
    if (!r.url().startsWith(baseURL!)) outside.push(r.url());
    if (!/\.js(\?|$)/.test(r.url())) return;
    scripts.push(r.body().then((body) => gzipSync(body).length));
    packed.add(r.headers()["content-encoding"] ?? "not at all");
  });
  await open(page, "/");
  await page.waitForLoadState("networkidle");
  const bytes = (await Promise.all(scripts)).reduce((a, n) => a + n, 0);
  expect(bytes).toBeGreaterThan(10_000);
  expect(bytes).toBeLessThan(150_000);
  // As they were compressed when they were built.
  expect([...packed]).toEqual(["br"]);
  expect(outside).toEqual([]);
});

test("by keyboard: stations, the reckon bar, the first act, rows that add and paste", async ({ page }) => {
  await open(page, "/");
  await page.keyboard.press("2");
  await expect(page.getByRole("heading", { name: "Shelf" })).toBeVisible();
  await page.keyboard.press("/");
  await page.keyboard.type("jojoba");
  await expect(page.locator("tbody tr:not(.group)")).toHaveCount(1);
  await page.keyboard.press("Tab");
  await page.keyboard.press("=");
  await page.keyboard.type("2 tbsp jojoba in g");
  await expect(page.getByText("2 tbsp Jojoba oil = 25.58 g")).toBeVisible();
  await page.getByLabel("Question").fill("60 drops lavender in 400 g");
  await expect(page.getByText(/is 0\.66\s%/).first()).toBeVisible();
  await page.getByLabel("Question").fill("cost 12 x hand balm");
  await expect(page.getByText(/^12 × Sea buckthorn hand balm/)).toBeVisible();
  await page.keyboard.press("Escape");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
  await page.keyboard.press("Escape");
  await page.keyboard.press("n");
  await expect(page.getByRole("heading", { name: "Receive a purchase" })).toBeVisible();

  await fillRow(page, 1, { Material: "Castor oil" });
  await page.getByLabel("Material, row 1", { exact: true }).press("Enter");
  await expect(page.getByLabel("Material, row 2", { exact: true })).toBeFocused();
  await paste(page.getByLabel("Material, row 2", { exact: true }), "Jojoba oil\t2\t250 mL\t26.40\nCoconut oil\t1\t1 kg\t11.20\n");
  await expect(page.getByLabel("Price of all, row 3")).toHaveValue("11.20");
  await expect(page.locator("aside").getByText("€37.60").first()).toBeVisible();
});

test("settings: a scheme that gives no number is refused; a changed school shows everywhere, and the currency is fixed", async ({
  page,
}) => {
  await open(page, "/settings");
  const batches = page.getByLabel("Batches");
  const scheme = await batches.inputValue();
  await batches.fill("{P}-{YY}");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "needs a running number" })).toBeVisible();
  await batches.fill(scheme);
  await page.getByLabel("What a gram costs").selectOption("again");
  await expect(page.getByLabel("Currency").locator("option")).toHaveText(["EUR"]);
  await expect(page.getByText("Fixed: there is money in the books.")).toBeVisible();
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Settings saved");
  await open(page, "/recipes");
  await expect(page.getByRole("columnheader", { name: "Replacement cost ●" })).toBeVisible();
  await open(page, "/settings");
  await page.getByText("What was done here").click();
  await page.getByRole("button", { name: "Take back: Settings saved" }).first().click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Took back: Settings saved");
  await expect(page.getByLabel("What a gram costs")).toHaveValue("lot");
});

test("numbers are typed the workshop's way: shown with one reading, asked about where no habit says, unchanged when the habit is", async ({
  page,
}) => {
  const habit = async (says: string) => {
    await open(page, "/settings");
    await page.getByLabel("Numbers are typed").selectOption({ label: says });
    await does(page, "Save", "Settings saved");
  };
  const packs = page.getByLabel("Each holds, row 1", { exact: true });
  const price = page.getByLabel("Price of all, row 1", { exact: true });
  await habit("1.234,5");
  await open(page, "/shelf/receive");
  await fillRow(page, 1, { Material: "Castor oil", Packs: "1" });
  await packs.fill("1,250 kg");
  await price.fill("1.200");
  await page.getByLabel("Supplier", { exact: true }).click();
  await expect(packs).toHaveValue("1.25 kg");
  await expect(price).toHaveValue("1200");
  await expect(page.locator("aside").getByText("€1 200.00").first()).toBeVisible();
  await paste(packs, "1.500 g\t1.200,50\n2.500 g\t7\n");
  await expect(packs).toHaveValue("1500 g");
  await expect(page.getByLabel("Each holds, row 2", { exact: true })).toHaveValue("2500 g");
  // Sent by Enter, without the field being left.
  await page.getByLabel("Postage").fill("2.300");
  await page.getByLabel("Postage").press("Enter");
  await expect(page.getByLabel("Postage")).toHaveValue("2300");

  await habit("Ask when unsure");
  await open(page, "/shelf/receive", { goOn: true });
  await expect(packs).toHaveValue("1500 g");
  await expect(page.getByLabel("Postage")).toHaveValue("2300");
  await packs.fill("1,250 g");
  await page.getByLabel("Supplier", { exact: true }).fill("Wether Mill");
  await expect(packs).toHaveValue("1,250 g");
  await page.getByRole("button", { name: "Put on the shelf" }).click();
  await expect(page.getByText("“1,250” could be 1250 or 1.25. Write it one of those ways.").first()).toBeVisible();
});

test("empty places say what goes there", async ({ page }) => {
  await open(page, "/lots?number=nothing-like-this");
  await expect(page.getByText("No lot matches")).toBeVisible();
  await open(page, "/shelf");
  await page.getByLabel("Find a material").fill("moon");
  await expect(page.getByText("Nothing on the shelf is called “moon”")).toBeVisible();
});
