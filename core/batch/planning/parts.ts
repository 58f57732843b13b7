/**
 * One base poured in parts: some plain, and some with a colour, a scent or a mineral stirred in. A part is meant to fill so many of a size;
 * what goes into it is a share of the part, so that the next one comes out alike whatever its size.
 */
import { mg, mulDiv, sum, type Mg } from "../../measure/exact.ts";
import { parseAmount, plainText } from "../../measure/parse.ts";
import { readWeight } from "../../measure/read.ts";
import { done, refuse, type Outcome } from "../../outcome.ts";
import type { ScentLine } from "../../scent/dilution.ts";

/** Shares are stored in millionths: a colour of a thousandth still has three figures. */
const WHOLE = 1_000_000;
/** More than a third of something else is another recipe, not a variant of this one: common practice, no source. */
export const MOST_STIRRED_IN = 333_333;

/**
 * Everything in the jug of a part: what is filled, and what will stay in it.
 * @param lossBp of the whole pot that stays in the jug, in basis points
 * @example partTotal(6, mg(49_000), 200) // 300_000
 */
export const partTotal = (units: number, fill: Mg, lossBp: number): Mg => mg(Math.ceil((units * fill * 10_000) / (10_000 - lossBp)));

/** What is stirred into a part of so much, out of millionths of it. @example additionWeight(mg(300_000), 20_000) // 6_000 */
export const additionWeight = (total: Mg, ppm: number): Mg => mg(Math.max(1, mulDiv(total, ppm, WHOLE)));

/** What is to be ladled out of the pot. @example ladled(mg(300_000), [mg(6_000)]) // 294_000 */
export const ladled = (total: Mg, additions: readonly Mg[]): Mg => mg(Math.max(0, total - sum(additions)));

/**
 * Everything in the jug of a part, by what was ladled into it.
 * @param ppm of it all that is stirred in together, in millionths
 * @example ofLadled(mg(294_000), 20_000) // 300_000
 */
export const ofLadled = (out: Mg, ppm: number): Mg => mg(mulDiv(out, WHOLE, WHOLE - ppm));

/** How much of a part something is meant to be: a share of it, or as much as goes into this one. */
export type Measure = { ppm: number } | { weight: Mg };

/** As typed; a number by itself is per cent. @example readMeasure("2 %") // { ppm: 20_000 } */
export function readMeasure(text: string): Outcome<Measure> {
  const read = parseAmount(text, "percent");
  if (!read.ok) return read;
  const { n, unit } = read.value;
  if (unit === "percent")
    return done({
      ppm: n
        .mul(WHOLE / 100)
        .round()
        .valueOf(),
    });
  const weight = readWeight(text);
  return weight.ok ? done({ weight: weight.value }) : weight;
}

/**
 * That as a share of a part.
 * @param total of the part, more than nothing
 * @returns millionths
 * @example shareOf({ weight: mg(6_000) }, mg(300_000)) // 20_000
 */
export function shareOf(measure: Measure, total: Mg): Outcome<number> {
  const share = "ppm" in measure ? measure.ppm : mulDiv(measure.weight, WHOLE, total);
  if (share < 1) return refuse("none", "Enter more than nothing.");
  return share > MOST_STIRRED_IN ? refuse("much", "More than a third of the part is another recipe. Write it as one.") : done(share);
}

/** What sells under a size's name with what tells it apart, in the same container and as much of it. */
interface Sold {
  label: string;
  fill: Mg;
  containerId: number | null;
}

/** Whether a variant is a part of that size. @example isPartOf({ label: "60 g, clay", variant: "clay", fill: mg(60_000), containerId: 1 }, { label: "60 g", fill: mg(60_000), containerId: 1 }) // true */
export const isPartOf = (part: Sold & { variant: string }, size: Sold): boolean =>
  part.label.toLowerCase() === calledPart(size.label, part.variant).toLowerCase() &&
  part.fill === size.fill &&
  part.containerId === size.containerId;

/** What is stirred into so many units of a variant. @example stirredInto({ fill: mg(60_000), additions: [{ materialId: 4, ppm: 5000 }] }, 3, 200) // [{ of: 4, amount: 918 }] */
export function stirredInto(
  { fill, additions }: { fill: Mg; additions: readonly { materialId: number; ppm: number }[] },
  units: number,
  lossBp: number,
): { of: number; amount: Mg }[] {
  const total = partTotal(units, fill, lossBp);
  return additions.map((a) => ({ of: a.materialId, amount: additionWeight(total, a.ppm) }));
}

/**
 * The scents of a part: its share of what is in the pot, and what is stirred into it alone.
 * @param base the pot's @param pot what all of it weighs, more than nothing @param out what is ladled out of it
 * @example scentsOfPart([], mg(900_000), mg(300_000), []) // []
 */
export const scentsOfPart = (base: readonly ScentLine[], pot: Mg, out: Mg, own: readonly ScentLine[]): ScentLine[] => [
  ...base.map((l) => ({ ...l, weight: mg(mulDiv(l.weight, out, pot)) })),
  ...own,
];

/** A share as it is typed again. @example shareText(5_000) // "0.5 %" */
export const shareText = (ppm: number): string => `${plainText(ppm / 10_000)} %`;

/** Parts are told apart by what they are called. @example calledPart("60 g", "rose clay") // "60 g, rose clay" */
export const calledPart = (label: string, name: string): string => `${label}, ${name}`;
