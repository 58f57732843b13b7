/**
 * How large a batch, and into which sizes: so many pots of each, as it is written, half or double of it, so many grams, or all of one
 * lot. Read live on the page and again by the action.
 */
import { mg, type Mg } from "../../measure/exact.ts";
import { parseNumber } from "../../measure/parse.ts";
import { readWeight } from "../../measure/read.ts";
import { writeNumber } from "../../numbers.ts";
import { done, refuse, type Outcome } from "../../outcome.ts";
import { batchFor, fillMix, totalForLine } from "../../recipe/scale.ts";
import type { Lot } from "../../stock/lots.ts";

export const SIZE_MODES = {
  pots: "Into so many pots",
  written: "As it is written",
  half: "Half of it",
  double: "Double",
  grams: "So many grams",
  lot: "All of one lot",
} as const;
export type SizeMode = keyof typeof SIZE_MODES;
export const SIZE_MODE_IDS = Object.keys(SIZE_MODES) as SizeMode[];

const MOST_UNITS = 5000;

/** What of a written recipe decides how large a batch is. */
export interface Sized {
  recipe: { lossBp: number; total: Mg };
  lines: readonly { materialId: number; weight: Mg }[];
  sizes: readonly { id: number; fill: Mg; label: string }[];
}

export interface SizeTexts {
  mode: SizeMode;
  /** Batch weight, for so many grams. */
  weight: string;
  /** The lot to use up. */
  lotId: number;
  /** How many of each size; empty for as many as there is left for. */
  units: readonly string[];
}

export interface BatchSize {
  batch: Mg;
  /** Of each size, in order. */
  units: number[];
  leftover: Mg;
}

function readUnits(texts: readonly string[]): Outcome<(number | null)[]> {
  const out: (number | null)[] = [];
  for (const text of texts) {
    if (text.trim() === "") {
      out.push(null);
      continue;
    }
    const n = parseNumber(text);
    if (!n.ok) return n;
    const units = n.value.valueOf();
    if (!Number.isInteger(units)) return refuse("whole", "Enter whole numbers of pots.");
    out.push(units);
  }
  return done(out);
}

/** @returns a problem in words when the size can't be read, fills no unit, or wants more than there is */
export function readSize(texts: SizeTexts, w: Sized, lots: readonly Lot[]): Outcome<BatchSize> {
  const units = readUnits(w.sizes.map((_, i) => texts.units[i] ?? ""));
  if (!units.ok) return units;
  const batch = batchWeight(texts, w, lots, units.value);
  if (!batch.ok) return batch;
  const wanted = w.sizes.map(({ fill }, i) => ({ fill, units: texts.mode === "pots" ? (units.value[i] ?? 0) : units.value[i]! }));
  const plan = fillMix(batch.value, w.recipe.lossBp, wanted);
  const all = plan.units.reduce((a, n) => a + n, 0);
  if (plan.leftover < 0) return refuse("over", "More pots are wanted than that fills. Make it larger, or leave a number empty.");
  if (all < 1) return refuse("small", "That doesn't fill a single unit.");
  if (all > MOST_UNITS)
    return refuse(
      "absurd",
      `${writeNumber(all, 0, 0)} units is more than a kitchen can pour; the most is ${writeNumber(MOST_UNITS, 0, 0)}.`,
    );
  return done({ batch: batch.value, units: plan.units, leftover: mg(plan.leftover) });
}

function batchWeight(texts: SizeTexts, w: Sized, lots: readonly Lot[], units: readonly (number | null)[]): Outcome<Mg> {
  switch (texts.mode) {
    case "pots": {
      const mix = w.sizes.map((s, i) => ({ fill: s.fill, units: units[i] ?? 0 }));
      const all = mix.reduce((a, s) => a + s.units, 0);
      if (all < 1) return refuse("empty", "Enter how many pots.");
      return all > MOST_UNITS
        ? refuse("absurd", `${writeNumber(all, 0, 0)} units is more than a kitchen can pour; the most is ${writeNumber(MOST_UNITS, 0, 0)}.`)
        : done(batchFor(mix, w.recipe.lossBp));
    }
    case "written":
      return done(w.recipe.total);
    case "half":
      return done(mg(Math.round(w.recipe.total / 2)));
    case "double":
      return done(mg(w.recipe.total * 2));
    case "grams":
      return readWeight(texts.weight);
    case "lot": {
      const lot = lots.find((l) => l.id === texts.lotId);
      const line = lot && w.lines.filter((l) => l.materialId === lot.of).reduce((a, l) => a + l.weight, 0);
      if (!lot || !line) return refuse("lot", "Choose the lot to use up.");
      return done(totalForLine(w.recipe.total, mg(line), mg(lot.onHand)));
    }
  }
}

/**
 * As many of each size as there is enough for, in the proportion that was wanted: the largest batch that can be made instead.
 * @param enough whether there is enough for so many; what is enough for a batch is for a smaller one
 * @returns null where not even one can be made
 * @example mostUnits([12, 6], (units) => units[0] <= 7) // [7, 3]
 */
export function mostUnits(wanted: readonly number[], enough: (units: readonly number[]) => boolean): number[] | null {
  const most = Math.max(0, ...wanted);
  const at = (n: number): number[] => wanted.map((u) => Math.floor((u * n) / most));
  let can = 0;
  let cannot = most;
  while (cannot - can > 1) {
    const middle = Math.floor((can + cannot) / 2);
    if (enough(at(middle))) can = middle;
    else cannot = middle;
  }
  return can === 0 ? null : at(can);
}
