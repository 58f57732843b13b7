/** `npm run screenshots`: remakes docs/screenshots from the demo data, on a throw-away database and a pinned day. */
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { chromium as browserType, type Page } from "@playwright/test";
import { BROWSER_ARGS } from "./browser.ts";
import { WORKSHOPS } from "#core/workshop";
import { buildIfStale } from "./building/build.ts";
import { startDevices } from "./devices.ts";
import { openHouse } from "./database.ts";
import { startCluster } from "./cluster/cluster.ts";
import { DATA, freePort } from "./places.ts";
import { serve } from "./server/serve.ts";
import { chromium } from "./system.ts";

process.env.ZELBIN_TODAY = "2026-11-25";
const OUT = join("docs", "screenshots");

type View = readonly [name: string, path: string, act?: (page: Page) => Promise<void>];
const VIEWS: readonly View[] = [
  ["today", "/"],
  ["shelf", "/shelf"],
  ["material", "/shelf/8"],
  [
    "receive",
    "/shelf/receive",
    async (page) => {
      await page.getByLabel("Supplier", { exact: true }).fill("Skerrow Oil Press");
      await page.getByLabel("Postage", { exact: true }).fill("4.80");
      const rows = [
        ["Sea buckthorn berry oil", "2", "100 mL", "41.60", "SK-0A"],
        ["Jojoba oil", "1", "250 mL", "13.90", "SK-0B"],
      ];
      for (const [i, [material, packs, size, price, lot]] of rows.entries()) {
        if (i > 0) await page.getByRole("button", { name: "Add a line" }).click();
        const cell = (label: string) => page.getByLabel(`${label}, row ${i + 1}`, { exact: true });
        await cell("Material").fill(material!);
        await cell("Packs").fill(packs!);
        await cell("Each holds").fill(size!);
        await cell("Price of all").fill(price!);
        await cell("Supplier's lot").fill(lot!);
        await cell("Best before").fill("2028-01-31");
      }
      await page.locator("aside summary").filter({ hasText: "Sea buckthorn" }).click();
    },
  ],
  ["stock-take", "/shelf/stock-take"],
  ["jars", "/jars"],
  [
    "fill-jar",
    "/jars/fill",
    async (page) => {
      const cell = (label: string) => page.getByLabel(`${label}, row 1`, { exact: true });
      await cell("Herb").fill("Meadowsweet flowers, dried");
      await cell("Oil").fill("Sunflower oil, high oleic");
      await page.getByLabel("Oil in").fill("900 mL");
      await page.getByLabel("Oil to 1 of herb").fill("12");
      await page.getByLabel("The jar holds").fill("1.5 L");
      await page.getByLabel("Wanted by").fill("2026-12-20");
      await page.evaluate(() => window.scrollTo(0, 0));
    },
  ],
  [
    "recipe",
    "/recipes/1",
    async (page) =>
      page
        .locator("aside summary")
        .filter({ hasText: /^Fills/ })
        .click(),
  ],
  [
    "recipe-sets",
    "/recipes/1",
    async (page) => {
      await page.getByLabel("Amount, row 1", { exact: true }).fill("1/3 cup");
      await page.getByRole("tab", { name: "Sets" }).click();
      await page
        .getByRole("tab", { name: "Sets" })
        .evaluate((tab) => window.scrollTo(0, tab.getBoundingClientRect().top + window.scrollY - 24));
      await page.locator(".recharts-area").waitFor();
    },
  ],
  ["weigh-sheet", "/bench/16"],
  [
    "at-bench",
    "/bench/16/at",
    async (page) => {
      await page.getByRole("button", { name: "take all off" }).click();
      await page.getByText("● stable").waitFor();
      await page.getByRole("button", { name: "Tare", exact: true }).click();
      await page.getByRole("button", { name: "pour what is wanted" }).click();
      await page.getByText("g to go").waitFor();
      await page.waitForTimeout(1600);
    },
  ],
  ["cabinet", "/cabinet"],
  ["price", "/prices/1"],
  ["market-day", "/markets/4"],
  ["gift-order", "/gifts/6"],
  ["lot", "/lots/SB260827-1"],
  [
    "recall",
    "/lots/recalls/new?lot=R26133-01&rehearse=1",
    async (page) => {
      await page.getByLabel("What is wrong").fill("To see how long it takes: a supplier calls back a lot of wax.");
      await page.getByRole("button", { name: "Begin the rehearsal" }).click();
      await page.getByRole("heading", { name: "To write to" }).waitFor();
      await page.getByRole("button", { name: "Fine" }).click();
      await page
        .getByRole("button", { name: /^Told today/ })
        .first()
        .click();
      await page.getByText(/^told /).waitFor();
      await page.getByRole("button", { name: "Fine" }).click();
    },
  ],
  ["first-steps", "/own/begin/materials"],
  [
    "reckon",
    "/",
    async (page) => {
      await page.keyboard.press("=");
      await page.getByLabel("Question").fill("how many 2 oz tins from 500 g");
      await page.getByText("9 of 2 fl oz tins").first().waitFor();
    },
  ],
];

mkdirSync(OUT, { recursive: true });
const cluster = await startCluster(join(DATA, `pictures-${process.pid}`), true);
try {
  const house = await openHouse(await cluster.database());
  buildIfStale();
  const devices = startDevices();
  const site = await serve(house, await freePort(), { bench: devices });
  const browser = await browserType.launch({ executablePath: chromium(), args: BROWSER_ARGS });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: site.url, locale: "en-GB" });
  await house.begin();
  for (const [name, path, act] of VIEWS) {
    await page.goto(path.startsWith("/own") ? path : WORKSHOPS.demo.home + path);
    await page.locator("html[data-ready]").waitFor();
    await page.evaluate(() => document.fonts.ready);
    await act?.(page);
    await page.mouse.move(0, 0);
    await page.waitForTimeout(300);
    await page.screenshot({ path: join(OUT, `${name}.png`) });
    console.log(`docs/screenshots/${name}.png`);
  }
  await browser.close();
  await site.close();
  devices.stop();
  await house.close();
} finally {
  cluster.stop();
}
