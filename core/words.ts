/** Small pieces of English that several sentences need. */

import { writeNumber } from "./numbers.ts";

const LISTS = new Intl.ListFormat("en-GB");

/** @example wordList(["oil", "wax", "honey"]) // "oil, wax and honey" */
export const wordList = (xs: readonly string[]): string => LISTS.format(xs);

/** @example counted(2, "tin") // "2 tins" */
export const counted = (n: number, one: string, many = `${one}s`): string => `${writeNumber(n, 0, 3)} ${n === 1 ? one : many}`;

/** The length of a file. @example showBytes(1_340_000) // "1.3 MB" */
export const showBytes = (bytes: number): string =>
  bytes < 1_000_000 ? `${writeNumber(Math.max(1, Math.round(bytes / 1000)), 0, 3)} kB` : `${writeNumber(bytes / 1_000_000, 0, 1)} MB`;
