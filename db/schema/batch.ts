/** Batches on the bench: what was set out of which version of a recipe, in which sizes, what was weighed and poured. */
import { CLOSURES, FACES, SCENTS, VERDICTS } from "#core/batch/finishing/check";
import { BENCH_EVENTS, WEIGHED_BY } from "#core/batch/weighing/events";
import { SPOON } from "#core/batch/finishing/spoon";
import { NET_RULES } from "#core/batch/finishing/netWeight";
import { sql } from "drizzle-orm";
import { date, index, integer, real, text, timestamp, unique, type AnyPgColumn } from "drizzle-orm/pg-core";
import { act } from "./act.ts";
import { mgColumn, microsColumn, wordColumn } from "./columns.ts";
import { material } from "./material.ts";
import { product, recipe, recipeVersion } from "./recipe.ts";
import { lot } from "./stock.ts";
import { ours } from "./ours.ts";

export const batch = ours.table(
  "batch",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    recipeId: integer()
      .notNull()
      .references(() => recipe.id),
    /** What it is made from, for ever. */
    versionId: integer()
      .notNull()
      .references(() => recipeVersion.id),
    /** Day it was set out, then day it was poured. */
    day: date({ mode: "string" }).notNull(),
    plannedMg: mgColumn().notNull(),
    /** Set while poured; taken back by undo. */
    pouredActId: integer().references(() => act.id),
    leftover: mgColumn(),
    minutes: integer(),
    /** What the empty pot weighs, so that what stuck to it can be weighed afterwards. */
    vessel: mgColumn(),
    /** By whose rule net weights were judged when it was poured. */
    netRule: wordColumn(NET_RULES),
    /** What the scale told apart when it was poured: what counts as off then is off for ever. */
    scaleStep: mgColumn(),
    hourly: microsColumn(),
    overheadHourly: microsColumn(),
    /** Cleared off the bench without pouring. */
    clearedActId: integer().references(() => act.id),
    /** Cleared off because it failed: what was weighed was written off by the same act, and why. */
    spoiledActId: integer().references(() => act.id),
    spoiledWhy: text().notNull().default(""),
    note: text().notNull().default(""),
  },
  (t) => [
    index("batch_recipe").on(t.recipeId),
    index("batch_open")
      .on(t.id)
      .where(sql`${t.pouredActId} is null and ${t.clearedActId} is null`),
  ],
);

/** A size poured from the pot: planned, then counted, with the lot it became. What it was filled with stays as it was. */
export const batchSize = ours.table(
  "batch_size",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    batchId: integer()
      .notNull()
      .references(() => batch.id),
    position: integer().notNull(),
    productId: integer()
      .notNull()
      .references(() => product.id),
    planned: integer().notNull(),
    /** The size of the base that it was parted from, where something was stirred into a part of the pot. */
    partOf: integer().references((): AnyPgColumn => batchSize.id),
    label: text().notNull(),
    fill: mgColumn().notNull(),
    /** What was ladled out of the pot for a part, where it was weighed. */
    ladled: mgColumn(),
    unitMinutesHundredths: integer().notNull(),
    /** Filled, once it is poured, and the minutes of the batch that fall on it, in hundredths. */
    units: integer(),
    minutesHundredths: integer(),
    lotId: integer().references((): AnyPgColumn => lot.id),
  },
  (t) => [unique("batch_size_product").on(t.batchId, t.productId), index("batch_size_lot").on(t.lotId)],
);

export const batchTake = ours.table(
  "batch_take",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    batchId: integer()
      .notNull()
      .references(() => batch.id),
    position: integer().notNull(),
    materialId: integer()
      .notNull()
      .references(() => material.id),
    /** What the material was called. */
    name: text().notNull(),
    lotId: integer()
      .notNull()
      .references(() => lot.id),
    planned: mgColumn().notNull(),
    /** The one size it goes into, where it doesn't go into the whole pot. */
    sizeId: integer().references(() => batchSize.id),
    weighed: mgColumn(),
    /** When it was weighed, and whether a scale said so or a hand typed it. */
    weighedAt: timestamp({ withTimezone: true }),
    weighedBy: wordColumn(WEIGHED_BY),
  },
  (t) => [index("batch_take_batch").on(t.batchId, t.position)],
);

/** What happened at the bench, as it happens: steps done, warmths read, timers run, what was noted. Nothing is changed but struck out, or a timer ended. */
export const batchEvent = ours.table(
  "batch_event",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    batchId: integer()
      .notNull()
      .references(() => batch.id),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
    who: text().notNull(),
    kind: wordColumn(BENCH_EVENTS).notNull(),
    /** A step by its place in the method. */
    step: integer(),
    celsius: real(),
    /** What a cold spoon said. */
    verdict: wordColumn(SPOON),
    /** How long a timer runs. */
    minutes: real(),
    /** What a cup of it weighed. */
    weight: mgColumn(),
    note: text().notNull().default(""),
    attachmentId: integer(),
    endedAt: timestamp({ withTimezone: true }),
    struckAt: timestamp({ withTimezone: true }),
  },
  (t) => [
    index("batch_event_batch").on(t.batchId, t.id),
    index("batch_event_running")
      .on(t.id)
      .where(sql`${t.kind} in ('timer', 'set') and ${t.endedAt} is null and ${t.struckAt} is null`),
  ],
);

/** Net weights of filled units, to be judged against their label; one weighed by mistake is struck out. */
export const batchSample = ours.table(
  "batch_sample",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    sizeId: integer()
      .notNull()
      .references(() => batchSize.id),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
    net: mgColumn().notNull(),
    weighedBy: wordColumn(WEIGHED_BY).notNull(),
    struckAt: timestamp({ withTimezone: true }),
  },
  (t) => [index("batch_sample_size").on(t.sizeId, t.id)],
);

/** What was found of a batch once it was cold, and whether it was let go. */
export const batchCheck = ours.table(
  "batch_check",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    batchId: integer()
      .notNull()
      .references(() => batch.id),
    actId: integer()
      .notNull()
      .references(() => act.id),
    face: wordColumn(FACES).notNull(),
    scent: wordColumn(SCENTS).notNull(),
    closes: wordColumn(CLOSURES).notNull(),
    labelled: integer().notNull(),
    /** How firm it is; null where nobody felt. */
    firm: wordColumn(SPOON),
    verdict: wordColumn(VERDICTS).notNull(),
    note: text().notNull().default(""),
    /** Why its lots are on hold by it. */
    heldAs: text(),
  },
  (t) => [index("batch_check_batch").on(t.batchId, t.id)],
);
