/** Windows that write through the server whatever befalls it, and what is to be found in the books afterwards. */
import { openDb } from "#db/client";
import { ledgerFaults } from "#db/ledger/faults";
import { act, lot } from "#db/schema";
import { eq, sql } from "drizzle-orm";
import type { Keeper } from "./keeper.ts";

export const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));

export interface Written {
  /** Acts whose answer came. */
  acknowledged: number;
  lost: number;
  /** How long each of them took, with all its tries, in milliseconds. */
  waits: number[];
  faults: string[];
}

export interface Writing {
  /** Acts whose answer came so far. */
  readonly acknowledged: readonly string[];
  /** Whatever else was answered, by status, the latest last, with the words it was said in. */
  readonly refusals: ReadonlyMap<number, string>;
  stop: () => Promise<Written>;
}

/** Lets so many windows take units of one lot out, one by one; each sends what had no answer again, until it is answered. */
export async function write(keeper: Keeper, windows: number): Promise<Writing> {
  const admin = openDb(keeper.open.database);
  const [made] = await admin
    .select({ id: lot.id, onHand: lot.onHand })
    .from(lot)
    .where(sql`${lot.productId} is not null and ${lot.onHand} > 2000`);
  await admin.close();
  let over = false;
  const acknowledged: string[] = [];
  const refusals = new Map<number, string>();
  const waits: number[] = [];
  const aWindow = async (): Promise<void> => {
    while (!over) {
      const token = crypto.randomUUID();
      const body = JSON.stringify({ lotId: made!.id, units: "1", reason: "own", note: "", token, seen: null, intent: null });
      const began = performance.now();
      for (;;) {
        try {
          const answer = await fetch(`${keeper.open.url}/demo/cabinet`, {
            method: "POST",
            headers: { "Content-Type": "application/json" },
            body,
            redirect: "manual",
            signal: AbortSignal.timeout(10_000),
          });
          if (answer.status === 302) {
            acknowledged.push(token);
            waits.push(performance.now() - began);
            break;
          }
          const words = await answer.text();
          refusals.delete(answer.status);
          refusals.set(answer.status, words);
        } catch {
          // Broken off: nobody knows, so it is sent again.
        }
        await pause(50);
      }
    }
  };
  const all = Array.from({ length: windows }, aWindow);
  return {
    acknowledged,
    refusals,
    stop: async () => {
      over = true;
      await Promise.all(all);
      const db = openDb(keeper.open.database);
      const kept = new Set((await db.select({ token: act.token }).from(act).where(eq(act.kind, "takeOut"))).map((a) => a.token));
      const lost = acknowledged.filter((t) => !kept.has(t)).length;
      const [now] = await db.select({ onHand: lot.onHand }).from(lot).where(eq(lot.id, made!.id));
      const faults = await ledgerFaults(db);
      await db.close();
      if (lost > 0) faults.push(`${lost} acknowledged acts are lost`);
      const gone = made!.onHand - now!.onHand;
      if (gone !== acknowledged.length) faults.push(`${acknowledged.length} were acknowledged, and ${gone} units are gone`);
      if (keeper.fell > 0) faults.push(`the server went down by itself ${keeper.fell} times`);
      return { acknowledged: acknowledged.length, lost, waits, faults };
    },
  };
}
