/**
 * What is remembered of the backups between starts: a file beside the books, and no part of them, since a folder is this machine's.
 */
import { isObject } from "#core/objects";
import { mkdir, readFile, rename, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { unless } from "./folder.ts";

export interface Remembered {
  /** Where backups go; null for the usual folder. */
  folder: string | null;
  /** When it was last seen that the newest is as the books are, or one was made, such as `2026-12-01T07:12:30`. */
  lookedAt: string | null;
  /** Why the last one failed. */
  trouble: string | null;
}

const fileIn = (home: string): string => join(home, "backups.json");

/** What is remembered; where that can't be read, nothing but why: books can be opened without it. */
export async function readRemembered(home: string): Promise<Remembered> {
  let read: unknown;
  try {
    read = JSON.parse(await unless(["ENOENT"], readFile(fileIn(home), "utf8"), "{}"));
  } catch (e) {
    return {
      folder: null,
      lookedAt: null,
      trouble: `Which folder they go to can't be read: ${e instanceof Error ? e.message : String(e)}.`,
    };
  }
  const textIn = (key: keyof Remembered): string | null => (isObject(read) && typeof read[key] === "string" ? read[key] : null);
  return { folder: textIn("folder"), lookedAt: textIn("lookedAt"), trouble: textIn("trouble") };
}

/** Written beside its place and renamed. */
export async function writeRemembered(home: string, what: Remembered): Promise<void> {
  await mkdir(home, { recursive: true });
  const part = `${fileIn(home)}.${process.pid}.part`;
  await writeFile(part, JSON.stringify(what));
  await rename(part, fileIn(home));
}
