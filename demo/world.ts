/** What the demo workshop's acts have in hand: its database, its day, and the ids of what was added. */
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
