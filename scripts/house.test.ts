/** The rules of the house: which way imports may point, who may reach the server, and one start at a time. */
import { ESLint, type Linter } from "eslint";
import { readdirSync, readFileSync } from "node:fs";
import { createServer } from "node:net";
import { posix } from "node:path";
import tseslint from "typescript-eslint";
import { describe, expect, it } from "vitest";
import { freePort } from "./places.ts";
import { loopbackOnly } from "./server/serve.ts";

/** Rules a line of code would break if it stood in that file; a file that isn't there has no types to ask. */
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
  it.each([
    ["core/stock/new.ts", "#db/client"],
    ["core/stock/new.ts", "../../db/client.ts"],
    ["core/stock/new.ts", "#app/routes.ts"],
    ["core/stock/new.ts", "#scripts/system"],
    ["db/shelf/new.ts", "#app/db.server.ts"],
    ["db/shelf/new.ts", "../../app/routes.ts"],
    ["db/shelf/new.ts", "#demo/load"],
    ["app/shelf/new.ts", "#demo/load"],
    ["app/shelf/new.ts", "#scripts/server"],
    ["demo/new.ts", "#app/routes.ts"],
  ])("%s may not import %s", async (file, from) => {
    expect(await breaks(file, `import "${from}";`)).toEqual(["no-restricted-imports"]);
  });
  it.each([
    ["core/stock/new.ts", "../measure/exact.ts"],
    ["db/shelf/new.ts", "#core/stock/lots"],
    ["app/shelf/new.ts", "#db/shelf/materials"],
    ["app/shelf/new.ts", "#core/stock/lots"],
    ["demo/new.ts", "#db/shelf/receive"],
  ])("%s may import %s", async (file, from) => {
    expect(await breaks(file, `import "${from}";`)).toEqual([]);
  });
  it("core takes the clock and chance from its caller", async () => {
    for (const code of ["export const x = Date.now();", "export const x = new Date();", "export const x = Math.random();"])
      expect(await breaks("core/new.ts", code)).toEqual(["no-restricted-syntax"]);
    expect(await breaks("core/new.ts", "export const x = process.env;")).toEqual(["no-restricted-globals"]);
    expect(await breaks("core/new.ts", "export const x = new Date(2026, 1, 1);")).toEqual([]);
  });
}, 60_000);

describe("nothing goes in circles", () => {
  const files = ["core", "db", "app", "demo"].flatMap((room) =>
    readdirSync(room, { recursive: true, encoding: "utf8" })
      .filter((f) => /\.tsx?$/.test(f) && !f.includes(".test."))
      .map((f) => `${room}/${f}`),
  );
  const found = new Set(files);
  const importsOf = (file: string): string[] =>
    [...readFileSync(file, "utf8").matchAll(/^(?:import|export)[^;]*?from "([#.][^"]+)"/gm)].flatMap((m) => {
      const to = m[1]!.startsWith("#") ? m[1]!.slice(1) : posix.join(posix.dirname(file), m[1]!);
      return [to, `${to}.ts`].filter((f) => found.has(f));
    });
  const graph = new Map(files.map((f) => [f, importsOf(f)]));
  /** The way round, where there is one. */
  function circle(of: ReadonlyMap<string, readonly string[]>): string[] {
    const done = new Set<string>();
    const walk = (at: string, way: string[]): string[] => {
      if (way.includes(at)) return [...way.slice(way.indexOf(at)), at];
      if (done.has(at)) return [];
      for (const next of of.get(at) ?? []) {
        const round = walk(next, [...way, at]);
        if (round.length > 0) return round;
      }
      done.add(at);
      return [];
    };
    for (const start of of.keys()) {
      const round = walk(start, []);
      if (round.length > 0) return round;
    }
    return [];
  }
  it("between files, types included", () => {
    expect([...graph.values()].flat().length).toBeGreaterThan(500);
    expect(circle(graph)).toEqual([]);
    expect(circle(new Map([...graph, ["core/outcome.ts", ["core/recipe/lines.ts"]]]))).toContain("core/outcome.ts");
  });
  it("between core's rooms", () => {
    const roomOf = (f: string): string => (/^core\/\w+\//.test(f) ? f.split("/")[1]! : "");
    const rooms = new Map<string, string[]>();
    for (const [file, imports] of graph)
      if (roomOf(file))
        rooms.set(roomOf(file), [...(rooms.get(roomOf(file)) ?? []), ...imports.map(roomOf).filter((r) => r && r !== roomOf(file))]);
    expect(rooms.size).toBeGreaterThan(5);
    expect(circle(rooms)).toEqual([]);
  });
});

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
