/** Jars: herbs steeping in oil, what went in, how they were tended, and what was strained from them. */
import { CUTS } from "#core/infusion/absorption";
import { METHODS } from "#core/infusion/methods";
import { boolean, date, index, integer, real, text, timestamp } from "drizzle-orm/pg-core";
import { act } from "./act.ts";
import { mgColumn, wordColumn } from "./columns.ts";
import { material } from "./material.ts";
import { lot } from "./stock.ts";
import { ours } from "./ours.ts";

export const jar = ours.table(
  "jar",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    /** What is on its label. */
    number: text().notNull().unique(),
    /** What the oil will be called on the shelf. */
    name: text().notNull(),
    method: wordColumn(METHODS).notNull(),
    /** For a maker's own method. */
    methodName: text().notNull().default(""),
    vessel: text().notNull().default(""),
    vesselMl: real(),
    day: date({ mode: "string" }).notNull(),
    earliest: date({ mode: "string" }).notNull(),
    best: date({ mode: "string" }).notNull(),
    latest: date({ mode: "string" }).notNull(),
    wished: date({ mode: "string" }),
    /** Gentle heat: how long it is meant to run, and since when it does. */
    heatMinutes: integer(),
    heatOn: timestamp({ withTimezone: true }),
    /** Why it was filled in spite of a warning. */
    why: text().notNull().default(""),
    note: text().notNull().default(""),
    /** Each is set while that act is in effect; without the first the jar was never filled. */
    filledActId: integer().references(() => act.id),
    strainedActId: integer().references(() => act.id),
    spoiledActId: integer().references(() => act.id),
    /** Straining: oil that came back in all, after a second straining, and what was thrown out. */
    back: mgColumn(),
    secondBack: mgColumn(),
    sediment: mgColumn(),
    herbOut: mgColumn(),
    pressed: boolean(),
    /** What oil was expected back when it was filled. */
    expected: mgColumn().notNull(),
  },
  (t) => [index("jar_filled").on(t.filledActId), index("jar_strained").on(t.strainedActId)],
);

export const jarPart = ours.table(
  "jar_part",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    jarId: integer()
      .notNull()
      .references(() => jar.id),
    /** Filled with it, or topped up. */
    actId: integer()
      .notNull()
      .references(() => act.id),
    materialId: integer()
      .notNull()
      .references(() => material.id),
    lotId: integer()
      .notNull()
      .references(() => lot.id),
    /** What the material was called. */
    name: text().notNull(),
    role: wordColumn(["herb", "carrier"]).notNull(),
    cut: wordColumn(CUTS),
    qty: mgColumn().notNull(),
  },
  (t) => [index("jar_part_jar").on(t.jarId), index("jar_part_lot").on(t.lotId), index("jar_part_act").on(t.actId)],
);

/** One press each: shaken, a temperature, a top-up, a photo, a word. */
export const jarEvent = ours.table(
  "jar_event",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    jarId: integer()
      .notNull()
      .references(() => jar.id),
    kind: wordColumn(["shaken", "temperature", "toppedUp", "photo", "note", "heatOn", "heatOff"]).notNull(),
    day: date({ mode: "string" }).notNull(),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
    celsius: real(),
    note: text().notNull().default(""),
    attachmentId: integer(),
    actId: integer().references(() => act.id),
  },
  (t) => [index("jar_event_jar").on(t.jarId, t.id)],
);
