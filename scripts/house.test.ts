/** The rules of the house: which way imports may point, who may reach the server, and one start at a time. */
import { cruise, type ICruiseResult } from "dependency-cruiser";
import extractDepcruiseConfig from "dependency-cruiser/config-utl/extract-depcruise-config";
import { ESLint, type Linter } from "eslint";
import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import tseslint from "typescript-eslint";
import { describe, expect, it } from "vitest";
import { groupBy } from "#core/collect";
import { freePort } from "./places.ts";
import { loopbackOnly } from "./server/serve.ts";

/** Rules a line of code would break if it were in that file; a file that isn't there has no types to ask. */
const breaks = async (file: string, code: string, types = false): Promise<(string | null)[]> => {
  const untyped = [tseslint.configs.disableTypeChecked as Linter.Config, { rules: { "zelbin/brands": "off" } } as const];
  const eslint = new ESLint(types ? {} : { overrideConfig: untyped });
  const [result] = await eslint.lintText(`${code}\n`, { filePath: file });
  return result!.messages.map((m) => m.ruleId);
};

it("grams aren't money: measures of two kinds can't be added, taken away or compared", async () => {
  const file = (expression: string): string =>
    `import { mg, micros, sum } from "./exact.ts";\nexport const a = mg(5);\nexport const b = micros(7);\nexport const c = ${expression};\nexport { sum };`;
  for (const mixed of ["a + b", "a - b", "a < b", "sum([a]) + b"])
    expect(await breaks("core/measure/money.ts", file(mixed), true), mixed).toEqual(["zelbin/brands"]);
  for (const fine of ["a + a", "a * 2 + 1", "b - micros(1)", "(a / 1000) * b"])
    expect(await breaks("core/measure/money.ts", file(fine), true), fine).toEqual([]);
}, 120_000);

describe("imports point one way", () => {
  /** Lines of code by the file they stand in, in a house of nothing else, and the rule each of those files breaks. */
  const house: Record<string, [imports: string, breaks: string | null]> = {
    "core/stock/upward.ts": ['import "../../db/client.ts";', "core-computes"],
    "core/stock/script.ts": ['export const load = () => import("../../scripts/places.ts");', "core-computes"],
    "core/stock/fine.ts": ['import "../measure/fine.ts";', null],
    "core/stock/fine.test.ts": ['import "../../db/client.ts"; import "../../test/some.ts";', null],
    "core/stock/helped.ts": ['import "../../test/some.ts";', "tests-do-not-ship"],
    "core/measure/fine.ts": ["export type Fine = 1;", null],
    "core/round/a.ts": ['import type { B } from "./b.ts"; export type A = B;', "no-circle-of-files"],
    "core/round/b.ts": ['import type { A } from "./a.ts"; export type B = A;', null],
    "core/rooms/a.ts": ['import "../knot/a.ts";', null],
    "core/rooms/b.ts": ["export type B = 1;", null],
    "core/knot/a.ts": ["export type A = 1;", null],
    "core/knot/deeper/b.ts": ['import type { B } from "../../rooms/b.ts"; export type C = B;', null],
    "db/client.ts": ['import "../core/stock/fine.ts";', null],
    "db/shelf/upward.ts": ['import "../../app/routes.ts";', "db-knows-core"],
    "db/shelf/gone.ts": ['import "./nowhere.ts";', "found"],
    "devices/scale.ts": ['import "../db/client.ts";', "devices-know-core"],
    "demo/fine.ts": ['import "../db/client.ts";', null],
    "demo/upward.ts": ['import "../app/routes.ts";', "demo-works-through-db"],
    "app/routes.ts": ['import "./shell/frame.ts";', "shell-stands-above"],
    "app/shell/frame.ts": ['import "../shelf/fine.ts";', null],
    "app/shelf/fine.ts": ['import "../../db/client.ts"; import "../names/fine.ts"; import "../ui/fine.ts";', null],
    "app/gifts/fine.ts": ["export type Fine = 1;", null],
    "app/shelf/demo.ts": ['import "../../demo/fine.ts";', "app-runs-alone"],
    "app/ui/fine.ts": ["export type Fine = 1;", null],
    "app/ui/reads.ts": ['import type {} from "../../db/client.ts";', "ui-knows-no-data"],
    "app/names/fine.ts": ['import "../forms/fine.ts";', null],
    "app/names/station.ts": ['import "../gifts/fine.ts";', "names-know-no-station"],
    "app/forms/fine.ts": ['import "../ui/fine.ts";', null],
    "app/forms/station.ts": ['import "../gifts/fine.ts";', "forms-know-no-station"],
    "app/shelf/root.ts": ['import type {} from "../routes.ts";', "root-stands-above"],
    "app/server/fine.ts": ["export type Fine = 1;", null],
    "app/server/screen.ts": ['import type {} from "../gifts/fine.ts";', "server-knows-no-screen"],
    "app/jars/fine.ts": ['import "../server/fine.ts";', null],
    "test/some.ts": ["export const some = 1;", null],
    "scripts/places.ts": ["export const places = 1;", null],
  };
  it("each wrong way is named, and nothing else", async () => {
    const at = mkdtempSync(join(tmpdir(), "house-"));
    for (const [file, [code]] of Object.entries(house)) {
      mkdirSync(join(at, dirname(file)), { recursive: true });
      writeFileSync(join(at, file), `${code}\n`);
    }
    const { forbidden, options } = await extractDepcruiseConfig("./.dependency-cruiser.mjs");
    const { output } = await cruise(["app", "core", "db", "demo", "devices"], {
      ...options,
      ...{ validate: true, ruleSet: { forbidden }, baseDir: at, tsConfig: undefined },
    });
    rmSync(at, { recursive: true });
    const found = (output as ICruiseResult).summary.violations.map((v) => `${v.from} ${v.rule.name}`);
    const expected = Object.entries(house).flatMap(([file, [, rule]]) => (rule ? [`${file} ${rule}`] : []));
    expect([...new Set(found)].sort()).toEqual([...expected, "core/knot no-circle-of-rooms", "core/rooms no-circle-of-rooms"].sort());
  });
});

