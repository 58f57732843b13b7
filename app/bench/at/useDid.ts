/** Keeps what was just done at the bench: at once, and the page is read anew with it. */
import { useFetcher } from "react-router";
import type { Reply } from "../../forms/sheet.server.ts";

/** @example const did = useDid(4); did.keep({ intent: "event", kind: "step", step: 2 }) */
export function useDid(batchId: number) {
  const fetcher = useFetcher<Reply | null>();
  return {
    busy: fetcher.state !== "idle",
    problem: fetcher.data?.problems[0] ?? null,
    keep: (what: Record<string, unknown>): Promise<void> =>
      fetcher.submit(what as Record<string, string>, {
        method: "post",
        action: `/bench/${batchId}/did`,
        encType: "application/json",
      }),
  };
}
export type Did = ReturnType<typeof useDid>;
