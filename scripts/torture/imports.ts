/** Lists as long as are taken in, each line a separate receipt: how long it takes, what others wait meanwhile, and the way back. */
import { mg, micros } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { reverseAct } from "#db/acts/reverse";
import { takeOut } from "#db/cabinet/cabinet";
import { openDb } from "#db/client";
import { ledgerFaults } from "#db/ledger/faults";
import { receive, receiveMany } from "#db/shelf/receipts/receive";
import type { ReceiveIn } from "#db/shelf/receipts/writeReceipts";
import { listReceipts } from "#db/shelf/receipts/receipts";
import { longest, type Found, type Turns } from "./found.ts";
import { DAY } from "#test/db/jar";
import { aWorld, buying } from "./world.ts";

const MANY = 20_000;
/** Briefly: over what one statement can hold. */
const SOME = 7000;

/** Receipts of a line each. */
export const longList = (materialId: number, lines: number): ReceiveIn[] =>
  Array.from({ length: lines }, (_, i) => ({
    supplier: `Mill of ${i % 400}`,
    day: DAY,
    postage: micros(0),
    lines: [
      { materialId, supplierLot: `L${i}`, packs: 1, packSize: "1 kg", qty: mg(1_000_000), price: micros(9_000_000 + i), bestBefore: null },
    ],
  }));

/** @param url an empty, migrated database */
export async function imports(url: string, { times }: Turns): Promise<Found> {
  const db = openDb(url);
  const others = openDb(url);
  const w = await aWorld(db);
  const lines = times === 1 ? SOME : MANY;
  const doing = () => ({ day: DAY, token: crypto.randomUUID() });
  const faults: string[] = [];
  /** How long the other windows wait while some work goes on: one takes out, one makes lots. */
  const meanwhile = async <T>(work: () => Promise<T>) => {
    const until = { over: false };
    const windowOf = async (act: () => Promise<unknown>): Promise<number> => {
      const waits: number[] = [];
      while (!until.over) {
        const began = performance.now();
        try {
          await act();
        } catch (e) {
          faults.push(`another window was refused meanwhile: ${e instanceof Error ? e.message : String(e)}`);
        }
        waits.push(performance.now() - began);
        await new Promise((done) => setTimeout(done, 100));
      }
      return longest(waits);
    };
    const takingOut = windowOf(() => takeOut(others, { lotId: w.lots.made[0], units: 1, reason: "own", note: "" }, doing()));
    const receiving = windowOf(() => receive(others, buying(w.ids.oil, 1_000_000, 9), doing()));
    const began = performance.now();
    const came = await work();
    const ms = Math.round(performance.now() - began);
    until.over = true;
    return { came, ms, tookOut: await takingOut, received: await receiving };
  };
  const steps: number[] = [];
  const put = await meanwhile(() =>
    receiveMany(db, { add: [], receipts: longList(w.ids.oil, lines) }, { ...doing(), progress: (n) => steps.push(n) }),
  );
  if (steps.length < 4) faults.push("nothing was said of how far it was");
  if (put.received > put.ms / 2) faults.push("who received waited for the whole list");
  const back = await meanwhile(() => reverseAct(db, put.came.actId, doing()));
  const stopped = await receiveMany(
    db,
    { add: [], receipts: longList(w.ids.oil, lines) },
    {
      ...doing(),
      progress: (n) => {
        if (n > lines / 4) throw Refused.one("", "Stopped.");
      },
    },
  ).then(
    () => false,
    (e: unknown) => e instanceof Refused,
  );
  if (!stopped) faults.push("it could not be stopped");
  if ((await listReceipts(db)).some((r) => r.supplier.startsWith("Mill of ")))
    faults.push("something is left of what was taken back or stopped");
  faults.push(...(await ledgerFaults(db)));
  await Promise.all([db.close(), others.close()]);
  return {
    figures: {
      "lines, each a receipt": lines,
      "put on the shelf in, ms": put.ms,
      "meanwhile who took out waited, ms": put.tookOut,
      "meanwhile who received waited, ms": put.received,
      "taken back in, ms": back.ms,
      "then who took out waited, ms": back.tookOut,
      "then who received waited, ms": back.received,
    },
    faults,
  };
}