it("no folder has more files than can be looked over", () => {
  const files = ["app", "core", "db", "demo", "devices", "e2e", "scripts", "test"].flatMap((room) =>
    readdirSync(room, { recursive: true, withFileTypes: true }).filter((f) => f.isFile()),
  );
  // Written by a tool, a file for each change of the schema.
  const folders = groupBy(files, (f) => f.parentPath.replace(/^db\/migrations.*/, "migrations"));
  const crowded = [...folders].filter(([folder, within]) => folder !== "migrations" && within.length > 22);
  expect(crowded.map(([folder]) => folder)).toEqual([]);
});

describe("what core may ask of its surroundings", () => {
  it("core takes the clock and chance from its caller", async () => {
    for (const code of ["export const x = Date.now();", "export const x = new Date();", "export const x = Math.random();"])
      expect(await breaks("core/new.ts", code)).toEqual(["no-restricted-syntax"]);
    expect(await breaks("core/new.ts", "export const x = process.env;")).toEqual(["no-restricted-globals"]);
    expect(await breaks("core/new.ts", "export const x = new Date(2026, 1, 1);")).toEqual([]);
  });
}, 60_000);

describe("the server is for this machine only", () => {
  it.each(["127.0.0.1", "127.0.0.53", "localhost", "::1", "[::1]"])("%s may listen", (host) => expect(loopbackOnly(host)).toBe(host));
  it.each(["0.0.0.0", "::", "192.168.1.20", "10.0.0.1", "zelbin.example", "127.0.0.1.example", "localhost.example", "1127.0.0.1", ""])(
    "%s is refused",
    (host) => expect(() => loopbackOnly(host)).toThrow("until it has access control"),
  );
  it("finds a port that is free, and another when the wished one is taken", async () => {
    const taken = await freePort();
    const holder = createServer();
    await new Promise<void>((done) => holder.listen(taken, "127.0.0.1", done));
    const other = await freePort(taken);
    expect(other).not.toBe(taken);
    await new Promise((done) => holder.close(done));
    expect(await freePort(taken)).toBe(taken);
  });
});
