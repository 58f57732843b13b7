/** Stock out of a file: read on the server, since a file may have twenty thousand lines. */
import { between } from "#core/measure/read";
import { isKeyOf } from "#core/objects";
import { BLANK_AS, firstAsked, TWICE, type Asked, type BlankAs, type FileChoices } from "#core/intake/asked";
import { bodyOf, type LeftOut } from "#core/intake/body";
import { FIELD_IDS, guessColumns, PRICE_OF, PURPOSES, type Mapping, type PriceOf, type Purpose } from "#core/intake/columns";
import { MERGED, type BlankField } from "#core/intake/goods";
import { DATE_ORDERS, NUMBER_STYLES, type DateOrder, type NumberStyle } from "#core/intake/loose";
import { currenciesOf } from "#core/intake/money";
import { readList, type IntakeLine } from "#core/intake/read";
import { readRows } from "#core/intake/table";
import { orElse, type Outcome } from "#core/outcome";
import { RATE_1 } from "#core/stock/receipt";
import { counted } from "#core/words";
import type { Day } from "#core/when";
import { cachedSettings } from "#db/settings/settings";
import { openedAlready, receivedAlready, sentBackAlready } from "#db/shelf/receipts/alreadyThere";
import { listMaterials } from "#db/shelf/materials";
import type { NewMaterial } from "#db/shelf/receipts/receive";
import { createHash } from "node:crypto";
import { db } from "../../server/workshop.server.ts";
import { CURRENCIES } from "../../ui/fields/currencies.ts";
import { libraryMeant, namesOf } from "./names.server.ts";

type Texts = Partial<Record<string, string>>;
/** What the sheet says of the file; empty texts mean "as guessed". */
export interface IntakeTexts {
  text: string;
  columns: Texts;
  numbers: string;
  dates: string;
  priceOf: string;
  /** By field: what an empty cell under a filled one means. */
  blanks: Texts;
  /** By sign: the code of its currency, and the rate as typed. */
  money: Texts;
  rates: Texts;
  supplier: string;
  day: Day | null;
  /** What to do with lines that are there already. */
  twice: string;
  /** Unknown names, as `namesOf` takes them. */
  matches: Texts;
}

/** How much of a file the preview shows. */
const SHOWN = 40;

export interface Preview {
  /** Of everything that would be put on the shelf, shown or not: sent back with the order to do so. */
  digest: string;
  header: string[];
  /** Rows of goods and of anything else. */
  rows: number;
  sample: string[][];
  mapping: Mapping;
  /** Empty where the file doesn't tell and nobody has said. */
  numbers: NumberStyle | "";
  dates: DateOrder | "";
  priceOf: PriceOf | "";
  asked: Asked;
  merged: { field: BlankField; as: BlankAs | "" }[];
  /** Signs that aren't the workshop's, each with the currencies it may be. */
  foreign: { sign: string; currencies: string[] }[];
  twice: { say: string; asked: boolean } | null;
  intake: {
    lines: number;
    problems: { row: number; field: string; heading: string; say: string }[];
    problemCount: number;
    /** With the library's entry that is meant by the name, where one seems to be. */
    unknown: { name: string; rows: number; library: { key: string; name: string } | null }[];
    left: LeftOut[];
    leftCount: number;
    shown: Shown[];
  };
  say: string | null;
}

interface Shown extends Pick<IntakeLine, "row" | "packs" | "packSize" | "price" | "currency" | "supplier" | "day" | "bestBefore"> {
  material: string;
  back: boolean;
}

export interface IntakeRead {
  preview: Preview;
  lines: IntakeLine[];
  back: IntakeLine[];
  /** Materials to add first; a line's number below zero means one of them. */
  add: NewMaterial[];
  /** What has to be said before it can be put on the shelf; empty where nothing has. */
  first: string;
}

function mappingOf(guess: Mapping, columns: Texts, wide: number, purpose: Purpose): Mapping {
  return Object.fromEntries(
    FIELD_IDS.map((f) => {
      if (!(PURPOSES[purpose].fields as readonly string[]).includes(f)) return [f, null];
      const said = columns[f];
      if (said === undefined || said === "") return [f, guess[f]];
      const n = Number(said);
      return [f, said === "none" || !Number.isInteger(n) || n < 0 || n >= wide ? null : n];
    }),
  ) as Mapping;
}

const rateOf = between(0.0001, 2000, "of your currency", RATE_1);

