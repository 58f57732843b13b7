/** From a sheet as it was read to what is judged of it: its lines with what is known of each, and the lots it would be made of today. */
import type { Constants } from "../../firmness/model.ts";
import { setsBy } from "../../firmness/solids.ts";
import { dripsOf } from "../../measure/drops.ts";
import type { ForWhom, UsedOn } from "../../scent/limits.ts";
import type { Lot } from "../../stock/lots.ts";
import { planTakes, type Shelf } from "../../stock/shelf.ts";
import type { Day } from "../../when.ts";
import type { Scale } from "../scale.ts";
import type { RecipeType } from "../types.ts";
import type { MaterialChoice, ReadRecipe } from "../written.ts";
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

/** What a line is judged by that is its material's. */
export const factsOf = (m: MaterialChoice) => ({
  ...{ of: m.id, name: m.name, kind: m.kind, libraryKey: m.libraryKey, sets: setsBy(m) },
  ...{ meltFrom: m.meltFrom, meltTo: m.meltTo, makeup: m.makeup },
  ...{ cautions: m.cautions, allergen: m.allergen, dropsPerMl: dripsOf(m.lots ?? []) ?? m.dropsPerMl, keepsSealed: m.keepsSealed },
});

/** @param lots by id, to say which would be taken */
export function judgedOf(
  read: ReadRecipe,
  sheet: JudgedSheet,
  shelf: Shelf,
  lots: ReadonlyMap<number, Lot>,
  by: { today: Day; scale: Scale; constants: Constants },
): Judged {
  const found = read.lines.flatMap((l, row) =>
    l.out.ok && l.material && l.amount ? [{ row, material: l.material, amount: l.amount, weight: l.out.weight, share: l.out.share }] : [],
  );
  const plans = planTakes(
    found.map((l) => ({ of: l.material.id, amount: l.weight })),
    shelf,
  );
  const lines = found.map(({ material, ...l }, i): JudgedLine => {
    const { takes, short } = plans[i]!;
    return { ...l, ...factsOf(material), lots: takes.flatMap((t) => lots.get(t.lotId) ?? []), short: short > 0 };
  });
  const fills = read.sizes.flatMap((s, i) => (s.fill.ok && !sheet.away[i] ? [s.fill.value.weight] : []));
  return {
    ...{ type: sheet.type, usedOn: sheet.usedOn, forWhom: sheet.forWhom, lossBp: sheet.lossBp, keepsMonths: sheet.keepsMonths },
    lines,
    total: read.total,
    scale: by.scale,
    constants: by.constants,
    today: by.today,
    fill: fills.length === 1 ? fills[0]! : null,
  };
}
