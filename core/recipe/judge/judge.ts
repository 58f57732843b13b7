/** Everything a recipe is judged by, in one place and one order: worst first, and what is done about it beside it. */
import { isRecord } from "../../record.ts";
import { judgeKeeping } from "./keeping.ts";
import type { Judge, Judgement } from "./judgement.ts";
import { judgeMeasuring } from "./measuring.ts";
import { judgeScent } from "./scent.ts";
import { judgeSetting } from "./setting.ts";

const JUDGES: readonly Judge[] = [judgeKeeping, judgeScent, judgeSetting, judgeMeasuring];

/** All that is to be said, worst first; of one gravity in the order of the judges. */
export const judge: Judge = (of) => (of.lines.length === 0 ? [] : JUDGES.flatMap((j) => j(of)).sort((a, b) => b.gravity - a.gravity));

/** What was answered with “I know”: a word for each judgement, by its key. */
export type Answers = Readonly<Record<string, string>>;
/** @example areAnswers({ "set.soft": "for my mother" }) // true */
export const areAnswers = (v: unknown): v is Answers => isRecord(v) && Object.values(v).every((word) => typeof word === "string");

/** What a recipe is judged by where nobody has said anything: used as its kind of product is, by anyone, with nothing answered. */
export const UNASKED = { usedOn: "", forWhom: "anyone", answers: {} } as const;

/** Those still open, and those that were answered. */
export function answeredBy(said: readonly Judgement[], answers: Answers): { open: Judgement[]; known: (Judgement & { word: string })[] } {
  const open = said.filter((j) => answers[j.key] === undefined);
  const known = said.flatMap((j) => (answers[j.key] === undefined ? [] : [{ ...j, word: answers[j.key]! }]));
  return { open, known };
}
