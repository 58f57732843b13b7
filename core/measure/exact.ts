/**
 * Whole numbers that must not be mixed up, and the two exact operations everything else rests on.
 *
 * Weights are whole milligrams, money is whole micros (a millionth of the currency unit), counts are whole pieces.
 * Each is a branded number: grams can't be added to ounces, nor cents to euros, without saying so. All stay far below
 * 2^53; products of two of them go through BigInt in `mulDiv`.
 */

declare const brand: unique symbol;
type Branded<Name extends string> = number & { readonly [brand]: Name };

/** A weight in whole milligrams. */
export type Mg = Branded<"Mg">;
/** Money in whole micros: 1.00 of the currency is 1 000 000. */
export type Micros = Branded<"Micros">;
/** An amount in a material's own base unit: milligrams when it is weighed, pieces when it is counted. */
export type Base = number;

const whole = (n: number, what: string): number => {
  if (!Number.isSafeInteger(n)) throw new RangeError(`${what} must be a whole safe number, got ${n}`);
  return n;
};

/** @throws RangeError unless n is a whole safe number. @example mg(1500) // 1.5 g */
export const mg = (n: number): Mg => whole(n, "milligrams") as Mg;
/** @throws RangeError unless n is a whole safe number. @example micros(1_000_000) // 1.00 */
export const micros = (n: number): Micros => whole(n, "micros") as Micros;

/** One cent in micros; every amount on a receipt, a price list or a till is a multiple of it. */
export const CENT = micros(10_000);

/**
 * a × b ÷ c, exactly, rounded half away from zero.
 * @param c not zero
 * @throws RangeError when c is 0 or the result is not a safe integer
 * @example mulDiv(10, 1, 4) // 3
 */
export function mulDiv(a: number, b: number, c: number): number {
  if (c === 0) throw new RangeError("mulDiv: division by zero");
  const plain = whole(a, "a") * whole(b, "b");
  // Nearly always: a product that is safe is exact, and so are its quotient and rest.
  if (Number.isSafeInteger(plain)) return rounded(plain, whole(c, "c"));
  const product = BigInt(a) * BigInt(b);
  const divisor = BigInt(whole(c, "c"));
  const negative = product < 0n !== divisor < 0n && product !== 0n;
  const n = product < 0n ? -product : product;
  const d = divisor < 0n ? -divisor : divisor;
  const nearest = (2n * n + d) / (2n * d);
  return whole(Number(negative ? -nearest : nearest), "result");
}

/** n ÷ d of safe whole numbers, rounded half away from zero. */
function rounded(n: number, d: number): number {
  const [above, below] = [Math.abs(n), Math.abs(d)];
  const rest = above % below;
  const nearest = (above - rest) / below + (2 * rest >= below ? 1 : 0);
  return n < 0 === d < 0 || nearest === 0 ? nearest : -nearest;
}

/**
 * Splits a whole total over weights so that the shares add up to it exactly (largest remainder; ties to the earlier).
 * @param total whole number, may be negative
 * @param weights whole numbers ≥ 0, not all zero unless total is 0
 * @param quantum shares are multiples of it where total is; the rest of total (below one quantum) goes to the first weight
 * @throws RangeError when there is something to split and nothing to split it over
 * @example allocate(100, [1, 1, 1]) // [34, 33, 33]
 */
export function allocate(total: number, weights: readonly number[], quantum = 1): number[] {
  for (const w of weights) if (whole(w, "weight") < 0) throw new RangeError("allocate: a weight is negative");
  if (total === 0) return weights.map(() => 0);
  const sign = total < 0 ? -1 : 1;
  const units = Math.floor(Math.abs(whole(total, "total")) / quantum);
  const parts = partsOf(units, weights);
  let left = units - parts.reduce((a, p) => a + p.share, 0);
  const shares = parts.map((p) => p.share * quantum);
  for (const p of [...parts].sort((a, b) => (a.rest === b.rest ? a.index - b.index : a.rest < b.rest ? 1 : -1))) {
    if (left-- <= 0) break;
    shares[p.index]! += quantum;
  }
  const under = Math.abs(total) % quantum;
  if (under) shares[weights.findIndex((w) => w > 0)]! += under;
  return shares.map((s) => (s === 0 ? 0 : s * sign));
}

/** Each weight's whole share of the units, and its rest to compare by. @throws RangeError when all weights are nought */
function partsOf(units: number, weights: readonly number[]): { index: number; share: number; rest: number | bigint }[] {
  const all = weights.reduce((a, w) => a + w, 0);
  if (all === 0) throw new RangeError("allocate: nothing to share over");
  // Nearly always: products that are safe are exact, and so are their quotients and rests.
  if (Number.isSafeInteger(units * all))
    return weights.map((w, index) => ({ index, share: (units * w - ((units * w) % all)) / all, rest: (units * w) % all }));
  const sum = weights.reduce((a, w) => a + BigInt(w), 0n);
  return weights.map((w, index) => {
    const exact = BigInt(units) * BigInt(w);
    return { index, share: Number(exact / sum), rest: exact % sum };
  });
}

/** Largest whole weight `shares` makes: beyond any balance's resolution, well inside a whole number. */
const FINEST = 2 ** 40;

/**
 * Splits a whole total by parts that needn't be whole: scaled to the largest, so that however small they all are none is lost.
 * @param parts ≥ 0, not all zero unless total is 0
 * @example shares(100, [0.0001, 0.0003]) // [25, 75]
 */
export const shares = (total: number, parts: readonly number[]): number[] => {
  const most = Math.max(...parts);
  return allocate(total, most > 0 ? parts.map((p) => Math.round((p / most) * FINEST)) : parts);
};

/** A branded number below zero, never -0. @example minus(mg(5)) // -5 mg */
export const minus = <T extends number>(n: T): T => (0 - n || 0) as T;

/** Adds up branded numbers. @example sum([mg(1), mg(2)]) // 3 mg */
export const sum = <T extends number>(xs: readonly T[]): T =>
  whole(
    xs.reduce((a: number, x) => a + x, 0),
    "sum",
  ) as T;
