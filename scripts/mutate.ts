/** `npm run mutate`: mutation testing of the core. What is said after it goes to Stryker: `npm run mutate -- --mutate core/stock/lots.ts`. */
import { spawnSync } from "node:child_process";

const { status } = spawnSync("npx", ["stryker", "run", ...process.argv.slice(2)], { stdio: "inherit" });
process.exitCode = status ?? 1;
