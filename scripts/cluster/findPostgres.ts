/**
 * Finds PostgreSQL's server programs on this machine: on the path, and where each system's usual installers put them. Where there are none, it says the
 * one command of that system that installs them.
 */
import { spawnSync } from "node:child_process";
import { existsSync, realpathSync } from "node:fs";
import { delimiter, dirname, join } from "node:path";
import { globSync } from "tinyglobby";

/** The oldest whose programs and statements are known to do. */
export const OLDEST = 14;

/** A machine as it is looked through; tests lay one out. */
export interface Machine {
  platform: NodeJS.Platform;
  env: Partial<Record<string, string>>;
  /** The folder that its own folders are under: `/`, or a test's. */
  root: string;
}

const here = (): Machine => ({ platform: process.platform, env: process.env, root: "/" });

/** Folders with the programs in them, by the system: from memory, as these installers lay them out. */
const USUAL: Partial<Record<NodeJS.Platform, readonly string[]>> = {
  linux: [
    "usr/lib/postgresql/*/bin",
    "usr/pgsql-*/bin",
    "usr/lib/postgresql*/bin",
    "usr/libexec/postgresql*",
    "opt/postgresql*/bin",
    "usr/local/pgsql/bin",
    "usr/bin",
  ],
  darwin: [
    "opt/homebrew/opt/postgresql*/bin",
    "usr/local/opt/postgresql*/bin",
    "Applications/Postgres.app/Contents/Versions/*/bin",
    "Library/PostgreSQL/*/bin",
    "opt/local/lib/postgresql*/bin",
  ],
  win32: ["PostgreSQL/*/bin"],
};

/** What installs them, by the system. */
export const INSTALL: Partial<Record<NodeJS.Platform, string>> = {
  linux: "sudo apt-get update && sudo apt-get install -y --no-install-recommends postgresql",
  darwin: "brew install postgresql@16",
  win32: "winget install PostgreSQL.PostgreSQL.16",
};

/** What is run of them. */
const PROGRAMS = ["initdb", "pg_ctl", "postgres", "pg_dump", "pg_restore"];
const programIn = (folder: string, platform: NodeJS.Platform, name = "initdb"): string =>
  join(folder, platform === "win32" ? `${name}.exe` : name);

/** The version that the programs in a folder say they are; null where they don't run. @example versionSaid("initdb (PostgreSQL) 15.8 (Debian 15.8-0)") // 15 */
export const versionSaid = (text: string): number | null => {
  const found = /\(PostgreSQL\) (\d+)/.exec(text)?.[1];
  return found === undefined ? null : Number(found);
};

function versionIn(folder: string, platform: NodeJS.Platform): number | null {
  const { stdout, error } = spawnSync(programIn(folder, platform), ["--version"], { encoding: "utf8" });
  return error ? null : versionSaid(stdout);
}

/** Where a system's own folders are that hold other people's programs. */
function under({ platform, env, root }: Machine): string[] {
  if (platform !== "win32") return [root];
  return [env.ProgramFiles, env["ProgramFiles(x86)"]].filter((f) => f !== undefined);
}

/** The folder that a program is really in: what is on the path is often a link to one of them, without the others beside it. */
const realFolder = (file: string): string => dirname(realpathSync(file));

/** Every folder that has all the programs, those on the path first. */
function folders(machine: Machine): string[] {
  const { platform, env } = machine;
  const onPath = (env.PATH ?? env.Path ?? "")
    .split(delimiter)
    .map((f) => programIn(f, platform))
    .filter((file) => existsSync(file));
  const usual = under(machine).flatMap((cwd) =>
    (USUAL[platform] ?? []).flatMap((pattern) =>
      globSync(pattern + (platform === "win32" ? "/initdb.exe" : "/initdb"), { cwd, absolute: true, onlyFiles: false }),
    ),
  );
  const found = new Set([...onPath, ...usual].map(realFolder));
  return [...found].filter((folder) => PROGRAMS.every((name) => existsSync(programIn(folder, platform, name))));
}

/**
 * The folder of the server's programs: the newest there is, and of two alike the one on the path.
 * @param madeBy only those of this version: a cluster is opened by the version that made it
 * @param versionOf tells a folder's version; a test's own
 * @returns null where there are none, or none as new as `OLDEST`
 */
export function findPostgres(
  madeBy: number | null = null,
  machine: Machine = here(),
  versionOf = (folder: string): number | null => versionIn(folder, machine.platform),
): string | null {
  let best: { folder: string; version: number } | null = null;
  for (const folder of folders(machine)) {
    const version = versionOf(folder);
    if (version === null || version < OLDEST || (madeBy !== null && version !== madeBy)) continue;
    if (best === null || version > best.version) best = { folder, version };
  }
  return best?.folder ?? null;
}
