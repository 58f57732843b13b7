/**
 * The first hour in a workshop of one's own, one small step at a time. Each can be passed over and found again; what is there in the books
 * is done, however it came there.
 */
import type { Settings } from "./settings.ts";

export const FIRST_STEPS = {
  name: { say: "Name and currency", to: "/begin/name", about: "What your workshop is called, and what it counts in." },
  work: { say: "Your hour and your scale", to: "/begin/work", about: "What an hour of your work is worth, and what your scale reads." },
  materials: { say: "What you keep", to: "/begin/materials", about: "Waxes, butters, oils, herbs: tick them in the library." },
  containers: { say: "What you fill", to: "/begin/containers", about: "Tins, jars, tubes, lids and labels." },
  opening: { say: "What is there", to: "/begin/opening", about: "How much of each is on the shelf now." },
  recipe: { say: "A first recipe", to: "/recipes/new", about: "In cups or grams, as you have it." },
  batch: { say: "A first batch", to: "/bench/set-out", about: "Set out, weighed and poured; it gets its lot number." },
  price: { say: "A first price", to: "/prices", about: "What to ask for one, and what is left of it." },
} as const;
export type StepId = keyof typeof FIRST_STEPS;
export const STEP_IDS = Object.keys(FIRST_STEPS) as StepId[];
/** Steps that have their own screen among the first steps; the others are the stations'. */
export const OWN_STEPS = STEP_IDS.filter((s) => FIRST_STEPS[s].to.startsWith("/begin/"));

/** What is in the books. */
export type Begun = Record<Exclude<StepId, "name" | "work">, boolean>;

export interface Step {
  id: StepId;
  state: "done" | "passed" | "open";
}

/**
 * How far the first hour is.
 * @example stepsOf({ passed: ["name"], away: false }, begun).map((s) => s.state)[0] // "done"
 */
export const stepsOf = ({ passed }: Settings["firstSteps"], begun: Begun): Step[] =>
  STEP_IDS.map((id) => {
    // Of choices every workshop starts with, only the maker's word tells that they were looked at.
    const there = id === "name" || id === "work" ? passed.includes(id) : begun[id];
    return { id, state: there ? "done" : passed.includes(id) ? "passed" : "open" };
  });

/** The step to take next, after one if that is named; null when none is open. @example nextStep([{ id: "name", state: "open" }]) // "name" */
export function nextStep(steps: readonly Step[], after?: StepId): StepId | null {
  const from = after === undefined ? 0 : STEP_IDS.indexOf(after) + 1;
  return steps.find((s) => s.state === "open" && STEP_IDS.indexOf(s.id) >= from)?.id ?? null;
}
