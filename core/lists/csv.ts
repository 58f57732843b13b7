/**
 * Writes tables as CSV (RFC 4180, a byte-order mark in front), for people and their spreadsheets. Papa Parse quotes the cells; this module
 * writes the numbers, and makes text of what a spreadsheet would run.
 */
import Papa from "papaparse";
import { PER_ONE, type FileColumn } from "./fileColumns.ts";
import { NUMBER_HABITS, type NumberHabit } from "../measure/habit.ts";

/** Signs a spreadsheet takes for the beginning of a formula, full-width ones too, and characters it skips before one. */
const RUNS = /^[\s\p{Cf}\p{Cc}]*[=+\-@\uff1d\uff0b\uff0d\uff20\u2212|]|^[\t\r\n]/u;
const A_NUMBER = /^[-+]?\d+(?:[.,]\d+)?$/;

/** A cell that a spreadsheet would run is written as text (OWASP, "CSV Injection"); a plain number stays one. */
const asText = (cell: string): string => (RUNS.test(cell) && !A_NUMBER.test(cell) ? `'${cell}` : cell);

/**
 * How spreadsheets of a place read numbers. Those that read a decimal comma part cells by semicolons: a comma would be in the numbers.
 * Who types numbers with a comma has such a spreadsheet.
 */
export type NumbersInFiles = "point" | "comma";

/** @param habit in which 1 234,5 is "space" @example numbersInFiles("space") // "comma" */
export const numbersInFiles = (habit: NumberHabit): NumbersInFiles => (NUMBER_HABITS[habit].marks?.[1] === "," ? "comma" : "point");

/** Rows as CSV without headings. @example writeRows([["a", "b, c"]]) // 'a,"b, c"\r\n' */
export const writeRows = (rows: readonly (readonly string[])[], numbers: NumbersInFiles = "point"): string =>
  rows.length === 0
    ? ""
    : `${Papa.unparse(
        rows.map((r) => r.map(asText)),
        { newline: "\r\n", delimiter: numbers === "comma" ? ";" : "," },
      )}\r\n`;

/**
 * Writes a table as CSV with a byte-order mark, so that spreadsheets read its letters right.
 * @example writeTable(["a"], [["b, c"]]) // '\ufeffa\r\n"b, c"\r\n'
 */
export const writeTable = (header: readonly string[], rows: readonly (readonly string[])[], numbers: NumbersInFiles = "point"): string =>
  `\ufeff${writeRows([header, ...rows], numbers)}`;

export interface FileStyle {
  numbers: NumbersInFiles;
  /** ISO 4217 code, for the heading of every column of money. */
  currency: string;
}

/** Decimals no list has: 17 digits of a share would say more than is known. Money and grams have fewer, so none of theirs is lost. */
const DECIMALS = 6;

/** A number as files have it, no digit lost: without groups, never with an exponent. @example numberCell(1234.5, "comma") // "1234,5" */
export function numberCell(n: number, numbers: NumbersInFiles): string {
  const text = n.toFixed(DECIMALS).replace(/\.?0+$/, "");
  return numbers === "comma" ? text.replace(".", ",") : text;
}

const headOf = <R>({ head, as }: FileColumn<R>, currency: string): string =>
  as === "money" ? `${head} (${currency})` : as === "grams" ? `${head} (g)` : as === "percent" ? `${head} (%)` : head;

const cellOf = <R>(column: FileColumn<R>, row: R, numbers: NumbersInFiles): string => {
  if (column.as === undefined) return column.of(row) ?? "";
  const n = column.of(row);
  return n === null ? "" : numberCell(n / PER_ONE[column.as], numbers);
};

/** The headings of a list's file. @example headsOf([{ head: "paid", of: (r) => r.paid, as: "money" }], "EUR") // ["paid (EUR)"] */
export const headsOf = <R>(columns: readonly FileColumn<R>[], currency: string): string[] => columns.map((c) => headOf(c, currency));

/** Rows of a list as its file has them. @example rowsOfList([{ head: "paid", of: (r) => r.paid, as: "money" }], [{ paid: 12_500_000 }], "point") // [["12.5"]] */
export const rowsOfList = <R>(columns: readonly FileColumn<R>[], rows: readonly R[], numbers: NumbersInFiles): string[][] =>
  rows.map((r) => columns.map((c) => cellOf(c, r, numbers)));

/**
 * A list as a file. Amounts that are weighed or counted, by row, are `amountColumns`.
 * @example writeList([{ head: "paid", of: (r) => r.paid, as: "money" }], [{ paid: 12_500_000 }], { numbers: "point", currency: "EUR" }) // '\ufeffpaid (EUR)\r\n12.5\r\n'
 */
export const writeList = <R>(columns: readonly FileColumn<R>[], rows: readonly R[], { numbers, currency }: FileStyle): string =>
  writeTable(headsOf(columns, currency), rowsOfList(columns, rows, numbers), numbers);
