/**
 * A list of goods read whole, as receipts or as what was on the shelf before the books began: which rows are goods, and each of them as a
 * line for the shelf or the words for what is wrong with it. What could be two things is asked about, and nothing is read until that is answered.
 */
import { groupBy } from "../collect.ts";
import type { Base, Micros } from "../measure/exact.ts";
import { done, refuse, type Outcome } from "../outcome.ts";
import type { Day } from "../when.ts";
import { goodsOf, inOwn, priceOfAll, type Goods } from "./amount.ts";
import { asksOf, isAsked, type Asked, type FileChoices, type Told } from "./asked.ts";
import type { Body, LeftOut } from "./body.ts";
import { FIELDS, PURPOSES, type FieldId, type Mapping, type Purpose } from "./columns.ts";
import { partGoods, type BlankField, type GoodsRow, type Known, type KnownNames } from "./goods.ts";
import { looseDay, looseMoney, type LooseMoney } from "./loose.ts";
import { isSignOf } from "./money.ts";

export interface IntakeLine {
  /** Row of the file, counted from 1. */
  row: number;
  materialId: number;
  packs: number;
  packSize: string;
  qty: Base;
  /** Of all packs, in the receipt's currency; null where opening stock doesn't say. */
  price: Micros | null;
  /** Empty for the workshop's own. */
  currency: string;
  /** One of it in the workshop's, in millionths. */
  rate: number;
  supplierLot: string;
  bestBefore: Day | null;
  supplier: string;
  /** Null where opening stock doesn't say. */
  day: Day | null;
}
export interface IntakeProblem {
  row: number;
  field: FieldId;
  say: string;
}
export interface Intake {
  lines: IntakeLine[];
  /** Rows below zero: what went back to its supplier. */
  back: IntakeLine[];
  problems: IntakeProblem[];
  /** Names that are no material, with how many rows have them. */
  unknown: { name: string; rows: number }[];
  left: LeftOut[];
}

export interface Context {
  known: KnownNames;
  purpose: Purpose;
  /** The workshop's currency. */
  own: string;
  today: Day;
}
export interface ListRead {
  told: Told;
  asked: Asked;
  /** Merged columns that have empty cells, and foreign signs, whether they are asked about still or not. */
  merged: BlankField[];
  foreign: string[];
  intake: Intake;
}

/**
 * Reads every row. A row with a problem is left out and told; the others are read.
 * @param said what was chosen beside the list; what isn't is guessed where it is plain, and asked where it isn't
 * @returns problem `columns` when a needed column isn't matched; no lines while something is asked
 */
export function readList(body: Body, m: Mapping, said: FileChoices, context: Context): Outcome<ListRead> {
  const missing: string[] = PURPOSES[context.purpose].needed.filter((f) => m[f] === null).map((f) => FIELDS[f].toLowerCase());
  if (m.packSize === null && m.packs === null) missing.push(FIELDS.packSize.toLowerCase());
  if (missing.length > 0) return refuse("columns", `Say which column is ${missing.join(", ")}.`);
  const { goods, left } = partGoods(body, m, context.known, context.purpose);
  const { told, asked, merged, foreign } = asksOf(body.header, goods, m, said, context);
  const intake: Intake = { lines: [], back: [], problems: [], unknown: [], left };
  const unknown: string[] = [];
  for (const row of isAsked(asked) ? [] : goods) {
    if ([...row.blank].some((f) => told.blanks[f] === "out")) {
      left.push({ at: row.at, text: row.whole, why: "blank" });
      continue;
    }
    const read = readRow(row, m, told, said, context);
    intake.problems.push(...read.problems);
    if (read.unknown !== null) unknown.push(read.unknown);
    if (read.line) (read.back ? intake.back : intake.lines).push(read.line);
  }
  intake.unknown = [...groupBy(unknown, (n) => n)].map(([name, all]) => ({ name, rows: all.length }));
  left.sort((a, b) => a.at - b.at);
  return done({ told, asked, merged, foreign, intake });
}

