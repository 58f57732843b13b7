/** What a list would become, looked at again whenever it or a choice beside it has changed and typing pauses. */
import { useEffect } from "react";
import { useFetcher } from "react-router";
import { useDebounced } from "../../ui/useDebounced.ts";
import type { Reply } from "../sheet.server.ts";

interface Look<Preview> {
  /** Null until it has been looked at, and while nothing is there to look at. */
  preview: Preview | null;
  /** Why it can't be read. */
  unread: string | undefined;
  /** Something was changed that hasn't been looked at yet. */
  waiting: boolean;
}

/**
 * @param values of the sheet: what is sent to be looked at
 * @param choices the fields among them that change what it becomes
 */
export function useLook<Preview, Values extends { text: string }>(values: Values, choices: readonly (keyof Values)[]): Look<Preview> {
  const look = useFetcher<Reply | { preview: Preview } | null>();
  const asked = JSON.stringify(["text" as const, ...choices].map((c) => values[c]));
  const rested = useDebounced(asked);
  const listed = values.text.trim() !== "";
  useEffect(() => {
    if (listed) void look.submit({ ...values, intent: "look" }, { method: "post", encType: "application/json" });
    // What is looked at follows from the list, to its last character, and the choices beside it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [rested]);
  const back = look.data as { preview?: Preview; problems?: { say: string }[] } | null | undefined;
  return {
    preview: listed ? (back?.preview ?? null) : null,
    unread: listed ? back?.problems?.[0]?.say : undefined,
    waiting: listed && (look.state !== "idle" || asked !== rested),
  };
}
