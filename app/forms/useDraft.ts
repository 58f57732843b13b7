/**
 * Keeps a sheet as it is typed on: a moment after the last key, and at once when the page is left, closed or put in the background.
 * Posted beside the router, so that nothing on the page waits for it or is read anew.
 */
import { useEffect, useRef } from "react";
import { useHref } from "react-router";

const PAUSE_MS = 500;
/** After a failure (the server is being started again) it is tried once more after this long. */
const RETRY_MS = 3000;

const keyOf = (to: string, path: string, sheet: string): string => `${to} ${path} ${sheet}`;
/** What was typed in the last moment may reach the server after the page that is asked for next: the tab has it meanwhile. */
function leaveBehind(key: string, what: object | null): void {
  if (what === null) sessionStorage.removeItem(key);
  else sessionStorage.setItem(key, JSON.stringify(what));
}
/** What this tab left behind of a sheet a moment ago, told once. */
export function leftBehind(to: string, path: string, sheet: string): unknown {
  const key = keyOf(to, path, sheet);
  const text = sessionStorage.getItem(key);
  sessionStorage.removeItem(key);
  return text === null ? null : (JSON.parse(text) as unknown);
}

interface Keeping {
  path: string;
  sheet: string;
  token: string;
  seen: number | null;
  /** What is on the sheet now; null where nothing differs from what it was opened with. */
  now: () => { title: string; values: Record<string, unknown> } | null;
}

/** @returns `changed`, to be called as something is typed; `sent` once its act is done; `drop` throws the draft away */
export function useDraft(keeping: Keeping | null) {
  const to = useHref("/drafts");
  const at = useRef({ keeping, to, timer: 0, dirty: false, kept: false });
  at.current.keeping = keeping;

  const post = (values: Record<string, unknown> | null, title = "", leaving = false): Promise<boolean> => {
    const k = at.current.keeping;
    if (!k) return Promise.resolve(true);
    const body = JSON.stringify({ path: k.path, sheet: k.sheet, token: k.token, seen: k.seen, title, values });
    // A page that is going away may still send a little.
    return fetch(to, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body,
      keepalive: leaving && body.length < 60_000,
    }).then(
      (r) => r.ok || r.status === 422,
      () => false,
    );
  };
  const flush = (leaving: boolean): void => {
    const { keeping: k, timer, dirty, kept } = at.current;
    clearTimeout(timer);
    if (!k || !dirty) return;
    const now = k.now();
    at.current.dirty = false;
    if (now === null && !kept) return;
    at.current.kept = now !== null;
    const key = keyOf(to, k.path, k.sheet);
    if (leaving) leaveBehind(key, now && { ...now.values, token: k.token, seen: k.seen });
    void post(now?.values ?? null, now?.title, leaving).then((ok) => {
      // The server has it: what the tab has would only come back later, when it is no longer true.
      if (ok) leaveBehind(key, null);
      if (ok || leaving) return;
      at.current.dirty = true;
      at.current.timer = window.setTimeout(() => flush(false), RETRY_MS);
    });
  };
  const latest = useRef(flush);
  latest.current = flush;
  useEffect(() => {
    const leave = (): void => latest.current(true);
    const hide = (): void => {
      if (document.visibilityState === "hidden") leave();
    };
    window.addEventListener("pagehide", leave);
    document.addEventListener("visibilitychange", hide);
    return () => {
      window.removeEventListener("pagehide", leave);
      document.removeEventListener("visibilitychange", hide);
      leave();
    };
  }, []);

  const rest = (): void => {
    clearTimeout(at.current.timer);
    at.current.dirty = false;
    at.current.kept = false;
    const k = at.current.keeping;
    if (k) leaveBehind(keyOf(to, k.path, k.sheet), null);
  };
  return {
    changed: (): void => {
      at.current.dirty = true;
      clearTimeout(at.current.timer);
      at.current.timer = window.setTimeout(() => latest.current(false), PAUSE_MS);
    },
    /** It was taken up again from what was kept. */
    taken: (): void => {
      at.current.kept = true;
    },
    /** Keeps what there is now, without waiting for a pause. */
    now: (): void => latest.current(false),
    /** Its act is done, and what was kept of it went with that. */
    sent: rest,
    drop: (): void => {
      rest();
      void post(null);
    },
  };
}
