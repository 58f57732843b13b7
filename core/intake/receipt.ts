/**
 * A table read as receipts, or as what was on the shelf before the books began: which column is what, in which style, and each row as a
 * line to put on the shelf or the words for what is wrong with it.
 */
import { plainText } from "../measure/parse.ts";
import { groupBy } from "../collect.ts";
import { factsIn, type MaterialFacts } from "../material/facts.ts";
import type { Base, Micros } from "../measure/exact.ts";
import { done, refuse, type Outcome } from "../outcome.ts";
import { packAmount } from "../stock/packs.ts";
import { sayFullDay, type Day } from "../when.ts";
import { ambiguousNumber, dateOrder, looseDay, looseMoney, looseNumber, numberStyle, type DateOrder, type NumberStyle } from "./loose.ts";
import type { Table } from "./table.ts";

export const FIELDS = {
  material: "Material",
  packs: "Packs",
  packSize: "Each holds",
  price: "Price of all",
  supplierLot: "Supplier's lot",
  bestBefore: "Best before",
  supplier: "Supplier",
  day: "Day",
} as const;
export type FieldId = keyof typeof FIELDS;
export const FIELD_IDS = Object.keys(FIELDS) as FieldId[];
/** What a table is read as: what a row can say then, and without which it says too little. */
export const PURPOSES = {
  receipt: { fields: FIELD_IDS, needed: ["material", "packSize", "price"] },
  opening: { fields: FIELD_IDS.filter((f) => f !== "supplier"), needed: ["material", "packSize"] },
} as const satisfies Record<string, { fields: readonly FieldId[]; needed: readonly FieldId[] }>;
export type Purpose = keyof typeof PURPOSES;
export const isNeeded = (purpose: Purpose, field: FieldId): boolean => (PURPOSES[purpose].needed as readonly FieldId[]).includes(field);

const WORDS: Record<FieldId, readonly string[]> = {
  material: ["material", "item", "product", "name", "description", "article", "ingredient"],
  packs: ["packs", "qty", "quantity", "count", "number", "units", "pcs"],
  packSize: ["size", "pack size", "each holds", "pack", "weight", "contents", "volume", "amount"],
  price: ["price of all", "total", "line total", "price", "cost", "sum", "net", "gross"],
  supplierLot: ["lot", "batch", "charge", "supplier's lot", "supplier lot"],
  bestBefore: ["best before", "best by", "bbe", "bbd", "expiry", "expires", "use by", "best-before"],
  supplier: ["supplier", "shop", "seller", "vendor", "from"],
  day: ["date", "day", "ordered", "arrived", "order date", "invoice date"],
};

/** Column number per field, or null where there is none. */
export type Mapping = Record<FieldId, number | null>;

/** Guesses what each column is by its name: whole names first, then names that contain the word. @example guessColumns(["Item", "Total"]).price // 1 */
export function guessColumns(header: readonly string[]): Mapping {
  const names = header.map((h) => h.toLowerCase().trim());
  const taken = new Set<number>();
  const mapping = Object.fromEntries(FIELD_IDS.map((f) => [f, null])) as Mapping;
  for (const fits of [(n: string, w: string) => n === w, (n: string, w: string) => n.includes(w)])
    for (const f of FIELD_IDS) {
      if (mapping[f] !== null) continue;
      for (const w of WORDS[f]) {
        const at = names.findIndex((n, i) => !taken.has(i) && fits(n, w));
        if (at < 0) continue;
        mapping[f] = at;
        taken.add(at);
        break;
      }
    }
  return mapping;
}

export interface Styles {
  numbers: NumberStyle;
  dates: DateOrder;
}

/** What a file doesn't tell by itself, in words; empty where it does. */
export interface Asked {
  numbers: string;
  dates: string;
}

/**
 * The styles the mapped columns are written in, and what has to be asked because a cell could be two things.
 * @param today nothing has been bought after it, which often tells a day from a year
 */
export function guessStyles(t: Table, m: Mapping, today: Day): { styles: Styles; asked: Asked } {
  const column = (f: FieldId): string[] => (m[f] === null ? [] : t.rows.map((r) => r[m[f]!] ?? ""));
  const amounts = [...column("price"), ...column("packs")];
  const numbers = numberStyle(amounts);
  const unclear = numbers === null ? ambiguousNumber(amounts) : null;
  const dates = dateOrder([{ texts: column("day"), latest: today }, { texts: column("bestBefore") }]);
  return {
    styles: { numbers: numbers ?? "point", dates: "order" in dates ? dates.order : "ymd" },
    asked: {
      numbers: unclear === null ? "" : `“${unclear}” could have a decimal or a thousands mark. Say how numbers are written.`,
      dates:
        "order" in dates
          ? ""
          : `“${dates.text}” could be ${sayFullDay(dates.could[0])} or ${sayFullDay(dates.could[1])}. Say how dates are written.`,
    },
  };
}

