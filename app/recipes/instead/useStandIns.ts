/** Substitutes for the ingredients of a recipe, looked up when a page that needs them is opened. */
import type { StandIn } from "#core/recipe/instead/standIn";
import { useEffect } from "react";
import { useFetcher } from "react-router";

/** @param of materials by number; of none nobody is asked @returns nothing until it is known */
export function useStandIns(of: readonly number[]): readonly StandIn[] | undefined {
  const { data, load } = useFetcher<StandIn[]>();
  const here = [...new Set(of)].sort((a, b) => a - b).join(" ");
  useEffect(() => {
    if (here !== "") void load(`/recipes/stand-ins?${new URLSearchParams(here.split(" ").map((id) => ["of", id])).toString()}`);
  }, [here, load]);
  return data;
}
