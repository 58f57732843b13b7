/** Delays a submit until pending lookups (a name, a recipe) have answered. */
import { useEffect, useState, type BaseSyntheticEvent } from "react";

interface Sent {
  send: (intent?: string) => (event?: BaseSyntheticEvent) => Promise<void> | undefined;
  busy: boolean;
}

/**
 * The sheet, sent once nothing is waited for any more: what is filled in then (a price, a pack, the sizes of a recipe) belongs to what is sent,
 * and would be missed by a press that came before it. Called after the hook that fills it in.
 * @param waits not where nobody answers: the sending says so itself
 */
export function useSubmitWhenReady<S extends Sent>(sheet: S, waits: boolean): S {
  const [held, hold] = useState<{ intent: string | undefined } | null>(null);
  useEffect(() => {
    if (!held || waits) return;
    hold(null);
    void sheet.send(held.intent)();
  }, [held, waits, sheet]);
  const send: Sent["send"] = (intent) => (event) => {
    if (!waits) return sheet.send(intent)(event);
    // As with any sheet: one that is laid over this is sent by itself.
    if (event && event.target !== event.currentTarget) return undefined;
    event?.preventDefault();
    hold({ intent });
    return undefined;
  };
  return { ...sheet, send, busy: sheet.busy || held !== null };
}
