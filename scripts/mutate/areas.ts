/** The three areas that mutation testing draws from: what of each is changed, which tests are asked, and how much of it they should notice. */
import ts from "typescript";
import { readdirSync, readFileSync } from "node:fs";

export const AREAS = ["core", "db", "app"] as const;
export type Area = (typeof AREAS)[number];

interface AreaFacts {
  tests: readonly string[];
  /** Tests that take minutes each. */
  without: readonly string[];
  /** The share of faults that the tests should notice. */
  wanted: number;
}

/** Random histories: minutes each, and every mutant of the ledger would be asked of them. */
const MINUTES = ["test/db/asIf.test.ts", "test/app/standsStill.test.ts"];

export const AREA: Record<Area, AreaFacts> = {
  core: { tests: ["{core,test/core,devices,app}/**/*.test.ts", "scripts/docs/examples.test.ts"], without: [], wanted: 0.9 },
  db: { tests: ["{db,demo,test/db,test/app}/**/*.test.ts"], without: MINUTES, wanted: 0.8 },
  app: { tests: ["test/app/**/*.test.ts", "app/**/*.test.ts"], without: MINUTES, wanted: 0.7 },
};

const NO_CODE = /\.test\.tsx?$|\.d\.ts$|^core\/material\/library\/|^db\/schema|^app\/(routes\.ts|entry\.)/;

export const filesOf = (area: Area): string[] =>
  readdirSync(area, { recursive: true, encoding: "utf8" })
    .map((f) => `${area}/${f.replaceAll("\\", "/")}`)
    .filter((f) => /\.tsx?$/.test(f) && !NO_CODE.test(f))
    .sort();

interface Lines {
  from: number;
  to: number;
}

const nameOf = (s: ts.Statement): string | null => {
  if (ts.isFunctionDeclaration(s)) return s.name?.text ?? null;
  return ts.isVariableStatement(s) ? s.declarationList.declarations[0]!.name.getText() : null;
};

/** Every identifier in a piece of code. */
const namesIn = (node: ts.Node): string[] => [...(ts.isIdentifier(node) ? [node.text] : []), ...node.getChildren().flatMap(namesIn)];

/**
 * The lines of one of app's files that run on the server: all of a `*.server.ts`; of a route its loader and action, and what of the same
 * file they call. A file with neither has none.
 * @returns lines from 1
 */
export function serverLines(file: string): Lines[] {
  const text = readFileSync(file, "utf8");
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true, file.endsWith("x") ? ts.ScriptKind.TSX : ts.ScriptKind.TS);
  const named = source.statements.map((s) => [nameOf(s), s] as const);
  const whole = file.endsWith(".server.ts");
  const onServer = new Set<ts.Statement>();
  const add = (names: readonly string[]): void => {
    for (const [name, s] of named)
      if (name !== null && names.includes(name) && !onServer.has(s)) {
        onServer.add(s);
        add(namesIn(s));
      }
  };
  add(whole ? named.flatMap(([name]) => name ?? []) : ["loader", "action"]);
  const line = (at: number): number => source.getLineAndCharacterOfPosition(at).line + 1;
  return [...onServer].map((s) => ({ from: line(s.getStart()), to: line(s.end) }));
}
