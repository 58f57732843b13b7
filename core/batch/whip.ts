/**
 * Whipping a butter: set enough to hold air and soft enough to take it, broken up slowly, scraped down often, whisked until it stands; and how
 * much air went in, from a cup of it before and after. Common practice, no source; overrun as the trade of whipped foods has it: how much more
 * room the same weight takes.
 */
import { mg, type Mg } from "../measure/exact.ts";
import { grams } from "../measure/write.ts";
import type { RecipeType } from "../recipe/types.ts";

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
