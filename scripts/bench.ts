/**
 * `npm run bench`: each station's server time with the demo data, beside an empty page's and its own bare queries', all in
 * one run on a throw-away database. Prints ratios; nothing here can fail.
 */
import { join } from "node:path";
import pg from "pg";
import { gzipSync } from "node:zlib";
import { readFileSync } from "node:fs";
import { benchBig } from "./bench/big.ts";
import { benchCosting } from "./bench/costing.ts";
import { fetcher, HEAD, lineOf, measure, ratio, ROUNDS, type Asked, type Row } from "./bench/measure.ts";
import { WORKSHOPS } from "#core/workshop";
import { buildIfStale } from "./build.ts";
import { openHouse } from "./database.ts";
import { DATA, freePort, startCluster } from "./postgres.ts";
import { serve } from "./server/serve.ts";

const STATIONS = [
  ["Today", "/"],
  ["Shelf", "/shelf"],
  ["One material", "/shelf/8"],
  ["Receive", "/shelf/receive"],
  ["Receipts", "/shelf/receipts"],
  ["One receipt", "/shelf/receipts/3"],
  ["Buying", "/shelf/8/buying"],
  ["Shopping list", "/shelf/shopping"],
  ["Stock-take", "/shelf/stock-take"],
  ["Harvests", "/shelf/harvests"],
  ["Jars", "/jars"],
  ["Fill a jar", "/jars/fill"],
  ["One jar", "/jars/1"],
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

const cluster = await startCluster(join(DATA, `bench-${process.pid}`), true);
try {
  const heard: Asked[] = [];
  const house = await openHouse(cluster.url, { logQuery: (sql, params) => heard.push({ sql, params }) });
  const db = (await house.of("demo"))!;
  await db.execute("analyze");
  buildIfStale();
  const site = await serve(house, await freePort());
  const fetchPage = fetcher(site.url + WORKSHOPS.demo.home);

  const shea = (await db.execute<{ number: string }>("select number from lot where material_id = 6 order by id limit 1")).rows[0]!.number;
  const client = new pg.Client({ connectionString: cluster.url });
  await client.connect();
  const rows: Row[] = [];
  for (const [name, station] of STATIONS) rows.push(await measure(name, station.replace("R26133-06", shea), fetchPage, heard, client));
  await client.end();

  console.log(`\nMedian of ${ROUNDS} requests, in milliseconds\n`);
  console.log(HEAD);
  for (const r of rows) console.log(lineOf(r));
  const worst = rows.reduce((a, r) => (ratio(r) > ratio(a) ? r : a));
  console.log(`\nHighest: ${worst.name}, ${ratio(worst).toFixed(2)} times an empty page and its queries (wanted: at most 2).`);

  const html = await fetchPage("/");
  const scripts = [...new Set(html.match(/\/assets\/[\w.-]+\.js/g))];
  const size = scripts.reduce((a, s) => a + gzipSync(readFileSync(join("build/client", s))).length, 0);
  console.log(`First page: ${scripts.length} scripts, ${(size / 1000).toFixed(0)} kB compressed (wanted: under 200).`);
  benchCosting();
  await benchBig(cluster.url);
  await site.close();
  await house.close();
} finally {
  cluster.stop();
}
