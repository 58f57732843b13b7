/**
 * Saves what is weighed on the batch itself while it is typed, so that an interruption or a flat battery loses nothing and every window sees
 * it: a moment after the last change, and at once when the page is left.
 */
import { useCallback, useEffect, useRef } from "react";
import { useBackgroundPost } from "../../forms/beside/useBackgroundPost.ts";

const PAUSE_MS = 700;

/** @param now what is saved, as text to be compared; @param body the sheet as it is posted, told what was saved of it last @returns `atOnce`, for an act that ends the sheet, and what is known to be `kept` */
export function useSavedWeights(batchId: number, now: string, body: (kept: string) => object) {
  const keep = useBackgroundPost(`/bench/${batchId}/weighed`);
  // What was sent last, and what of it is known to have come: what another window may have changed since is told by that.
  const at = useRef({ sent: now, kept: now, now, body, keep });
  at.current = { ...at.current, now, body, keep };
  /** Posts what isn't posted yet. @returns once all of it is answered */
  const atOnce = useCallback((): Promise<unknown> => {
    const { sent, kept, now: last, keep: by } = at.current;
    if (sent === last) return by.settled();
    at.current.sent = last;
    return by.post(at.current.body(kept)).then((problems) => {
      if (problems.length === 0) at.current.kept = last;
    });
  }, []);
  useEffect(() => {
    if (now === at.current.sent) return;
    const wait = setTimeout(() => void atOnce(), PAUSE_MS);
    return () => clearTimeout(wait);
  }, [now, atOnce]);
  useEffect(() => {
    const leave = (pageGoes: boolean): void => {
      const { sent, kept, now: last, keep: by } = at.current;
      // One still on its way may be broken off with the page.
      if (sent === last && !by.going) return;
      at.current.sent = last;
      by.last(at.current.body(kept), pageGoes);
    };
    const goes = (): void => leave(true);
    window.addEventListener("pagehide", goes);
    return () => {
      window.removeEventListener("pagehide", goes);
      leave(false);
    };
  }, []);
  return { going: keep.going, problems: keep.problems, atOnce, kept: () => at.current.kept };
}
