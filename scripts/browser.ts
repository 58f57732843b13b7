/** Debian's Chromium, the way the tests, the pictures and the benchmark start it (headless, and without any call to the outside) and paste into it. */
import type { Locator } from "@playwright/test";
import { isRoot } from "./system.ts";

export const BROWSER_ARGS = [
  ...(isRoot() ? ["--no-sandbox"] : []),
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  "--force-color-profile=srgb",
];

/** Pastes rows of a spreadsheet, beginning in that cell or into that field. */
export const paste = (cell: Locator, rows: string): Promise<void> =>
  cell.evaluate((to, text) => {
    const data = new DataTransfer();
    data.setData("text/plain", text);
    to.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
  }, rows);
