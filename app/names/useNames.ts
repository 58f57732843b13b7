/** The list a field of names chooses from. */
import { useMemo } from "react";
import { useFetcher } from "react-router";
import type { Finds, Name, Names } from "./name.ts";

const NONE: Names = { names: [], library: [] };

interface Known {
  names: Names;
  /** Whether the list is here: before that nothing can be said to be missing from it. */
  there: boolean;
  /** Whether it is on its way. */
  coming: boolean;
  load: () => void;
}

/** The names a field chooses from: read when it is first gone to, and again whenever something was done. */
export function useNames(finds: Finds): Known {
  const { data, load, state } = useFetcher<Names>({ key: `names ${finds.of}` });
  const own = finds.of === "these" ? finds.names : null;
  const kinds = finds.of === "material" ? finds.kinds : undefined;
  const names = useMemo((): Names => {
    if (own) return { names: own, library: [] };
    if (!data) return NONE;
    const fits = (n: Name): boolean => !kinds || (n.kind !== undefined && kinds.includes(n.kind));
    return { names: data.names.filter(fits), library: data.library.filter(fits) };
  }, [data, own, kinds]);
  return {
    names,
    there: own !== null || data !== undefined,
    coming: !own && !data && state !== "idle",
    load: () => {
      if (!own && !data && state === "idle") void load(`/names/${finds.of}`);
    },
  };
}
