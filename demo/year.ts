/** Six months of the demo workshop: what was bought, made, sold, given and ordered, in days before the day it is loaded. */
import type { MaterialKey } from "./materials.ts";
import type { RecipeKey } from "./recipes.ts";

export interface DemoPurchase {
  daysAgo: number;
  supplier: string;
  postage: number;
  /** Material, packs, pack size, price of all packs, months until its best-before (0: none). */
  lines: readonly (readonly [MaterialKey, number, string, number, number])[];
}

const OIL_PRESS = "Skerrow Oil Press";
const BOTANICALS = "Undermere Botanicals";
const TINS = "Vellick Tin and Glass";
const PAPER = "Ostrand Paper Room";
const OWN = "Own jars";

export const PURCHASES: readonly DemoPurchase[] = [
  { daysAgo: 196, supplier: BOTANICALS, postage: 9.8, lines: [["beeswax", 2, "1 kg", 31, 0], ["candelilla", 1, "250 g", 9.4, 0], ["cocoa", 1, "1 kg", 21.5, 18], ["mango", 1, "500 g", 12.9, 14], ["kokum", 1, "500 g", 14.2, 18], ["shea", 1, "2.5 kg", 29.8, 17], ["vitaminE", 1, "100 mL", 13.6, 22], ["arrowroot", 1, "500 g", 4.9, 20]] },
  { daysAgo: 194, supplier: OIL_PRESS, postage: 8.5, lines: [["sunflower", 1, "5 L", 24.5, 14], ["apricot", 1, "500 mL", 9.2, 12], ["jojoba", 1, "250 mL", 12.8, 22], ["seaBuckthorn", 1, "100 mL", 18.4, 15], ["rosehip", 1, "250 mL", 14.9, 7.5], ["blackcurrant", 2, "50 mL", 17.6, 7.9], ["oatOil", 1, "250 mL", 16.2, 13], ["castor", 1, "250 mL", 5.4, 24], ["coconut", 1, "1 kg", 9.6, 18]] },
  { daysAgo: 190, supplier: TINS, postage: 12, lines: [["tin60", 1, "100 pcs", 46, 0], ["tin100", 1, "48 pcs", 31.2, 0], ["lipTube", 2, "50 pcs", 24, 0], ["glassPot", 1, "48 pcs", 28.8, 0], ["potLid", 1, "48 pcs", 8.6, 0], ["jar150", 1, "24 pcs", 27.4, 0], ["jarLid", 1, "24 pcs", 7.2, 0], ["barTin", 1, "25 pcs", 17.5, 0]] },
  { daysAgo: 188, supplier: PAPER, postage: 5.4, lines: [["roundLabel", 1, "200 pcs", 19, 0], ["tubeLabel", 1, "250 pcs", 18.5, 0], ["jarLabel", 1, "50 pcs", 8.4, 0], ["barBand", 1, "50 pcs", 6.9, 0], ["carton", 1, "50 pcs", 14.5, 0], ["tissue", 1, "48 pcs", 6.2, 0], ["ribbon", 1, "50 pcs", 11.5, 0], ["tag", 1, "50 pcs", 7.8, 0]] },
  { daysAgo: 186, supplier: BOTANICALS, postage: 4.9, lines: [["lavender", 1, "50 mL", 14.8, 24], ["juniper", 1, "50 mL", 21.4, 18], ["pine", 1, "30 mL", 8.9, 18], ["spearmint", 1, "20 mL", 6.4, 24], ["oatFlour", 1, "500 g", 5.2, 12], ["beet", 1, "100 g", 3.9, 6], ["gloves", 1, "50 pcs", 7.9, 0]] },
  { daysAgo: 178, supplier: OWN, postage: 0, lines: [["meadowsweetOil", 1, "1.6 L", 14.2, 11], ["birchOil", 1, "1.8 L", 13.9, 11], ["elderOil", 1, "450 mL", 11.6, 10]] },
  { daysAgo: 150, supplier: BOTANICALS, postage: 6.2, lines: [["meadowsweet", 1, "250 g", 8.4, 14], ["elderflower", 1, "200 g", 9.9, 14], ["birchLeaf", 1, "250 g", 6.8, 14]] },
  { daysAgo: 122, supplier: OIL_PRESS, postage: 7.9, lines: [["sunflower", 1, "5 L", 26.8, 14], ["rosehip", 1, "250 mL", 15.8, 7], ["seaBuckthorn", 1, "100 mL", 19.9, 15], ["jojoba", 1, "250 mL", 13.4, 22], ["coconut", 1, "1 kg", 10.4, 18], ["oatOil", 1, "250 mL", 16.9, 13]] },
  { daysAgo: 115, supplier: BOTANICALS, postage: 8.9, lines: [["beeswax", 2, "1 kg", 33.6, 0], ["shea", 1, "2.5 kg", 31.4, 16], ["cocoa", 1, "1 kg", 26.9, 18], ["mango", 1, "500 g", 13.8, 14], ["vitaminE", 1, "100 mL", 14.4, 22]] },
  { daysAgo: 96, supplier: TINS, postage: 9.6, lines: [["tin60", 1, "100 pcs", 48.5, 0], ["lipTube", 1, "50 pcs", 12.4, 0], ["jar150", 1, "24 pcs", 28.8, 0], ["jarLid", 1, "24 pcs", 7.2, 0], ["tin100", 1, "24 pcs", 17.3, 0]] },
  { daysAgo: 92, supplier: OWN, postage: 0, lines: [["meadowsweetOil", 1, "1.5 L", 13.8, 11], ["birchOil", 1, "1.6 L", 13.1, 11], ["elderOil", 1, "500 mL", 12.4, 10]] },
  { daysAgo: 70, supplier: OIL_PRESS, postage: 6.8, lines: [["apricot", 1, "1 L", 17.4, 12], ["blackcurrant", 1, "50 mL", 9.2, 8], ["blackcurrant", 1, "50 mL", 9.2, 9], ["castor", 1, "250 mL", 5.6, 24]] },
  { daysAgo: 55, supplier: PAPER, postage: 5.9, lines: [["roundLabel", 1, "200 pcs", 19.5, 0], ["box2", 1, "25 pcs", 21.2, 0], ["box4", 1, "20 pcs", 27.6, 0], ["tissue", 1, "48 pcs", 6.4, 0], ["ribbon", 1, "50 pcs", 11.9, 0], ["tubeLabel", 1, "100 pcs", 8.2, 0]] },
  { daysAgo: 44, supplier: BOTANICALS, postage: 7.4, lines: [["shea", 1, "2.5 kg", 33.2, 16], ["lavender", 1, "50 mL", 15.6, 24], ["juniper", 1, "50 mL", 22.9, 18], ["beeswax", 1, "1 kg", 17.9, 0], ["candelilla", 1, "250 g", 9.9, 0]] },
  { daysAgo: 36, supplier: OIL_PRESS, postage: 6.5, lines: [["rosehip", 1, "250 mL", 16.4, 3.1], ["coconut", 1, "1 kg", 11.2, 18], ["sunflower", 1, "2 L", 12.9, 14], ["seaBuckthorn", 1, "100 mL", 20.4, 15]] },
  { daysAgo: 24, supplier: TINS, postage: 8.8, lines: [["tin60", 1, "50 pcs", 26.5, 0], ["glassPot", 1, "48 pcs", 30.2, 0], ["potLid", 1, "48 pcs", 8.9, 0], ["barTin", 1, "25 pcs", 18.4, 0]] },
  { daysAgo: 15, supplier: OWN, postage: 0, lines: [["elderOil", 1, "300 mL", 8.1, 10], ["meadowsweetOil", 1, "900 mL", 8.6, 11]] },
];

