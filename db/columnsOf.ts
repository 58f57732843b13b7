/**
 * Readers for what a statement works out itself, so that no answer of the database is taken for what its type says: a flag, a number,
 * words, rows folded into JSON, and rows of a statement too much of its own for the query builder.
 */
import { is, sql, Column, type SQL } from "drizzle-orm";
import type { Reads } from "./client.ts";
import { lot } from "./schema/stock.ts";

/** A yes or no. @example flag(sql`${batch.pouredActId} is not null`) */
export const flag = (of: SQL): SQL<boolean> => of.mapWith(Boolean);
export const number = (of: SQL): SQL<number> => of.mapWith(Number);
export const words = (of: SQL): SQL<string> => of.mapWith(String);
/** Of something that may be nothing, which its reader is never asked to read. */
export const orNull = <T>(of: SQL<T>): SQL<T | null> => of;
export const wordsOrNone = (of: SQL): SQL<string | null> => orNull(words(of));
export const numberOrNone = (of: SQL): SQL<number | null> => orNull(number(of));

/** Whether a lot is on hold. */
export const held = flag(sql`${lot.holdReason} is not null`);

/** How a value is read: by the column it comes from, or by a function. Only what may be nothing is read as nothing. */
type Reader = Column | ((v: never) => unknown);
type Read<R> =
  R extends Column<infer C> ? (C["notNull"] extends true ? C["data"] : C["data"] | null) : R extends (v: never) => infer T ? T : never;
export type RowOf<S extends Record<string, Reader>> = { [K in keyof S]: Read<S[K]> };

/** What may be nothing. @example orNone(Number) */
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
  return (reader as (v: unknown) => unknown)(v);
}

/** Reads a row, each field by its reader. @throws TypeError when one is missing, or isn't what it has to be */
export const readRow =
  <S extends Record<string, Reader>>(shape: S) =>
  (row: unknown): RowOf<S> =>
    Object.fromEntries(
      Object.entries(shape).map(([key, reader]) => [key, readBy(reader, (row as Record<string, unknown>)[key], key)]),
    ) as RowOf<S>;

/** Rows that a statement folded into JSON. @example jsonRows(sql`(select json_agg(…) from …)`, { label: product.label }) */
export const jsonRows = <S extends Record<string, Reader>>(of: SQL, shape: S): SQL<RowOf<S>[]> =>
  of.mapWith((rows: unknown[]) => rows.map(readRow(shape)));

/** Rows of a statement of its own. @example await rowsOf(db, { id: Number }, sql`select id from …`) */
export async function rowsOf<S extends Record<string, Reader>>(db: Reads, shape: S, statement: SQL): Promise<RowOf<S>[]> {
  const { rows } = await db.execute(statement);
  return rows.map(readRow(shape));
}
