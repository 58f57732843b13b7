/** What mutation testing draws from, and how sure its figures are. */
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, it } from "vitest";
import { filesOf, serverLines } from "./areas.ts";
import { likely } from "./report.ts";

it("says between which shares the true one lies", () => {
  // Where none or all of n were noticed the interval has a closed form: 1 − 0.025^(1/n).
  for (const n of [1, 10, 55]) {
    const bound = 1 - 0.025 ** (1 / n);
    expect(likely(0, n)).toEqual([0, expect.closeTo(bound, 6)]);
    expect(likely(n, n)).toEqual([expect.closeTo(1 - bound, 6), 1]);
  }
  const [low, high] = likely(22, 55);
  expect(low).toBeLessThan(0.4);
  expect(high).toBeGreaterThan(0.4);
});

it("takes of a route what runs on the server: its loader, its action and what they call, and no screen", () => {
  const folder = mkdtempSync(join(tmpdir(), "lines-"));
  const lines = (name: string, text: string) => {
    writeFileSync(join(folder, name), text);
    return serverLines(join(folder, name)).sort((a, b) => a.from - b.from);
  };
  const route = `import { x } from "y";
const LEAST = 3;
const drawnOnly = 4;
const enough = (n: number) => n > LEAST;
export async function loader() {
  return enough(x);
}
export default function Screen() {
  return <p>{drawnOnly}</p>;
}
`;
  expect(lines("route.tsx", route)).toEqual([
    { from: 2, to: 2 },
    { from: 4, to: 4 },
    { from: 5, to: 7 },
  ]);
  expect(lines("part.tsx", "export const Part = () => <p />;\n")).toEqual([]);
  expect(lines("read.server.ts", "export const a = 1;\nconst b = 2;\n")).toHaveLength(2);
  rmSync(folder, { recursive: true });
});

it("draws from code, not from tests, tables of the schema or the library's facts", () => {
  expect(filesOf("core")).toContain("core/stock/lots.ts");
  for (const file of [...filesOf("core"), ...filesOf("db"), ...filesOf("app")])
    expect(file).not.toMatch(/\.test\.|^core\/material\/library\/|^db\/schema/);
});
