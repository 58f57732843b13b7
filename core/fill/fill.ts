/**
 * What a pot fills, of the containers that are there: with the least left over, or as near to a wished mix as can be; and how much more or less
 * of the recipe would leave nothing. Volume fills, weight is what is counted here: a fill weighs what it holds of this pot, air and all.
 */
import { mg, type Mg } from "../measure/exact.ts";
import type { Shelf } from "../stock/shelf.ts";
import type { Solve, Solved, WholeNumbers } from "./wholeNumbers.ts";

export interface FillSize {
  /** What one takes out of the pot, > 0. */
  fill: Mg;
  /** Wished number: at least so many, or as near to it as can be; null for as many as there is left for. */
  wished: number | null;
  packaging: readonly { of: number; pieces: number }[];
}

export interface FillAsk {
  /** In the pot after what stays in it. */
  usable: Mg;
  sizes: readonly FillSize[];
  /** Pieces on hand by material; what isn't named is without end. */
  onHand: ReadonlyMap<number, number>;
  /** As many of the first as there is pot and packaging for, then of the next; the least left over; or as near to what is wished as can be. */
  by: "first" | "least" | "wished";
}

export interface Filled {
  units: number[];
  left: Mg;
  /** Whether nothing better can be. */
  proven: boolean;
}

export interface FillAnswer extends Filled {
  /** So much of the recipe as fills exactly these: a factor below 1, or 1. */
  less: number;
  /** The next more that leaves nothing, and what it fills; null where the containers end. */
  more: { factor: number; units: number[] } | null;
}

const packagings = (ask: Pick<FillAsk, "sizes" | "onHand">): WholeNumbers["rows"] =>
  [...new Set(ask.sizes.flatMap((s) => s.packaging.map((p) => p.of)))].flatMap((of) => {
    const most = ask.onHand.get(of);
    if (most === undefined) return [];
    return [{ of: ask.sizes.map((s) => s.packaging.filter((p) => p.of === of).reduce((a, p) => a + p.pieces, 0)), most }];
  });

const weights = (ask: FillAsk): number[] => ask.sizes.map((s) => s.fill);
const filled = (ask: Pick<FillAsk, "sizes">, units: readonly number[]): number => ask.sizes.reduce((a, s, i) => a + s.fill * units[i]!, 0);
/** As many as the pot alone allows: an end for every number, which no answer reaches. */
const ends = (ask: FillAsk): number[] => ask.sizes.map((s) => Math.ceil((ask.usable * 2) / s.fill) + 1);
const isProven = (s: Solved, slack: number): boolean => Math.abs(s.cost - s.bound) <= slack;

/** Rounded, as whole numbers come from a solver of fractions. */
const whole = (values: readonly number[]): number[] => values.map((v) => Math.round(v));

/** A milligram, or half a unit: nothing counts less. */
const HALF = 0.5;

/** Of those that fill as much, the one in the fewest containers. */
async function fewest(ask: FillAsk, atLeast: number, rows: WholeNumbers["rows"], solve: Solve): Promise<number[] | null> {
  const again = await solve({
    cost: ask.sizes.map(() => 1),
    rows: [...rows, { of: weights(ask), least: atLeast, most: ask.usable }],
    most: ends(ask),
  });
  const units = again && whole(again.values);
  return units && filled(ask, units) >= atLeast && filled(ask, units) <= ask.usable ? units : null;
}

/** The packaging that sizes take, and how many pieces of each are on hand and usable. */
export const packagingOnHand = (sizes: readonly Pick<FillSize, "packaging">[], shelf: Shelf): Map<number, number> =>
  new Map(sizes.flatMap((s) => s.packaging.map(({ of }) => [of, shelf.of(of).usable.reduce((a, l) => a + l.onHand, 0)] as const)));

/**
 * As many of each as there is left for, in order; the least that is wanted of it is set aside, and what sizes share goes to the first.
 * @returns null where not even what is wished goes in
 */
export function firstThenNext(ask: Omit<FillAsk, "by">): Filled | null {
  const { sizes } = ask;
  const units = sizes.map((s) => s.wished ?? 0);
  const fits = (): boolean =>
    filled(ask, units) <= ask.usable &&
    packagings(ask).every((r) => r.of.reduce((a, pieces, i) => a + pieces * units[i]!, 0) <= (r.most ?? Infinity));
  if (!fits()) return null;
  for (const [i, s] of sizes.entries()) {
    const more = Math.floor((ask.usable - filled(ask, units)) / s.fill);
    const room = packagings(ask).map((r) =>
      r.of[i]! > 0 ? Math.floor(((r.most ?? Infinity) - r.of.reduce((a, pieces, n) => a + pieces * units[n]!, 0)) / r.of[i]!) : Infinity,
    );
    units[i]! += Math.max(0, Math.min(more, ...room));
  }
  return { units, left: mg(ask.usable - filled(ask, units)), proven: true };
}

