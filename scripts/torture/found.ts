/** What a part of the torture found: figures to print, and whatever must not be. */
export interface Found {
  /** What was done and how it went, in the order they are printed. */
  figures: Record<string, number | string>;
  /** Each of these is a fault. */
  faults: string[];
}

/** How hard and from which seed. */
export interface Turns {
  seed: number;
  /** From 1, as `npm test` runs it, upwards. */
  times: number;
}

/** Does some work in an empty, migrated database that is gone afterwards. */
export type InDatabase = <T>(work: (url: string) => Promise<T>) => Promise<T>;

/** The longest of some times, in whole milliseconds. */
export const longest = (ms: readonly number[]): number => Math.round(ms.reduce((a, b) => Math.max(a, b), 0));
