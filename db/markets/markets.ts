/** Market days: planning what to take, and closing the day so that what was sold leaves its lots. */
import type { Micros } from "#core/measure/exact";
import { Refused, type FieldProblem } from "#core/refused";
import type { Reason } from "#core/stock/reasons";
import { counted } from "#core/words";
import type { Day } from "#core/when";
import { and, asc, desc, eq, inArray, isNotNull, sql } from "drizzle-orm";
import { perform, type Doing, type Done } from "../act.ts";
import type { Db, Reads, Tx } from "../client.ts";
import { draw, lockLots, type NewMovement } from "../ledger.ts";
import { lot, marketDay, marketLine, movement, product, recipe } from "../schema.ts";

export interface MarketIn {
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
    .select({ id: lot.id, number: sql<string>`upper(${lot.number})` })
    .from(lot)
    .where(and(isNotNull(lot.productId), inArray(sql`upper(${lot.number})`, [...numbers])));
  return new Map(rows.map((r) => [r.number, r.id]));
}

/** What left stock on a market day, per lot, from the act that closed it. */
const goneByDay = (db: Reads, ids: readonly number[]) =>
  db
    .select({ dayId: marketDay.id, lotId: movement.lotId, gone: sql`-sum(${movement.value})`.mapWith(Number) })
    .from(movement)
    .innerJoin(marketDay, eq(marketDay.closedActId, movement.actId))
    .where(inArray(marketDay.id, [...ids]))
    .groupBy(marketDay.id, movement.lotId);

/** Market days, newest first, each with its lines. */
export async function listMarketDays(db: Reads, ids?: readonly number[], limit = 60) {
  const days = await db
    .select()
    .from(marketDay)
    .where(ids ? inArray(marketDay.id, [...ids]) : undefined)
    .orderBy(desc(marketDay.day), desc(marketDay.id))
    .limit(limit);
  if (days.length === 0) return [];
  const dayIds = days.map((d) => d.id);
  const lines = await db
    .select({
      id: marketLine.id,
      dayId: marketLine.marketDayId,
      lotId: lot.id,
      number: lot.number,
      bestBefore: lot.bestBefore,
      onHand: lot.onHand,
      name: recipe.name,
      fill: product.fill,
      taken: marketLine.taken,
      sold: marketLine.sold,
      given: marketLine.given,
      damaged: marketLine.damaged,
      price: marketLine.price,
    })
    .from(marketLine)
    .innerJoin(lot, eq(lot.id, marketLine.lotId))
    .innerJoin(product, eq(product.id, lot.productId))
    .innerJoin(recipe, eq(recipe.id, product.recipeId))
    .where(inArray(marketLine.marketDayId, dayIds))
    .orderBy(asc(marketLine.id));
  const gone = await goneByDay(db, dayIds);
  return days.map((day) => ({
    ...day,
    lines: lines
      .filter((l) => l.dayId === day.id)
      .map((l) => ({ ...l, gone: (gone.find((g) => g.dayId === day.id && g.lotId === l.lotId)?.gone ?? 0) as Micros })),
  }));
}

async function writeDay(tx: Tx, input: MarketIn, id?: number): Promise<number> {
  const { lines, ...head } = input;
  let dayId = id;
  if (dayId === undefined) {
    const [row] = await tx.insert(marketDay).values(head).returning({ id: marketDay.id });
    dayId = row!.id;
  } else {
    const [open] = await tx.select({ closed: marketDay.closedActId }).from(marketDay).where(eq(marketDay.id, dayId)).for("update");
    if (!open) throw Refused.one("", "That market day isn't here any more.");
    if (open.closed !== null) throw Refused.one("", "This day is closed. Take the closing back first to change it.");
    await tx.update(marketDay).set(head).where(eq(marketDay.id, dayId));
    await tx.delete(marketLine).where(eq(marketLine.marketDayId, dayId));
  }
  if (lines.length > 0) await tx.insert(marketLine).values(lines.map((l) => ({ ...l, marketDayId: dayId })));
  return dayId;
}

/** Keeps a day as it is planned or half counted; stock stays where it is. */
export function saveMarketDay(db: Db, input: MarketIn, doing: Doing, id?: number): Promise<Done> {
  return perform(db, "saveMarket", doing, async (tx) => {
    const dayId = await writeDay(tx, input, id);
    return { path: `/markets/${dayId}`, summary: `Kept ${input.name}` };
  });
}

/** Closes a day: sold, given and damaged units leave their lots. @throws Refused by line when a lot has fewer; then nothing is kept */
export function closeMarketDay(db: Db, input: MarketIn, doing: Doing, id?: number): Promise<Done> {
  return perform(db, "closeMarket", doing, async (tx, actId) => {
    const dayId = await writeDay(tx, input, id);
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
          moves.push(draw(locked, l.lotId, units, `lines.${i}.${field}`, (n) => counted(n, "unit"), { actId, reason, marketDayId: dayId }));
        } catch (e) {
          if (!(e instanceof Refused)) throw e;
          problems.push(...e.problems);
        }
      }
    });
    if (problems.length > 0) throw new Refused(problems);
    if (moves.length === 0) throw Refused.one("", "Nothing was sold, given or damaged yet. Count the stall first.");
    await tx.insert(movement).values(moves);
    await tx.update(marketDay).set({ closedActId: actId }).where(eq(marketDay.id, dayId));
    return {
      path: `/markets/${dayId}`,
      summary: `Closed ${input.name}: ${counted(
        input.lines.reduce((a, l) => a + l.sold, 0),
        "unit",
      )} sold`,
    };
  });
}
