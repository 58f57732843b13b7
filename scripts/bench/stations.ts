/** Every kind of page there is, in the demo as it is and in the demo grown to five years: the same records on both sides. */
import { WORKSHOPS } from "#core/workshop";
import { CLIENT_OPTIONS, openDb, type OpenDb } from "#db/client";
import { bringUpToDate } from "#db/migrating";
import { today } from "#db/clock";
import type { Workshops } from "#db/workshops/workshops";
import { sql } from "drizzle-orm";
import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { setFlagsFromString } from "node:v8";
import { runInNewContext } from "node:vm";
import pg from "pg";
import { loadDemo } from "../../demo/load.ts";
import { freePort } from "../places.ts";
import { serve } from "../server/serve.ts";
import { fetcher, measure, ratio, type Asked, type Row, type Served } from "./measure.ts";
import { liveFiveYears } from "./years.ts";

const STATIONS = [
  ["Today", "/"],
  ["Shelf", "/shelf"],
  ["One board", "/shelf?board=oil"],
  ["One material", "/shelf/8"],
  ["Its history", "/shelf/8/history"],
  ["Its facts", "/shelf/8/facts"],
  ["Receive", "/shelf/receive"],
  ["Receipts", "/shelf/receipts"],
  ["One receipt", "/shelf/receipts/3"],
  ["Buying", "/shelf/8/buying"],
  ["Shopping list", "/shelf/shopping"],
  ["Stock-take", "/shelf/stock-take"],
  ["Harvests", "/shelf/harvests"],
  ["Jars", "/jars"],
  ["Fill a jar", "/jars/fill"],
  ["Blend", "/jars/blend"],
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
  ["Plan a day", "/markets/new"],
  ["Gifts", "/gifts"],
  ["One order", "/gifts/6"],
  ["Write an order", "/gifts/new"],
  ["Lots", "/lots"],
  ["One lot's trace", "/lots/{lot}"],
  ["People", "/people"],
  ["Book", "/book"],
  ["Calendar", "/calendar"],
  ["A year's money", "/accounts"],
  ["Settings", "/settings"],
  ["Shelf as PDF", "/shelf/pdf"],
  ["Stock-take as PDF", "/shelf/stock-take/pdf"],
  ["A trace as PDF", "/lots/{lot}/pdf"],
  ["Batch record as PDF", "/bench/15/pdf"],
  ["Lots as CSV", "/lots/lots.csv"],
  ["Movements as CSV", "/book/movements.csv"],
] as const;

/** A house with this one workshop. */
const onlyDemo = (db: OpenDb): Workshops => ({
  of: (kind) => Promise.resolve(kind === "demo" ? db : null),
  begin: () => Promise.reject(new Error("not here")),
  resetDemo: () => Promise.reject(new Error("not here")),
  putInPlace: () => Promise.reject(new Error("not here")),
  kept: () => Promise.resolve([]),
  goBack: () => Promise.reject(new Error("not here")),
  look: () => Promise.reject(new Error("not here")),
  lookedAt: () => null,
  endLook: () => Promise.resolve(),
  address: () => Promise.resolve(null),
  where: { what: "", name: "" },
  close: db.close,
});

const at = (server: string, name: string): string => server.replace(/\/[^/?]*(\?|$)/, `/${name}$1`);

/** What a filled workshop depends on: the day it leads up to, the tables, and what fills it. */
function stamp(): string {
  const hash = createHash("sha256").update(today());
  const sources = ["db/migrations", "demo"].flatMap((folder) => readdirSync(folder).map((file) => join(folder, file)));
  for (const file of [...sources.filter((f) => /\.(sql|ts)$/.test(f)).sort(), "scripts/bench/years.ts"]) hash.update(readFileSync(file));
  return hash.digest("hex").slice(0, 12);
}

/** The database of a workshop, filled unless an earlier run of the same day left it so. */
async function filled(server: string, name: string, fill: (db: OpenDb) => Promise<void>): Promise<string> {
  const database = `${name}_${stamp()}`;
  const admin = openDb(server);
  const { rows } = await admin.execute<{ datname: string }>(sql`select datname from pg_database where datname like ${`${name}\\_%`}`);
  if (rows.some((r) => r.datname === database)) {
    await admin.close();
    return at(server, database);
  }
  for (const { datname } of rows) await admin.execute(sql`drop database ${sql.identifier(datname)} with (force)`);
  // Named once it is whole: one that was cut off is begun again.
  const making = `${name}_making`;
  await admin.execute(sql`create database ${sql.identifier(making)}`);
  await admin.execute(sql`alter database ${sql.identifier(making)} set synchronous_commit = off`);
  await bringUpToDate(at(server, making));
  const db = openDb(at(server, making), undefined, { patient: true });
  const start = performance.now();
  await fill(db);
  await db.execute(sql`vacuum analyze`);
  await db.close();
  await admin.execute(sql`alter database ${sql.identifier(making)} rename to ${sql.identifier(database)}`);
  await admin.close();
  console.log(`  ${name} was filled in ${((performance.now() - start) / 1000).toFixed(0)} s, and is kept for the next run of the day`);
  return at(server, database);
}

export interface Site extends Served {
  name: string;
  /** Where it is served. */
  url: string;
  db: OpenDb;
  /** Its database's address. */
  database: string;
  close: () => Promise<void>;
}

