/**
 * One test of any kind, in seconds: `npm run test:unit -- lots`, `npm run test:db -- lots`, `npm run test:e2e -- recall`. What follows the two
 * dashes is part of a file's name; `-t "…"` (`-g "…"` for a journey) is part of a test's.
 */
import { join } from "node:path";
import { interfaceTests } from "./journeys.ts";
import { removeAll, reportsFolder, testServer } from "./throwAway.ts";
import { bin, endTools, run } from "./tools.ts";

const [kind = "unit", ...args] = process.argv.slice(2);
const vitest = (project: string, env: NodeJS.ProcessEnv = {}) => run([bin("vitest/vitest.mjs"), "run", "--project", project, ...args], env);

const KINDS: Record<string, () => Promise<boolean>> = {
  unit: () => vitest("unit"),
  db: async () => vitest("database", { DATABASE_URL: await testServer() }),
  e2e: async () => (await interfaceTests(await testServer(), join(reportsFolder(), "interface.json"), ["--retries", "0", ...args])).ok,
};

async function finish(code: number): Promise<void> {
  await removeAll();
  process.exit(code);
}
for (const signal of ["SIGINT", "SIGTERM"] as const)
  process.on(signal, () => {
    endTools();
    void finish(1);
  });
await finish((await KINDS[kind]!()) ? 0 : 1);
