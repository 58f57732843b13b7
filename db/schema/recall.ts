/** Recalls and rehearsals of one: which lots each began with, who was told, and what came back. */
import { boolean, check, date, index, integer, primaryKey, text } from "drizzle-orm/pg-core";
import { sql } from "drizzle-orm";
import { act } from "./act.ts";
import { contact } from "./contact.ts";
import { lot } from "./stock.ts";
import { ours } from "./ours.ts";

export const recall = ours.table(
  "recall",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    /** Set while it is in effect. */
    begunActId: integer().references(() => act.id),
    /** Only to see how it would go: holds nothing. */
    rehearsal: boolean().notNull(),
    reason: text().notNull(),
    /** What people are asked to do. */
    toDo: text().notNull(),
    /** Set while it is closed, with what it came to. */
    closedActId: integer().references(() => act.id),
    came: text().notNull().default(""),
  },
  (t) => [
    index("recall_open")
      .on(t.id)
      .where(sql`${t.closedActId} is null`),
  ],
);

/** Every lot it reached when it was begun: those it began with, and those that were put on hold by it. */
export const recallLot = ours.table(
  "recall_lot",
  {
    recallId: integer()
      .notNull()
      .references(() => recall.id),
    lotId: integer()
      .notNull()
      .references(() => lot.id),
    start: boolean().notNull(),
    held: boolean().notNull(),
  },
  (t) => [primaryKey({ columns: [t.recallId, t.lotId] })],
);

/** Somebody who was told, or gave something back. */
export const recallTold = ours.table(
  "recall_told",
  {
    recallId: integer()
      .notNull()
      .references(() => recall.id),
    contactId: integer()
      .notNull()
      .references(() => contact.id),
    /** Null while only something came back. */
    toldOn: date({ mode: "string" }),
    back: integer().notNull().default(0),
    note: text().notNull().default(""),
  },
  (t) => [primaryKey({ columns: [t.recallId, t.contactId] }), check("recall_back", sql`${t.back} >= 0`)],
);
