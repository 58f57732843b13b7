/**
 * Reads the rows of a transaction a few hundred at a time, as the archive has them: lines of JSON in the order of their key, the same as lines of a
 * table, and files byte for byte.
 */
import { FILES } from "#core/archive/manifest";
import { writeRows, writeTable } from "#core/lists/csv";
import { isObject } from "#core/objects";
import { sql, type SQL } from "drizzle-orm";
import type { Tx } from "../client.ts";
import { readNumber, readText, rowsOf } from "../columnsOf.ts";
import { fileColumn, tableOf, type RecordKind } from "./kinds.ts";

/** So many rows are read at once. */
const AT_ONCE = 500;

/** The part a row's file is, such as `files/attachment-12.jpeg`; a kind with files says in `mime` what they are. */
const filePart = (kind: string) => sql`${FILES + kind}::text || '-' || id || '.' || split_part(mime, '/', 2)`;

/** A kind's rows as JSON, in the order of their key: the same rows are the same bytes. */
function rowsAsJson(kind: RecordKind): SQL {
  const file = fileColumn(kind);
  const columns = kind.columns.map((c) =>
    c.name === file ? sql`${filePart(kind.name)} as ${sql.identifier(c.name)}` : sql.identifier(c.name),
  );
  const key = sql.join(
    kind.key.map((k) => sql`${sql.identifier(k)}${kind.columns.find((c) => c.name === k)!.type === "text" ? sql` collate "C"` : sql``}`),
    sql`, `,
  );
  return sql`select row_to_json(r)::text as line from (select ${sql.join(columns, sql`, `)} from ${tableOf(kind.name)} order by ${key}) r`;
}

export type Lines = AsyncGenerator<string[]>;

export interface RowReader {
  /** A kind's rows, some at a time. */
  lines: (kind: RecordKind) => Lines;
  /** The files of a kind: the row of each and the part it is. */
  files: (kind: RecordKind) => Promise<{ id: number; part: string }[]>;
  file: (kind: RecordKind, id: number) => Promise<Buffer>;
  /** Nothing is asked any more once this is done: the connection may be given back. */
  close: () => Promise<void>;
}

export function rowReader(tx: Tx): RowReader {
  let closed = false;
  let asked: Promise<unknown> = Promise.resolve();
  let cursors = 0;
  /** Who is in the middle of reading may not know yet that the reading was stopped. */
  const ask = <T>(work: () => PromiseLike<T>): Promise<T> => {
    if (closed) return Promise.reject(new Error("the reading was stopped"));
    // Awaiting one of the builder's statements runs it again; this one is awaited once.
    const answer = Promise.resolve(work());
    asked = answer.catch(() => undefined);
    return answer;
  };
  return {
    async *lines(kind) {
      const cursor = sql.identifier(`archive_${cursors++}`);
      await ask(() => tx.execute(sql`declare ${cursor} no scroll cursor for ${rowsAsJson(kind)}`));
      for (;;) {
        const rows = await ask(() => rowsOf(tx, { line: readText }, sql`fetch ${sql.raw(String(AT_ONCE))} from ${cursor}`));
        if (rows.length === 0) break;
        yield rows.map((r) => r.line);
      }
      await ask(() => tx.execute(sql`close ${cursor}`));
    },
    files: (kind) =>
      ask(() =>
        rowsOf(
          tx,
          { id: readNumber, part: readText },
          sql`select id, ${filePart(kind.name)} as part from ${tableOf(kind.name)} order by id`,
        ),
      ),
    file: async (kind, id) => {
      const column = fileColumn(kind)!;
      const { rows } = await ask(() =>
        tx.execute(sql`select ${sql.identifier(column)} as file from ${tableOf(kind.name)} where id = ${id}`),
      );
      const file: unknown = rows[0]?.file;
      if (!Buffer.isBuffer(file)) throw new TypeError(`the file of ${kind.name} ${id} can't be read`);
      return file;
    },
    close: async () => {
      closed = true;
      await asked;
    },
  };
}

/** A kind's rows as a part of the archive, a line of JSON each. */
export async function* asRecords(lines: Lines): AsyncGenerator<string> {
  for await (const some of lines) yield `${some.join("\n")}\n`;
}

const cellOf = (v: unknown): string => (v === null || v === undefined ? "" : typeof v === "string" ? v : JSON.stringify(v));

/** A kind's rows as a table under the names of their columns. */
export async function* asTable(kind: RecordKind, lines: Lines): AsyncGenerator<string> {
  yield writeTable(
    kind.columns.map((c) => c.name),
    [],
  );
  for await (const some of lines)
    yield writeRows(
      some.map((line) => {
        const row: unknown = JSON.parse(line);
        return kind.columns.map((c) => cellOf(isObject(row) ? row[c.name] : null));
      }),
    );
}
