/** Nothing typed is lost: a receipt interrupted by a reload, a missing material, a wrong press and a server that goes and comes again. */
import { expect } from "@playwright/test";
import { openHouse } from "#scripts/database";
import { freePort } from "#scripts/places";
import { serve } from "#scripts/server/serve";
import { does, fillRow, open, test } from "../hand.ts";
import { HOUSE_DATABASE } from "../house.ts";

test("a receipt outlives a reload, a missing material, a wrong press and a restarted server, and is gone once it is kept", async ({
  page,
}) => {
  const house = await openHouse(HOUSE_DATABASE);
  const port = await freePort();
  let site = await serve(house, port);
  const go = (path: string, how = {}) => open(page, `${site.url}/demo${path}`, how);
  const supplier = page.getByLabel("Supplier", { exact: true });
  const material = page.getByLabel("Material, row 1", { exact: true });

  await go("/shelf/receive");
  await supplier.fill("Wether Mill");
  await material.fill("Castor oil");
  await page.reload();
  await expect(page.getByText(/Taken up where you left it/)).toBeVisible();
  await expect(supplier).toHaveValue("Wether Mill");
  await fillRow(page, 1, { Packs: "2", "Each holds": "250 mL", "Price of all": "7.00" });

  await test.step("a material nobody has: added without leaving the sheet", async () => {
    await page.getByRole("button", { name: "Add a line" }).click();
    await page.getByLabel("Material, row 2").fill("neroli hydrosol wax");
    await page.getByRole("option", { name: /^Add neroli hydrosol wax/ }).click();
    await expect(page.getByLabel("Kind")).toHaveValue("wax");
    await page.getByRole("dialog").getByRole("button", { name: "Add it" }).click();
    await expect(page.getByLabel("Material, row 2")).toHaveValue("Neroli hydrosol wax");
    await expect(supplier).toHaveValue("Wether Mill");
    await fillRow(page, 2, { Packs: "1", "Each holds": "100 g", "Price of all": "3.00" });
    await expect(page.getByRole("row").filter({ has: page.getByLabel("Material, row 2") })).toContainText("100 g");
  });

  await test.step("a wrong press leads away; Today has it, with its age", async () => {
    await page.getByRole("link", { name: "Leave" }).click();
    await go("/");
    await page.getByRole("link", { name: /^Receipt from Wether Mill, (a moment|\d+ minutes?) ago/ }).click();
    await expect(page.getByLabel("Material, row 2")).toHaveValue("Neroli hydrosol wax");
  });

  await test.step("typed while the server is away, it is kept when it is there again", async () => {
    await site.close();
    await page.getByLabel("Postage", { exact: true }).fill("1.50");
    site = await serve(house, port);
    await expect(async () => {
      const [kept] = await fetch(`${site.url}/demo/shelf/receive`).then(async (r) => /1\.50/.exec(await r.text()) ?? []);
      expect(kept).toBe("1.50");
    }).toPass({ timeout: 15_000 });
    await page.reload();
    await expect(page.getByLabel("Postage", { exact: true })).toHaveValue("1.50");
  });

  await test.step("put in the background while it is typed on, then kept: nothing of it comes back", async () => {
    await page.getByLabel("Postage", { exact: true }).fill("1.60");
    await page.evaluate(() => {
      Object.defineProperty(document, "visibilityState", { value: "hidden", configurable: true });
      document.dispatchEvent(new Event("visibilitychange"));
    });
  });
  await does(page, "Put on the shelf", "Received 2 lots from Wether Mill");
  await go("/shelf/receive", { goOn: true });
  // A fresh sheet: only whom the last one was from is on it.
  await expect(supplier).toHaveValue("Wether Mill");
  await expect(page.getByLabel("Postage", { exact: true })).toHaveValue("");
  await expect(page.getByText(/Taken up/)).toHaveCount(0);
  await site.close();
  await house.close();
});

test("a page read before the last of what was typed was kept has it all the same", async ({ page }) => {
  await open(page, "/shelf/receive");
  const before = await (await page.request.get(page.url())).text();
  const supplier = page.getByLabel("Supplier", { exact: true });
  const kept = page.waitForResponse("**/drafts");
  await supplier.fill("Slow Lane Mill");
  await kept;
  // As one that was asked for in the same moment: the sheet as the server had it before.
  await page.route("**/shelf/receive", (route) => route.fulfill({ contentType: "text/html", body: before }));
  await page.reload();
  await expect(page.getByText(/Taken up where you left it/)).toBeVisible();
  await expect(supplier).toHaveValue("Slow Lane Mill");
});

test("a refused save says so beside its field and at the button; both go when it is mended", async ({ page }) => {
  await open(page, "/gifts/new");
  await page.getByLabel("For", { exact: true }).fill("Wether Street choir");
  // A day is typed as one says it, and written the way the workshop does.
  const due = page.getByLabel("Due", { exact: true });
  await due.fill("15 jan 2099");
  await due.press("Tab");
  await expect(due).toHaveValue("15 Jan 2099");
  await page.getByRole("button", { name: "Remove row 1" }).first().click();
  await page.getByRole("button", { name: "Save the order" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "at least one product" })).toBeVisible();
  const held = page.getByRole("button", { name: /^Not saved: Enter at least one product/ });
  await expect(held).toBeVisible();
  await page.getByRole("button", { name: "Add a product" }).click();
  // One of the demo's, which has its price: another journey may have made others.
  await fillRow(page, 1, { Product: "Rosehip body butter, 120 g", Units: "1" });
  await expect(held).toBeHidden();
  // Thrown away, it is as if it had never been typed.
  await page.waitForTimeout(700);
  await page.reload();
  await page.getByRole("button", { name: "Throw it away" }).click();
  await expect(page.getByLabel("For", { exact: true })).toHaveValue("");
  await open(page, "/");
  await expect(page.getByText("Order for Wether Street choir")).toHaveCount(0);
});
