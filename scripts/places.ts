/** Where databases are stored: the demo, tests and benchmarks with the project, one's own workshop in the user's data folder. */
import envPaths from "env-paths";
import { randomInt } from "node:crypto";
import { createServer } from "node:net";
import { join, resolve } from "node:path";

/** The demo's, and everything that can be thrown away. `ZELBIN_DEMO` names another folder. */
export const DATA = resolve(process.env.ZELBIN_DEMO ?? ".data");
export const DEMO = join(DATA, "cluster");

/**
 * The folder of one's own books, the same from every clone: `$XDG_DATA_HOME/zelbin` or `~/.local/share/zelbin` on Linux, the usual places
 * elsewhere. `ZELBIN_BOOKS` names another.
 * @example booksFolder({ ZELBIN_BOOKS: "/media/stick/zelbin" }) // "/media/stick/zelbin"
 */
export const booksFolder = (env: Partial<Record<"ZELBIN_BOOKS", string>> = process.env): string =>
  resolve(env.ZELBIN_BOOKS ?? envPaths("zelbin", { suffix: "" }).data);

/** The database cluster in the folder of one's own books. */
export const booksCluster = (): string => join(booksFolder(), "cluster");

/**
 * Where it is remembered where one's own backups go, and where they go by default: beside the books, or, where these are on a server of the
 * user's own, in a folder for that server and database.
 * @param url of the demo's database on such a server
 */
export function backupsHome(url?: string): string {
  if (url === undefined) return booksFolder();
  const { host, pathname } = new URL(url);
  return join(booksFolder(), "servers", `${host}${pathname}`.replaceAll(/[^\w.-]+/g, "_"));
}

/** Below those that systems give to whoever asks for any: what is free now is still so when a program that starts slowly listens there. */
const [LOWEST, HIGHEST] = [20_000, 32_000];

/** A TCP port that is free on loopback right now: the wanted one, or another. */
export const freePort = (wanted = randomInt(LOWEST, HIGHEST), tries = 20): Promise<number> =>
  new Promise((done, fail) => {
    const probe = createServer();
    probe.once("error", (e) => {
      if (tries > 0) freePort(undefined, tries - 1).then(done, fail);
      else fail(e);
    });
    probe.listen(wanted, "127.0.0.1", () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });
