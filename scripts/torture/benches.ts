/**
 * Benches that make batches through the server whatever befalls it: set out, weighed line by line, a step noted, poured, every second one taken
 * back. Afterwards all that was acknowledged is in the books, and no batch is half moved.
 */
import { openDb, type Db } from "#db/client";
import { ledgerFaults } from "#db/ledger/faults";
import { readBatch, type BatchSheet } from "#db/bench/read";
import { readRecipes } from "#db/recipe/read";
import { batch, batchEvent, batchSize, batchTake } from "#db/schema";
import { receive } from "#db/shelf/receipts/receive";
import { eq, gt, sql } from "drizzle-orm";
import type { Keeper } from "./keeper.ts";
import { buying, now } from "./world.ts";
import { pause } from "./writing.ts";

const LOTS_OF = 2_000_000;

export interface Made {
  poured: number;
  takenBack: number;
  /** Weighings and notes that were answered. */
  kept: number;
  faults: string[];
}

/** What was acknowledged as saved. */
interface Kept {
  weighed: { batchId: number; position: number; weighed: number }[];
  noted: { batchId: number; note: string }[];
  /** Sizes of which one was counted. */
  counted: number[];
  /** What a spoon said, with what it asked for. */
  tested: { batchId: number; said: string }[];
  poured: Set<number>;
  back: Set<number>;
}

/** Enough of everything for as many batches as there is time for. @returns the recipe */
async function stock(db: Db): Promise<number> {
  const written = (await readRecipes(db)).find((w) => w.sizes.length > 1)!;
  const materials = [...written.lines.map((l) => l.materialId), ...written.sizes.flatMap((s) => s.packaging.map((p) => p.materialId))];
  for (const id of new Set(materials)) await receive(db, buying(id, LOTS_OF, 900), now());
  return written.recipe.id;
}

export async function atBenches(keeper: Keeper, benches: number): Promise<{ stop: () => Promise<Made> }> {
  const admin = openDb(keeper.open.database);
  const recipe = await stock(admin);
  await admin.close();
  let over = false;
  const kept: Kept = { weighed: [], noted: [], counted: [], tested: [], poured: new Set(), back: new Set() };

  /** Sends it until it is answered; what is broken off nobody knows of. @returns where it led, or that it is saved; null once it is over, or refused */
  const send = async (path: string, what: object): Promise<string | null> => {
    const body = JSON.stringify({ seen: null, intent: null, ...what });
    while (!over) {
      try {
        const answer = await fetch(`${keeper.open.url}/demo${path}`, {
          method: "POST",
          headers: { "Content-Type": "application/json" },
          body,
          redirect: "manual",
          signal: AbortSignal.timeout(10_000),
        });
        if (answer.status === 302) return answer.headers.get("Location")!;
        await answer.text();
        if (answer.status === 200) return "";
        if (answer.status < 500) return null;
      } catch {
        // Broken off: it is sent again.
      }
      await pause(50);
    }
    return null;
  };
  /** Reads the books until they answer. */
  const ask = async <T>(work: (db: Db) => Promise<T>): Promise<T | null> => {
    while (!over) {
      const db = openDb(keeper.open.database);
      try {
        return await work(db);
      } catch {
        await pause(50);
      } finally {
        await db.close().catch(() => undefined);
      }
    }
    return null;
  };

  const weighAll = async (batchId: number, { takes }: BatchSheet): Promise<void> => {
    for (const [i, t] of takes.entries()) {
      const weighed = t.planned + 100;
      const line = { position: t.position, lotId: t.lotId, nth: 0, by: "scale", weighed: `${weighed / 1000} g`, was: "" };
      if ((await send(`/bench/${batchId}/did.data`, { intent: "weigh", ...line })) !== null)
        kept.weighed.push({ batchId, position: t.position, weighed });
      const note = `line ${i}`;
      if ((await send(`/bench/${batchId}/did.data`, { intent: "event", kind: "note", note })) !== null) kept.noted.push({ batchId, note });
    }
  };
  const aBench = async (): Promise<void> => {
    for (let n = 0; !over; n++) {
      const where = await send("/bench/set-out", {
        token: crypto.randomUUID(),
        recipe,
        mode: "pots",
        weight: "",
        lot: 0,
        units: ["1", "1"],
      });
      const batchId = Number(where?.split("/").at(-1));
      if (!where || !batchId) continue;
      const sheet = await ask((db) => readBatch(db, batchId));
      if (!sheet) return;
      await weighAll(batchId, sheet);
      // Too soft, and so much more of its first line; planned once, however often it is sent.
      const [first] = sheet.takes;
      const line = { position: first!.position, lotId: first!.lotId, nth: 0, amount: "0.5 g" };
      const said = `spoon ${n}`;
      const mended = await send(`/bench/${batchId}/did.data`, {
        intent: "mend",
        had: sheet.takes.length,
        lines: [line],
        said,
        verdict: "soft",
      });
      if (mended !== null) kept.tested.push({ batchId, said });
      for (const { id } of sheet.sizes)
        if ((await send(`/bench/${batchId}/did.data`, { intent: "filled", sizeId: id, units: 1, was: 0 })) !== null) kept.counted.push(id);
      const whole = await ask((db) => readBatch(db, batchId));
      if (!whole) return;
      const takes = whole.takes.map(({ position, materialId, lotId, planned, weighed }) => ({
        ...{ position, materialId, lot: lotId, planned: `${planned / 1000} g`, weighed: `${(weighed ?? planned) / 1000} g` },
      }));
      const lines = whole.takes.map(({ position, lotId: lot, weighed }) => ({
        position,
        lot,
        weighed: weighed === null ? "" : `${weighed / 1000} g`,
      }));
      const sizes = sheet.sizes.map((s) => ({ productId: s.productId, units: "1" }));
      const pour = {
        intent: "pour",
        token: crypto.randomUUID(),
        takes,
        sizes,
        leftover: n % 3 === 0 ? "0.1 g" : "",
        leftoverTo: "kept",
        minutes: "5",
        note: "",
        kept: lines,
      };
      if (!(await send(`/bench/${batchId}`, pour))) continue;
      kept.poured.add(batchId);
      if (n % 2 === 0) continue;
      const done = await ask((db) => db.select({ actId: batch.pouredActId }).from(batch).where(eq(batch.id, batchId)));
      const back = done?.[0]?.actId && (await send("/take-back", { actId: done[0].actId, token: crypto.randomUUID() }));
      if (back) kept.back.add(batchId);
    }
  };
  const all = Array.from({ length: benches }, aBench);
  return {
    stop: async () => {
      over = true;
      await Promise.all(all);
      const db = openDb(keeper.open.database);
      // A bench that makes nothing shows nothing.
      const idle = kept.poured.size === 0 ? ["no batch was poured"] : [];
      const faults = [...idle, ...(await lostOf(db, kept)), ...(await halfMoved(db)), ...(await ledgerFaults(db))];
      await db.close();
      return {
        poured: kept.poured.size,
        takenBack: kept.back.size,
        kept: kept.weighed.length + kept.noted.length + kept.counted.length + kept.tested.length,
        faults,
      };
    },
  };
}