async function leastLeft(ask: FillAsk, rows: WholeNumbers["rows"], solve: Solve): Promise<Filled | null> {
  const best = await solve({
    cost: ask.sizes.map((s) => 0 - s.fill),
    rows: [...rows, { of: weights(ask), most: ask.usable }],
    most: ends(ask),
  });
  if (!best) return null;
  const first = whole(best.values);
  const units = (await fewest(ask, filled(ask, first), rows, solve)) ?? first;
  return { units, left: mg(ask.usable - filled(ask, units)), proven: isProven(best, HALF) };
}

/** Nearest to what is wished, counted in containers; of those that are as near, the one that leaves least. */
async function nearest(ask: FillAsk, rows: WholeNumbers["rows"], solve: Solve): Promise<Filled | null> {
  const { sizes } = ask;
  const n = sizes.length;
  const none = sizes.map(() => 0);
  // Of each the number, and how far it is under and over what is wished.
  const wide = (of: readonly number[]): number[] => [...of, ...none, ...none];
  const off = sizes.map((s) => (s.wished === null ? 0 : 1));
  const apart = sizes.map((s, i) => ({
    of: [...none, ...none, ...none].map((_, at) => (at === i ? 1 : at === n + i ? 1 : at === 2 * n + i ? -1 : 0)),
    least: s.wished ?? 0,
    most: s.wished ?? 0,
  }));
  // Where no number is wished there may be as many as there is left for.
  const all = [...rows.map((r) => ({ ...r, of: wide(r.of) })), { of: wide(weights(ask)), most: ask.usable }, ...apart];
  const most = [...ends(ask), ...sizes.map((s) => s.wished ?? 0), ...ends(ask)];
  const near = await solve({ cost: [...none, ...off, ...off], rows: all, most });
  if (!near) return null;
  const distance = (v: readonly number[]): number => sizes.reduce((a, s, i) => a + (s.wished === null ? 0 : Math.abs(v[i]! - s.wished)), 0);
  const far = distance(whole(near.values).slice(0, n));
  const best = await solve({
    cost: wide(sizes.map((s) => 0 - s.fill)),
    rows: [...all, { of: [...none, ...off, ...off], most: far }],
    most,
  });
  const units = whole((best ?? near).values).slice(0, n);
  return { units, left: mg(ask.usable - filled(ask, units)), proven: isProven(near, HALF) && best !== null && isProven(best, HALF) };
}

/**
 * The best there is; null where not even what is wished at least goes in.
 * @param solve the solver of whole numbers
 */
export async function planFill(ask: FillAsk, solve: Solve): Promise<FillAnswer | null> {
  if (ask.sizes.length === 0 || ask.usable <= 0) return null;
  const packs = packagings(ask);
  const atLeast = ask.sizes.flatMap((s, i) =>
    ask.by !== "wished" && s.wished ? [{ of: ask.sizes.map((_, at) => (at === i ? 1 : 0)), least: s.wished }] : [],
  );
  const found =
    ask.by === "first"
      ? firstThenNext(ask)
      : await (ask.by === "least" ? leastLeft(ask, [...packs, ...atLeast], solve) : nearest(ask, packs, solve));
  if (!found || found.left < 0) return null;
  return { ...found, less: filled(ask, found.units) / ask.usable, more: await nextMore(ask, [...packs, ...atLeast], solve) };
}

/** More than this a recipe isn't stretched to end with a full tin; common practice, no source. */
const STRETCH = 1.08;

async function nextMore(ask: FillAsk, rows: WholeNumbers["rows"], solve: Solve): Promise<FillAnswer["more"]> {
  const wished =
    ask.by === "wished" ? ask.sizes.map((s, i) => ({ of: ask.sizes.map((_, at) => (at === i ? 1 : 0)), least: s.wished ?? 0 })) : [];
  const next = await solve({
    cost: weights(ask),
    rows: [...rows, ...wished, { of: weights(ask), least: ask.usable, most: Math.floor(ask.usable * STRETCH) }],
    most: ends(ask),
  });
  if (!next) return null;
  const units = whole(next.values);
  return { factor: filled(ask, units) / ask.usable, units };
}
