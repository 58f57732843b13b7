/**
 * What an archive holds of a database: every kind of record with its columns, asked of the database itself, so that books of an earlier step are
 * written and read by the same code.
 */
import { sql } from "drizzle-orm";
import type { Reads } from "../client.ts";
import { orNone, readBoolean, readText, rowsIn, rowsOf } from "../columnsOf.ts";
import { STEPS_TAKEN } from "../ownership.ts";
import { OURS } from "../schema/ours.ts";

/**
 * What is about this database and not about the workshop: which steps it has taken, which of the two it is, and what pages sent in the background
 * within the last days.
 */
const OF_THE_DATABASE = [STEPS_TAKEN.table, "workshop", "background_request"];

export interface RecordKind {
  /** The table's name, and the part's. */
  name: string;
  columns: readonly { name: string; type: string }[];
  /** Its key, in the order rows are written in. */
  key: readonly string[];
  /** The column that numbers its rows by itself; null where none does. */
  numbered: string | null;
}

/** The column of a kind that holds a file; its row names the part that the file is. */
export const fileColumn = (kind: RecordKind): string | null => kind.columns.find((c) => c.type === "bytea")?.name ?? null;

/** Every kind of record in a database, by name. */
export const recordKinds = (db: Reads): Promise<RecordKind[]> =>
  rowsOf(
    db,
    { name: readText, columns: rowsIn({ name: readText, type: readText }), key: rowsIn({ name: readText }), numbered: orNone(readText) },
    sql`
      select c.relname as name,
        (select json_agg(json_build_object('name', a.attname, 'type', format_type(a.atttypid, a.atttypmod)) order by a.attnum)
          from pg_attribute a where a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped) as columns,
        (select json_agg(json_build_object('name', a.attname) order by array_position(i.indkey::int2[], a.attnum))
          from pg_index i join pg_attribute a on a.attrelid = c.oid and a.attnum = any(i.indkey::int2[]) where i.indrelid = c.oid and i.indisprimary) as key,
        (select a.attname::text from pg_attribute a where a.attrelid = c.oid and a.attidentity <> '') as numbered
      from pg_class c
      where c.relnamespace = ${OURS}::regnamespace and c.relkind = 'r' and c.relname not in (${sql.join(
        OF_THE_DATABASE.map((n) => sql`${n}`),
        sql`, `,
      )})
      order by c.relname collate "C"`,
  ).then((kinds) => kinds.map(({ key, ...k }) => ({ ...k, key: key.map((c) => c.name) })));

/** A kind's table, as it is named in a statement. */
export const tableOf = (kind: string) => sql`${sql.identifier(OURS)}.${sql.identifier(kind)}`;

/** The number that the next row of each kind gets; of those that number themselves. */
export async function nextIds(db: Reads, kinds: readonly RecordKind[]): Promise<Record<string, number>> {
  const found: [string, number][] = [];
  for (const { name, numbered } of kinds) {
    if (numbered === null) continue;
    const [row] = await rowsOf(
      db,
      { last: (v) => Number(readText(v)), used: readBoolean },
      sql`select last_value::text as last, is_called as used from ${sql.identifier(OURS)}.${sql.identifier(await sequenceOf(db, name, numbered))}`,
    );
    found.push([name, row!.used ? row!.last + 1 : row!.last]);
  }
  return Object.fromEntries(found);
}

/** What counts a kind's rows. */
export async function sequenceOf(db: Reads, kind: string, column: string): Promise<string> {
  const [row] = await rowsOf(
    db,
    { name: readText },
    sql`select s.relname as name from pg_class s where s.oid = pg_get_serial_sequence(${`${OURS}.${kind}`}, ${column})::regclass`,
  );
  return row!.name;
}
