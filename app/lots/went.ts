/** Where units or grams of a lot went or came from, in words, and where that can be read. */
import { REASONS } from "#core/ledger/reasons";
import type { HistoryRow } from "#db/lots/trace";

interface Went {
  say: string;
  /** The page it is written on; null where the ledger alone has it. */
  to: string | null;
  note: string;
}

export function went(row: HistoryRow): Went {
  const { say } = REASONS[row.reason];
  if (row.marketDayId !== null) return { say: `${say} at ${row.market}`, to: `/markets/${row.marketDayId}`, note: "" };
  if (row.giftOrderId !== null) return { say: `${say} for ${row.customer}`, to: `/gifts/${row.giftOrderId}`, note: "" };
  if (row.jarId !== null) return { say: `${say}, ${row.jar}`, to: `/jars/${row.jarId}`, note: "" };
  if (row.batchId !== null)
    return {
      say: row.reason === "used" && row.batchNumber ? `${say}, ${row.batchNumber}` : say,
      to: `/bench/${row.batchId}`,
      note: "",
    };
  return { say, to: null, note: row.note };
}

/** Whether it is how a lot came to be, which its trace says already. */
export const cameToBe = ({ reason, qty }: HistoryRow): boolean =>
  reason === "filled" || reason === "strained" || (reason === "remelted" && qty > 0);
