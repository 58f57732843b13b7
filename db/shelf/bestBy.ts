/** Recalculates each lot's best-before from what it follows from: what is printed, its material's shelf life, the day it was opened. */
import { bestBy } from "#core/stock/bestBy";
import { and, eq } from "drizzle-orm";
import type { Tx } from "../client.ts";
import { hasStock } from "../ledger/lots.ts";
import { anyOf } from "../pieces.ts";
import { lot, material } from "../schema.ts";

/** Works out the day that counts for these lots of materials, and what says so. */
export async function keepBestBefore(tx: Tx, lotIds: readonly number[]): Promise<void> {
  if (lotIds.length === 0) return;
  const rows = await tx
    .select({ lot, keepsSealed: material.keepsSealed, keepsOpened: material.keepsOpened })
    .from(lot)
    .innerJoin(material, eq(material.id, lot.materialId))
    .where(anyOf(lot.id, lotIds))
    .orderBy(lot.id);
  // Lots of one receipt share few days; a statement for each of these, not for each lot.
  const changed = new Map<string, ReturnType<typeof bestBy> & { ids: number[] }>();
  for (const { lot: l, ...keeps } of rows) {
    const { day, by } = bestBy(l, keeps);
    if (day === l.bestBefore && by === l.bestBy) continue;
    const alike = changed.get(`${day} ${by}`) ?? { day, by, ids: [] };
    alike.ids.push(l.id);
    changed.set(`${day} ${by}`, alike);
  }
  for (const { day, by, ids } of changed.values()) await tx.update(lot).set({ bestBefore: day, bestBy: by }).where(anyOf(lot.id, ids));
}

/** The same for everything on hand of a material, when how long it keeps was said again. */
export async function keepBestBeforeOf(tx: Tx, materialId: number): Promise<void> {
  const rows = await tx
    .select({ id: lot.id })
    .from(lot)
    .where(and(eq(lot.materialId, materialId), hasStock));
  await keepBestBefore(
    tx,
    rows.map((r) => r.id),
  );
}
