/** Record numbers as they come in addresses and sheets. */

const LARGEST = 2_147_483_647;

/** The record number a text means, or 0, which no record has. @example idOf("17") // 17 */
export function idOf(text: unknown): number {
  const n = Number(text);
  return Number.isInteger(n) && n > 0 && n <= LARGEST ? n : 0;
}

/**
 * The record numbers an address asks for: `?of=3,4,7`. What is none is passed over; so is what comes after as many as an address has room for.
 * @example idsAsked(new Request("http://x/lines?of=3,x,7")) // [3, 7]
 */
export const idsAsked = (request: Request): number[] =>
  (new URL(request.url).searchParams.get("of") ?? "")
    .split(",", MOST_ASKED)
    .map(idOf)
    .filter((id) => id > 0);

const MOST_ASKED = 500;
