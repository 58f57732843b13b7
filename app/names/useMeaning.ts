/** Records what the names on a sheet mean, for as long as each is on it. */
import type { Meant } from "#core/meant";
import { useCallback, useEffect } from "react";
import { meansKey, type Means } from "../forms/meanings.ts";
import type { NamedKind } from "./named.ts";

/** What names of a kind mean on a sheet; null where it recorded none. */
export const useMeaningOf = (of: NamedKind, means: Means | undefined): Meant =>
  useCallback<Meant>((name) => means?.get(meansKey(of, name)) ?? null, [of, means]);

/**
 * @param names all of that kind that are on the sheet
 * @param finds what is found by a name; the same function as long as it would find the same
 */
export function useRememberMeaning(
  of: NamedKind,
  names: readonly string[],
  finds: (name: string) => { id?: number } | null,
  means?: Means,
): void {
  const stand = [...new Set(names.map((n) => meansKey(of, n)))].join("\n");
  useEffect(() => {
    if (!means) return;
    const standing = new Set(stand.split("\n"));
    for (const key of means.keys()) if (key.startsWith(`${of} `) && !standing.has(key)) means.delete(key);
    for (const key of standing) {
      const id = finds(key.slice(of.length + 1))?.id;
      if (id !== undefined && !means.has(key)) means.set(key, id);
    }
  }, [of, stand, finds, means]);
}
