/** A page of another site, in the browser of the person at the desk: it can send nothing here, show nothing of ours, and run nothing in it. */
import { expect } from "@playwright/test";
import { createServer } from "node:http";
import { resolve } from "node:path";
import { pathToFileURL } from "node:url";
import type { ServerBuild } from "react-router";
import { open, test } from "../hand.ts";

/** Every route that acts, with an address of it. */
const ACTING: Record<string, string> = {
  "away/away": "/away",
  "backups/backups": "/backups",
  "backups/takeIn": "/backups/take-in",
  "begin/begin": "/begin",
  "begin/name": "/begin/name",
  "begin/opening": "/begin/opening",
  "begin/pick": "/begin/waxes",
  "begin/work": "/begin/work",
  "bench/at/benchEvents": "/bench/16/did",
  "bench/batch": "/bench/1",
  "bench/photo": "/bench/1/photo",
  "bench/settingOut/setOut": "/bench/set-out",
  "bench/sheet/weighed": "/bench/1/weighed",
  "book/takeBack": "/take-back",
  "cabinet/cabinet": "/cabinet",
  "devices/tell": "/devices/tell",
  "forms/drafts/drafts": "/drafts",
  "forms/progress": "/progress/x",
  "gifts/new": "/gifts/new",
  "gifts/one": "/gifts/1",
  "jars/blend": "/jars/blend",
  "jars/fill": "/jars/fill",
  "jars/jar": "/jars/1",
  "jars/jars": "/jars",
  "jars/photo": "/jars/1/photo",
  "lots/lot": "/lots/R26215-01",
  "lots/recall/begin": "/lots/recalls/new",
  "lots/recall/recall": "/lots/recalls/1",
  "markets/new": "/markets/new",
  "markets/one": "/markets/1",
  "names/names": "/names/material",
  "people/new": "/people/new",
  "people/file": "/people/file",
  "cabinet/file": "/cabinet/file",
  "recipes/file": "/recipes/file",
  "prices/file": "/prices/file",
  "markets/file": "/markets/file",
  "gifts/file": "/gifts/file",
  "people/one": "/people/1",
  "prices/ladder": "/prices/ladder",
  "prices/product": "/prices/1",
  "recipes/new": "/recipes/new",
  "recipes/one": "/recipes/1",
  "recipes/felt/felt": "/recipes/1/felt",
  "recipes/scribbled/scribbled": "/recipes/scribbled",
  "settings/settings": "/settings",
  "shelf/buying/buying": "/shelf/1/buying",
  "shelf/counting/noted": "/shelf/stock-take/noted",
  "shelf/counting/stockTake": "/shelf/stock-take",
  "shelf/harvests/harvest": "/shelf/harvests/1",
  "shelf/harvests/pick": "/shelf/harvests/new",
  "shelf/materials/add": "/shelf/new",
  "shelf/materials/file": "/shelf/file",
  "shelf/materials/facts": "/shelf/1/facts",
  "shelf/materials/library": "/shelf/library",
  "shelf/materials/material": "/shelf/1",
  "shelf/opening/file": "/shelf/opening/file",
  "shelf/opening/opening": "/shelf/opening",
  "shelf/receipts/correct": "/shelf/receipts/1/correct",
  "shelf/receipts/file": "/shelf/receive/file",
  "shelf/receipts/receipt": "/shelf/receipts/1",
  "shelf/receipts/receive": "/shelf/receive",
  "today/today": "/?index",
  "workshops/workshops": "/workshops",
};

test("no act is reached from a page of another site, and none of ours is shown in a frame of it", async ({ page, request, baseURL }) => {
  const build = (await import(pathToFileURL(resolve("build/server/index.js")).href)) as Pick<ServerBuild, "routes">;
  const acting = Object.entries(build.routes).flatMap(([id, r]) => (r?.module.action ? [id] : []));
  expect(Object.keys(ACTING).sort(), "every route that acts is named here").toEqual(acting.sort());

  /** The acts at the head of the book, newest first. */
  const book = async () => (await (await request.get("/demo/book")).text()).match(/href="[^"]*\/book\/\d+"/g)!.slice(0, 5);
  const before = await book();
  // A page that sends its form as soon as it is opened.
  const stranger = createServer((req, res) => {
    const asked = new URL(req.url!, "http://stranger").searchParams;
    const form = `<form method="post" enctype="${asked.get("as")}" action="${asked.get("to")}"><input name='{"actId":"1","x":"' value='"}'><input type="file" name="file"></form>`;
    res
      .setHeader("content-type", "text/html")
      .end(asked.has("to") ? `${form}<script>document.forms[0].submit()</script>` : "<p>Look at this</p>");
  });
  await new Promise<void>((done) => stranger.listen(0, "127.0.0.1", done));
  const { port } = stranger.address() as { port: number };
  // Another site by name, and another one of this machine by its port alone.
  const from = (i: number): string => `http://${i % 2 ? "localhost" : "127.0.0.1"}:${port}`;
  const addresses = Object.values(ACTING).flatMap((path) => {
    const [at, q] = path.split("?");
    return [`${baseURL}/demo${path}`, `${baseURL}/demo${at === "/" ? "/_root" : at}.data${q ? `?${q}` : ""}`];
  });
  try {
    // Each by its own address or by its data's.
    for (const [i, url] of addresses.filter((_, n) => n % 2 === Math.floor(n / 2) % 2).entries()) {
      const as = ["text/plain", "multipart/form-data", "application/x-www-form-urlencoded"][i % 3]!;
      const answer = page.waitForResponse((r) => r.request().method() === "POST");
      await page.goto(`${from(i)}/?${new URLSearchParams({ to: url, as })}`, { waitUntil: "commit" });
      expect((await answer).status(), url).toBe(403);
      await expect(page.getByText("isn't Zelbin's")).toBeVisible();
    }
    await page.goto(from(1));
    const heard = await page.evaluate(
      async (all) => {
        const tries = all.flatMap((url) =>
          [new Blob(['{"actId":"1"}'], { type: "text/plain" }), new URLSearchParams({ actId: "1" })].map((body) =>
            fetch(url, { method: "POST", mode: "no-cors", credentials: "include", body }).then(
              () => url,
              () => "",
            ),
          ),
        );
        return (await Promise.all(tries)).filter(Boolean);
      },
      addresses.slice(0, 40),
    );
    expect(heard, "no answer of ours may even be looked at").toEqual([]);
    await page.setContent(`<iframe src="${baseURL}/demo/shelf"></iframe>`);
    await page.waitForTimeout(500);
    expect(await page.frameLocator("iframe").locator("body").innerText()).not.toContain("Beeswax");
  } finally {
    stranger.close();
  }
  expect(await book()).toEqual(before);
});

test("a script that was slipped into a page of ours isn't run", async ({ page }) => {
  await open(page, "/shelf");
  const ran = await page.evaluate(async () => {
    const script = document.createElement("script");
    script.textContent = "document.documentElement.dataset.slipped = 'yes'";
    document.body.append(script);
    document.body.insertAdjacentHTML("beforeend", `<img src="/nothing" onerror="document.documentElement.dataset.slipped = 'yes'">`);
    await new Promise((done) => setTimeout(done, 300));
    return document.documentElement.dataset.slipped ?? "no";
  });
  expect(ran).toBe("no");
});
