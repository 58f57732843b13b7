/**
 * `npm test`: type check, unit tests, database tests, lint beside them, and the tests through the real interface, on a throw-away
 * database cluster. Ends with one line of counts.
 */
import { spawn } from "node:child_process";
import { randomInt } from "node:crypto";
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { availableParallelism } from "node:os";
import { join, relative } from "node:path";
import { openDb } from "#db/client";
import { sql } from "drizzle-orm";
import { buildIfStale } from "./build.ts";
import { startDevices, type Devices } from "./devices.ts";
import { openHouse } from "./database.ts";
import { startCluster } from "./cluster/cluster.ts";
import { DATA, freePort } from "./places.ts";
import { serve } from "./server/serve.ts";
import { chromium } from "./system.ts";
import { torture } from "./torture/torture.ts";

let passed = 0;
let failed = 0;
const undo: (() => unknown)[] = [];
const children = new Set<ReturnType<typeof spawn>>();

/** Runs a tool of node_modules; its output is ours. */
const run = (args: string[], env: NodeJS.ProcessEnv = {}): Promise<boolean> =>
  new Promise((done) => {
    const child = spawn(process.execPath, args, { stdio: ["ignore", "inherit", "inherit"], env: { ...process.env, ...env } });
    children.add(child);
    child.on("exit", (code) => {
      children.delete(child);
      done(code === 0);
    });
  });

/** Begins a tool that takes minutes of one core, beside what takes the other; what it printed is shown when it is waited for. */
function beside(args: string[]): () => Promise<boolean> {
  const child = spawn(process.execPath, args, { stdio: ["ignore", "pipe", "pipe"] });
  children.add(child);
  const said: Buffer[] = [];
  for (const out of [child.stdout, child.stderr]) out.on("data", (part: Buffer) => said.push(part));
  const ended = new Promise<boolean>((done) =>
    child.on("close", (code) => {
      children.delete(child);
      done(code === 0);
    }),
  );
  return async () => {
    const ok = await ended;
    process.stdout.write(Buffer.concat(said));
    return ok;
  };
}
const bin = (path: string): string => join("node_modules", path);

/** What didn't hold, by name: said again at the very end, where nobody has to look for it. */
const broken: string[] = [];

async function step(name: string, work: () => Promise<boolean>): Promise<void> {
  console.log(`\n── ${name}`);
  const ok = await work();
  if (!ok) {
    failed++;
    broken.push(name);
    console.log(`   ${name}: failed`);
  } else if (!/tests$/.test(name)) passed++;
}

const reports = (() => {
  mkdirSync(DATA, { recursive: true });
  return mkdtempSync(join(DATA, "reports-"));
})();
undo.push(() => rmSync(reports, { recursive: true, force: true }));

interface VitestReport {
  numPassedTests: number;
  numFailedTests: number;
  testResults: { name: string; message: string; assertionResults: { status: string; fullName: string; failureMessages?: string[] }[] }[];
}

async function vitest(project: string, env: NodeJS.ProcessEnv = {}): Promise<boolean> {
  const file = join(reports, `${project}.json`);
  const ok = await run(
    [bin("vitest/vitest.mjs"), "run", "--project", project, "--reporter=default", "--reporter=json", `--outputFile.json=${file}`],
    env,
  );
  const r = JSON.parse(readFileSync(file, "utf8")) as VitestReport;
  for (const of of r.testResults.filter((f) => f.message)) broken.push(`${relative("", of.name)}: ${of.message.split("\n")[0]}`);
  for (const of of r.testResults)
    for (const t of of.assertionResults)
      if (t.status === "failed") broken.push(`${relative("", of.name)}: ${t.fullName}: ${(t.failureMessages?.[0] ?? "").split("\n")[0]}`);
  passed += r.numPassedTests;
  failed += r.numFailedTests;
  return ok;
}

async function throwAwayCluster(): Promise<string> {
  console.log("\nStarting a throw-away database …");
  const cluster = await startCluster(join(DATA, `test-${process.pid}`), true);
  undo.push(cluster.stop);
  return cluster.database();
}

/** A database of its own on a server, so that one that was there already is never touched. */
async function throwAwayDatabase(server: string, n: number): Promise<string> {
  const name = `zelbin_test_${process.pid}_${n}`;
  const admin = openDb(server);
  await admin.execute(sql.raw(`create database ${name}`));
  undo.push(async () => {
    for (const one of [name, `${name}_own`]) await admin.execute(sql.raw(`drop database if exists ${one} with (force)`));
    await admin.close();
  });
  return server.replace(/\/[^/?]*(\?|$)/, `/${name}$1`);
}

