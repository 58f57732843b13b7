/** A recipe's sheet as it is typed, for tests of its judgements: a few materials of the library on a shelf, and their lots. */
import { TRADE } from "#core/firmness/model";
import { libraryChoice, libraryEntry } from "#core/material/library";
import { judge } from "#core/recipe/judge/judge";
import { judgedOf } from "#core/recipe/judge/judgedOf";
import type { Judgement } from "#core/recipe/judge/judgement";
import type { Scale } from "#core/recipe/scale";
import type { RecipeType } from "#core/recipe/types";
import { readWritten, type MaterialChoice, type RecipeText } from "#core/recipe/written";
import type { ForWhom, UsedOn } from "#core/scent/limits";
import type { Lot } from "#core/stock/lots";
import { stockOnHand } from "#core/stock/shelf";

const KEYS = [
  "beeswax-yellow",
  "mango",
  "shea-unrefined",
  "coconut-refined",
  "cocoa-raw",
  "tallow-beef",
  "olive",
  "rosehip",
  "vitamin-e",
  "arrowroot",
  "mica",
  "honey",
  "eo-lavender",
  "eo-clove-bud",
  "eo-lemongrass",
  "eo-bergamot",
  "eo-lime",
  "eo-grapefruit",
  "eo-orange",
  "eo-peppermint",
  "comfrey",
] as const;
export type Key = (typeof KEYS)[number];
export const SHELF: readonly MaterialChoice[] = KEYS.map((key, i) => libraryChoice(libraryEntry(key)!, i + 1));
export const nameOf = (key: Key): string => libraryEntry(key)!.name;

const TODAY = "2026-11-27";
export interface Sheet {
  type: RecipeType;
  lines: [Key, string][];
  makes?: string;
  fill?: string;
  usedOn?: UsedOn;
  forWhom?: ForWhom;
  lots?: Partial<Record<Key, string>>;
  scale?: Scale;
}
export const texts = ({ lines, makes = "", fill = "60 g" }: Sheet): RecipeText => ({
  lines: lines.map(([key, entered]) => ({ material: nameOf(key), entered, form: "" })),
  sizes: [{ id: "", container: "", fill, minutes: "1", away: "", packaging: [] }],
  ...{ makes, overrun: "" },
});
/** What the sheet says. @param papers what is written down with every lot */
export function judged(sheet: Sheet, written = texts(sheet), papers: Pick<Lot, "scentMostPpm"> = {}): Judgement[] {
  const read = readWritten(written, SHELF);
  if (read.problem) throw new Error(read.problem.say);
  const lots = Object.entries(sheet.lots ?? {}).map(([key, bestBefore], i): Lot => ({
    id: i + 1,
    number: `R${i + 1}`,
    of: KEYS.indexOf(key as Key) + 1,
    onHand: 10_000_000,
    value: 0 as Lot["value"],
    arrived: TODAY,
    bestBefore,
    hold: false,
    ...papers,
  }));
  const { type, usedOn = "hands", forWhom = "anyone" } = sheet;
  const by = { type, usedOn, forWhom, lossBp: 0, keepsMonths: 6, away: [false] };
  return judge(
    judgedOf(read, by, stockOnHand(lots, TODAY), new Map(lots.map((l) => [l.id, l])), {
      today: TODAY,
      constants: TRADE,
      scale: sheet.scale ?? { unit: "g", step: 100 },
    }),
  );
}
export const SALVE: [Key, string][] = [
  ["beeswax-yellow", "36 g"],
  ["olive", "264 g"],
];
