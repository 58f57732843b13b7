/** Books that can leave and come back: backed up, gone on with, gone back to, and back again; and an archive that was opened from a file, or refused. */
import { expect, type Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { removeAll, throwAwayHouse } from "#scripts/testing/throwAway";
import { open as openAt, test } from "../hand.ts";
import { HOUSE_DATABASE } from "../house.ts";

// Other journeys begin a workshop of their own in the house they share: this one has a house to itself.
let url = "";
test.beforeAll(async () => void ({ url } = await throwAwayHouse(HOUSE_DATABASE, 0)));
test.afterAll(removeAll);
const open = (page: Page, path: string) => openAt(page, url + path);

test("a backup is made and checked, the books are put back to it, and back again; a damaged file changes nothing", async ({
  page,
}, info) => {
  const shelf = async (): Promise<string> => {
    await open(page, "/own/shelf");
    return (await page.getByRole("main").innerText()).replaceAll(/\s+/g, " ");
  };
  const addMaterial = async (name: string): Promise<void> => {
    await open(page, "/own/shelf/new");
    await page.getByLabel("Name", { exact: true }).fill(name);
    await page.getByRole("button", { name: "Add to the shelf" }).click();
    await expect(page.getByLabel("What was done")).toContainText(name);
  };

  await test.step("from a start without books, the way to open an archive is beside the way to begin", async () => {
    await open(page, "/demo/workshops");
    await page.getByRole("link", { name: "Open an archive" }).click();
    await expect(page.getByText("There is no workshop of your own yet.")).toBeVisible();
    await open(page, "/demo/workshops");
    await page.getByRole("button", { name: "Begin your own" }).click();
    await page.getByLabel("Your workshop is called").fill("Gorse Lane");
    await page.getByRole("button", { name: "Go on" }).click();
    await addMaterial("Cocoa butter");
  });

  let path = "";
  await test.step("Today says that there is none; one press makes one, and says where", async () => {
    await open(page, "/own");
    await expect(page.getByText("There is no backup of these books yet.")).toBeVisible();
    await page.getByRole("link", { name: "Backups" }).last().click();
    await page.getByRole("button", { name: "Back up now" }).click();
    await expect(page.getByText("Backed up, and checked by reading it back.")).toBeVisible({ timeout: 30_000 });
    await expect(page.getByRole("row", { name: /^today, / })).toContainText("Cocoa butter");
    await page.getByRole("button", { name: "Back up now" }).click();
    await expect(page.getByText("Nothing has changed since the newest backup")).toBeVisible({ timeout: 30_000 });
    const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: /^Download/ }).click()]);
    path = info.outputPath("gorse.zip");
    await file.saveAs(path);
    await open(page, "/own");
    await expect(page.getByText(/^Last backup /)).toBeVisible();
  });

  await test.step("gone on with, and put back: beside each other first, and nothing is lost", async () => {
    await addMaterial("Shea butter");
    await open(page, "/own/backups");
    await page.getByRole("link", { name: /^Go back to/ }).click();
    const archive = page.getByRole("region", { name: "An archive" });
    await expect(archive.getByRole("row", { name: /^Materials/ })).toHaveText(/Materials\s*1\s*2/);
    await archive.getByRole("button", { name: "Put it in their place" }).click();
    await expect(page.getByText("Done: your own workshop is what was in the archive.")).toBeVisible({ timeout: 30_000 });
    expect(await shelf()).not.toContain("Shea butter");
    await open(page, "/own/backups");
    await page.getByRole("button", { name: "Go back to these" }).first().click();
    await expect(page.getByRole("button", { name: "Go back to these" })).toHaveCount(1);
    await open(page, "/own/shelf/2");
    await expect(page.getByRole("heading", { name: "Shea butter" })).toBeVisible();
  });

  await test.step("one is opened to be looked at: every page is there, and nothing can be changed", async () => {
    await open(page, "/own/backups");
    await page
      .getByRole("button", { name: /^Look at / })
      .first()
      .click();
    await expect(page.getByText(/^Open to look at: your books as they were on /)).toBeVisible({ timeout: 30_000 });
    await page.getByRole("link", { name: "Look at them" }).click();
    const banner = page.getByRole("region", { name: "A backup" });
    await expect(banner).toContainText("Nothing can be changed here.");
    for (const at of [
      "",
      "shelf",
      "jars",
      "recipes",
      "bench",
      "cabinet",
      "prices",
      "markets",
      "gifts",
      "lots",
      "book",
      "settings",
      "calendar",
      "accounts",
      "people",
    ]) {
      expect((await page.request.get(`${url}/look/${at}`)).status(), at).toBe(200);
    }
    await open(page, "/look/shelf");
    await expect(page.getByText("Cocoa butter")).toBeVisible();
    await expect(page.getByText("Shea butter")).toHaveCount(0);
    await open(page, "/look/shelf/new");
    await page.getByLabel("Name", { exact: true }).fill("Mango butter");
    await page.getByRole("button", { name: "Add to the shelf" }).click();
    await expect(page.getByRole("alert")).toContainText("nothing can be changed here");
    await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Mango butter");
    await page.getByRole("link", { name: "Back to your own books" }).click();
    await expect(page).toHaveURL(/\/own\/backups$/);
    expect(await shelf()).toContain("Shea butter");
    await open(page, "/own/backups");
    await page.getByRole("button", { name: "Done looking" }).click();
    await expect(page.getByText(/^Open to look at/)).toBeHidden();
    await page.goto(`${url}/look/shelf`);
    await expect(page).toHaveURL(/\/own\/backups$/);
  });

  await test.step("the file that was taken along is opened; a damaged one is refused, and the books stay as they are", async () => {
    await open(page, "/own/backups");
    const choose = (buffer: Buffer) =>
      page.locator('input[type="file"]').setInputFiles({ name: "gorse.zip", mimeType: "application/zip", buffer });
    const bytes = readFileSync(path);
    const turned = Buffer.from(bytes);
    turned.fill(170, Math.floor(bytes.length / 2), Math.floor(bytes.length / 2) + 400);
    await choose(turned);
    await expect(page.getByRole("alert")).toContainText(/isn't as it was written|isn't a whole zip file/);
    await choose(Buffer.from("no zip at all"));
    await expect(page.getByRole("alert")).toContainText("isn't a whole zip file");
    await choose(bytes);
    await expect(page.getByRole("heading", { name: "Gorse Lane" })).toBeVisible();
    await page.getByRole("link", { name: "Leave it" }).click();
    await expect(page.getByRole("heading", { name: "Gorse Lane" })).toBeHidden();
    await open(page, "/own/shelf/2");
    await expect(page.getByRole("heading", { name: "Shea butter" })).toBeVisible();
  });

  await test.step("a folder that isn't there is said beside the field, and what was typed stays", async () => {
    await open(page, "/own/backups");
    const folder = page.getByLabel("Folder");
    await folder.fill("/media/no-such-stick");
    await page.getByRole("button", { name: "Save the folder" }).click();
    await expect(page.getByRole("alert")).toContainText("isn't there");
    await expect(folder).toHaveValue("/media/no-such-stick");
    await folder.fill(info.outputPath("."));
    await page.getByRole("button", { name: "Save the folder" }).click();
    await expect(page.getByText("There is no backup of these books yet.")).toBeVisible();
    await expect(page.getByText(/^None yet in /)).toBeVisible();
  });
});
