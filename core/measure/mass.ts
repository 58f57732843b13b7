/**
 * From what was measured to what it weighs.
 *
 * Volumes become weights through a density that belongs to the material *in the form it was measured in*: a cup of wax
 * pellets holds about half the wax of a cup of the melted thing. Without a density for that form nothing is guessed.
 */
import { isKeyOf } from "../objects.ts";
import Fraction from "fraction.js";
import { done, refuse, type Outcome } from "../outcome.ts";
import { mg, type Mg } from "./exact.ts";
import type { Amount } from "./parse.ts";
import { unit } from "./units.ts";

/** The state a material is measured in. Only volumes depend on it. */
export const FORMS = {
  liquid: "liquid",
  melted: "melted",
  block: "block",
  pellets: "pellets",
  grated: "grated",
  chopped: "chopped",
  powder: "powder",
  dried: "dried",
} as const;
export type Form = keyof typeof FORMS;
export const FORM_IDS = Object.keys(FORMS) as Form[];

/** Density in milligrams per millilitre (= kg/m³), whole numbers, per form. */
export type Densities = Partial<Record<Form, number>>;
export const isDensities = (v: unknown): v is Densities =>
  typeof v === "object" && v !== null && Object.entries(v).every(([form, d]) => isKeyOf(FORMS, form) && typeof d === "number" && d > 0);

export interface MassFacts {
  name: string;
  form: Form;
  densities: Densities;
  /** About 20 for essential oils, fewer for thick oils; common practice, no source. */
  dropsPerMl?: number | null;
  /** What one piece weighs (a capsule, say), so that pieces can stand in a recipe. */
  pieceMg?: number | null;
}

/** Common practice, no source: about 20 drops of essential oil to the millilitre. */
export const USUAL_DROPS_PER_ML = 20;

/** Nothing on a kitchen bench weighs a tonne; above it the unit is wrong. */
export const ABSURD_MG = mg(1_000_000_000);

/** Rounds an exact number of milligrams half up. */
const toMg = (milligrams: Fraction): Mg => mg(milligrams.round().valueOf());

/**
 * Millilitres in an amount of volume.
 * @param dropsPerMl drops to the mL for this liquid
 * @returns problem `notVolume`
 * @example volumeMl({ n: new Fraction(60), unit: "drop" }, 20) // 3 mL
 */
export function volumeMl(amount: Amount, dropsPerMl: number = USUAL_DROPS_PER_ML): Outcome<Fraction> {
  const u = unit(amount.unit);
  if (u.kind !== "volume") return refuse("notVolume", `${u.label} isn't a volume.`);
  return done(u.size ? amount.n.mul(u.size) : amount.n.div(dropsPerMl));
}

/**
 * What an amount of a material weighs, in whole milligrams.
 * @returns problems `zero`, `absurd`, `noDensity`, `wrongKind`
 * @example massOf({ n: new Fraction(2), unit: "tbsp" }, { name: "Beeswax", form: "pellets", densities: { pellets: 480 } }) // 14 195 mg
 */
export function massOf(amount: Amount, facts: MassFacts): Outcome<Mg> {
  const u = unit(amount.unit);
  if (amount.n.compare(0) <= 0) return refuse("zero", "Enter more than zero.");
  if (u.kind === "share") return refuse("wrongKind", "Parts and per cent only mean something inside a recipe.");
  let milligrams: Fraction;
  if (u.kind === "mass") milligrams = amount.n.mul(u.size!);
  else if (u.kind === "count") {
    if (!facts.pieceMg)
      return refuse("wrongKind", `${facts.name} is weighed: nobody has said what one piece of it weighs. Use g, oz, cups or drops.`);
    milligrams = amount.n.mul(facts.pieceMg);
  } else {
    const density = facts.densities[facts.form];
    if (!density) {
      return refuse(
        "noDensity",
        `${facts.name} has no density for ${FORMS[facts.form]}, so ${u.plural ?? u.label} can't be turned into grams. Add one on its sheet, or weigh it.`,
      );
    }
    const ml = volumeMl(amount, facts.dropsPerMl ?? undefined);
    if (!ml.ok) return ml;
    milligrams = ml.value.mul(density);
  }
  if (milligrams.compare(ABSURD_MG) > 0) return refuse("absurd", "That is over a tonne. Check the amount and the unit.");
  const weight = toMg(milligrams);
  return weight > 0 ? done(weight) : refuse("zero", "That is less than a milligram.");
}

/**
 * The other reading of a bare "oz": makers mean weight for solids and usually volume for liquids, so both are shown.
 * @returns null unless the amount is in oz and the material pours
 */
export function otherOunce(amount: Amount, facts: MassFacts): Mg | null {
  if (amount.unit !== "oz" || facts.form !== "liquid") return null;
  const asVolume = massOf({ n: amount.n, unit: "floz" }, facts);
  return asVolume.ok ? asVolume.value : null;
}
