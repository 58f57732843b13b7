/**
 * One base poured in parts: some plain, and some with a colour, a scent or a mineral stirred in. A part is meant to fill so many of a size;
 * what goes into it is said as a share of the part, so that the next one comes out alike whatever its size.
 */
import { mg, mulDiv, type Mg } from "../measure/exact.ts";
import { parseAmount, plainText } from "../measure/parse.ts";
import { readWeight } from "../measure/read.ts";
import { done, refuse, type Outcome } from "../outcome.ts";

/** Shares are kept in millionths: a colour of a thousandth still has three figures. */
const WHOLE = 1_000_000;
/** More than a third of something else is another recipe, not a variant of this one: common practice, no source. */
export const MOST_STIRRED_IN = 333_333;

export interface PartAsk {
  units: number;
  fill: Mg;
  /** Of the whole pot that stays in the jug, in basis points. */
  lossBp: number;
  /** What goes into it besides the base, in millionths of the part. */
  shares: readonly number[];
}

export interface PartPlan {
  /** Everything in the jug: what is filled, and what will stay in it. */
  total: Mg;
  /** To be ladled out of the pot. */
  base: Mg;
  /** To be stirred in, in order. */
  additions: Mg[];
}

/**
 * What a part is made of.
 * @example partPlan({ units: 6, fill: mg(50_000), lossBp: 0, shares: [20_000] }) // { total: 300_000, base: 294_000, additions: [6_000] }
 */
export function partPlan({ units, fill, lossBp, shares }: PartAsk): PartPlan {
  const total = mg(Math.ceil((units * fill * 10_000) / (10_000 - lossBp)));
  const additions = shares.map((s) => mg(Math.max(1, mulDiv(total, s, WHOLE))));
  return { total, base: mg(total - additions.reduce((a, m) => a + m, 0)), additions };
}

/**
 * How much of a part something is meant to be, as typed: per cent, or as much as is to go into this one.
 * @param total of the part
 * @returns millionths of the part
 * @example readShare("2 %", mg(300_000)) // 20_000
 */
export function readShare(text: string, total: Mg): Outcome<number> {
  const read = parseAmount(text, "percent");
  if (!read.ok) return read;
  const { n, unit } = read.value;
  if (unit === "percent")
    return judgeShare(
      n
        .mul(WHOLE / 100)
        .round()
        .valueOf(),
    );
  const weight = readWeight(text);
  return weight.ok ? judgeShare(total > 0 ? mulDiv(weight.value, WHOLE, total) : 0) : weight;
}

function judgeShare(share: number): Outcome<number> {
  if (share < 1) return refuse("none", "Enter more than nothing.");
  return share > MOST_STIRRED_IN ? refuse("much", "More than a third of the part is another recipe. Write it as one.") : done(share);
}

/** A share as it is typed again. @example shareText(5_000) // "0.5 %" */
export const shareText = (ppm: number): string => `${plainText(ppm / 10_000)} %`;

/** Parts are told apart by what they are called. @example calledPart("60 g", "rose clay") // "60 g, rose clay" */
export const calledPart = (label: string, name: string): string => `${label}, ${name}`;