/** What was acknowledged and isn't in the books. */
async function lostOf(db: Db, kept: Kept): Promise<string[]> {
  const takes = new Set(
    (
      await db
        .select()
        .from(batchTake)
        .where(gt(batchTake.weighed, sql`0`))
    ).map((t) => `${t.batchId} ${t.position} ${t.weighed}`),
  );
  const notes = new Set((await db.select().from(batchEvent).where(eq(batchEvent.kind, "note"))).map((e) => `${e.batchId} ${e.note}`));
  const tests = new Map<string, number>();
  for (const e of await db.select().from(batchEvent).where(eq(batchEvent.kind, "test")))
    tests.set(`${e.batchId} ${e.note}`, (tests.get(`${e.batchId} ${e.note}`) ?? 0) + 1);
  const counts = new Map((await db.select().from(batchSize)).map((s) => [s.id, s.units]));
  const stands = new Set(
    (
      await db
        .select({ id: batch.id })
        .from(batch)
        .where(sql`${batch.pouredActId} is not null`)
    ).map((b) => b.id),
  );
  return [
    ...kept.weighed.flatMap((w) =>
      takes.has(`${w.batchId} ${w.position} ${w.weighed}`) ? [] : [`a weighing of batch ${w.batchId} is lost`],
    ),
    ...kept.noted.flatMap((n) => (notes.has(`${n.batchId} ${n.note}`) ? [] : [`a note of batch ${n.batchId} is lost`])),
    ...kept.tested.flatMap((t) =>
      tests.get(`${t.batchId} ${t.said}`) === 1 ? [] : [`a test of batch ${t.batchId} is lost, or there twice`],
    ),
    ...kept.counted.flatMap((id) => (counts.get(id) ? [] : [`the count of size ${id} is lost`])),
    ...[...kept.poured].flatMap((id) => (stands.has(id) || kept.back.has(id) ? [] : [`the pouring of batch ${id} is lost`])),
    ...[...kept.back].flatMap((id) => (stands.has(id) ? [`batch ${id} stands, though it was taken back`] : [])),
  ];
}

/** Batches that are poured without having moved all they weighed, or moved something without being poured. */
async function halfMoved(db: Db): Promise<string[]> {
  const { rows } = await db.execute<{ id: number; say: string }>(sql`
    select b.id, 'moved something, and is not poured' as say from ${batch} b
      where b.poured_act_id is null and b.spoiled_act_id is null
        and exists (select 1 from movement m join standing_act a on a.id = m.act_id where m.batch_id = b.id and m.restates is null and m.reason in ('used', 'filled'))
    union all select b.id, 'is poured, and what it weighed has not left its lots' from ${batch} b
      where b.poured_act_id is not null and (select sum(t.weighed) from batch_take t where t.batch_id = b.id)
        <> (select -sum(m.qty) from movement m join lot l on l.id = m.lot_id join material k on k.id = l.material_id
            where m.act_id = b.poured_act_id and m.reason = 'used' and exists (select 1 from batch_take t where t.batch_id = b.id and t.lot_id = m.lot_id))
    union all select b.id, 'is poured, and nothing of it was filled' from ${batch} b
      where b.poured_act_id is not null and not exists (select 1 from movement m where m.act_id = b.poured_act_id and m.reason = 'filled')`);
  return rows.map((r) => `batch ${r.id} ${r.say}`);
}
