/** Draws small faults from an area's code: every one that Stryker would make there is as likely as any other. */
import { Instrumenter, type InstrumenterOptions } from "@stryker-mutator/instrumenter";
import type { Mutant } from "@stryker-mutator/api/core";
import type { Logger } from "@stryker-mutator/api/logging";
import fc from "fast-check";
import { readFileSync } from "node:fs";
import { relative, resolve } from "node:path";
import { filesOf, serverLines, type Area } from "./areas.ts";

/** Stryker says how many it made; nobody asked. */
const silent = new Proxy({} as Logger, { get: () => () => false });

const HOW: InstrumenterOptions = { plugins: null, ignorers: [], excludedMutations: [], noHeader: true };

/** Every fault there could be. Lines are from 0, as Stryker has them. */
async function allOf(area: Area): Promise<Mutant[]> {
  const files = filesOf(area).map((name) => ({ name: resolve(name), mutate: true, content: readFileSync(name, "utf8") }));
  const { mutants } = await new Instrumenter(silent).instrument(files, HOW);
  if (area !== "app") return [...mutants];
  const lines = new Map(files.map((f) => [f.name, serverLines(relative(".", f.name))]));
  return mutants.filter(({ fileName, location: { start, end } }) =>
    lines.get(fileName)!.some((l) => l.from <= start.line + 1 && end.line + 1 <= l.to),
  );
}

/** What tells a fault from any other: its place and its replacement. */
export const keyOf = ({ fileName, location: { start, end }, replacement }: Mutant): string =>
  `${relative(".", resolve(fileName))}:${start.line}:${start.column}-${end.line}:${end.column} ${replacement}`;

/** @returns `n` of them, the same for the same seed and code */
export async function draw(area: Area, n: number, seed: number): Promise<{ drawn: Mutant[]; of: number }> {
  const all = await allOf(area);
  const size = Math.min(n, all.length);
  const [drawn] = fc.sample(fc.shuffledSubarray(all, { minLength: size, maxLength: size }), { seed, numRuns: 1 });
  return { drawn: drawn!, of: all.length };
}
