/**
 * What a workshop's own spoons and fingers teach: the model's constants moved to where they explain what was felt, and no further. Each starts
 * at the trade's and is held there like a judgement of some weight, so that three tests move it a little and thirty a lot.
 */
import { levenbergMarquardt } from "ml-levenberg-marquardt";
import { firmness, mixOf, TRADE, type Constants, type MixLine, type Part } from "./model.ts";

/** Within what a pot lies at some warmth, of all that sets it or of its wax alone. */
export interface Bounds {
  celsius: number;
  part: Part;
  within: readonly [low: number, high: number];
}

/** How firm a finger or a spoon found a pot. */
export interface FirmnessTest {
  lines: readonly MixLine[];
  says: readonly Bounds[];
}

export interface Fitted {
  constants: Constants;
  /** How many tests it rests on, and how many of them it agrees with; by the trade's constants, and by its own. */
  tests: number;
  rightBefore: number;
  rightNow: number;
  /** How far off it is where it is off, as a share of what was felt: 0.2 is a fifth too hard or too soft. In the middle of the tests. */
  off: number;
}

const NAMES = ["wax", "fat", "dilution", "dissolving", "bend"] as const;
/** How sure a finger is, and how sure the trade's constants are: in parts of themselves. */
const FINGER = 0.12;
const TRADES_OWN = 0.25;
/** Nothing softer is told apart: below it everything pours. */
const LEAST = 0.005;

function constantsAt(moved: readonly number[]): Constants {
  const constants = { ...TRADE };
  for (const [i, name] of NAMES.entries()) constants[name] *= Math.exp(moved[i]!);
  return constants;
}

/** How far a firmness is from what was felt, in parts of itself; nought within it. */
function offBy(firm: number, [low, high]: Bounds["within"]): number {
  const at = Math.max(firm, LEAST);
  if (at < low) return Math.log(at / low);
  return at > high ? Math.log(at / high) : 0;
}

/**
 * Fits the constants to what was felt (least squares by Levenberg and Marquardt); the trade's own where nothing was.
 * @example fitFirmness([]).constants.wax // 1
 */
export function fitFirmness(tests: readonly FirmnessTest[]): Fitted {
  const mixes = tests.map((t) => ({ ...t, mix: mixOf(t.lines) }));
  // Of several things one test says at most one is off: a pot isn't too soft and too hard at once.
  const felt = (c: Constants): number[] =>
    mixes.map(({ mix, says }) => says.reduce((off, s) => off || offBy(firmness(mix, s.celsius, c, s.part), s.within), 0));
  const right = (c: Constants): number => felt(c).filter((off) => off === 0).length;
  const constants = tests.length === 0 ? TRADE : best(mixes.length, felt);
  const off = felt(constants)
    .map((o) => Math.abs(Math.exp(o) - 1))
    .sort((a, b) => a - b);
  return {
    constants,
    tests: tests.length,
    rightBefore: right(TRADE),
    rightNow: right(constants),
    off: off[Math.floor(off.length / 2)] ?? 0,
  };
}

function best(n: number, felt: (c: Constants) => number[]): Constants {
  // Each test, then each constant's own pull back to the trade's, is to be nought.
  const x = Array.from({ length: n + NAMES.length }, (_, i) => i);
  const { parameterValues } = levenbergMarquardt(
    { x, y: x.map(() => 0) },
    (moved) => {
      const off = felt(constantsAt(moved));
      return (i) => (i < n ? off[i]! / FINGER : moved[i - n]! / TRADES_OWN);
    },
    {
      initialValues: NAMES.map(() => 0),
      minValues: NAMES.map(() => -1),
      maxValues: NAMES.map(() => 1),
      gradientDifference: 0.01,
      centralDifference: true,
      maxIterations: 60,
      errorTolerance: 1e-9,
    },
  );
  return constantsAt(parameterValues);
}
