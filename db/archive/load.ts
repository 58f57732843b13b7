/**
 * Puts an archive's rows into an empty database: first as it was for the Zelbin that wrote it, then brought up to date by the same steps as books
 * that stayed where they were. All the rows are one transaction, and afterwards the books must hold.
 */
import { recordsPart } from "#core/archive/manifest";
import { isObject } from "#core/objects";
import { Refused } from "#core/refused";
import type { WorkshopKind } from "#core/workshop";
import { sql } from "drizzle-orm";
import type { Db, Tx } from "../client.ts";
import { readText, rowsOf } from "../columnsOf.ts";
import { withDb } from "../databases.ts";
import { ledgerFaults } from "../ledger/faults.ts";
import { bringToStep, bringUpToDate, knownSteps } from "../migrating.ts";
import { OURS } from "../schema/ours.ts";
import { fileColumn, recordKinds, sequenceOf, tableOf, type RecordKind } from "./kinds.ts";
import type { Archive } from "./unzip.ts";
import type { Watch } from "./write.ts";

/** So many rows, or so many characters of them, are written at once. */
const ROWS_AT_ONCE = 500;
const LENGTH_AT_ONCE = 4_000_000;

const refused = (say: string): Refused => Refused.one("archive", say);

/** What PostgreSQL says of a row it doesn't take: classes 22, data, and 23, integrity (PostgreSQL 15, Appendix A). */
function whyNotTaken(e: unknown): string | null {
  const cause = e instanceof Error && e.cause instanceof Error ? e.cause : e;
  if (!(cause instanceof Error) || !("code" in cause) || typeof cause.code !== "string" || !/^2[23]/.test(cause.code)) return null;
  return "detail" in cause && typeof cause.detail === "string" ? `${cause.message} (${cause.detail})` : cause.message;
}

/** A constraint between tables, dropped while rows are written in any order and made again, and so checked, once all are there. */
interface Reference {
  table: string;
  name: string;
  definition: string;
}

const references = (tx: Tx): Promise<Reference[]> =>
  rowsOf(
    tx,
    { table: readText, name: readText, definition: readText },
    sql`select c.conrelid::regclass::text as table, c.conname::text as name, pg_get_constraintdef(c.oid) as definition
        from pg_constraint c where c.contype = 'f' and c.connamespace = ${OURS}::regnamespace order by c.conrelid::regclass::text, c.conname`,
  );

async function writeRows(tx: Tx, kind: RecordKind, rows: readonly string[], from: number): Promise<void> {
  const insert = (lines: readonly string[]) =>
    tx.execute(
      sql`insert into ${tableOf(kind.name)} overriding system value select * from json_populate_recordset(null::${tableOf(kind.name)}, ${`[${lines.join(",")}]`}::json)`,
    );
  try {
    await tx.transaction(() => insert(rows));
  } catch (e) {
    if (whyNotTaken(e) === null) throw e;
    // One of them: which?
    for (const [i, row] of rows.entries())
      try {
        await insert([row]);
      } catch (one) {
        throw refused(`${recordsPart(kind.name)}, line ${from + i}: ${whyNotTaken(one) ?? String(one)}. Nothing was taken from the file.`);
      }
    throw e;
  }
}

/** What a row of a kind has to say, no more and no less. */
function checkColumns(kind: RecordKind, line: string, at: number): void {
  const row: unknown = JSON.parse(line);
  const names = isObject(row) ? Object.keys(row) : [];
  const other = kind.columns.find((c) => !names.includes(c.name))?.name ?? names.find((n) => !kind.columns.some((c) => c.name === n));
  if (other !== undefined)
    throw refused(`${recordsPart(kind.name)}, line ${at}: ${other} is missing, or isn't known. Nothing was taken from the file.`);
}

/** The file that a row names takes the place of its name. */
async function withFile(kind: RecordKind, line: string, archive: Archive): Promise<string> {
  const column = fileColumn(kind);
  if (column === null) return line;
  const row = JSON.parse(line) as Record<string, unknown>;
  const part = row[column];
  if (typeof part !== "string" || !archive.manifest.parts.some((p) => p.name === part))
    throw refused(`${recordsPart(kind.name)}: the file ${String(part)} isn't in the archive. Nothing was taken from it.`);
  return JSON.stringify({ ...row, [column]: `\\x${(await archive.file(part)).toString("hex")}` });
}

