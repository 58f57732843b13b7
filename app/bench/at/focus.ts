/** Where keys go at the bench: to the step at hand, whose Enter takes what is on the scale, and not to whatever was pressed last. */
export const STEP_ID = "step-at-hand";

export const backToStep = (): void => document.getElementById(STEP_ID)?.focus({ preventScroll: true });
