/** A record's buttons for copying it, putting it away or bringing it back, and deleting it while nothing was made of it. */
import { Link } from "react-router";
import { usePress } from "../forms/usePress.ts";
import { Button, Problem } from "../ui/fields/form.tsx";
import type { AwayDoes, AwayOf } from "./kinds.ts";

interface Props {
  of: AwayOf;
  id: number;
  retired: boolean;
  /** Where a copy of it is written. */
  copy?: string;
}

export function Keeping({ of, id, retired, copy }: Props) {
  const { press: post, busy, problem: refused } = usePress("/away");
  const press = (does: AwayDoes): void => post({ of, id, does });
  return (
    <div className="no-print mt-7 border-t border-rule pt-2 text-small">
      <div className="flex flex-wrap gap-x-5">
        {copy && (
          <Link to={copy} className="pressable">
            {of === "product" ? "Copy it on its recipe" : "Copy it"}
          </Link>
        )}
        <button type="button" className="pressable" disabled={busy} onClick={() => press(retired ? "back" : "away")}>
          {retired ? "Bring it back" : "Put it away"}
        </button>
        <button type="button" className="pressable" disabled={busy} onClick={() => press("delete")}>
          Delete it
        </button>
      </div>
      {refused && (
        <div>
          <Problem say={refused.say} see={refused.see} />
          {!retired && (
            <Button small className="mt-1" onClick={() => press("away")}>
              Put it away instead
            </Button>
          )}
        </div>
      )}
    </div>
  );
}

/** The note above the sheet of a record that was put away. */
export const AWAY_SAID = "Put away: no longer offered anywhere. Its records stay.";
