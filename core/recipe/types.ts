/** The kinds of product made here; all anhydrous. Usual keeping times, and where on the body each goes, are common practice, no source. */
import type { UsedOn } from "../scent/limits.ts";

export const RECIPE_TYPES = {
  salve: { label: "Salve", keepsMonths: 12, usedOn: "hands" },
  balm: { label: "Balm", keepsMonths: 12, usedOn: "hands" },
  lipBalm: { label: "Lip balm", keepsMonths: 12, usedOn: "lips" },
  lotionBar: { label: "Lotion bar", keepsMonths: 12, usedOn: "body" },
  massageBar: { label: "Massage bar", keepsMonths: 12, usedOn: "body" },
  bodyButter: { label: "Body butter", keepsMonths: 9, usedOn: "body" },
} as const satisfies Record<string, { label: string; keepsMonths: number; usedOn: UsedOn }>;
export type RecipeType = keyof typeof RECIPE_TYPES;
export const RECIPE_TYPE_IDS = Object.keys(RECIPE_TYPES) as RecipeType[];

/** Whether it is pressed out of a mould. @example isBar("massageBar") // true */
export const isBar = (type: RecipeType): boolean => type === "lotionBar" || type === "massageBar";
