/** Small pieces of SQL: inserting in chunks, matching any of a list, and searching in texts. */
import { Placeholder, sql, type SQL, type SQLWrapper } from "drizzle-orm";

/** PostgreSQL takes 65 535 values at most in one statement, and no table here has twenty columns that are written. */
const ROWS_AT_ONCE = 3000;

/** @example inChunks([1, 2, 3]) // [[1, 2, 3]] */
export const inChunks = <T>(rows: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(rows.length / ROWS_AT_ONCE) }, (_, i) => rows.slice(i * ROWS_AT_ONCE, (i + 1) * ROWS_AT_ONCE));

/**
 * Whether a column is any of these numbers, of which there may be thousands: they go as one list, which is looked up and not gone through
 * for every row.
 * @example anyOf(lot.id, [1, 2, 3]) // "lot"."id" = any($1::int[])
 */
export const anyOf = (column: SQLWrapper, ids: Iterable<number> | Placeholder): SQL =>
  sql`${column} = any(${ids instanceof Placeholder ? ids : sql.param([...new Set(ids)])}::int[])`;

/** Whether a text is any of these, in whatever case. @param names in small letters */
export const anyNamed = (text: SQLWrapper, names: Placeholder): SQL => sql`lower(${text}) = any(${names}::text[])`;

/** Names as `anyNamed` takes them. @example lower([" Olive Oil "]) // ["olive oil"] */
export const normalizeNames = (names: readonly string[]): string[] => names.map((n) => n.trim().toLowerCase());

/**
 * What `like` finds wherever that is in a text; characters special to `like` are escaped.
 * @example anywhere("5 % oil") // "%5 \\% oil%"
 */
export const anywhere = (part: string): string => `%${part.replace(/[%_\\]/g, "\\$&")}%`;

/**
 * Whether every word of what is looked for is in a text, in any order and case. Left out where there are none: PostgreSQL would plan for
 * few rows and read them all.
 * @param words by `wordsOf`
 */
export const hasAll = (text: SQLWrapper, words: Placeholder): SQL => sql`${text} ilike all(${words}::text[])`;

/** Words as `hasAll` takes them. @example wordsOf(" olive  oil") // ["%olive%", "%oil%"] */
export const wordsOf = (find: string): string[] => find.split(/\s+/).filter(Boolean).map(anywhere);
