/** A button that does one act by itself, outside any sheet. */
import { useEffect, useRef } from "react";
import { useFetcher } from "react-router";
import type { Reply } from "./sheet.server.ts";

/** @param action where it is posted @example const hand = usePress("/away"); hand.press({ of: "recipe", id: 4, does: "away" }) */
export function usePress(action: string) {
  const fetcher = useFetcher<Reply | null>();
  const token = useRef<string | null>(null);
  const busy = fetcher.state !== "idle";
  const was = useRef(false);
  // A new token for each press; pressed twice in a row it is the same one, and counts once.
  useEffect(() => {
    if (was.current && !busy) token.current = null;
    was.current = busy;
  }, [busy]);
  return {
    busy,
    problem: fetcher.data?.problems[0],
    press: (body: Record<string, unknown>): void => {
      token.current ??= crypto.randomUUID();
      void fetcher.submit({ ...body, token: token.current }, { method: "post", action, encType: "application/json" });
    },
  };
}
