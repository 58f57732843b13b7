/** Stock out of a file: read on the server, since a file may have twenty thousand lines. */
import { isKeyOf } from "#core/record";
import { finder } from "#core/find";
import { DATE_ORDERS, NUMBER_STYLES, type DateOrder, type NumberStyle } from "#core/intake/loose";
import {
  FIELD_IDS,
  guessColumns,
  guessStyles,
  PURPOSES,
  readIntake,
  type Asked,
  type Intake,
  type IntakeLine,
  type Mapping,
  type Purpose,
} from "#core/intake/receipt";
import { readTable } from "#core/intake/table";
import { KIND_IDS, KINDS, type KindId } from "#core/material/kinds";
import { LIBRARY, libraryEntry } from "#core/material/library";
import type { MaterialFacts } from "#core/material/facts";
import type { Outcome } from "#core/outcome";
import type { Day } from "#core/when";
import type { NewMaterial } from "#db/shelf/receive";
import { listMaterials } from "#db/shelf/materials";
import { createHash } from "node:crypto";
import { db } from "../../db.server.ts";

/** What the sheet says of the file; empty texts mean "as guessed". */
export interface IntakeTexts {
  text: string;
  columns: Partial<Record<string, string>>;
  numbers: string;
  dates: string;
  supplier: string;
  /** Unknown names: a material's name to take it for, `library:jojoba` to take that from the library, or `kind:oil` to add it as one. */
  matches: Partial<Record<string, string>>;
}

/** How much of a file the preview shows. */
const SHOWN = 40;

export interface Preview {
  /** Of everything that would be put on the shelf, shown or not: sent back with the order to do so. */
  digest: string;
  header: string[];
  rows: number;
  sample: string[][];
  mapping: Mapping;
  /** Empty where the file doesn't tell and nobody has said. */
  numbers: NumberStyle | "";
  dates: DateOrder | "";
  asked: Asked;
  intake: {
    lines: number;
    problems: { row: number; field: string; say: string }[];
    problemCount: number;
    /** With the library's entry that is meant by the name, where one seems to be. */
    unknown: { name: string; rows: number; library: { key: string; name: string } | null }[];
    shown: Shown[];
  };
  say: string | null;
}

interface Shown {
  row: number;
  material: string;
  packs: number;
  packSize: string;
  price: number | null;
  supplier: string;
  day: Day;
  bestBefore: Day | null;
  supplierLot: string;
}

export interface IntakeRead {
  preview: Preview;
  lines: IntakeLine[];
  /** Materials to add first; a line's number below zero stands for one of them. */
  add: NewMaterial[];
}

/** What reading a line takes to know of a material. */
type Named = MaterialFacts & { id: number };
const NOBODY = { dropsPerMl: null, pieceMg: null };

const NEW = /^(kind|library):(.+)$/;
const findInLibrary = finder(LIBRARY, (e) => ({ name: e.name, also: e.inci }));

/** Reads a file as the sheet says. @returns problems of `readTable` */
export async function readFile(t: IntakeTexts, day: Day, purpose: Purpose): Promise<Outcome<IntakeRead>> {
  const table = readTable(t.text);
  if (!table.ok) return table;
  const { header, rows } = table.value;
  const guess = guessColumns(header);
  const mapping = Object.fromEntries(
    FIELD_IDS.map((f) => {
      if (!(PURPOSES[purpose].fields as readonly string[]).includes(f)) return [f, null];
      const said = t.columns[f];
      if (said === undefined || said === "") return [f, guess[f]];
      const n = Number(said);
      return [f, said === "none" || !Number.isInteger(n) || n < 0 || n >= header.length ? null : n];
    }),
  ) as Mapping;
  const { styles, asked } = guessStyles(table.value, mapping, day);
  const said = {
    numbers: isKeyOf(NUMBER_STYLES, t.numbers) ? t.numbers : null,
    dates: isKeyOf(DATE_ORDERS, t.dates) ? t.dates : null,
  };
  const open = { numbers: said.numbers ? "" : asked.numbers, dates: said.dates ? "" : asked.dates };

  const materials = await listMaterials(db());
  const known = new Map<string, Named>(materials.map((m) => [m.name.toLowerCase(), m]));
  const add: IntakeRead["add"] = [];
  const mean = (name: string, m: Omit<Named, "id" | "pieceMg">, added: NewMaterial): void => {
    add.push(added);
    // Stands in until it is added: a number below zero no material has.
    const standIn = { ...NOBODY, ...m, id: -add.length };
    known.set(name.toLowerCase(), standIn);
    // Two spellings of one entry are one material.
    known.set(m.name.toLowerCase(), standIn);
  };
  for (const [name, said] of Object.entries(t.matches)) {
    if (!said) continue;
    const [, how, what] = NEW.exec(said) ?? [];
    const match = known.get(said.toLowerCase());
    const entry = how === "library" ? libraryEntry(what!) : null;
    if (match) known.set(name.toLowerCase(), match);
    else if (entry) {
      const there = known.get(entry.name.toLowerCase());
      if (there) known.set(name.toLowerCase(), there);
      else mean(name, entry, { libraryKey: entry.key });
    } else if (how === "kind" && (KIND_IDS as string[]).includes(what!)) {
      const kind = what as KindId;
      mean(name, { name, kind, densities: KINDS[kind].start, dropsPerMl: null }, { name, kind });
    }
  }
  const styled = { numbers: said.numbers ?? styles.numbers, dates: said.dates ?? styles.dates };
  const read = readIntake(table.value, mapping, styled, known, { supplier: t.supplier.trim(), day }, purpose);
  const empty: Intake = { lines: [], problems: [], unknown: [] };
  // What could be two things is asked first: nothing of a guess is shown or received.
  const intake = read.ok && !open.numbers && !open.dates ? read.value : empty;
  const names = new Map([...known.values()].map((m) => [m.id, m.name]));
  return {
    ok: true,
    value: {
      add,
      lines: intake.lines,
      preview: {
        digest: createHash("sha256")
          .update(JSON.stringify([intake.lines, add]))
          .digest("base64url"),
        header,
        rows: rows.length,
        sample: rows.slice(0, 4),
        mapping,
        numbers: open.numbers ? "" : styled.numbers,
        dates: open.dates ? "" : styled.dates,
        asked: open,
        say: read.ok ? null : read.problem.say,
        intake: {
          lines: intake.lines.length,
          problems: intake.problems.slice(0, SHOWN),
          problemCount: intake.problems.length,
          unknown: intake.unknown.slice(0, SHOWN).map((u) => {
            const [entry] = findInLibrary(u.name, 1);
            return { ...u, library: entry ? { key: entry.key, name: entry.name } : null };
          }),
          shown: intake.lines.slice(0, SHOWN).map((l) => ({ ...l, material: names.get(l.materialId) ?? "" })),
        },
      },
    },
  };
}
