/** Slips: each gets a clear word beside its field, keeps what was typed, and stores nothing half-done. */
import { openDb } from "#db/client";
import { act, giftOrder, jar, lot, marketDay } from "#db/schema";
import { and, desc, gt, isNotNull, isNull } from "drizzle-orm";
import { HOUSE_DATABASE } from "../house.ts";
import { expect, type Page } from "@playwright/test";
import { choose, does, fillRow, open, test } from "../hand.ts";

const beside = (page: Page, text: string | RegExp) => page.getByRole("alert").filter({ hasText: text });

test("a receipt full of slips names each one, keeps what was typed, and receives nothing until it is right", async ({ page }) => {
  await open(page, "/shelf");
  const before = await page.locator("a.lot").count();
  await open(page, "/shelf/receive");
  await page.getByLabel("Supplier", { exact: true }).fill("");
  await fillRow(page, 1, { Material: "Moon dust", "Each holds": "500 g", "Price of all": "5" });
  await page.getByRole("button", { name: "Add a line" }).click();
  await fillRow(page, 2, { Material: "Jojoba oil", "Each holds": "3 bushels", "Price of all": "-4" });
  await page.getByRole("button", { name: "Add a line" }).click();
  await fillRow(page, 3, { Material: "Birch leaf, dried", "Each holds": "2 cups", "Price of all": "1,234" });
  await page.getByRole("button", { name: "Put on the shelf" }).click();
  await expect(beside(page, "Enter who it came from")).toBeVisible();
  await expect(beside(page, "Amounts can't be below zero")).toBeVisible();
  await expect(beside(page, "could be 1234 or 1.234")).toBeVisible();
  await expect(page.getByLabel("Each holds, row 2")).toHaveValue("3 bushels");
  await page.getByLabel("Supplier", { exact: true }).fill("Wether Mill");
  await page.getByLabel("Arrived").fill("2099-01-01");
  await fillRow(page, 2, { "Price of all": "4" });
  await fillRow(page, 3, { "Price of all": "12.34" });
  await page.getByRole("button", { name: "Put on the shelf" }).click();
  await expect(beside(page, "That day hasn't come yet")).toBeVisible();
  await expect(beside(page, "“Moon dust” isn't on the shelf")).toBeVisible();
  await expect(beside(page, "“bushels” isn't a unit")).toBeVisible();
  await expect(beside(page, "has no density for dried")).toBeVisible();
  await open(page, "/shelf");
  expect(await page.locator("a.lot").count()).toBe(before);
});

test("a recipe says what is wrong while it is typed, and an empty one isn't kept", async ({ page }) => {
  await open(page, "/recipes/new");
  await page.getByLabel("Name", { exact: true }).fill("Nothing much");
  await page.getByLabel("Lot letters").fill("SB");
  await page.getByRole("button", { name: "Save the recipe" }).click();
  await expect(beside(page, "Add at least one ingredient")).toBeVisible();
  await expect(beside(page, "what one unit is filled with")).toBeVisible();
  await fillRow(page, 1, { Material: "Birch leaf, dried", Amount: "20 mL" });
  await expect(page.getByText("has no density for dried").first()).toBeVisible();
  await fillRow(page, 1, { Material: "Jojoba oil", Amount: "900000 lb" });
  await expect(page.getByText("That is over a tonne").first()).toBeVisible();
  await fillRow(page, 1, { Amount: "4 oz" });
  await page.getByRole("button", { name: /fl oz\?/ }).click();
  await expect(page.getByLabel("Amount, row 1", { exact: true })).toHaveValue("4 fl oz");
  await page.getByLabel("Filled with").fill("20 g");
  await page.getByRole("button", { name: "Save the recipe" }).click();
  await expect(beside(page, "has the letters SB already")).toBeVisible();
  await expect(page.getByLabel("Amount, row 1", { exact: true })).toHaveValue("4 fl oz");
});

