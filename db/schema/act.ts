/**
 * Acts: everything a person did that changed something, one row and one transaction each, and the records each was about.
 *
 * `undoes` points at the act this one took back. Which acts count is one view, `standing_act`: neither taken back nor a taking back.
 */
import { ACTS_SAID, SUBJECTS } from "#core/act/kinds";
import { boolean, date, index, integer, jsonb, primaryKey, text, timestamp, uuid, type AnyPgColumn } from "drizzle-orm/pg-core";
import { wordColumn } from "./columns.ts";
import { ours } from "./ours.ts";

const columns = {
  id: integer().primaryKey().generatedAlwaysAsIdentity(),
  kind: wordColumn(ACTS_SAID).notNull(),
  day: date({ mode: "string" }).notNull(),
  at: timestamp({ withTimezone: true }).notNull().defaultNow(),
  /** Who did it. */
  who: text().notNull().default(""),
  /** Made when the sheet was opened; belongs to this one act, its kind and its content (`digest`). */
  token: uuid().unique(),
  digest: text(),
  /** The newest act about what it changed when its sheet was opened: the version that was on the sheet. */
  seen: integer(),
  summary: text().notNull().default(""),
  /** Where the application goes to show what came of it. */
  path: text().notNull().default("/"),
  /** What it leaves for the day it is taken back, as its definition writes and reads it. */
  leaves: jsonb(),
  undoes: integer()
    .unique()
    .references((): AnyPgColumn => act.id),
};

export const act = ours.table("act", columns, (t) => [index("act_kind").on(t.kind, t.id)]);

/** Acts in effect. */
export const actInEffect = ours
  .view("standing_act", {
    id: integer().notNull(),
    kind: wordColumn(ACTS_SAID).notNull(),
    day: date({ mode: "string" }).notNull(),
    summary: text().notNull(),
    path: text().notNull(),
  })
  .existing();

/** The records an act was about; a lot it moved is found through the ledger. */
export const actSubject = ours.table(
  "act_subject",
  {
    actId: integer()
      .notNull()
      .references(() => act.id),
    kind: wordColumn(SUBJECTS).notNull(),
    subjectId: integer().notNull(),
    /** Whether what is on the record's own sheet is another since. */
    changes: boolean().notNull(),
  },
  (t) => [primaryKey({ columns: [t.kind, t.subjectId, t.actId] }), index("act_subject_act").on(t.actId)],
);
