/**
 * Keeps what is weighed on the batch itself while it is typed, so that an interruption or a flat battery loses nothing and every window sees
 * it: a moment after the last change, and at once when the page is left.
 */
import { useCallback, useEffect, useRef } from "react";
import { useBeside } from "../forms/useBeside.ts";

const PAUSE_MS = 700;

/** @param now what is kept, as text to be compared; @param body the sheet as it is posted @returns `atOnce`, for an act that ends the sheet */
export function useKept(batchId: number, now: string, body: () => object) {
  const keep = useBeside(`/bench/${batchId}/weighed`);
  const at = useRef({ kept: now, now, body, keep });
  at.current = { ...at.current, now, body, keep };
  /** Posts what isn't posted yet. @returns once all of it is answered */
  const atOnce = useCallback((): Promise<unknown> => {
    const { kept, now: last, keep: by } = at.current;
    if (kept === last) return by.settled();
    at.current.kept = last;
    return by.post(at.current.body());
  }, []);
  useEffect(() => {
    if (now === at.current.kept) return;
    const wait = setTimeout(() => void atOnce(), PAUSE_MS);
    return () => clearTimeout(wait);
  }, [now, atOnce]);
  useEffect(() => {
    const leave = (): void => {
      const { kept, now: last, keep: by } = at.current;
      // One still on its way may be broken off with the page.
      if (kept === last && !by.going) return;
      at.current.kept = last;
      by.last(at.current.body());
    };
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      leave();
    };
  }, []);
  return { going: keep.going, problems: keep.problems, atOnce };
}
