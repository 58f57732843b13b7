/** Unfinished sheets: what was typed and not yet saved, so that a wrong press, a reload or a restart loses nothing. No act, no ledger. */
import { isObject } from "#core/objects";
import { integer, text, timestamp, unique, uuid } from "drizzle-orm/pg-core";
import { jsonColumn } from "./columns.ts";
import { ours } from "./ours.ts";

export const draft = ours.table(
  "draft",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    /** The page it is on, and which of the page's sheets it is. */
    path: text().notNull(),
    sheet: text().notNull().default(""),
    /** What it is, in a line. */
    title: text().notNull(),
    /** Of the one act it will do: once that is in the book, nothing is saved under it any more. */
    token: uuid().notNull(),
    /** The version of the record that was on it when it was begun. */
    seen: integer(),
    values: jsonColumn(isObject).notNull(),
    since: timestamp({ withTimezone: true }).notNull().defaultNow(),
    keptAt: timestamp({ withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [unique("draft_sheet").on(t.path, t.sheet)],
);

/** Requests a page sent in the background, by the key it gave each: one that is repeated counts once. */
export const backgroundRequest = ours.table("background_request", {
  key: uuid().primaryKey(),
  at: timestamp({ withTimezone: true }).notNull().defaultNow(),
});
