/** Two windows that give the same name at the same moment: the one that comes second is told beside the field, as if it had come later. */
import { isKeyOf } from "#core/record";
import { Refused } from "#core/refused";

/** What may be there only once, by its constraint: the field it is typed in, and what is said of it. */
const ONCE = {
  material_name: ["name", "There is already a material of that name."],
  recipe_name: ["name", "There is already a recipe of that name."],
  recipe_code: ["code", "Another recipe has these lot letters."],
  contact_name: ["name", "There is already somebody of that name."],
  market_line_lot: ["lines", "That lot stands on this day already."],
} as const;

/** @example taken("recipe_code").problems // [{ field: "code", say: "Another recipe has these lot letters." }] */
export function taken(constraint: string | undefined): Refused {
  const [field, say] =
    constraint !== undefined && isKeyOf(ONCE, constraint)
      ? ONCE[constraint]
      : (["", "Another window has just kept the same thing. Look again: nothing was kept."] as const);
  return Refused.one(field, say);
}
