/** What every test through the interface does with its hands. */
import { expect, type Locator, type Page } from "@playwright/test";

/** A path without a workshop is the demo's: which one was open last is another test's business. */
const inWorkshop = (path: string): string => (/^(https?:|\/(own|demo)(\/|$))/.test(path) ? path : `/demo${path}`);

/** Opens a page and waits until it answers to presses. What another test left unfinished on it is thrown away, unless it is to be gone on with. */
export async function open(page: Page, path: string, { goOn = false } = {}): Promise<void> {
  await page.goto(inWorkshop(path));
  await page.locator("html[data-ready]").waitFor();
  const left = page.getByRole("button", { name: "Throw it away" });
  if (!goOn && (await left.isVisible())) await left.click();
}

/** Fills the cells of one row of a table of lines. */
export async function fillRow(scope: Page | Locator, row: number, cells: Record<string, string>): Promise<void> {
  for (const [label, value] of Object.entries(cells)) {
    const cell = scope.getByLabel(`${label}, row ${row}`, { exact: true });
    if ((await cell.evaluate((e) => e.tagName)) === "SELECT") await cell.selectOption(value);
    else await cell.fill(value);
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
  await expect(page.getByRole("status")).toContainText(note);
}
