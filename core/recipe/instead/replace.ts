/** Stand-ins as changes of the sheet: one in the place of a line, all that a recipe is to be free of, and what keeps it longest. */
import { usualForm } from "../../material/facts.ts";
import { allocate, type Mg } from "../../measure/exact.ts";
import { plainText } from "../../measure/parse.ts";
import { isScent } from "../../scent/dilution.ts";
import { forScale, inGrams, type Judged, type JudgedLine, type SuggestedFix } from "../judge/judgement.ts";
import { keepingOf } from "../keeping.ts";
import type { Scale } from "../scale.ts";
import { standIns, type Instead } from "./instead.ts";
import type { StandIn } from "./standIn.ts";

/** What a whole recipe is to be free of, or made from. */
export const WITHOUT = {
  bee: {
    say: "Without beeswax",
    fits: (m: Pick<StandIn, "allergen" | "name">) => /bee/i.test(m.allergen) || /\bbees?wax|honey|propolis/i.test(m.name),
  },
  nut: {
    say: "Without nuts",
    fits: (m: Pick<StandIn, "allergen" | "name">) =>
      /nut/i.test(m.allergen.replace(/coconut/i, "")) || /almond|hazelnut|macadamia|walnut|peanut/i.test(m.name),
  },
  animal: { say: "Vegan", fits: (m: Pick<StandIn, "vegan">) => m.vegan === "no" },
} as const;
export type Without = keyof typeof WITHOUT;

/** As it is typed: never less than sets the pot, never more than a scent's ceiling. @param by null where only the amount is another */
const typed = (row: number, weight: Mg, by: StandIn | null, scale: Scale): SuggestedFix["rows"][number] => ({
  row,
  entered: forScale(weight, scale, by && isScent(by) ? "down" : "up"),
  ...named(by),
});
const named = (by: StandIn | null) => (by ? { material: by.name, form: usualForm(by.kind) } : {});

/** Parts and per cent to so many decimals: finer than anybody writes, coarser than nothing. */
const DECIMALS = 10_000;
const shareText = (n: number, unit: "part" | "percent"): string =>
  `${plainText(Math.round(n * DECIMALS) / DECIMALS)} ${unit === "part" ? "parts" : "%"}`;

/** The rows of a sheet in parts or per cent that come to these weights: the others' shares are other shares then, unless all weighs what it did. */
function sharedRows(of: Judged, weights: readonly Mg[], placed: ReadonlyMap<number, StandIn>): SuggestedFix["rows"] {
  const unit = of.lines[0]!.amount.unit === "percent" ? "percent" : "part";
  const same = of.lines.every((l, i) => weights[i] === l.weight);
  // All of them at once, so that they are a hundred.
  const percents = unit === "percent" && !same ? allocate(100 * DECIMALS, weights) : null;
  return of.lines.flatMap((l, i) => {
    const by = placed.get(l.row) ?? null;
    if (!by && weights[i] === l.weight && !percents) return [];
    const n = percents ? percents[i]! / DECIMALS : (l.amount.n.valueOf() * weights[i]!) / l.weight;
    return [{ row: l.row, entered: shareText(n, unit), ...named(by) }];
  });
}

/** The change of the sheet that gives lines other weights, and puts some materials in. */
const rowsOf = (of: Judged, weights: readonly Mg[], placed: ReadonlyMap<number, StandIn>): SuggestedFix["rows"] =>
  inGrams(of)
    ? of.lines.flatMap((l, i) => {
        const by = placed.get(l.row) ?? null;
        return by || weights[i] !== l.weight ? [typed(l.row, weights[i]!, by, of.scale)] : [];
      })
    : sharedRows(of, weights, placed);

/** A stand-in as the change of the sheet that puts it in. */
export const putIn = (of: Judged, line: JudgedLine, { by, weight, wax }: Instead): SuggestedFix => ({
  say: `Put ${by.name} in the place of ${line.name}`,
  rows: rowsOf(
    of,
    of.lines.map((l) => (l.row === line.row ? weight : l.row === wax?.row ? wax.weight : l.weight)),
    new Map([[line.row, by]]),
  ),
});

export interface Replaced {
  rows: SuggestedFix["rows"];
  /** Lines nothing can stand in for. */
  left: string[];
}

/**
 * Replaces every line that offends by the best that doesn't, one after the other, each in the pot as the ones before have left it.
 * @param offends what has to go @param may what may come
 */
export function replaceAll(
  of: Judged,
  known: readonly StandIn[],
  offends: (line: JudgedLine) => boolean,
  may: (by: StandIn, weight: Mg) => boolean,
): Replaced {
  const placedIn = new Map<number, StandIn>();
  const left: string[] = [];
  let now = of;
  for (const { row, name } of of.lines.filter(offends)) {
    const best = standIns(
      now,
      now.lines.find((l) => l.row === row)!,
      known,
    ).find((s) => may(s.by, s.weight));
    if (!best) {
      left.push(name);
      continue;
    }
    placedIn.set(row, best.by);
    now = best.pot;
  }
  // What was placed, and the waxes that were corrected for it.
  const rows = rowsOf(
    of,
    now.lines.map((l) => l.weight),
    placedIn,
  );
  return { rows, left };
}

export interface Lengthened {
  line: JudgedLine;
  instead: Instead;
}

/** The stand-in for what turns first that keeps the product longest; of those that keep it as long, the cheapest. Null where none does. */
export function lengthened(of: Judged, known: readonly StandIn[]): Lengthened | null {
  const now = keepingOf(of.lines, of.today, of.keepsMonths);
  const line = of.lines.find((l) => l.name === now.weak[0]?.name);
  if (!line) return null;
  const cost = ({ dearer }: Instead): number => dearer ?? Number.MAX_SAFE_INTEGER;
  const found = standIns(of, line, known)
    .filter((s) => s.worse.every((j) => j.gravity === 1))
    .filter((s) => s.months > now.months)
    .sort((a, b) => b.months - a.months || cost(a) - cost(b) || a.rank - b.rank);
  return found[0] ? { line, instead: found[0] } : null;
}
