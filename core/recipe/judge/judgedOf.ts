/** From a sheet as it was read to what is judged of it: its lines with what is known of each, and the lots it would be made of today. */
import type { Constants } from "../../firmness/model.ts";
import { setsBy } from "../../firmness/solids.ts";
import type { ForWhom, UsedOn } from "../../scent/limits.ts";
import type { Lot } from "../../stock/lots.ts";
import { planTakes, type Shelf } from "../../stock/shelf.ts";
import type { Day } from "../../when.ts";
import { keepingOf, type KeepsLine } from "../keeping.ts";
import type { Scale } from "../scale.ts";
import type { RecipeType } from "../types.ts";
import type { ReadRecipe } from "../written.ts";
import type { Judged, JudgedLine } from "./judgement.ts";

export interface JudgedSheet {
  type: RecipeType;
  usedOn: UsedOn;
  forWhom: ForWhom;
  lossBp: number;
  keepsMonths: number;
  /** For each size of the sheet whether it is put away. */
  away: readonly boolean[];
}

/** @param lots by id, to say which would be taken */
export function judgedOf(
  read: ReadRecipe,
  sheet: JudgedSheet,
  shelf: Shelf,
  lots: ReadonlyMap<number, Lot>,
  by: { today: Day; scale: Scale; constants: Constants },
): Judged {
  const lines = read.lines.flatMap((l, row): (JudgedLine & { keepsSealed: number | null })[] =>
    l.out.ok && l.material && l.amount
      ? [
          {
            row,
            of: l.material.id,
            name: l.material.name,
            kind: l.material.kind,
            libraryKey: l.material.libraryKey,
            meltFrom: l.material.meltFrom,
            meltTo: l.material.meltTo,
            sets: setsBy(l.material),
            cautions: l.material.cautions,
            dropsPerMl: l.material.dropsPerMl,
            keepsSealed: l.material.keepsSealed,
            amount: l.amount,
            weight: l.out.weight,
            share: l.out.share,
          },
        ]
      : [],
  );
  const plans = planTakes(
    lines.map((l) => ({ of: l.of, amount: l.weight })),
    shelf,
  );
  const keeps = lines.map(({ name, keepsSealed }, i): KeepsLine => {
    const { takes, short } = plans[i]!;
    return { name, keepsSealed, short: short > 0, lots: takes.flatMap((t) => lots.get(t.lotId) ?? []) };
  });
  const fills = read.sizes.flatMap((s, i) => (s.fill.ok && !sheet.away[i] ? [s.fill.value.weight] : []));
  return {
    ...{ type: sheet.type, usedOn: sheet.usedOn, forWhom: sheet.forWhom, lossBp: sheet.lossBp, keepsMonths: sheet.keepsMonths },
    lines,
    total: read.total,
    scale: by.scale,
    constants: by.constants,
    keeping: keepingOf(keeps, by.today, sheet.keepsMonths),
    fill: fills.length === 1 ? fills[0]! : null,
  };
}
