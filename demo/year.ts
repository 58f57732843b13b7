/** Six months of the demo workshop: what was made, sold, given and ordered, in days before the day it is loaded. */
import type { MaterialKey } from "./materials.ts";
import type { RecipeKey } from "./recipes.ts";

/** Recipe, units, days ago, grams left in the jug, and what really got filled when not all did. */
export const BATCHES: readonly {
  daysAgo: number;
  recipe: RecipeKey;
  units: number;
  /** So many of the smaller size out of the same pot. */
  small?: number;
  filled?: number;
  leftover: number;
  minutes: number;
  note?: string;
}[] = [
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
  { daysAgo: 8, recipe: "handBalm", units: 28, small: 14, leftover: 18, minutes: 150 },
];

/** Market days are Saturdays: the one on or before so many days ago. Units taken, sold, given and damaged per product; the oldest lots go along first. */
export const MARKETS: readonly {
  daysAgo: number;
  name: string;
  stallFee: number;
  travel: number;
  hours: number;
  cardShare: number;
  note?: string;
  lines: readonly (readonly [RecipeKey, number, number, number, number])[];
}[] = [
  {
    daysAgo: 112,
    name: "Withy Green summer fair",
    stallFee: 35,
    travel: 9,
    hours: 8,
    cardShare: 0.4,
    note: "26 °C by noon: body butter stayed in the cool box.",
    lines: [
      ["handBalm", 14, 9, 1, 0],
      ["gardenSalve", 12, 7, 1, 0],
      ["lipBalm", 24, 17, 1, 0],
      ["oatBar", 10, 6, 0, 2],
      ["bodyButter", 4, 2, 0, 0],
    ],
  },
  {
    daysAgo: 76,
    name: "Aldermoss Saturday market",
    stallFee: 22,
    travel: 4,
    hours: 6,
    cardShare: 0.55,
    lines: [
      ["handBalm", 14, 8, 0, 0],
      ["gardenSalve", 8, 5, 0, 0],
      ["lipBalm", 20, 13, 1, 0],
      ["lipPot", 12, 8, 1, 0],
      ["workBar", 6, 3, 0, 0],
      ["footBalm", 6, 4, 1, 0],
    ],
  },
  {
    daysAgo: 33,
    name: "Aldermoss Saturday market",
    stallFee: 22,
    travel: 4,
    hours: 6,
    cardShare: 0.6,
    note: "Rain until eleven.",
    lines: [
      ["handBalm", 12, 6, 0, 0],
      ["gardenSalve", 10, 6, 1, 0],
      ["lipBalm", 24, 11, 0, 0],
      ["workBar", 6, 4, 0, 0],
      ["footBalm", 6, 4, 0, 0],
      ["bodyButter", 6, 4, 0, 0],
    ],
  },
  {
    daysAgo: 11,
    name: "Lantern Night, Orrin Quay",
    stallFee: 48,
    travel: 14,
    hours: 7.5,
    cardShare: 0.65,
    lines: [
      ["handBalm", 12, 11, 0, 0],
      ["gardenSalve", 14, 12, 0, 0],
      ["lipBalm", 30, 24, 0, 0],
      ["lipPot", 10, 8, 0, 0],
      ["oatBar", 14, 11, 0, 0],
      ["bodyButter", 8, 7, 0, 0],
      ["footBalm", 8, 6, 0, 0],
    ],
  },
];

/** A day still to come, with what is planned to go along. */
export const NEXT_MARKET = {
  inDays: 12,
  name: "Aldermoss winter market",
  stallFee: 30,
  travel: 4,
  lines: [
    ["handBalm", 16],
    ["lipBalm", 20],
    ["footBalm", 8],
    ["oatBar", 6],
  ] as readonly (readonly [RecipeKey, number])[],
};

/** `due` in days from today, negative for the past; packed orders were packed two days before. */
export const GIFTS: readonly {
  due: number;
  packed: boolean;
  customer: string;
  extra: number;
  discountPercent: number;
  wrapMinutes: number;
  note?: string;
  items: readonly (readonly [RecipeKey, number])[];
  wrapping: readonly (readonly [MaterialKey, number])[];
}[] = [
  {
    due: -86,
    packed: true,
    customer: "Quarrow village choir",
    extra: 6,
    discountPercent: 5,
    wrapMinutes: 30,
    items: [["lipBalm", 12]],
    wrapping: [
      ["tag", 12],
      ["ribbon", 12],
    ],
  },
  {
    due: -58,
    packed: true,
    customer: "Osmer Barn, wedding table",
    extra: 12,
    discountPercent: 5,
    wrapMinutes: 50,
    note: "Cream ribbon, no scent names on the tags.",
    items: [
      ["handBalm", 8],
      ["lipPot", 4],
    ],
    wrapping: [
      ["tag", 8],
      ["ribbon", 8],
      ["tissue", 8],
    ],
  },
  {
    due: -34,
    packed: true,
    customer: "Nan next door",
    extra: 3,
    discountPercent: 0,
    wrapMinutes: 10,
    items: [
      ["gardenSalve", 1],
      ["bodyButter", 1],
    ],
    wrapping: [
      ["box2", 1],
      ["tissue", 2],
      ["ribbon", 1],
    ],
  },
  {
    due: -5,
    packed: true,
    customer: "Tindle Brook school office",
    extra: 10,
    discountPercent: 0,
    wrapMinutes: 35,
    items: [
      ["handBalm", 4],
      ["oatBar", 4],
    ],
    wrapping: [
      ["box2", 4],
      ["tissue", 8],
      ["ribbon", 4],
    ],
  },
  {
    due: 6,
    packed: false,
    customer: "Marrowfield allotments",
    extra: 8,
    discountPercent: 5,
    wrapMinutes: 40,
    note: "Six boxes, names to follow by Friday.",
    items: [
      ["gardenSalve", 6],
      ["workBar", 3],
    ],
    wrapping: [
      ["box2", 6],
      ["tissue", 6],
      ["ribbon", 6],
      ["tag", 6],
    ],
  },
  {
    due: 17,
    packed: false,
    customer: "Ferry crew, winter evening",
    extra: 15,
    discountPercent: 0,
    wrapMinutes: 60,
    items: [
      ["handBalm", 5],
      ["footBalm", 5],
      ["lipBalm", 10],
    ],
    wrapping: [
      ["box4", 5],
      ["tissue", 10],
      ["ribbon", 5],
      ["tag", 5],
    ],
  },
];

/** Taken out of the cabinet otherwise. */
export const TAKEN_OUT: readonly {
  daysAgo: number;
  recipe: RecipeKey;
  units: number;
  reason: "tester" | "gift" | "own" | "damaged";
  note: string;
}[] = [
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
