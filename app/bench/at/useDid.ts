/** Saves what was just done at the bench: at once, and the page is read again with it. What is refused stays where it was done. */
import { useState } from "react";
import { useRevalidator } from "react-router";
import { useBackgroundPost } from "../../forms/beside/useBackgroundPost.ts";

/** @example const did = useDid(4); did.keep({ intent: "event", kind: "step", step: 2 }, next) */
export function useDid(batchId: number) {
  const { problems, post } = useBackgroundPost(`/bench/${batchId}/did`);
  const { state, revalidate } = useRevalidator();
  // From the press until the page shows it: free for a moment in between, a button would swallow the next press.
  const [saving, setSaving] = useState(0);
  return {
    busy: saving > 0 || state !== "idle",
    /** True while this act is saved. Enter does nothing while its button is off: a note or a typed warmth, which needs nothing shown, waits for this only. */
    saving: saving > 0,
    problem: problems[0] ?? null,
    /** What is wrong with a field of what was saved. */
    problemAt: (field: string): string | undefined => problems.find((p) => p.field === field)?.say,
    /** @param kept called once it is saved, and only then */
    keep: (what: object, kept?: () => void): void => {
      setSaving((n) => n + 1);
      void post(what)
        .then(async (refused) => {
          if (refused.length > 0) return;
          await revalidate();
          kept?.();
        })
        .finally(() => setSaving((n) => n - 1));
    },
  };
}
export type Did = ReturnType<typeof useDid>;
