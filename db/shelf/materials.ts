/** Materials on the shelf: listing, one sheet, adding and changing. */
import { kind } from "#core/material/kinds";
import { libraryEntry, type LibraryEntry } from "#core/material/library";
import { Refused } from "#core/refused";
import { counted, wordList } from "#core/words";
import { asc, count, eq, sql } from "drizzle-orm";
import { perform, type Doing, type Done } from "../act.ts";
import type { Db, Reads, Tx } from "../client.ts";
import { prepared } from "../prepared.ts";
import { reweighRecipes } from "../recipe/reweigh.ts";
import {
  act,
  giftWrap,
  harvest,
  jarPart,
  lot,
  material,
  materialUse,
  movement,
  offer,
  productPackaging,
  purchase,
  purchaseLine,
  recipeLine,
} from "../schema.ts";

export type MaterialRow = typeof material.$inferSelect;

/** Every material; the interface sorts and groups. */
export const listMaterials = (db: Reads): Promise<MaterialRow[]> =>
  prepared(db, "materials", () => db.select().from(material).orderBy(asc(material.name))).execute();

/** One material's facts, or null. */
export async function materialRow(db: Reads, id: number): Promise<MaterialRow | null> {
  const [row] = await prepared(db, "material", () =>
    db
      .select()
      .from(material)
      .where(eq(material.id, sql.placeholder("id"))),
  ).execute({ id });
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
  const lots = await prepared(db, "lots_of_material", () =>
    db
      .select({
        id: lot.id,
        number: lot.number,
        of: sql<number>`${lot.materialId}`,
        onHand: lot.onHand,
        value: lot.value,
        arrived: lot.arrived,
        bestBefore: lot.bestBefore,
        hold: sql<boolean>`${lot.holdReason} is not null`,
        holdReason: lot.holdReason,
        opened: lot.opened,
        dryness: lot.dryness,
        grown: lot.grown,
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
      .where(eq(lot.materialId, sql.placeholder("id"))),
  ).execute({ id });
  return { material: row, lots };
}

/** What went in and out of a material's lots, newest first. @param before only movements older than this one, for the next page */
export function materialMovements(db: Reads, id: number, limit = 40, before = LAST_ID) {
  // The newest of each lot first, so that a long ledger costs no more than a short one.
  const newest = sql`
    select x.id from ${lot} l cross join lateral (
      select m.id from ${movement} m where m.lot_id = l.id and m.id < ${sql.placeholder("before")} order by m.id desc limit ${sql.placeholder("limit")}
    ) x where l.material_id = ${sql.placeholder("id")} order by x.id desc limit ${sql.placeholder("limit")}`;
  return prepared(db, "movements_of_material", () =>
    db
      .select({
        id: movement.id,
        day: act.day,
        number: lot.number,
        qty: movement.qty,
        reason: movement.reason,
        note: movement.note,
        value: movement.value,
        summary: act.summary,
        path: act.path,
      })
      .from(movement)
      .innerJoin(lot, eq(lot.id, movement.lotId))
      .innerJoin(act, eq(act.id, movement.actId))
      .where(sql`${movement.id} in (${newest})`)
      .orderBy(sql`${movement.id} desc`),
  ).execute({ id, limit, before });
}

/** No movement has a number as high. */
const LAST_ID = 2_147_483_647;

/** Puts entries of the starter library on the shelf; what stands there already is passed over. @returns how many were new */
export async function addFromLibrary(tx: Tx, keys: readonly string[]): Promise<number> {
  const entries = [...new Set(keys)].flatMap((k) => libraryEntry(k) ?? []);
  if (entries.length === 0) throw Refused.one("take", "Tick what you want on your shelf.");
  const made = await tx.insert(material).values(entries.map(materialFromLibrary)).onConflictDoNothing().returning({ id: material.id });
  return made.length;
}

export type MaterialIn = Omit<typeof material.$inferInsert, "id">;

/** What a material taken from the starter library starts with. */
export const materialFromLibrary = (e: LibraryEntry): MaterialIn => ({
  name: e.name,
  kind: e.kind,
  inci: e.inci,
  botanical: e.botanical,
  densities: e.densities,
  meltFrom: e.melts?.[0] ?? null,
  meltTo: e.melts?.[1] ?? null,
  keepsSealed: e.keepsSealed,
  keepsOpened: e.keepsOpened,
  dropsPerMl: e.dropsPerMl,
  allergen: e.allergen,
  cautions: [...e.cautions],
  vegan: e.vegan,
  refined: e.refined,
  kept: e.kept,
  libraryKey: e.key,
});

/**
 * Adds a material, or changes one when `id` is given: recipes that use it are weighed again in the same act.
 * @throws Refused for a name that is taken, or facts that a recipe could no longer be weighed by
 */
export function saveMaterial(db: Db, input: MaterialIn, doing: Doing, id?: number): Promise<Done> {
  return perform(db, "saveMaterial", doing, async (tx) => {
    const [same] = await tx
      .select({ id: material.id })
      .from(material)
      .where(sql`lower(${material.name}) = lower(${input.name})`);
    const taken = () => Refused.one("name", `There is already a material called ${input.name}.`);
    if (same && same.id !== id) throw taken();
    if (id !== undefined) {
      const [held] = await tx
        .select({ kind: material.kind })
        .from(material)
        .innerJoin(lot, eq(lot.materialId, material.id))
        .where(eq(material.id, id))
        .limit(1);
      if (held && kind(held.kind).measured !== kind(input.kind).measured)
        throw Refused.one("kind", "It has lots already, so it can't change between weighed and counted.");
    }
    const [row] =
      id === undefined
        ? await tx.insert(material).values(input).onConflictDoNothing().returning({ id: material.id })
        : await tx.update(material).set(input).where(eq(material.id, id)).returning({ id: material.id });
    if (!row) throw taken();
    if (id !== undefined) await reweighRecipes(tx, id);
    return { path: `/shelf/${row.id}`, summary: `Kept ${input.name}` };
  });
}

/** Puts a material away, or back: it is offered nowhere any more, and its history stays. */
export function retireMaterial(db: Db, id: number, retired: boolean, doing: Doing): Promise<Done> {
  return perform(db, "retire", doing, async (tx) => {
    const [row] = await tx.update(material).set({ retired }).where(eq(material.id, id)).returning({ name: material.name });
    if (!row) throw Refused.one("", "That material isn't on the shelf any more.");
    return { path: `/shelf/${id}`, summary: retired ? `Put ${row.name} away` : `${row.name} is back on the shelf` };
  });
}

/** Deletes a material nothing refers to. @throws Refused naming what does */
export function deleteMaterial(db: Db, id: number, doing: Doing): Promise<Done> {
  return perform(db, "deleteMaterial", doing, async (tx) => {
    const [row] = await tx.select({ name: material.name }).from(material).where(eq(material.id, id)).for("update");
    if (!row) throw Refused.one("", "That material isn't on the shelf any more.");
    const uses: string[] = [];
    for (const [table, column, one] of [
      [lot, lot.materialId, "lot"],
      [recipeLine, recipeLine.materialId, "recipe line"],
      [productPackaging, productPackaging.materialId, "product's packaging"],
      [purchaseLine, purchaseLine.materialId, "receipt line"],
      [giftWrap, giftWrap.materialId, "order's wrapping"],
      [jarPart, jarPart.materialId, "jar"],
      [harvest, harvest.materialId, "harvest"],
      [material, material.lidId, "container's lid"],
    ] as const) {
      const [n] = await tx.select({ n: count() }).from(table).where(eq(column, id));
      if (n!.n > 0) uses.push(counted(n!.n, one));
    }
    if (uses.length > 0)
      throw Refused.one("", `${row.name} can't be deleted: it is in ${wordList(uses)}. Put it away instead, and its history stays.`);
    await tx.delete(offer).where(eq(offer.materialId, id));
    await tx.delete(materialUse).where(eq(materialUse.materialId, id));
    await tx.delete(material).where(eq(material.id, id));
    return { path: "/shelf", summary: `Deleted ${row.name}` };
  });
}
