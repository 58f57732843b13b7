/**
 * The folder that backups are in. A file has its own name only once it is whole, on disk and checked; whatever else is in the folder is left alone.
 */
import type { Manifest } from "#core/archive/manifest";
import { createHash } from "node:crypto";
import { createReadStream, createWriteStream } from "node:fs";
import { access, constants, mkdir, open, readdir, rename, rm, stat, statfs } from "node:fs/promises";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import type { Db } from "../client.ts";
import { openArchive, peekManifest } from "../archive/unzip.ts";
import { checkArchive } from "../archive/putIn.ts";
import { writeArchive, type Watch } from "../archive/write.ts";

export interface Backup {
  /** Its file's name, which is what it is known by. */
  name: string;
  /** When it was made, by this machine's clock: `2026-12-01T07:12:30`. */
  made: string;
  bytes: number;
  /** What is in it; null where that can't be read. */
  manifest: Manifest | null;
}

const NAME = /^zelbin-backup-(\d{4}-\d{2}-\d{2})-(\d{2})(\d{2})(\d{2})\.zip$/;
/** What is being written, or was when it was cut off. */
const PART = /^zelbin-backup-.*\.part$/;

/** A file's name by the moment it is made. @example nameOf("2026-12-01T07:12:30") // "zelbin-backup-2026-12-01-071230.zip" */
export const nameOf = (moment: string): string => `zelbin-backup-${moment.slice(0, 10)}-${moment.slice(11).replaceAll(":", "")}.zip`;

/** The moment in a backup's name; null for any other file's. */
export function madeAt(name: string): string | null {
  const [, day, h, m, s] = NAME.exec(name) ?? [];
  return day === undefined ? null : `${day}T${h}:${m}:${s}`;
}

/** Why a folder can't be written to, in words; null where it can. @param byItself made where it is missing */
export async function whyNotWritable(folder: string, byItself: boolean): Promise<string | null> {
  try {
    if (byItself) await mkdir(folder, { recursive: true });
    if (!(await stat(folder)).isDirectory()) return "is a file, and no folder";
    await access(folder, constants.W_OK);
    return null;
  } catch (e) {
    const { code } = e as NodeJS.ErrnoException;
    if (code === "ENOENT") return "isn't there: see whether its disk or stick is plugged in";
    if (code === "EACCES" || code === "EROFS" || code === "EPERM") return "can't be written to";
    throw e;
  }
}

/** What some work comes to; something else where it fails for one of these reasons. @example unless(["ENOENT"], readFile(path), null) */
export async function unless<T, I>(codes: readonly string[], work: Promise<T>, instead: I): Promise<T | I> {
  try {
    return await work;
  } catch (e) {
    if (codes.includes(String((e as NodeJS.ErrnoException).code))) return instead;
    throw e;
  }
}

/** The moments and names of the backups in a folder, newest first; none where there is no such folder. */
export async function namesIn(folder: string): Promise<{ made: string; name: string }[]> {
  const names = await unless(["ENOENT", "ENOTDIR"], readdir(folder), []);
  return names
    .flatMap((name) => {
      const made = madeAt(name);
      return made === null ? [] : [{ made, name }];
    })
    .toSorted((a, b) => (a.made < b.made ? 1 : -1));
}

/** The backups in a folder, newest first, each with what it says of itself. */
export const listBackups = async (folder: string): Promise<Backup[]> =>
  Promise.all(
    (await namesIn(folder)).map(async ({ made, name }) => {
      const path = join(folder, name);
      return { name, made, bytes: (await stat(path)).size, manifest: await peekManifest(path) };
    }),
  );

async function digestOfFile(path: string): Promise<string> {
  const sum = createHash("sha256");
  await pipeline(createReadStream(path), sum);
  return sum.digest("hex");
}

async function onDisk(path: string): Promise<void> {
  const file = await open(path, "r");
  // A folder can't be flushed on every system; the file can.
  await unless(["EPERM", "EISDIR"], file.sync(), undefined);
  await file.close();
}

/** No backup takes as long. */
const LONGEST_MS = 6 * 3_600_000;

/** Removes what was being written when it was cut off; what another may be writing just now stays. */
async function removeLeft(folder: string): Promise<void> {
  for (const name of await readdir(folder)) {
    const path = join(folder, name);
    if (PART.test(name) && Date.now() - (await stat(path)).mtimeMs > LONGEST_MS) await rm(path, { force: true });
  }
}

/** The least that is left free beside a backup. */
const ROOM = 50_000_000;

interface Writing extends Watch {
  /** Told when the archive is written and its check begins. */
  onChecking: () => void;
}

/**
 * Writes a backup: beside its place, flushed to disk, checked by reading it back, and only then given its name.
 * @param url of the books' database, beside which it is checked
 * @returns its name; null where the newest there is holds the same books already
 * @throws Error or Refused where it can't be written or isn't good: nothing is left of it
 */
export async function writeBackup(
  db: Db,
  url: string,
  folder: string,
  moment: string,
  { onChecking, ...watch }: Writing,
): Promise<string | null> {
  const name = nameOf(moment);
  const part = join(folder, `${name}.part`);
  const [newest] = await namesIn(folder);
  const { bavail, bsize } = await statfs(folder);
  if (bavail * bsize < ROOM + (newest ? 2 * (await stat(join(folder, newest.name))).size : 0))
    throw Object.assign(new Error("the disk it is on is full"), { code: "ENOSPC" });
  await removeLeft(folder);
  try {
    await writeArchive(db, createWriteStream(part, { mode: 0o600 }), watch);
    await onDisk(part);
    const sha256 = await digestOfFile(part);
    if (newest && sha256 === (await digestOfFile(join(folder, newest.name)))) return null;
    onChecking();
    const archive = await openArchive(part, { signal: watch.signal });
    try {
      await checkArchive(url, archive, sha256, watch);
    } finally {
      archive.close();
    }
    await rename(part, join(folder, name));
    await onDisk(folder);
    return name;
  } finally {
    await rm(part, { force: true });
  }
}
