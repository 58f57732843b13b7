/**
 * Any workshop, of acts by dice of every kind, some of them taken back, goes out and comes in the same; and what is done afterwards comes to the
 * same in both, to the micro.
 */
import { sql } from "drizzle-orm";
import fc from "fast-check";
import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { archiveOf, eachFileHasAFolder, loaded, sha256 } from "#test/db/archives";
import { aWorldForDice, play, step } from "#test/db/dice";
import { expectLedgerTrue } from "#test/db/fresh";
import { workshop } from "../schema.ts";
import type { OpenDb } from "../client.ts";

eachFileHasAFolder();

/** The ledger and the lots, by all but the moment things were written. */
const books = async (db: OpenDb): Promise<unknown[]> => [
  (await db.execute(sql`select * from movement order by id`)).rows,
  (await db.execute(sql`select * from lot order by id`)).rows,
  (await db.execute(sql`select id, kind, day, summary, path, undoes, leaves from act order by id`)).rows,
];

it("goes out and comes in again, whatever was done in it, and goes on the same", async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(step, { minLength: 8, maxLength: 30 }),
      fc.array(step, { minLength: 4, maxLength: 8 }),
      async (before, after) => {
        const w = await aWorldForDice();
        try {
          await w.db.insert(workshop).values({ kind: "own" });
          await play(w, before);
          const path = await archiveOf(w.db);
          await loaded(path, async (db) => {
            expect(sha256(readFileSync(await archiveOf(db)))).toBe(sha256(readFileSync(path)));
            const refusals = await play({ ...w, db }, after);
            expect(await play(w, after)).toEqual(refusals);
            expect(await books(db)).toEqual(await books(w.db));
            await expectLedgerTrue(db);
          });
        } finally {
          await w.drop();
        }
      },
    ),
    { numRuns: 6 },
  );
});
