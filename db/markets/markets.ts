/** Market days: planning what to take, and closing the day so that what was sold leaves its lots. */
import { groupBy } from "#core/collect";
import { pastSalesOf, salesOf } from "#core/market/day";
import { micros, type Micros } from "#core/measure/exact";
import { Refused, type FieldProblem } from "#core/refused";
import { unitsForStall } from "#core/stock/allocations";
import type { Reason } from "#core/ledger/reasons";
import { counted, wordList } from "#core/words";
import { sayFullDay, type Day } from "#core/when";
import { and, asc, desc, eq, inArray, isNotNull, sql } from "drizzle-orm";
import { array, object } from "yup";
import { isOnHold, sqlNumber, sqlText } from "../columnsOf.ts";
import { defineAct, type ActContext } from "../act/define.ts";
import { undoId, leftRow } from "../act/left.ts";
import { requireUnchanged } from "../act/seen.ts";
import { requireNeverMoved, requireNoLaterActs } from "../ledger/effective.ts";
import { namesOf } from "../contacts/contacts.ts";
import { allocatedUnits } from "../cabinet/allocations.ts";
import type { Reads, Tx } from "../client.ts";
import { LISTED_AT_MOST } from "../lists.ts";
import { draw, lockLots, requireUsable, type NewMovement } from "../ledger/lots.ts";
import { anyOf } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { lot, marketDay, marketLine, movement, pastSale } from "../schema.ts";

export interface MarketIn {
  /** Of a day that is there already. */
  id?: number | undefined;
  name: string;
  day: Day;
  stallFee: Micros;
  travel: Micros;
  byCard: Micros;
  cardFeeBp: number;
  minutes: number;
  note: string;
  lines: readonly { lotId: number; taken: number; sold: number; given: number; damaged: number; price: Micros }[];
}

/** Finished lots by their number in capitals, used-up ones too. */
export async function finishedLotsByNumber(db: Reads, numbers: readonly string[]): Promise<Map<string, number>> {
  if (numbers.length === 0) return new Map();
  const rows = await db
    .select({ id: lot.id, number: sqlText(sql`upper(${lot.number})`) })
    .from(lot)
    .where(and(isNotNull(lot.productId), inArray(sql`upper(${lot.number})`, [...numbers])));
  return new Map(rows.map((r) => [r.number, r.id]));
}

/** What left stock on a market day, per lot; what was corrected since is in it, and what was taken back isn't. */
const goneByDay = (db: Reads, ids: readonly number[]) =>
  runPrepared(db, "gone_by_day", { ids }, (at) =>
    db
      .select({ dayId: movement.marketDayId, lotId: movement.lotId, gone: sql`-sum(${movement.value})`.mapWith(movement.value) })
      .from(movement)
      .where(anyOf(movement.marketDayId, at.ids))
      .groupBy(movement.marketDayId, movement.lotId),
  );

const daysOf = (db: Reads, ids: readonly number[] | undefined, most: number) =>
  runPrepared(db, ids ? "market_days_of" : "market_days", { ids: ids ?? [], most }, (at) =>
    db
      .select()
      .from(marketDay)
      .where(ids && anyOf(marketDay.id, at.ids))
      .orderBy(sql`${marketDay.closedActId} is not null`, desc(marketDay.day), desc(marketDay.id))
      .limit(at.most),
  );

/** What was sold on days from before the books. */
const pastSales = (db: Reads, dayIds: readonly number[]) =>
  runPrepared(db, "past_sales", { dayIds }, (at) =>
    db
      .select({ id: pastSale.id, dayId: pastSale.marketDayId, name: pastSale.name, units: pastSale.units, takings: pastSale.takings })
      .from(pastSale)
      .where(anyOf(pastSale.marketDayId, at.dayIds))
      .orderBy(asc(pastSale.id)),
  );

