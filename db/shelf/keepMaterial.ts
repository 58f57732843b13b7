/** Adding materials, changing them, putting them away and deleting them. */
import { kind } from "#core/material/kinds";
import { withLids, type LibraryEntry } from "#core/material/library";
import { mg } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { counted, wordList } from "#core/words";
import { and, count, eq, inArray, isNull, ne, sql } from "drizzle-orm";
import { alias } from "drizzle-orm/pg-core";
import { array, object } from "yup";
import { defineAct } from "../act/define.ts";
import { undoId, leftRow } from "../act/left.ts";
import { defineRetire } from "../act/retire.ts";
import { requireUnchanged } from "../act/seen.ts";
import { requireNoLaterActs } from "../ledger/effective.ts";
import type { Tx } from "../client.ts";
import { reweighRecipes } from "../recipe/reweigh.ts";
import { settleVersionsOf } from "../recipe/versions.ts";
import {
  giftWrap,
  harvest,
  jarPart,
  lot,
  material,
  materialUse,
  offer,
  product,
  productAddition,
  productPackaging,
  purchaseLine,
  recipeLine,
} from "../schema.ts";
import { keepBestBeforeOf } from "./bestBy.ts";

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
  scentNote: e.scentNote,
  feel: e.feel,
  smell: e.smell,
  brimMl: e.brimMl,
  emptyMg: e.emptyG === null ? null : mg(e.emptyG * 1000),
  madeOf: e.madeOf,
  libraryKey: e.key,
});

const aboutMaterial = (id: number) => [{ kind: "material" as const, id, changes: true }];

/** A material held for this act. @throws Refused when it has gone */
async function held(tx: Tx, id: number): Promise<typeof material.$inferSelect> {
  const [row] = await tx.select().from(material).where(eq(material.id, id)).for("no key update");
  if (!row) throw Refused.one("", "That material isn't on the shelf any more.");
  return row;
}

/**
 * Adds a material, or changes one when `id` is given: recipes that use it are weighed again, as new versions, in the same act, and lots
 * that nobody printed a date on follow how long it keeps.
 * @throws Refused for a name that is taken, or facts that a recipe could no longer be weighed by; EditedMeanwhile
 */
export const saveMaterial = defineAct({
  kind: "saveMaterial",
  run: async (tx, { id, ...input }: MaterialIn & { id?: number }, { actId, day, seen }) => {
    const before = id === undefined ? null : await held(tx, id);
    if (id !== undefined) await requireUnchanged(tx, { kind: "material", id }, seen);
    const taken = () => Refused.one("name", `There is already a material called ${input.name}.`);
    const [same] = await tx
      .select({ id: material.id })
      .from(material)
      .where(and(sql`lower(${material.name}) = lower(${input.name})`, id === undefined ? undefined : ne(material.id, id)));
    if (same) throw taken();
    if (before && kind(before.kind).measured !== kind(input.kind).measured) {
      const [any] = await tx.select({ id: lot.id }).from(lot).where(eq(lot.materialId, before.id)).limit(1);
      if (any) throw Refused.one("kind", "It has lots already, so it can't change between weighed and counted.");
    }
    const [row] = before
      ? await tx.update(material).set(input).where(eq(material.id, before.id)).returning({ id: material.id })
      : await tx.insert(material).values(input).onConflictDoNothing().returning({ id: material.id });
    if (!row) throw taken();
    const recipes = before ? await reweighRecipes(tx, row.id, { actId, day }) : [];
    if (before) await keepBestBeforeOf(tx, row.id);
    return {
      path: `/shelf/${row.id}`,
      summary: `Saved ${input.name}`,
      about: [...aboutMaterial(row.id), ...recipes.map((r) => ({ kind: "recipe" as const, id: r, changes: true }))],
      leaves: { id: row.id, before },
    };
  },
  leaves: object({ id: undoId(), before: leftRow(material).nullable() }),
  back: async (tx, { id, before }, { undoes }) => {
    await requireNoLaterActs(
      tx,
      { kind: "material", id },
      undoes,
      ["saveMaterial", "retire", "deleteMaterial"],
      "It has been changed since.",
    );
    if (!before) {
      await deleteUnused(tx, id);
      return "/shelf";
    }
    const { id: _own, ...was } = before;
    await tx.update(material).set(was).where(eq(material.id, id));
    await settleVersionsOf(tx, undoes);
    await keepBestBeforeOf(tx, id);
  },
});

/** Says which lid fits, of containers taken from the library that have none yet. */
async function putLidsOn(tx: Tx, entries: readonly LibraryEntry[]): Promise<void> {
  const lid = alias(material, "lid");
  for (const e of entries)
    if (e.lid)
      await tx
        .update(material)
        .set({ lidId: lid.id })
        .from(lid)
        .where(and(eq(material.libraryKey, e.key), isNull(material.lidId), eq(lid.libraryKey, e.lid)));
}

