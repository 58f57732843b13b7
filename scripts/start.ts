/** `npm start`: everything from a fresh clone to the first page. Ctrl-C stops all of it. */
import { buildIfStale } from "./building/build.ts";
import { startDevices } from "./devices.ts";
import { openHouseAt, openPrivateHouse } from "./database.ts";
import { openBackups } from "#db/backups/backups";
import { backupsHome, freePort } from "./places.ts";
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
  const { DATABASE_URL } = process.env;
  const { house, close } = DATABASE_URL ? await openHouseAt(DATABASE_URL) : await openPrivateHouse();
  undo.push(close);
  const devices = startDevices();
  undo.push(devices.stop);
  buildIfStale();
  const port = process.env.PORT ? Number(process.env.PORT) : await freePort(DEFAULT_PORT);
  const backups = await openBackups({ home: backupsHome(DATABASE_URL), workshops: house, byThemselves: true });
  undo.push(backups.close);
  const server = await serve(house, port, { host, bench: devices, backups });
  undo.push(server.close);
  const own = (await house.of("own")) ? "Your own workshop is kept in" : "A workshop of your own would be kept in";
  console.log(
    `\nZelbin is open at ${server.url}\n${own} ${house.where.what} ${house.where.name}.\nCtrl-C closes it; what you entered stays.\n`,
  );
} catch (e) {
  await Promise.allSettled(undo.reverse().map((s) => s()));
  quiet(e);
}
