/**
 * Containers, lids, moulds, labels and wrapping as they are commonly sold. Capacities to the brim and empty weights are from memory and
 * differ by maker: weigh one of yours, empty and full of water, and write your own over them.
 */
import type { KindId } from "../kinds.ts";
import { entry, type LibraryEntry } from "./entry.ts";

type Holding = readonly [key: string, name: string, brimMl: number, emptyG: number, lid?: string];

const TINS: readonly Holding[] = [
  ["tin-15", "Screw tin, 15 mL (½ oz)", 17, 6],
  ["tin-30", "Screw tin, 30 mL (1 oz)", 34, 9],
  ["tin-60", "Screw tin, 60 mL (2 oz)", 67, 14],
  ["tin-80", "Screw tin, 80 mL, flat", 88, 17],
  ["tin-120", "Screw tin, 120 mL (4 oz)", 130, 23],
  ["tin-240", "Screw tin, 240 mL (8 oz)", 255, 38],
  ["tin-slide-10", "Slide tin, 10 mL", 12, 9],
  ["tin-slide-20", "Slide tin, 20 mL", 22, 13],
];
const JARS: readonly Holding[] = [
  ["jar-30", "Glass jar, 30 mL (1 oz)", 34, 50, "lid-43"],
  ["jar-60", "Glass jar, 60 mL (2 oz)", 68, 75, "lid-53"],
  ["jar-120", "Glass jar, 120 mL (4 oz)", 132, 115, "lid-58"],
  ["jar-240", "Glass jar, 240 mL (8 oz)", 262, 175, "lid-70"],
];
const POTS: readonly Holding[] = [
  ["pot-3", "Pot, 3 mL", 3.6, 4],
  ["pot-5", "Pot, 5 mL", 6, 5],
  ["pot-10", "Pot, 10 mL", 12, 8],
  ["pot-15", "Pot, 15 mL", 17, 10],
  ["pot-30", "Pot, 30 mL", 34, 16],
  ["pot-50", "Pot, 50 mL", 56, 22],
];
const TUBES: readonly Holding[] = [
  ["tube-lip", "Lip balm tube, 5 mL (0.15 oz)", 5.2, 4],
  ["tube-lip-oval", "Lip balm tube, oval, 5 mL", 5.15, 5],
  ["tube-twist-50", "Twist-up tube, 50 mL", 58, 32],
  ["tube-twist-75", "Twist-up stick tube, 75 mL (2.65 oz)", 84, 40],
];
const PAPER_TUBES: readonly Holding[] = [
  ["tube-paper-9", "Paper push-up tube, 9 mL (0.3 oz)", 10, 6],
  ["tube-paper-20", "Paper push-up tube, 20 mL", 22, 9],
  ["tube-paper-60", "Paper push-up tube, 60 mL (2 oz)", 66, 18],
];
const BOTTLES: readonly Holding[] = [
  ["bottle-10", "Roll-on bottle, 10 mL", 11, 25],
  ["bottle-dropper-30", "Amber dropper bottle, 30 mL (1 oz)", 35, 55],
  ["bottle-100", "Amber bottle with a screw cap, 100 mL", 110, 95],
  ["bottle-250", "Amber bottle with a screw cap, 250 mL", 270, 160],
];
/** What one hollow holds. */
const MOULDS: readonly Holding[] = [
  ["mould-bar-6", "Silicone mould, 6 bars of 60 mL", 60, 95],
  ["mould-round-6", "Silicone mould, 6 rounds of 80 mL", 80, 110],
  ["mould-bar-4", "Silicone mould, 4 bars of 110 mL", 110, 120],
  ["mould-massage-6", "Massage bar mould, 6 of 70 mL, knobbed", 70, 120],
  ["mould-massage-4", "Massage bar mould, 4 of 90 mL, waved", 90, 130],
  ["mould-mini-15", "Silicone mould, 15 small hearts of 10 mL", 10, 80],
];

const holding = (kind: KindId, madeOf: string, rows: readonly Holding[]): LibraryEntry[] =>
  rows.map(([key, name, brimMl, emptyG, lid = ""]) => entry(key, name, kind, "", { vegan: "", brimMl, emptyG, madeOf, lid }));

const NAMED: readonly (readonly [key: string, name: string, kind: KindId])[] = [
  ["lid-43", "Metal lid for a 30 mL jar", "closure"],
  ["lid-53", "Metal lid for a 60 mL jar", "closure"],
  ["lid-58", "Metal lid for a 120 mL jar", "closure"],
  ["lid-70", "Metal lid for a 240 mL jar", "closure"],
  ["label-round-38", "Round label, 38 mm", "label"],
  ["label-round-50", "Round label, 50 mm", "label"],
  ["label-round-63", "Round label, 63 mm", "label"],
  ["label-band", "Band label for a jar, 150 × 30 mm", "label"],
  ["label-tube", "Wrap label for a lip balm tube", "label"],
  ["label-base", "Base label for lot and date", "label"],
  ["seal", "Seal strip", "label"],
  ["shrink-band", "Shrink band for a lip balm tube", "wrap"],
  ["paper-band", "Paper band for a bar", "wrap"],
  ["tissue", "Tissue sheet", "wrap"],
  ["ribbon", "Ribbon, cut to 60 cm", "wrap"],
  ["bag-glassine", "Glassine bag", "wrap"],
  ["bag-cotton", "Cotton pouch", "wrap"],
  ["card", "Gift card", "wrap"],
  ["box-2", "Gift box for two", "box"],
  ["box-4", "Gift box for four", "box"],
  ["gloves", "Gloves, a pair", "consumable"],
  ["filter", "Paper filter", "consumable"],
  ["cloth", "Straining cloth", "consumable"],
  ["stirrer", "Wooden stirrer", "consumable"],
];

export const PACKAGING: readonly LibraryEntry[] = [
  ...holding("container", "aluminium", TINS),
  ...holding("container", "glass", JARS),
  ...holding("container", "plastic", POTS),
  ...holding("container", "plastic", TUBES),
  ...holding("container", "paper", PAPER_TUBES),
  ...holding("container", "glass", BOTTLES),
  ...holding("mould", "silicone", MOULDS),
  ...NAMED.map(([key, name, kind]) => entry(key, name, kind, "", { vegan: "" })),
];
