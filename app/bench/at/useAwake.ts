/** Keeps the screen on while a page is open: nobody with oily hands wants to wake it. */
import { useEffect } from "react";

export function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let gone = false;
    const hold = (): void => {
      if (document.visibilityState !== "visible" || !("wakeLock" in navigator)) return;
      // Refused on a low battery; then the screen does what it always does.
      navigator.wakeLock.request("screen").then(
        (got) => {
          if (gone) void got.release();
          else lock = got;
        },
        () => undefined,
      );
    };
    hold();
    document.addEventListener("visibilitychange", hold);
    return () => {
      gone = true;
      document.removeEventListener("visibilitychange", hold);
      void lock?.release();
    };
  }, []);
}
