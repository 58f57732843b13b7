/** A shelf grown big. Runs last, since the others look at a small one. */
import { expect } from "@playwright/test";
import { sql } from "drizzle-orm";
import { openDb } from "#db/client";
import { open, test } from "../hand.ts";
import { HOUSE_DATABASE } from "../house.ts";

test("a big shelf stands in boards: one opens at a time, and a search looks through all of them", async ({ page }) => {
  await open(page, "/shelf/library");
  const boxes = page.getByRole("checkbox", { disabled: false });
  await page.evaluate(() => {
    for (const box of [...document.querySelectorAll<HTMLInputElement>("main input[type=checkbox]:not(:disabled)")].slice(0, 40))
      box.click();
  });
  await expect(boxes.first()).toBeChecked();
  await page.getByRole("button", { name: /^Take 40 onto the shelf$/ }).click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("40 materials taken from the library");
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

test("a list of four thousand and a stock-take of three thousand lots keep their shape: found, sorted, a hundred at a time", async ({
  page,
}) => {
  // Only a safety, like every limit: thousands of lines on a machine that does other work beside.
  test.setTimeout(600_000);
  const db = openDb(HOUSE_DATABASE);
  await db.execute(
    sql`with made as (insert into contact (kind, name, note) select 'customer', 'Caller ' || n, 'lane ' || n % 40 from generate_series(1, 4000) n returning id, kind, name)
      insert into contact_name (kind, called, contact_id) select kind, lower(name), id from made`,
  );
  await db.execute(
    sql`with made as (insert into gift_order (customer, due, extra, discount_bp, wrap_minutes) select 'Caller ' || n, current_date + 30 + n, 0, 0, 0 from generate_series(1, 300) n returning id)
      insert into gift_item (gift_order_id, product_id, name, units, price) select made.id, (select min(id) from product), 'Balm', 2, 9000000 from made`,
  );
  await db.close();
  await open(page, "/people?of=customer");
  const rows = page.locator("tbody tr");
  await expect(rows).toHaveCount(100);
  await page.getByRole("button", { name: "Show 100 more" }).click();
  await expect(rows).toHaveCount(200);
  await page.getByLabel("Find among the customers").fill("caller 3977");
  await expect(rows).toHaveCount(1);
  await page.getByLabel("Find among the customers").fill("");
  await page.getByRole("columnheader", { name: "Name" }).getByRole("button").click();
  await page.getByRole("columnheader", { name: "Name" }).getByRole("button").click();
  await expect(rows.first()).toContainText(/^Tindle|^Quarrow|^Osmer|^Nan|^Toll/);

  await open(page, "/gifts");
  const toPack = page.getByRole("table").first().locator("tbody tr");
  await expect(toPack).toHaveCount(40);
  // The others are read once they are asked for.
  await page.getByLabel("Find among the orders to pack").fill("caller 290");
  await expect(page.getByRole("link", { name: "Caller 290", exact: true })).toBeVisible();
  await page.getByLabel("Find among the orders to pack").fill("");
  await expect(toPack).toHaveCount(100);
  await page.getByRole("button", { name: "Show 100 more" }).click();
  await expect(toPack).toHaveCount(200);

  const lines = Array.from({ length: 3000 }, (_, n) => `Castor oil;1;${100 + (n % 50)} mL;2,50;Long Row;LR-${n};2026-06-01`);
  await open(page, "/shelf/receive/file");
  await page.getByLabel("Rows", { exact: true }).fill(["material;packs;size;price;supplier;lot;date", ...lines].join("\n"));
  await page.getByRole("button", { name: "Put 3 000 lines on the shelf" }).click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Received 3", { timeout: 240_000 });
  const page1 = await page.request.get("/demo/shelf/stock-take?board=oil");
  expect((await page1.body()).length).toBeLessThan(600_000);
  await open(page, "/shelf/stock-take?board=oil");
  await expect(page.locator("input[data-count]")).toHaveCount(100);
  await page.getByRole("link", { name: "The next page" }).click();
  await expect(page.getByText(/^Page 2 of/)).toBeVisible();
  const first = page.locator("input[data-count]").first();
  await first.fill("90 g");
  await first.press("Enter");
  await expect(page.getByText(/^1 of 3\s\d{3} lots counted/)).toBeVisible();
  await expect(page.getByText(/^Page 2 of/)).toBeVisible();
});