/** Recipe, units, days ago, grams left in the jug, and what really got filled when not all did. */
export const BATCHES: readonly { daysAgo: number; recipe: RecipeKey; units: number; filled?: number; leftover: number; minutes: number; note?: string }[] = [
  { daysAgo: 172, recipe: "handBalm", units: 24, leftover: 12, minutes: 125 },
  { daysAgo: 160, recipe: "gardenSalve", units: 20, leftover: 8, minutes: 100 },
  { daysAgo: 150, recipe: "lipBalm", units: 48, filled: 47, leftover: 6, minutes: 115 },
  { daysAgo: 139, recipe: "oatBar", units: 16, leftover: 4, minutes: 85, note: "First two bars cracked on the edge: mould was cold." },
  { daysAgo: 128, recipe: "bodyButter", units: 12, filled: 11, leftover: 45, minutes: 140, note: "Over-chilled, one jar short." },
  { daysAgo: 117, recipe: "footBalm", units: 14, leftover: 10, minutes: 105 },
  { daysAgo: 104, recipe: "lipPot", units: 22, leftover: 3, minutes: 95 },
  { daysAgo: 90, recipe: "handBalm", units: 24, leftover: 15, minutes: 118 },
  { daysAgo: 85, recipe: "workBar", units: 12, leftover: 9, minutes: 80 },
  { daysAgo: 66, recipe: "gardenSalve", units: 24, leftover: 14, minutes: 104 },
  { daysAgo: 52, recipe: "lipBalm", units: 56, filled: 55, leftover: 5, minutes: 122 },
  { daysAgo: 40, recipe: "bodyButter", units: 12, leftover: 20, minutes: 132 },
  { daysAgo: 31, recipe: "oatBar", units: 20, leftover: 7, minutes: 92 },
  { daysAgo: 19, recipe: "footBalm", units: 16, leftover: 12, minutes: 110 },
  { daysAgo: 8, recipe: "handBalm", units: 30, leftover: 18, minutes: 135 },
];

