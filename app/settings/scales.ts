/** What scales there are, as a sheet names them: "g 100" reads grams to a tenth. */
import { SCALE_STEPS, type Scale } from "#core/recipe/scale";

export const scaleId = ({ unit, step }: Scale): string => `${unit} ${step}`;
export const SCALES = (["g", "oz"] as const).flatMap((unit) =>
  SCALE_STEPS[unit].map((step): { id: string; scale: Scale } => ({ id: scaleId({ unit, step }), scale: { unit, step } })),
);
/** @throws TypeError for one that isn't there */
export function scaleOf(id: string): Scale {
  const found = SCALES.find((x) => x.id === id);
  if (!found) throw new TypeError(`no scale ${id}`);
  return found.scale;
}
