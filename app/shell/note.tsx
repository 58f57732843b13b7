/** What was just done, with the way to take it back. */
import { useState } from "react";
import { TakeBack } from "../book/takeBackPress.tsx";
import { Button } from "../ui/fields/form.tsx";

/** Told once: it stays until the maker goes on, also when the page looks up its figures again. */
export function DoneNote({ done: told }: { done: { id: number; summary: string; undoable: boolean } | null }) {
  const [done, setDone] = useState(told);
  if (!done) return null;
  return (
    <div className="no-print border-b border-rule bg-sage-wash">
      <div
        role="status"
        aria-label="What was done"
        className="mx-auto flex max-w-room flex-wrap items-center gap-x-4 gap-y-1 px-4 py-2 sm:px-6"
      >
        <span className="font-semibold text-sage">{done.summary}</span>
        <span className="ml-auto flex flex-wrap gap-2">
          {done.undoable && <TakeBack actId={done.id} />}
          <Button small onClick={() => setDone(null)}>
            Fine
          </Button>
        </span>
      </div>
    </div>
  );
}
