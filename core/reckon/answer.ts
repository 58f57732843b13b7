/**
 * Answers to the reckon bar's measuring questions, each with the steps it took.
 */
import Fraction from "fraction.js";
import type { Mg } from "../measure/exact.ts";
import { massOf, volumeMl, USUAL_DROPS_PER_ML, type MassFacts } from "../measure/mass.ts";
import { grams } from "../measure/write.ts";
import { showAmount, type Amount } from "../measure/parse.ts";
import { unit, type UnitId } from "../measure/units.ts";
import { done, refuse, type Outcome } from "../outcome.ts";

/** "30 drops weigh 1.33 g" */
const weighs = (amount: Amount, weight: Mg): string =>
  `${showAmount(amount)} ${amount.n.compare(1) > 0 ? "weigh" : "weighs"} ${grams(weight, 2)}`;

export interface Answer {
  say: string;
  steps: string[];
}

/**
 * An amount of a material in another unit.
 * @returns problems of `massOf`, and `noTarget` for parts and per cent
 * @example convert(amount("60 drops"), "ml", lavender).value.say // "60 drops Lavender = 3 mL"
 */
export function convert(amount: Amount, to: UnitId, facts: MassFacts): Outcome<Answer> {
  const target = unit(to);
  const weight = massOf(amount, facts);
  const from = unit(amount.unit);
  const perMl = facts.dropsPerMl ?? USUAL_DROPS_PER_ML;
  // A scale shows hundredths; kitchen fractions stay as they are.
  const rounded = (n: Fraction): Fraction => (n.d <= 8n ? n : n.round(n.compare(1) < 0 ? 3 : 2));
  const show = (n: Fraction): string => `${showAmount(amount)} ${facts.name} = ${showAmount({ n: rounded(n), unit: to })}`;
  if (target.kind === "volume" && from.kind === "volume") {
    const ml = volumeMl(amount, perMl);
    if (!ml.ok) return ml;
    return done({
      say: show(target.size ? ml.value.div(target.size) : ml.value.mul(perMl)),
      steps: [`${showAmount(amount)} ${amount.n.compare(1) > 0 ? "are" : "is"} ${ml.value.toString(4)} mL`],
    });
  }
  if (!weight.ok) return weight;
  const density = facts.densities[facts.form];
  const by = density ? [`${facts.form} ${facts.name} weighs ${(density / 1000).toFixed(2)} g per mL`] : [];
  const steps = [weighs(amount, weight.value), ...(from.kind === "volume" || target.kind === "volume" ? by : [])];
  if (target.kind === "mass") return done({ say: show(new Fraction(weight.value).div(target.size!)), steps });
  if (target.kind === "volume") {
    if (!density) return refuse("noDensity", `${facts.name} has no density for ${facts.form}; add one on its sheet.`);
    const ml = new Fraction(weight.value).div(density);
    return done({ say: show(target.size ? ml.div(target.size) : ml.mul(perMl)), steps });
  }
  return refuse("noTarget", `Grams can't be turned into ${target.plural ?? target.label} without a recipe.`);
}

/**
 * How strong an amount is in a whole.
 * @param whole a weight
 * @example strength(amount("30 drops"), lavender, amount("400 g")).value.say // "30 drops Lavender in 400 g is 0.33 %"
 */
export function strength(amount: Amount, facts: MassFacts, whole: Amount): Outcome<Answer> {
  const part = massOf(amount, facts);
  if (!part.ok) return part;
  const all = massOf(whole, { ...facts, name: "The whole", densities: {} });
  if (!all.ok) return refuse("wholeIsWeight", "Give the whole as a weight, such as 400 g.");
  const share = part.value / all.value;
  if (share > 1) return refuse("overWhole", "That is more than the whole.");
  return done({
    say: `${showAmount(amount)} ${facts.name} in ${showAmount(whole)} is ${(100 * share).toFixed(2)}\u00a0%`,
    steps: [weighs(amount, part.value), `${grams(part.value, 2)} of ${grams(all.value)} is ${(100 * share).toFixed(2)}\u00a0%`],
  });
}
