/**
 * Posts JSON in the background, in order, without a navigation: drafts, weights and counts. The page isn't read again for it, and its answer
 * can't end a navigation that began meanwhile.
 */
import type { FieldProblem } from "#core/refused";
import { useCallback, useRef, useState } from "react";
import { useHref } from "react-router";
import { postBeside } from "./beside.ts";
import { outgoing } from "./outbox.ts";

/**
 * @param path of a route that only acts
 * @returns `post`, which sends in the order of its calls; `last`, for a sheet that is left: it doesn't wait its turn, nor for a server that is away
 *   where the page itself goes; `settled`, once all is answered
 */
export function useBackgroundPost(path: string) {
  const to = useHref(path);
  const [going, setGoing] = useState(0);
  const [problems, setProblems] = useState<readonly FieldProblem[]>([]);
  const turn = useRef<Promise<unknown>>(Promise.resolve());
  const post = useCallback(
    (body: object): Promise<readonly FieldProblem[]> => {
      setGoing((n) => n + 1);
      const sent = outgoing(to, body);
      const mine = turn.current.then(() => postBeside(sent));
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
    last: useCallback((body: object, pageGoes: boolean): void => void postBeside(outgoing(to, body), pageGoes), [to]),
    settled: useCallback((): Promise<unknown> => turn.current, []),
  };
}
