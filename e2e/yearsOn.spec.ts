/** A shelf grown big. Runs last, since the others look at a small one. */
import { expect, test } from "@playwright/test";
import { open } from "./hand.ts";

test("a big shelf stands in boards: one opens at a time, and a search looks through all of them", async ({ page }) => {
  await open(page, "/shelf/library");
  const boxes = page.getByRole("checkbox", { disabled: false });
  await page.evaluate(() => {
    for (const box of [...document.querySelectorAll<HTMLInputElement>("main input[type=checkbox]:not(:disabled)")].slice(0, 40))
      box.click();
  });
  await expect(boxes.first()).toBeChecked();
  await page.getByRole("button", { name: /^Take 40 onto the shelf$/ }).click();
  await expect(page.getByRole("status")).toContainText("40 materials taken from the library");
  await expect(page.getByRole("link", { name: "Jojoba oil" })).toBeHidden();
  const oils = page.getByRole("link", { name: "Liquid oils" });
  await expect(oils).toHaveAttribute("aria-expanded", "false");
  await oils.click();
  await expect(page.getByRole("link", { name: "Jojoba oil" })).toBeVisible();
  await expect(oils).toHaveAttribute("aria-expanded", "true");
  await page.getByLabel("Find a material").fill("beeswax");
  await page.getByLabel("Find a material").press("Enter");
  await expect(page.getByRole("link", { name: "Beeswax, yellow" })).toBeVisible();
  await expect(page.getByRole("link", { name: "Jojoba oil" })).toBeHidden();
  await page.getByLabel("Find a material").fill("nothing like it");
  await page.getByLabel("Find a material").press("Enter");
  await expect(page.getByText("Nothing on the shelf is called “nothing like it”.")).toBeVisible();
});
