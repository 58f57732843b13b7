import { defineConfig } from "@playwright/test";
import { BROWSER_ARGS } from "../scripts/browser.ts";
import { HOUSE_URL, HOUSES } from "./house.ts";

export default defineConfig({
  testDir: ".",
  outputDir: "../test-results",
  workers: HOUSES,
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