test("a batch larger than the shelf says what is missing and nothing is set out", async ({ page }) => {
  await open(page, "/bench/set-out");
  await choose(page, "Recipe", "Rosehip body butter");
  await page.getByLabel("Units", { exact: true }).fill("400");
  await page.getByRole("button", { name: "Set out", exact: true }).click();
  await expect(beside(page, /The shelf is short of .* of Shea butter, unrefined.* of Amber jar/)).toBeVisible();
  await expect(page.getByLabel("Units", { exact: true })).toHaveValue("400");
  // What could be done about it is beside: fewer, something else, buying.
  await expect(page.getByRole("link", { name: "Buy Shea butter, unrefined" })).toBeVisible();
  await expect(page.getByRole("link", { name: "Instead of Shea butter, unrefined" })).toBeVisible();
  await page.getByRole("button", { name: /^Make \d+ × .* instead$/ }).click();
  await expect(page.getByText("Short on the shelf")).toBeHidden();
  expect(Number(await page.getByLabel("Units", { exact: true }).inputValue())).toBeLessThan(100);
  await page.getByLabel("Units", { exact: true }).fill("2.5");
  await page.getByLabel("Units", { exact: true }).blur();
  await expect(beside(page, "Enter whole numbers of pots")).toBeVisible();
  await page.getByLabel("Units", { exact: true }).fill("");
  await page.getByLabel("How large").selectOption("lot");
  await page.getByRole("button", { name: "Set out", exact: true }).click();
  await expect(beside(page, "Choose the lot to use up")).toBeVisible();
});

test("an open batch keeps what is weighed, and can't be poured out of thin air", async ({ page }) => {
  await open(page, "/bench");
  await page
    .getByRole("link", { name: /Elderflower lip pot/ })
    .first()
    .click();
  await expect(page.getByText(/Weigh sheet/)).toBeVisible();
  const third = page.getByLabel(/^Weighed: /).nth(2);
  await Promise.all([page.waitForResponse((r) => r.request().method() === "POST" && r.ok()), third.fill("33.3 g")]);
  await expect(page.getByText("What you type is saved.")).toBeVisible();
  await page.reload();
  await expect(third).toHaveValue("33.3 g");
  await third.fill("999 kg");
  await expect(beside(page, /has only/)).toBeVisible();
  await page.getByLabel("Units filled").fill("20");
  await page.getByRole("button", { name: "Pour", exact: true }).click();
  await expect(beside(page, "Weigh this first").first()).toBeVisible();
  await third.fill("");
});

test("two tabs taking the last of a lot: one gets it, the other is told and keeps its sheet", async ({ page, context }) => {
  await open(page, "/cabinet");
  const row = page.getByRole("row", { name: /JB\d/ }).first();
  const here = (await row.locator("td").nth(3).innerText()).trim();
  const take = await row.getByRole("button").getAttribute("aria-label");
  const other = await context.newPage();
  await open(other, "/cabinet");
  for (const p of [page, other]) {
    await p.getByRole("button", { name: take! }).click();
    await p.getByLabel("Units").fill(here);
  }
  await does(page, "Take out", `Took ${here} of`);
  await other.getByRole("button", { name: "Take out", exact: true }).click();
  await expect(beside(other, /has 0 units/)).toBeVisible();
  await expect(other.getByLabel("Units")).toHaveValue(here);
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(row.locator("td").nth(3)).toHaveText(here);
});

test("a form posted twice counts once, and what was used can't be taken back", async ({ page }) => {
  await open(page, "/shelf/receive");
  await page.getByLabel("Supplier", { exact: true }).fill("Twice Mill");
  await fillRow(page, 1, { Material: "Castor oil", "Each holds": "100 g", "Price of all": "2" });
  const [first] = await Promise.all([
    page.waitForRequest((r) => r.method() === "POST"),
    page.getByRole("button", { name: "Put on the shelf" }).click(),
  ]);
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Received 1 lot from Twice Mill");
  // Told once: looked at again, the page is only itself.
  await page.reload();
  await expect(page.getByRole("status", { name: "What was done" }).filter({ hasText: "Received" })).toHaveCount(0);
  const headers = { "content-type": "application/json", origin: new URL(first.url()).origin };
  const again = await page.request.post(first.url(), { data: first.postData()!, headers, maxRedirects: 0 });
  expect(again.status()).toBeLessThan(400);
  await open(page, "/lots?number=castor");
  await expect(page.getByRole("table").getByText("Twice Mill")).toHaveCount(1);
});

