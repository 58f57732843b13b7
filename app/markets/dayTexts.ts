/** A market day as its sheet says it. */
import { moneyField } from "#core/measure/money";
import type { Day } from "#core/when";
import type { listMarketDays } from "#db/markets/markets";

export type MarketDay = Awaited<ReturnType<typeof listMarketDays>>[number];

/** Instead of a cost on a day from before the books. */
export const NO_COST = "What the goods cost isn’t known: they were made before the books began.";

export const BLANK = { lot: "", taken: "", sold: "", given: "", damaged: "", price: "" };
const zeroBlank = (n: number): string => (n === 0 ? "" : String(n));

/** How a lot is named on the sheet. @example lotLabel({ number: "HB1", name: "Hand balm, 60 g" }) // "HB1 Hand balm, 60 g" */
export const lotLabel = (l: { number: string; name: string }): string => `${l.number} ${l.name}`;

export const dayTexts = (day: MarketDay | null, start: { today: Day; cardFeeBp: number }) => ({
  name: day?.name ?? "",
  day: day?.day ?? start.today,
  stallFee: day ? moneyField(day.stallFee) : "",
  travel: day ? moneyField(day.travel) : "",
  byCard: day && day.byCard > 0 ? moneyField(day.byCard) : "",
  cardFee: String((day?.cardFeeBp ?? start.cardFeeBp) / 100),
  hours: day && day.minutes > 0 ? String(day.minutes / 60) : "",
  note: day?.note ?? "",
  lines:
    day && day.lines.length > 0
      ? day.lines.map((l) => ({
          lot: lotLabel({ number: l.number, name: `${l.name}, ${l.label}` }),
          taken: zeroBlank(l.taken),
          sold: zeroBlank(l.sold),
          given: zeroBlank(l.given),
          damaged: zeroBlank(l.damaged),
          price: moneyField(l.price),
        }))
      : [BLANK],
});