async function site(name: string, database: string): Promise<Site> {
  const heard: Asked[] = [];
  const db = openDb(database, { logQuery: (q, params) => heard.push({ sql: q, params }) });
  const client = new pg.Client({ connectionString: database, options: CLIENT_OPTIONS });
  await client.connect();
  const served = await serve(onlyDemo(db), await freePort());
  const close = async (): Promise<void> => {
    await served.close();
    await client.end();
    await db.close();
  };
  const url = served.url + WORKSHOPS.demo.home;
  return { name, url, fetchPage: fetcher(url), heard, client, db, database, close };
}

/** The demo, and the demo with five years beside it. */
export async function bothSizes(server: string): Promise<[demo: Site, large: Site]> {
  const demo = await site("demo", await filled(server, "demo", (db) => loadDemo(db, today())));
  const large = await site(
    "five years",
    await filled(server, "years", async (db) => {
      await loadDemo(db, today());
      await liveFiveYears(db, today());
    }),
  );
  const { rows } = await large.db.execute<Record<string, string>>(
    sql`select (select count(*) from material) as materials, (select count(*) from lot) as lots, (select count(*) from movement) as movements`,
  );
  console.log(
    `  ${Object.entries(rows[0]!)
      .map(([what, n]) => `${n} ${what}`)
      .join(", ")}`,
  );
  return [demo, large];
}

const cell = (n: number, digits = 1): string => n.toFixed(digits).padStart(8);

/** A page shows as much where there are at most so many times the letters to read on it. */
const AS_MUCH = 1.25;

/** Every page at both sizes, and what is above what is wanted. */
export async function benchStations(demo: Site, large: Site): Promise<void> {
  console.log(`
Every page, in milliseconds; over an empty page and its prepared queries (wanted: at most 2) as a document, while nothing is written and just after
something was, and gone to from another page, which is asked for what is on it; five years against the demo (wanted: at most 1.5 where it shows as
much)
`);
  console.log(
    `${"".padEnd(16)}    demo   years   times  shown | of what it must: demo   years | after a write: demo   years | gone to: demo   years | after a write: demo   years | queries   longest, ms |    kB   years`,
  );
  const rows: { name: string; demo: Row; large: Row }[] = [];
  const lot = (await demo.db.execute<{ number: string }>(sql`select number from lot where material_id = 6 order by id limit 1`)).rows[0]!
    .number;
  for (const [name, path] of STATIONS) {
    const [d, l] = (await measure(path.replace("{lot}", lot), [demo, large])) as [Row, Row];
    rows.push({ name, demo: d, large: l });
    console.log(
      `${name.padEnd(16)}${cell(d.page)}${cell(l.page)}${cell(l.page / d.page, 2)}${cell(l.shown / d.shown, 2).slice(1)} |${cell(ratio(d), 2).padStart(22)}${cell(ratio(l), 2)} |${cell(ratio(d.written), 2).padStart(20)}${cell(ratio(l.written), 2)} |${cell(ratio(d.goneTo), 2).padStart(14)}${cell(ratio(l.goneTo), 2)} |${cell(ratio(d.goneToWritten), 2).padStart(20)}${cell(ratio(l.goneToWritten), 2)} |${String(l.count).padStart(8)}${cell(l.longest).padStart(14)} |${cell(d.kB)}${cell(l.kB)}`,
    );
  }
  const over = (what: string, limit: number, of: (r: (typeof rows)[number]) => number, among = rows): void => {
    const many = among.filter((r) => of(r) > limit).map((r) => `${r.name} ${of(r).toFixed(2)}`);
    console.log(`${what}, above ${limit}: ${many.length === 0 ? "none" : many.join(", ")}`);
  };
  const shown = (r: (typeof rows)[number]): number => r.large.shown / r.demo.shown;
  console.log("");
  for (const [how, of] of [
    ["as a document", (r: Row) => r],
    ["as a document, after a write", (r: Row) => r.written],
    ["gone to", (r: Row) => r.goneTo],
    ["gone to, after a write", (r: Row) => r.goneToWritten],
  ] as const)
    for (const size of ["demo", "large"] as const)
      over(`Of what it must ${how}, ${size === "demo" ? "demo" : "five years"}`, 2, (r) => ratio(of(r[size])));
  const asMuch = rows.filter((r) => shown(r) <= AS_MUCH);
  over(`Five years against the demo, of the ${asMuch.length} that show as much`, 1.5, (r) => r.large.page / r.demo.page, asMuch);
  over(
    "The others, for each letter shown",
    1.5,
    (r) => r.large.page / r.demo.page / shown(r),
    rows.filter((r) => shown(r) > AS_MUCH),
  );
  over("A query at five years, ms", 15, (r) => r.large.longest);
  for (const r of rows.filter((x) => x.large.longest > 15)) console.log(`  ${r.name}: ${r.large.slowest.slice(0, 160)}`);
}

const PAGES = 5000;

/** What the server holds on to: its heap after a tenth of so many pages of every kind, and after all of them. */
export async function benchMemory({ fetchPage, heard }: Site): Promise<void> {
  setFlagsFromString("--expose-gc");
  const collect = runInNewContext("gc") as () => void;
  const heap = (): number => {
    collect();
    return process.memoryUsage().heapUsed / 1e6;
  };
  const paths = STATIONS.map(([, path]) => path).filter((path) => !path.includes("{"));
  let early = 0;
  for (let i = 1; i <= PAGES; i++) {
    await fetchPage(paths[i % paths.length]!);
    // What was asked is the benchmark's own to remember.
    heard.length = 0;
    if (i === PAGES / 10) early = heap();
  }
  console.log(`\nHeap after ${PAGES / 10} pages ${early.toFixed(1)} MB, after ${PAGES} ${heap().toFixed(1)} MB`);
}