function saidOf(t: IntakeTexts): FileChoices {
  const blanks = MERGED.flatMap((f) => {
    const as = t.blanks[f] ?? "";
    return isKeyOf(BLANK_AS, as) ? [[f, as] as const] : [];
  });
  const money = Object.entries(t.money).flatMap(([sign, code]) =>
    (CURRENCIES as readonly string[]).includes(code ?? "")
      ? [[sign, { code: code!, rate: orElse(rateOf(t.rates[sign] ?? ""), null) }] as const]
      : [],
  );
  return {
    numbers: isKeyOf(NUMBER_STYLES, t.numbers) ? t.numbers : null,
    dates: isKeyOf(DATE_ORDERS, t.dates) ? t.dates : null,
    priceOf: isKeyOf(PRICE_OF, t.priceOf) ? t.priceOf : null,
    blanks: Object.fromEntries(blanks),
    money: new Map(money),
    supplier: t.supplier.trim(),
    day: t.day,
  };
}

/** Reads a file as the sheet says. @returns problems of `readRows` */
export async function readFile(t: IntakeTexts, today: Day, purpose: Purpose): Promise<Outcome<IntakeRead>> {
  const rows = readRows(t.text);
  if (!rows.ok) return rows;
  const body = bodyOf(rows.value);
  const mapping = mappingOf(guessColumns(body.header, body.rows), t.columns, body.header.length, purpose);
  const [materials, settings] = await Promise.all([listMaterials(db()), cachedSettings(db())]);
  const { known, add } = namesOf(materials, t.matches);
  const own = settings.currency;
  const read = readList(body, mapping, saidOf(t), { known, purpose, own, today });
  const all = read.ok ? read.value.intake : { lines: [], back: [], problems: [], unknown: [], left: body.left };
  const there = await thereAlready(purpose, all);
  const leaveOut = t.twice !== "again";
  const lines = all.lines.filter((l) => !(leaveOut && there.has(l)));
  const back = all.back.filter((l) => !(leaveOut && there.has(l)));
  const names = new Map([...known.values()].map((m) => [m.id, m.name]));
  const shown = [...lines.map((l) => ({ ...l, back: false })), ...back.map((l) => ({ ...l, back: true }))].sort((a, b) => a.row - b.row);
  const asked = read.ok ? read.value.asked : NOTHING_ASKED;
  const told = read.ok ? read.value.told : null;
  const twice =
    there.size === 0
      ? null
      : { say: thereAlreadySaid(there.size, all.lines.length + all.back.length, purpose), asked: !isKeyOf(TWICE, t.twice) };
  return {
    ok: true,
    value: {
      add,
      lines,
      back,
      first: firstAsked(asked) || (twice?.asked ? twice.say : ""),
      preview: {
        digest: createHash("sha256")
          .update(JSON.stringify([lines, back, add]))
          .digest("base64url"),
        header: body.header,
        rows: body.rows.length,
        sample: body.rows.slice(0, 4).map((r) => r.cells),
        mapping,
        numbers: asked.numbers || !told ? "" : told.numbers,
        dates: asked.dates || !told ? "" : told.dates,
        priceOf: asked.priceOf || !told ? "" : told.priceOf,
        asked,
        merged: read.ok ? read.value.merged.map((field) => ({ field, as: told!.blanks[field] ?? ("" as const) })) : [],
        foreign: read.ok
          ? read.value.foreign.map((sign) => ({ sign, currencies: currenciesOf(sign, [own, ...CURRENCIES.filter((c) => c !== own)]) }))
          : [],
        twice,
        say: read.ok ? null : read.problem.say,
        intake: {
          lines: lines.length + back.length,
          problems: all.problems
            .slice(0, SHOWN)
            .map((p) => ({ ...p, heading: mapping[p.field] === null ? "" : (body.header[mapping[p.field]!] ?? "") })),
          problemCount: all.problems.length,
          unknown: all.unknown.slice(0, SHOWN).map((u) => ({ ...u, library: libraryMeant([u])[u.name] ?? null })),
          left: all.left.slice(0, SHOWN),
          leftCount: all.left.length,
          shown: shown.slice(0, SHOWN).map((l) => ({ ...l, material: names.get(l.materialId) ?? "" })),
        },
      },
    },
  };
}

const NOTHING_ASKED: Asked = { numbers: "", dates: "", priceOf: "", blanks: {}, money: [] };

async function thereAlready(purpose: Purpose, { lines, back }: { lines: IntakeLine[]; back: IntakeLine[] }): Promise<Set<IntakeLine>> {
  if (purpose === "opening") return openedAlready(db(), lines);
  const [received, returned] = await Promise.all([receivedAlready(db(), lines), sentBackAlready(db(), back)]);
  return new Set([...received, ...returned]);
}

const thereAlreadySaid = (n: number, of: number, purpose: Purpose): string =>
  `${n === of ? (n === 1 ? "This line is" : "All of these lines are") : `${counted(n, "line")} of ${of} ${n === 1 ? "is" : "are"}`} in the books already${purpose === "receipt" ? ", on receipts of the same supplier and day" : ", as opening stock"}. Say what to do with ${n === 1 ? "it" : "them"}.`;
