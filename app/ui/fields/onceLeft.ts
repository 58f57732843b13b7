/** A message about a field that is being typed in waits until the field is left: half a number isn't a mistake yet. */
import { useState, useSyncExternalStore } from "react";

/** Whether something was typed into the field at hand that it hasn't been left with. */
let typing = false;
let pressing = false;
const heard = new Set<() => void>();
const say = (now: boolean): void => {
  if (typing === now) return;
  // Known before the page has what was typed, and drawn only after: drawn before it, a field would be put back to its old text.
  typing = now;
  setTimeout(() => {
    for (const hear of heard) hear();
  });
};
/** A press that leaves a field lands before anything on the page moves under it. */
const left = (): void => {
  if (!pressing) say(false);
};
const press = (): void => {
  pressing = true;
};
const lift = (): void => {
  pressing = false;
  setTimeout(left);
};
// Left by Tab or a press, or gone on from by Enter: the browser calls both a change.
const HEARD = [
  ["input", () => say(true)],
  ["change", left],
  ["focusout", left],
  ["pointerdown", press],
  ["pointerup", lift],
  ["pointercancel", lift],
] as const;

function subscribe(hear: () => void): () => void {
  if (heard.size === 0) for (const [event, does] of HEARD) document.addEventListener(event, does, true);
  heard.add(hear);
  return () => {
    heard.delete(hear);
    if (heard.size > 0) return;
    // A page that is gone was left, whatever its fields had.
    typing = pressing = false;
    for (const [event, does] of HEARD) document.removeEventListener(event, does, true);
  };
}

/** The message to show now: none while something is being typed, unless it was shown before. */
export function useOnceLeft<T>(of: T | null): T | null {
  const busy = useSyncExternalStore(
    subscribe,
    () => typing,
    () => false,
  );
  const [told, tell] = useState(of !== null && !busy);
  const tells = of !== null && (told || !busy);
  if (told !== tells) tell(tells);
  return tells ? of : null;
}
