/**
 * What the core says, word for word, compared with tables to be read and judged: every refusal, warning and answer as a maker reads it,
 * and the figures just on either side of each edge. A change of words or of an edge shows as a change of that text.
 */
import { readFile } from "node:fs/promises";
import { join } from "node:path";
import Fraction from "fraction.js";
import { expect } from "vitest";
import type { Outcome } from "#core/outcome";

const isOutcome = (v: unknown): v is Outcome<unknown> => typeof v === "object" && v !== null && "ok" in v && typeof v.ok === "boolean";

/** A value in a line. */
export function inWords(v: unknown): string {
  if (isOutcome(v)) return v.ok ? inWords(v.value) : `✗ ${v.problem.code}: ${v.problem.say}`;
  if (typeof v === "string") return v;
  if (v instanceof Fraction) return v.toString();
  return JSON.stringify(v, (_, x: unknown) => (typeof x === "bigint" ? Number(x) : x instanceof Map ? [...x] : x)).replace(
    /"([^"]*)":/g,
    "$1: ",
  );
}

/**
 * Compares what each asked thing comes to, one a line as `asked → said`, with the table of that name. No key writes a table: a line that
 * changes is judged, and changed by hand.
 */
export const expectWording = async (file: string, said: readonly (readonly [asked: string, said: unknown])[]): Promise<void> => {
  const table = join(import.meta.dirname, `${file}.txt`);
  const lines = said.map(([asked, v]) => `${asked} → ${inWords(v)}\n`);
  expect(lines.join(""), `${table} says otherwise. Is each changed line right? Then change it there by hand.`).toBe(
    await readFile(table, "utf8"),
  );
};

/** What becomes of each of some texts. */
export const each = <T extends string>(texts: readonly T[], read: (text: T) => unknown) => texts.map((t) => [`“${t}”`, read(t)] as const);

/** What becomes of a call that may throw. */
export function trying(work: () => unknown): unknown {
  try {
    return work();
  } catch (e) {
    return `throws ${(e as Error).name}: ${(e as Error).message}`;
  }
}
