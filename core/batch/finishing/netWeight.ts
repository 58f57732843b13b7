/**
 * Whether what was filled holds what its label says, by the published rules; the workshop picks which.
 *
 * - The European Union's: Council Directive 76/211/EEC, Annex I: on average not less than the nominal quantity (1.1), few below it by more than
 *   the tolerable negative error (1.2, table at 2.4), none by more than twice that (1.3). A sample's mean is judged as in Annex II (2.3.2.2).
 * - The United States': NIST Handbook 133, Basic Test Procedure: the average error, with the sample's error limit, not below zero (Table 2-1), and
 *   no package of a small sample short by more than the maximum allowable variation (Table 2-5).
 *
 * Both tables are from memory, and so is how few "few" is. They say what an inspector would look at; what is lawful is for local rules.
 */
import { mg, type Mg } from "../../measure/exact.ts";
import { grams } from "../../measure/write.ts";
import { writeNumber } from "../../numbers.ts";
import { counted } from "../../words.ts";
import { tQuantile } from "./tQuantile.ts";

export const NET_RULES = {
  eu: { say: "European Union", source: "Directive 76/211/EEC", error: "tolerable negative error" },
  us: { say: "United States", source: "NIST Handbook 133", error: "maximum allowable variation" },
} as const;
export type NetRule = keyof typeof NET_RULES;
export const NET_RULE_IDS = Object.keys(NET_RULES) as NetRule[];

/** Above so many grams: so much may be missing, in grams or as a share. Directive 76/211/EEC, Annex I, 2.4 (from memory). */
export const TOLERABLE: readonly (readonly [above: number, { share: number } | { grams: number }])[] = [
  [5, { share: 0.09 }],
  [50, { grams: 4.5 }],
  [100, { share: 0.045 }],
  [200, { grams: 9 }],
  [300, { share: 0.03 }],
  [500, { grams: 15 }],
  [1000, { share: 0.015 }],
];
const MOST_EU = 10_000;

/** Labelled above so many grams: so many may be missing. NIST Handbook 133, Table 2-5 (from memory); below 36 g a tenth. */
export const ALLOWABLE: readonly (readonly [above: number, grams: number])[] = [
  [36, 3.6],
  [54, 5.4],
  [81, 7.2],
  [117, 9],
  [154, 10.8],
  [208, 12.7],
  [263, 14.5],
  [317, 16.3],
  [381, 18.1],
  [426, 19.9],
  [489, 21.7],
  [571, 23.5],
  [635, 25.4],
  [698, 27.2],
  [771, 29],
  [852, 31.7],
];
const LEAST_US = 36;
const MOST_US = 970;

/**
 * How much one may be short of its label; null where the rule, as far as it is written here, doesn't reach.
 * @example shortfall("eu", mg(60_000)) // 4500
 * @example shortfall("us", mg(60_000)) // 5400
 */
export function shortfall(rule: NetRule, declared: Mg): Mg | null {
  const g = declared / 1000;
  if (rule === "us") {
    if (g <= 0 || g > MOST_US) return null;
    return mg(Math.round((g < LEAST_US ? g / 10 : ALLOWABLE.findLast(([above]) => above === LEAST_US || g > above)![1]) * 1000));
  }
  if (g < TOLERABLE[0]![0] || g > MOST_EU) return null;
  const [, error] = TOLERABLE.findLast(([above], i) => i === 0 || g > above)!;
  // A share is rounded up to a tenth of a gram.
  return mg(Math.round(("share" in error ? Math.ceil(Math.round(error.share * g * 1e6) / 1e5) / 10 : error.grams) * 1000));
}

/** How many are weighed of so many. @example sampleOf("us", 40) // 12 */
export function sampleOf(rule: NetRule, filled: number): number {
  // Handbook 133, Table 2-1, Category A; Annex II weighs every one of fewer than a hundred, and of more by its own table.
  if (rule === "us") return filled <= 12 ? filled : filled <= 250 ? 12 : filled <= 3200 ? 24 : 48;
  return filled < 100 ? filled : filled <= 500 ? 50 : filled <= 3200 ? 80 : 125;
}

