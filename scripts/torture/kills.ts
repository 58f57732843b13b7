/** Servers, postmasters and connections killed while windows write: what was acknowledged is saved, once, and the rest not by half. */
import fc from "fast-check";
import { openDb } from "#db/client";
import { sql } from "drizzle-orm";
import { longest, type Found, type Turns } from "./found.ts";
import { atBenches } from "./benches.ts";
import type { Keeper } from "./keeper.ts";
import { pause, write } from "./writing.ts";

const WINDOWS = 6;
const BENCHES = 3;
const BETWEEN_MS = 1500;

export async function kills(keeper: Keeper, { seed, times }: Turns): Promise<Found> {
  const writing = await write(keeper, WINDOWS);
  const making = await atBenches(keeper, BENCHES);
  const HOW = ["server", "postmaster", "connections"] as const;
  const done = { server: 0, postmaster: 0, connections: 0 };
  for (const how of [...HOW, ...fc.sample(fc.constantFrom(...HOW), { seed, numRuns: 5 * (times - 1) })].slice(0, 3 + 5 * (times - 1))) {
    await pause(BETWEEN_MS);
    done[how]++;
    if (how === "server") await keeper.killServer();
    else if (how === "postmaster") await keeper.killPostmaster();
    else {
      const at = openDb(keeper.open.database);
      await at
        .execute(sql`select pg_terminate_backend(pid) from pg_stat_activity where pid <> pg_backend_pid() and datname is not null`)
        .catch(() => undefined);
      await at.close();
    }
  }
  await pause(3 * BETWEEN_MS);
  const made = await making.stop();
  const { acknowledged, lost, waits, faults } = await writing.stop();
  return {
    figures: {
      "kills of the server": done.server,
      "of the postmaster": done.postmaster,
      "of all connections": done.connections,
      "acknowledged acts": acknowledged,
      "of them lost": lost,
      "longest wait, ms": longest(waits),
      "batches poured": made.poured,
      "and taken back": made.takenBack,
      "weighings and notes kept at the bench": made.kept,
    },
    faults: [...faults, ...made.faults],
  };
}
