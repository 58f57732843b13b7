/** Turns a violated unique name into a refusal beside its field: two windows may save the same name at once, and the second is told. */
import { isKeyOf } from "#core/objects";
import { Refused } from "#core/refused";

/** Unique constraints, each with its field and its message. */
const ONCE = {
  material_name: ["name", "There is already a material of that name."],
  recipe_name: ["name", "There is already a recipe of that name."],
  recipe_code: ["code", "Another recipe has these lot letters."],
  contact_name: ["name", "There is already somebody of that name."],
  market_line_lot: ["lines", "That lot is on this day already."],
} as const;

/** @example duplicateRefusal("recipe_code").problems // [{ field: "code", say: "Another recipe has these lot letters." }] */
export function duplicateRefusal(constraint: string | undefined): Refused {
  const [field, say] =
    constraint !== undefined && isKeyOf(ONCE, constraint)
      ? ONCE[constraint]
      : (["", "Another window has just saved the same thing. Look again: nothing was saved."] as const);
  return Refused.one(field, say);
}
