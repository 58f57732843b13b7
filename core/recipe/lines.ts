/**
 * A recipe as written, turned into grams and per cent.
 *
 * Lines may be weights, volumes, drops or pieces (fixed), per cent of the whole, or parts of what is left. The whole is
 * found so that everything agrees: with per cent only beside fixed lines it follows from them; parts need to be told how
 * much the batch makes.
 */
import Fraction from "fraction.js";
import { allocate, mg, sum, type Mg } from "../measure/exact.ts";
import { massOf, type MassFacts } from "../measure/mass.ts";
import type { Amount } from "../measure/parse.ts";
import { unit } from "../measure/units.ts";
import type { Problem } from "../outcome.ts";

export interface LineIn {
  amount: Amount;
  facts: MassFacts;
}

export type LineOut = { ok: true; weight: Mg; /** Share of the batch, 0 to 1. */ share: number } | { ok: false; problem: Problem };

export interface RecipeWeights {
  lines: LineOut[];
  total: Mg;
  /** What stops the recipe as a whole, if anything. */
  problem: Problem | null;
}

const problemLine = (code: string, say: string): LineOut => ({ ok: false, problem: { code, say } });

/**
 * Weighs every line of a recipe. A line with a problem carries it and the rest are still weighed.
 * @param makes batch weight the parts (or per cent alone) are taken of; null when the lines say it themselves
 * @returns recipe problems `noLines`, `partsNeedWhole`, `over100`, `overWhole`
 * @example weighRecipe([{ amount: amount("1 part"), facts: shea }, { amount: amount("3 parts"), facts: shea }], mg(400_000)).lines[0].share // 0.25
 */
export function weighRecipe(lines: readonly LineIn[], makes: Mg | null): RecipeWeights {
  const zero = new Fraction(0);
  let percents = zero;
  let parts = zero;
  const fixed = lines.map(({ amount, facts }): LineOut | null => {
    if (unit(amount.unit).kind !== "share") {
      const m = massOf(amount, facts);
      return m.ok ? { ok: true, weight: m.value, share: 0 } : { ok: false, problem: m.problem };
    }
    if (amount.n.compare(0) <= 0) return problemLine("zero", "Enter more than zero.");
    if (amount.unit === "percent") percents = percents.add(amount.n);
    else parts = parts.add(amount.n);
    return null;
  });
  const fixedTotal = sum(fixed.map((l) => (l?.ok ? l.weight : mg(0))));
  const stop = (code: string, say: string): RecipeWeights => ({
    lines: fixed.map((l) => l ?? problemLine(code, say)),
    total: fixedTotal,
    problem: { code, say },
  });
  if (lines.length === 0) return { lines: [], total: mg(0), problem: { code: "noLines", say: "Add at least one ingredient." } };
  if (percents.compare(100) > 0) return stop("over100", `The per cent lines add up to ${percents.toString(2)} %, more than the whole.`);

  let total: Mg;
  if (parts.compare(0) > 0 || (percents.compare(0) > 0 && fixedTotal === 0)) {
    if (makes === null) return stop("partsNeedWhole", "Say how much the batch makes, so that parts and per cent become grams.");
    total = makes;
  } else if (percents.compare(0) > 0) {
    if (percents.compare(100) === 0) return stop("over100", "The per cent lines leave nothing for the weighed ones.");
    total = mg(new Fraction(fixedTotal).mul(100).div(new Fraction(100).sub(percents)).round().valueOf());
  } else total = fixedTotal;

  // What the weighed lines leave open. Without parts all of it is the per cent lines', to the milligram that rounding the whole left;
  // with parts these have what the others leave.
  const open = total - fixedTotal;
  const percentOf = (n: Fraction): Fraction => n.mul(total).div(100);
  const left = new Fraction(open).sub(percentOf(percents));
  const hasParts = parts.compare(0) > 0;
  if (open < 0 || (hasParts && left.compare(1) < 0))
    return stop("overWhole", "The weighed and per cent lines already fill the whole batch; nothing is left for the parts.");
  if (!hasParts && fixedTotal === 0 && percents.compare(0) > 0 && percents.compare(100) < 0)
    return stop("over100", `The per cent lines add up to ${percents.toString(2)} %, not to 100 %.`);

  // Shares of the open weight, as whole numbers on one denominator, so that the grams add up to the total to the milligram.
  const weights = lines.map(({ amount }, i) => {
    if (fixed[i]) return zero;
    return amount.unit === "percent" ? percentOf(amount.n) : left.mul(amount.n).div(parts);
  });
  const milli = weights.map((w) => w.mul(1000).round().valueOf());
  const shares = milli.some((w) => w > 0) ? allocate(open, milli) : weights.map(() => 0);
  return {
    total,
    problem: null,
    lines: fixed.map((l, i): LineOut => {
      if (l && !l.ok) return l;
      const weight = l ? l.weight : mg(shares[i]!);
      return { ok: true, weight, share: total > 0 ? weight / total : 0 };
    }),
  };
}
