/** Where keys go at the bench: to the step at hand, whose Enter takes what is on the scale, and not to whatever was pressed last. */
export const STEP_ID = "step-at-hand";

export function backToStep(): void {
  const step = document.getElementById(STEP_ID);
  step?.focus({ preventScroll: true });
  // On a phone the step is below its list: chosen there, it is out of sight.
  if (step && step.getBoundingClientRect().bottom < 0) step.scrollIntoView();
}
