import { defineConfig } from "@playwright/test";
import { BROWSER_ARGS } from "../scripts/browser.ts";

export default defineConfig({
  testDir: ".",
  outputDir: "../test-results",
  workers: 1,
  timeout: 60_000,
  expect: { timeout: 10_000 },
  reporter: [["list"], ["json"]],
  use: {
    baseURL: process.env.ZELBIN_URL,
    viewport: { width: 1280, height: 800 },
    locale: "en-GB",
    trace: "retain-on-failure",
    launchOptions: { executablePath: process.env.CHROMIUM, args: BROWSER_ARGS },
  },
});
