/** The demo workshop on one day, one for each file of tests, as the application's own routes see it. */
import type { OpenDb } from "#db/client";
import { freshDb } from "#test/db/fresh";
import { loadDemo } from "#demo/load";
import { serveOnly } from "#app/server/workshop.server.ts";
import { afterAll, beforeAll } from "vitest";

export const DAY = "2026-11-25";
export let db: OpenDb;

/** Loads it before the first test of a file and drops it after the last. */
export function theDemo(): void {
  let drop: () => Promise<void>;
  beforeAll(async () => {
    ({ db, drop } = await freshDb());
    await loadDemo(db, DAY);
    process.env.ZELBIN_TODAY = DAY;
    serveOnly({ db });
  });
  afterAll(() => drop());
}
