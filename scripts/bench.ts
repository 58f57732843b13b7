/**
 * `npm run bench`: each station's server time with the demo data, beside an empty page's and its own bare queries', all in
 * one run on a throw-away database. Prints ratios; nothing here can fail.
 */
import { Agent, get } from "node:http";
import { join } from "node:path";
import pg from "pg";
import { gzipSync } from "node:zlib";
import { readFileSync } from "node:fs";
import { buildIfStale } from "./build.ts";
import { prepareDb } from "./database.ts";
import { DATA, freePort, startCluster } from "./postgres.ts";
import { serve } from "./server.ts";

const ROUNDS = 60;
const WARM_UP = 15;
const STATIONS = [
  ["Today", "/"],
  ["Shelf", "/shelf"],
  ["One material", "/shelf/8"],
  ["Receive", "/shelf/receive"],
  ["Recipes", "/recipes"],
  ["One recipe", "/recipes/1"],
  ["Bench", "/bench"],
  ["Set out", "/bench/set-out"],
  ["Weigh sheet", "/bench/16"],
  ["Batch record", "/bench/15"],
  ["Cabinet", "/cabinet"],
  ["Prices", "/prices"],
  ["One price", "/prices/1"],
  ["Markets", "/markets"],
  ["One market day", "/markets/1"],
  ["Gifts", "/gifts"],
  ["One order", "/gifts/6"],
  ["Lots", "/lots"],
  ["One lot's trace", "/lots/R26133-06"],
  ["Settings", "/settings"],
] as const;

const median = (xs: number[]): number => [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)]!;
const cluster = await startCluster(join(DATA, `bench-${process.pid}`), true);
try {
  const heard: { sql: string; params: unknown[] }[] = [];
  const db = await prepareDb(cluster.url, { logQuery: (sql, params) => heard.push({ sql, params }) });
  await db.execute("analyze");
  buildIfStale();
  const site = await serve(db, await freePort());
  const agent = new Agent({ keepAlive: true, maxSockets: 1 });
  const fetchPage = (path: string): Promise<string> =>
    new Promise((done, fail) => {
      get(site.url + path, { agent }, (res) => {
        const parts: Buffer[] = [];
        res
          .on("data", (d: Buffer) => parts.push(d))
          .on("end", () =>
            res.statusCode === 200 ? done(Buffer.concat(parts).toString()) : fail(new Error(`${path}: ${res.statusCode}`)),
          );
      }).on("error", fail);
    });
  const timed = async (work: () => Promise<unknown>): Promise<number> => {
    const times: number[] = [];
    for (let i = 0; i < ROUNDS + WARM_UP; i++) {
      const start = performance.now();
      await work();
      if (i >= WARM_UP) times.push(performance.now() - start);
    }
    return median(times);
  };

  const shea = (await db.execute<{ number: string }>("select number from lot where material_id = 6 order by id limit 1")).rows[0]!.number;
  const client = new pg.Client({ connectionString: cluster.url });
  await client.connect();
  const rows: { name: string; page: number; empty: number; queries: number; count: number }[] = [];
  // The empty page is measured again beside every station, so that a slow moment of the machine falls on both.
  for (const [name, station] of STATIONS) {
    const path = station.replace("R26133-06", shea);
    heard.length = 0;
    await fetchPage(path);
    const asked = [...heard];
    const page = await timed(() => fetchPage(path));
    const empty = await timed(() => fetchPage("/empty"));
    const queries = await timed(async () => {
      for (const q of asked) await client.query(q.sql, q.params);
    });
    rows.push({ name, page, empty, queries, count: asked.length });
  }
  await client.end();

  const cell = (n: number): string => n.toFixed(1).padStart(7);
  console.log(`\nMedian of ${ROUNDS} requests, in milliseconds\n`);
  console.log("station              page   empty  queries      sum   page / sum");
  for (const r of rows)
    console.log(
      `${r.name.padEnd(17)}${cell(r.page)} ${cell(r.empty)} ${cell(r.queries)} (${String(r.count).padStart(2)}) ${cell(r.empty + r.queries)} ${(r.page / (r.empty + r.queries)).toFixed(2).padStart(7)}`,
    );
  const worst = rows.reduce((a, r) => (r.page / (r.empty + r.queries) > a.page / (a.empty + a.queries) ? r : a));
  console.log(
    `\nHighest: ${worst.name}, ${(worst.page / (worst.empty + worst.queries)).toFixed(2)} times an empty page and its queries (wanted: at most 2).`,
  );

  const html = await fetchPage("/");
  const scripts = [...new Set(html.match(/\/assets\/[\w.-]+\.js/g))];
  const size = scripts.reduce((a, s) => a + gzipSync(readFileSync(join("build/client", s))).length, 0);
  console.log(`First page: ${scripts.length} scripts, ${(size / 1000).toFixed(0)} kB compressed (wanted: under 200).`);
  await site.close();
  await db.close();
} finally {
  cluster.stop();
}
