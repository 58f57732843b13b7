/** Archives for tests: written to a file, read into a database of their own, and taken apart to be put together otherwise. */
import { MANIFEST_PART, SEAL_PART, type Manifest } from "#core/archive/manifest";
import { sql } from "drizzle-orm";
import { createHash, randomBytes } from "node:crypto";
import { createWriteStream, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { buffer } from "node:stream/consumers";
import { afterAll, beforeAll } from "vitest";
import { fromBufferPromise } from "yauzl";
import { ZipFile } from "yazl";
import { openDb, type OpenDb } from "#db/client";
import { loadArchive } from "#db/archive/load";
import { openArchive } from "#db/archive/unzip";
import { writeArchive } from "#db/archive/write";
import { addressOf, serverOfTests } from "./template.ts";

let scratch = "";
let n = 0;
/** A folder for the files of this file of tests. */
export function eachFileHasAFolder(): void {
  beforeAll(() => void (scratch = mkdtempSync(join(tmpdir(), "zelbin-archives-"))));
  afterAll(() => rmSync(scratch, { recursive: true }));
}
export const inFolder = (name: string): string => join(scratch, name);

/** Writes the archive of a workshop. @returns its path */
export async function archiveOf(db: OpenDb): Promise<string> {
  const path = inFolder(`${n++}.zip`);
  await writeArchive(db, createWriteStream(path));
  return path;
}

/** A file of these bytes. */
export function fileOf(bytes: Buffer): string {
  const path = inFolder(`${n++}.zip`);
  writeFileSync(path, bytes);
  return path;
}

/** Reads an archive into an empty database, gives that to `look`, and drops it. */
export async function loaded<T>(path: string, look: (db: OpenDb, url: string) => Promise<T>): Promise<T> {
  const archive = await openArchive(path);
  const server = serverOfTests();
  const name = `test_${randomBytes(6).toString("hex")}`;
  const admin = openDb(server);
  await admin.execute(sql.raw(`create database ${name}`));
  const url = addressOf(server, name);
  try {
    await loadArchive(url, archive, "own");
    const db = openDb(url);
    try {
      return await look(db, url);
    } finally {
      await db.close();
    }
  } finally {
    archive.close();
    await admin.execute(sql.raw(`drop database ${name} with (force)`));
    await admin.close();
  }
}

export type Parts = Map<string, Buffer>;

/** What an archive is put together of. */
export async function partsOf(path: string): Promise<Parts> {
  const zip = await fromBufferPromise(readFileSync(path), { lazyEntries: true });
  const parts: Parts = new Map();
  for await (const entry of zip.eachEntry()) parts.set(entry.fileName, await buffer(await zip.openReadStreamPromise(entry)));
  return parts;
}

/** A zip of parts. */
export async function zipOf(parts: Parts): Promise<string> {
  const zip = new ZipFile();
  for (const [name, bytes] of parts) zip.addBuffer(bytes, name);
  zip.end();
  return fileOf(await buffer(zip.outputStream));
}

export const sha256 = (bytes: Buffer | string): string => createHash("sha256").update(bytes).digest("hex");

/** An archive with another manifest, sealed as an archive is. */
export function resealed(parts: Parts, change: (manifest: Manifest) => unknown = (m) => m): Parts {
  const manifest = JSON.parse(parts.get(MANIFEST_PART)!.toString()) as Manifest;
  for (const part of manifest.parts) {
    const bytes = parts.get(part.name) ?? Buffer.alloc(0);
    part.bytes = bytes.length;
    part.sha256 = sha256(bytes);
    if (part.rows !== undefined) part.rows = bytes.toString().split("\n").length - 1;
  }
  const text = `${JSON.stringify(change(manifest) ?? manifest)}\n`;
  return new Map([...parts, [MANIFEST_PART, Buffer.from(text)], [SEAL_PART, Buffer.from(`${sha256(text)}  ${MANIFEST_PART}\n`)]]);
}
