/** Answers that are CSV files: whole, or written as they are read. */
import { Readable } from "node:stream";
import { headsOf, numbersInFiles, rowsOfList, writeList, writeRows, writeTable, type FileStyle } from "#core/lists/csv";
import type { FileColumn } from "#core/lists/fileColumns";
import { today } from "#db/clock";
import { cachedSettings } from "#db/settings/settings";
import { db } from "./workshop.server.ts";

const send = (what: string, body: BodyInit): Response =>
  new Response(body, {
    headers: { "content-type": "text/csv; charset=utf-8", "content-disposition": `attachment; filename="${what}-${today()}.csv"` },
  });

async function styleOfFiles(): Promise<FileStyle> {
  const { numbers, currency } = await cachedSettings(db());
  return { numbers: numbersInFiles(numbers), currency };
}

/** A list as a file. @param what of its name: "shopping" */
export const csvFile = async <R>(what: string, columns: readonly FileColumn<R>[], rows: readonly R[]): Promise<Response> =>
  send(what, writeList(columns, rows, await styleOfFiles()));

/**
 * A list too long to be read at once as a file, part by part. Where one can't be read, the download breaks off, and the browser says so.
 * @param parts its rows, in their order
 */
export async function longCsvFile<R>(
  what: string,
  columns: readonly FileColumn<R>[],
  parts: AsyncIterable<readonly R[]>,
): Promise<Response> {
  const { numbers, currency } = await styleOfFiles();
  // Bytes, not text: an answer that is read whole before it is sent refuses a stream of text.
  async function* written(): AsyncIterable<Buffer> {
    yield Buffer.from(writeTable(headsOf(columns, currency), [], numbers));
    for await (const rows of parts) yield Buffer.from(writeRows(rowsOfList(columns, rows, numbers), numbers));
  }
  return send(what, Readable.toWeb(Readable.from(written())) as ReadableStream);
}

/**
 * A list that is read in parts of falling ids, newest first.
 * @param read as many rows as a part has, of those older than an id
 */
export async function* inParts<R>(
  read: (before: number | undefined, size: number) => Promise<readonly R[]>,
  idOf: (row: R) => number,
): AsyncIterable<readonly R[]> {
  let before: number | undefined;
  for (;;) {
    const rows = await read(before, PART);
    yield rows;
    if (rows.length < PART) return;
    before = idOf(rows.at(-1)!);
  }
}

const PART = 1000;
