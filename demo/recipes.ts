/** The demo workshop's eight recipes, written the mixed way people write them. */
import type { Form } from "#core/measure/mass";
import type { RecipeType } from "#core/recipe/types";
import type { MaterialKey } from "./materials.ts";

export interface DemoRecipe {
  name: string;
  code: string;
  type: RecipeType;
  makes?: string;
  fill: string;
  lossPercent: number;
  keepsMonths: number;
  batchMinutes: number;
  unitMinutes: number;
  lines: readonly (readonly [MaterialKey, string, Form])[];
  packaging: readonly (readonly [MaterialKey, number])[];
  method: string;
  /** What it was at first, until so many days ago, and why it isn't any more. */
  first?: { lines: readonly (readonly [MaterialKey, string])[]; until: number; why: string };
  /** Market, online, wholesale, gift. */
  prices: Prices;
  /** A smaller one out of the same pot; filled to what its container holds where no fill is given. */
  small?: {
    fill?: string;
    unitMinutes: number;
    packaging: readonly (readonly [MaterialKey, number])[];
    prices: Prices;
  };
}

type Prices = readonly [market: number, online: number, wholesale: number, gift: number];

export const RECIPES = {
  handBalm: {
    name: "Sea buckthorn hand balm",
    code: "SB",
    type: "balm",
    fill: "60 g",
    lossPercent: 2,
    keepsMonths: 12,
    batchMinutes: 55,
    unitMinutes: 2.5,
    lines: [
      ["beeswax", "2/3 cup", "pellets"],
      ["shea", "4 oz", "block"],
      ["sunflower", "1 1/4 cups", "liquid"],
      ["seaBuckthorn", "2 tbsp", "liquid"],
      ["vitaminE", "1 tsp", "liquid"],
      ["lavender", "60 drops", "liquid"],
    ],
    packaging: [
      ["tin60", 1],
      ["roundLabel", 1],
    ],
    method:
      "Melt the wax with half of the sunflower oil over hot water. Shea off the heat, then the rest of the oils. Pour at 54 °C; sea buckthorn stains, wipe at once.",
    prices: [11.5, 11.9, 6.4, 12],
    small: {
      unitMinutes: 1.5,
      packaging: [
        ["glassPot", 1],
        ["potLid", 1],
        ["tubeLabel", 1],
      ],
      prices: [4, 4.5, 2.2, 4.5],
    },
  },
  gardenSalve: {
    name: "Meadowsweet garden salve",
    code: "MG",
    type: "salve",
    fill: "60 g",
    lossPercent: 1.5,
    keepsMonths: 12,
    batchMinutes: 45,
    unitMinutes: 2.5,
    lines: [
      ["beeswax", "1/2 cup", "pellets"],
      ["meadowsweetOil", "2 cups", "liquid"],
      ["vitaminE", "1/2 tsp", "liquid"],
    ],
    packaging: [
      ["tin60", 1],
      ["roundLabel", 1],
    ],
    method:
      "Strain the oil once more through paper. Melt, stir two minutes off the heat, pour; the last tin has the sediment and stays here.",
    prices: [10, 10.9, 5.5, 10.5],
  },
  footBalm: {
    name: "Birch and juniper foot balm",
    code: "BJ",
    type: "balm",
    makes: "800 g",
    fill: "100 g",
    lossPercent: 2,
    keepsMonths: 12,
    batchMinutes: 60,
    unitMinutes: 3,
    lines: [
      ["beeswax", "2 parts", "block"],
      ["cocoa", "1 part", "block"],
      ["shea", "2 parts", "block"],
      ["birchOil", "6 parts", "liquid"],
      ["juniper", "1.5 %", "liquid"],
      ["pine", "0.5 %", "liquid"],
      ["vitaminE", "0.5 %", "liquid"],
    ],
    packaging: [
      ["tin100", 1],
      ["roundLabel", 1],
    ],
    method: "Wax first, cocoa next, shea off the heat. Scent below 50 °C, stir three minutes.",
    prices: [16, 16.9, 8.9, 17],
  },
  lipBalm: {
    name: "Blackcurrant lip balm",
    code: "BL",
    type: "lipBalm",
    makes: "250 g",
    fill: "4.5 g",
    lossPercent: 4,
    keepsMonths: 12,
    batchMinutes: 50,
    unitMinutes: 1.2,
    lines: [
      ["beeswax", "25 %", "pellets"],
      ["cocoa", "15 %", "chopped"],
      ["coconut", "15 %", "block"],
      ["apricot", "30 %", "liquid"],
      ["blackcurrant", "9.5 %", "liquid"],
      ["castor", "4 %", "liquid"],
      ["spearmint", "0.5 %", "liquid"],
      ["vitaminE", "1 %", "liquid"],
    ],
    packaging: [
      ["lipTube", 1],
      ["tubeLabel", 1],
    ],
    method: "Warm the tray of tubes first. Fill to the brim, top up the dimple before it sets, cap only when cold.",
    first: {
      lines: [
        ["beeswax", "22 %"],
        ["apricot", "33 %"],
      ],
      until: 96,
      why: "Bent in a warm pocket: more wax",
    },
    prices: [4.5, 4.9, 2.4, 5],
  },
  lipPot: {
    name: "Elderflower lip pot",
    code: "EL",
    type: "lipBalm",
    fill: "10 g",
    lossPercent: 4,
    keepsMonths: 12,
    batchMinutes: 45,
    unitMinutes: 2,
    lines: [
      ["candelilla", "30 g", "pellets"],
      ["mango", "2 oz", "block"],
      ["coconut", "2 tbsp", "melted"],
      ["elderOil", "1/2 cup", "liquid"],
      ["castor", "1 tbsp", "liquid"],
      ["vitaminE", "1/4 tsp", "liquid"],
    ],
    packaging: [
      ["glassPot", 1],
      ["potLid", 1],
      ["tubeLabel", 1],
    ],
    method: "Candelilla needs 75 °C; everything else joins off the heat. Vegan: keep a pot that never saw beeswax.",
    prices: [7, 7.9, 3.9, 7.5],
  },
  oatBar: {
    name: "Oat lotion bar",
    code: "OB",
    type: "lotionBar",
    makes: "850 g",
    fill: "50 g",
    lossPercent: 2,
    keepsMonths: 12,
    batchMinutes: 50,
    unitMinutes: 2,
    lines: [
      ["beeswax", "7 parts", "block"],
      ["cocoa", "7 parts", "block"],
      ["coconut", "5 parts", "block"],
      ["oatOil", "3 parts", "liquid"],
      ["oatFlour", "3 tbsp", "powder"],
    ],
    packaging: [
      ["carton", 1],
      ["barBand", 1],
    ],
    method: "Paste the oat flour with a little oil first. Pour when the jug's wall skins over, 35 minutes in the fridge, wrap after a day.",
    prices: [8.5, 8.9, 4.7, 9],
  },
  bodyButter: {
    name: "Rosehip body butter",
    code: "RB",
    type: "bodyButter",
    fill: "120 g",
    lossPercent: 5,
    keepsMonths: 9,
    batchMinutes: 90,
    unitMinutes: 3.5,
    lines: [
      ["shea", "600 g", "block"],
      ["mango", "150 g", "block"],
      ["coconut", "100 g", "block"],
      ["rosehip", "120 g", "liquid"],
      ["jojoba", "60 mL", "liquid"],
      ["arrowroot", "3 tbsp", "powder"],
      ["lavender", "2 mL", "liquid"],
    ],
    packaging: [
      ["jar150", 1],
      ["jarLid", 1],
      ["jarLabel", 1],
    ],
    method: "Chill until it dents, break up slowly, scrape, then whisk to peaks that curl. Starch and scent at the end.",
    prices: [19, 19.9, 10.5, 20],
  },
  workBar: {
    name: "Juniper work bar",
    code: "JB",
    type: "lotionBar",
    fill: "70 g",
    lossPercent: 2,
    keepsMonths: 12,
    batchMinutes: 50,
    unitMinutes: 2.5,
    lines: [
      ["beeswax", "9 oz", "block"],
      ["kokum", "8 oz", "block"],
      ["sunflower", "300 mL", "liquid"],
      ["juniper", "90 drops", "liquid"],
      ["vitaminE", "1 tsp", "liquid"],
    ],
    packaging: [
      ["barTin", 1],
      ["roundLabel", 1],
    ],
    method: "Hard bar for cracked hands. Pour into the tins, do not move them until they are cold.",
    prices: [12.5, 12.9, 6.9, 13],
  },
} as const satisfies Record<string, DemoRecipe>;

export type RecipeKey = keyof typeof RECIPES;
