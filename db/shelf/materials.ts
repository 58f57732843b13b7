/** Materials on the shelf: listing them, one with its lots, and what went in and out. */
import type { KindId } from "#core/material/kinds";
import { and, asc, eq, notExists, or, sql, type Placeholder, type SQL } from "drizzle-orm";
import type { Reads } from "../client.ts";
import { sqlBoolean } from "../columnsOf.ts";
import { anyNamed, anyOf, normalizeNames } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { lotColumns } from "../ledger/lots.ts";
import { act, lot, material, movement, purchase, purchaseLine } from "../schema.ts";

export type MaterialRow = typeof material.$inferSelect;

/** Every material; the interface sorts and groups. */
export const listMaterials = (db: Reads): Promise<MaterialRow[]> =>
  runPrepared(db, "materials", {}, () => db.select().from(material).orderBy(asc(material.name)));

/** What the materials of a kind are called: lids, herbs. */
export const materialsOfKind = (db: Reads, kind: KindId) =>
  runPrepared(db, "materials_of_kind", { kind }, (at) =>
    db
      .select({ id: material.id, name: material.name, retired: material.retired })
      .from(material)
      .where(eq(material.kind, at.kind))
      .orderBy(asc(material.name)),
  );

/** These materials, and those of these names in whatever case; by name. */
export const materialsNamed = (db: Reads, ids: readonly number[], names: readonly string[]): Promise<MaterialRow[]> =>
  runPrepared(db, "materials_named", { ids, names: normalizeNames(names) }, (at) =>
    db
      .select()
      .from(material)
      .where(or(anyOf(material.id, at.ids), anyNamed(material.name, at.names)))
      .orderBy(asc(material.name)),
  );

/** What each material is called and what it is, and is made of. */
export const materialKinds = (db: Reads) =>
  runPrepared(db, "material_kinds", {}, () =>
    db.select({ id: material.id, name: material.name, kind: material.kind, makeup: material.makeup }).from(material),
  );

/** Whether there is any material at all, or one of a kind that isn't put away. */
export async function anyMaterial(db: Reads, kind?: KindId): Promise<boolean> {
  const some = (which?: SQL) => db.select({ id: material.id }).from(material).where(which).limit(1);
  const found = kind
    ? runPrepared(db, "any_of_kind", { kind }, (at) => some(and(eq(material.kind, at.kind), eq(material.retired, false))))
    : runPrepared(db, "any_material", {}, () => some());
  return (await found).length > 0;
}

/** Materials on the shelf that no lot was ever of, in the order they were put there. */
export const materialsWithoutLots = (db: Reads, limit: number): Promise<{ name: string }[]> =>
  db
    .select({ name: material.name })
    .from(material)
    .where(and(eq(material.retired, false), notExists(db.select({ id: lot.id }).from(lot).where(eq(lot.materialId, material.id)))))
    .orderBy(asc(material.id))
    .limit(limit);

/** One material's facts, or null. */
export async function materialRow(db: Reads, id: number): Promise<MaterialRow | null> {
  const [row] = await runPrepared(db, "material", { id }, (at) => db.select().from(material).where(eq(material.id, at.id)));
  return row ?? null;
}

/** What a lot is of, or null. */
export async function materialOfLot(db: Reads, lotId: number): Promise<MaterialRow | null> {
  const [row] = await db.select({ material }).from(lot).innerJoin(material, eq(material.id, lot.materialId)).where(eq(lot.id, lotId));
  return row?.material ?? null;
}

/** One material with all its lots, used-up ones too, and what each cost. */
export async function readMaterial(db: Reads, id: number) {
  const row = await materialRow(db, id);
  if (!row) return null;
  const lots = await runPrepared(db, "lots_of_material", { id }, (at) =>
    db
      .select({
        ...lotColumns,
        bestBy: lot.bestBy,
        holdReason: lot.holdReason,
        opened: lot.opened,
        dryness: lot.dryness,
        grown: lot.grown,
        opening: sqlBoolean(sql`exists (select 1 from ${movement} o where o.lot_id = ${lot.id} and o.reason = 'opening')`),
        purchaseId: purchaseLine.purchaseId,
        supplierLot: lot.supplierLot,
        supplier: purchase.supplier,
        packs: purchaseLine.packs,
        packSize: purchaseLine.packSize,
        bought: purchaseLine.qty,
        landed: purchaseLine.landed,
      })
      .from(lot)
      .leftJoin(purchaseLine, eq(purchaseLine.lotId, lot.id))
      .leftJoin(purchase, eq(purchase.id, purchaseLine.purchaseId))
      .where(eq(lot.materialId, at.id)),
  );
  return { material: row, lots };
}

/** What went in and out of a material's lots, newest first. @param before only movements older than this one, for the next page */
export function materialMovements(db: Reads, id: number, limit = 40, before = LAST_ID) {
  // The newest of each lot first, so that a long ledger costs no more than a short one.
  const newest = (at: Record<"id" | "limit" | "before", Placeholder>) => sql`
    select x.id from ${lot} l cross join lateral (
      select m.id from ${movement} m where m.lot_id = l.id and m.id < ${at.before} order by m.id desc limit ${at.limit}
    ) x where l.material_id = ${at.id} order by x.id desc limit ${at.limit}`;
  return runPrepared(db, "movements_of_material", { id, limit, before }, (at) =>
    db
      .select({
        id: movement.id,
        day: act.day,
        number: lot.number,
        qty: movement.qty,
        reason: movement.reason,
        note: movement.note,
        value: movement.value,
        actId: act.id,
        summary: act.summary,
      })
      .from(movement)
      .innerJoin(lot, eq(lot.id, movement.lotId))
      .innerJoin(act, eq(act.id, movement.actId))
      .where(sql`${movement.id} in (${newest(at)})`)
      .orderBy(sql`${movement.id} desc`),
  );
}

/** No movement has a number as high. */
const LAST_ID = 2_147_483_647;
