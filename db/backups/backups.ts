/**
 * The backups of one's own books: made by themselves whenever something changed, or by a press, into a folder of the maker's choice; and the way back
 * from one of them, or from an archive that comes from elsewhere. One such work at a time, with how far it is, and it can be stopped.
 */
import { backupIsDue } from "#core/backups/lastBackup";
import { toDrop } from "#core/backups/retention";
import { Refused } from "#core/refused";
import { sql } from "drizzle-orm";
import { createWriteStream } from "node:fs";
import { mkdir, rm } from "node:fs/promises";
import { isAbsolute, join, resolve } from "node:path";
import type { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { Manifest } from "#core/archive/manifest";
import type { Reads } from "../client.ts";
import { withDb } from "../databases.ts";
import { now } from "../clock.ts";
import { readNumber, rowsOf } from "../columnsOf.ts";
import { OURS } from "../schema/ours.ts";
import { noRoomIn } from "../outage.ts";
import type { Workshops } from "../workshops/workshops.ts";
import { readRemembered, writeRemembered, type Remembered } from "./remembered.ts";
import { listBackups, madeAt, namesIn, unless, whyNotWritable, writeBackup, type Backup } from "./folder.ts";
import { openArchive, peekManifest, type Archive } from "../archive/unzip.ts";
import type { Progress, Watch } from "../archive/write.ts";

export type Phase = "writing" | "checking" | "reading" | "loading";
export interface Work extends Progress {
  what: "backup" | "restore" | "look";
  phase: Phase;
}

/** How an archive's file is taken in. */
export interface TakeIn {
  /** Of the file in bytes; 0 where nobody has said. */
  size?: number;
  /** Stops it. */
  signal?: AbortSignal;
  /** Called with the share of it that is done: half when it has come, all when it was read through. What it throws stops it. */
  onShare?: (share: number) => void;
}

const half = (done: number, of: number): number => (of > 0 ? Math.min(done / of, 1) / 2 : 0);

/** Lets a file through, and says how much of it has come. */
const counting = (size: number, onShare: (share: number) => void) =>
  async function* (chunks: AsyncIterable<Buffer>) {
    let come = 0;
    for await (const chunk of chunks) {
      onShare(half((come += chunk.length), size));
      yield chunk;
    }
  };

/** What the last work came to, since Zelbin was started. */
export type Ended =
  | { what: "backup"; ok: true; name: string | null }
  | { what: "restore"; ok: true; kept: string | null }
  | { what: "look"; ok: true }
  | { what: Work["what"]; ok: false; say: string };

export interface BackupState {
  folder: string;
  /** The default, on the same disk as the books. */
  byDefault: boolean;
  /** What is being done; null between. */
  work: Work | null;
  ended: Ended | null;
  /** When the newest was made, such as `2026-12-01T07:12:30`; null where there is none. */
  made: string | null;
  /** Why the last one failed, or the next would, in words; null where all is well. */
  trouble: string | null;
  /** When it was last seen that the newest backup is as the books are, or one was made; null where never. */
  lookedAt: string | null;
}

export interface Backups {
  state: () => Promise<BackupState>;
  /** Newest first. */
  list: () => Promise<Backup[]>;
  /** The path of a backup by its name. @throws Refused where it isn't there */
  pathOf: (name: string) => Promise<string>;
  /** Where they go from now on; those made before stay where they are. @throws Refused beside `folder` */
  choose: (folder: string) => Promise<void>;
  /** Begins one, unless something is being done. */
  begin: () => void;
  /** Takes in an archive from elsewhere, to be looked at before it is opened. @throws Refused beside `archive` */
  takeIn: (bytes: Readable, how?: TakeIn) => Promise<{ id: string; manifest: Manifest }>;
  /** What is taken in under an id, or null. */
  takenIn: (id: string) => Promise<Manifest | null>;
  /** Begins to put a backup, or what was taken in, in the place of one's own books. @throws Refused where something is being done */
  restore: (from: { name: string } | { id: string }) => Promise<void>;
  /** Begins to open a backup, or what was taken in, to be looked at. @throws Refused where something is being done */
  look: (from: { name: string } | { id: string }) => Promise<void>;
  /** Puts books back that another took the place of. @throws Refused where something is being done, or they aren't there */
  goBack: (name: string) => Promise<string | null>;
  /** Waits until nothing is being done. */
  settled: () => Promise<void>;
  stop: () => void;
  /** No more by itself, and what is being done is stopped. */
  close: () => Promise<void>;
}

/** How often it is asked whether it is time. */
const LOOK_MS = 60_000;
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** A moment as part of a database's name, such as `2026_12_01_07_12_30`. */
const word = (moment: string): string => moment.replaceAll(/[-T:]/g, "_");

/** How many rows were ever written in a database, by the server's own count: the same while nothing is. */
async function writesSoFar(db: Reads): Promise<number> {
  const [row] = await rowsOf(
    db,
    { n: readNumber },
    sql`select coalesce(sum(n_tup_ins + n_tup_upd + n_tup_del), 0) as n from pg_stat_user_tables where schemaname = ${OURS}`,
  );
  return row!.n;
}

/** Beside what is remembered of them. */
const usualFolder = (home: string): string => join(home, "backups");
const sayOf = (folder: string, why: string): string => `The folder for backups, ${folder}, ${why}.`;

/** Why it didn't go, in words. */
function whyFailed(e: unknown, folder: string): string {
  if (e instanceof Refused) return e.message;
  const code = e instanceof Error && "code" in e ? e.code : null;
  if (code === "ENOSPC" || noRoomIn(folder)) return `The disk that ${folder} is on is full.`;
  return e instanceof Error ? e.message : String(e);
}

interface Where {
  /** What is remembered of them, and what is taken in. */
  home: string;
  workshops: Pick<Workshops, "of" | "address" | "putInPlace" | "look" | "goBack">;
  /** Whether backups are made without a press: by the one Zelbin that has the books open. */
  byThemselves: boolean;
}

/**
 * Makes a backup of books before they are brought up to date, as they are. What goes wrong is only told: they are copied beside themselves as well.
 * @param home where it is remembered where backups go
 */
export async function backUpBefore(home: string, url: string): Promise<void> {
  const { folder: chosen } = await readRemembered(home);
  const folder = chosen ?? usualFolder(home);
  try {
    const why = await whyNotWritable(folder, chosen === null);
    if (why !== null) throw Refused.one("", sayOf(folder, why));
    await withDb(url, {}, (db) => writeBackup(db, url, folder, now(), { onChecking: () => undefined }));
  } catch (e) {
    console.error(`No backup was made before your books are brought up to date: ${whyFailed(e, folder)}`);
  }
}

export async function openBackups({ home, workshops, byThemselves }: Where): Promise<Backups> {
  const incoming = join(home, "incoming");
  const usual = usualFolder(home);
  let saved = await readRemembered(home);
  const folder = (): string => saved.folder ?? usual;
  const remember = async (change: Partial<Remembered>): Promise<void> => {
    saved = { ...saved, ...change };
    await writeRemembered(home, saved);
  };
  // What was taken in and never opened.
  if (byThemselves) await rm(incoming, { recursive: true, force: true });

  let work: Work | null = null;
  let ended: Ended | null = null;
  let running: Promise<void> = Promise.resolve();
  let stopping = new AbortController();
  const takenPath = (id: string): string => join(incoming, `${id}.zip`);

  /** Begins a work, which ends in whatever it came to. */
  const run = (what: Work["what"], phase: Phase, doing: (watch: Watch, next: (p: Phase) => void) => Promise<Ended>): void => {
    work = { what, phase, done: 0, of: 0 };
    ended = null;
    stopping = new AbortController();
    const { signal } = stopping;
    const watch = { signal, onProgress: ({ done, of }: Progress) => void (work &&= { ...work, done, of }) };
    running = doing(watch, (next) => void (work = { what, phase: next, done: 0, of: 0 }))
      .catch(async (e: unknown): Promise<Ended> => {
        if (signal.aborted) return { what, ok: false, say: "Stopped. Nothing was changed." };
        const say = whyFailed(e, folder());
        if (what === "backup") await remember({ trouble: say }).catch(() => undefined);
        return { what, ok: false, say };
      })
      .then((end) => {
        work = null;
        ended = end;
      });
  };

  /** Why nothing can be written where backups go. */
  const noFolder = async (): Promise<string | null> => {
    const why = await whyNotWritable(folder(), saved.folder === null);
    return why && sayOf(folder(), why);
  };

  const backUp = (): void =>
    run("backup", "writing", async (watch, next) => {
      const [db, url] = [await workshops.of("own"), await workshops.address()];
      if (!db || url === null) throw Refused.one("", "There is no workshop of your own to back up yet.");
      const why = await noFolder();
      if (why !== null) throw Refused.one("", why);
      const moment = now();
      const name = await writeBackup(db, url, folder(), moment, { ...watch, onChecking: () => next("checking") });
      const all = await namesIn(folder());
      const old = toDrop(all.map((b) => b.made));
      for (const b of all) if (old.includes(b.made)) await rm(join(folder(), b.name), { force: true });
      await remember({ lookedAt: moment, trouble: null });
      return { what: "backup", ok: true, name };
    });

  const pathOf = async (name: string): Promise<string> => {
    if (madeAt(name) === null || !(await namesIn(folder())).some((b) => b.name === name))
      throw Refused.one("", `There is no backup called ${name} in ${folder()} any more.`);
    return join(folder(), name);
  };

  const takenIn = (id: string): Promise<Manifest | null> =>
    UUID.test(id) ? unless(["ENOENT"], peekManifest(takenPath(id)), null) : Promise.resolve(null);

  /** The file of a backup, or of what was taken in. @throws Refused where it isn't there */
  const fileOf = async (from: { name: string } | { id: string }): Promise<string> => {
    if (!("id" in from)) return pathOf(from.name);
    if (!(await takenIn(from.id))) throw Refused.one("archive", "Choose the archive again: it isn't here any more.");
    return takenPath(from.id);
  };

  /** Begins to read a file through, and then to do something with its archive. */
  const load = (what: "restore" | "look", path: string, use: (archive: Archive, watch: Watch) => Promise<Ended>): void =>
    run(what, "reading", async (watch, next) => {
      const archive = await openArchive(path, watch);
      try {
        next("loading");
        return await use(archive, watch);
      } finally {
        archive.close();
      }
    });

  const requireNoWork = (): void => {
    if (work !== null) throw Refused.one("", "Zelbin is just making a backup, or reading one. Wait until that is done, or stop it.");
  };

  /** How much had been written when it was last backed up by itself; null where that isn't known. */
  let backedUp: number | null = null;
  /** Other books are in their place: the newest backup says nothing of them. */
  const otherBooks = async (): Promise<void> => {
    backedUp = null;
    await remember({ lookedAt: null });
  };
  const isDue = (): boolean => work === null && backupIsDue(saved.lookedAt, now());
  const look = async (): Promise<void> => {
    const own = isDue() ? await workshops.of("own") : null;
    if (!own) return;
    const writes = await writesSoFar(own);
    const same = writes === backedUp && (await namesIn(folder())).length > 0;
    // Somebody pressed meanwhile.
    if (!isDue()) return;
    if (same) await remember({ lookedAt: now() });
    else {
      backUp();
      await running;
      backedUp = ended?.ok ? writes : null;
    }
  };
  const clock = byThemselves ? setInterval(() => void look().catch(console.error), LOOK_MS) : null;
  clock?.unref();
  if (byThemselves) void look().catch(console.error);

  return {
    state: async () => ({
      folder: folder(),
      byDefault: saved.folder === null,
      work,
      ended,
      made: (await namesIn(folder()))[0]?.made ?? null,
      trouble: (await noFolder()) ?? saved.trouble,
      lookedAt: saved.lookedAt,
    }),
    list: () => listBackups(folder()),
    pathOf,
    choose: async (typed) => {
      const wanted = typed.trim();
      if (wanted !== "" && !isAbsolute(wanted))
        throw Refused.one("folder", `Write the whole way to the folder, such as ${resolve("/media/stick/zelbin")}.`);
      const next = wanted === "" ? null : resolve(wanted);
      const why = await whyNotWritable(next ?? usual, next === null);
      if (why !== null) throw Refused.one("folder", `That folder ${why}.`);
      // What was there last says nothing of what is there now.
      await remember({ folder: next, lookedAt: null, trouble: null });
    },
    begin: () => {
      if (work === null) backUp();
    },
    takeIn: async (bytes, { size = 0, signal, onShare = () => undefined } = {}) => {
      requireNoWork();
      const id = crypto.randomUUID();
      await rm(incoming, { recursive: true, force: true });
      await mkdir(incoming, { recursive: true });
      try {
        await pipeline(bytes, counting(size, onShare), createWriteStream(takenPath(id), { mode: 0o600 }), { signal });
        const archive = await openArchive(takenPath(id), { signal, onProgress: ({ done, of }) => onShare(half(done, of) + 0.5) });
        archive.close();
        return { id, manifest: archive.manifest };
      } catch (e) {
        await rm(takenPath(id), { force: true });
        throw e;
      }
    },
    takenIn,
    restore: async (from) => {
      requireNoWork();
      const path = await fileOf(from);
      load("restore", path, async (archive, watch) => {
        const kept = await workshops.putInPlace(archive, word(now()), watch);
        if ("id" in from) await rm(path, { force: true });
        await otherBooks();
        return { what: "restore", ok: true, kept };
      });
    },
    look: async (from) => {
      requireNoWork();
      load("look", await fileOf(from), async (archive, watch) => {
        await workshops.look(archive, watch);
        return { what: "look", ok: true };
      });
    },
    goBack: async (name) => {
      requireNoWork();
      const kept = await workshops.goBack(name, word(now()));
      await otherBooks();
      return kept;
    },
    settled: () => running,
    stop: () => stopping.abort(),
    close: async () => {
      if (clock) clearInterval(clock);
      stopping.abort();
      await running;
    },
  };
}
