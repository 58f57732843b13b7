/** Puts the parts of an archive together as a zip, each read only once its turn comes, with their digests told in a manifest that comes last. */
import { MANIFEST_PART, SEAL_PART, type ArchivePart } from "#core/archive/manifest";
import { createHash } from "node:crypto";
import { PassThrough, Readable, type Writable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { ZipFile } from "yazl";

/** A moment's local time that reads as its time in UTC does: a zip has no zone, and the same books are the same bytes anywhere. */
function asLocal(moment: string): Date {
  const at = new Date(moment);
  return new Date(at.getUTCFullYear(), at.getUTCMonth(), at.getUTCDate(), at.getUTCHours(), at.getUTCMinutes(), at.getUTCSeconds());
}

export interface Part {
  name: string;
  chunks: () => AsyncIterable<string | Buffer> | Iterable<string | Buffer>;
  /** How many rows it has, where it has a row to a line. */
  rows?: number;
  /** What is compressed already is taken as it is. */
  asIs?: boolean;
}

/**
 * Writes a zip to its end.
 * @param moment the time that each part bears, in ISO 8601
 * @param manifest what the manifest says, given each part with its length and digest
 * @throws whatever reading or writing throws, or the signal's reason
 */
export async function writeZip(
  out: Writable,
  moment: string,
  parts: readonly Part[],
  manifest: (parts: ArchivePart[]) => string,
  signal?: AbortSignal,
): Promise<void> {
  const zip = new ZipFile();
  const zipOut = zip.outputStream.pipe(new PassThrough());
  // One that comes after all is over is nobody's.
  zipOut.on("error", () => undefined);
  const failed = (e: Error) => zipOut.destroy(e);
  zip.on("error", failed);
  const how = { mtime: asLocal(moment), forceDosTimestamp: true, mode: 0o100644 };
  const add = (name: string, chunks: Part["chunks"], compress = true): void =>
    zip.addReadStreamLazy(name, { ...how, compress }, (cb) => cb(null, Readable.from(chunks()).on("error", failed)));

  const written: ArchivePart[] = [];
  for (const { name, chunks, rows, asIs } of parts) {
    async function* digested(): AsyncGenerator<Buffer> {
      const sum = createHash("sha256");
      let bytes = 0;
      for await (const chunk of chunks()) {
        const piece = Buffer.from(chunk);
        sum.update(piece);
        bytes += piece.length;
        yield piece;
      }
      written.push({ name, bytes, ...(rows !== undefined && { rows }), sha256: sum.digest("hex") });
    }
    add(name, digested, !asIs);
  }
  let text = "";
  add(MANIFEST_PART, () => [(text = manifest(written))]);
  add(SEAL_PART, () => [`${createHash("sha256").update(text).digest("hex")}  ${MANIFEST_PART}\n`]);
  zip.end();
  await pipeline(zipOut, out, { signal });
}
