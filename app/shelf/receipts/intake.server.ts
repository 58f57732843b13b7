/** Receipts out of a file: read on the server, since a file may have twenty thousand lines. */
import { groupBy } from "#core/collect";
import { DATE_ORDERS, NUMBER_STYLES, type DateOrder, type NumberStyle } from "#core/intake/loose";
import { FIELD_IDS, guessColumns, guessStyles, readIntake, type Asked, type Intake, type Mapping } from "#core/intake/receipt";
import { readTable } from "#core/intake/table";
import { KIND_IDS, KINDS, type KindId } from "#core/material/kinds";
import { micros } from "#core/measure/exact";
import type { Outcome } from "#core/outcome";
import type { Day } from "#core/when";
import type { ReceiveIn } from "#db/shelf/receive";
import { listMaterials, type MaterialRow } from "#db/shelf/materials";
import { db } from "../../db.server.ts";

/** What the sheet says of the file; empty texts mean "as guessed". */
export interface IntakeTexts {
  text: string;
  columns: Partial<Record<string, string>>;
  numbers: string;
  dates: string;
  supplier: string;
  /** Unknown names: a material's name to take it for, or `kind:oil` to add it as one. */
  matches: Partial<Record<string, string>>;
}

/** How much of a file the preview shows. */
const SHOWN = 40;

export interface Preview {
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
    unknown: { name: string; rows: number }[];
    shown: Shown[];
  };
  say: string | null;
}

interface Shown {
  row: number;
  material: string;
  packs: number;
  packSize: string;
  price: number;
  supplier: string;
  day: Day;
  bestBefore: Day | null;
  supplierLot: string;
}

export interface IntakeRead {
  preview: Preview;
  receipts: ReceiveIn[];
  /** Materials to add first, by the name in the file. */
  add: { name: string; kind: KindId }[];
}

const NEW = /^kind:(.+)$/;

/** Reads a file as the sheet says. @returns problems of `readTable` */
export async function readFile(t: IntakeTexts, day: Day): Promise<Outcome<IntakeRead>> {
  const table = readTable(t.text);
  if (!table.ok) return table;
  const { header, rows } = table.value;
  const guess = guessColumns(header);
  const mapping = Object.fromEntries(
    FIELD_IDS.map((f) => {
      const said = t.columns[f];
      if (said === undefined || said === "") return [f, guess[f]];
      const n = Number(said);
      return [f, said === "none" || !Number.isInteger(n) || n < 0 || n >= header.length ? null : n];
    }),
  ) as Mapping;
  const { styles, asked } = guessStyles(table.value, mapping, day);
  const said = {
    numbers: t.numbers in NUMBER_STYLES ? (t.numbers as NumberStyle) : null,
    dates: t.dates in DATE_ORDERS ? (t.dates as DateOrder) : null,
  };
  const open = { numbers: said.numbers ? "" : asked.numbers, dates: said.dates ? "" : asked.dates };

  const materials = await listMaterials(db());
  const known = new Map<string, MaterialRow>(materials.map((m) => [m.name.toLowerCase(), m]));
  const add: IntakeRead["add"] = [];
  let invented = 0;
  for (const [name, said] of Object.entries(t.matches)) {
    if (!said) continue;
    const asKind = NEW.exec(said)?.[1];
    const match = known.get(said.toLowerCase());
    if (match) known.set(name.toLowerCase(), match);
    else if (asKind && (KIND_IDS as string[]).includes(asKind)) {
      const kind = asKind as KindId;
      add.push({ name, kind });
      // Stands in until it is added: a number below zero no material has.
      known.set(name.toLowerCase(), {
        ...materials[0]!,
        id: --invented,
        name,
        kind,
        densities: KINDS[kind].start,
        dropsPerMl: null,
        pieceMg: null,
      });
    }
  }
  const styled = { numbers: said.numbers ?? styles.numbers, dates: said.dates ?? styles.dates };
  const read = readIntake(table.value, mapping, styled, known, { supplier: t.supplier.trim(), day });
  const empty: Intake = { lines: [], problems: [], unknown: [] };
  // What could be two things is asked first: nothing of a guess is shown or received.
  const intake = read.ok && !open.numbers && !open.dates ? read.value : empty;
  const names = new Map([...known.values()].map((m) => [m.id, m.name]));
  return {
    ok: true,
    value: {
      add,
      receipts: receiptsOf(intake),
      preview: {
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
          unknown: intake.unknown.slice(0, SHOWN),
          shown: intake.lines.slice(0, SHOWN).map((l) => ({ ...l, material: names.get(l.materialId) ?? "" })),
        },
      },
    },
  };
}

/** Lines of one supplier on one day are one receipt. Materials still to be added keep their stand-in number. */
function receiptsOf(intake: Intake): ReceiveIn[] {
  return [...groupBy(intake.lines, (l) => `${l.day}\n${l.supplier}`).values()].map((lines) => ({
    supplier: lines[0]!.supplier,
    day: lines[0]!.day,
    postage: micros(0),
    lines,
  }));
}
