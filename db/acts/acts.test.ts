/**
 * Random sequences of every act the ledger knows, taken back at random: on hand is the sum of the movements, value is neither made nor
 * lost, nothing goes below zero, and no lot is made of itself. An act that is refused leaves everything as it was.
 */
import { Refused } from "#core/refused";
import { desc, sql } from "drizzle-orm";
import fc from "fast-check";
import { expect, it } from "vitest";
import type { Done } from "../act/define.ts";
import { reverseAct } from "./reverse.ts";
import { act } from "../schema.ts";
import { saveMaterial } from "../shelf/keepMaterial.ts";
import { receive } from "../shelf/receipts/receive.ts";
import { choose, dice, KINDS, type Kind } from "#test/db/dice";
import { itself, pickOf, type World } from "#test/db/dice/world";
import { euro, expectLedgerTrue } from "#test/db/fresh";
import { DAY, db, eachTestHasAWorkshop, idIn, ids, make } from "#test/db/workshop";

eachTestHasAWorkshop();

const step = fc.record({ ...dice, do: fc.constantFrom(...KINDS, "undo", "undo") });
const doing = { day: DAY };

it("keeps its promises through any sequence of acts", async () => {
  const done = new Map<string, number>();
  let herbs = 0;
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 8, maxLength: 16 }), async (steps) => {
      const herb = idIn(await saveMaterial(db, { name: `Herb ${++herbs}`, kind: "herb", densities: {} }, doing));
      const scent = idIn(await saveMaterial(db, { name: `Scent ${herbs}`, kind: "essentialOil", densities: {} }, doing));
      await receive(
        db,
        {
          supplier: "Mill",
          day: DAY,
          postage: euro(0),
          // Enough to fill and to make from, whatever the runs before used up.
          lines: [
            [herb, 200_000] as const,
            [scent, 10_000] as const,
            [ids.oil, 500_000] as const,
            [ids.wax, 200_000] as const,
            [ids.tin, 20] as const,
            [ids.box, 2] as const,
          ].map(([materialId, qty]) => ({ materialId, supplierLot: "", packs: 1, packSize: "1", qty, price: euro(4), bestBefore: null })),
        },
        {},
      );
      await make(2);
      const w: World = { db, ids, herb, lots: itself, jars: itself, receipts: itself };
      /** Does one act; null when there is nothing to do it to. */
      const run = async ({ do: what, ...d }: { do: Kind | "undo"; a: number; b: number }): Promise<Done | null> => {
        if (what !== "undo") return (await choose(w, { do: what, ...d }))?.(w) ?? null;
        const recent = await db.select({ id: act.id }).from(act).orderBy(desc(act.id)).limit(8);
        return reverseAct(db, pickOf(recent, d.a)!.id, doing);
      };
      for (const s of steps) {
        const before = await db.execute(
          sql`select sum(on_hand) as qty, sum(value) as value, (select count(*) from movement) as moves from lot`,
        );
        try {
          if (await run(s)) done.set(s.do, (done.get(s.do) ?? 0) + 1);
        } catch (e) {
          if (!(e instanceof Refused)) throw e;
          const after = await db.execute(
            sql`select sum(on_hand) as qty, sum(value) as value, (select count(*) from movement) as moves from lot`,
          );
          expect(after.rows, `${s.do} was refused and moved something`).toEqual(before.rows);
        }
      }
      await expectLedgerTrue(db);
    }),
    { numRuns: 36, endOnFailure: true },
  );
  // A test that never did an act would say nothing of it.
  for (const kind of new Set<string>([...KINDS, "undo"])) expect(done.get(kind) ?? 0, `${kind} was never done`).toBeGreaterThan(0);
});
