/** A period's money, read as one: which period is asked for, and everything the page and its file say of it. */
import { calendarYear, yearsOf, type Period } from "#core/accounts/period";
import { FLOW_IDS, salesSums, statementLines, statementOf } from "#core/accounts/statement";
import { addDays, readDay } from "#core/when";
import { dearerOn, inJars, movedIn, partsOfFlow, receiptsIn, salesIn, spanOfBooks } from "#db/accounts/period";
import { today } from "#db/clock";
import { cachedSettings } from "#db/settings/settings";
import { db } from "../server/workshop.server.ts";

/** The period that is asked for; this calendar year where none is, or it ends before it begins. */
export function periodAsked(request: Request): { period: Period; problem: string | null } {
  const q = new URL(request.url).searchParams;
  const year = calendarYear(today().slice(0, 4));
  const [from, to] = [readDay(q.get("from") ?? ""), readDay(q.get("to") ?? "")];
  if (!q.get("from") && !q.get("to")) return { period: year, problem: null };
  if (!from.ok || !to.ok) return { period: year, problem: "Choose the first and the last day. This year is shown." };
  if (to.value < from.value) return { period: year, problem: "The last day is before the first. This year is shown." };
  return { period: { from: from.value, to: to.value }, problem: null };
}

/**
 * Each of its questions is asked of one snapshot of the books.
 * @param of the line of the statement whose parts are asked for, if any
 */
export async function readPeriod(period: Period, of: string | null = null) {
  const { school } = await cachedSettings(db());
  const flow = FLOW_IDS.find((f) => f === of);
  return db().transaction(
    async (tx) => {
      const statement = statementOf(await movedIn(tx, period), await inJars(tx, period));
      const dearer =
        school === "again" ? { start: await dearerOn(tx, addDays(period.from, -1)), end: await dearerOn(tx, period.to) } : null;
      const sales = await salesIn(tx, period);
      const span = await spanOfBooks(tx);
      return {
        lines: statementLines(statement, dearer),
        sold: statement.flows.sold,
        sums: salesSums(sales, statement.flows.sold),
        receipts: await receiptsIn(tx, period),
        sales,
        parts: flow ? { flow, rows: await partsOfFlow(tx, period, flow) } : null,
        years: span ? yearsOf(span) : [],
      };
    },
    { isolationLevel: "repeatable read", accessMode: "read only" },
  );
}

export type PeriodRead = Awaited<ReturnType<typeof readPeriod>>;