/** Market days, newest first, each with its lines. */
export async function listMarketDays(db: Reads, ids?: readonly number[], most = LISTED_AT_MOST) {
  const days = await daysOf(db, ids, most);
  if (days.length === 0) return [];
  const dayIds = days.map((d) => d.id);
  const lines = await runPrepared(db, "lines_of_days", { dayIds }, (at) =>
    db
      .select({
        id: marketLine.id,
        dayId: marketLine.marketDayId,
        lotId: lot.id,
        number: lot.number,
        bestBefore: lot.bestBefore,
        onHand: lot.onHand,
        hold: isOnHold,
        costKnown: lot.costKnown,
        name: lot.name,
        label: lot.label,
        taken: marketLine.taken,
        sold: marketLine.sold,
        given: marketLine.given,
        damaged: marketLine.damaged,
        price: marketLine.price,
      })
      .from(marketLine)
      .innerJoin(lot, eq(lot.id, marketLine.lotId))
      .where(anyOf(marketLine.marketDayId, at.dayIds))
      .orderBy(asc(marketLine.id)),
  );
  const gone = new Map((await goneByDay(db, dayIds)).map((g) => [`${g.dayId} ${g.lotId}`, g.gone]));
  const linesOf = groupBy(lines, (l) => l.dayId);
  const past = days.some((d) => d.beforeBooks) ? groupBy(await pastSales(db, dayIds), (s) => s.dayId) : new Map<number, never[]>();
  return days.map((day) => ({
    ...day,
    /** Of a day from before the books, which has no lines. */
    sales: past.get(day.id) ?? [],
    lines: (linesOf.get(day.id) ?? []).map((l) => ({ ...l, gone: gone.get(`${day.id} ${l.lotId}`) ?? micros(0) })),
  }));
}

/** Market days, newest first, each with what was taken along, what was sold and what that cost; a day from before the books has cost nothing known. */
export async function marketSums(db: Reads, most = LISTED_AT_MOST) {
  const days = await daysOf(db, undefined, most);
  const ids = days.map((d) => d.id);
  const before = days.some((d) => d.beforeBooks);
  const [lines, gone, past] = await Promise.all([
    runPrepared(db, "sums_of_days", { ids }, (at) =>
      db
        .select({
          dayId: marketLine.marketDayId,
          price: marketLine.price,
          taken: sqlNumber(sql`sum(${marketLine.taken})`),
          sold: sqlNumber(sql`sum(${marketLine.sold})`),
        })
        .from(marketLine)
        .where(anyOf(marketLine.marketDayId, at.ids))
        .groupBy(marketLine.marketDayId, marketLine.price),
    ),
    runPrepared(db, "gone_of_days", { ids }, (at) =>
      db
        .select({
          dayId: movement.marketDayId,
          gone: sql`-sum(${movement.value})`.mapWith(movement.value),
          costless: sqlNumber(sql`coalesce(-sum(${movement.qty}) filter (where ${lot.costKnown} = 'none'), 0)`),
        })
        .from(movement)
        .innerJoin(lot, eq(lot.id, movement.lotId))
        .where(anyOf(movement.marketDayId, at.ids))
        .groupBy(movement.marketDayId),
    ),
    before ? pastSales(db, ids) : [],
  ]);
  const pastOf = groupBy(past, (s) => s.dayId);
  const of = groupBy(lines, (l) => l.dayId);
  const goneOf = new Map(gone.map((g) => [g.dayId, g]));
  return days.map((day) => {
    const sold = of.get(day.id) ?? [];
    return {
      ...day,
      ...(day.beforeBooks ? pastSalesOf(pastOf.get(day.id) ?? []) : salesOf(sold)),
      taken: sold.reduce((a, l) => a + l.taken, 0),
      stockCost: goneOf.get(day.id)?.gone ?? micros(0),
      /** False where goods went whose cost nobody knows: the day has no profit then. */
      costKnown: !day.beforeBooks && !goneOf.get(day.id)?.costless,
    };
  });
}

