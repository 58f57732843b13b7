/**
 * Sums as they are muttered at the bench: "1 lb + 200 g", "half of 2 1/2 cups", "20 % of 450 g", "12.50 x 3", "500 g / 60 g".
 *
 * Numbers are exact fractions. Weights are added to weights and volumes to volumes; a weight over a weight is a plain number.
 */
import Fraction from "fraction.js";
import { parseNumber, showAmount } from "../measure/parse.ts";
import { grams } from "../measure/write.ts";
import { writeNumber } from "../numbers.ts";
import { findUnit, unit, type UnitId, type UnitKind } from "../measure/units.ts";
import type { Answer } from "./answer.ts";

/** A number, or an amount in a unit; its size is in milligrams or millilitres. */
interface Value {
  n: Fraction;
  of: Extract<UnitKind, "mass" | "volume"> | null;
  /** The unit it was first said in. */
  unit: UnitId | null;
}

/** The first that fits is meant: "half as much again" is more than half. */
const PARTS: readonly (readonly [RegExp, string])[] = [
  [/^half as much again as /, "3/2 of "],
  [/^(?:a |one )?half(?: of)?(?: a)? /, "1/2 of "],
  [/^(?:a |one )?third(?: of)?(?: a)? /, "1/3 of "],
  [/^two thirds(?: of)?(?: a)? /, "2/3 of "],
  [/^(?:a |one )?quarter(?: of)?(?: a)? /, "1/4 of "],
  [/^three quarters(?: of)?(?: a)? /, "3/4 of "],
  [/^(?:twice|double) /, "2 of "],
  [/^(?:thrice|triple) /, "3 of "],
];

const TOKEN =
  /^\s*(\d+\s+\d+\/\d+|\d+\/\d+(?!\d)|\d*[.,]\d+|\d+|[+\-−–*×÷/()]|x(?=\s*[\d(])|of\b|%|[\p{L}][\p{L}. ]*?(?=\s*(?:$|[+\-−–*×÷/()%]|x\s*[\d(]|\bof\b)))/iu;
const SIGN: Record<string, string> = { "×": "*", x: "*", "÷": "/", "−": "-", "–": "-", of: "*" };

/** The parts of a sum, or null where something in it is none. */
function tokens(text: string): string[] | null {
  const out: string[] = [];
  let rest = text;
  while (rest.trim() !== "") {
    const m = TOKEN.exec(rest);
    if (!m) return null;
    const t = m[1]!.trim();
    out.push(SIGN[t.toLowerCase()] ?? t);
    rest = rest.slice(m[0].length);
  }
  return out;
}

/** Reads a sum by its rules: brackets, then times and over, then plus and less. */
class Reader {
  readonly #all: readonly string[];
  #at = 0;
  /** Whether anything was worked out, so that a lone number is no sum. */
  worked = false;

  constructor(all: readonly string[]) {
    this.#all = all;
  }
  get atEnd(): boolean {
    return this.#at >= this.#all.length;
  }
  #next(...wanted: string[]): string | null {
    const t = this.#all[this.#at];
    if (t === undefined || !wanted.includes(t)) return null;
    this.#at++;
    return t;
  }

  sum(): Value | null {
    let left = this.#product();
    for (let sign = left && this.#next("+", "-"); left && sign; sign = this.#next("+", "-")) {
      this.worked = true;
      const right = this.#product();
      if (!right) return null;
      // "500 g + 10 %": a per cent of what comes before it.
      const by = right.unit === "percent" && left.unit !== "percent" ? { ...left, n: left.n.mul(right.n) } : right;
      if (by.of !== left.of || (by.unit === "percent") !== (left.unit === "percent")) return null;
      left = { ...left, n: sign === "+" ? left.n.add(by.n) : left.n.sub(by.n) };
    }
    return left;
  }
  #product(): Value | null {
    let left = this.#one();
    for (let sign = left && this.#next("*", "/"); left && sign; sign = this.#next("*", "/")) {
      this.worked = true;
      const right = this.#one();
      if (!right) return null;
      if (sign === "*") {
        if (left.of && right.of) return null;
        const kept: Value = left.of ? left : right.of ? right : { ...left, unit: null };
        left = { ...kept, n: left.n.mul(right.n) };
      } else {
        if (right.n.equals(0) || (right.of && right.of !== left.of)) return null;
        left = right.of ? { n: left.n.div(right.n), of: null, unit: null } : { ...left, n: left.n.div(right.n) };
      }
    }
    return left;
  }
  #one(): Value | null {
    if (this.#next("(")) {
      const inside = this.sum();
      return this.#next(")") ? inside : null;
    }
    const said = this.#all[this.#at];
    const number = said === undefined ? null : parseNumber(said);
    if (!number) return null;
    // "a third of a cup": one of it.
    const one = !number.ok && findUnit(said!) !== null;
    if (!number.ok && !one) return null;
    const n = number.ok ? number.value : new Fraction(1);
    if (!one) this.#at++;
    if (this.#next("%")) return { n: n.div(100), of: null, unit: "percent" };
    const word = this.#all[this.#at];
    const id = word === undefined ? null : findUnit(word);
    if (id === null) return { n, of: null, unit: null };
    this.#at++;
    const { kind, size } = unit(id);
    return (kind === "mass" || kind === "volume") && size ? { n: n.mul(size), of: kind, unit: id } : null;
  }
}

const plainNumber = (n: Fraction): string => writeNumber(n.valueOf(), 0, 4);

/**
 * What a sum comes to; null for anything that is none.
 * @example sumOf("half of 2 1/2 cups")?.say // "1 1/4 cups"
 * @example sumOf("1 lb + 200 g")?.say // "653.6 g"
 */
export function sumOf(text: string): Answer | null {
  // "2026-11-26" and "26330-01" are a day and a lot; who takes one from another leaves room.
  if (/\d-\d/.test(text)) return null;
  let said = text.trim().toLowerCase().replace(/\s+/g, " ");
  for (const [words, figure] of PARTS) said = said.replace(words, figure);
  const all = tokens(said.replace(/(\d)\s*%\s*off\s+(.+)$/, "$1 % off $2").replace(/^(.+) % off (.+)$/, "($2) - $1 %"));
  if (!all) return null;
  const reader = new Reader(all);
  const value = reader.sum();
  if (!value || !reader.worked || !reader.atEnd || value.n.compare(0) < 0) return null;
  if (value.of === null) return { say: value.unit === "percent" ? `${plainNumber(value.n.mul(100))} %` : plainNumber(value.n), steps: [] };
  const inUnit = { n: value.n.div(unit(value.unit!).size!), unit: value.unit! };
  if (value.of === "volume")
    return { say: showAmount({ ...inUnit, n: exactEnough(inUnit.n) }), steps: [`${writeNumber(value.n.valueOf(), 0, 1)} mL`] };
  const steps = value.unit === "g" ? [] : [showAmount({ ...inUnit, n: inUnit.n.round(3) })];
  return { say: grams(value.n.valueOf()), steps };
}

/** Kitchen fractions stay as they are; others are rounded to what can be measured. */
const exactEnough = (n: Fraction): Fraction => (n.d <= 8n ? n : n.round(2));