async function loadKind(tx: Tx, kind: RecordKind, archive: Archive, step: (n: number) => void): Promise<void> {
  let at = 1;
  let rows: string[] = [];
  let length = 0;
  const flush = async (): Promise<void> => {
    if (rows.length > 0) await writeRows(tx, kind, rows, at);
    step(rows.length);
    at += rows.length;
    rows = [];
    length = 0;
  };
  for await (const line of archive.lines(recordsPart(kind.name))) {
    checkColumns(kind, line, at + rows.length);
    const row = await withFile(kind, line, archive);
    rows.push(row);
    length += row.length;
    if (rows.length >= ROWS_AT_ONCE || length >= LENGTH_AT_ONCE) await flush();
  }
  await flush();
}

/** Every row of an archive, in one transaction. */
const loadRows = (db: Db, archive: Archive, as: WorkshopKind, { signal, onProgress }: Watch): Promise<void> =>
  db.transaction(async (tx) => {
    const { manifest } = archive;
    const kinds = await recordKinds(tx);
    const unknown = manifest.parts.find((p) => p.rows !== undefined && !kinds.some((k) => recordsPart(k.name) === p.name));
    const missing = kinds.find((k) => !manifest.parts.some((p) => p.name === recordsPart(k.name)));
    if (unknown || missing)
      throw refused(
        `${unknown?.name ?? recordsPart(missing!.name)} ${unknown ? "isn't a kind of record of its time" : "is missing"}. Nothing was taken from it.`,
      );

    const between = await references(tx);
    for (const { table, name } of between) await tx.execute(sql`alter table ${sql.raw(table)} drop constraint ${sql.identifier(name)}`);
    // What triggers would work out is in the archive; what they would refuse is refused below, when the books are checked.
    for (const k of kinds) await tx.execute(sql`alter table ${tableOf(k.name)} disable trigger user`);
    // Some steps leave rows of their own.
    await tx.execute(
      sql`truncate ${sql.join(
        kinds.map((k) => tableOf(k.name)),
        sql`, `,
      )}`,
    );

    const of = manifest.parts.reduce((n, p) => n + (p.rows ?? 0), 0);
    let done = 0;
    for (const k of kinds)
      await loadKind(tx, k, archive, (n) => {
        signal?.throwIfAborted();
        onProgress?.({ done: (done += n), of });
      });

    for (const k of kinds) {
      await tx.execute(sql`alter table ${tableOf(k.name)} enable trigger user`);
      if (k.numbered === null) continue;
      const next = manifest.nextIds[k.name];
      const [row] = await rowsOf(
        tx,
        { top: (v) => Number(readText(v)) },
        sql`select coalesce(max(${sql.identifier(k.numbered)}), 0)::text as top from ${tableOf(k.name)}`,
      );
      if (next === undefined || next <= row!.top)
        throw refused(`The manifest's next number of ${k.name} is missing or taken. Nothing was taken from it.`);
      await tx.execute(sql`select setval(${`${OURS}.${await sequenceOf(tx, k.name, k.numbered)}`}::regclass, ${next}, false)`);
    }
    for (const { table, name, definition } of between)
      try {
        await tx.execute(sql`alter table ${sql.raw(table)} add constraint ${sql.identifier(name)} ${sql.raw(definition)}`);
      } catch (e) {
        const why = whyNotTaken(e);
        throw why === null ? e : refused(`records/${table}.jsonl names what isn't in the archive: ${why}. Nothing was taken from it.`);
      }
    await tx.execute(sql`insert into ${tableOf("workshop")} (kind, since) values (${as}, ${manifest.begun}::timestamptz)`);
  });

/** How an archive is loaded. */
export interface Loading extends Watch {
  /** Not brought up to date: to see that it is what was written. */
  asItWas?: boolean;
}

/**
 * Loads an archive into an empty database of ours.
 * @param as which of the workshops it becomes
 * @throws Refused beside `archive` where a row isn't taken, or the books don't hold; the database is then of no use
 */
export async function loadArchive(
  url: string,
  archive: Archive,
  as: WorkshopKind,
  { asItWas = false, ...watch }: Loading = {},
): Promise<void> {
  await bringToStep(url, archive.manifest.step);
  await withDb(url, {}, async (db) => {
    await loadRows(db, archive, as, watch);
    // Nothing is known yet of tables that were just filled: the rules below would be asked in the slowest way.
    await db.execute(sql`analyze`);
    // The rules are asked of books as they are today.
    if (asItWas && archive.manifest.step !== knownSteps().at(-1)) return;
    await bringUpToDate(url, { copied: false });
    const [fault] = await ledgerFaults(db);
    if (fault !== undefined) throw refused(`The books in this archive don't hold (${fault}). Nothing was taken from it.`);
  });
}
