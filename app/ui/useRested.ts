/** What takes long to draw waits until the hand rests. */
import { startTransition, useEffect, useState } from "react";

/** Shorter than a pause anybody makes on purpose, longer than one between two keys. */
const REST_MS = 160;

/** A value as it was when it had last stood still for a moment. */
export function useRested<T>(now: T): T {
  const [rested, rest] = useState(now);
  useEffect(() => {
    if (rested === now) return;
    const timer = window.setTimeout(() => startTransition(() => rest(now)), REST_MS);
    return () => clearTimeout(timer);
  }, [now, rested]);
  return rested;
}
