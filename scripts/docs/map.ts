/** `npm run map`: writes docs/map.md, which says of every file what it is for, in the first sentence the file says of itself. */
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { groupBy } from "#core/collect";

export const MAP = "docs/map.md";
const ROOMS = {
  core: "Computation: units, money, lots, recipes, costs. No database, no clock, no interface.",
  db: "The database: schema, queries, and every act, each in one transaction.",
  app: "The interface: one folder a station, with its routes' loaders, actions and screens.",
  devices: "The simulated scale and thermometer, programs of their own.",
  demo: "The invented workshop, loaded by the acts a maker does.",
  scripts: "Start, test, benchmark, hard knocks, pictures.",
  e2e: "Journeys through the real interface, in a browser.",
  test: "What only tests need, and tests of more than one room.",
};

/** The first sentence of a file's opening comment; empty where it has none. @example firstSentence("/** Adds. Never throws. *" + "/") // "Adds." */
export function firstSentence(code: string): string {
  const opening = /^(?:import[^\n]*\n|\s)*\/\*\*([\s\S]*?)\*\//.exec(code)?.[1] ?? "";
  const text = opening
    .replace(/\n\s*\*/g, "\n")
    .split(/\n\s*\n/)[0]!
    .replace(/\s+/g, " ")
    .trim();
  // A sentence ends before a capital: one after "no. 3" or "e.g. so" does not.
  return /^.*?[.?!](?= [A-Z`]|$)/.exec(text)?.[0] ?? text;
}

/** Every file of the project's own, and what it is for. @returns the text of docs/map.md */
export function mapText(): string {
  const rooms = Object.entries(ROOMS).map(([room, what]) => {
    const files = readdirSync(room, { recursive: true, withFileTypes: true })
      .filter((f) => f.isFile() && /\.(ts|tsx|mjs)$/.test(f.name) && !/\.d\.ts$/.test(f.name))
      .map((f) => ({ folder: f.parentPath, file: f.name, says: firstSentence(readFileSync(join(f.parentPath, f.name), "utf8")) }))
      .sort((a, b) => (a.folder === b.folder ? (a.file < b.file ? -1 : 1) : a.folder < b.folder ? -1 : 1));
    const folders = [...groupBy(files, (f) => f.folder)].map(
      ([folder, within]) => `### ${folder}\n\n${within.map((f) => `- \`${f.file}\` ${f.says}`).join("\n")}`,
    );
    return `## ${room}\n\n${what}\n\n${folders.join("\n\n")}`;
  });
  return `# Map\n\nEvery file and what it is for, in its own first sentence. Written by \`npm run map\`; \`npm test\` says when it is old.\n\n${rooms.join("\n\n")}\n`;
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? "").href) writeFileSync(MAP, mapText());