/** The newest day at a market that has been, whatever the market was called then: a day is over once it is closed. Null when there was none. */
export async function lastDayAt(db: Reads, market: string): Promise<number | null> {
  const [row] = await db
    .select({ id: marketDay.id })
    .from(marketDay)
    .where(and(isNotNull(marketDay.closedActId), sql`lower(btrim(${marketDay.name})) in (${namesOf("market", market)})`))
    .orderBy(desc(marketDay.day), desc(marketDay.id))
    .limit(1);
  return row?.id ?? null;
}

interface Written {
  dayId: number;
  before: { day: typeof marketDay.$inferSelect; lines: (typeof marketLine.$inferSelect)[] } | null;
}

async function writeDay(tx: Tx, { id, lines, ...head }: MarketIn, seen: ActContext["seen"]): Promise<Written> {
  if (id === undefined) {
    const [row] = await tx.insert(marketDay).values(head).returning({ id: marketDay.id });
    if (lines.length > 0) await tx.insert(marketLine).values(lines.map((l) => ({ ...l, marketDayId: row!.id })));
    return { dayId: row!.id, before: null };
  }
  const [open] = await tx.select().from(marketDay).where(eq(marketDay.id, id)).for("no key update");
  if (!open) throw Refused.one("", "That market day isn't here any more.");
  await requireUnchanged(tx, { kind: "market", id }, seen);
  if (open.closedActId !== null) throw Refused.one("", "This day is closed. Take the closing back first to change it.");
  const before = { day: open, lines: await tx.delete(marketLine).where(eq(marketLine.marketDayId, id)).returning() };
  await tx.update(marketDay).set(head).where(eq(marketDay.id, id));
  if (lines.length > 0) await tx.insert(marketLine).values(lines.map((l) => ({ ...l, marketDayId: id })));
  return { dayId: id, before };
}

const beforeOf = () =>
  object({
    dayId: undoId(),
    before: object({ day: leftRow(marketDay), lines: array().of(leftRow(marketLine)).required() }).nullable(),
  });

/** A day as it was before its sheet was written over; one that wasn't there is there no more. */
async function dayBack(tx: Tx, { dayId, before }: Written): Promise<string | undefined> {
  if (!before)
    await requireNeverMoved(
      tx,
      "marketDayId",
      [dayId],
      "The day has been closed before, so the books name it for good. Change it by hand.",
    );
  await tx.delete(marketLine).where(eq(marketLine.marketDayId, dayId));
  if (!before) {
    await tx.delete(marketDay).where(eq(marketDay.id, dayId));
    return "/markets";
  }
  const { id: _own, ...was } = before.day;
  await tx.update(marketDay).set(was).where(eq(marketDay.id, dayId));
  if (before.lines.length > 0) await tx.insert(marketLine).overridingSystemValue().values(before.lines);
  return undefined;
}

const about = (dayId: number) => [{ kind: "market" as const, id: dayId, changes: true }];

/** @throws Refused beside each lot that is on hold, past its day, on its way elsewhere or reserved */
async function mayGoAlong(tx: Tx, input: MarketIn, dayId: number, today: Day): Promise<void> {
  const locked = await lockLots(
    tx,
    input.lines.map((l) => l.lotId),
  );
  const stand = await allocatedUnits(tx, today, { without: dayId });
  const along = new Map<number, number>();
  // A day that lies ahead is sold what is good by then.
  const onDay = input.day > today ? input.day : null;
  const problems: FieldProblem[] = [];
  for (const [i, l] of input.lines.entries()) {
    const found = requireUsable(locked, l.lotId, "stall", today, `lines.${i}.lot`);
    if (l.taken === 0) continue;
    const product = stand.get(found.of);
    const room = unitsForStall(product, l.lotId, along, onDay);
    along.set(l.lotId, l.taken);
    if (l.taken <= room) continue;
    const spoken = product?.reserved.filter((p) => p.units > 0).map((p) => `${p.units} reserved for ${p.customer}`) ?? [];
    const why =
      product?.lots.find((s) => s.lot.id === l.lotId)?.usable === 0 && found.onHand > 0
        ? `${found.number} is on hold or past its day.`
        : onDay !== null && found.bestBefore !== null && found.bestBefore < onDay
          ? `${found.number} is best before ${sayFullDay(found.bestBefore)}, before that market.`
          : `${counted(room, "unit")} of ${found.number} can go along: ${[`${found.onHand} here`, ...spoken].join(", ")}.`;
    problems.push({ field: `lines.${i}.taken`, say: why });
  }
  if (problems.length > 0) throw new Refused(problems);
}

