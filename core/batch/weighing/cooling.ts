/**
 * When a pot will be as cool as it has to be, from how it has cooled so far.
 *
 * By Newton's law of cooling what a pot is warmer than the room falls by the same share in the same time:
 * T(t) = room + (T0 − room) · e^(−t/τ). Its logarithm is a straight line; each reading counts by the square of its distance to the room, since the
 * probe's error is the same in degrees at every warmth (weighted least squares; the propagation of error is the usual first-order one).
 */

export interface Sample {
  /** Milliseconds, of any clock. */
  at: number;
  celsius: number;
}

export interface Cooling {
  /** Of the room, as it was said. */
  room: number;
  /** At the last reading, by the line through all of them. */
  now: number;
  /** What is left of the distance after this many minutes is an e-th. */
  tau: number;
  /** Standard error of ln(T − room) at the last reading, and of its fall a minute. */
  error: { level: number; slope: number; both: number };
  at: number;
}

/** Fewer readings, or less of a fall than this, say nothing. */
const READINGS = 6;
const FALL = 1.2;
/** Nearer to the room than this the logarithm is all noise. */
const NEAREST = 4;
/** How well anybody knows how warm a kitchen is, in degrees: common practice, no source. */
const ROOM_ERROR = 1.5;

/** The readings since it was last warmed: those after the warmest. @example sinceWarmest([{ at: 0, celsius: 60 }, { at: 1, celsius: 70 }, { at: 2, celsius: 69 }]).length // 2 */
export function sinceWarmest(samples: readonly Sample[]): Sample[] {
  const top = samples.reduce((best, s, i) => (s.celsius >= (samples[best]?.celsius ?? -Infinity) ? i : best), 0);
  return samples.slice(top);
}

/**
 * The line through the readings; null while they say too little.
 * @param room how warm the room is, °C
 * @example fitCooling([], 21) // null
 */
export function fitCooling(samples: readonly Sample[], room: number): Cooling | null {
  const used = samples.filter((s) => s.celsius - room >= NEAREST);
  const [first, last] = [used[0], used.at(-1)];
  if (!first || !last || used.length < READINGS || first.celsius - last.celsius < FALL) return null;
  // Time in minutes before the last reading, so that the level is the one of now.
  const points = used.map((s) => ({ x: (s.at - last.at) / 60_000, y: Math.log(s.celsius - room), w: (s.celsius - room) ** 2 }));
  const sum = (f: (p: (typeof points)[number]) => number): number => points.reduce((a, p) => a + f(p), 0);
  const [w, x, y] = [sum((p) => p.w), sum((p) => p.w * p.x), sum((p) => p.w * p.y)];
  const [xx, xy] = [sum((p) => p.w * p.x * p.x), sum((p) => p.w * p.x * p.y)];
  const d = w * xx - x * x;
  if (d <= 0) return null;
  const slope = (w * xy - x * y) / d;
  const level = (y - slope * x) / w;
  if (slope >= 0) return null;
  // The weights are as the inverse of the variance but for one factor, which the scatter tells.
  const scatter = sum((p) => p.w * (p.y - level - slope * p.x) ** 2) / Math.max(1, points.length - 2);
  return {
    room,
    now: room + Math.exp(level),
    tau: -1 / slope,
    error: { level: Math.sqrt((scatter * xx) / d), slope: Math.sqrt((scatter * w) / d), both: (-scatter * x) / d },
    at: last.at,
  };
}

export interface Forecast {
  /** Minutes from the last reading; below zero when it is past. */
  minutes: number;
  /** Two standard errors of it, with what nobody knows of the room. */
  plusMinus: number;
}

/** When it comes to some warmth; null where the room is warmer than that. @example forecast({ room: 21, now: 54, tau: 20, error: { level: 0, slope: 0, both: 0 }, at: 0 }, 54)?.minutes // 0 */
export function forecast(c: Cooling, celsius: number): Forecast | null {
  if (celsius - c.room < NEAREST / 2) return null;
  const fall = Math.log((c.now - c.room) / (celsius - c.room));
  const minutes = fall * c.tau;
  const slope = -1 / c.tau;
  // t = (ln(T* − room) − level) / slope, by the first-order propagation of the errors of level, slope and room.
  const [byLevel, bySlope] = [-1 / slope, -minutes / slope];
  const byRoom = c.tau * (1 / (celsius - c.room) - 1 / (c.now - c.room));
  const variance =
    byLevel ** 2 * c.error.level ** 2 +
    bySlope ** 2 * c.error.slope ** 2 +
    2 * byLevel * bySlope * c.error.both +
    (byRoom * ROOM_ERROR) ** 2;
  return { minutes, plusMinus: 2 * Math.sqrt(Math.max(0, variance)) };
}

/** @example sayForecast({ minutes: 12.4, plusMinus: 2.1 }) // "in 12 min, give or take 2" */
export function sayForecast({ minutes, plusMinus }: Forecast): string {
  if (minutes <= 0) return "now";
  const round = (n: number): number => Math.max(1, Math.round(n));
  return `in ${round(minutes)} min, give or take ${round(plusMinus)}`;
}
