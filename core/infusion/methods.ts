/**
 * Ways to infuse, with how long each takes and when a jar filled today is ready.
 *
 * Times are common practice, no source: four to six weeks on a dark shelf, one to six in a sunny window, two to four hours over a
 * gentle water bath, eight to fourteen at the lowest setting of a slow cooker, about twelve on a warming plate, a day by alcohol.
 */
import { addDays, type Day } from "../when.ts";

export interface Times {
  /** Hours. */
  earliest: number;
  best: number;
  latest: number;
}

export interface Method {
  label: string;
  times: Times;
  heat: "none" | "sun" | "gentle";
  /** There is steam or water beside the jar. */
  water: boolean;
  /** Wants shaking while it steeps. */
  shaken: boolean;
  how: string;
}

const days = (earliest: number, best: number, latest: number): Times => ({ earliest: earliest * 24, best: best * 24, latest: latest * 24 });

export const METHODS = {
  shelf: {
    label: "Dark shelf",
    times: days(28, 42, 84),
    heat: "none",
    water: false,
    shaken: true,
    how: "Dry herb, dry jar. Shake once or twice a day at first. Longer is stronger, until the oil itself ages.",
  },
  window: {
    label: "Sunny window",
    times: days(5, 14, 42),
    heat: "sun",
    water: false,
    shaken: true,
    how: "A cloth over the mouth, so that damp can leave and insects can't enter. Some take a week, as many two to six.",
  },
  bath: {
    label: "Water bath",
    times: { earliest: 2, best: 3, latest: 4 },
    heat: "gentle",
    water: true,
    shaken: false,
    how: "Hot water below, never bubbling oil. Stir now and then and never leave it.",
  },
  cooker: {
    label: "Slow cooker",
    times: { earliest: 8, best: 12, latest: 14 },
    heat: "gentle",
    water: true,
    shaken: false,
    how: "Gentle is 37–49 °C (99–120 °F), and a cooker is hotter than it says: low nears 80–95 °C, warm 63–75 (from memory). Warm setting with the lid off, or a thermostat; read a thermometer and write it down. Cloth under the jar, water below its mouth.",
  },
  plate: {
    label: "Warming plate",
    times: { earliest: 10, best: 12, latest: 14 },
    heat: "gentle",
    water: false,
    shaken: false,
    how: "Lowest setting, lid ajar under a cloth; read a thermometer and write it down.",
  },
  alcohol: {
    label: "Alcohol first",
    times: { earliest: 24, best: 30, latest: 48 },
    heat: "gentle",
    water: false,
    shaken: false,
    how: "Dampen the dried herb with a little spirit, leave it a day, then blend with the oil or warm it gently until the spirit is gone.",
  },
  own: {
    label: "My own way",
    times: days(7, 14, 28),
    heat: "none",
    water: false,
    shaken: true,
    how: "Say how many days it takes; the rest is yours.",
  },
} as const satisfies Record<string, Method>;

export type MethodId = keyof typeof METHODS;
export const METHOD_IDS = Object.keys(METHODS) as MethodId[];

/** @example method("cooker").times.latest // 14 */
export const method = (id: MethodId): Method => METHODS[id];

/**
 * Hours on gentle heat as a maker gives them: one number, or from the earliest to the latest with the best halfway.
 * @example ownHours(2, 4) // { earliest: 2, best: 3, latest: 4 }
 */
export const ownHours = (earliest: number, latest: number): Times => ({ earliest, best: (earliest + latest) / 2, latest });

/** What a maker's own way takes: half of it at the earliest, twice at the latest. @example ownTimes(10).earliest // 120 */
export const ownTimes = (daysBest: number): Times => days(Math.ceil(daysBest / 2), daysBest, daysBest * 2);

export interface Ready {
  earliest: Day;
  best: Day;
  latest: Day;
}

/** Up to a working day it is done the same day; longer runs through the night. */
const after = (day: Day, hours: number): Day => addDays(day, hours < 9 ? 0 : Math.ceil(hours / 24));

/** @example readyDays("2026-11-01", METHODS.shelf.times).best // "2026-12-13" */
export const readyDays = (day: Day, t: Times): Ready => ({
  earliest: after(day, t.earliest),
  best: after(day, t.best),
  latest: after(day, t.latest),
});

export type Suits = "well" | "just" | "late";

/** Whether it is ready by the day it is wished for: at its best, at least at the earliest, or too late. */
export const suits = (ready: Ready, wished: Day): Suits => (ready.best <= wished ? "well" : ready.earliest <= wished ? "just" : "late");

/**
 * Methods that still make a day, the slowest first, since slow is gentle.
 * @example methodsInTime("2026-12-01", "2026-12-02") // ["alcohol", "cooker", "plate", "bath"]
 */
export const methodsInTime = (day: Day, wished: Day): MethodId[] =>
  METHOD_IDS.filter((id) => id !== "own" && suits(readyDays(day, METHODS[id].times), wished) !== "late").sort(
    (a, b) => METHODS[b].times.best - METHODS[a].times.best,
  );
