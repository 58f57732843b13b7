/**
 * What a base is made of: something that was poured and is melted down again is no separate material, it sets, smells and keeps as what is in
 * it does. Kept as a fact of the base, as the pot had it that was melted down last.
 */
import { isKeyOf } from "../objects.ts";
import { KINDS, type KindId } from "./kinds.ts";

/** So much of a base is this. */
export interface MadeOf {
  name: string;
  kind: KindId;
  libraryKey: string | null;
  /** °C. */
  meltFrom: number | null;
  meltTo: number | null;
  /** Of the whole, above 0 and up to 1; of a base they add up to 1. */
  share: number;
}

/** The facts it is weighed by. */
export interface Weighed extends Omit<MadeOf, "share"> {
  weight: number;
  makeup: readonly MadeOf[];
}

/**
 * What several things weighed together are made of, what is a base itself told by what is in that; most of all first.
 * @example makeupOf([{ name: "Wax", kind: "wax", libraryKey: null, meltFrom: 62, meltTo: 64, weight: 20, makeup: [] }])[0].share // 1
 */
export function makeupOf(lines: readonly Weighed[]): MadeOf[] {
  const total = lines.reduce((a, l) => a + l.weight, 0);
  const byName = new Map<string, MadeOf>();
  for (const { weight, makeup, ...own } of lines) {
    if (weight <= 0) continue;
    for (const { share, ...of } of makeup.length > 0 ? makeup : [{ ...own, share: 1 }])
      byName.set(of.name, { ...of, share: (byName.get(of.name)?.share ?? 0) + (share * weight) / total });
  }
  return [...byName.values()].sort((a, b) => b.share - a.share || a.name.localeCompare(b.name));
}

/**
 * How much of something is of a kind: all of it, or of a base as much as is in it.
 * @example partOf({ kind: "wax", makeup: [] }, (m) => m.kind === "wax") // 1
 */
export const partOf = (m: { kind: KindId; makeup: readonly MadeOf[] }, fits: (of: { kind: KindId }) => boolean): number =>
  fits(m) ? 1 : m.makeup.reduce((a, p) => a + (fits(p) ? p.share : 0), 0);

/** How much of it is wax. @example waxShare({ kind: "oil", makeup: [] }) // 0 */
export const waxShare = (m: { kind: KindId; makeup: readonly MadeOf[] }): number => partOf(m, (of) => of.kind === "wax");

const isNumberOrNull = (v: unknown): boolean => v === null || typeof v === "number";

/** Whether what was read is that. */
export const isMakeup = (v: unknown): v is MadeOf[] =>
  Array.isArray(v) &&
  v.every((m: Partial<Record<keyof MadeOf, unknown>> | null) => {
    if (typeof m !== "object" || m === null) return false;
    const words = typeof m.name === "string" && typeof m.kind === "string" && isKeyOf(KINDS, m.kind);
    const key = m.libraryKey === null || typeof m.libraryKey === "string";
    return words && key && isNumberOrNull(m.meltFrom) && isNumberOrNull(m.meltTo) && typeof m.share === "number";
  });
