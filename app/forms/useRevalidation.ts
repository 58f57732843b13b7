/**
 * Revalidates a refused sheet while it is edited: a dry run on the server, which saves nothing, clears the errors that no longer apply. New
 * errors are shown only when the sheet is sent.
 */
import type { FieldProblem } from "#core/refused";
import { useEffect, useRef } from "react";
import { useFetcher, useHref, useNavigation } from "react-router";
import type { Reply } from "./sheet.server.ts";

const PAUSE_MS = 400;

interface Mending {
  action: string | undefined;
  /** The sheet as it would be sent now; null while it has no errors. */
  now: () => object | null;
  /** Called with the errors that still apply. */
  left: (problems: readonly FieldProblem[]) => void;
}

/** @returns `typed`, to be called whenever something is; `sent`, once the sheet is sent in earnest: what was tried before says nothing of that */
export function useRevalidation(mending: Mending): { typed: () => void; sent: () => void } {
  const trying = useFetcher<Reply | null>();
  const { reset } = trying;
  const leading = useNavigation().state !== "idle";
  const here = useHref("/empty");
  const at = useRef({ mending, timer: 0, stale: false, leading });
  at.current.mending = mending;
  at.current.leading = leading;
  // The router takes an answer that comes while it leads elsewhere for the end of that way: it would stay on the old page's figures.
  useEffect(() => {
    if (leading && trying.state !== "idle") reset();
  }, [leading, trying.state, reset]);
  useEffect(() => {
    if (trying.state === "idle" && trying.data && !at.current.stale) at.current.mending.left(trying.data.problems);
  }, [trying.state, trying.data]);
  useEffect(() => () => clearTimeout(at.current.timer), []);
  const sent = (): void => {
    clearTimeout(at.current.timer);
    at.current.stale = true;
    if (trying.state !== "idle") reset();
  };
  const typed = (): void => {
    clearTimeout(at.current.timer);
    if (at.current.mending.now() === null) return;
    at.current.timer = window.setTimeout(() => {
      at.current.stale = false;
      // A server that is being started again must not take the page away with it.
      void fetch(here, { method: "HEAD" }).then(
        (r) => {
          const sheet = r.ok && !at.current.stale && !at.current.leading ? at.current.mending.now() : null;
          if (sheet)
            void trying.submit(
              { ...sheet, tried: true },
              {
                method: "post",
                encType: "application/json",
                action: at.current.mending.action,
              },
            );
        },
        () => undefined,
      );
    }, PAUSE_MS);
  };
  return { typed, sent };
}
