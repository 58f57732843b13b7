/** What the demo workshop bought in six months, in days before the day it is loaded. */
import type { MaterialKey } from "./materials.ts";

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

export const PURCHASES: readonly DemoPurchase[] = [
  {
    daysAgo: 248,
    supplier: BOTANICALS,
    postage: 6.9,
    lines: [
      ["meadowsweet", 1, "250 g", 8.2, 14],
      ["birchLeaf", 1, "250 g", 6.5, 14],
      ["elderflower", 1, "100 g", 5.4, 14],
    ],
  },
  {
    daysAgo: 246,
    supplier: OIL_PRESS,
    postage: 8.5,
    lines: [
      ["sunflower", 1, "5 L", 23.9, 16],
      ["apricot", 1, "1 L", 16.2, 14],
    ],
  },
  {
    daysAgo: 196,
    supplier: BOTANICALS,
    postage: 9.8,
    lines: [
      ["beeswax", 2, "1 kg", 31, 0],
      ["candelilla", 1, "250 g", 9.4, 0],
      ["cocoa", 1, "1 kg", 21.5, 18],
      ["mango", 1, "500 g", 12.9, 14],
      ["kokum", 1, "500 g", 14.2, 18],
      ["shea", 1, "2.5 kg", 29.8, 17],
      ["vitaminE", 1, "100 mL", 13.6, 22],
      ["arrowroot", 1, "500 g", 4.9, 20],
    ],
  },
  {
    daysAgo: 194,
    supplier: OIL_PRESS,
    postage: 8.5,
    lines: [
      ["sunflower", 1, "5 L", 24.5, 14],
      ["apricot", 1, "500 mL", 9.2, 12],
      ["jojoba", 1, "250 mL", 12.8, 22],
      ["seaBuckthorn", 1, "100 mL", 18.4, 15],
      ["rosehip", 1, "250 mL", 14.9, 7.5],
      ["blackcurrant", 2, "50 mL", 17.6, 7.9],
      ["oatOil", 1, "250 mL", 16.2, 13],
      ["castor", 1, "250 mL", 5.4, 24],
      ["coconut", 1, "1 kg", 9.6, 18],
    ],
  },
  {
    daysAgo: 190,
    supplier: TINS,
    postage: 12,
    lines: [
      ["tin60", 1, "100 pcs", 46, 0],
      ["tin100", 1, "48 pcs", 31.2, 0],
      ["lipTube", 2, "50 pcs", 24, 0],
      ["glassPot", 1, "48 pcs", 28.8, 0],
      ["potLid", 1, "48 pcs", 8.6, 0],
      ["jar150", 1, "24 pcs", 27.4, 0],
      ["jarLid", 1, "24 pcs", 7.2, 0],
      ["barTin", 1, "25 pcs", 17.5, 0],
    ],
  },
  {
    daysAgo: 188,
    supplier: PAPER,
    postage: 5.4,
    lines: [
      ["roundLabel", 1, "200 pcs", 19, 0],
      ["tubeLabel", 1, "250 pcs", 18.5, 0],
      ["jarLabel", 1, "50 pcs", 8.4, 0],
      ["barBand", 1, "50 pcs", 6.9, 0],
      ["carton", 1, "50 pcs", 14.5, 0],
      ["tissue", 1, "48 pcs", 6.2, 0],
      ["ribbon", 1, "50 pcs", 11.5, 0],
      ["tag", 1, "50 pcs", 7.8, 0],
    ],
  },
  {
    daysAgo: 186,
    supplier: BOTANICALS,
    postage: 4.9,
    lines: [
      ["lavender", 1, "50 mL", 14.8, 24],
      ["juniper", 1, "50 mL", 21.4, 18],
      ["pine", 1, "30 mL", 8.9, 18],
      ["spearmint", 1, "20 mL", 6.4, 24],
      ["oatFlour", 1, "500 g", 5.2, 12],
      ["beet", 1, "100 g", 3.9, 6],
      ["gloves", 1, "50 pcs", 7.9, 0],
    ],
  },
  {
    daysAgo: 150,
    supplier: BOTANICALS,
    postage: 6.2,
    lines: [
      ["meadowsweet", 1, "250 g", 8.4, 14],
      ["elderflower", 1, "200 g", 9.9, 14],
      ["birchLeaf", 1, "250 g", 6.8, 14],
    ],
  },
  {
    daysAgo: 122,
    supplier: OIL_PRESS,
    postage: 7.9,
    lines: [
      ["sunflower", 1, "5 L", 26.8, 14],
      ["olive", 1, "1 L", 11.9, 16],
      ["rosehip", 1, "250 mL", 15.8, 7],
      ["seaBuckthorn", 1, "100 mL", 19.9, 15],
      ["jojoba", 1, "250 mL", 13.4, 22],
      ["coconut", 1, "1 kg", 10.4, 18],
      ["oatOil", 1, "250 mL", 16.9, 13],
    ],
  },
  {
    daysAgo: 115,
    supplier: BOTANICALS,
    postage: 8.9,
    lines: [
      ["beeswax", 2, "1 kg", 33.6, 0],
      ["shea", 1, "2.5 kg", 31.4, 16],
      ["cocoa", 1, "1 kg", 26.9, 18],
      ["mango", 1, "500 g", 13.8, 14],
      ["vitaminE", 1, "100 mL", 14.4, 22],
    ],
  },
  {
    daysAgo: 96,
    supplier: TINS,
    postage: 9.6,
    lines: [
      ["tin60", 1, "100 pcs", 48.5, 0],
      ["lipTube", 1, "50 pcs", 12.4, 0],
      ["jar150", 1, "24 pcs", 28.8, 0],
      ["jarLid", 1, "24 pcs", 7.2, 0],
      ["tin100", 1, "24 pcs", 17.3, 0],
    ],
  },
  {
    daysAgo: 70,
    supplier: OIL_PRESS,
    postage: 6.8,
    lines: [
      ["apricot", 1, "1 L", 17.4, 12],
      ["blackcurrant", 1, "50 mL", 9.2, 8],
      ["blackcurrant", 1, "50 mL", 9.2, 9],
      ["castor", 1, "250 mL", 5.6, 24],
    ],
  },
  {
    daysAgo: 55,
    supplier: PAPER,
    postage: 5.9,
    lines: [
      ["roundLabel", 1, "200 pcs", 19.5, 0],
      ["box2", 1, "25 pcs", 21.2, 0],
      ["box4", 1, "20 pcs", 27.6, 0],
      ["tissue", 1, "48 pcs", 6.4, 0],
      ["ribbon", 1, "50 pcs", 11.9, 0],
      ["tubeLabel", 1, "100 pcs", 8.2, 0],
    ],
  },
  {
    daysAgo: 44,
    supplier: BOTANICALS,
    postage: 7.4,
    lines: [
      ["shea", 1, "2.5 kg", 33.2, 16],
      ["lavender", 1, "50 mL", 15.6, 24],
      ["juniper", 1, "50 mL", 22.9, 18],
      ["beeswax", 1, "1 kg", 17.9, 0],
      ["candelilla", 1, "250 g", 9.9, 0],
    ],
  },
  {
    daysAgo: 36,
    supplier: OIL_PRESS,
    postage: 6.5,
    lines: [
      ["rosehip", 1, "250 mL", 16.4, 3.1],
      ["coconut", 1, "1 kg", 11.2, 18],
      ["sunflower", 1, "2 L", 12.9, 14],
      ["seaBuckthorn", 1, "100 mL", 20.4, 15],
    ],
  },
  {
    daysAgo: 24,
    supplier: TINS,
    postage: 8.8,
    lines: [
      ["tin60", 1, "50 pcs", 26.5, 0],
      ["glassPot", 1, "48 pcs", 30.2, 0],
      ["potLid", 1, "48 pcs", 8.9, 0],
      ["barTin", 1, "25 pcs", 18.4, 0],
    ],
  },
];
