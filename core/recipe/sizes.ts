/**
 * Sizes: a recipe in a container. Filled by weight, by volume, or simply full; what a volume weighs follows from what is in the batch.
 */
import Fraction from "fraction.js";
import { depthMm, holds, type ContainerFacts } from "../material/container.ts";
import type { KindId } from "../material/kinds.ts";
import { mg, type Mg } from "../measure/exact.ts";
import { massOf, volumeMl, type Densities } from "../measure/mass.ts";
import { parseAmount, showAmount } from "../measure/parse.ts";
import { unit } from "../measure/units.ts";
import { writeNumber } from "../measure/write.ts";
import { done, refuse, type Outcome } from "../outcome.ts";

export const FILL_BY = { weight: "by weight", volume: "by volume", full: "to its usable capacity" } as const;
export type FillBy = keyof typeof FILL_BY;

/** Starch, clay and fine plant powder sink in the melt and take this much room; mg/mL, from memory. */
const SUSPENDED = 1500;
const POWDERS: ReadonlySet<KindId> = new Set<KindId>(["powder", "colour", "herb"]);

/**
 * Density of a material as it is in the pot: melted or liquid; powders as they are suspended. Null where nobody has said.
 * @returns mg/mL
 * @example densityInPot({ kind: "wax", densities: { pellets: 480, melted: 860 } }) // 860
 */
export const densityInPot = (m: { kind: KindId; densities: Densities }): number | null =>
  m.densities.melted ?? m.densities.liquid ?? (POWDERS.has(m.kind) ? SUSPENDED : null);

/**
 * Density of a whole batch, melted: all it weighs over all the room it takes.
 * @returns mg/mL; problem `noDensity` naming the material nobody has measured
 * @example batchDensity([{ name: "Oil", weight: mg(900), density: 900 }, { name: "Wax", weight: mg(860), density: 860 }]) // 880
 */
export function batchDensity(lines: readonly { name: string; weight: Mg; density: number | null }[]): Outcome<number> {
  let room = 0;
  let weight = 0;
  for (const l of lines) {
    if (l.density === null)
      return refuse(
        "noDensity",
        `${l.name} has no density melted or liquid, so a volume can't be turned into grams. Add one on its sheet, or fill by weight.`,
      );
    room += l.weight / l.density;
    weight += l.weight;
  }
  return room > 0 ? done(weight / room) : refuse("noLines", "Write the ingredients first: a volume weighs what is in it.");
}

export interface Pot {
  density: Outcome<number>;
  /** Air whipped in, of the volume before, in basis points. */
  overrunBp: number;
}

/** mg in a millilitre as it is filled, air and all. */
export const filledDensity = (density: number, overrunBp: number): number => density / (1 + overrunBp / 10_000);

export interface Fill {
  by: FillBy;
  weight: Mg;
  /** The room it takes; null where the batch's density isn't known. */
  ml: number | null;
  /** How it is called after the recipe's name. */
  label: string;
}

/**
 * What one unit is filled with, as typed: "60 g", "2 fl oz", or nothing for a container that is simply filled.
 * @param container what it goes into; needed where nothing is typed
 * @returns problems `empty`, `noCapacity`, `noDensity` and those of reading an amount
 * @example readFill("60 mL", pot, null).value.weight // 54 g
 */
export function readFill(text: string, pot: Pot, container: (ContainerFacts & { name: string }) | null): Outcome<Fill> {
  const inMl = (ml: number): Outcome<Mg> =>
    pot.density.ok ? done(mg(Math.round(ml * filledDensity(pot.density.value, pot.overrunBp)))) : pot.density;
  if (text.trim() === "") {
    if (!container) return refuse("empty", "Enter what one unit is filled with, such as 60 g or 2 fl oz, or choose its container.");
    const room = holds(container);
    if (!room) return refuse("noCapacity", `Nobody has measured what ${container.name} holds. Enter it on its sheet, or say what goes in.`);
    const weight = inMl(room.ml);
    return weight.ok ? done({ by: "full", weight: weight.value, ml: room.ml, label: `${writeNumber(room.ml, 0, 0)} mL` }) : weight;
  }
  const amount = parseAmount(text, "g");
  if (!amount.ok) return amount;
  const { kind } = unit(amount.value.unit);
  const label = showAmount(amount.value);
  if (kind === "volume") {
    const ml = volumeMl(amount.value);
    if (!ml.ok) return ml;
    const room = ml.value.valueOf();
    const weight = inMl(room);
    if (!weight.ok) return weight;
    return weight.value > 0 ? done({ by: "volume", weight: weight.value, ml: room, label }) : refuse("zero", "Enter more than zero.");
  }
  if (kind !== "mass") return refuse("wrongKind", "Enter a weight or a volume, such as 60 g or 2 fl oz.");
  const weight = massOf(amount.value, { name: "", form: "block", densities: {} });
  if (!weight.ok) return weight;
  const ml = pot.density.ok ? weight.value / filledDensity(pot.density.value, pot.overrunBp) : null;
  return done({ by: "weight", weight: weight.value, ml, label });
}

/** What is filled by eye comes out a little over or under: so much more than a container holds is not worth a word. */
const BY_EYE = 1.02;

/**
 * Whether more goes into a container than it holds, in words; null when it fits or nobody knows.
 * @example overfull(75, { ...tin, usableMl: 60 }) // "75 mL is more than the 60 mL Tin holds."
 */
export function overfull(ml: number | null, container: (ContainerFacts & { name: string }) | null): string | null {
  const room = container && holds(container);
  if (!room || ml === null || ml <= room.ml * BY_EYE) return null;
  return `${writeNumber(ml, 0, 0)} mL is more than the ${writeNumber(room.ml, 0, 0)} mL ${container.name} holds.`;
}

/**
 * How far so much fills a container and what stays free for its lid, in words; empty where nobody has measured it.
 * @param ml as it is filled, warm
 * @example headspace(66, { ...tin, brimMl: 80 }) // "66 mL as it is filled, 14 mL free below the brim"
 */
export function headspace(ml: number, container: ContainerFacts): string {
  const { brimMl, innerMm } = container;
  const room = holds(container);
  if (!room) return "";
  const deep = innerMm ? `${writeNumber(depthMm(ml, innerMm), 0, 0)} mm deep` : "";
  const free = brimMl && brimMl > ml ? `${writeNumber(brimMl - ml, 0, 0)} mL free below the brim` : "";
  const of = deep || free ? "" : `of the ${writeNumber(room.ml, 0, 0)} mL it holds`;
  return [`${writeNumber(ml, 0, 0)} mL as it is filled`, deep, free, of].filter(Boolean).join(", ");
}

/**
 * The other reading of a bare "oz" in a jar's size, which is often meant by volume; null unless it is one.
 * @example otherFill("2 oz", pot)?.label // "2 fl oz"
 */
export function otherFill(text: string, pot: Pot): Fill | null {
  const amount = parseAmount(text, "g");
  if (!amount.ok || amount.value.unit !== "oz") return null;
  const fluid = readFill(`${new Fraction(amount.value.n).toFraction()} fl oz`, pot, null);
  return fluid.ok ? fluid.value : null;
}
