/** Numbers in use, so that the next one is free. */
import { sql } from "drizzle-orm";
import type { Tx } from "../client.ts";
import { lot } from "../schema.ts";

/** Lot numbers in use that start with `head`; holds off other windows that are numbering until this transaction ends. */
export async function takenNumbers(tx: Tx, head: string): Promise<Set<string>> {
  await tx.execute(sql`select pg_advisory_xact_lock(hashtext('lot numbers'))`);
  const rows = await tx
    .select({ number: lot.number })
    .from(lot)
    .where(sql`starts_with(${lot.number}, ${head})`);
  return new Set(rows.map((r) => r.number));
}
