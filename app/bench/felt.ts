/** How firm something is, as it is said: of a drop on a cold spoon, or of what was poured. */
import { SPOON, type SpoonVerdict } from "#core/batch/spoon";
import { done, refuse } from "#core/outcome";
import { isKeyOf } from "#core/record";
import { optional } from "../forms/fields.ts";

/** One of the five, where somebody felt. */
export const spoonSaid = optional<SpoonVerdict>((text) =>
  isKeyOf(SPOON, text) ? done(text) : refuse("choice", "Choose one of the five."),
);
