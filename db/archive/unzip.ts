/**
 * Opens an archive's file and looks through all of it before anything of it is used: that it is whole, unchanged, an archive of Zelbin's and none
 * of a newer one. A refusal names the part and the line.
 */
import { MANIFEST_PART, readManifest, SEAL_PART, type ArchivePart, type Manifest } from "#core/archive/manifest";
import { isObject } from "#core/objects";
import { Refused } from "#core/refused";
import { createHash } from "node:crypto";
import { statSync } from "node:fs";
import type { Readable } from "node:stream";
import { buffer } from "node:stream/consumers";
import { openPromise, type Entry } from "yauzl";
import { knownSteps } from "../migrating.ts";
import type { Watch } from "./write.ts";

export interface Archive {
  manifest: Manifest;
  /** The lines of a part, as they are. */
  lines: (part: string) => AsyncIterable<string>;
  /** A part that is a file. */
  file: (part: string) => Promise<Buffer>;
  close: () => void;
}

/** Text packs to a tenth or less; what unpacks to so many times its size is meant to fill a disk. */
const MOST_UNPACKED = 300;
/** A manifest of a hundred years. */
const MOST_MANIFEST = 64_000_000;
/** No row is as long, files apart. */
const LONGEST_LINE = 32_000_000;

const refused = (say: string): Refused => Refused.one("archive", say);
const changed = (part: string, how: string): Refused =>
  refused(`${part} isn't as it was written: ${how}. The file was changed or damaged; nothing was taken from it. Try another copy of it.`);

interface Zip {
  entries: Map<string, Entry>;
  open: (e: Entry) => Promise<Readable>;
  close: () => void;
}

/** The zip's entries by name. @throws Refused where it is no zip, or one that isn't wanted */
async function entriesOf(path: string): Promise<Zip> {
  let zip;
  const entries = new Map<string, Entry>();
  try {
    zip = await openPromise(path, { lazyEntries: true, autoClose: false });
    for await (const entry of zip.eachEntry()) {
      if (entries.has(entry.fileName)) throw new Error(`${entry.fileName} is in it twice`);
      if (!entry.canDecodeFileData()) throw new Error(`${entry.fileName} is locked, or packed in a way Zelbin doesn't`);
      entries.set(entry.fileName, entry);
    }
    const unpacked = [...entries.values()].reduce((n, e) => n + e.uncompressedSize, 0);
    if (unpacked > MOST_UNPACKED * statSync(path).size) throw new Error("it would unpack to far more than an archive does");
  } catch (e) {
    zip?.close();
    if (e instanceof Error && "code" in e && typeof e.code === "string") throw e;
    throw refused(
      `This isn't a whole zip file: ${e instanceof Error ? e.message : String(e)}. It is cut off or damaged, or no archive; nothing was taken from it.`,
    );
  }
  const opened = zip;
  return { entries, open: (entry) => opened.openReadStreamPromise(entry), close: () => opened.close() };
}

/** The lines of a part: parted by line feeds alone, since a text in JSON may hold whatever else counts as an end of line somewhere. */
async function* linesIn(chunks: AsyncIterable<Buffer>, part: string): AsyncGenerator<string> {
  const decoder = new TextDecoder("utf-8");
  let left = "";
  let n = 1;
  for await (const chunk of chunks) {
    const lines = (left + decoder.decode(chunk, { stream: true })).split("\n");
    left = lines.pop()!;
    if (left.length > LONGEST_LINE) throw changed(part, `line ${n + lines.length} is too long`);
    n += lines.length;
    yield* lines;
  }
  if (left !== "") yield left;
}

