/** Posts to an action-only route without the router, and reads its answer. */
import type { FieldProblem } from "#core/refused";
import { isObject } from "#core/objects";
import { answered, type Sent } from "./outbox.ts";
import { fetchWithRetry } from "./fetchWithRetry.ts";

/** A page that is going away may still send a little: browsers allow 64 kB. */
const LAST_WORDS = 60_000;
const UNREACHED: readonly FieldProblem[] = [{ field: "", say: "The server can't be reached. What you typed is still here." }];
/** An answer that isn't in our words: what it was about has gone, or the server failed at it. */
const NOT_KEPT: readonly FieldProblem[] = [{ field: "", say: "The server couldn’t save it. What it belongs to may be gone." }];

/** @param leaving by a page that goes, and can't wait: all else goes once the server is back @returns what is wrong with it; nothing where it is saved */
export async function postBeside({ key, to, text }: Sent, leaving = false): Promise<readonly FieldProblem[]> {
  try {
    const answer = await (leaving ? fetch : fetchWithRetry)(to, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: text,
      keepalive: leaving && text.length < LAST_WORDS,
    });
    answered(key);
    const said: unknown = await answer.json().catch(() => null);
    if (isObject(said) && Array.isArray(said.problems)) return said.problems as FieldProblem[];
    return answer.ok ? [] : NOT_KEPT;
  } catch {
    return UNREACHED;
  }
}
