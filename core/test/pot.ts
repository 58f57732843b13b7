/** Pots for tests: anything of the starter library by its key, plenty of it on hand, everything at two cents a gram. */
import Fraction from "fraction.js";
import { TRADE } from "../firmness/model.ts";
import { kind } from "../material/kinds.ts";
import { LIBRARY, libraryChoice } from "../material/library.ts";
import { mg, micros } from "../measure/exact.ts";
import type { StandIn } from "../recipe/instead/standIn.ts";
import { factsOf } from "../recipe/judge/judgedOf.ts";
import type { Judged, JudgedLine } from "../recipe/judge/judgement.ts";
import type { RecipeType } from "../recipe/types.ts";

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
/** What stands for a key. */
export const was = (key: string): StandIn => byKey.get(key)!;
export const BALM: [string, number][] = [
  ["beeswax-yellow", 60],
  ["shea-unrefined", 80],
  ["almond", 200],
  ["eo-lavender", 4],
];
