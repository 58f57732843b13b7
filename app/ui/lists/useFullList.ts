/** Loads the rest of a long list, which begins with its newest rows, once somebody searches it, sorts it or asks for more. */
import { useFetcher, useLocation } from "react-router";

export interface Part<T> {
  rows: readonly T[];
  /** Whether there are more than these. */
  more: boolean;
}

/** So many are read at first: two screens of them. */
export const AT_FIRST = 40;

/** Whether the whole of a list is asked for, and how many rows to read then. @example const { most } = askedOf(request) */
export function askedOf(request: Request): { most: number | undefined } {
  return { most: new URL(request.url).searchParams.has("whole") ? undefined : AT_FIRST + 1 };
}

/** The rows of a page's first answer, one having been read to see whether there are more. @example partOf(rows, 101) */
export const partOf = <T>(rows: readonly T[], most: number | undefined): Part<T> =>
  most !== undefined && rows.length >= most ? { rows: rows.slice(0, most - 1), more: true } : { rows, more: false };

/** The list as far as it was read, and how to read all of it. The page's loader answers with a `Part`. */
export function useFullList<T>(first: Part<T>): Part<T> & { ask: () => void } {
  const { data, load, state } = useFetcher<Part<T>>();
  const { pathname } = useLocation();
  const part = data ?? first;
  return {
    ...part,
    ask: () => {
      if (part.more && state === "idle") void load(`${pathname}?whole=yes`);
    },
  };
}