/** Reads a part to its end, telling its length and digest, and, where it has rows, that each line is one. */
async function readThrough(stream: Readable, part: ArchivePart, signal: AbortSignal | undefined): Promise<void> {
  const sum = createHash("sha256");
  let bytes = 0;
  async function* counted(): AsyncGenerator<Buffer> {
    for await (const chunk of stream as AsyncIterable<Buffer>) {
      signal?.throwIfAborted();
      sum.update(chunk);
      bytes += chunk.length;
      yield chunk;
    }
  }
  let row = 0;
  /** The first that is no row. */
  let bad = 0;
  if (part.rows === undefined) for await (const _ of counted());
  else
    for await (const line of linesIn(counted(), part.name)) {
      row++;
      if (bad === 0 && !isRow(line)) bad = row;
    }
  if (bad > 0) throw changed(part.name, `line ${bad} is no row`);
  if (part.rows !== undefined && row !== part.rows) throw changed(part.name, `it has ${row} lines, and had ${part.rows}`);
  if (bytes !== part.bytes) throw changed(part.name, `it has ${bytes} bytes, and had ${part.bytes}`);
  if (sum.digest("hex") !== part.sha256) throw changed(part.name, "its digest is another");
}

function isRow(line: string): boolean {
  try {
    return isObject(JSON.parse(line));
  } catch {
    return false;
  }
}

type Reading = <T>(name: string, work: (stream: Readable) => Promise<T>) => Promise<T>;

/** Reads parts of a zip, saying in words which can't be. */
const readingOf =
  ({ entries, open }: Zip, signal?: AbortSignal): Reading =>
  async (name, work) => {
    try {
      return await work(await open(entries.get(name)!));
    } catch (e) {
      if (e instanceof Refused || signal?.aborted) throw e;
      throw changed(name, `it can't be unpacked (${e instanceof Error ? e.message : String(e)})`);
    }
  };

async function manifestOf(entries: Zip["entries"], reading: Reading): Promise<Manifest> {
  const manifestEntry = entries.get(MANIFEST_PART);
  const seal = entries.get(SEAL_PART);
  if (!manifestEntry || !seal) throw refused("This zip file is no archive of Zelbin's: it has no manifest. Nothing was taken from it.");
  if (manifestEntry.uncompressedSize > MOST_MANIFEST || seal.uncompressedSize > 1000) throw changed(MANIFEST_PART, "it is too long");
  const text = await reading(MANIFEST_PART, buffer);
  const sealed = (await reading(SEAL_PART, buffer)).toString("latin1").trim();
  if (sealed !== `${createHash("sha256").update(text).digest("hex")}  ${MANIFEST_PART}`)
    throw changed(MANIFEST_PART, "its digest is another");
  const read = readManifest(text.toString("utf8"), knownSteps());
  if (!read.ok) throw refused(read.problem.say);
  return read.value;
}

/** What an archive says it is, without reading it through; null where that can't be told. */
export async function peekManifest(path: string): Promise<Manifest | null> {
  try {
    const zip = await entriesOf(path);
    try {
      return await manifestOf(zip.entries, readingOf(zip));
    } finally {
      zip.close();
    }
  } catch (e) {
    if (e instanceof Refused) return null;
    throw e;
  }
}

/**
 * Opens an archive and reads it through.
 * @throws Refused beside `archive`, saying which part and line, where it can't be trusted
 */
export async function openArchive(path: string, { signal, onProgress }: Watch = {}): Promise<Archive> {
  const zip = await entriesOf(path);
  const { entries, open, close } = zip;
  const reading = readingOf(zip, signal);
  try {
    const manifest = await manifestOf(entries, reading);
    const parts = new Set([...manifest.parts.map((p) => p.name), MANIFEST_PART, SEAL_PART]);
    const missing = [...parts].find((p) => !entries.has(p));
    if (missing !== undefined) throw changed(missing, "it isn't in the file");
    const foreign = [...entries.keys()].find((name) => !parts.has(name));
    if (foreign !== undefined) throw changed(foreign, "the manifest doesn't name it");
    if (parts.size !== manifest.parts.length + 2) throw changed(MANIFEST_PART, "it names a part twice");
    const of = manifest.parts.reduce((n, p) => n + p.bytes, 0);
    let done = 0;
    for (const part of manifest.parts) {
      await reading(part.name, (stream) => readThrough(stream, part, signal));
      onProgress?.({ done: (done += part.bytes), of });
    }
    return {
      manifest,
      lines: async function* (part) {
        yield* linesIn(await open(entries.get(part)!), part);
      },
      file: async (part) => buffer(await open(entries.get(part)!)),
      close,
    };
  } catch (e) {
    close();
    throw e;
  }
}
