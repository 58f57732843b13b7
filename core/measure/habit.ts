/**
 * How a workshop writes its numbers. What is in a field is read the same whatever the habit, and what could be two numbers is asked about;
 * a habit only says which of the two is meant while it is typed, and the field then shows it with one reading. So a habit that is changed
 * later changes nothing that was typed before.
 */
import { plainText, THOUSANDS, type Point } from "./parse.ts";
import { findUnit } from "./units.ts";

/** Each as it writes a number; the marks are what parts thousands, and what parts decimals. */
export const NUMBER_HABITS = {
  asked: { say: "Ask when unsure", marks: null },
  comma: { say: "1,234.5", marks: [",", "."] },
  point: { say: "1.234,5", marks: [".", ","] },
  space: { say: "1 234,5", marks: [" ", ","] },
  apostrophe: { say: "1’234.5", marks: ["’", "."] },
} as const;
export type NumberHabit = keyof typeof NUMBER_HABITS;
export const NUMBER_HABIT_IDS = Object.keys(NUMBER_HABITS) as NumberHabit[];

/** Digits in groups of three behind one mark, with decimals behind another or none, and no other number beside it. */
const GROUPS = /(?<![\d.,/’'] ?)([1-9]\d{0,2})(?:([., ])\d{3})(?:\2\d{3})*(?:(?!\2)([.,])\d+)?(?! ?[\d.,/’'])/g;

/** Whether a thousand of a unit is plausible: of grams it is, of kilograms it isn't. */
const inThousands = (behind: string, point: Point): boolean => {
  const unit = /^\s*([\p{L}%]+)/u.exec(behind)?.[1];
  const id = unit === undefined ? null : findUnit(unit);
  return id === null ? point === "asked" : THOUSANDS.includes(id);
};

/**
 * What is typed into a field for an amount, with one reading wherever the habit says which; all else stays as it is.
 * @example settleNumbers("1,250 g", "comma") // "1250 g"
 * @example settleNumbers("1,250 kg", "point") // "1.25 kg"
 * @param point what a lone point before three digits is where no unit tells, as for `parseNumber`
 * @example settleNumbers("1 1/2 cups", "space") // "1 1/2 cups"
 */
export function settleNumbers(text: string, habit: NumberHabit, point: Point = "asked"): string {
  const { marks } = NUMBER_HABITS[habit];
  if (!marks) return text;
  const [thousands, decimal] = marks;
  return text.replace(GROUPS, (typed, _first: string, mark: string, after: string | undefined, at: number) => {
    const alone = after === undefined && typed.indexOf(mark) === typed.lastIndexOf(mark);
    // Zelbin writes 1.25 kg with a point itself, whatever the habit.
    if (alone && mark === "." && !inThousands(text.slice(at + typed.length), point)) return typed;
    if (mark === thousands && (after === undefined || after === decimal)) {
      const [whole, decimals] = after === undefined ? [typed] : (typed.split(after) as [string, string]);
      const plain = whole.replaceAll(mark, "");
      return decimals === undefined ? plain : `${plain}.${decimals}`;
    }
    return mark === decimal && alone ? plainText(Number(typed.replace(mark, "."))) : typed;
  });
}
