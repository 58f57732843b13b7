/** What a page of the book, or a file of it, is asked for in its address. */
import { isActKind, isSubjectKind, type Subject } from "#core/act/kinds";
import { readDay, type Day } from "#core/when";
import type { BookQuery } from "#db/acts/book";
import { idOf } from "../forms/ids.ts";

/** The record a page of the book is about. "recipe-4" is recipe 4. */
function recordIn(text: string): Subject | null {
  const [kind = "", id = ""] = text.split("-");
  return isSubjectKind(kind) && idOf(id) > 0 ? { kind, id: idOf(id) } : null;
}

export interface AskedOfBook extends Record<"find" | "station" | "kind" | "from" | "to" | "about", string> {
  standing: boolean;
}

/** What was asked as it was typed, and as the books are asked; what can't be read is passed over. */
export function askedOfBook(request: Request): { asked: AskedOfBook; query: BookQuery; about: Subject | null } {
  const q = new URL(request.url).searchParams;
  const text = (name: string): string => (q.get(name) ?? "").slice(0, 100).replaceAll("\0", "");
  const day = (name: string): Day | null => {
    const read = readDay(text(name));
    return read.ok ? read.value : null;
  };
  const asked = {
    ...{ find: text("find"), station: text("station"), kind: text("kind"), from: text("from"), to: text("to"), about: text("about") },
    standing: q.get("standing") === "yes",
  };
  const about = recordIn(asked.about);
  const kind = isActKind(asked.kind) ? asked.kind : null;
  return { asked, about, query: { ...asked, kind, from: day("from"), to: day("to"), about, before: idOf(q.get("before")) || null } };
}

/** The address of the same question elsewhere in the book. @example addressOf(asked, { before: "40" }) // "find=balm&before=40" */
export const addressOf = (asked: AskedOfBook, more: Record<string, string> = {}): string =>
  new URLSearchParams(Object.entries({ ...asked, standing: asked.standing ? "yes" : "", ...more }).filter(([, v]) => v !== "")).toString();
