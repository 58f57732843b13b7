/** The demo workshop's harvests and jars, in days before the day it is loaded. */
import type { Cut } from "#core/infusion/absorption";
import type { DryingMethod, HerbValue } from "#core/infusion/drying";
import type { MethodId } from "#core/infusion/methods";
import type { MaterialKey } from "./materials.ts";

/** A picking: fresh grams, weighings on the way (days after, grams), and what it dried into. */
export const HARVESTS: readonly {
  daysAgo: number;
  herb: MaterialKey;
  place: string;
  fresh: number;
  method: DryingMethod;
  celsius?: number;
  checks: readonly (readonly [daysAfter: number, grams: number])[];
  minutes: number;
  dried?: { daysAfter: number; grams: number; snaps: boolean; valuedBy: HerbValue };
}[] = [
  {
    daysAgo: 143,
    herb: "calendula",
    place: "South bed, dew just off",
    fresh: 620,
    method: "dehydrator",
    celsius: 45,
    checks: [
      [1, 190],
      [2, 112],
      [3, 110],
    ],
    minutes: 70,
    dried: { daysAfter: 3, grams: 110, snaps: true, valuedBy: "hours" },
  },
  {
    daysAgo: 128,
    herb: "plantain",
    place: "Orchard path",
    fresh: 480,
    method: "air",
    checks: [
      [3, 160],
      [7, 96],
    ],
    minutes: 45,
    dried: { daysAfter: 8, grams: 95, snaps: true, valuedBy: "nothing" },
  },
  {
    daysAgo: 37,
    herb: "plantain",
    place: "Orchard path, after rain",
    fresh: 300,
    method: "air",
    checks: [[5, 130]],
    minutes: 30,
    dried: { daysAfter: 9, grams: 98, snaps: false, valuedBy: "nothing" },
  },
  {
    daysAgo: 4,
    herb: "rosemary",
    place: "By the kitchen wall",
    fresh: 350,
    method: "dehydrator",
    celsius: 42,
    checks: [
      [1, 240],
      [3, 171],
    ],
    minutes: 25,
  },
];

/** A jar: grams of herb and oil, how long it steeped, and the bottles strained from it. */
export const JARS: readonly {
  daysAgo: number;
  oil: MaterialKey | null;
  name?: string;
  herb: MaterialKey;
  cut: Cut;
  herbGrams: number;
  carrier: MaterialKey;
  oilGrams: number;
  method: MethodId;
  vessel: string;
  vesselMl: number;
  note?: string;
  shaken?: readonly number[];
  strained?: { daysAfter: number; back: number; sediment?: number; pressed?: boolean; bottles: readonly number[] };
  spoiled?: { daysAfter: number; why: string };
}[] = [
  {
    daysAgo: 226,
    oil: "meadowsweetOil",
    herb: "meadowsweet",
    cut: "whole",
    herbGrams: 150,
    carrier: "sunflower",
    oilGrams: 1780,
    method: "shelf",
    vessel: "Three-litre clip jar",
    vesselMl: 3000,
    strained: { daysAfter: 45, back: 1482, sediment: 2, bottles: [740, 730] },
  },
  {
    daysAgo: 226,
    oil: "birchOil",
    herb: "birchLeaf",
    cut: "cut",
    herbGrams: 165,
    carrier: "sunflower",
    oilGrams: 2005,
    method: "shelf",
    vessel: "Three-litre clip jar",
    vesselMl: 3000,
    strained: { daysAfter: 46, back: 1668, sediment: 2, bottles: [830, 826] },
  },
  {
    daysAgo: 226,
    oil: "elderOil",
    herb: "elderflower",
    cut: "whole",
    herbGrams: 60,
    carrier: "apricot",
    oilGrams: 540,
    method: "shelf",
    vessel: "One-litre jar",
    vesselMl: 1000,
    strained: { daysAfter: 44, back: 421, sediment: 2, bottles: [418] },
  },
  {
    daysAgo: 140,
    oil: "meadowsweetOil",
    herb: "meadowsweet",
    cut: "whole",
    herbGrams: 145,
    carrier: "sunflower",
    oilGrams: 1680,
    method: "shelf",
    vessel: "Three-litre clip jar",
    vesselMl: 3000,
    strained: { daysAfter: 46, back: 1391, sediment: 4, bottles: [690, 690] },
  },
  {
    daysAgo: 139,
    oil: "birchOil",
    herb: "birchLeaf",
    cut: "cut",
    herbGrams: 150,
    carrier: "sunflower",
    oilGrams: 1790,
    method: "shelf",
    vessel: "Three-litre clip jar",
    vesselMl: 3000,
    strained: { daysAfter: 46, back: 1488, bottles: [745, 738] },
  },
  {
    daysAgo: 138,
    oil: "elderOil",
    herb: "elderflower",
    cut: "whole",
    herbGrams: 62,
    carrier: "apricot",
    oilGrams: 590,
    method: "shelf",
    vessel: "One-litre jar",
    vesselMl: 1000,
    strained: { daysAfter: 45, back: 468, sediment: 3, bottles: [462] },
  },
  {
    daysAgo: 84,
    oil: null,
    name: "Calendula in olive oil",
    herb: "calendula",
    cut: "whole",
    herbGrams: 40,
    carrier: "olive",
    oilGrams: 450,
    method: "window",
    vessel: "Half-litre jar, cloth top",
    vesselMl: 700,
    spoiled: { daysAfter: 9, why: "Drops under the lid, grey film by the second week" },
  },
  {
    daysAgo: 62,
    oil: "meadowsweetOil",
    herb: "meadowsweet",
    cut: "whole",
    herbGrams: 85,
    carrier: "sunflower",
    oilGrams: 1010,
    method: "shelf",
    vessel: "Litre-and-a-half jar",
    vesselMl: 1500,
    strained: { daysAfter: 47, back: 838, sediment: 2, bottles: [415, 415] },
  },
  {
    daysAgo: 16,
    oil: "elderOil",
    herb: "elderflower",
    cut: "whole",
    herbGrams: 36,
    carrier: "apricot",
    oilGrams: 345,
    method: "cooker",
    vessel: "Half-litre jar",
    vesselMl: 500,
    note: "Twelve hours at the lowest mark, 43 °C.",
    strained: { daysAfter: 1, back: 284, pressed: false, bottles: [280] },
  },
  {
    daysAgo: 44,
    oil: null,
    name: "Calendula in sunflower oil",
    herb: "calendula",
    cut: "whole",
    herbGrams: 45,
    carrier: "sunflower",
    oilGrams: 620,
    method: "shelf",
    vessel: "One-litre jar",
    vesselMl: 1000,
    shaken: [43, 42, 40, 39, 37, 34, 31, 28, 25, 21, 17, 12, 7],
  },
  {
    daysAgo: 20,
    oil: "birchOil",
    herb: "birchLeaf",
    cut: "cut",
    herbGrams: 70,
    carrier: "sunflower",
    oilGrams: 800,
    method: "shelf",
    vessel: "One-litre jar",
    vesselMl: 1000,
    shaken: [19, 18, 17, 16, 15, 13, 12, 11, 9, 8, 6, 4],
  },
  {
    daysAgo: 6,
    oil: null,
    name: "Plantain in olive oil",
    herb: "plantain",
    cut: "cut",
    herbGrams: 40,
    carrier: "olive",
    oilGrams: 400,
    method: "window",
    vessel: "Half-litre jar, cloth top",
    vesselMl: 500,
    note: "For a garden salve to try in spring.",
    shaken: [5, 4, 3, 2, 1],
  },
];
