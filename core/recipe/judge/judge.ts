/** Everything a recipe is judged by, in one place and one order: worst first, and what is done about it beside it. */
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

/** Those still open, and those that were answered. */
export function answeredBy(said: readonly Judgement[], answers: Answers): { open: Judgement[]; known: (Judgement & { word: string })[] } {
  const open = said.filter((j) => answers[j.key] === undefined);
  const known = said.flatMap((j) => (answers[j.key] === undefined ? [] : [{ ...j, word: answers[j.key]! }]));
  return { open, known };
}
