/** Stand-ins as changes of the sheet: one in the place of a line, all that a recipe is to be free of, and what keeps it longest. */
import { usualForm } from "../../material/facts.ts";
import type { Mg } from "../../measure/exact.ts";
import { isScent } from "../../scent/dilution.ts";
import { forScale, type Judged, type JudgedLine, type Mend } from "../judge/judgement.ts";
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
const typed = (row: number, weight: Mg, by: StandIn | null, scale: Scale): Mend["rows"][number] => ({
  row,
  entered: forScale(weight, scale, by && isScent(by) ? "down" : "up"),
  ...(by ? { material: by.name, form: usualForm(by.kind) } : {}),
});

/** A stand-in as the change of the sheet that puts it in. */
export const putIn = ({ scale }: Judged, line: JudgedLine, { by, weight, wax }: Instead): Mend => ({
  say: `Put ${by.name} in the place of ${line.name}`,
  rows: [typed(line.row, weight, by, scale), ...(wax ? [typed(wax.row, wax.weight, null, scale)] : [])],
});

export interface Replaced {
  rows: Mend["rows"];
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
  // What was placed, and the waxes that were put right for it.
  const rows = now.lines.flatMap((l, i) => {
    const by = placedIn.get(l.row) ?? null;
    return by || l.weight !== of.lines[i]!.weight ? [typed(l.row, l.weight, by, of.scale)] : [];
  });
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
