/**
 * `npm run mutate`: small faults are put into the code, one at a time, and the tests are asked whether they notice.
 *
 *   npm run mutate -- --sample 200 --seed 1            so many, drawn from core, db and what of app runs on the server
 *   npm run mutate -- --sample 60 --seed 1 --in db     from one of them
 *   npm run mutate -- --file core/stock/lots.ts        every one in a file
 *   npm run mutate -- --in core --no-tables            without the tables of what the core says, word for word
 */
import type { MutantResult } from "@stryker-mutator/api/core";
import { Stryker } from "@stryker-mutator/core";
import { parseArgs } from "node:util";
import { AREAS, type Area } from "./mutate/areas.ts";
import { draw, keyOf } from "./mutate/draw.ts";
import { report } from "./mutate/report.ts";
import { removeAll, testServer } from "./testing/throwAway.ts";

const DRY_RUN_MINUTES = 30;
const MUTANT_TIMEOUT_MS = 60_000;

/** Puts faults in, each by itself. @param mutate files, or places in them, as Stryker writes them @param how more of Stryker's options */
const tryAll = (area: Area, mutate: string[], how: object = {}) => {
  process.env.ZELBIN_MUTATE = area;
  return new Stryker({
    testRunner: "vitest",
    vitest: { configFile: "scripts/mutate/vitest.config.ts", related: false },
    mutate,
    ignorePatterns: ["build", "docs", "e2e", ".data", "test-results"],
    concurrency: 2,
    // What is worked out once, as a file is loaded, would take a whole run for each.
    ignoreStatic: true,
    dryRunTimeoutMinutes: DRY_RUN_MINUTES,
    timeoutMS: MUTANT_TIMEOUT_MS,
    reporters: ["progress-append-only"],
    tempDirName: ".data/mutating",
    ...how,
  }).runMutationTest();
};

/** As faults are drawn: lines and columns from 0. */
const fromZero = <R extends MutantResult>(r: R): R => ({
  ...r,
  location: {
    start: { line: r.location.start.line - 1, column: r.location.start.column - 1 },
    end: { line: r.location.end.line - 1, column: r.location.end.column - 1 },
  },
});

async function sample(area: Area, n: number, seed: number): Promise<void> {
  const { drawn, of } = await draw(area, n, seed);
  // Read by the plugin.
  process.env.ZELBIN_DRAWN = JSON.stringify(
    drawn.map(({ location: { start, end } }) => [start.line + 1, start.column, end.line + 1, end.column]),
  );
  const results = await tryAll(
    area,
    drawn.map(({ fileName, location: { start, end } }) => `${fileName}:${start.line + 1}:${start.column}-${end.line + 1}:${end.column}`),
    { plugins: ["@stryker-mutator/*", "./scripts/mutate/onlyDrawn.mjs"], ignorers: ["only-drawn"] },
  );
  // A place may have other faults inside it; those weren't drawn.
  const wanted = new Set(drawn.map(keyOf));
  report(
    area,
    results.filter((r) => wanted.has(keyOf(fromZero(r)))),
    of,
  );
}

const { values } = parseArgs({
  options: {
    sample: { type: "string", default: "200" },
    seed: { type: "string", default: "1" },
    in: { type: "string" },
    file: { type: "string" },
    "no-tables": { type: "boolean", default: false },
  },
});
// Read by the tests' own process (`mutate/vitest.config.ts`).
if (values["no-tables"]) process.env.ZELBIN_NO_TABLES = "yes";

process.env.DATABASE_URL ??= await testServer();
try {
  if (values.file) {
    const area = AREAS.find((a) => values.file!.startsWith(`${a}/`)) ?? "core";
    const results = await tryAll(area, [values.file]);
    report(area, results, results.length);
  } else {
    const areas = AREAS.filter((a) => values.in === undefined || values.in === a);
    for (const area of areas) await sample(area, Math.ceil(Number(values.sample) / areas.length), Number(values.seed));
  }
} finally {
  await removeAll();
}
