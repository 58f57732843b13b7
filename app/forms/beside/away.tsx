/** The note on every screen while a request waits for a server that is away; fields are pale meanwhile (app.css). */
import { useSyncExternalStore } from "react";
import { isRetrying, onRetrying } from "./fetchWithRetry.ts";

export function Away() {
  const waits = useSyncExternalStore(onRetrying, isRetrying, () => false);
  return (
    waits && (
      <p
        role="status"
        data-away
        className="no-print fixed inset-x-0 top-0 z-50 bg-honey-wash px-4 py-1.5 text-center font-semibold text-honey"
      >
        The server is away. What you did waits here and goes on by itself; what you type stays.
      </p>
    )
  );
}