/** Market days are Saturdays: the one on or before so many days ago. Units taken, sold, given and damaged per product; the oldest lots go along first. */
export const MARKETS: readonly { daysAgo: number; name: string; stallFee: number; travel: number; hours: number; cardShare: number; note?: string; lines: readonly (readonly [RecipeKey, number, number, number, number])[] }[] = [
  { daysAgo: 112, name: "Withy Green summer fair", stallFee: 35, travel: 9, hours: 8, cardShare: 0.4, note: "26 °C by noon: body butter stayed in the cool box.", lines: [["handBalm", 14, 9, 1, 0], ["gardenSalve", 12, 7, 1, 0], ["lipBalm", 24, 17, 1, 0], ["oatBar", 10, 6, 0, 2], ["bodyButter", 4, 2, 0, 0]] },
  { daysAgo: 76, name: "Aldermoss Saturday market", stallFee: 22, travel: 4, hours: 6, cardShare: 0.55, lines: [["handBalm", 14, 8, 0, 0], ["gardenSalve", 8, 5, 0, 0], ["lipBalm", 20, 13, 1, 0], ["lipPot", 12, 8, 1, 0], ["workBar", 6, 3, 0, 0], ["footBalm", 6, 4, 1, 0]] },
  { daysAgo: 33, name: "Aldermoss Saturday market", stallFee: 22, travel: 4, hours: 6, cardShare: 0.6, note: "Rain until eleven.", lines: [["handBalm", 12, 6, 0, 0], ["gardenSalve", 10, 6, 1, 0], ["lipBalm", 24, 11, 0, 0], ["workBar", 6, 4, 0, 0], ["footBalm", 6, 4, 0, 0], ["bodyButter", 6, 4, 0, 0]] },
  { daysAgo: 11, name: "Lantern Night, Orrin Quay", stallFee: 48, travel: 14, hours: 7.5, cardShare: 0.65, lines: [["handBalm", 12, 11, 0, 0], ["gardenSalve", 14, 12, 0, 0], ["lipBalm", 30, 24, 0, 0], ["lipPot", 10, 8, 0, 0], ["oatBar", 14, 11, 0, 0], ["bodyButter", 8, 7, 0, 0], ["footBalm", 8, 6, 0, 0]] },
];

