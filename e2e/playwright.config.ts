/** How the journeys are run: side by side, a database each, in headless Chromium. */
import { defineConfig } from "@playwright/test";
import { BROWSER_ARGS } from "../scripts/browser.ts";
import { HOUSE_URL, HOUSES } from "./house.ts";

export default defineConfig({
  testDir: ".",
  outputDir: "../test-results",
  workers: HOUSES,
  // A machine that pauses for a while fails the best of journeys. One that needs its second try is named at the end, with what it saw.
  retries: 1,
  timeout: 180_000,
  expect: { timeout: 20_000 },
  reporter: [["list"], ["json"]],
  use: {
    baseURL: HOUSE_URL,
    viewport: { width: 1280, height: 800 },
    locale: "en-GB",
    trace: "retain-on-failure",
    launchOptions: { executablePath: process.env.CHROMIUM, args: BROWSER_ARGS },
  },
});
