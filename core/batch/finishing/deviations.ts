/** What of a batch went otherwise than it was planned, for its record. What counts as off is what the bench calls off. */
import { mg, type Mg } from "../../measure/exact.ts";
import { grams } from "../../measure/write.ts";
import { compareToTarget } from "../weighing/weighingFixes.ts";

export interface MadeLine {
  material: string;
  planned: Mg;
  weighed: Mg | null;
}

export interface MadeSize {
  label: string;
  planned: number;
  units: number | null;
}

/**
 * @param step what the scale tells apart
 * @example deviations([{ material: "Wax", planned: mg(40_000), weighed: mg(44_000) }], [], mg(100)) // ["Wax: 44 g weighed, 40 g planned."]
 */
export function deviations(lines: readonly MadeLine[], sizes: readonly MadeSize[], step: Mg): string[] {
  const weights = lines.flatMap((l) => {
    const weighed = l.weighed ?? mg(0);
    if (compareToTarget(weighed, l.planned, step) === "right") return [];
    if (l.planned === 0) return [`${l.material}: ${grams(weighed)} weighed out of a lot that wasn't planned.`];
    return [
      weighed === 0
        ? `${l.material} was left out; ${grams(l.planned)} planned.`
        : `${l.material}: ${grams(weighed)} weighed, ${grams(l.planned)} planned.`,
    ];
  });
  const counts = sizes.flatMap((s) => ((s.units ?? 0) === s.planned ? [] : [`${s.units ?? 0} × ${s.label} filled, ${s.planned} planned.`]));
  return [...weights, ...counts];
}
