/** Reading and changing the workshop's own choices. */
import { Refused } from "#core/refused";
import { STARTING_SETTINGS, type Settings } from "#core/settings/settings";
import { eq, sql } from "drizzle-orm";
import { mixed, object } from "yup";
import { defineAct } from "../act/define.ts";
import { requireUnchanged } from "../act/seen.ts";
import { requireNoLaterActs } from "../ledger/effective.ts";
import type { Reads, Tx } from "../client.ts";
import { readBoolean, rowsOf } from "../columnsOf.ts";
import { cachedUntilWrite } from "../cache.ts";
import { runPrepared } from "../prepared.ts";
import { giftOrder, lot, marketDay, price, purchase, settings } from "../schema.ts";

/** The workshop's settings are one record. */
export const SETTINGS = { kind: "settings", id: 1 } as const;

// Choices that came later start from the house's own.
const whole = (data: Partial<Settings> | undefined): Settings => ({ ...STARTING_SETTINGS, ...data });

export async function readSettings(db: Reads): Promise<Settings> {
  const [row] = await runPrepared(db, "settings", {}, () => db.select().from(settings).where(eq(settings.id, 1)));
  return whole(row?.data);
}

/** The settings as a page reads them, asked for again once anything was written. @param db not a transaction */
export const cachedSettings = (db: Reads): Promise<Settings> => cachedUntilWrite(db, "settings", "", () => readSettings(db));

/** Whether any money is in the books: from then on its currency is fixed. */
export async function moneyIsIn(db: Reads): Promise<boolean> {
  const [found] = await rowsOf(
    db,
    { any: readBoolean },
    sql`select exists (select 1 from ${purchase}) or exists (select 1 from ${price})
    or exists (select 1 from ${marketDay}) or exists (select 1 from ${giftOrder}) or exists (select 1 from ${lot} l where l.value <> 0) as any`,
  );
  return found!.any;
}

const write = (tx: Tx, data: Settings) =>
  tx.insert(settings).values({ id: 1, data }).onConflictDoUpdate({ target: settings.id, set: { data } });

/** Keeps some or all of the workshop's choices; the others stay. @throws Refused for another currency once money is in; EditedMeanwhile */
export const saveSettings = defineAct({
  kind: "settings",
  run: async (tx, choices: Partial<Settings>, { seen }) => {
    await tx.execute(sql`select pg_advisory_xact_lock(hashtext('settings'))`);
    await requireUnchanged(tx, SETTINGS, seen);
    const [row] = await tx.select().from(settings).where(eq(settings.id, 1));
    const before = whole(row?.data);
    const data = { ...before, ...choices };
    if (data.currency !== before.currency && (await moneyIsIn(tx)))
      throw Refused.one("currency", `What is in the books is in ${before.currency}; it can't be called ${data.currency} now.`);
    await write(tx, data);
    return { path: "/settings", summary: "Settings saved", about: [{ ...SETTINGS, changes: true }], leaves: { before } };
  },
  leaves: object({ before: mixed((v): v is Partial<Settings> => sameShape(v, STARTING_SETTINGS)).required() }),
  back: async (tx, { before }, { undoes }) => {
    await requireNoLaterActs(tx, SETTINGS, undoes, ["settings"], "The settings have been changed again since.");
    await write(tx, whole(before));
  },
});

/** Whether each stored choice is of the kind it should be. Choices that came later may be missing, dropped ones be over. */
function sameShape(v: unknown, like: unknown): boolean {
  if (typeof like !== "object" || like === null) return typeof v === typeof like;
  const choices = like as Record<string, unknown>;
  return typeof v === "object" && v !== null && Object.entries(v).every(([k, one]) => !(k in choices) || sameShape(one, choices[k]));
}
