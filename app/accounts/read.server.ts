/** A period's money, read as one: which period is asked for, and everything the page and its file say of it. */
import { FLOW_IDS, statementOf, type Flow } from "#core/accounts/statement";
import { micros, type Micros } from "#core/measure/exact";
import { addDays, addMonths, readDay, type Day } from "#core/when";
import {
  partsOfFlow,
  dearerOn,
  inJars,
  movedIn,
  receiptsIn,
  salesIn,
  spanOfBooks,
  type PartOfFlow,
  type Period,
} from "#db/accounts/period";
import { today } from "#db/clock";
import { cachedSettings } from "#db/settings/settings";
import { db } from "../server/workshop.server.ts";

/** A year from its first day. @example yearFrom("2026-04-06") // { from: "2026-04-06", to: "2027-04-05" } */
export const yearFrom = (from: Day): Period => ({ from, to: addDays(addMonths(from, 12), -1) });

/** The period that is asked for; this calendar year where none is, or it ends before it begins. */
export function periodAsked(request: Request): { period: Period; problem: string | null } {
  const q = new URL(request.url).searchParams;
  const year = yearFrom(`${today().slice(0, 4)}-01-01`);
  const [from, to] = [readDay(q.get("from") ?? ""), readDay(q.get("to") ?? "")];
  if (!q.get("from") && !q.get("to")) return { period: year, problem: null };
  if (!from.ok || !to.ok) return { period: year, problem: "Choose the first and the last day. This year is shown." };
  if (to.value < from.value) return { period: year, problem: "The last day is before the first. This year is shown." };
  return { period: { from: from.value, to: to.value }, problem: null };
}

/** The calendar years the books have something of, newest first. */
export const yearsOf = (span: Period | null): string[] => {
  if (!span) return [];
  const [first, last] = [Number(span.from.slice(0, 4)), Number(span.to.slice(0, 4))];
  return Array.from({ length: last - first + 1 }, (_, i) => String(last - i));
};

/** Each of its questions is asked of one snapshot of the books. */
export async function readPeriod(period: Period) {
  const { school } = await cachedSettings(db());
  return db().transaction(
    async (tx) => {
      const statement = statementOf(await movedIn(tx, period), await inJars(tx, period));
      const none = { ingredient: micros(0), packaging: micros(0) };
      const again = school === "again";
      return {
        ...statement,
        /** By replacement cost: how much more, or less, than was paid. */
        dearer: {
          start: again ? await dearerOn(tx, addDays(period.from, -1)) : none,
          end: again ? await dearerOn(tx, period.to) : none,
        },
        receipts: await receiptsIn(tx, period),
        sales: await salesIn(tx, period),
        span: await spanOfBooks(tx),
      };
    },
    { isolationLevel: "repeatable read", accessMode: "read only" },
  );
}

export type PeriodRead = Awaited<ReturnType<typeof readPeriod>>;

/** What a line of the statement is made of, where one is asked for. */
export async function partsAsked(request: Request, period: Period): Promise<{ flow: Flow; rows: PartOfFlow[] } | null> {
  const flow = FLOW_IDS.find((f) => f === new URL(request.url).searchParams.get("of"));
  return flow ? { flow, rows: await partsOfFlow(db(), period, flow) } : null;
}

/** What replacement cost adds to a stock, or takes off it. */
export const dearerOf = ({ ingredient, packaging }: Record<"ingredient" | "packaging", Micros>): Micros => micros(ingredient + packaging);