/** A day still to come, with what is planned to go along. */
export const NEXT_MARKET = { inDays: 12, name: "Aldermoss winter market", stallFee: 30, travel: 4, lines: [["handBalm", 16], ["lipBalm", 20], ["footBalm", 8], ["oatBar", 6]] as readonly (readonly [RecipeKey, number])[] };

/** `due` in days from today, negative for the past; packed orders were packed two days before. */
export const GIFTS: readonly { due: number; packed: boolean; customer: string; extra: number; discountPercent: number; wrapMinutes: number; note?: string; items: readonly (readonly [RecipeKey, number])[]; wrapping: readonly (readonly [MaterialKey, number])[] }[] = [
  { due: -86, packed: true, customer: "Quarrow village choir", extra: 6, discountPercent: 5, wrapMinutes: 30, items: [["lipBalm", 12]], wrapping: [["tag", 12], ["ribbon", 12]] },
  { due: -58, packed: true, customer: "Osmer Barn, wedding table", extra: 12, discountPercent: 5, wrapMinutes: 50, note: "Cream ribbon, no scent names on the tags.", items: [["handBalm", 8], ["lipPot", 4]], wrapping: [["tag", 8], ["ribbon", 8], ["tissue", 8]] },
  { due: -34, packed: true, customer: "Nan next door", extra: 3, discountPercent: 0, wrapMinutes: 10, items: [["gardenSalve", 1], ["bodyButter", 1]], wrapping: [["box2", 1], ["tissue", 2], ["ribbon", 1]] },
  { due: -5, packed: true, customer: "Tindle Brook school office", extra: 10, discountPercent: 0, wrapMinutes: 35, items: [["handBalm", 4], ["oatBar", 4]], wrapping: [["box2", 4], ["tissue", 8], ["ribbon", 4]] },
  { due: 6, packed: false, customer: "Marrowfield allotments", extra: 8, discountPercent: 5, wrapMinutes: 40, note: "Six boxes, names to follow by Friday.", items: [["gardenSalve", 6], ["workBar", 3]], wrapping: [["box2", 6], ["tissue", 6], ["ribbon", 6], ["tag", 6]] },
  { due: 17, packed: false, customer: "Ferry crew, winter evening", extra: 15, discountPercent: 0, wrapMinutes: 60, items: [["handBalm", 5], ["footBalm", 5], ["lipBalm", 10]], wrapping: [["box4", 5], ["tissue", 10], ["ribbon", 5], ["tag", 5]] },
];

/** Taken out of the cabinet otherwise. */
export const TAKEN_OUT: readonly { daysAgo: number; recipe: RecipeKey; units: number; reason: "tester" | "gift" | "own" | "damaged"; note: string }[] = [
  { daysAgo: 158, recipe: "gardenSalve", units: 1, reason: "own", note: "Last tin, with the sediment" },
  { daysAgo: 127, recipe: "bodyButter", units: 1, reason: "tester", note: "Open on the stall" },
  { daysAgo: 74, recipe: "workBar", units: 1, reason: "gift", note: "For the beekeeper" },
  { daysAgo: 17, recipe: "footBalm", units: 1, reason: "damaged", note: "Dropped, tin dented" },
];

/** Counts corrected: material, days ago, grams or pieces that were found or missing, and why. */
export const COUNTS: readonly { daysAgo: number; material: MaterialKey; change: number; reason: string }[] = [
  { daysAgo: 84, material: "sunflower", change: -38, reason: "Spilt while decanting" },
  { daysAgo: 50, material: "roundLabel", change: -7, reason: "Misprinted" },
  { daysAgo: 22, material: "shea", change: 24, reason: "Tub was heavier than its label" },
];
