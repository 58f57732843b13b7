/** The map says what the files say, and every file says something. */
import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { firstSentence, MAP, mapText } from "./map.ts";

it("docs/map.md is as the files are (npm run map writes it)", () => {
  expect(readFileSync(MAP, "utf8")).toBe(mapText());
});

it("every file says what it is for", () => {
  const silent = mapText()
    .split("\n")
    .filter((line) => /^- `[^`]+` ?$/.test(line));
  expect(silent).toEqual([]);
});

it.each([
  ["/** Adds. Never throws. */", "Adds."],
  ["/**\n * Two lines\n * of it.\n *\n * More.\n */", "Two lines of it."],
  ['import a from "a";\n/** After an import. */', "After an import."],
  ["/** Common practice, e.g. so, no. 3 of it: that. Then */", "Common practice, e.g. so, no. 3 of it: that."],
  ["export const none = 1;", ""],
])("%j → %s", (code, says) => expect(firstSentence(code)).toBe(says));
