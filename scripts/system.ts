/** What has to be on the machine beside npm packages: finding it, and installing it where that is allowed. */
import { execFileSync, spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import { delimiter, join } from "node:path";
import { findPostgres, INSTALL, OLDEST } from "./cluster/findPostgres.ts";

export const isRoot = (): boolean => process.getuid?.() === 0;

/** Looks a program up on the PATH. */
export const which = (name: string): string | null =>
  (process.env.PATH ?? "")
    .split(delimiter)
    .map((d) => join(d, name))
    .find((p) => existsSync(p)) ?? null;

/** Installs a Debian package, or says the one command that would and ends. */
export function aptInstall(pkg: string, what: string): void {
  if (!isRoot() || !which("apt-get")) {
    console.error(
      `\n${what} is missing. Run this once, then try again:\n\n  sudo apt-get update && sudo apt-get install -y --no-install-recommends ${pkg}\n`,
    );
    process.exit(1);
  }
  console.log(`Installing ${what} (Debian package ${pkg}) …`);
  const env = { ...process.env, DEBIAN_FRONTEND: "noninteractive" };
  spawnSync("apt-get", ["update", "-qq"], { stdio: ["ignore", "ignore", "inherit"], env });
  const done = spawnSync("apt-get", ["install", "-y", "-qq", "--no-install-recommends", pkg], {
    stdio: ["ignore", "ignore", "inherit"],
    env,
  });
  if (done.status !== 0) {
    console.error(`${what} could not be installed; the lines above say why.`);
    process.exit(1);
  }
}

const found = new Map<number | null, string>();

/**
 * The folder with initdb and pg_ctl; looked for once.
 * @param madeBy the version that made the cluster at hand; any where there is none yet
 * @throws Error with the one command that installs them
 */
export function postgresBin(madeBy: number | null = null): string {
  let folder = found.get(madeBy) ?? findPostgres(madeBy);
  if (!folder && madeBy !== null)
    throw new Error(
      `The database was made by PostgreSQL ${madeBy}, which isn't on this machine any more. Install that version again and start again; nothing was changed.`,
    );
  if (!folder && process.platform === "linux") {
    aptInstall("postgresql", "The PostgreSQL database server");
    folder = findPostgres();
  }
  if (!folder) {
    const command = INSTALL[process.platform];
    throw new Error(
      `PostgreSQL ${OLDEST} or newer isn't on this machine. ${command === undefined ? "Install it" : `Run this once:\n\n  ${command}\n\n`}and start again.`,
    );
  }
  found.set(madeBy, folder);
  return folder;
}

/** Debian's Chromium, for the tests through the interface and the pictures. */
export function chromium(): string {
  if (!which("chromium")) aptInstall("chromium", "The Chromium browser");
  return which("chromium")!;
}

/** The user a database server runs as: the current one, or `postgres` when we are root, which PostgreSQL refuses. */
export function serverUser(): { uid: number; gid: number } | null {
  if (!isRoot()) return null;
  const id = (flag: string): number => Number(execFileSync("id", [flag, "postgres"], { encoding: "utf8" }));
  return { uid: id("-u"), gid: id("-g") };
}
