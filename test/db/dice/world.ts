/** What acts by dice are done in: a workshop, with what things of the one where the dice fell are called in it. */
import { and, eq, gt, sql } from "drizzle-orm";
import type { Done } from "#db/act/define";
import type { OpenDb } from "#db/client";
import { lot, material } from "#db/schema";
import { DAY, type Workshop } from "../workshop.ts";

type Ids = Pick<ReadonlyMap<number, number>, "get">;
/** A workshop with what a lot, a jar and a receipt of the one where the dice fell are called in it. */
export interface World extends Workshop {
  herb: number;
  lots: Ids;
  jars: Ids;
  receipts: Ids;
}
/** For a workshop where things are done once: everything is called what it is. */
export const itself: Ids = { get: (id) => id };
/** An act with all it was told, to be done here or again in another workshop. */
export type Again = (w: World) => Promise<Done>;
/** Chooses what an act is done to, and how much, by two dice; null when there is nothing to do it to. */
export type Throw = (db: OpenDb, a: number, b: number) => Again | null | Promise<Again | null>;

export const doing = { day: DAY };
/** Thrown for what was taken back in the workshop where the dice fell, and so never came to be in another. */
export class NotThere extends Error {}
export const at = (of: Ids, id: number): number => {
  const found = of.get(id);
  if (found === undefined) throw new NotThere(`nothing in that workshop stands for ${id}`);
  return found;
};
export const pickOf = <T>(rows: readonly T[], n: number): T | undefined => (rows.length ? rows[n % rows.length] : undefined);
/** So many thousandths, at least one. */
export const part = (n: number, thousandths: number): number => Math.max(1, Math.floor((n * thousandths) / 1000));
/** What is weighed, of what keeps its weight. */
export const WEIGHED = ["oil", "wax", "herb", "infusedOil"];
export const onHand = (db: OpenDb, kinds: string[]) =>
  db
    .select({ id: lot.id, onHand: lot.onHand, materialId: material.id })
    .from(lot)
    .innerJoin(material, eq(material.id, lot.materialId))
    .where(and(gt(lot.onHand, 0), sql`${material.kind} in ${kinds}`))
    .orderBy(lot.id);
