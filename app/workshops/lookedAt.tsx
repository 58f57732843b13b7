/** Above every page of a backup that is looked at: what it is, that nothing can be changed, and the way back. */
import { WORKSHOPS } from "#core/workshop";
import { useSayDay } from "../ui/figures/amounts.tsx";

/** @param asOf the moment of its newest act */
export function OnlyLookedAt({ asOf }: { asOf: string }) {
  const say = useSayDay();
  return (
    <div role="region" aria-label="A backup" className="no-print border-b border-rule-strong bg-paper-deep">
      <p className="mx-auto flex max-w-room flex-wrap items-center gap-x-4 gap-y-1 px-4 py-2 sm:px-6">
        <span>
          <strong>A backup, opened to look at:</strong> your books as they were on {say(asOf.slice(0, 10))}. Nothing can be changed here.
        </span>
        <a href={`${WORKSHOPS.own.home}/backups`} className="act act-small">
          Back to your own books
        </a>
      </p>
    </div>
  );
}
