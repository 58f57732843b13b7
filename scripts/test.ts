/**
 * `npm test`: types, format, rooms, unit tests, database tests, lint beside them, the journeys through the real interface, and the hard
 * knocks, on a throw-away database cluster. Ends with where its time went and one line of counts.
 */
import { randomInt } from "node:crypto";
import { readFileSync } from "node:fs";
import { join, relative } from "node:path";
import { chromium } from "./system.ts";
import { interfaceTests } from "./testing/journeys.ts";
import { removeAll, reportsFolder, testServer } from "./testing/throwAway.ts";
import { beside, bin, endTools, run } from "./testing/tools.ts";
import { torture } from "./torture/torture.ts";

let passed = 0;
let failed = 0;

/** What didn't hold, by name: said again at the very end, where nobody has to look for it. */
const broken: string[] = [];
/** What held at the second try only. */
const unsteady: string[] = [];
/** How long each step took. */
const took: string[] = [];

async function step(name: string, work: () => Promise<boolean>): Promise<void> {
  console.log(`\n── ${name}`);
  const began = performance.now();
  const ok = await work();
  took.push(`${name} ${Math.round((performance.now() - began) / 1000)} s`);
  if (!ok) {
    failed++;
    broken.push(name);
    console.log(`   ${name}: failed`);
  } else if (!/tests$/.test(name)) passed++;
}

/** Lint looks again only at what has changed, by its content. */
const REMEMBERS = ["--cache", "--cache-strategy", "content", "--cache-location", ".data/eslint/"];

const reports = reportsFolder();

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

async function journeys(server: string): Promise<boolean> {
  const went = await interfaceTests(server, join(reports, "interface.json"));
  broken.push(...went.broken);
  unsteady.push(...went.unsteady);
  passed += went.passed;
  failed += went.failed;
  return went.ok;
}

async function finish(code: number): Promise<void> {
  await removeAll();
  process.exit(code);
}
for (const signal of ["SIGINT", "SIGTERM"] as const)
  process.on(signal, () => {
    endTools();
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
  const linted = beside([bin("eslint/bin/eslint.js"), ".", "--max-warnings", "0", ...REMEMBERS]);
  await step("format", () => run([bin("prettier/bin/prettier.cjs"), "--check", "--log-level", "warn", "."]));
  await step("rooms", () => run([bin("dependency-cruiser/bin/dependency-cruise.mjs"), "app", "core", "db", "demo", "devices"]));
  await step("unit tests", () => vitest("unit"));
  const server = await testServer();
  await step("database tests", () => vitest("database", { DATABASE_URL: server }));
  await step("lint", linted);
  await step("interface tests", () => journeys(server));
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
console.log(`\nTime: ${took.join(", ")}`);
for (const name of unsteady) console.log(`   unsteady, held at the second try: ${name}`);
for (const name of broken) console.log(`   broken: ${name}`);
console.log(`\n${passed} passed, ${failed} failed`);
await finish(failed === 0 && passed > 0 ? 0 : 1);