/** By how many of its standard deviations a sample's mean may be off, of so many. @example meanLimit("eu", 20).toFixed(2) // "0.64" */
export const meanLimit = (rule: NetRule, n: number): number =>
  n < 2 ? Infinity : tQuantile(rule === "eu" ? 0.995 : 0.975, n - 1) / Math.sqrt(n);

/** Of the European rule: so large a share may be short by more than the error where all are weighed (1 in 40, from memory). */
const FEW = 0.025;
/** Of a sample of so many, so many. Directive 76/211/EEC, Annex II, 2.2 (from memory). */
const IN_SAMPLE: readonly (readonly [sample: number, short: number])[] = [
  [50, 3],
  [80, 5],
  [125, 7],
];
/** How many of so many may be short by more than the error: of all there are, or of a sample of them. */
const mayBeShort = (n: number, all: boolean): number =>
  (all ? null : IN_SAMPLE.findLast(([sample]) => n >= sample)?.[1]) ?? Math.floor(n * FEW);
/** Of the American: of forty-eight one may, of fewer none. */
const ONE_OF = 48;

export interface NetVerdict {
  /** What one may be short by, and what it then still holds. */
  error: Mg;
  least: Mg;
  /** Mean of what is weighed less what is declared; and of how many how many should be weighed. */
  mean: number;
  weighed: number;
  wanted: number;
  /** Places of those short by more than the error, and by more than twice that. */
  short: number[];
  far: number[];
  /** Whether it would pass; null while too few are weighed to say. */
  passes: boolean | null;
  /** What a careful colleague would say, worst first. */
  says: string[];
}

/**
 * Judges what was weighed of one size.
 * @param filled how many of it there are in all
 * @returns null without a weight, or where the rule doesn't reach
 * @example judgeNet("eu", mg(60_000), [mg(60_400), mg(60_100)], 2)?.passes // true
 */
export function judgeNet(rule: NetRule, declared: Mg, weights: readonly Mg[], filled: number): NetVerdict | null {
  const error = shortfall(rule, declared);
  const n = weights.length;
  if (error === null || n === 0) return null;
  const off = weights.map((w) => w - declared);
  const mean = off.reduce((a, e) => a + e, 0) / n;
  const deviation = n < 2 ? 0 : Math.sqrt(off.reduce((a, e) => a + (e - mean) ** 2, 0) / (n - 1));
  const all = n >= filled;
  const beyond = (times: number): number[] => off.flatMap((e, i) => (-e > error * times ? [i] : []));
  const [short, far] = [beyond(1), rule === "eu" ? beyond(2) : []];
  const allowed = rule === "eu" ? mayBeShort(n, all) : n >= ONE_OF ? 1 : 0;
  // All of them weighed, there is nothing left to be estimated.
  const limit = all ? 0 : meanLimit(rule, n) * deviation;
  const lightly = mean + limit < 0;
  const wanted = sampleOf(rule, Math.max(filled, n));
  const fails = far.length > 0 || short.length > allowed || lightly;
  const average = `${grams(Math.abs(Math.round(mean)), 2)} ${mean < 0 ? "under" : "over"} on average`;
  const says = [
    far.length > 0 &&
      `${counted(far.length, "is", "are")} short by more than twice the ${NET_RULES[rule].error}: not to be sold as ${grams(declared)}.`,
    short.length > allowed &&
      `${counted(short.length, "is", "are")} below ${grams(mg(declared - error))}, ${allowed === 0 ? "none" : writeNumber(allowed, 0, 0)} may be.`,
    lightly && `${average}: fill by as much more.`,
    !fails && (mean < 0 ? `${average}, no more than a sample of ${n} may be.` : `${average}, none too light.`),
    n < wanted && `${n} of ${wanted} to be weighed.`,
  ].filter((s) => s !== false);
  return {
    error,
    least: mg(declared - error),
    mean,
    weighed: n,
    wanted,
    short,
    far,
    passes: fails ? false : n < wanted ? null : true,
    says,
  };
}
