/**
 * What a page has sent beside the router and nobody has answered yet, kept by the tab: where the page goes first (reloaded, or the battery went
 * flat, while the server was away), the next one sends it. Each has a key of its own, so that what had come after all counts once.
 */
import { isRecord } from "#core/record";

export interface Sent {
  key: string;
  /** The address it goes to, and what is sent, with its key. */
  to: string;
  text: string;
}

const OUTBOX = "outbox";
/** What this very page sent: it waits for its answers itself. */
const own = new Set<string>();

const isSent = (v: unknown): v is Sent =>
  isRecord(v) && typeof v.key === "string" && typeof v.to === "string" && typeof v.text === "string";

function all(): Sent[] {
  try {
    const kept: unknown = JSON.parse(sessionStorage.getItem(OUTBOX) ?? "[]");
    return Array.isArray(kept) ? kept.filter(isSent) : [];
  } catch {
    return [];
  }
}

/** A tab that has no room left for it sends it all the same. */
function keep(sent: readonly Sent[]): void {
  try {
    sessionStorage.setItem(OUTBOX, JSON.stringify(sent));
  } catch {
    // What is lost is only what a reload would have brought back.
  }
}

/** Keeps what is about to be sent. @returns it, with its key in what is sent */
export function outgoing(to: string, body: object): Sent {
  const key = crypto.randomUUID();
  const sent = { key, to, text: JSON.stringify({ ...body, key }) };
  own.add(key);
  keep([...all(), sent]);
  return sent;
}

/** It was answered, however. */
export const answered = (key: string): void => keep(all().filter((s) => s.key !== key));

/** What pages before this one sent, oldest first. */
export const leftOver = (): Sent[] => all().filter((s) => !own.has(s.key));