/** Puts entries of the starter library on the shelf, containers with their lids; what is there already is passed over. @throws Refused when none is chosen */
export const addFromLibrary = defineAct({
  kind: "library",
  run: async (tx, { keys }: { keys: readonly string[] }) => {
    const entries = withLids(keys);
    if (entries.length === 0) throw Refused.one("take", "Tick what you want on your shelf.");
    const made = await tx
      .insert(material)
      .values(entries.map(materialFromLibrary))
      .onConflictDoNothing()
      .returning({ id: material.id, key: material.libraryKey });
    await putLidsOn(tx, entries);
    // Lids come along with what they fit: the message counts those that were ticked, and the lids beside them.
    const lids = made.filter((m) => !keys.includes(m.key ?? "")).length;
    const n = made.length - lids;
    return {
      path: "/shelf",
      summary:
        made.length === 0
          ? "All of it is on your shelf already"
          : `${counted(n, "material")} taken from the library${lids > 0 ? `, with ${counted(lids, "lid")} to fit` : ""}`,
      about: made.flatMap((m) => aboutMaterial(m.id)),
      leaves: { ids: made.map((m) => m.id) },
    };
  },
  leaves: object({ ids: array().of(undoId()).required() }),
  back: async (tx, { ids }) => {
    // Containers before the lids they name.
    if (ids.length > 0)
      await tx
        .update(material)
        .set({ lidId: null })
        .where(and(inArray(material.id, ids), inArray(material.lidId, ids)));
    for (const id of ids) await deleteUnused(tx, id);
  },
});

export const retireMaterial = defineRetire({
  kind: "retire",
  subject: "material",
  at: "/shelf/",
  deletes: "deleteMaterial",
  held: async (tx, id) => {
    const { name, retired } = await held(tx, id);
    return { called: name, retired, about: aboutMaterial(id) };
  },
  set: (tx, id, retired) => tx.update(material).set({ retired }).where(eq(material.id, id)),
  back: (name) => `${name} is back on the shelf`,
});

/** What refers to a material, in words. */
async function usesOf(tx: Tx, id: number): Promise<string[]> {
  const uses: string[] = [];
  for (const [table, column, one] of [
    [lot, lot.materialId, "lot"],
    [recipeLine, recipeLine.materialId, "recipe line"],
    [productPackaging, productPackaging.materialId, "product's packaging"],
    [productAddition, productAddition.materialId, "variant"],
    [product, product.containerId, "product's container"],
    [purchaseLine, purchaseLine.materialId, "receipt line"],
    [giftWrap, giftWrap.materialId, "order's wrapping"],
    [jarPart, jarPart.materialId, "jar"],
    [harvest, harvest.materialId, "harvest"],
    [material, material.lidId, "container's lid"],
  ] as const) {
    const [n] = await tx.select({ n: count() }).from(table).where(eq(column, id));
    if (n!.n > 0) uses.push(counted(n!.n, one));
  }
  return uses;
}

/** @throws Refused naming what refers to it */
export async function deleteUnused(
  tx: Tx,
  id: number,
): Promise<{ row: typeof material.$inferSelect; offers: (typeof offer.$inferSelect)[] }> {
  const row = await held(tx, id);
  const uses = await usesOf(tx, id);
  if (uses.length > 0)
    throw Refused.one("", `${row.name} can't be deleted: it is in ${wordList(uses)}. Put it away instead, and its history stays.`);
  const offers = await tx.delete(offer).where(eq(offer.materialId, id)).returning();
  await tx.delete(materialUse).where(eq(materialUse.materialId, id));
  await tx.delete(material).where(eq(material.id, id));
  return { row, offers };
}

/** Deletes a material nothing refers to. @throws Refused naming what does */
export const deleteMaterial = defineAct({
  kind: "deleteMaterial",
  run: async (tx, { id }: { id: number }) => {
    const gone = await deleteUnused(tx, id);
    return { path: "/shelf", summary: `Deleted ${gone.row.name}`, about: aboutMaterial(id), leaves: gone };
  },
  leaves: object({ row: leftRow(material), offers: array().of(leftRow(offer)).required() }),
  back: async (tx, { row, offers }) => {
    const [same] = await tx
      .select({ id: material.id })
      .from(material)
      .where(sql`lower(${material.name}) = lower(${row.name})`);
    if (same)
      throw Refused.one("", `There is another material called ${row.name} by now. Give it another name first.`, [
        { to: `/shelf/${same.id}`, name: row.name },
      ]);
    await tx.insert(material).overridingSystemValue().values(row);
    if (offers.length > 0) await tx.insert(offer).overridingSystemValue().values(offers);
    return `/shelf/${row.id}`;
  },
});
