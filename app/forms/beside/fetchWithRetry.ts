/**
 * Retries the router's requests while the server is away, instead of failing: what was sent goes once it is back. A form sent again counts
 * once (its idempotency key), and reading changes nothing, so both may be retried as often as it takes.
 */

/** How soon it is tried again. */
const AGAIN_MS = 1500;

let waiting = 0;
const told = new Set<() => void>();
const count = (by: 1 | -1): void => {
  waiting += by;
  for (const tell of told) tell();
};

/** Whether something waits for the server. For `useSyncExternalStore`. */
export const isRetrying = (): boolean => waiting > 0;
export const onRetrying = (tell: () => void): (() => void) => {
  told.add(tell);
  return () => void told.delete(tell);
};

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
let plain: typeof fetch = (...asked) => fetch(...asked);

/** As `fetch`, but for a server that can't be reached: then it is asked again until it can, or until nobody wants to know any more. */
export async function fetchWithRetry(...[to, how]: Parameters<typeof fetch>): Promise<Response> {
  let waited = false;
  try {
    for (;;)
      try {
        return await plain(to, how);
      } catch (e) {
        // A fetch that finds nobody there fails with this; one that is broken off with another.
        if (!(e instanceof TypeError) || how?.signal?.aborted) throw e;
        if (!waited) count(1);
        waited = true;
        await pause(AGAIN_MS);
        how?.signal?.throwIfAborted();
      }
  } finally {
    if (waited) count(-1);
  }
}

const pathOf = (to: Parameters<typeof fetch>[0]): string => new URL(to instanceof Request ? to.url : to, location.href).pathname;

/** The router's own requests are patient from now on; whatever else the page asks says itself what it does without an answer. */
export function retryRouterRequests(): void {
  plain = window.fetch.bind(window);
  window.fetch = (to, how) =>
    /(\.data|\/__manifest)$/.test(pathOf(to)) && !(to instanceof Request) ? fetchWithRetry(to, how) : plain(to, how);
}
