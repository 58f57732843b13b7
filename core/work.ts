/**
 * What waits, as a day's work: by when each thing has to be done, how long it takes, and so in what order one would do it. The minutes and
 * the days ahead are common practice, no source.
 */
import { addDays, type Day } from "./when.ts";

/** Kinds of work, each with its minutes and the day it has to be done by, from the day it is about. */
export const WORK = {
  /** Before everything else: every hour somebody may be using it. */
  recall: { minutes: 20, by: (_: Day | null, today: Day) => today },
  /** Somebody has them already: better look now than hear of it. */
  outSetting: { minutes: 5, by: (_: Day | null, today: Day) => today },
  outUnchecked: { minutes: 5, by: (_: Day | null, today: Day) => today },
  /** Half weighed, it is in the way and gathers dust. */
  open: { minutes: 60, by: (_: Day | null, today: Day) => today },
  /** A jar past its latest day goes rancid by the day. */
  late: { minutes: 40, by: (_: Day | null, today: Day) => today },
  shake: { minutes: 1, by: (_: Day | null, today: Day) => today },
  drying: { minutes: 3, by: (_: Day | null, today: Day) => today },
  expired: { minutes: 2, by: (_: Day | null, today: Day) => today },
  /** A stall is counted while it is remembered. */
  toClose: { minutes: 20, by: (day: Day | null, today: Day) => day ?? today },
  /** Packed the day before it is fetched. */
  toPack: { minutes: 10, by: (day: Day | null) => day && addDays(day, -1) },
  /** Poured, set overnight, labelled, and a day in hand. */
  toMake: { minutes: 120, by: (day: Day | null) => day && addDays(day, -3) },
  comingUp: { minutes: 30, by: (day: Day | null) => day && addDays(day, -1) },
  /** At its best: within the week. */
  ready: { minutes: 40, by: (day: Day | null) => day && addDays(day, 7) },
  held: { minutes: 5, by: () => null },
  soon: { minutes: 1, by: () => null },
  low: { minutes: 10, by: () => null },
  unpriced: { minutes: 10, by: () => null },
} as const satisfies Record<string, { minutes: number; by: (day: Day | null, today: Day) => Day | null }>;
export type WorkKind = keyof typeof WORK;
export const WORK_KINDS = Object.keys(WORK) as WorkKind[];

/** Days of the week ahead, today with them. */
export const WEEK_DAYS = 7;

/** When something is done: today, within the week, or whenever there is time. */
export type Turn = "now" | "week" | "time";

export interface Task {
  kind: WorkKind;
  /** The day it is about: due, at its best, best before. */
  day: Day | null;
  /** The last day to begin it, where that is known better than by its kind. */
  begin?: Day | undefined;
}

/** By when it has to be done; null where nothing presses. @example mustBe({ kind: "toPack", day: "2026-12-05" }, "2026-11-26") // "2026-12-04" */
export const mustBe = ({ kind, day, begin }: Task, today: Day): Day | null => begin ?? WORK[kind].by(day, today);

/** @example turnOf({ kind: "toPack", day: "2026-12-05" }, "2026-11-29") // "week" */
export function turnOf(task: Task, today: Day): Turn {
  const by = mustBe(task, today);
  return by === null || by > addDays(today, WEEK_DAYS - 1) ? "time" : by <= today ? "now" : "week";
}

/**
 * In the order one would do it: a recall before everything, then by the day it has to be done, and of one day the short things first.
 * @example inOrder([{ kind: "open", day: null }, { kind: "shake", day: null }], "2026-11-26").map((t) => t.kind) // ["shake", "open"]
 */
export function inOrder<T extends Task>(tasks: readonly T[], today: Day): T[] {
  const last = "9999";
  const by = (t: T): string => {
    const day = mustBe(t, today) ?? last;
    // What is late is as pressing as what is due today: then the short things first.
    return day < today ? today : day;
  };
  return tasks
    .map((t, at) => ({ t, at, by: by(t) }))
    .sort(
      (a, b) =>
        Number(b.t.kind === "recall") - Number(a.t.kind === "recall") ||
        a.by.localeCompare(b.by) ||
        WORK[a.t.kind].minutes - WORK[b.t.kind].minutes ||
        a.at - b.at,
    )
    .map(({ t }) => t);
}

/** How long it takes, as people say it: to five minutes, to a quarter past an hour. @example sayMinutes(73) // "about 1 h 15 min" */
export function sayMinutes(minutes: number): string {
  if (minutes <= 3) return "a moment";
  const step = minutes < 60 ? 5 : 15;
  const near = Math.max(step, Math.round(minutes / step) * step);
  const [h, m] = [Math.floor(near / 60), near % 60];
  return `about ${[h > 0 && `${h} h`, m > 0 && `${m} min`].filter(Boolean).join(" ")}`;
}
