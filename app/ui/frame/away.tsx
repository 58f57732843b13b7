/** Said on every screen while something waits for a server that is away; what is typed meanwhile stands pale (app.css), since nobody has it yet. */
import { useSyncExternalStore } from "react";
import { isWaiting, onWaiting } from "../../forms/patient.ts";

export function Away() {
  const waits = useSyncExternalStore(onWaiting, isWaiting, () => false);
  return (
    waits && (
      <p
        role="status"
        data-away
        className="no-print fixed inset-x-0 top-0 z-50 bg-honey-wash px-4 py-1.5 text-center font-semibold text-honey"
      >
        The server is away. What you did waits for it, what you type stays.
      </p>
    )
  );
}
