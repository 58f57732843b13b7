/** The ladders of all products, of what their sizes cost and are sold for: the worst first. */
import { groupBy } from "#core/collect";
import { ladderFindings, OUT_OF_LINE, type Rung } from "#core/pricing/ladder";
import { CHANNEL_IDS } from "#core/pricing/pricingMethods";
import type { Settings } from "#core/settings/settings";
import type { ChosenPrices } from "#db/prices/prices";
import type { unitCostsOf } from "#db/recipe/costs";

/** By what a gram is sold for where it is dearest: at the stall, as a rule. */
const perGram = (r: Rung): number => Math.max(0, ...CHANNEL_IDS.map((c) => (r.prices[c] ?? 0) / r.fill));

/** @returns sizes from the dearest per gram to the cheapest; what is stirred into some of a batch makes another product of it, with its own ladder */
export function laddersOf(recipes: Awaited<ReturnType<typeof unitCostsOf>>, chosen: ChosenPrices, settings: Settings) {
  const ladders = recipes.flatMap(({ recipe, sizes }) =>
    [...groupBy(sizes, (s) => s.variant)].map(([variant, of]) => {
      const rungs = of.map(({ id, label, fill, cost }): Rung => ({
        ...{ id, label, fill },
        cost: cost.perUnit[settings.school]?.total ?? null,
        prices: chosen.get(id) ?? {},
      }));
      return {
        key: `${recipe.id} ${variant}`,
        name: variant ? `${recipe.name}, ${variant}` : recipe.name,
        rungs: rungs.sort((a, b) => perGram(b) - perGram(a) || a.fill - b.fill),
        findings: ladderFindings(rungs, settings.pricing),
      };
    }),
  );
  const worst = ({ findings: [first] }: (typeof ladders)[number]): number =>
    first ? OUT_OF_LINE.indexOf(first.wrong) : OUT_OF_LINE.length;
  return ladders.sort((a, b) => worst(a) - worst(b));
}
