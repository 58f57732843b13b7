/** One `npm start` at a time in a folder: a second one says so instead of sharing a database that the first will stop. */
import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { DATA } from "./postgres.ts";

const FILE = join(DATA, "running.pid");

const alive = (pid: number): boolean => {
  try {
    process.kill(pid, 0);
    return readFileSync(`/proc/${pid}/cmdline`, "utf8").includes("scripts/");
  } catch {
    return false;
  }
};

/** Claims the folder for this process. @throws Error naming the process that has it */
export function claim(): () => void {
  mkdirSync(DATA, { recursive: true });
  try {
    const pid = Number(readFileSync(FILE, "utf8"));
    if (pid && alive(pid)) throw new Error(`Zelbin is running here already (process ${pid}). Stop it with Ctrl-C in its window first.`);
  } catch (e) {
    if ((e as NodeJS.ErrnoException).code !== "ENOENT") throw e;
  }
  writeFileSync(FILE, String(process.pid));
  return () => rmSync(FILE, { force: true });
}