/** As long as what is typed may be. */
const LONGEST: readonly (readonly [FieldId, number])[] = [
  ["material", 80],
  ["supplier", 120],
  ["supplierLot", 60],
  ["packSize", 40],
  ["packs", 40],
];

/** One row as a line, or what is wrong with it. */
function readRow(row: GoodsRow, m: Mapping, told: Told, said: FileChoices, { known, purpose, own, today }: Context) {
  const text = (f: FieldId): string => row.text(f) || (told.blanks[f as BlankField] === "above" ? (row.above[f as BlankField] ?? "") : "");
  const problems: IntakeProblem[] = [];
  const fail = (field: FieldId, say: string): null => {
    problems.push({ row: row.at, field, say });
    return null;
  };
  const read = <T>(field: FieldId, o: Outcome<T>): T | null => (o.ok ? o.value : fail(field, o.problem.say));
  const nothing = (unknown: string | null = null) => ({ line: null, back: false, problems, unknown });

  for (const [field, most] of LONGEST)
    if (text(field).length > most) fail(field, `“${text(field).slice(0, 20)}…” is over ${most} characters.`);
  if (problems.length > 0) return nothing();
  const name = text("material");
  const material = known.get(name.toLowerCase());
  if (!material) {
    fail("material", name === "" ? "No material is named." : `“${name}” isn't on the shelf.`);
    return nothing(name || null);
  }
  const amount = goodsOf({ packs: text("packs"), packSize: text("packSize"), unit: text("unit") }, told.numbers, material);
  if (!amount.ok) fail(amount.field, amount.problem.say);
  const found = purpose === "opening" && text("price") === "" ? null : read("price", looseMoney(text("price"), told.numbers));
  const price = found && amount.ok ? read("price", costOf(found, amount.value, material)) : null;
  const bestBefore = text("bestBefore") === "" ? null : read("bestBefore", looseDay(text("bestBefore"), told.dates));
  const day = bought(text("day"));
  if (purpose === "receipt" && bestBefore !== null && day !== null && bestBefore < day)
    fail("bestBefore", "That is before the day it arrived.");
  const supplier = text("supplier") || (m.supplier === null ? said.supplier : "");
  if (supplier === "" && purpose === "receipt") fail("supplier", "Say who it came from.");
  const back = (amount.ok && amount.value.back) || found?.credit === true;
  if (back && purpose === "opening") fail("packs", "Nothing on a shelf is below zero.");
  if (problems.length > 0 || !amount.ok) return nothing();
  const { packs, packSize, qty } = amount.value;
  const line: IntakeLine = {
    row: row.at,
    materialId: material.id,
    ...{ packs, packSize, qty },
    price: price?.price ?? null,
    currency: price?.currency ?? "",
    rate: price?.rate ?? RATE_1,
    supplierLot: text("supplierLot"),
    ...{ bestBefore, supplier, day },
  };
  return { line, back, problems, unknown: null };

  function costOf(of: LooseMoney, goods: Goods, facts: Known): Outcome<Paid> {
    const all = priceOfAll(of.n, told.priceOf, goods, facts, of.worked);
    if (!all.ok) return all;
    const foreign = isSignOf(of.sign, own) ? undefined : told.money.get(of.sign);
    if (!foreign || foreign.code === own) return done({ price: all.value, currency: "", rate: RATE_1 });
    // What was on the shelf already has no receipt that would keep the other currency.
    return done(
      purpose === "opening"
        ? { price: inOwn(all.value, foreign.rate), currency: "", rate: RATE_1 }
        : { price: all.value, currency: foreign.code, rate: foreign.rate },
    );
  }
  function bought(cell: string): Day | null {
    const found = cell !== "" ? read("day", looseDay(cell, told.dates)) : m.day === null ? said.day : null;
    if (found !== null && found > today) return fail("day", `“${cell || found}” hasn't come yet.`);
    if (found === null && cell === "" && purpose === "receipt") fail("day", "Say when it was bought.");
    return found;
  }
}

const RATE_1 = 1_000_000;
interface Paid {
  price: Micros;
  currency: string;
  rate: number;
}
