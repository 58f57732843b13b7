/** What may stand in for what is in a recipe; looked up when a page that asks is opened. */
import type { StandIn } from "#core/recipe/instead/standIn";
import type { Judged } from "#core/recipe/judge/judgement";
import { useEffect } from "react";
import { useFetcher } from "react-router";

/** @returns nothing until it is known */
export function useStandIns(judged: Judged): readonly StandIn[] | undefined {
  const { data, load } = useFetcher<StandIn[]>();
  const here = [...new Set(judged.lines.map((l) => l.of))].sort((a, b) => a - b).join(" ");
  useEffect(() => void load(`/recipes/stand-ins?${new URLSearchParams(here.split(" ").map((id) => ["of", id])).toString()}`), [here, load]);
  return data;
}
