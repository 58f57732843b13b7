/** What the loaders and actions of all first steps share. */
import { FIRST_STEPS, nextStep, type StepId } from "#core/settings/firstSteps";
import { firstSteps, passStep } from "#db/settings/firstSteps";
import type { ActOptions } from "#db/act/define";
import { redirect } from "react-router";
import { cachedSettings } from "#db/settings/settings";
import { db, serving } from "../server/workshop.server.ts";

/** Where the step after one leads. */
export async function wayOn(after: StepId): Promise<string> {
  const next = nextStep(await firstSteps(db()), after);
  return next ? FIRST_STEPS[next].to : "/begin";
}

/** Whether a maker is led through the first steps, and this one is still to be done. */
export async function isFirst(id: StepId): Promise<boolean> {
  if ((serving().kind ?? "own") !== "own") return false;
  const [steps, { firstSteps: led }] = await Promise.all([firstSteps(db()), cachedSettings(db())]);
  return !led.away && steps.some((s) => s.id === id && s.state === "open");
}

/** Passes a step over and goes on to the next. */
export async function skipStep(id: StepId, doing: ActOptions): Promise<Response> {
  await passStep(db(), id, doing);
  return redirect(await wayOn(id));
}
