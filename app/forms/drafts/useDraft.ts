/**
 * Saves a sheet's draft as it is typed on: a moment after the last key, and at once when the page is left, closed or put in the background.
 * Posted beside the router, so that nothing on the page waits for it or is read again.
 */
import { useEffect, useRef } from "react";
import { useHref } from "react-router";
import { isObject } from "#core/objects";
import { MOST_CHARACTERS } from "./keptDrafts.ts";

const PAUSE_MS = 500;
/** After a failure (the server is being started again) it is tried once more after this long. */
const RETRY_MS = 3000;
/** A page that was asked for may have been read before what was posted this long ago was saved, and comes within so long. */
const CROSSING_MS = 3000;
const COMES_WITHIN_MS = 10_000;
const clock = (): number => Date.now();

const keyOf = (to: string, path: string, sheet: string): string => `${to} ${path} ${sheet}`;
/** What was typed in the last moment may reach the server after the page that is asked for next: the tab has it meanwhile. */
const leaveBehind = (key: string, text: string): void => {
  if (text === "") sessionStorage.removeItem(key);
  else sessionStorage.setItem(key, text);
};
/** What this tab stored of a sheet a moment ago; can be read once. */
export function storedDraft(to: string, path: string, sheet: string): unknown {
  const key = keyOf(to, path, sheet);
  const left: unknown = JSON.parse(sessionStorage.getItem(key) ?? "null");
  sessionStorage.removeItem(key);
  return isObject(left) && typeof left.until === "number" && left.until < clock() ? null : left;
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
  const at = useRef({ keeping, to, timer: 0, dirty: false, kept: false, heard: 0, gone: false });
  at.current.keeping = keeping;

  const post = (values: Record<string, unknown> | null, title = ""): Promise<boolean> => {
    const k = at.current.keeping;
    if (!k) return Promise.resolve(true);
    if (values !== null && JSON.stringify(values).length > MOST_CHARACTERS) return Promise.resolve(true);
    const body = JSON.stringify({ path: k.path, sheet: k.sheet, token: k.token, seen: k.seen, title, values });
    // A page that is going away may still send a little.
    return fetch(to, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body,
      keepalive: body.length < 60_000,
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
    // Not only when leaving: a post that is on its way as another page comes in may be broken off.
    const left = now ? JSON.stringify({ ...now.values, token: k.token, seen: k.seen }) : "";
    leaveBehind(key, left);
    at.current.heard = 0;
    void post(now?.values ?? null, now?.title).then((ok) => {
      // The server has it: what the tab has would only come back later, when it is no longer true. What was typed since it has not.
      if (ok && !at.current.gone && sessionStorage.getItem(key) === left) leaveBehind(key, "");
      if (ok) at.current.heard = clock();
      if (ok || leaving) return;
      at.current.dirty = true;
      at.current.timer = window.setTimeout(() => flush(false), RETRY_MS);
    });
  };
  /** The page goes for good, and what comes in its place may have been read before the last post was saved. */
  const unload = (): void => {
    flush(true);
    const { keeping: k, kept, heard } = at.current;
    at.current.gone = true;
    const now = k && kept && clock() - heard < CROSSING_MS ? k.now() : null;
    if (k && now)
      leaveBehind(
        keyOf(to, k.path, k.sheet),
        JSON.stringify({ ...now.values, token: k.token, seen: k.seen, until: clock() + COMES_WITHIN_MS }),
      );
  };
  const latest = useRef({ flush, unload });
  latest.current = { flush, unload };
  useEffect(() => {
    const leave = (): void => latest.current.flush(true);
    const hide = (): void => {
      if (document.visibilityState === "hidden") leave();
    };
    const unloading = (): void => latest.current.unload();
    const shown = (): void => {
      at.current.gone = false;
    };
    window.addEventListener("pagehide", unloading);
    window.addEventListener("pageshow", shown);
    document.addEventListener("visibilitychange", hide);
    return () => {
      window.removeEventListener("pagehide", unloading);
      window.removeEventListener("pageshow", shown);
      document.removeEventListener("visibilitychange", hide);
      leave();
    };
  }, []);

  const rest = (): void => {
    clearTimeout(at.current.timer);
    at.current.dirty = false;
    at.current.kept = false;
    const k = at.current.keeping;
    if (k) leaveBehind(keyOf(to, k.path, k.sheet), "");
  };
  return {
    changed: (): void => {
      at.current.dirty = true;
      clearTimeout(at.current.timer);
      at.current.timer = window.setTimeout(() => latest.current.flush(false), PAUSE_MS);
    },
    /** It was taken up again from what was saved. */
    taken: (): void => {
      at.current.kept = true;
    },
    /** Keeps what there is now, without waiting for a pause. */
    now: (): void => latest.current.flush(false),
    /** Its act is done, and what was saved of it went with that. */
    sent: rest,
    drop: (): void => {
      rest();
      void post(null);
    },
  };
}
