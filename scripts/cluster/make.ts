/**
 * The folder of a database cluster and the file with its password: made where there is nothing yet, and otherwise looked at and left alone.
 * What is damaged is named, with what can be done; nothing that holds a file is ever removed.
 */
import { spawnSync } from "node:child_process";
import { createHash, randomBytes } from "node:crypto";
import {
  chmodSync,
  chownSync,
  existsSync,
  lstatSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmdirSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { noRoomIn } from "#db/outage";
import { serverUser } from "../system.ts";
import { runServers } from "./program.ts";

/**
 * The folder a cluster lives in. When we are root and `postgres` can't reach the folder meant (one under /root), the cluster is under
 * /var/lib/zelbin and a link leads to it.
 */
function reachable(dir: string): string {
  mkdirSync(dirname(dir), { recursive: true });
  if (!serverUser()) return dir;
  const seen = spawnSync("runuser", ["-u", "postgres", "--", "test", "-x", dirname(dir)], { cwd: "/" });
  if (seen.status === 0) return dir;
  const elsewhere = join("/var/lib/zelbin", createHash("sha256").update(dir).digest("hex").slice(0, 12));
  mkdirSync("/var/lib/zelbin", { recursive: true });
  if (!lstatSync(dir, { throwIfNoEntry: false })) symlinkSync(elsewhere, dir);
  return elsewhere;
}

const passwordFile = (dir: string): string => `${dir}.password`;
/** The password of a cluster that is being made; a cut-off start leaves it, and it becomes the other once the cluster is there. */
const passwordToBe = (dir: string): string => `${passwordFile(dir)}.new`;

/** A full disk in words; null where something else is wrong. One that is full may have no room to say so in its log. */
export const noRoom = (home: string, log: string): string | null =>
  /no space left on device/i.test(log) || noRoomIn(existsSync(home) ? home : dirname(home))
    ? "The disk is full, so the database can't start. Nothing of what was kept is lost: make room on the disk, and start Zelbin again if it doesn't go on by itself."
    : null;

/** Written beside what is being made, so that the next start knows it for what was cut off, and nothing else is cleared away. */
const MAKING = "being-made-by-zelbin";

/** Names sort by their bytes everywhere; which letters are capitals of which is the system's. Only Linux has one locale for both. */
const LOCALE = process.platform === "linux" ? ["--locale=C.UTF-8"] : ["--lc-collate=C"];

/** Makes a cluster beside its place and moves it there once it is whole: one that was cut off is never taken for one. */
function initialise(home: string, password: string): void {
  const making = `${home}.making.`;
  for (const left of readdirSync(dirname(home)).map((name) => join(dirname(home), name)))
    if (left.startsWith(making) && existsSync(join(left, MAKING))) rmSync(left, { recursive: true, force: true });
  const around = mkdtempSync(making);
  writeFileSync(join(around, MAKING), "");
  const dir = join(around, "cluster");
  mkdirSync(dir, { mode: 0o700 });
  const scratch = mkdtempSync(join(tmpdir(), "zelbin-"));
  const pwfile = join(scratch, "pw");
  writeFileSync(pwfile, password, { mode: 0o600 });
  const user = serverUser();
  if (user) for (const p of [around, dir, scratch, pwfile]) chownSync(p, user.uid, user.gid);
  const how = ["-U", "zelbin", "--auth=scram-sha-256", `--pwfile=${pwfile}`, "--encoding=UTF8", ...LOCALE];
  const done = runServers("initdb", dir, how);
  rmSync(scratch, { recursive: true });
  if (!done.ok) throw new Error(noRoom(home, done.out) ?? `The database could not be made in ${home}:\n${done.out}`);
  try {
    // Goes over an empty folder, never over one with something in it; on Windows over none at all.
    if (process.platform === "win32" && existsSync(home)) rmdirSync(home);
    renameSync(dir, home);
  } catch (e) {
    // Another start was quicker.
    if (!["ENOTEMPTY", "EEXIST"].includes((e as NodeJS.ErrnoException).code ?? "")) throw e;
  }
  rmSync(around, { recursive: true });
}

const looksWhole = (home: string): boolean => existsSync(join(home, "global", "pg_control"));

/** What is wrong with a cluster's folder or its password, and what can be done about it; null where both are there. */
function damage(dir: string, home: string): string | null {
  const secret = passwordFile(dir);
  if (!existsSync(home))
    return `The database that stood in ${home} is gone, though its password is still in ${secret}. Put the folder back from a copy and start again. To begin an empty database instead, move ${secret} away.`;
  if (!existsSync(join(home, "PG_VERSION")))
    return looksWhole(home)
      ? `The folder ${home} holds a database, but its file PG_VERSION is missing, so it can't be opened. That file holds one line, the version of PostgreSQL that made it (15, for example): write it again, or put it back from a copy, and start again. Nothing in the folder was changed.`
      : `The folder ${home} isn't empty and holds no whole database. Put its files back from a copy, or move the folder away to begin an empty database. Nothing in it was changed.`;
  if (!existsSync(secret))
    return `The password of the database in ${home} is missing: it stood in ${secret}. The database itself is whole and was left alone. Put the file back from a copy. Without one, a new password can be set while Zelbin is closed, as the user who owns the folder:\n\n  echo "alter role zelbin password 'a-long-new-one'" | postgres --single -D ${home} postgres\n\nThen write the same password, without a line end, into ${secret} and start again.`;
  return null;
}

const isEmpty = (home: string): boolean => !existsSync(home) || (lstatSync(home).isDirectory() && readdirSync(home).length === 0);

/**
 * Finds a cluster, or makes it where there is none yet.
 * @param dir its folder; a `.password` file is beside it
 * @throws Error, in words, where the folder or the password is damaged or lost
 */
export function clusterIn(dir: string): { home: string; password: string } {
  const home = reachable(dir);
  const secret = passwordFile(dir);
  const toBe = passwordToBe(dir);
  if (isEmpty(home) && !existsSync(secret)) {
    if (!existsSync(toBe)) writeFileSync(toBe, randomBytes(18).toString("base64url"), { mode: 0o600 });
    initialise(home, readFileSync(toBe, "utf8"));
  }
  // Made, and cut off before it was said to be.
  if (existsSync(toBe) && !existsSync(secret) && existsSync(join(home, "PG_VERSION"))) renameSync(toBe, secret);
  const wrong = damage(dir, home);
  if (wrong) throw new Error(wrong);
  chmodSync(secret, 0o600);
  return { home, password: readFileSync(secret, "utf8").trim() };
}

/** Whether a folder has a cluster, or once had one: it is never made twice. */
export const isBegun = (dir: string): boolean => existsSync(passwordFile(dir)) || !isEmpty(dir);

/** Takes a throw-away cluster away. */
export function removeCluster(dir: string, home: string): void {
  for (const p of [home, dir, passwordFile(dir)]) rmSync(p, { recursive: true, force: true });
}
