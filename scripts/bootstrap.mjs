/**
 * First step of every command: makes sure the npm packages of the lock file are installed, then runs a TypeScript script.
 * Plain JavaScript without imports of packages, because it runs before there are any.
 */
import { spawn, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { isBuilt } from "./building/fingerprint.mjs";

const root = dirname(dirname(fileURLToPath(import.meta.url)));
process.chdir(root);

const [major, minor] = process.versions.node.split(".").map(Number);
if (major < 20 || (major === 20 && minor < 19)) {
  console.error(`Zelbin needs Node.js 20.19 or newer; this is ${process.versions.node}.`);
  process.exit(1);
}

const stamp = join(root, "node_modules", ".lock-stamp");
const lock = createHash("sha256").update(readFileSync("package-lock.json")).digest("hex");
if (!existsSync(stamp) || readFileSync(stamp, "utf8") !== lock) {
  console.log("Installing npm packages …");
  // The npm that runs this, by its own file: on Windows the command is a script, which only a shell runs.
  const ci = ["ci", "--no-audit", "--no-fund", "--loglevel=error"];
  const npm = process.env.npm_execpath;
  const [program, args] = npm ? [process.execPath, [npm, ...ci]] : ["npm", ci];
  const install = spawnSync(program, args, {
    stdio: ["ignore", "inherit", "inherit"],
    env: { ...process.env, NODE_ENV: "" },
  });
  if (install.status !== 0) {
    console.error("The npm packages could not be installed; the lines above say why.");
    process.exit(1);
  }
  writeFileSync(stamp, lock);
}

// React and its router pick their fast builds by NODE_ENV as soon as they are loaded.
const env = { ...process.env, NODE_ENV: process.env.NODE_ENV || "production" };
const [script, ...args] = process.argv.slice(2);
const started = join("build", "start", "start.js");
const run = script === "scripts/start.ts" && existsSync(started) && isBuilt() ? [started] : ["--import", "tsx", script];
const child = spawn(process.execPath, [...run, ...args], { stdio: "inherit", env });
// Ctrl-C reaches the child by itself (same terminal); a signal to this process alone is passed on. Either way it ends with the child.
process.on("SIGINT", () => {});
process.on("SIGTERM", () => child.kill("SIGTERM"));
process.on("SIGHUP", () => child.kill("SIGTERM"));
// npm, told to end by a signal, ends its shell and leaves us without a parent: then it is time to go too.
if (process.env.npm_lifecycle_event) {
  const parent = process.ppid;
  setInterval(() => {
    if (process.ppid !== parent) child.kill("SIGTERM");
  }, 500).unref();
}
child.on("exit", (code, signal) => process.exit(signal ? 1 : (code ?? 1)));