/** A house for journeys, with a database and a demo of its own. */
async function throwAwayHouse(server: string, n: number): Promise<{ url: string; database: string; devices: Devices }> {
  const database = await throwAwayDatabase(server, n);
  const house = await openHouse(database);
  undo.push(house.close);
  const devices = startDevices();
  undo.push(devices.stop);
  const site = await serve(house, await freePort(), { bench: devices });
  undo.push(site.close);
  return { url: site.url, database, devices };
}

/** Journeys that go side by side; a browser and its server take a core between them. */
const SIDE_BY_SIDE = Math.min(4, Math.max(2, availableParallelism()));

interface JourneyResult {
  error?: { message?: string };
  attachments: { name: string; path?: string }[];
}
interface Suite {
  file: string;
  specs: { title: string; ok: boolean; tests: { results: JourneyResult[] }[] }[];
  suites?: Suite[];
}
interface JourneyReport {
  stats: { expected: number; unexpected: number; flaky: number };
  suites: Suite[];
}
/** What stood on the page when it failed, without the addresses of its links. */
const stoodThen = (result: JourneyResult | undefined): string[] => {
  const path = result?.attachments.find((a) => a.name === "error-context")?.path;
  const page = path ? readFileSync(path, "utf8") : "";
  const work = page.slice(Math.max(0, page.indexOf("- main")), page.indexOf("# Test source")).split("\n");
  return work.filter((line) => line.trim() !== "" && !line.includes("/url:")).slice(0, MOST_OF_A_PAGE);
};
const MOST_OF_A_PAGE = 45;
const journeysFailed = (suites: readonly Suite[]): string[] =>
  suites.flatMap((s) => [
    ...s.specs.flatMap((spec) => {
      const result = spec.tests[0]?.results[0];
      const what = (result?.error?.message ?? "").split("\n")[0];
      return spec.ok ? [] : [[`${s.file}: ${spec.title}: ${what}`, ...stoodThen(result)].join("\n      ")];
    }),
    ...journeysFailed(s.suites ?? []),
  ]);

async function interfaceTests(server: string): Promise<boolean> {
  buildIfStale();
  const houses = [];
  for (let n = 0; n < SIDE_BY_SIDE; n++) houses.push(await throwAwayHouse(server, n));
  const file = join(reports, "interface.json");
  const ok = await run([bin("@playwright/test/cli.js"), "test", "--config", "e2e/playwright.config.ts"], {
    ZELBIN_URLS: houses.map((h) => h.url).join(" "),
    ZELBIN_DATABASES: houses.map((h) => h.database).join(" "),
    ZELBIN_SCALES: houses.map((h) => h.devices.pids.scale ?? "").join(" "),
    CHROMIUM: chromium(),
    PLAYWRIGHT_JSON_OUTPUT_NAME: file,
  });
  const { stats, suites } = JSON.parse(readFileSync(file, "utf8")) as JourneyReport;
  broken.push(...journeysFailed(suites));
  passed += stats.expected;
  failed += stats.unexpected + stats.flaky;
  return ok;
}

async function finish(code: number): Promise<void> {
  for (const u of undo.reverse()) await u();
  process.exit(code);
}
for (const signal of ["SIGINT", "SIGTERM"] as const)
  process.on(signal, () => {
    for (const child of children) child.kill();
    void finish(1);
  });

if (process.env.ZELBIN_SEED === "random") process.env.ZELBIN_SEED = String(randomInt(1, 2 ** 31));
console.log(
  `Property tests are drawn from seed ${process.env.ZELBIN_SEED ?? 1}; ZELBIN_SEED=random draws another, ZELBIN_SEED=n repeats one.`,
);

try {
  chromium();
  await step(
    "types",
    async () =>
      (await run([bin("@react-router/dev/bin.js"), "typegen"])) &&
      (await run([bin("typescript/bin/tsc"), "-p", "core"])) &&
      run([bin("typescript/bin/tsc"), "-p", "."]),
  );
  const linted = beside([bin("eslint/bin/eslint.js"), ".", "--max-warnings", "0"]);
  await step("format", () => run([bin("prettier/bin/prettier.cjs"), "--check", "--log-level", "warn", "."]));
  await step("unit tests", () => vitest("unit"));
  const server = process.env.DATABASE_URL ?? (await throwAwayCluster());
  await step("database tests", () => vitest("database", { DATABASE_URL: server }));
  await step("lint", linted);
  await step("interface tests", () => interfaceTests(server));
  await step("hard knocks, briefly", async () => {
    const { held, broke } = await torture(server, { seed: Number(process.env.ZELBIN_SEED ?? 1), times: 1 });
    passed += held - 1;
    failed += Math.max(0, broke - 1);
    return broke === 0;
  });
} catch (e) {
  failed++;
  console.error(e);
}
for (const name of broken) console.log(`   broken: ${name}`);
console.log(`\n${passed} passed, ${failed} failed`);
await finish(failed === 0 && passed > 0 ? 0 : 1);
