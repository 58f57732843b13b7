/**
 * What is wrong with the database itself, and not with what was asked of it: it is away, it is busy, or it has no room. Nothing was saved then, or, where
 * its last word was lost, the same sheet sent again finds its act done.
 */
import { statfsSync } from "node:fs";

export interface Outage {
  kind: "away" | "busy" | "full";
  /** Of an answer by HTTP. */
  status: number;
  say: string;
}

const AWAY: Outage = {
  kind: "away",
  status: 503,
  say: "The database is away for a moment. What you typed is still here: try again shortly.",
};
const BUSY: Outage = {
  kind: "busy",
  status: 503,
  say: "Zelbin is busy with something long, and this waited too long for its turn. What you typed is still here: try again shortly.",
};
const FULL: Outage = {
  kind: "full",
  status: 507,
  say: "The disk is full, so nothing was saved. Make room on it, then try again: what you typed is still here.",
};

/** PostgreSQL writes its log ahead in segments of 16 MB and can't go on without the next. */
const SEGMENT = 16 * 1024 * 1024;
const folders = new Set<string>();

/** Registers where a database of ours is on disk, so that one lost for want of room can be reported as such. */
export const registerDatabaseFolder = (folder: string): void => {
  folders.add(folder);
};

/** Whether the disk a folder is on has too little room for a database to go on. @example noRoomIn("/") // false */
export function noRoomIn(folder: string): boolean {
  try {
    const { bavail, bsize } = statfsSync(folder);
    return bavail * bsize < SEGMENT;
  } catch {
    return false;
  }
}

const away = (): Outage => ([...folders].some(noRoomIn) ? FULL : AWAY);

/** Shutting down, starting up, crashed; and the classes of lost connections (PostgreSQL 15, Appendix A). */
const AWAY_CODES = /^(57P0[1-5]|08\w{3}|ECONNREFUSED|ECONNRESET|EPIPE|ENOTFOUND|ETIMEDOUT)$/;
/** The driver's messages for a connection that is gone; it gives no codes. */
const AWAY_WORDS = /connection terminated|connection error and is not queryable|client was closed|cannot use a pool after calling end/i;
/** All connections are in use, ours or the server's. */
const BUSY_CODE = "53300";
const BUSY_WORDS = /timeout exceeded when trying to connect/i;

/** @returns null for any other error @example databaseOutage(Object.assign(new Error(), { code: "53100" }))?.kind // "full" */
export function databaseOutage(e: unknown): Outage | null {
  for (let at: unknown = e, deep = 0; at instanceof Error && deep < 5; at = at.cause, deep++) {
    const code = "code" in at && typeof at.code === "string" ? at.code : "";
    if (code === "53100" || code === "ENOSPC") return FULL;
    if (code === BUSY_CODE || BUSY_WORDS.test(at.message)) return BUSY;
    if (AWAY_CODES.test(code) || AWAY_WORDS.test(at.message)) return away();
    if (at instanceof AggregateError && at.errors.some((one) => databaseOutage(one) !== null)) return away();
  }
  return null;
}
