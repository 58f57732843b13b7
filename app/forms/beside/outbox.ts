/**
 * Background requests without an answer yet, stored by the tab: if the page is reloaded meanwhile (the server was away, the battery flat), the
 * next page sends them again. Each has an idempotency key, so that one which had arrived after all counts once.
 */
import { isObject } from "#core/objects";

export interface Sent {
  key: string;
  /** The address, and the body with its key. */
  to: string;
  text: string;
  /** When it was first sent, in milliseconds since 1970. */
  at: number;
}

const OUTBOX = "outbox";
/** Keys of this page's own requests, which wait for their answers here. */
const own = new Set<string>();

const isSent = (v: unknown): v is Sent =>
  isObject(v) && typeof v.key === "string" && typeof v.to === "string" && typeof v.text === "string" && typeof v.at === "number";

function all(): Sent[] {
  try {
    const stored: unknown = JSON.parse(sessionStorage.getItem(OUTBOX) ?? "[]");
    return Array.isArray(stored) ? stored.filter(isSent) : [];
  } catch {
    return [];
  }
}

function store(sent: readonly Sent[]): void {
  try {
    sessionStorage.setItem(OUTBOX, JSON.stringify(sent));
  } catch {
    // A tab without room sends it all the same; only a reload would lose it.
  }
}

/** Stores a request that is about to be sent. @returns it, its body with a key */
export function outgoing(to: string, body: object): Sent {
  const key = crypto.randomUUID();
  const sent = { key, to, text: JSON.stringify({ ...body, key }), at: Date.now() };
  own.add(key);
  store([...all(), sent]);
  return sent;
}

/** Removes a request that has an answer, whatever it says. */
export const answered = (key: string): void => store(all().filter((s) => s.key !== key));

/** Requests of earlier pages without an answer, oldest first. */
export const leftOver = (): Sent[] => all().filter((s) => !own.has(s.key));
