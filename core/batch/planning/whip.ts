/**
 * Whipping a butter: set enough to hold air and soft enough to take it, broken up slowly, scraped down often, whisked until it holds its shape; and how
 * much air went in, from a cup of it before and after. Common practice, no source; overrun as the trade of whipped foods has it: how much more
 * room the same weight takes.
 */
import { mg, type Mg } from "../../measure/exact.ts";
import { grams } from "../../measure/write.ts";
import type { RecipeType } from "../../recipe/types.ts";

/** A body butter is whipped, also where nobody has said how much air it takes. @example isWhipped({ type: "bodyButter", overrunBp: 0 }) // true */
export const isWhipped = (r: { type: RecipeType; overrunBp: number }): boolean => r.type === "bodyButter" || r.overrunBp > 0;

/** What a thumb finds after chilling, and what is done about it. */
export const CHILLED = {
  dents: { say: "dents under a thumb", then: "Break it up with the paddle, at the slowest." },
  hard: { say: "too hard to dent", then: "Let it stand until it dents; what is hard all through has to be melted and chilled again." },
  soft: { say: "too soft to stand", then: "Chill it on: it won't hold air." },
} as const;
export type Chilled = keyof typeof CHILLED;
export const CHILLED_IDS = Object.keys(CHILLED) as Chilled[];

/** How it is worked, in order. */
export const WHIPPED = { paddle: "paddle, at the slowest", whisk: "whisk, to peaks that curl and don't fall" } as const;
export type Whipped = keyof typeof WHIPPED;
export const WHIPPED_IDS = Object.keys(WHIPPED) as Whipped[];

/** A third to a half of it clings to the tools: so often it is scraped down. */
export const SCRAPES = 8;

/**
 * How much air is in it: the same cup before and after, filled to the brim.
 * @returns as a share of what it took before; 0 where it is no lighter
 * @example overrunOf(mg(150_000), mg(100_000)) // 0.5
 */
export const overrunOf = (before: Mg, after: Mg): number => Math.max(0, before / after - 1);

/**
 * What a jar holds that is filled as high as was planned.
 * @param planned what was counted on, in basis points
 * @example filledAs(mg(120_000), 4_000, 0.5) // 112_000
 */
export const filledAs = (fill: Mg, planned: number, overrun: number): Mg => mg(Math.round((fill * (1 + planned / 10_000)) / (1 + overrun)));

/** Less than a hundredth nobody fills to. */
const NEAR = 0.01;

/**
 * What the air does to a size, in words; nothing where it is as planned.
 * @example sayFilled("120 g", mg(120_000), mg(112_000)) // "120 g, filled as high as planned, holds 112 g: less than its label says. Whip it less, or fill by weight."
 */
export function sayFilled(label: string, fill: Mg, holds: Mg): string | null {
  if (Math.abs(holds - fill) <= fill * NEAR) return null;
  const less =
    holds < fill
      ? "less than its label says. Whip it less, or fill by weight."
      : "more than its label says, so that there are fewer of them.";
  return `${label}, filled as high as planned, holds ${grams(holds, 0)}: ${less}`;
}

export interface WhippedSize {
  label: string;
  units: number;
  /** As planned. */
  fill: Mg;
}

/**
 * What is left over of a pot once its jars are filled as high as planned, in words: more air than was counted on leaves some, less of it is short.
 * @param pot what comes out of the pot, its loss taken off
 * @param planned air that was counted on, in basis points
 * @returns nothing where it comes out as planned, to a hundredth of the pot
 * @example sayLeft(mg(1_000_000), [{ label: "100 g", units: 10, fill: mg(100_000) }], 0, 0.25) // "Filled as high as planned, the jars take 800 g: 200 g is left over, enough for 2 × 100 g more."
 */
export function sayLeft(pot: Mg, sizes: readonly WhippedSize[], planned: number, overrun: number): string | null {
  const filled = sizes.filter((s) => s.units > 0).map((s) => ({ ...s, holds: filledAs(s.fill, planned, overrun) }));
  const takes = filled.reduce((all, s) => all + s.units * s.holds, 0);
  const before = filled.reduce((all, s) => all + s.units * s.fill, 0);
  const left = pot - takes;
  if (filled.length === 0 || Math.abs(takes - before) <= pot * NEAR) return null;
  const take = `Filled as high as planned, the jars take ${grams(mg(takes), 0)}:`;
  if (left < 0) return `${take} ${grams(mg(-left), 0)} more than there is, so that the last of them stay empty.`;
  const more = filled.map((s) => ({ ...s, n: Math.floor(left / s.holds) })).find((s) => s.n > 0);
  return `${take} ${grams(mg(left), 0)} is left over${more ? `, enough for ${more.n} × ${more.label} more` : ""}.`;
}
