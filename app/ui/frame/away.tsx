/** Said on every screen while something waits for a server that is away. */
import { useEffect, useSyncExternalStore } from "react";
import { isWaiting, onWaiting } from "../../forms/patient.ts";

export function Away() {
  const waits = useSyncExternalStore(onWaiting, isWaiting, () => false);
  // What is typed meanwhile stands pale, since nobody has it yet.
  useEffect(() => {
    document.documentElement.toggleAttribute("data-away", waits);
  }, [waits]);
  return (
    waits && (
      <p
        role="status"
        className="no-print fixed inset-x-0 top-0 z-50 bg-honey-wash px-4 py-1.5 text-center font-semibold text-honey shadow"
      >
        The server is away. What you did waits here and goes on by itself; what you type stays.
      </p>
    )
  );
}
