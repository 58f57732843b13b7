/**
 * Keeps something beside the router while a page is worked on: nothing waits for it, nothing is read anew for it, and its answer can't stand
 * in the way of where the page is going meanwhile.
 */
import type { FieldProblem } from "#core/refused";
import { isRecord } from "#core/record";
import { useCallback, useRef, useState } from "react";
import { useHref } from "react-router";
import { patientFetch } from "./patient.ts";

/** A page that is going away may still send a little: browsers allow 64 kB. */
const LAST_WORDS = 60_000;
const UNREACHED: readonly FieldProblem[] = [{ field: "", say: "The server can't be reached. What you typed is still here." }];

/** Posts to an address that answers in JSON. @returns what is wrong with it; null when nothing is; the same when the server isn't there */
async function postTo(to: string, body: object, leaving: boolean): Promise<readonly FieldProblem[]> {
  const text = JSON.stringify(body);
  try {
    // What is left behind by a page that goes can't wait; all else goes once the server is back.
    const answer = await (leaving ? fetch : patientFetch)(to, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: text,
      keepalive: leaving && text.length < LAST_WORDS,
    });
    const said: unknown = await answer.json();
    if (isRecord(said) && Array.isArray(said.problems)) return said.problems as FieldProblem[];
    return answer.ok ? [] : UNREACHED;
  } catch {
    return UNREACHED;
  }
}

/**
 * @param path of a route that only acts
 * @returns `post`, which sends in the order of its calls; `last`, for a page that is left: it doesn't wait its turn; `settled`, once all is answered
 */
export function useBeside(path: string) {
  const to = useHref(path);
  const [going, setGoing] = useState(0);
  const [problems, setProblems] = useState<readonly FieldProblem[]>([]);
  const turn = useRef<Promise<unknown>>(Promise.resolve());
  const post = useCallback(
    (body: object): Promise<readonly FieldProblem[]> => {
      setGoing((n) => n + 1);
      const mine = turn.current.then(() => postTo(to, body, false));
      turn.current = mine;
      return mine.then((said) => {
        setGoing((n) => n - 1);
        setProblems(said);
        return said;
      });
    },
    [to],
  );
  return {
    going: going > 0,
    problems,
    post,
    last: useCallback((body: object): void => void postTo(to, body, true), [to]),
    settled: useCallback((): Promise<unknown> => turn.current, []),
  };
}
