/**
 * Writes a whole workshop as one file: a zip of text that any program can read, a line of JSON for each row, the same rows as tables, scans and
 * photos as they are, and a manifest with the digest of each. The books are read at one moment, however long it takes and whatever is done
 * meanwhile; nothing but a few hundred rows is in memory at a time. Books that are the same are written byte for byte the same.
 */
import { ARCHIVE_FORMAT, README_PART, recordsPart, tablePart, writeManifest, type Manifest } from "#core/archive/manifest";
import { sql } from "drizzle-orm";
import { readFileSync } from "node:fs";
import type { Writable } from "node:stream";
import type { Db, Tx } from "../client.ts";
import { orNone, readText, rowsOf } from "../columnsOf.ts";
import { stepOf } from "../migrating.ts";
import { countRows, newestActs } from "./booksNow.ts";
import { fileColumn, nextIds, recordKinds, type RecordKind } from "./kinds.ts";
import { README } from "./readme.ts";
import { asRecords, asTable, rowReader, type Lines } from "./rows.ts";
import { writeZip, type Part } from "./zip.ts";

/** How far it has come: rows and files, of all there are to read. */
export interface Progress {
  done: number;
  of: number;
}

export interface Watch {
  /** Stops it; what was written so far is no archive. */
  signal?: AbortSignal;
  onProgress?: (progress: Progress) => void;
}

const ZELBIN = (JSON.parse(readFileSync("package.json", "utf8")) as { version: string }).version;

/** What the manifest says beside its parts. */
async function about(tx: Tx, kinds: readonly RecordKind[]): Promise<Omit<Manifest, "parts">> {
  const [row] = await rowsOf(
    tx,
    { begun: readText, asOf: orNone(readText), workshop: orNone(readText) },
    sql`select (select to_json(since) #>> '{}' from workshop) as begun, (select to_json(max(at)) #>> '{}' from act) as "asOf", (select data ->> 'workshop' from settings) as workshop`,
  );
  return {
    archive: "Zelbin",
    format: ARCHIVE_FORMAT,
    zelbin: ZELBIN,
    step: await stepOf(tx),
    workshop: row!.workshop ?? "",
    begun: row!.begun,
    asOf: row!.asOf ?? row!.begun,
    newest: await newestActs(tx),
    nextIds: await nextIds(tx, kinds),
  };
}

/**
 * Writes the archive of a workshop.
 * @param out where it goes; ended when it is done
 * @returns its manifest
 * @throws whatever reading or writing throws, or the signal's reason: what was written until then is no archive
 */
export const writeArchive = (db: Db, out: Writable, { signal, onProgress }: Watch = {}): Promise<Manifest> =>
  db.transaction(
    async (tx) => {
      // As times of day are written in JSON.
      await tx.execute(sql`set local time zone 'UTC'`);
      const kinds = await recordKinds(tx);
      const said = await about(tx, kinds);
      const counts = await countRows(tx, kinds);
      const reader = rowReader(tx);
      const files: { kind: RecordKind; id: number; part: string }[] = [];
      for (const kind of kinds) if (fileColumn(kind) !== null) files.push(...(await reader.files(kind)).map((f) => ({ kind, ...f })));

      // Each row is read for its record and again for its table.
      const of = [...counts.values()].reduce((a, n) => a + 2 * n, files.length);
      let done = 0;
      const step = (n: number): void => {
        signal?.throwIfAborted();
        onProgress?.({ done: (done += n), of });
      };
      async function* stepping(lines: Lines): Lines {
        for await (const some of lines) {
          yield some;
          step(some.length);
        }
      }
      const parts: Part[] = [
        { name: README_PART, chunks: () => [README] },
        ...kinds.flatMap((kind): Part[] => [
          { name: recordsPart(kind.name), rows: counts.get(kind.name)!, chunks: () => asRecords(stepping(reader.lines(kind))) },
          { name: tablePart(kind.name), chunks: () => asTable(kind, stepping(reader.lines(kind))) },
        ]),
        ...files.map(({ kind, id, part }): Part => ({
          name: part,
          asIs: true,
          chunks: async function* () {
            yield await reader.file(kind, id);
            step(1);
          },
        })),
      ];
      let manifest: Manifest = { ...said, parts: [] };
      try {
        await writeZip(out, said.asOf, parts, (written) => writeManifest((manifest = { ...said, parts: written })), signal);
      } finally {
        await reader.close();
      }
      return manifest;
    },
    { isolationLevel: "repeatable read", accessMode: "read only" },
  );
