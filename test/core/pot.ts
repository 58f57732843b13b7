/** Pots for tests: anything of the starter library by its key, plenty of it on hand, everything at two cents a gram. */
import Fraction from "fraction.js";
import { TRADE } from "#core/firmness/model";
import { kind } from "#core/material/kinds";
import { LIBRARY, libraryChoice } from "#core/material/library";
import { mg, micros } from "#core/measure/exact";
import type { StandIn } from "#core/recipe/instead/standIn";
import { factsOf } from "#core/recipe/judge/judgedOf";
import type { Judged, JudgedLine } from "#core/recipe/judge/judgement";
import type { RecipeType } from "#core/recipe/types";

export const ALL: readonly StandIn[] = LIBRARY.filter((e) => kind(e.kind).measured === "weight").map((e, i) => ({
  ...libraryChoice(e, i + 1),
  ...{ allergen: e.allergen, vegan: e.vegan, feel: e.feel, smell: e.smell, per: { value: micros(20_000_000), per: 1_000_000 } },
  lots: [{ number: `R${i}`, bestBefore: null, onHand: 1_000_000 }],
}));
const byKey = new Map(ALL.map((m) => [m.libraryKey!, m]));
export const known = new Map(ALL.map((m) => [m.id, m]));
/** @param parts library key and grams, a line each */
export function pot(type: RecipeType, parts: [string, number][]): Judged {
  const total = mg(parts.reduce((a, [, grams]) => a + grams * 1000, 0));
  const lines = parts.map(([key, grams], row): JudgedLine => {
    const amount = { n: new Fraction(grams), unit: "g" as const };
    return { ...factsOf(byKey.get(key)!), row, amount, weight: mg(grams * 1000), share: (grams * 1000) / total, lots: [], short: false };
  });
  const by = { scale: { unit: "g", step: 100 }, usedOn: "hands", forWhom: "anyone", constants: TRADE, today: "2026-11-27" } as const;
  return { ...by, type, total, lines, keepsMonths: 12, lossBp: 200, fill: null };
}
/** What a key means. */
export const was = (key: string): StandIn => byKey.get(key)!;
export const BALM: [string, number][] = [
  ["beeswax-yellow", 60],
  ["shea-unrefined", 80],
  ["almond", 200],
  ["eo-lavender", 4],
];
