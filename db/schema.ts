/** Every table, station by station. */
export * from "./schema/act.ts";
export * from "./schema/batch.ts";
export * from "./schema/contact.ts";
export * from "./schema/draft.ts";
export * from "./schema/gift.ts";
export * from "./schema/harvest.ts";
export * from "./schema/jar.ts";
export * from "./schema/market.ts";
export * from "./schema/material.ts";
export * from "./schema/movement.ts";
export * from "./schema/price.ts";
export * from "./schema/purchase.ts";
export * from "./schema/recall.ts";
export * from "./schema/recipe.ts";
export * from "./schema/settings.ts";
export * from "./schema/stock.ts";
export * from "./schema/workshop.ts";
