/**
 * The examples beside functions are true: each `@example call // result` of the core, and of what the pages read and write, is run with
 * all that those files export and the cast in reach. A result is code ("3", "{ ok: false }"), an amount as the trade says it ("14.2 g",
 * "18.00"), or how it ended ("ok", "problem zero").
 */
import { readdirSync, readFileSync } from "node:fs";
import { resolve } from "node:path";
import { expect, it } from "vitest";
import { CAST } from "./examplesCast.ts";

const core = readdirSync("core", { recursive: true, encoding: "utf8" })
  .filter((f) => f.endsWith(".ts") && !f.endsWith(".test.ts"))
  .map((f) => `core/${f}`);
const pages = [
  "forms/mergeSheets.ts",
  "forms/ids.ts",
  "forms/useSheet.ts",
  "markets/dayTexts.ts",
  "prices/ladderTexts.ts",
  "recipes/recipeTexts.ts",
  "ui/figures/amounts.tsx",
];
const files = [...core, ...pages.map((f) => `app/${f}`)];
const modules = await Promise.all(files.map((f) => import(/* @vite-ignore */ resolve(f)) as Promise<Record<string, unknown>>));
const scope = Object.assign({}, ...modules, CAST) as Record<string, unknown>;
const evaluate = (code: string): unknown =>
  // eslint-disable-next-line @typescript-eslint/no-implied-eval, @typescript-eslint/no-unsafe-call -- the code is this project's own comments
  new Function(...Object.keys(scope), `return (${code});`)(...Object.values(scope));

const examples = files.flatMap((file) =>
  readFileSync(file, "utf8")
    .split("\n")
    .filter((line) => line.includes("@example"))
    .map((line) => [file, line.replace(/.*@example /, "").replace(/\s*\*\/.*$/, "")] as const),
);

type Outcome = { ok: true; value: unknown } | { ok: false; problem: { code: string } };
const isOutcome = (v: unknown): v is Outcome => typeof v === "object" && v !== null && "ok" in v;
const AMOUNT = /^(-?\d[\d ]*(?:\.\d+)?) (mg|g|mL|mm|micros|h)$/;
const MONEY = /^-?\d+\.\d\d$/;
/** Plain numbers and lists out of fractions and maps. */
const plainly = (v: unknown): unknown =>
  JSON.parse(
    JSON.stringify(v, (_, x: unknown) => (x instanceof CAST.Fraction ? x.valueOf() : x instanceof Map ? [...x] : x)).replace(
      /\u00a0/g,
      " ",
    ),
  );

it.each(examples)("%s: %s", (_, example) => {
  const at = example.lastIndexOf(" // ");
  expect(at, "an example says what it comes to").toBeGreaterThan(0);
  const result = example.slice(at + 4).trim();
  const found = evaluate(example.slice(0, at));
  if (result === "ok" || result.startsWith("problem")) {
    const code = result.split(" ")[1];
    expect(found).toMatchObject(result === "ok" ? { ok: true } : { ok: false, ...(code && { problem: { code } }) });
    return;
  }
  const value = plainly(isOutcome(found) && found.ok && !result.includes("ok:") ? found.value : found);
  const amount = AMOUNT.exec(result);
  if (amount) {
    const said = Number(amount[1]!.replace(/ /g, ""));
    const decimals = amount[1]!.split(".")[1]?.length ?? 0;
    expect((value as number) / (amount[2] === "g" ? 1000 : 1)).toBeCloseTo(said, decimals);
    return;
  }
  const said = evaluate(result);
  if (MONEY.test(result) && Number.isInteger(value)) expect((value as number) / 1_000_000).toBe(said);
  else if (typeof said === "object" && said !== null) expect(value).toMatchObject(said);
  else expect(value).toBe(said);
});
