/**
 * What is on a paper, before it is drawn: a heading, and parts one beneath the other. Each page that offers *Save as PDF* writes one out of
 * what the page itself shows; `draw.ts` draws it.
 */

/** A cell of a table. A note is smaller, beneath. */
export type Cell = string | { text: string; note?: string | undefined; strong?: boolean };

export interface Column {
  head: string;
  /** Figures and weights stand at the right and never wrap; a lot is in the letters of its tag; "write" is a line to write on. */
  as?: "figure" | "weight" | "lot" | "write";
}

export interface Rows {
  /** Over the rows, such as a kind of material. */
  head?: string;
  rows: readonly (readonly Cell[])[];
}

export interface Table {
  columns: readonly Column[];
  groups: readonly Rows[];
  /** What it comes to, beneath. */
  foot?: readonly Cell[];
}
/** A line to fill in by hand: what it is, what is known already, the unit after it. */
export type ToWrite = readonly [label: string, value: string, unit?: string];

export type Part =
  | { heading: string }
  | { text: string; as?: "soft" | "strong" | "title" | "caution" }
  /** What something is, and what is known of it. Those without a value are left out. */
  | { facts: readonly (readonly [label: string, value: string | false | null | undefined])[]; as?: "figure" }
  | Table
  | { toWrite: readonly ToWrite[] }
  /** What comes now begins a page. */
  | { page: true };

export interface Paper {
  /** The document’s title, and its first heading unless what follows has headings enough. */
  title: string;
  headed?: false;
  /** Beneath the heading, line by line. */
  about?: string;
  /** Of the file's name. @example "order-12" */
  file: string;
  parts: readonly Part[];
}
