/** Runs PostgreSQL's programs: the server's as the user it runs as, the clients' as the current user. */
import { spawnSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { postgresBin, serverUser } from "../system.ts";

interface Ran {
  ok: boolean;
  out: string;
}

/** The version that made a cluster, as it says itself; null where there is none yet. */
function madeBy(home: string): number | null {
  const file = join(home, "PG_VERSION");
  return existsSync(file) ? Number(readFileSync(file, "utf8")) : null;
}

/** One of the server's programs on a cluster. @param home the cluster's folder */
export function runServers(program: "initdb" | "pg_ctl", home: string, args: readonly string[]): Ran {
  const user = serverUser();
  const command = [join(postgresBin(madeBy(home)), program), "-D", home, ...args] as const;
  const [file, ...argv] = user ? ["runuser", "-u", "postgres", "--", ...command] : command;
  // pg_ctl's server keeps its output open, so nothing of it may be a pipe we would wait on.
  const out = program === "pg_ctl" ? "ignore" : "pipe";
  const done = spawnSync(file, argv, { cwd: "/", encoding: "utf8", stdio: ["ignore", out, out] });
  return { ok: done.status === 0, out: [done.stdout, done.stderr].join("") };
}

/** One of the client's programs, with the password where no list of processes shows it. */
export function runClients(program: "pg_dump" | "pg_restore", database: string, args: string[]): Ran {
  const at = new URL(database);
  const PGPASSWORD = decodeURIComponent(at.password);
  at.password = "";
  const done = spawnSync(join(postgresBin(), program), [`--dbname=${at.href}`, ...args], {
    encoding: "utf8",
    env: { ...process.env, PGPASSWORD },
  });
  return { ok: done.status === 0, out: [done.stdout, done.stderr].join("") };
}
