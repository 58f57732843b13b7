/**
 * Whole numbers that must not be mixed up, and the two exact operations everything else rests on.
 *
 * Weights are whole milligrams, money is whole micros (a millionth of the currency unit), counts are whole pieces.
 * Each is a branded number: grams can't be added to ounces, nor cents to euros, without saying so. All stay far below
 * 2^53; products of two of them are beyond that, and `mulDiv` is exact all the same.
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
  const product = whole(a, "a") * whole(b, "b");
  const above = Math.abs(product);
  const below = Math.abs(whole(c, "c"));
  const nearest = above <= Number.MAX_SAFE_INTEGER ? nearestOf(above, below) : nearestOfProduct(Math.abs(a), Math.abs(b), below);
  return product < 0 === c < 0 || nearest === 0 ? nearest : -nearest;
}

/** above ÷ below of safe whole numbers, rounded half up. A quotient of doubles is at most one off, and its rest says so. */
function nearestOf(above: number, below: number): number {
  let times = Math.floor(above / below);
  let rest = above - times * below;
  if (rest < 0) {
    times--;
    rest += below;
  }
  return rest >= below - rest ? times + 1 : times;
}

/** Up to here what a quotient of doubles leaves over is itself a safe whole number. */
const EXACT_BELOW = 2 ** 51;

/** a × b ÷ below of safe whole numbers whose product is not safe, rounded half up. @throws RangeError when the result isn't safe */
function nearestOfProduct(a: number, b: number, below: number): number {
  let times = Math.floor((a * b) / below);
  if (below >= EXACT_BELOW || times >= EXACT_BELOW) return nearestOfAny(a, b, below);
  // The two products are nearly alike: their doubles' difference is exact, and so is that of what the doubles left out.
  let rest = a * b - times * below + (leftOut(a, b) - leftOut(times, below));
  while (rest < 0) {
    times--;
    rest += below;
  }
  while (rest >= below) {
    times++;
    rest -= below;
  }
  return rest >= below - rest ? times + 1 : times;
}

/** Cuts a double of 53 bits in two halves. */
const HALVES = 2 ** 27 + 1;

/** Exactly what the double a × b leaves out of the product (Dekker's product with Veltkamp's halves, from memory). */
function leftOut(a: number, b: number): number {
  const [wideA, wideB] = [HALVES * a, HALVES * b];
  const [highA, highB] = [wideA - (wideA - a), wideB - (wideB - b)];
  const [lowA, lowB] = [a - highA, b - highB];
  return lowA * lowB - (a * b - highA * highB - lowA * highB - highA * lowB);
}

function nearestOfAny(a: number, b: number, below: number): number {
  const n = BigInt(a) * BigInt(b);
  const d = BigInt(below);
  return whole(Number((2n * n + d) / (2n * d)), "result");
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
  const { shares, rests } = partsOf(units, weights);
  let left = units;
  for (const s of shares) left -= s;
  if (left === 1) shares[largest(rests)]!++;
  else if (left > 1) {
    const byRest = weights.map((_, i) => i).sort((i, j) => (rests[i] === rests[j] ? i - j : rests[i]! < rests[j]! ? 1 : -1));
    for (const i of byRest.slice(0, left)) shares[i]!++;
  }
  const under = Math.abs(total) % quantum;
  const first = under ? weights.findIndex((w) => w > 0) : -1;
  for (let i = 0; i < shares.length; i++) {
    const share = shares[i]! * quantum + (i === first ? under : 0);
    shares[i] = share === 0 ? 0 : share * sign;
  }
  return shares;
}

/** Where the largest is, the first of several. */
function largest(rests: readonly (number | bigint)[]): number {
  let at = 0;
  for (let i = 1; i < rests.length; i++) if (rests[i]! > rests[at]!) at = i;
  return at;
}

/** Each weight's whole share of the units, and its rest to compare by. @throws RangeError when all weights are nought */
function partsOf(units: number, weights: readonly number[]): { shares: number[]; rests: (number | bigint)[] } {
  let all = 0;
  for (const w of weights) all += w;
  if (all === 0) throw new RangeError("allocate: nothing to share over");
  const shares: number[] = [];
  const rests: (number | bigint)[] = [];
  // Nearly always: products that are safe are exact, and so are their quotients and rests.
  if (Number.isSafeInteger(units * all)) {
    for (const w of weights) {
      // A quotient of doubles may be one too many; its rest says so.
      let share = Math.floor((units * w) / all);
      if (share * all > units * w) share--;
      shares.push(share);
      rests.push(units * w - share * all);
    }
    return { shares, rests };
  }
  const sum = weights.reduce((a, w) => a + BigInt(w), 0n);
  for (const w of weights) {
    const exact = BigInt(units) * BigInt(w);
    shares.push(Number(exact / sum));
    rests.push(exact % sum);
  }
  return { shares, rests };
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
