/** What the names on a sheet mean, saved beside the sheet: with its draft, and sent with it, so that no name is looked up again on saving. */
import { normalizeName, type Meant } from "#core/meant";
import { isObject } from "#core/objects";

/** By what is named and how it is called. */
export type Means = Map<string, number>;

export const meansKey = (of: string, name: string): string => `${of} ${normalizeName(name)}`;

/** So many names a sheet may have. */
const MOST = 5000;

/** What was saved or sent of it; what can't be is passed over. @example readMeanings([["material olive oil", 5]]).get("material olive oil") // 5 */
export function readMeanings(kept: unknown): Means {
  const means: Means = new Map();
  if (!Array.isArray(kept)) return means;
  for (const entry of kept.slice(0, MOST) as unknown[])
    if (Array.isArray(entry) && typeof entry[0] === "string" && Number.isSafeInteger(entry[1])) means.set(entry[0], entry[1] as number);
  return means;
}

/** What names of one kind mean by a posted sheet. */
export function meantIn(body: unknown, of: string): Meant {
  const means = readMeanings(isObject(body) ? body.means : null);
  return (name) => means.get(meansKey(of, name)) ?? null;
}
