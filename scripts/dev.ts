/** `npm run dev`: the application reloading as it is written, on the project's own database. */
import { spawn } from "node:child_process";
import { join } from "node:path";
import { claim } from "./claim.ts";
import { openHouse } from "./database.ts";
import { DATA, startCluster } from "./postgres.ts";

const release = claim();
const cluster = await startCluster(join(DATA, "cluster"));
await (await openHouse(cluster.url)).close();
const dev = spawn(process.execPath, ["node_modules/@react-router/dev/bin.js", "dev", "--host", "127.0.0.1"], {
  stdio: "inherit",
  env: { ...process.env, NODE_ENV: "development", DATABASE_URL: cluster.url },
});
// Ctrl-C reaches both; this one stays until the other has gone.
process.on("SIGINT", () => {});
process.on("SIGTERM", () => dev.kill());
dev.on("exit", (code) => {
  cluster.stop();
  release();
  process.exit(code ?? 0);
});
