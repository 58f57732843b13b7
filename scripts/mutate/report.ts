/** What a draw of faults came to: how many were noticed, by the kind of fault, and which were not. */
import type { MutantResult } from "@stryker-mutator/api/core";
import jstat from "jstat";
import { readFileSync } from "node:fs";
import { relative } from "node:path";
import { AREA, type Area } from "./areas.ts";

const NOTICED = new Set(["Killed", "Timeout"]);
const TRIED = new Set(["Killed", "Timeout", "Survived", "NoCoverage"]);

/**
 * Between which shares the true one lies, nineteen times in twenty (Clopper and Pearson's interval, by the beta distribution).
 * @example likely(9, 10) // [0.555, 0.997]
 */
export function likely(k: number, n: number): [low: number, high: number] {
  return [k === 0 ? 0 : jstat.beta.inv(0.025, k, n - k + 1), k === n ? 1 : jstat.beta.inv(0.975, k + 1, n - k)];
}

const percent = (share: number): string => `${Math.round(share * 100)} %`;

const shareOf = (k: number, n: number): string => {
  const [low, high] = likely(k, n);
  return `${String(k).padStart(4)} of ${String(n).padEnd(4)} ${percent(k / n).padStart(5)}   (${percent(low)} to ${percent(high)})`;
};

/** The text a fault replaces, in one line. */
function was({ fileName, location: { start, end } }: MutantResult): string {
  const lines = readFileSync(fileName, "utf8")
    .split("\n")
    .slice(start.line - 1, end.line);
  const last = lines.length - 1;
  lines[last] = lines[last]!.slice(0, end.column - 1);
  lines[0] = lines[0]!.slice(start.column - 1);
  return lines.join(" ").replaceAll(/\s+/g, " ").slice(0, 90);
}

/** Prints it. @param results of the faults that were drawn, with lines from 1 */
export function report(area: Area, results: readonly MutantResult[], of: number): void {
  const tried = results.filter((r) => TRIED.has(r.status));
  const left = results.length - tried.length;
  const noticed = tried.filter((r) => NOTICED.has(r.status));
  console.log(
    `\n${area}: ${results.length} drawn of ${of}${left ? `, ${left} of them not tried (worked out as a file is loaded, or no code)` : ""}`,
  );
  for (const kind of [...new Set(tried.map((r) => r.mutatorName))].sort()) {
    const ofKind = tried.filter((r) => r.mutatorName === kind);
    console.log(`  ${kind.padEnd(24)}${shareOf(ofKind.filter((r) => NOTICED.has(r.status)).length, ofKind.length)}`);
  }
  if (tried.length > 0)
    console.log(`  ${"noticed".padEnd(24)}${shareOf(noticed.length, tried.length)}, wanted ${percent(AREA[area].wanted)}`);
  for (const r of tried.filter((one) => !NOTICED.has(one.status)))
    console.log(
      `  ${relative(".", r.fileName)}:${r.location.start.line}  ${r.mutatorName}${r.status === "NoCoverage" ? ", no test goes there" : ""}\n      ${was(r)}\n      → ${r.replacement.replaceAll(/\s+/g, " ").slice(0, 90)}`,
    );
}
