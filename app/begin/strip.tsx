/** A strip under the row of stations that leads through the first steps, until it is put away or all is done. */
import { FIRST_STEPS, nextStep, STEP_IDS, type Step } from "#core/settings/firstSteps";
import { Link, useFetcher, useLocation } from "react-router";
import { Button } from "../ui/fields/form.tsx";

export function PutAway({ away, token, small }: { away: boolean; token: string; small?: boolean }) {
  const put = useFetcher();
  return (
    <Button
      small={small}
      disabled={put.state !== "idle"}
      onClick={() =>
        void put.submit({ intent: away ? "back" : "away", token }, { method: "post", action: "/begin", encType: "application/json" })
      }
    >
      {away ? "Show the first steps" : "Hide these"}
    </Button>
  );
}

export function FirstStepsStrip({ steps, token }: { steps: readonly Step[]; token: string }) {
  const { pathname } = useLocation();
  const next = nextStep(steps);
  // A step's own screen shows its progress itself.
  if (!next || pathname.startsWith("/begin")) return null;
  // At its station the press would lead away from what is being done.
  const here = pathname.split("/")[1] === FIRST_STEPS[next].to.split("/")[1];
  return (
    <aside aria-label="First steps" className="no-print border-b border-rule bg-paper-deep">
      <div className="mx-auto flex max-w-room flex-wrap items-center gap-x-4 gap-y-1 px-4 py-1.5 text-small sm:px-6">
        <Link to="/begin" className="underline underline-offset-4">
          First steps
        </Link>
        <span>
          {STEP_IDS.indexOf(next) + 1} of {STEP_IDS.length}: <strong>{FIRST_STEPS[next].say}</strong>
          <span className="text-pine-soft max-sm:hidden"> — {FIRST_STEPS[next].about}</span>
        </span>
        <span className="ml-auto flex gap-2">
          {!here && (
            <Link to={FIRST_STEPS[next].to} className="act act-small">
              Go on
            </Link>
          )}
          <PutAway away={false} token={token} small />
        </span>
      </div>
    </aside>
  );
}
