/** Everything a recipe is judged by, in one place and one order: worst first, and what is done about it beside it. */
import { sum, type Mg } from "../../measure/exact.ts";
import { readWeighed } from "../../measure/read.ts";
import { isObject } from "../../objects.ts";
import { judgeAmounts } from "./amounts.ts";
import { judgeKeeping } from "./keeping.ts";
import type { Judge, Judged, Judgement, SuggestedFix } from "./judgement.ts";
import { judgeMeasuring } from "./measuring.ts";
import { judgePeople } from "./people.ts";
import { judgeScent } from "./scent.ts";
import { judgeSetting } from "./setting.ts";

const JUDGES: readonly Judge[] = [judgeKeeping, judgePeople, judgeScent, judgeSetting, judgeAmounts, judgeMeasuring];

const saidOf: Judge = (of) => (of.lines.length === 0 ? [] : JUDGES.flatMap((j) => j(of)).sort((a, b) => b.gravity - a.gravity));

/** The pot as it would be once a mend is pressed; null where that isn't a matter of weights alone. */
function pressed(of: Judged, { rows }: SuggestedFix): Judged | null {
  if (rows.length === 0 || rows.some((r) => r.material !== undefined)) return null;
  const weights = new Map<number, Mg>();
  for (const r of rows) {
    const read = readWeighed(r.entered);
    if (!read.ok) return null;
    weights.set(r.row, read.value);
  }
  const lines = of.lines.map((l) => ({ ...l, weight: weights.get(l.row) ?? l.weight }));
  const total = sum(lines.map((l) => l.weight));
  return { ...of, total, lines: lines.map((l) => ({ ...l, share: l.weight / total })) };
}

/** What spoils the batch or hurts somebody. */
const GRAVE = 2;

/** A press that adds something, and would so bring up what is grave in another judge's eyes, is none. What only takes away does no harm. */
function harmless(of: Judged, before: readonly Judgement[], j: Judgement): Judgement {
  const after = j.mend && pressed(of, j.mend);
  if (!after || after.lines.every((l, i) => l.weight <= of.lines[i]!.weight)) return j;
  const known = new Set(before.map((x) => x.key));
  return saidOf(after).some((x) => x.gravity >= GRAVE && !known.has(x.key)) ? { ...j, mend: null } : j;
}

/** All that is to be said, worst first; of one gravity in the order of the judges. What would mend it does no other harm. */
export const judge: Judge = (of) => {
  const said = saidOf(of);
  return said.map((j) => harmless(of, said, j));
};

/** What was answered with “I know”: a word for each judgement, by its key. */
export type Answers = Readonly<Record<string, string>>;
/** @example areAnswers({ "set.soft": "for my mother" }) // true */
export const areAnswers = (v: unknown): v is Answers => isObject(v) && Object.values(v).every((word) => typeof word === "string");

/** What a recipe is judged by where nobody has said anything: used as its kind of product is, by anyone, with nothing answered. */
export const UNASKED = { usedOn: "", forWhom: "anyone", answers: {} } as const;

/** Those still open, and those that were answered. */
export function answeredBy(said: readonly Judgement[], answers: Answers): { open: Judgement[]; known: (Judgement & { word: string })[] } {
  const open = said.filter((j) => answers[j.key] === undefined);
  const known = said.flatMap((j) => (answers[j.key] === undefined ? [] : [{ ...j, word: answers[j.key]! }]));
  return { open, known };
}
