/** What the fields for names choose from, by what they ask. */
import { CARRIER_KINDS, COUNTED_KINDS, KIND_IDS, kind } from "#core/material/kinds";
import type { Finds } from "./name.ts";

export const MATERIALS: Finds = { of: "material" };
export const INGREDIENTS: Finds = { of: "material", kinds: KIND_IDS.filter((k) => kind(k).measured === "weight") };
export const PACKAGING: Finds = { of: "material", kinds: COUNTED_KINDS };
export const HERBS: Finds = { of: "material", kinds: ["herb"] };
export const CARRIERS: Finds = { of: "material", kinds: CARRIER_KINDS };
export const LIDS: Finds = { of: "material", kinds: ["closure"] };
export const PRODUCTS: Finds = { of: "product" };
export const OIL_LOTS: Finds = { of: "oilLot" };
export const SUPPLIERS: Finds = { of: "supplier" };
export const CUSTOMERS: Finds = { of: "customer" };
export const MARKETS: Finds = { of: "market" };
