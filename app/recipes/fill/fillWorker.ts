/** The solver in a separate worker, so that the page goes on answering while it thinks. It is fetched when it is first asked. */
import type { Solved, WholeNumbers } from "#core/fill/wholeNumbers";
import loadHighs from "highs";
import runtime from "highs/runtime?url";
import { solverOf } from "./solver.ts";

const solver = loadHighs({ locateFile: () => runtime }).then(solverOf);

export interface Asked {
  id: number;
  question: WholeNumbers;
}
export type Answered = { id: number } & ({ ok: true; solved: Solved | null } | { ok: false });

self.onmessage = ({ data: { id, question } }: MessageEvent<Asked>): void => {
  const answer = (a: Answered): void => self.postMessage(a);
  solver.then(
    (solve) => {
      try {
        answer({ id, ok: true, solved: solve(question) });
      } catch {
        answer({ id, ok: false });
      }
    },
    () => answer({ id, ok: false }),
  );
};
