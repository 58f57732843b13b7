/** Texts by key, of whatever was posted. */
import { isObject } from "#core/objects";

/** @param key how a key is kept @returns an object in which nothing is found that wasn't posted */
export const textsIn = (posted: unknown, key: (k: string) => string = (k) => k): Record<string, string> =>
  Object.assign(
    Object.create(null) as Record<string, string>,
    isObject(posted)
      ? Object.fromEntries(Object.entries(posted).flatMap(([k, v]) => (typeof v === "string" ? [[key(k), v] as const] : [])))
      : {},
  );
