/** A server that is away for a while: what was typed stays, what was pressed waits, and both go on by themselves. */
import { expect, type Page } from "@playwright/test";
import { open, test } from "../hand.ts";

const awayNote = (page: Page) => page.getByRole("status").filter({ hasText: "The server is away" });

test("away while a name is typed and a sheet is sent: the page stays, says so, and goes on once it is back", async ({ page, context }) => {
  await open(page, "/gifts/new");
  await context.setOffline(true);
  const away = awayNote(page);
  await page.getByLabel("For", { exact: true }).fill("Ferry office");
  await page.getByLabel("Product, row 1", { exact: true }).click();
  await expect(away).toBeVisible();
  await page.getByLabel("Product, row 1", { exact: true }).fill("Sea buckthorn hand balm, 60 g");
  await page.getByLabel("Units, row 1", { exact: true }).fill("1");
  await page.getByLabel("Price of one, row 1", { exact: true }).fill("12");
  await page.getByLabel("Due", { exact: true }).fill("tomorrow");
  await expect(page.getByRole("heading", { name: "Something went wrong" })).toHaveCount(0);
  await context.setOffline(false);
  await expect(away).toHaveCount(0);
  await page.getByRole("button", { name: "Save the order" }).click();
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Saved the order for Ferry office");
  // Pressed while it is away, once: done once it is back, once.
  await page.getByLabel("Minutes of wrapping").fill("7");
  await context.setOffline(true);
  await page.getByRole("button", { name: "Save the order" }).click();
  await expect(away).toBeVisible();
  await expect(page.getByLabel("Minutes of wrapping")).toHaveValue("7");
  await context.setOffline(false);
  await expect(page.getByRole("status", { name: "What was done" })).toContainText("Saved the order");
  await page.reload();
  await expect(page.getByLabel("Minutes of wrapping")).toHaveValue("7");
});

test("away at the weigh sheet: a weight typed meanwhile is kept once it is back, and pouring waits without losing the page", async ({
  page,
  context,
}) => {
  await open(page, "/bench/16");
  const away = awayNote(page);
  const first = page.getByLabel(/^Weighed: /).first();
  await context.setOffline(true);
  const colour = () => first.evaluate((e) => getComputedStyle(e).color);
  const kept = await colour();
  await first.fill("11.1 g");
  await expect(away).toBeVisible();
  // Pale for as long as nobody has it.
  expect(await colour()).not.toBe(kept);
  await context.setOffline(false);
  await expect(away).toHaveCount(0);
  await expect(page.getByText("What you type is saved.")).toBeVisible();
  expect(await colour()).toBe(kept);
  await page.reload();
  await expect(first).toHaveValue(/11\.1/);
  await context.setOffline(true);
  await page.getByRole("button", { name: "Pour", exact: true }).click();
  await expect(away).toBeVisible();
  await expect(first).toHaveValue(/11\.1/);
  await context.setOffline(false);
  // What is still unweighed is shown beside its field, on the same page.
  await expect(page.getByText("Weigh this first").first()).toBeVisible();
  await expect(first).toHaveValue(/11\.1/);
});

test("away, and reloaded meanwhile: what was weighed on the sheet and done at the bench is sent by the next page, once", async ({
  page,
  context,
}) => {
  await open(page, "/bench/16");
  const away = awayNote(page);
  const second = page.getByLabel(/^Weighed: /).nth(1);
  await context.setOffline(true);
  await second.fill("7.3 g");
  await expect(away).toBeVisible();
  await page.reload().catch(() => undefined);
  await context.setOffline(false);
  await open(page, "/bench/16", { goOn: true });
  await expect(second).toHaveValue(/7\.3/);
  await page.reload();
  await expect(second).toHaveValue(/7\.3/);
  // At the bench: noted while it is away, and one of them had come, but nobody heard so.
  await open(page, "/bench/16/at");
  await page.getByLabel("Note", { exact: true }).fill("Smoother than last time");
  await page.route("**/did", async (route) => {
    await route.fetch();
    await context.setOffline(true);
    await route.abort("internetdisconnected");
  });
  await page.getByRole("button", { name: "Write it down" }).click();
  await expect(away).toBeVisible();
  await page.reload().catch(() => undefined);
  await page.unroute("**/did");
  await context.setOffline(false);
  await open(page, "/bench/16/at", { goOn: true });
  await expect(page.getByRole("listitem").filter({ hasText: "Smoother than last time" })).toHaveCount(1);
  // What isn't right any more is shown, with what was typed.
  await open(page, "/bench/16");
  await context.setOffline(true);
  await second.fill("7 pinches");
  await expect(away).toBeVisible();
  await page.reload().catch(() => undefined);
  await context.setOffline(false);
  await open(page, "/bench/16", { goOn: true });
  const lost = page.getByRole("alert").filter({ hasText: "while the server was away" });
  await expect(lost).toContainText("“7 pinches” wasn’t saved");
  await expect(second).toHaveValue(/7\.3/);
  await lost.getByRole("button", { name: "I have read it" }).click();
  await expect(lost).toHaveCount(0);
});
