/** The cells of one row of a list, each read as what its column holds, with every problem of the row in words. */
import { CENT, micros, type Micros } from "../measure/exact.ts";
import { parseNumber } from "../measure/parse.ts";
import type { Day } from "../when.ts";
import { looseDay, looseMoney, settled } from "../intake/loose.ts";
import { isSignOf } from "../intake/money.ts";
import type { ListRow, RowProblem, Written } from "./list.ts";

/** What cells are read by: how the list writes, what money the workshop keeps, and what day it is. */
export interface Reading extends Written {
  own: string;
  today: Day;
}

/** No price and no takings of a day are more. */
const MOST_MONEY = 1_000_000;
/** What is written after a number of pieces. */
const PIECES = /\s*(?:pcs?|pieces?|units?|tins?|jars?|bars?|x|×)\.?$/i;

export interface Cells<F extends string> {
  problems: RowProblem[];
  fail: (say: string) => null;
  /** Null where nothing is written, and where it can't be read. */
  money: (f: F) => Micros | null;
  whole: (f: F, most: number) => number | null;
  number: (f: F, most: number) => number | null;
  day: (f: F, when: "past" | "any") => Day | null;
  text: (f: F, most: number) => string;
}

/** @example cellsOf(listRow({ price: "9,50 €" }), reading, ORDERS.fields).money("price") // 9.50 */
export function cellsOf<F extends string>(row: ListRow<F>, by: Reading, labels: Readonly<Record<F, string>>): Cells<F> {
  const problems: RowProblem[] = [];
  const fail = (say: string): null => {
    problems.push({ row: row.at, say });
    return null;
  };
  const named = (f: F): string => labels[f].toLowerCase();
  const number = (f: F, most: number): number | null => {
    const text = row.text(f).replace(PIECES, "");
    if (text === "") return null;
    const n = parseNumber(settled(text, by.numbers, true), "asked");
    if (!n.ok) return fail(`${labels[f]}: ${n.problem.say}`);
    return n.value.compare(0) < 0 || n.value.compare(most) > 0
      ? fail(`“${row.text(f)}” can't be the ${named(f)}: between 0 and ${most}.`)
      : n.value.valueOf();
  };
  return {
    problems,
    fail,
    number,
    money: (f) => {
      if (row.text(f) === "") return null;
      const found = looseMoney(row.text(f), by.numbers);
      if (!found.ok) return fail(`${labels[f]}: ${found.problem.say}`);
      const { n, sign, credit, worked } = found.value;
      if (!isSignOf(sign, by.own)) return fail(`“${row.text(f)}” isn't in ${by.own}. Write what it was in ${by.own}.`);
      if (credit) return fail(`“${row.text(f)}” is below zero; that can't be the ${named(f)}.`);
      if (!worked && n.mul(100).d !== 1n) return fail(`“${row.text(f)}”: money has at most two decimals here.`);
      return n.compare(MOST_MONEY) > 0
        ? fail(`“${row.text(f)}” is over a million. Check the amount.`)
        : micros(n.mul(100).round().valueOf() * CENT);
    },
    whole: (f, most) => {
      const n = number(f, most);
      return n === null || Number.isInteger(n) ? n : fail(`“${row.text(f)}” isn't a whole number of ${named(f)}.`);
    },
    day: (f, when) => {
      if (row.text(f) === "") return null;
      const day = looseDay(row.text(f), by.dates);
      if (!day.ok) return fail(day.problem.say);
      return when === "past" && day.value > by.today ? fail(`“${row.text(f)}” hasn't come yet.`) : day.value;
    },
    text: (f, most) => {
      const text = row.text(f);
      if (text.length > most) fail(`The ${named(f)} “${text.slice(0, 20)}…” is over ${most} characters.`);
      return text;
    },
  };
}
