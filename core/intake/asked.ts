/** What a list doesn't tell by itself, in words beside the choice that says it; and what it does tell. */
import { parseAmount, parseNumber } from "../measure/parse.ts";
import { done } from "../outcome.ts";
import { counted } from "../words.ts";
import { sayFullDay, type Day } from "../when.ts";
import { priceOfHeading, type FieldId, type Mapping, type PriceOf } from "./columns.ts";
import { ambiguousCell, dateOrder, looseMoney, numberStyle, settled, type DateOrder, type NumberStyle } from "./loose.ts";
import { isSignOf } from "./money.ts";
import { MERGED, type BlankField, type GoodsRow } from "./goods.ts";
import type { Purpose } from "./columns.ts";

/** Cells that merged cells leave empty, and what to do with rows that have them. */
export const BLANK_AS = { above: "as in the row above", out: "leave these rows out" } as const;
export type BlankAs = keyof typeof BLANK_AS;

/** What to do with lines that the books have already. */
export const TWICE = { out: "leave them out", again: "put them on the shelf again" } as const;

/** What was chosen beside a list; null and absent where nothing was. */
export interface FileChoices {
  numbers: NumberStyle | null;
  dates: DateOrder | null;
  priceOf: PriceOf | null;
  blanks: Partial<Record<BlankField, BlankAs>>;
  /** What money a sign is, and what one of it is in the workshop's own, in millionths. */
  money: ReadonlyMap<string, { code: string; rate: number | null }>;
  /** Who all of it is from, and when all of it was bought, where no column says. */
  supplier: string;
  day: Day | null;
}

export interface Told {
  numbers: NumberStyle;
  dates: DateOrder;
  priceOf: PriceOf;
  blanks: Partial<Record<BlankField, BlankAs>>;
  money: ReadonlyMap<string, { code: string; rate: number }>;
}

/** What has to be said first, each in words; empty where nothing has. */
export interface Asked {
  numbers: string;
  dates: string;
  priceOf: string;
  blanks: Partial<Record<BlankField, string>>;
  /** By the sign of the money. */
  money: { sign: string; say: string }[];
}
export const isAsked = (a: Asked): boolean => firstAsked(a) !== "";
/** The first of it. */
export const firstAsked = (a: Asked): string =>
  [a.numbers, a.dates, a.priceOf, ...Object.values(a.blanks), ...a.money.map((m) => m.say)].find((say) => say !== "") ?? "";

const NAMES: Record<BlankField, string> = { material: "material", supplier: "supplier", day: "day" };
const ROWS_NAMED = 4;
const rowsSaid = (rows: readonly GoodsRow[]): string =>
  `row${rows.length === 1 ? "" : "s"} ${rows
    .slice(0, ROWS_NAMED)
    .map((r) => r.at)
    .join(", ")}${rows.length > ROWS_NAMED ? " …" : ""}`;

/** @param cell one that could be two numbers @example askNumbers("1,234") // "“1,234” could have a decimal or a thousands mark. Say how numbers are written." */
export const askNumbers = (cell: string): string => `“${cell}” could have a decimal or a thousands mark. Say how numbers are written.`;

/** @param of a cell that could be two days @example askDates({ text: "1/2/26", could: ["2026-01-02", "2026-02-01"] }).startsWith("“1/2/26” could be") // true */
export const askDates = ({ text, could: [one, other] }: { text: string; could: [Day, Day] }): string =>
  `“${text}” could be ${sayFullDay(one)} or ${sayFullDay(other)}. Say how dates are written.`;

/** @returns what is told, the rest as it was guessed; what is asked; and which merged cells there are */
export function asksOf(
  header: readonly string[],
  goods: readonly GoodsRow[],
  m: Mapping,
  said: FileChoices,
  { own, today, purpose }: { own: string; today: Day; purpose: Purpose },
) {
  const column = (f: FieldId): string[] => (m[f] === null ? [] : goods.map((r) => r.text(f)));
  const [prices, packs, sizes] = [column("price"), column("packs"), column("packSize")];
  const numbers = numberStyle([...prices, ...packs, ...sizes]);
  const unclear =
    numbers !== null
      ? null
      : (ambiguousCell(prices, (t, s) => {
          const money = looseMoney(t, s);
          return money.ok ? done(money.value.n) : money;
        }) ??
        ambiguousCell(packs, (t, s) => parseNumber(settled(t, s, true), "asked")) ??
        ambiguousCell([...sizes, ...packs], (t, s) => {
          const amount = parseAmount(settled(t, s, false));
          return amount.ok ? done(amount.value.n) : amount;
        }));
  const dates = dateOrder([{ texts: column("day"), latest: today }, { texts: column("bestBefore") }]);
  const heading = m.price === null ? null : priceOfHeading(header[m.price] ?? "");
  const several = packs.find((t) => t !== "" && t !== "1") ?? null;
  const priceOf = said.priceOf ?? heading ?? (several === null || prices.every((t) => t === "") ? "all" : null);

  const empty = Object.fromEntries(MERGED.map((f) => [f, goods.filter((r) => r.blank.has(f) && r.above[f] !== undefined)])) as Record<
    BlankField,
    GoodsRow[]
  >;
  // A supplier and a day that are empty together are one receipt's, written once.
  const together =
    purpose === "receipt" && m.supplier !== null && m.day !== null && goods.every((r) => r.blank.has("supplier") === r.blank.has("day"));
  const plain = (f: BlankField): BlankAs | undefined => (f !== "material" && together ? "above" : undefined);
  const blanks = Object.fromEntries(MERGED.map((f) => [f, said.blanks[f] ?? plain(f)])) as Told["blanks"];

  const foreign = [...new Set(prices.flatMap((t) => signIn(t)))].filter((sign) => !isSignOf(sign, own));
  const rated = foreign.flatMap((sign) => {
    const as = said.money.get(sign);
    return as && (as.code === own || as.rate !== null) ? [[sign, { code: as.code, rate: as.rate ?? 1_000_000 }] as const] : [];
  });
  const asked: Asked = {
    numbers: said.numbers || unclear === null ? "" : askNumbers(unclear),
    dates: said.dates || "order" in dates ? "" : askDates(dates),
    priceOf:
      priceOf !== null
        ? ""
        : `“${header[m.price!] ?? "Price"}” could be for one pack or for all ${several} of them. Say what a price is the price of.`,
    blanks: Object.fromEntries(
      MERGED.flatMap((f) =>
        empty[f].length > 0 && !blanks[f]
          ? [[f, `${counted(empty[f].length, "row")} ${empty[f].length === 1 ? "names" : "name"} no ${NAMES[f]}, ${rowsSaid(empty[f])}.`]]
          : [],
      ),
    ),
    money: foreign
      .filter((sign) => !rated.some(([s]) => s === sign))
      .map((sign) => ({ sign, say: `“${sign}” isn't ${own}. Say what money it is, and what one of it was in ${own}.` })),
  };
  const told: Told = {
    numbers: said.numbers ?? numbers ?? "point",
    dates: said.dates ?? ("order" in dates ? dates.order : "ymd"),
    priceOf: priceOf ?? "all",
    blanks,
    money: new Map(rated),
  };
  return { told, asked, merged: MERGED.filter((f) => empty[f].length > 0), foreign };
}

function signIn(text: string): string[] {
  const m = looseMoney(text, "point");
  const other = m.ok ? m : looseMoney(text, "comma");
  return other.ok ? [other.value.sign] : [];
}
