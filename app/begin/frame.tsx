/** Frame of a first step: which of how many it is, its fields, and the buttons that lead on. */
import { Link } from "react-router";
import { FIRST_STEPS, STEP_IDS, type Step, type StepId } from "#core/settings/firstSteps";
import type { ReactNode } from "react";
import { Heading } from "../ui/sheet/sheet.tsx";

/** The steps as a row of small jars: full once done, the present one lidded in amber. */
export function StepJars({ steps, at }: { steps: readonly Step[]; at?: StepId }) {
  return (
    <ol className="mb-4 flex flex-wrap gap-x-1.5 gap-y-1" aria-label="First steps">
      {steps.map(({ id, state }, i) => (
        <li key={id}>
          <Link
            to={FIRST_STEPS[id].to}
            title={FIRST_STEPS[id].say}
            aria-label={`${FIRST_STEPS[id].say}, ${state === "open" ? "to do" : state === "done" ? "done" : "skipped"}`}
            aria-current={id === at ? "step" : undefined}
            className={`grid h-8 min-w-8 place-items-center rounded border-[1.5px] px-1.5 text-small font-semibold ${
              state === "done" ? "border-sage bg-sage-wash text-sage" : "border-rule-strong bg-sheet"
            } ${id === at ? "border-amber-deep bg-amber-glass! text-pine!" : ""}`}
          >
            {state === "done" ? "✓" : state === "passed" ? "–" : i + 1}
          </Link>
        </li>
      ))}
    </ol>
  );
}

interface HeadingProps {
  id: StepId;
  steps: readonly Step[];
  /** Passes the step over. */
  skip: ReactNode;
  /** Stays in sight over a long sheet. */
  stays?: boolean;
  children: ReactNode;
}

export function StepHeading({ id, steps, skip, stays, children }: HeadingProps) {
  return (
    <div className={stays ? "sticky top-0 z-10 -mx-1 bg-paper px-1 pt-2" : ""}>
      <StepJars steps={steps} at={id} />
      <Heading title={FIRST_STEPS[id].say} about={`Step ${STEP_IDS.indexOf(id) + 1} of ${STEP_IDS.length}. ${FIRST_STEPS[id].about}`}>
        {skip}
        {children}
      </Heading>
    </div>
  );
}
