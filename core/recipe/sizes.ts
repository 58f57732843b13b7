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
import { writeNumber } from "../numbers.ts";
import { done, refuse, type Outcome } from "../outcome.ts";

export const FILL_BY = { weight: "by weight", volume: "by volume", full: "to its usable capacity" } as const;
export type FillBy = keyof typeof FILL_BY;

/** Starch, clay and fine plant powder sink in the melt and take this much room; mg/mL, from memory. */
const SUSPENDED = 1500;
const POWDERS: ReadonlySet<KindId> = new Set<KindId>(["powder", "colour", "herb"]);

/** An oil at 65 °C weighs so much of what it does at 20; from memory. Densities of what melts are those of the melt already. */
const OIL_HOT = 0.97;

/** What fills a pot: how much of it, and what it weighs for the room it takes in each of its forms. */
interface InPot {
  name: string;
  weight: Mg;
  kind: KindId;
  densities: Densities;
}

/** Density of a material in the melt, once it is at room warmth and as it is poured; powders as they are suspended. mg/mL; null where nobody has said. */
function densityOf({ kind, densities: { melted, liquid } }: Pick<InPot, "kind" | "densities">): Density | null {
  const cold = melted ?? liquid ?? (POWDERS.has(kind) ? SUSPENDED : null);
  return cold === null ? null : { cold, filled: melted === undefined && liquid !== undefined ? liquid * OIL_HOT : cold };
}

/** What a batch weighs for the room it takes, mg/mL, with the air that is whipped in: at room warmth, and as it is filled. */
export interface Density {
  cold: number;
  filled: number;
}

/**
 * Density of a whole batch: all it weighs over all the room it takes. It is filled hot, at about 65 °C, where its oils take more room; what is
 * whipped is filled cold.
 * @param overrunBp air whipped in, of the volume before, in basis points
 * @returns mg/mL; problem `noDensity` naming the material nobody has measured
 * @example batchDensity([{ name: "Olive oil", kind: "oil", densities: { liquid: 900 }, weight: mg(900) }], 2500).value.filled // 720
 */
export function batchDensity(lines: readonly InPot[], overrunBp: number): Outcome<Density> {
  let [weight, cold, hot] = [0, 0, 0];
  for (const l of lines) {
    const density = densityOf(l);
    if (density === null)
      return refuse(
        "noDensity",
        `${l.name} has no density melted or liquid, so a volume can't be turned into grams. Add one on its sheet, or fill by weight.`,
      );
    weight += l.weight;
    cold += l.weight / density.cold;
    hot += l.weight / density.filled;
  }
  if (cold === 0) return refuse("noLines", "Write the ingredients first: a volume weighs what is in it.");
  const airy = weight / (cold * (1 + overrunBp / 10_000));
  return done({ cold: airy, filled: overrunBp > 0 ? airy : weight / hot });
}

export interface Fill {
  by: FillBy;
  weight: Mg;
  /** What the room it fills would weigh at the other warmth, where that is worth a word: cold where it is simply full, hot where a volume was typed. */
  other: Mg | null;
  /** The room it takes as it is filled; null where the batch's density isn't known. */
  ml: number | null;
  /** How it is called after the recipe's name. */
  label: string;
}

/** Less than a hundredth is nobody's worry. */
const NOTICED = 0.01;

/**
 * What one unit is filled with, as typed: "60 g", "2 fl oz", or nothing for a container that is simply filled. What is simply filled is filled
 * hot, and weighs what that room holds then; a volume that was typed is what it holds at room warmth, as on a label.
 * @param density of the batch
 * @param container what it goes into; needed where nothing is typed
 * @returns problems `empty`, `noCapacity`, `noDensity` and those of reading an amount
 * @example readFill("60 mL", density, null).value.weight // 54 g
 */
export function readFill(text: string, density: Outcome<Density>, container: (ContainerFacts & { name: string }) | null): Outcome<Fill> {
  const inRoom = (ml: number, warmth: keyof Density, said: { by: FillBy; label: string }): Outcome<Fill> => {
    if (!density.ok) return density;
    const { cold, filled } = density.value;
    const [weight, other] = warmth === "cold" ? [ml * cold, ml * filled] : [ml * filled, ml * cold];
    return done({
      ...said,
      weight: mg(Math.round(weight)),
      other: filled > cold * (1 - NOTICED) ? null : mg(Math.round(other)),
      ml: weight / filled,
    });
  };
  if (text.trim() === "") {
    if (!container) return refuse("empty", "Enter what one unit is filled with, such as 60 g or 2 fl oz, or choose its container.");
    const room = holds(container);
    if (!room) return refuse("noCapacity", `Nobody has measured what ${container.name} holds. Enter it on its sheet, or say what goes in.`);
    return inRoom(room.ml, "filled", { by: "full", label: `${writeNumber(room.ml, 0, 0)} mL` });
  }
  const amount = parseAmount(text, "g");
  if (!amount.ok) return amount;
  const { kind } = unit(amount.value.unit);
  const label = showAmount(amount.value);
  if (kind === "volume") {
    const ml = volumeMl(amount.value);
    if (!ml.ok) return ml;
    const fill = inRoom(ml.value.valueOf(), "cold", { by: "volume", label });
    return fill.ok && fill.value.weight <= 0 ? refuse("zero", "Enter more than zero.") : fill;
  }
  if (kind !== "mass") return refuse("wrongKind", "Enter a weight or a volume, such as 60 g or 2 fl oz.");
  const weight = massOf(amount.value, { name: "", form: "block", densities: {} });
  if (!weight.ok) return weight;
  const ml = density.ok ? weight.value / density.value.filled : null;
  return done({ by: "weight", weight: weight.value, other: null, ml, label });
}

/**
 * What is filled by eye comes out a little over or under, and what is poured hot swells by up to 3 %: so much more than a container holds is not
 * worth a word.
 */
const BY_EYE = 1.035;

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
 * @example otherFill("2 oz", density)?.label // "2 fl oz"
 */
export function otherFill(text: string, density: Outcome<Density>): Fill | null {
  const amount = parseAmount(text, "g");
  if (!amount.ok || amount.value.unit !== "oz") return null;
  const fluid = readFill(`${new Fraction(amount.value.n).toFraction()} fl oz`, density, null);
  return fluid.ok ? fluid.value : null;
}
