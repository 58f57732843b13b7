/** `npm run mutate`: mutation testing of the core. What is said after it goes to Stryker: `npm run mutate -- --mutate core/stock/lots.ts`. */
import { spawnSync } from "node:child_process";

const STRYKER = "node_modules/@stryker-mutator/core/bin/stryker.js";

const { status } = spawnSync(process.execPath, [STRYKER, "run", ...process.argv.slice(2)], { stdio: "inherit" });
process.exitCode = status ?? 1;
