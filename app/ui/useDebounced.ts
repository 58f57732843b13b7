/** A debounced value: what is slow to draw waits until typing pauses. */
import { startTransition, useEffect, useState } from "react";

/** Shorter than a pause anybody makes on purpose, longer than one between two keys. */
const REST_MS = 160;

/** The value, once it has not changed for a moment. */
export function useDebounced<T>(now: T): T {
  const [rested, rest] = useState(now);
  useEffect(() => {
    if (rested === now) return;
    const timer = window.setTimeout(() => startTransition(() => rest(now)), REST_MS);
    return () => clearTimeout(timer);
  }, [now, rested]);
  return rested;
}
