/** The columns of a list: what each is, told by its heading and by what its cells look like, and what its prices are the price of. */
import { parseAmount } from "../measure/parse.ts";
import { findUnit } from "../measure/units.ts";

export const FIELDS = {
  material: "Material",
  packs: "Packs",
  packSize: "Each holds",
  unit: "Unit",
  price: "Price",
  supplierLot: "Supplier's lot",
  bestBefore: "Best before",
  supplier: "Supplier",
  day: "Day",
} as const;
export type FieldId = keyof typeof FIELDS;
export const FIELD_IDS = Object.keys(FIELDS) as FieldId[];

/** What a list is read as, and what a row can say then. */
export const PURPOSES = {
  receipt: { fields: FIELD_IDS, needed: ["material", "price"] },
  opening: { fields: FIELD_IDS.filter((f) => f !== "supplier"), needed: ["material"] },
} as const satisfies Record<string, { fields: readonly FieldId[]; needed: readonly FieldId[] }>;
export type Purpose = keyof typeof PURPOSES;
export const isNeeded = (purpose: Purpose, field: FieldId): boolean => (PURPOSES[purpose].needed as readonly FieldId[]).includes(field);

/** Column number per field, or null where there is none. */
export type Mapping = Record<FieldId, number | null>;

/** A row, with the number it has in its file, counted from 1. */
export interface Row {
  at: number;
  cells: string[];
}

/** Headings of each field, the surest first; each is matched as whole words. */
const WORDS: Record<FieldId, readonly string[]> = {
  material: ["material", "ingredient", "item", "product", "article", "name", "description", "goods"],
  price: [
    "price of all",
    "line total",
    "total price",
    "total cost",
    "total",
    "sum",
    "price",
    "unit price",
    "cost",
    "value",
    "worth",
    "paid",
    "gross",
    "net",
  ],
  packs: ["packs", "qty", "quantity", "count", "units", "pcs", "pieces", "number", "ordered", "how many"],
  packSize: ["each holds", "pack size", "size", "pack", "contents", "content", "net weight", "weight", "volume", "amount"],
  unit: ["unit", "unit of measure", "uom", "measure"],
  supplierLot: ["supplier's lot", "supplier lot", "lot", "batch", "charge"],
  bestBefore: ["best before", "best by", "bbe", "bbd", "bb", "expiry", "expires", "expiration", "use by", "shelf life"],
  supplier: ["supplier", "shop", "seller", "vendor", "from"],
  day: ["date", "day", "bought on", "bought", "order date", "invoice date", "arrived", "received"],
};
/** With one of these a heading names a number of something else: an order, an article, an invoice. */
const NAMES_A_NUMBER = /\b(number|no|nr|id|code|sku|ref|reference|ean|barcode|url|link)\b/;
/** With one of these it is no price of goods, and no amount of them. */
const NOT_GOODS = /\b(discount|rebate|tax|vat|gst|shipping|postage|rate)\b/;
const AMOUNTS = /\b(weight|volume|size|qty|quantity|contents?)\b/;

