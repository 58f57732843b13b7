/** What every one of the first steps asks and answers. */
import { FIRST_STEPS, nextStep, type StepId } from "#core/firstSteps";
import { firstSteps, passStep } from "#db/firstSteps";
import type { Doing } from "#db/act/define";
import { redirect } from "react-router";
import { db } from "../db.server.ts";

/** Where the step after one leads. */
export async function wayOn(after: StepId): Promise<string> {
  const next = nextStep(await firstSteps(db()), after);
  return next ? FIRST_STEPS[next].to : "/begin";
}

/** Passes a step over and goes on to the next. */
export async function skipStep(id: StepId, doing: Doing): Promise<Response> {
  await passStep(db(), id, doing);
  return redirect(await wayOn(id));
}
