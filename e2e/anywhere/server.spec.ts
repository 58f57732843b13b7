/** What the server gives and to whom, below the screens. */
import { expect } from "@playwright/test";
import { test } from "../hand.ts";

test("answers only under a name of this machine", async ({ request }) => {
  for (const host of ["zelbin.example", "127.0.0.1.example:80", "192.168.1.4:4140"]) {
    const r = await request.get("/", { headers: { host } });
    expect(r.status(), host).toBe(403);
    expect(await r.text()).toBe("Zelbin answers on this machine only.");
  }
  // Names no machine has are refused in words as well.
  for (const host of ["127.0.0.1:99999", "127.0.0.1:x", "127.0.0.999", "a@127.0.0.1", "127.0.0.1/x"])
    expect((await request.get("/demo", { headers: { host } })).status(), host).toBe(400);
  for (const host of ["127.0.0.53", "127.1.2.3:80"]) expect((await request.get("/demo", { headers: { host } })).status(), host).toBe(200);
  for (const host of ["localhost:4140", "127.0.0.1:9999"]) expect((await request.get("/", { headers: { host } })).status(), host).toBe(200);
});

test("a form sent from another site is refused, and nothing moves", async ({ request }) => {
  const before = await (await request.get("/demo/lots?number=foreign")).text();
  expect(before).toContain("No lot matches");
  const r = await request.post("/demo/shelf/receive", {
    headers: { origin: "https://elsewhere.example", "content-type": "application/json" },
    data: {
      supplier: "Foreign",
      day: "2026-01-01",
      postage: "",
      lines: [{ material: "Castor oil", packs: "1", packSize: "1 kg", price: "1", supplierLot: "foreign", bestBefore: "" }],
    },
  });
  expect(r.status()).toBeGreaterThanOrEqual(400);
  expect(await (await request.get("/demo/lots?number=foreign")).text()).toContain("No lot matches");
});

test("pages come whole with their type; scripts are compressed and kept; fonts are ours", async ({ request }) => {
  const page = await request.get("/demo/shelf");
  expect(page.headers()["content-type"]).toBe("text/html; charset=utf-8");
  const html = await page.text();
  expect(html.trimEnd()).toMatch(/<\/html>$/);
  const script = /\/assets\/[\w.-]+\.js/.exec(html)![0];
  const asset = await request.get(script, { headers: { "accept-encoding": "gzip" } });
  expect(asset.headers()["cache-control"]).toContain("immutable");
  expect(asset.headers()["content-encoding"]).toBe("gzip");
  const css = await (await request.get(/\/assets\/app[\w.-]+\.css/.exec(html)![0])).text();
  const fonts = css.match(/url\(([^)]+\.woff2)\)/g)!;
  expect(fonts.length).toBeGreaterThan(2);
  for (const f of fonts) expect(f).toMatch(/^url\(\/assets\//);
  expect(css).not.toContain("https://");
});

test("addresses with numbers that can't be are not found, never a crash", async ({ request }) => {
  for (const id of ["0", "-1", "1.5", "99999999999999", "1e99", "NaN", "%27"])
    for (const station of ["shelf", "recipes", "bench", "prices", "markets", "gifts"])
      expect((await request.get(`/demo/${station}/${id}`)).status(), `/${station}/${id}`).toBe(404);
  expect((await request.get("/demo/?did=99999999999999")).status()).toBe(200);
  expect((await request.get("/demo/?did=x")).status()).toBe(200);
  expect((await request.get("/demo/shelf/receive?material=99999999999")).status()).toBe(200);
  expect((await request.get(`/demo/lots?number=${encodeURIComponent("%_\\'\"<>")}`)).status()).toBe(200);
});
