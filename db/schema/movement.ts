/** The ledger: everything that went in and out of lots, append-only (migration 0001). */
import { COSTS_AGAIN, REASONS } from "#core/ledger/reasons";
import { sql } from "drizzle-orm";
import { index, integer, text, type AnyPgColumn } from "drizzle-orm/pg-core";
import { act } from "./act.ts";
import { batch } from "./batch.ts";
import { baseColumn, literals, microsColumn, wordColumn } from "./columns.ts";
import { giftOrder } from "./gift.ts";
import { jar } from "./jar.ts";
import { marketDay } from "./market.ts";
import { lot } from "./stock.ts";
import { ours } from "./ours.ts";

export const movement = ours.table(
  "movement",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    actId: integer()
      .notNull()
      .references(() => act.id),
    lotId: integer()
      .notNull()
      .references(() => lot.id),
    qty: baseColumn().notNull(),
    value: microsColumn().notNull(),
    reason: wordColumn(REASONS).notNull(),
    note: text().notNull().default(""),
    batchId: integer().references(() => batch.id),
    marketDayId: integer().references(() => marketDay.id),
    giftOrderId: integer().references(() => giftOrder.id),
    jarId: integer().references(() => jar.id),
    /** Of what came back: the order or the market day it had gone out by. It is no part of what that one came to. */
    backFromOrderId: integer().references(() => giftOrder.id),
    backFromDayId: integer().references(() => marketDay.id),
    /** The one lot it went into, where the rest of the batch didn't: a size's own packaging. */
    intoLotId: integer().references(() => lot.id),
    /** Of a count: all there was by it, which stays so whatever turns out otherwise of what came before. */
    countedTo: baseColumn(),
    /** The movement whose value this one corrects. */
    restates: integer().references((): AnyPgColumn => movement.id),
  },
  (t) => [
    index("movement_lot").on(t.lotId, t.id),
    index("movement_act").on(t.actId),
    index("movement_batch").on(t.batchId),
    index("movement_market").on(t.marketDayId),
    index("movement_gift").on(t.giftOrderId),
    index("movement_jar").on(t.jarId),
    index("movement_restates").on(t.restates),
    index("movement_made")
      .on(t.lotId)
      .where(sql`${t.reason} in ${literals(COSTS_AGAIN)}`),
  ],
);
