/**
 * Calendar entries: orders due, market days, jars to strain, lots that reach their best-before day, and timers. Pages and files use the same
 * words for each.
 */
import { grams } from "../measure/write.ts";
import { sayFullDay, type Day } from "../when.ts";
import { counted } from "../words.ts";

/** Kinds of entry, as they are chosen together. */
export const CALENDAR_KINDS = {
  order: "Orders due",
  market: "Market days",
  jar: "Jars to strain",
  lot: "Best before",
  timer: "Timers",
} as const;
export type CalendarKind = keyof typeof CALENDAR_KINDS;
export const CALENDAR_KIND_IDS = Object.keys(CALENDAR_KINDS) as CalendarKind[];

/** What an entry is about: a jar has two days. */
export const ABOUTS = ["order", "market", "best", "latest", "lotDay", "heat", "timer"] as const;
export type About = (typeof ABOUTS)[number];

interface Said {
  kind: CalendarKind;
  say: (of: { name: string; number: string | null }) => string;
  /** Where its record is. */
  at: (of: { id: number; number: string | null }) => string;
}

const SAID: Record<About, Said> = {
  order: { kind: "order", say: (f) => `Order for ${f.name}`, at: (f) => `/gifts/${f.id}` },
  market: { kind: "market", say: (f) => f.name, at: (f) => `/markets/${f.id}` },
  best: { kind: "jar", say: (f) => `${f.name} is at its best`, at: (f) => `/jars/${f.id}` },
  latest: { kind: "jar", say: (f) => `Last day to strain ${f.name}`, at: (f) => `/jars/${f.id}` },
  lotDay: { kind: "lot", say: (f) => `Last day of ${f.name}, ${f.number}`, at: (f) => `/lots/${encodeURIComponent(f.number ?? "")}` },
  heat: { kind: "timer", say: (f) => `${f.name} is on gentle heat`, at: (f) => `/jars/${f.id}` },
  timer: { kind: "timer", say: (f) => `Timer at the bench: ${f.name}`, at: (f) => `/bench/${f.id}/at` },
};

/** @example sayAbout("order", { name: "Nan", number: null }) // "Order for Nan" */
export const sayAbout = (about: About, of: { name: string; number: string | null }): string => SAID[about].say(of);
/** @example whereOf("order", { id: 4, number: null }) // "/gifts/4" */
export const whereOf = (about: About, of: { id: number; number: string | null }): string => SAID[about].at(of);
/** @example kindOf("latest") // "jar" */
export const kindOf = (about: About): CalendarKind => SAID[about].kind;
/** @example aboutsOf(["timer"]) // ["heat", "timer"] */
export const aboutsOf = (kinds: readonly CalendarKind[]): About[] => ABOUTS.filter((a) => kinds.includes(SAID[a].kind));

/** What the books say of something with a day. */
export interface Dated {
  about: About;
  /** What tells it from every other entry of these books, for good. */
  key: string;
  /** Its record's number. */
  id: number;
  name: string;
  number: string | null;
  /** The day it is about; for a timer, the day it runs out on. */
  day: Day;
  /** A timer's beginning, and how long it runs. */
  from: Date | null;
  minutes: number | null;
  /** Still to be done; done; or no longer so: an order taken back, a jar strained before its day, a lot used up. */
  state: "stands" | "done" | "off";
  /** What is in an order. */
  goods: string;
  /** What is left of a lot, in milligrams or pieces; units that go along to a market. */
  amount: number | null;
  weighed: boolean;
  /** A jar's first and last day. */
  earliest: Day | null;
  latest: Day | null;
  /** How many acts changed it, and when the newest did. */
  changes: number;
  changed: Date;
}

export interface Entry extends Dated {
  kind: CalendarKind;
  title: string;
  note: string;
  path: string;
}

function noteOf({ about, state, goods, amount, weighed, number, earliest, latest }: Dated): string {
  const off = state === "off" ? ["No longer so."] : [];
  switch (about) {
    case "order":
      return [...off, ...(state === "done" ? ["Packed."] : []), goods].filter(Boolean).join(" ");
    case "market":
      return [...off, ...(state === "done" ? ["Closed."] : []), ...(amount ? [`${counted(amount, "unit")} along.`] : [])].join(" ");
    case "best":
    case "latest":
      return [
        ...off,
        `Jar ${number}: could be strained from ${earliest && sayFullDay(earliest)} on, by ${latest && sayFullDay(latest)} at the latest.`,
      ].join(" ");
    case "lotDay":
      return [...off, ...(amount ? [`${weighed ? grams(amount, 0) : counted(amount, "unit")} left.`] : [])].join(" ");
    case "heat":
    case "timer":
      return [...off, ...(number ? [`Jar ${number}.`] : [])].join(" ");
  }
}

/** What the books say of something, as a calendar has it. */
export const entryOf = (of: Dated): Entry => ({
  ...of,
  kind: kindOf(of.about),
  title: sayAbout(of.about, of),
  note: noteOf(of),
  path: whereOf(of.about, of),
});
