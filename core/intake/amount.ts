/** What a row says there is of its material: packs and what each holds, whichever of its columns say so. */
import Fraction from "fraction.js";
import { factsIn, type MaterialFacts } from "../material/facts.ts";
import { mulDiv, micros, CENT, type Base, type Micros } from "../measure/exact.ts";
import { parseNumber } from "../measure/parse.ts";
import { findUnit } from "../measure/units.ts";
import { done, refuse, type Problem, type Outcome } from "../outcome.ts";
import { packAmount, readStock } from "../stock/packs.ts";
import { PACK_WORDS, type FieldId, type PriceOf } from "./columns.ts";
import { settled, type NumberStyle } from "./loose.ts";

export interface Goods {
  packs: number;
  /** As a field reads it. */
  packSize: string;
  /** All of it. */
  qty: Base;
  /** What the price of one is multiplied by: the number in the row's own quantity. */
  times: Fraction;
  /** Below zero: it went back. */
  back: boolean;
}
export type Read<T> = { ok: true; value: T } | { ok: false; field: FieldId; problem: Problem };

const MOST_PACKS = 10_000;
const no = (field: FieldId, problem: Problem): Read<never> => ({ ok: false, field, problem });
const saying = (code: string, say: string): Problem => ({ code, say });

/** "2 x 500 g" and "500 g x 2": so many of what the rest says. */
const TIMES = /^(\d{1,5})\s*[x×*]\s*(?=[\d.,½¼¾])(.+)$|^(.+?[\p{L}])\s*[x×*]\s*(\d{1,5})$/iu;
const BELOW = /^[-−–]\s*(?=[\d.,])|^\((.*)\)$/;
/** A decimal comma, where no other is left. */
const pointed = (text: string): string => text.replace(/(?<=\d),(?=\d)/g, ".");

/**
 * @param texts the cells of the row; a cell it hasn't got is empty
 * @returns problems of `readStock` and `parseNumber`, and `whole`, `most`, each with its column
 * @example goodsOf({ packs: "3", packSize: "2 x 500 g", unit: "" }, "point", beeswax).value.packs // 6
 */
export function goodsOf(texts: { packs: string; packSize: string; unit: string }, style: NumberStyle, facts: MaterialFacts): Read<Goods> {
  const back = BELOW.test(texts.packs);
  const count = pointed(settled(texts.packs.replace(BELOW, "$1"), style, true));
  const unit = findUnit(texts.unit) !== null && findUnit(texts.unit) !== "pc" ? texts.unit : "";
  const counted = factsIn(facts).measured === "count";
  const bare = (t: string): boolean => parseNumber(t).ok;
  let size = pointed(settled(texts.packSize, style, false));
  if (size !== "" && bare(size) && unit !== "") size = `${size} ${unit}`;
  let packs = count === "" ? "1" : count;
  let field: FieldId = "packSize";
  // Without a column for what a pack holds, the quantity is all there is.
  if (size === "") {
    field = count === "" ? "packSize" : "packs";
    if (!bare(count)) [size, packs] = [pointed(settled(texts.packs.replace(BELOW, "$1"), style, false)), "1"];
    else if (unit !== "") [size, packs] = [`${count} ${unit}`, "1"];
    else if (counted && !PACK_WORDS.test(texts.unit)) [size, packs] = [count, "1"];
    else
      return no(
        "packSize",
        saying(
          "empty",
          texts.unit === "" ? "Nothing says how much it is." : `Nothing says how much is in one ${texts.unit.toLowerCase()}.`,
        ),
      );
  }
  const n = parseNumber(packs, "asked");
  if (!n.ok) return no("packs", n.problem);
  if (n.value.d !== 1n || n.value.n < 1n) return no("packs", saying("whole", `“${texts.packs}” isn't a whole number of packs.`));
  const inside = TIMES.exec(size);
  const all = n.value.valueOf() * (inside ? Number(inside[1] ?? inside[4]) : 1);
  if (all > MOST_PACKS) return no("packs", saying("most", `“${texts.packs || texts.packSize}” packs can't be right.`));
  if (all < 1) return no(field, saying("zero", "Enter what is in a pack."));
  const packSize = inside ? (inside[2] ?? inside[3])!.trim() : size;
  const qty = packAmount(all, packSize, factsIn(facts));
  if (!qty.ok) return no(field, qty.problem);
  const times = packs === "1" && bare(count) && count !== "" ? parseNumber(count) : n;
  return { ok: true, value: { packs: all, packSize, qty: qty.value, times: times.ok ? times.value : n.value, back } };
}

/** What is weighed or measured for a price; a pack and all of it need no measure. */
const MEASURE = { kg: "1 kg", hg: "100 g", g: "1 g", lb: "1 lb", oz: "1 oz", l: "1 L", pc: "1 pc" } as const;

/**
 * What all of a row costs, to the cent.
 * @param n the figure in its price column
 * @param worked whether a spreadsheet worked it out: then it is rounded, also where it is that of all
 * @returns problems `cents`, `absurd`, and of `readStock` where that material isn't measured so
 * @example priceOfAll(new Fraction(9.5), "all", goodsOf({ packs: "1", packSize: "1 kg", unit: "" }, "point", beeswax).value, beeswax).value // 9.50
 */
export function priceOfAll(n: Fraction, of: PriceOf, goods: Goods, facts: MaterialFacts, worked = false): Outcome<Micros> {
  let all = n;
  if (of === "pack") all = n.mul(goods.times);
  else if (of !== "all") {
    const one = readStock(MEASURE[of], factsIn(facts));
    if (!one.ok) return one;
    all = n.mul(goods.qty).div(one.value);
  } else if (!worked && n.mul(100).d !== 1n) return refuse("cents", "Money has at most two decimals here.");
  if (all.compare(1_000_000) > 0) return refuse("absurd", "That is over a million. Check the amount.");
  return done(micros(all.mul(100).round().valueOf() * CENT));
}

/** Money of another currency in the workshop's own, to the cent. @param rate in millionths @example inOwn(micros(10_000_000), 930_000) // 9.30 */
export const inOwn = (price: Micros, rate: number): Micros => micros(Math.round(mulDiv(price, rate, 1_000_000) / CENT) * CENT);
