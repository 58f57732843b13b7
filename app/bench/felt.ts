/** Words for how firm something feels: a drop on a cold spoon, or what was poured. */
import { SPOON, type SpoonVerdict } from "#core/batch/finishing/spoon";
import { done, refuse } from "#core/outcome";
import { isKeyOf } from "#core/objects";
import { optional } from "../forms/fields.ts";

/** One of the five, where somebody felt. */
export const spoonVerdict = optional<SpoonVerdict>((text) =>
  isKeyOf(SPOON, text) ? done(text) : refuse("choice", "Choose one of the five."),
);
