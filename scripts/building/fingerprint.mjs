/**
 * Whether what is built is of these very sources. Plain JavaScript without imports of packages, like the first step that asks it: where nothing
 * has changed since, that step starts what was built and needs no compiler.
 */
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";

const SOURCES = [
  "app",
  "core",
  "db",
  "demo",
  "devices",
  "scripts",
  "package-lock.json",
  "package.json",
  "react-router.config.ts",
  "vite.config.ts",
];
const STAMP = join("build", ".source-stamp");

function* filesOf(path) {
  if (statSync(path).isFile()) yield path;
  else for (const name of readdirSync(path).sort()) yield* filesOf(join(path, name));
}

function fingerprint() {
  const hash = createHash("sha256");
  for (const source of SOURCES)
    for (const file of filesOf(source)) if (!/\.test\.tsx?$/.test(file)) hash.update(file).update(readFileSync(file));
  return hash.digest("hex");
}

export const isBuilt = () => existsSync(STAMP) && readFileSync(STAMP, "utf8") === fingerprint();

/** Until it is all built it is of no sources, also when it is cut off; then of those it was begun with, whatever was written meanwhile. */
export function beginBuilding() {
  const sources = fingerprint();
  rmSync(STAMP, { force: true });
  return () => writeFileSync(STAMP, sources);
}