const wordsOf = (heading: string): string =>
  heading
    .toLowerCase()
    .replace(/[’]/g, "'")
    .replace(/[^\p{L}\d'/€$£%]+/gu, " ")
    .trim();
const holds = (heading: string, word: string): boolean =>
  ` ${heading.replace(/[/€$£%]/g, " ").replace(/\s+/g, " ")} `.includes(` ${word} `);

function couldBe(field: FieldId, heading: string): boolean {
  if (NAMES_A_NUMBER.test(heading))
    return field === "supplierLot" || (field === "packs" && /^number of (packs|units|pieces|items)$/.test(heading));
  if (NOT_GOODS.test(heading)) return false;
  if (field === "price" && AMOUNTS.test(heading) && !/\b(price|cost)\b/.test(heading)) return false;
  return true;
}

/** How well a row would do as the row of headings. */
export const headingsIn = (cells: readonly string[]): number => {
  const named = cells.map(wordsOf).filter((h) => h !== "" && FIELD_IDS.some((f) => couldBe(f, h) && WORDS[f].some((w) => holds(h, w))));
  return new Set(named).size;
};

/** Beyond so many rows no cell tells more about its column. */
const LOOKED_AT = 200;
const most = (cells: readonly string[], is: (cell: string) => boolean): boolean => {
  const filled = cells.filter((c) => c !== "");
  return filled.length > 0 && filled.filter(is).length * 2 > filled.length;
};

/**
 * What each column is, by its heading: whole headings first, then headings that hold the word. "Amount" is what a pack holds where its
 * cells have units, and else the price; a column of headings alone, without one cell, is nothing.
 * @example guessColumns(["Item", "Order number", "Total"], []).price // 2
 */
export function guessColumns(header: readonly string[], rows: readonly Row[]): Mapping {
  const names = header.map(wordsOf);
  const column = (i: number): string[] => rows.slice(0, LOOKED_AT).map((r) => r.cells[i] ?? "");
  const taken = new Set<number>();
  const mapping = Object.fromEntries(FIELD_IDS.map((f) => [f, null])) as Mapping;
  const take = (f: FieldId, at: number): void => {
    mapping[f] = at;
    taken.add(at);
  };
  // "Unit" over kg and mL is the unit; over 9.50 it is nothing by itself.
  const suits = (f: FieldId, i: number): boolean =>
    (f !== "unit" || rows.length === 0 || most(column(i), isUnitWord)) &&
    (f !== "packSize" || names[i] !== "amount" || rows.length === 0 || most(column(i), hasUnit));
  const ORDER: readonly FieldId[] = ["material", "price", "packs", "packSize", "unit", "supplierLot", "bestBefore", "supplier", "day"];
  for (const fits of [(n: string, w: string) => n === w, holds])
    for (const f of ORDER) {
      if (mapping[f] !== null) continue;
      for (const w of WORDS[f]) {
        const at = names.findIndex((n, i) => !taken.has(i) && couldBe(f, n) && fits(n, w) && suits(f, i));
        if (at < 0) continue;
        take(f, at);
        break;
      }
    }
  const amount = names.findIndex((n, i) => n === "amount" && !taken.has(i));
  if (mapping.price === null && amount >= 0) take("price", amount);
  return mapping;
}

/** A word that tells what a number is a number of. */
export const isUnitWord = (cell: string): boolean => findUnit(cell) !== null || PACK_WORDS.test(cell.trim());
/** Words for a pack, whatever it holds. */
export const PACK_WORDS =
  /^(packs?|packets?|bags?|bottles?|jars?|tins?|tubs?|boxes|box|rolls?|sets?|cans?|drums?|buckets?|units?|items?)$/i;
const hasUnit = (cell: string): boolean => {
  const word = /\p{L}[\p{L}. ]*$/u.exec(cell)?.[0];
  return word !== undefined && (findUnit(word) !== null || parseAmount(cell).ok);
};

/** What a price can be the price of. */
export const PRICE_OF = {
  all: "all of its line",
  pack: "one pack, or one of the unit",
  kg: "a kilogram",
  hg: "100 grams",
  g: "a gram",
  lb: "a pound",
  oz: "an ounce",
  l: "a litre",
  pc: "a piece",
} as const;
export type PriceOf = keyof typeof PRICE_OF;

const PER = String.raw`(?:\bper\b|\/|\ba\b|\bfor\b)\s*(?:1\s*)?`;
const TELLS: readonly (readonly [RegExp, PriceOf])[] = [
  [new RegExp(`${PER}(?:kg|kilo|kilogram)\\b|^(?:€|\\$|£)?\\s*kg price\\b`), "kg"],
  [new RegExp(`(?:\\bper\\b|\\/|\\bfor\\b)\\s*100\\s*(?:g|grams?)\\b`), "hg"],
  [new RegExp(`${PER}(?:g|gram)\\b`), "g"],
  [new RegExp(`${PER}(?:lb|lbs|pound)\\b`), "lb"],
  [new RegExp(`${PER}(?:oz|ounce)\\b`), "oz"],
  [new RegExp(`${PER}(?:l|litre|liter)\\b`), "l"],
  [new RegExp(`${PER}(?:pc|piece)\\b`), "pc"],
  [/\b(unit|each|ea|apiece|single|pack|item|bottle|bag)\b/, "pack"],
  [/\b(total|sum|all|line|subtotal|amount)\b/, "all"],
];
/** What a heading says its prices are the price of; null where it doesn't. @example priceOfHeading("Price per kg") // "kg" */
export const priceOfHeading = (heading: string): PriceOf | null => TELLS.find(([says]) => says.test(wordsOf(heading)))?.[1] ?? null;
