/** Loads the chosen recipe and version, where the page came with another one. */
import { mg } from "#core/measure/exact";
import { exactWeightText } from "#core/measure/read";
import { fillPlan } from "#core/recipe/scale";
import { useEffect } from "react";
import { useFetcher } from "react-router";
import type { Route } from "./+types/setOut";

export type Loaded = Route.ComponentProps["loaderData"];
export type Chosen = NonNullable<Loaded["chosen"]>;

/**
 * As many of each size as last time; where there was none, as many of the first as the recipe is written for.
 * @param asked so many of one size, or of the first, instead
 */
export function initialUnits({ written, last }: Chosen, asked?: Pick<Loaded, "size" | "units">): string[] {
  if (asked && asked.units !== "") {
    const at = Math.max(
      0,
      written.sizes.findIndex((s) => s.id === asked.size),
    );
    return written.sizes.map((_, i) => (i === at ? asked.units : ""));
  }
  const texts = written.sizes.map((s) => String(last.find((u) => u.productId === s.id)?.units ?? ""));
  if (texts.some((t) => t !== "")) return texts;
  const [first] = written.sizes;
  const fills = first ? fillPlan(written.recipe.total, first.fill, written.recipe.lossBp).units : 0;
  return [String(Math.max(1, fills))];
}

/** All that is free of a base, as it is typed. */
export function allOfBase({ stuff }: Chosen, lotId: number): string {
  const free = stuff.flatMap((s) => s.lots).find((l) => l.id === lotId)?.onHand ?? 0;
  return free > 0 ? exactWeightText(mg(free)) : "";
}

export const versionOf = ({ written }: Chosen): string => String(written.recipe.n);

/**
 * @param version its number; none is the newest
 * @param toNewest what is to be done where that version was taken back meanwhile
 */
export function useChosen(page: Loaded, recipe: string, version: string, toNewest: () => void): Chosen | null {
  const { data, load } = useFetcher<Loaded>();
  const known = [page.chosen, data?.chosen].filter((c) => c != null).filter((c) => String(c.written.recipe.id) === recipe);
  const found = known.find((c) => versionOf(c) === (version || String(c.versions[0]?.n))) ?? null;
  const missing = !found && page.choices.some((c) => String(c.id) === recipe);
  const gone = missing && version !== "" && known.some((c) => c.versions.every((v) => String(v.n) !== version));
  useEffect(() => {
    if (gone) toNewest();
    else if (missing) void load(`/bench/set-out?recipe=${recipe}&version=${version}`);
  }, [gone, missing, recipe, version, load, toNewest]);
  return found;
}
