/** Building the application when its sources have changed since the last build. */
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";

const SOURCES = ["app", "core", "db", "package-lock.json", "package.json", "vite.config.ts", "react-router.config.ts"];
const STAMP = join("build", ".source-stamp");

function* filesOf(path: string): Generator<string> {
  if (statSync(path).isFile()) yield path;
  else for (const name of readdirSync(path).sort()) yield* filesOf(join(path, name));
}

function fingerprint(): string {
  const hash = createHash("sha256");
  for (const source of SOURCES)
    for (const file of filesOf(source)) if (!/\.test\.tsx?$/.test(file)) hash.update(file).update(readFileSync(file));
  return hash.digest("hex");
}

/** Builds unless the last build was of these very sources. @throws Error when the build fails */
export function buildIfStale(): void {
  const now = fingerprint();
  if (existsSync(STAMP) && readFileSync(STAMP, "utf8") === now) return;
  console.log("Building the application …");
  const done = spawnSync(process.execPath, ["node_modules/@react-router/dev/bin.js", "build"], {
    encoding: "utf8",
    env: { ...process.env, NODE_ENV: "production" },
  });
  if (done.status !== 0) throw new Error(`The build failed:\n${done.stdout}\n${done.stderr}`);
  writeFileSync(STAMP, now);
}
