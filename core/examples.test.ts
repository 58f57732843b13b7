/**
 * The examples beside core's functions are true. Each `@example call // result` whose two sides can be read as code is run, with all that
 * core exports in reach; those that stand for more than they say ("…", a lot or a recipe of the reader's) are left to the reader.
 */
import Fraction from "fraction.js";
import { readdirSync, readFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { expect, it } from "vitest";

const files = readdirSync("core", { recursive: true, encoding: "utf8" }).filter((f) => f.endsWith(".ts") && !f.endsWith(".test.ts"));
const root = resolve("core");
const modules = await Promise.all(files.map((f) => import(/* @vite-ignore */ `${root}/${f}`) as Promise<Record<string, unknown>>));
const scope: Record<string, unknown> = Object.assign({ Fraction, today: "2026-11-25" }, ...modules) as Record<string, unknown>;
const evaluate = (code: string): unknown =>
  // eslint-disable-next-line @typescript-eslint/no-implied-eval, @typescript-eslint/no-unsafe-call -- the code is this project's own comments
  new Function(...Object.keys(scope), `return (${code});`)(...Object.values(scope));

const EXAMPLE = /@example (.+?) \/\/ (.+?)\s*(?:\*\/)?$/;
const examples = files.flatMap((file) =>
  readFileSync(join("core", file), "utf8")
    .split("\n")
    .flatMap((line): [string, string, string][] => {
      const m = EXAMPLE.exec(line);
      return m && !line.includes("…") ? [[file, m[1]!, m[2]!]] : [];
    }),
);

/** What a side of an example comes to; undefined when it isn't code, or speaks of something the reader has to think of. */
function come(code: string): { value: unknown } | undefined {
  try {
    return { value: evaluate(code) };
  } catch (e) {
    if (e instanceof SyntaxError || e instanceof ReferenceError) return undefined;
    throw e;
  }
}
/** Money is written in whole units with two decimals; what is computed is micros, and fractions. */
const MONEY = /^\[?-?\d+\.\d\d(, \d+\.\d\d)*\]?$/;
const plainly = (value: unknown, result: string): unknown =>
  JSON.parse(
    JSON.stringify(value, (_, v: unknown) =>
      v instanceof Fraction ? v.valueOf() : MONEY.test(result) && typeof v === "number" ? v / 1_000_000 : v,
    ),
  );
const isOutcome = (v: unknown): v is { ok: boolean; value?: unknown } => typeof v === "object" && v !== null && "ok" in v;

const read = examples.flatMap(([file, call, result]) => {
  const found = come(call.replace(/\)\?\./g, ")?."));
  if (!found) return [];
  // Numbers are written with their unit where that helps the reader: "1 000 000 mg".
  const plain = /^-?\d[\d ]*(\.\d+)? (mg|micros|h)\b/.test(result) ? result.replace(/[^\d.-]/g, "") : result;
  const said = result === "problem" ? { value: { ok: false } } : result === "ok" ? { value: { ok: true } } : come(plain);
  return said ? [[file, call, found.value, said.value, result] as const] : [];
});

it.each(read)("%s: %s", (_, __, found, said, result) => {
  const value = plainly(isOutcome(found) && found.ok && !isOutcome(said) ? found.value : found, result);
  if (typeof said === "object" && said !== null) expect(value).toMatchObject(said);
  else expect(value).toBe(said);
});
it("most examples that can be run are", () => expect(read.length).toBeGreaterThan(60));
