/** How far long acts have come, for the window that waits for one, and stopping it: nothing of a stopped act is saved. */
import { Refused } from "#core/refused";

interface Going {
  done: number;
  of: number;
  stopped: boolean;
}

/** By the token of the sheet that does it. */
const going = new Map<string, Going>();

export const goingOn = (token: string): Pick<Going, "done" | "of"> | null => going.get(token) ?? null;

/** @returns whether there was anything to stop */
export function stop(token: string): boolean {
  const found = going.get(token);
  if (found) found.stopped = true;
  return found !== undefined;
}

/**
 * Does a long act so that it can be watched and stopped.
 * @throws Refused once it was stopped
 * @example withProgress(doing.token, (progress) => receiveMany(db(), receipts, { ...doing, progress }))
 */
export async function withProgress<T>(
  token: string | undefined,
  work: (progress: (done: number, of: number) => void) => Promise<T>,
): Promise<T> {
  if (token === undefined) return work(() => undefined);
  const at: Going = { done: 0, of: 0, stopped: false };
  going.set(token, at);
  try {
    return await work((done, of) => {
      Object.assign(at, { done, of });
      if (at.stopped) throw Refused.one("", "Stopped. Nothing of it was kept.");
    });
  } finally {
    going.delete(token);
  }
}
