/** Building the application, and the command that starts it, when their sources have changed since the last build. */
import { spawnSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import { beginBuilding, isBuilt } from "./fingerprint.mjs";
import { licencesText, shipped } from "./licences.ts";

const TOOLS = [
  ["node_modules/@react-router/dev/bin.js", "build"],
  // `npm start` needs no compiler the next time (scripts/bootstrap.mjs).
  ["node_modules/vite/bin/vite.js", "build", "--config", "scripts/building/vite.start.ts"],
];

/** Builds unless the last build was of these very sources. @throws Error when the build fails */
export function buildIfStale(): void {
  if (isBuilt()) return;
  console.log("Building the application …");
  const built = beginBuilding();
  for (const tool of TOOLS) {
    const done = spawnSync(process.execPath, tool, { encoding: "utf8", env: { ...process.env, NODE_ENV: "production" } });
    if (done.status !== 0) throw new Error(`The build failed:\n${done.stdout}\n${done.stderr}`);
  }
  writeFileSync("build/client/licences.txt", licencesText(shipped()));
  built();
}