/** Keeps a day as it is planned or half counted; stock stays where it is. @throws Refused by line; EditedMeanwhile */
export const saveMarketDay = defineAct({
  kind: "saveMarket",
  run: async (tx, input: MarketIn, { day, seen }) => {
    const written = await writeDay(tx, input, seen);
    // What was sold already was there to be sold; only a plan can promise what isn't.
    if (input.lines.every((l) => l.sold + l.given + l.damaged === 0)) await mayGoAlong(tx, input, written.dayId, day);
    return { path: `/markets/${written.dayId}`, summary: `Saved ${input.name}`, about: about(written.dayId), leaves: written };
  },
  leaves: beforeOf(),
  back: async (tx, left, { undoes }) => {
    await requireNoLaterActs(
      tx,
      { kind: "market", id: left.dayId },
      undoes,
      ["saveMarket", "closeMarket"],
      "The day has been saved or closed since.",
    );
    return dayBack(tx, left);
  },
});

/** Closes a day: sold, given and damaged units leave their lots. @throws Refused by line when a lot has fewer; then nothing is saved */
export const closeMarketDay = defineAct({
  kind: "closeMarket",
  run: async (tx, input: MarketIn, { actId, day, seen }) => {
    const { dayId } = await writeDay(tx, input, seen);
    const locked = await lockLots(
      tx,
      input.lines.map((l) => l.lotId),
    );
    const moves: NewMovement[] = [];
    const problems: FieldProblem[] = [];
    input.lines.forEach((l, i) => {
      const out: [keyof typeof l, number, Reason][] = [
        ["sold", l.sold, "sold"],
        ["given", l.given, "tester"],
        ["damaged", l.damaged, "damaged"],
      ];
      for (const [field, units, reason] of out) {
        if (units === 0) continue;
        try {
          requireUsable(locked, l.lotId, "stall", day, `lines.${i}.lot`);
          moves.push(draw(locked, l.lotId, units, `lines.${i}.${field}`, (n) => counted(n, "unit"), { actId, reason, marketDayId: dayId }));
        } catch (e) {
          if (!(e instanceof Refused)) throw e;
          problems.push(...e.problems);
        }
      }
    });
    // What was sold was sold, on hold or not; but it is never passed over.
    const onHold = [...new Set(moves.map((m) => m.lotId))].flatMap((id) => (locked.get(id)!.hold ? [locked.get(id)!] : []));
    if (onHold.length > 0 && input.note.trim() === "")
      problems.push({
        field: "note",
        say: `${wordList(onHold.map((l) => `${l.number} is on hold (${l.holdReason})`))}. Say here why some of it went all the same.`,
      });
    if (problems.length > 0) throw new Refused(problems);
    if (moves.length === 0) throw Refused.one("", "Nothing was sold, given or damaged yet. Count the stall first.");
    await tx.insert(movement).values(moves);
    await tx.update(marketDay).set({ closedActId: actId }).where(eq(marketDay.id, dayId));
    const sold = input.lines.reduce((a, l) => a + l.sold, 0);
    return {
      path: `/markets/${dayId}`,
      summary: `Closed ${input.name}: ${counted(sold, "unit")} sold${onHold.length > 0 ? `, of ${wordList(onHold.map((l) => l.number))} though on hold` : ""}`,
      about: [...about(dayId), ...[...new Set([...locked.values()].map((l) => l.of))].map((id) => ({ kind: "product" as const, id }))],
      leaves: null,
    };
  },
  leaves: null,
  // The counts stay on the sheet, to be corrected and closed again.
  back: async (tx, _left, { undoes }) => {
    await tx.update(marketDay).set({ closedActId: null }).where(eq(marketDay.closedActId, undoes));
  },
});
