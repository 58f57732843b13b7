/** The hook that listens for a key while nobody is typing. */
import { useEffect } from "react";

export const typing = (t: EventTarget | null): boolean =>
  t instanceof HTMLElement && (t.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(t.tagName));

/** Enter on what can be pressed presses that. */
const presses = (e: KeyboardEvent): boolean =>
  e.key === "Enter" && e.target instanceof Element && e.target.closest("button, a, summary") !== null;

/** Calls `run` when the key is pressed and nobody is typing. */
export function useKey(key: string, run: () => void): void {
  useEffect(() => {
    const listen = (e: KeyboardEvent): void => {
      if (e.key !== key || e.ctrlKey || e.metaKey || e.altKey || typing(e.target) || presses(e)) return;
      e.preventDefault();
      run();
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, [key, run]);
}
