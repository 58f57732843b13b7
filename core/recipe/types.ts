/** The kinds of product made here; all anhydrous. Usual keeping times are common practice, no source. */
export const RECIPE_TYPES = {
  salve: { label: "Salve", keepsMonths: 12 },
  balm: { label: "Balm", keepsMonths: 12 },
  lipBalm: { label: "Lip balm", keepsMonths: 12 },
  lotionBar: { label: "Lotion bar", keepsMonths: 12 },
  bodyButter: { label: "Body butter", keepsMonths: 9 },
} as const;
export type RecipeType = keyof typeof RECIPE_TYPES;
export const RECIPE_TYPE_IDS = Object.keys(RECIPE_TYPES) as RecipeType[];
