/** What is being done with the backups, how far it is, and what the last one came to. */
import type { Ended, Work } from "#db/backups/backups";
import { SERVED, WORKSHOPS } from "#core/workshop";
import { useSayDay } from "../ui/figures/amounts.tsx";
import { Problem, Button } from "../ui/fields/form.tsx";

const PHASES: Record<Work["phase"], string> = {
  writing: "Writing the backup",
  checking: "Checking it by reading it back",
  reading: "Reading the file through",
  loading: "Reading the books",
};

export function UnderWay({ work, onStop }: { work: Work; onStop: () => void }) {
  const share = work.of > 0 ? work.done / work.of : 0;
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2" role="status">
      <span className="min-w-56">{PHASES[work.phase]} …</span>
      <progress className="h-2 w-56 accent-amber" max={1} value={share} aria-label={PHASES[work.phase]} />
      <Button small onClick={onStop}>
        Stop
      </Button>
    </div>
  );
}

/** What is open to be looked at. @param asOf the moment of its newest act */
export function Opened({ asOf, onEnd }: { asOf: string; onEnd: () => void }) {
  const say = useSayDay();
  return (
    <div role="status" className="flex flex-wrap items-center gap-x-4 gap-y-2">
      <span className="font-semibold text-sage">Open to look at: your books as they were on {say(asOf.slice(0, 10))}.</span>
      <a href={SERVED.look.home} className="act act-small">
        Look at them
      </a>
      <Button small onClick={onEnd}>
        Done looking
      </Button>
    </div>
  );
}

export function CameTo({ ended }: { ended: Ended }) {
  if (!ended.ok) return <Problem say={ended.say} />;
  if (ended.what === "backup")
    return (
      <p role="status" className="font-semibold text-sage">
        {ended.name === null
          ? "Nothing has changed since the newest backup: it is as good as a new one."
          : "Backed up, and checked by reading it back."}
      </p>
    );
  // What is open to look at says so itself.
  if (ended.what === "look") return null;
  return (
    <div role="status">
      <p className="font-semibold text-sage">Done: your own workshop is what was in the archive.</p>
      {ended.kept !== null && (
        <p className="mt-1">
          The books that were there before are kept beside them, in the database <span className="weight">{ended.kept}</span>. To go back to
          them, see below.
        </p>
      )}
      <p className="mt-2">
        <a href={WORKSHOPS.own.home} className="act act-main">
          Go to your own
        </a>
      </p>
    </div>
  );
}
