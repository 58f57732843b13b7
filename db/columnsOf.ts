/**
 * Readers for computed columns, JSON and raw SQL; each throws on a value of another type than it reads, so that no answer of the database is
 * taken on trust.
 */
import type { Mg } from "#core/measure/exact";
import { is, sql, Column, type SQL } from "drizzle-orm";
import type { Reads } from "./client.ts";
import { batch, batchTake } from "./schema/batch.ts";
import { lot } from "./schema/stock.ts";

const not = (what: string, v: unknown): TypeError => new TypeError(`not ${what}: ${JSON.stringify(v)}`);

/** Readers of a single value. @throws TypeError for nothing, and for anything else */
export function readBoolean(v: unknown): boolean {
  if (typeof v !== "boolean") throw not("a yes or no", v);
  return v;
}
export function readText(v: unknown): string {
  if (typeof v !== "string") throw not("a text", v);
  return v;
}
/** Whole and other numbers; the large ones come as text. */
export function readNumber(v: unknown): number {
  const n = typeof v === "string" && v !== "" ? Number(v) : v;
  if (typeof n !== "number" || !Number.isFinite(n)) throw not("a number", v);
  return n;
}

/** A yes or no. @example sqlBoolean(sql`${batch.pouredActId} is not null`) */
export const sqlBoolean = (of: SQL): SQL<boolean> => of.mapWith(readBoolean);
export const sqlNumber = (of: SQL): SQL<number> => of.mapWith(readNumber);
export const sqlText = (of: SQL): SQL<string> => of.mapWith(readText);
/** For a column that may be null: the query builder calls no reader for null, so its type has to be declared. */
export const orSqlNull = <T>(of: SQL<T>): SQL<T | null> => of;
export const sqlTextOrNull = (of: SQL): SQL<string | null> => orSqlNull(sqlText(of));
export const sqlNumberOrNull = (of: SQL): SQL<number | null> => orSqlNull(sqlNumber(of));

/** How much was stirred into one size of a batch alone; of a statement that reads sizes. */
export const addedToSize: SQL<Mg> =
  // In a statement of one table the builder leaves its name away, and the id would be the line's.
  // By the batch too, which has an index: a size's lines are its batch's.
  sql`(select coalesce(sum(t.weighed), 0) from ${batchTake} t where t.batch_id = ${sql.raw('"batch_size"."batch_id"')} and t.size_id = ${sql.raw('"batch_size"."id"')})`.mapWith(
    batchTake.planned,
  );

/** What was weighed into the whole pot, without what was left over; of a statement that reads batches. */
export const intoPot: SQL<Mg> =
  sql`(select greatest(0, coalesce(sum(t.weighed), 0) - coalesce(${batch.leftover}, 0)) from ${batchTake} t where t.batch_id = ${batch.id} and t.size_id is null)`.mapWith(
    batchTake.planned,
  );

/** Whether a lot is on hold. */
export const isOnHold = sqlBoolean(sql`${lot.holdReason} is not null`);

/** How a value is read: by the column it comes from, or by a function. Only what may be nothing is read as nothing. */
type Reader = Column | ((v: unknown) => unknown);
type Read<R> =
  R extends Column<infer C> ? (C["notNull"] extends true ? C["data"] : C["data"] | null) : R extends (v: unknown) => infer T ? T : never;
export type RowOf<S extends Record<string, Reader>> = { [K in keyof S]: Read<S[K]> };

/** What may be nothing. @example orNone(aNumber) */
export const orNone =
  <T>(read: (v: unknown) => T) =>
  (v: unknown): T | null =>
    v === null ? null : read(v);

function readBy(reader: Reader, v: unknown, key: string): unknown {
  if (v === undefined) throw new TypeError(`${key} wasn't asked for`);
  if (is(reader, Column)) {
    if (v === null && reader.notNull) throw new TypeError(`${key} is missing`);
    return v === null ? null : reader.mapFromDriverValue(v);
  }
  return reader(v);
}

/** Reads a row, each field by its reader. @throws TypeError when one is missing, or isn't what it has to be */
const readRow =
  <S extends Record<string, Reader>>(shape: S) =>
  (row: unknown): RowOf<S> =>
    Object.fromEntries(
      Object.entries(shape).map(([key, reader]) => [key, readBy(reader, (row as Record<string, unknown>)[key], key)]),
    ) as RowOf<S>;

/** Rows within a row. @example { packaging: rowsIn({ pieces: productPackaging.pieces }) } */
export const rowsIn =
  <S extends Record<string, Reader>>(shape: S) =>
  (v: unknown): RowOf<S>[] => {
    if (!Array.isArray(v)) throw not("rows", v);
    return v.map(readRow(shape));
  };

/** Rows that a statement folded into JSON. @example jsonRows(sql`(select json_agg(…) from …)`, { label: product.label }) */
export const jsonRows = <S extends Record<string, Reader>>(of: SQL, shape: S): SQL<RowOf<S>[]> => of.mapWith(rowsIn(shape));

/** Rows of a statement in raw SQL. @example await rowsOf(db, { id: aNumber }, sql`select id from …`) */
export async function rowsOf<S extends Record<string, Reader>>(db: Reads, shape: S, statement: SQL): Promise<RowOf<S>[]> {
  const { rows } = await db.execute(statement);
  return rows.map(readRow(shape));
}
