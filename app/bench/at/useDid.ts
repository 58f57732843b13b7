/** Saves what was just done at the bench: at once, and the page is read again with it. What is refused stays where it was done. */
import { useRevalidator } from "react-router";
import { useBackgroundPost } from "../../forms/beside/useBackgroundPost.ts";

/** @example const did = useDid(4); did.keep({ intent: "event", kind: "step", step: 2 }, next) */
export function useDid(batchId: number) {
  const { going, problems, post } = useBackgroundPost(`/bench/${batchId}/did`);
  const { state, revalidate } = useRevalidator();
  return {
    busy: going || state !== "idle",
    problem: problems[0] ?? null,
    /** What is wrong with a field of what was saved. */
    problemAt: (field: string): string | undefined => problems.find((p) => p.field === field)?.say,
    /** @param kept what comes once it is saved, and only then */
    keep: (what: object, kept?: () => void): void =>
      void post(what).then(async (refused) => {
        if (refused.length > 0) return;
        await revalidate();
        kept?.();
      }),
  };
}
export type Did = ReturnType<typeof useDid>;
