/** What a pot fills, worked out in a worker while the page goes on; what was asked before something changed is no longer waited for. */
import { planFill, type FillAnswer, type FillAsk } from "#core/fill/fill";
import type { Solve, WholeNumbers } from "#core/fill/wholeNumbers";
import { useEffect, useState } from "react";
import type { Answered, Asked } from "./fillWorker.ts";

/** One worker for the page's life: starting it costs more than asking it. */
let worker: Worker | undefined;
let next = 0;

class Gone extends Error {}

/** Asks the worker; given up as soon as it is aborted. */
const solveIn =
  (signal: AbortSignal): Solve =>
  (question: WholeNumbers) =>
    new Promise((done, fail) => {
      worker ??= new Worker(new URL("./fillWorker.ts", import.meta.url), { type: "module" });
      const at = worker;
      const id = ++next;
      const stop = (): void => {
        at.removeEventListener("message", hear);
        at.removeEventListener("error", lost);
        signal.removeEventListener("abort", gone);
      };
      const hear = ({ data }: MessageEvent<Answered>): void => {
        if (data.id !== id) return;
        stop();
        if (data.ok) done(data.solved);
        else fail(new Error("the solver could not answer"));
      };
      const lost = (): void => {
        stop();
        worker = undefined;
        fail(new Error("the solver could not be loaded"));
      };
      const gone = (): void => {
        stop();
        fail(new Gone());
      };
      at.addEventListener("message", hear);
      at.addEventListener("error", lost);
      signal.addEventListener("abort", gone);
      at.postMessage({ id, question } satisfies Asked);
    });

export type FillState = { at: "thinking" } | { at: "lost" } | { at: "known"; answer: FillAnswer | null };

/** Long enough that a number being typed isn't solved digit by digit. */
const PAUSE_MS = 150;

/** @param key what the question depends on; asked again when it changes */
export function useFill(ask: FillAsk, key: string): FillState {
  const [state, set] = useState<{ key: string; of: FillState }>({ key: "", of: { at: "thinking" } });
  useEffect(() => {
    const gone = new AbortController();
    const timer = window.setTimeout(() => {
      planFill(ask, solveIn(gone.signal)).then(
        (answer) => set({ key, of: { at: "known", answer } }),
        (e: unknown) => !(e instanceof Gone) && set({ key, of: { at: "lost" } }),
      );
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      gone.abort();
    };
    // The key says when the question is another one.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return state.key === key ? state.of : { at: "thinking" };
}
