/** What was just done, with the way to take it back. */
import { useState } from "react";
import { useFetcher } from "react-router";
import type { Reply } from "../forms/sheet.server.ts";
import { Button } from "./form.tsx";

export function DoneNote({ done }: { done: { id: number; summary: string; undoable: boolean } | null }) {
  const [open, setOpen] = useState(true);
  const back = useFetcher<Reply | null>();
  if (!done || !open) return null;
  const problem = back.data?.problems?.[0]?.say;
  return (
    <div className="no-print border-b border-rule bg-sage-wash">
      <div role="status" className="mx-auto flex max-w-[82rem] flex-wrap items-center gap-x-4 gap-y-1 px-4 py-2 sm:px-6">
        <span className="font-semibold text-sage">{done.summary}</span>
        {problem && <span className="font-semibold text-berry">{problem}</span>}
        <span className="ml-auto flex gap-2">
          {done.undoable && (
            <Button
              small
              disabled={back.state !== "idle"}
              onClick={() => back.submit({ actId: done.id }, { method: "post", action: "/take-back" })}
            >
              Take it back
            </Button>
          )}
          <Button small onClick={() => setOpen(false)}>
            Fine
          </Button>
        </span>
      </div>
    </div>
  );
}
