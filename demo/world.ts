/** What the demo workshop's acts have in hand: its database, its day, and the ids of what was added. */
import { micros, type Micros } from "#core/measure/exact";
import type { Outcome } from "#core/outcome";
import type { Db } from "#db/client";
import type { Day } from "#core/when";
import type { MaterialKey } from "./materials.ts";
import type { RecipeKey } from "./recipes.ts";

export interface World {
  db: Db;
  today: Day;
  materials: Record<MaterialKey, number>;
  /** `productId` is the size it is mostly made in, `smallId` the smaller one. */
  recipes: Record<RecipeKey, { id: number; productId: number; smallId: number | null }>;
}

export interface DemoEvent {
  daysAgo: number;
  run: () => Promise<unknown>;
}

export const idIn = (done: { path: string }): number => Number(done.path.split("/").at(-1));

export const must = <T>(o: Outcome<T>): T => {
  if (!o.ok) throw new Error(`demo data: ${o.problem.say}`);
  return o.value;
};
export const euro = (n: number): Micros => micros(Math.round(n * 100) * 10_000);