export interface IntakeLine {
  /** Row of the table, counted from 1 below the header. */
  row: number;
  materialId: number;
  packs: number;
  packSize: string;
  qty: Base;
  /** Null only in opening stock, where nobody says. */
  price: Micros | null;
  supplierLot: string;
  bestBefore: Day | null;
  supplier: string;
  day: Day;
}

export interface IntakeProblem {
  row: number;
  field: FieldId;
  say: string;
}

export interface Intake {
  lines: IntakeLine[];
  problems: IntakeProblem[];
  /** Names that are no material, with how many rows have them. */
  unknown: { name: string; rows: number }[];
}

/** As long as what is typed may be. */
const LONGEST: readonly (readonly [FieldId, number])[] = [
  ["material", 80],
  ["supplier", 120],
  ["supplierLot", 60],
  ["packSize", 40],
];
const MOST_PACKS = 10_000;

/**
 * Reads every row. A row with a problem is left out and told; the others stand.
 * @param known materials by lower-case name, the maker's own matches of unknown names included
 * @param fallback supplier and day where the table has none
 * @param purpose opening stock asks for no supplier and may leave its cost open
 * @returns problem `columns` when a needed column isn't matched
 */
export function readIntake(
  t: Table,
  m: Mapping,
  styles: Styles,
  known: ReadonlyMap<string, MaterialFacts & { id: number }>,
  fallback: { supplier: string; day: Day },
  purpose: Purpose = "receipt",
): Outcome<Intake> {
  const missing = PURPOSES[purpose].needed.filter((f) => m[f] === null);
  if (missing.length > 0) return refuse("columns", `Say which column is ${missing.map((f) => FIELDS[f].toLowerCase()).join(", ")}.`);
  const intake: Intake = { lines: [], problems: [], unknown: [] };
  const unknown: string[] = [];
  t.rows.forEach((cells, i) => {
    const row = i + 1;
    const text = (f: FieldId): string => (m[f] === null ? "" : (cells[m[f]] ?? ""));
    const before = intake.problems.length;
    const read = <T>(field: FieldId, o: Outcome<T>): T | null => {
      if (o.ok) return o.value;
      intake.problems.push({ row, field, say: o.problem.say });
      return null;
    };
    for (const [field, most] of LONGEST)
      if (text(field).length > most) read(field, refuse("long", `“${text(field).slice(0, 20)}…” is over ${most} characters.`));
    if (intake.problems.length > before) return;
    const name = text("material");
    const material = known.get(name.toLowerCase());
    if (!material) {
      if (name === "") read("material", refuse("empty", "No material is named."));
      else {
        unknown.push(name);
        read("material", refuse("unknown", `“${name}” isn't on the shelf.`));
      }
      return;
    }
    const packs = text("packs") === "" ? "1" : read("packs", looseNumber(text("packs"), styles.numbers));
    const whole = packs === null ? null : Number(packs);
    if (whole !== null && (!Number.isInteger(whole) || whole < 1))
      read("packs", refuse("whole", `“${text("packs")}” isn't a whole number of packs.`));
    if (whole !== null && whole > MOST_PACKS) read("packs", refuse("most", `“${text("packs")}” packs can't be right.`));
    const packSize = packText(text("packSize"), styles.numbers);
    const qty =
      whole !== null && Number.isInteger(whole) && whole > 0 ? read("packSize", packAmount(whole, packSize, factsIn(material))) : null;
    const price = purpose === "opening" && text("price").trim() === "" ? null : read("price", looseMoney(text("price"), styles.numbers));
    const bestBefore = text("bestBefore") === "" ? null : read("bestBefore", looseDay(text("bestBefore"), styles.dates));
    const day = text("day") === "" ? fallback.day : read("day", looseDay(text("day"), styles.dates));
    if (purpose === "receipt" && bestBefore !== null && day !== null && bestBefore < day)
      read("bestBefore", refuse("early", "That is before the day it arrived."));
    const supplier = text("supplier") || fallback.supplier;
    if (supplier.length > 120) read("supplier", refuse("long", "Keep the supplier's name under 120 characters."));
    if (supplier === "" && purpose === "receipt") read("supplier", refuse("empty", "Say who it came from."));
    if (intake.problems.length > before || qty === null || day === null) return;
    intake.lines.push({
      row,
      materialId: material.id,
      packs: whole!,
      packSize,
      qty,
      price,
      supplierLot: text("supplierLot"),
      bestBefore,
      supplier,
      day,
    });
  });
  intake.unknown = [...groupBy(unknown, (n) => n)].map(([name, all]) => ({ name, rows: all.length }));
  return done(intake);
}

/** "1.234,5 g" and "0,5kg" as the pack reader knows them. */
function packText(text: string, style: NumberStyle): string {
  const m = /^([\d.,' ]+)(.*)$/.exec(text.trim());
  if (!m) return text;
  const n = looseNumber(m[1]!, style);
  // Read by the style of its column: it has one reading from here on.
  return n.ok ? `${plainText(Number(n.value))} ${m[2]!.trim()}`.trim() : text;
}