test("a count needs its reason, and a stranger's page can't reach the server", async ({ page }) => {
  await open(page, "/shelf");
  await page.getByRole("link", { name: "Castor oil" }).click();
  await page
    .getByRole("button", { name: /^Count / })
    .first()
    .click();
  await page.getByRole("button", { name: "Correct the count" }).click();
  await expect(page.getByLabel("Counted or weighed")).toBeFocused();
  await page.getByLabel("Counted or weighed").fill("3 pcs");
  await page.getByRole("button", { name: "Correct the count" }).click();
  await expect(beside(page, "Enter why it differs")).toBeVisible();
  await page.getByLabel("Why it differs").fill("Weighed again");
  await page.getByRole("button", { name: "Correct the count" }).click();
  await expect(beside(page, "is weighed: nobody has said what one piece")).toBeVisible();
  await page.getByLabel("Counted or weighed").fill("12 g");
  await does(page, "Correct the count", "12 g, was");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  const stranger = await page.request.get("/", { headers: { host: "zelbin.example:80" } });
  expect(stranger.status()).toBe(403);
});

test("addresses that lead nowhere say so", async ({ page }) => {
  for (const path of ["/nowhere", "/shelf/99999", "/recipes/abc", "/bench/0", "/markets/99", "/gifts/99", "/prices/99"]) {
    const r = await page.goto(path);
    expect(r!.status(), path).toBe(404);
    await expect(page.getByText("There is nothing here")).toBeVisible();
  }
});

test("Enter in any field moves no goods and closes nothing: it goes on, or keeps the sheet", async ({ page }) => {
  const db = openDb(HOUSE_DATABASE);
  const lastAct = async () => (await db.select({ id: act.id, kind: act.kind }).from(act).orderBy(desc(act.id)).limit(1))[0]!;
  const [day] = await db.select().from(marketDay).where(isNull(marketDay.closedActId)).orderBy(marketDay.day).limit(1);
  const [order] = await db.select().from(giftOrder).where(isNull(giftOrder.packedActId)).limit(1);
  const [steeping] = await db
    .select()
    .from(jar)
    .where(and(isNotNull(jar.filledActId), isNull(jar.strainedActId), isNull(jar.spoiledActId)))
    .limit(1);
  const [made] = await db
    .select()
    .from(lot)
    .where(and(isNotNull(lot.productId), gt(lot.onHand, 2), isNull(lot.holdReason)))
    .orderBy(desc(lot.id))
    .limit(1);
  const sheets: [path: string, fields: Record<string, string>][] = [
    ["/bench/16", { "Units filled": "3", "Left in the jug": "2 g", "Minutes of work": "40" }],
    [`/jars/${steeping!.id}`, { "Oil back": "100 g", "What happened": "mould" }],
    [`/lots/${made!.number}`, { Units: "1", "Came out of them": "9 g" }],
    [`/lots/recalls/new?lot=${made!.number}`, { Why: "dirty", "What people should do": "Bring it back." }],
    [`/markets/${day!.id}`, { "Stall fee": "25.00", Travel: "5.00" }],
    [`/gifts/${order!.id}`, { "Minutes of wrapping": "8" }],
    ["/shelf/stock-take", {}],
  ];
  for (const [path, values] of sheets)
    await test.step(path, async () => {
      const before = await lastAct();
      await open(page, path);
      for (const [label, text] of Object.entries(values)) {
        const field = page.getByLabel(label).and(page.locator("input:visible")).first();
        if (await field.count()) await field.fill(text);
      }
      const fields = page.locator("main :is(form, table) input:not([type=file]):visible");
      const there = Math.min(await fields.count(), 12);
      expect(there).toBeGreaterThan(0);
      for (let i = 0; i < there; i++) {
        const field = fields.nth(i);
        if (!(await field.count())) continue;
        await field.press("Enter");
        // A list that opened is closed again; a sheet that was kept comes back as another.
        await page.keyboard.press("Escape");
        await page.waitForLoadState("networkidle");
      }
      const kinds = (await db.select({ kind: act.kind }).from(act).where(gt(act.id, before.id))).map((a) => a.kind);
      expect(kinds.filter((k) => k !== "saveMarket" && k !== "saveGift")).toEqual([]);
    });
  await db.close();
});
