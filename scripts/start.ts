/** `npm start`: everything from a fresh clone to the first page. Ctrl-C stops all of it. */
import { join } from "node:path";
import { buildIfStale } from "./build.ts";
import { claim } from "./claim.ts";
import { startDevices } from "./devices.ts";
import { openHouse } from "./database.ts";
import { DATA, freePort, startCluster, type Cluster } from "./postgres.ts";
import { loopbackOnly, serve } from "./server/serve.ts";

const DEFAULT_PORT = 4140;
const quiet = (e: unknown): never => {
  console.error(`\n${e instanceof Error ? e.message : String(e)}\n`);
  process.exit(1);
};

const undo: (() => unknown)[] = [];
let stopping = false;
async function stop(code: number): Promise<void> {
  if (stopping) return;
  stopping = true;
  for (const step of undo.reverse()) await step();
  process.exit(code);
}
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const)
  process.on(signal, () => {
    console.log("\nStopping …");
    void stop(0);
  });

try {
  const host = loopbackOnly(process.env.HOST ?? "127.0.0.1");
  let url = process.env.DATABASE_URL;
  if (!url) {
    undo.push(claim());
    const cluster: Cluster = await startCluster(join(DATA, "cluster"));
    cluster.watch();
    undo.push(cluster.stop);
    url = cluster.url;
  }
  const devices = startDevices();
  undo.push(devices.stop);
  const house = await openHouse(url);
  undo.push(house.close);
  buildIfStale();
  const port = process.env.PORT ? Number(process.env.PORT) : await freePort(DEFAULT_PORT);
  const server = await serve(house, port, { host, bench: devices });
  undo.push(server.close);
  console.log(`\nZelbin is open at ${server.url}\nCtrl-C closes it; what you entered stays.\n`);
} catch (e) {
  await Promise.allSettled(undo.reverse().map((s) => s()));
  quiet(e);
}
