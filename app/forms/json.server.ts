/**
 * JSON as it is posted, made safe to read: no deeper and with no more parts than any sheet has, no names that reach into an object's making, and
 * only text that can be saved.
 */
import { done, refuse, type Outcome } from "#core/outcome";

/** A receipt's lines are three deep; nothing here is deeper than twice that. */
const DEEPEST = 8;
/** Values and keys in one sheet: a stock list of a thousand rows has some ten thousand. */
const MOST_PARTS = 50_000;
/** Names that every object has already: looked up among a sheet's fields they would be found there. */
const reaching = (key: string): boolean => key in Object.prototype;

/** Whether it nests deeper than is read, found out before anything is built of it. */
function tooDeep(text: string): boolean {
  let depth = 0;
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (quoted) {
      if (c === 92) i++;
      else if (c === 34) quoted = false;
    } else if (c === 34) quoted = true;
    else if (c === 123 || c === 91) {
      if (++depth > DEEPEST) return true;
    } else if (c === 125 || c === 93) depth--;
  }
  return false;
}

/** What came with a paste and belongs to no text is left out; half of a character is written as the sign for an unknown one. */
const kept = (text: string): string => text.replaceAll("\0", "").replace(/\p{Surrogate}/gu, "\ufffd");

class TooMany extends Error {}

/**
 * @returns problems `notJson`, `tooDeep`, `tooMany`
 * @example readJson('{"name":"Balm\\u0000"}') // { name: "Balm" }
 */
export function readJson(text: string): Outcome<unknown> {
  if (tooDeep(text)) return refuse("tooDeep", "That sheet could not be read: it has parts within parts that no sheet here has.");
  let parts = 0;
  const clean = (value: unknown): unknown => {
    if (++parts > MOST_PARTS) throw new TooMany();
    if (typeof value === "string") return kept(value);
    if (Array.isArray(value)) return value.map(clean);
    if (typeof value !== "object" || value === null) return value;
    const out: Record<string, unknown> = {};
    for (const [key, v] of Object.entries(value)) if (!reaching(key)) out[kept(key)] = clean(v);
    return out;
  };
  try {
    return done(clean(JSON.parse(text)));
  } catch (e) {
    return e instanceof TooMany
      ? refuse("tooMany", "That sheet has more lines than can be read at once. Split it.")
      : refuse("notJson", "That sheet could not be read. Reload the page and try again.");
  }
}

/** The text of a request; what isn't UTF-8 is no text. @returns null then */
export async function postedText(request: Request): Promise<string | null> {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(await request.arrayBuffer());
  } catch {
    return null;
  }
}
