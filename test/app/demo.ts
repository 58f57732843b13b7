/** The demo workshop on one day, one for each file of tests, as the application's own routes see it. */
import { readBook } from "#db/acts/book";
import { reverseAct } from "#db/acts/reverse";
import type { OpenDb } from "#db/client";
import { movement } from "#db/schema";
import { listMaterials } from "#db/shelf/materials";
import { freshDb } from "#test/db/fresh";
import { loadDemo } from "#demo/load";
import { serveOnly } from "#app/server/workshop.server.ts";
import { eq } from "drizzle-orm";
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

/** The act done last. */
export const newestAct = async () => (await readBook(db, {}, 1))[0]!;

export const takeBackNewest = async () => reverseAct(db, (await newestAct()).id, { day: DAY });

/** What the act done last moved, in its order. */
export const newestMovements = async () =>
  db
    .select()
    .from(movement)
    .where(eq(movement.actId, (await newestAct()).id))
    .orderBy(movement.id);

/** The id of the material of that name. */
export const idOf = async (name: string): Promise<number> => (await listMaterials(db)).find((m) => m.name === name)!.id;
