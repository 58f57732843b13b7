/** Machines laid out as each system's installers leave them: programs that say which version they are. */
import { chmodSync, mkdirSync, mkdtempSync, realpathSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { delimiter, dirname, join } from "node:path";
import { afterEach, beforeEach, expect, it } from "vitest";
import { findPostgres, INSTALL, versionSaid } from "./findPostgres.ts";

let root: string;
beforeEach(() => void (root = mkdtempSync(join(tmpdir(), "zelbin-machine-"))));
afterEach(() => rmSync(root, { recursive: true }));

/** Lays a program out that says its version. @returns its folder */
function put(at: string, version: string): string {
  const file = join(root, at);
  mkdirSync(dirname(file), { recursive: true });
  writeFileSync(file, `#!/bin/sh\necho "initdb (PostgreSQL) ${version}"\n`);
  chmodSync(file, 0o755);
  for (const other of ["pg_ctl", "postgres", "pg_dump", "pg_restore"]) writeFileSync(file.replace("initdb", other), "");
  return realpathSync(dirname(file));
}

it.each([
  ["linux", "usr/lib/postgresql/15/bin/initdb", "15.8 (Debian 15.8-0+deb12u1)"],
  ["linux", "usr/pgsql-16/bin/initdb", "16.4"],
  ["linux", "usr/bin/initdb", "17.0"],
  ["darwin", "opt/homebrew/opt/postgresql@16/bin/initdb", "16.4 (Homebrew)"],
  ["darwin", "usr/local/opt/postgresql@14/bin/initdb", "14.13 (Homebrew)"],
  ["darwin", "Applications/Postgres.app/Contents/Versions/17/bin/initdb", "17.2"],
  ["darwin", "Library/PostgreSQL/16/bin/initdb", "16.4"],
  ["win32", "Program Files/PostgreSQL/16/bin/initdb.exe", "16.4"],
] as const)("on %s it is found in %s", (platform, at, version) => {
  const folder = put(at, version);
  const machine = { platform, root, env: { ProgramFiles: join(root, "Program Files") } };
  expect(findPostgres(null, machine)).toBe(folder);
  // The same folders of another system aren't looked in.
  expect(findPostgres(null, { ...machine, platform: "freebsd" })).toBeNull();
});

it("takes the newest, of two alike the one on the path, and none that is too old or doesn't run", () => {
  const old = put("usr/lib/postgresql/13/bin/initdb", "13.16");
  const machine = { platform: "linux" as const, root, env: { PATH: ["/nowhere", old].join(delimiter) } };
  expect(findPostgres(null, machine)).toBeNull();
  const fifteen = put("usr/lib/postgresql/15/bin/initdb", "15.8");
  expect(findPostgres(null, machine)).toBe(fifteen);
  const mine = put("home/me/pg/bin/initdb", "15.8");
  expect(findPostgres(null, { ...machine, env: { PATH: [mine, old].join(delimiter) } })).toBe(mine);
  const newest = put("usr/lib/postgresql/17/bin/initdb", "17.0");
  expect(findPostgres(null, { ...machine, env: { PATH: mine } })).toBe(newest);
  // Books that 15 made are opened by 15.
  expect(findPostgres(15, { ...machine, env: { PATH: mine } })).toBe(mine);
  expect(findPostgres(16, machine)).toBeNull();
  chmodSync(join(newest, "initdb"), 0o644);
  expect(findPostgres(null, { ...machine, env: { PATH: mine } })).toBe(mine);
});

it("follows a link to where all of them are, and takes none where one is missing", () => {
  const fifteen = put("usr/lib/postgresql/15/bin/initdb", "15.8");
  mkdirSync(join(root, "links"));
  symlinkSync(join(fifteen, "initdb"), join(root, "links", "initdb"));
  const machine = { platform: "linux" as const, root, env: { PATH: join(root, "links") } };
  expect(findPostgres(null, machine)).toBe(fifteen);
  const sixteen = put("usr/lib/postgresql/16/bin/initdb", "16.1");
  rmSync(join(sixteen, "pg_ctl"));
  expect(findPostgres(null, machine)).toBe(fifteen);
});

it("reads a version and has a command for each system", () => {
  expect(versionSaid("initdb (PostgreSQL) 16beta2")).toBe(16);
  expect(versionSaid("initdb: command not found")).toBeNull();
  for (const platform of ["linux", "darwin", "win32"] as const) expect(INSTALL[platform]).toMatch(/postgres/i);
});
