/** `npm run dev`: the application reloading as it is written, on the project's demo. */
import { spawn } from "node:child_process";
import { startCluster } from "./cluster/cluster.ts";
import { openHouse } from "./database.ts";
import { DEMO } from "./places.ts";

const cluster = await startCluster(DEMO);
const url = await cluster.database();
await (await openHouse(url)).close();
const dev = spawn(process.execPath, ["node_modules/@react-router/dev/bin.js", "dev", "--host", "127.0.0.1"], {
  stdio: "inherit",
  env: { ...process.env, NODE_ENV: "development", DATABASE_URL: url },
});
// Ctrl-C reaches both; this one stays until the other has gone.
process.on("SIGINT", () => {});
process.on("SIGTERM", () => dev.kill());
dev.on("exit", (code) => {
  cluster.stop();
  process.exit(code ?? 0);
});
