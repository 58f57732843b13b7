/** What is on hand against a month's use, drawn as a shelf filled so far: each mark is a month. */
import { lastsMonths, sayMonths } from "#core/stock/reorder";

/** The picture ends here; what lasts longer fills it. */
const MONTHS = 6;
const WIDTH = 72;
/** The board below it, with its marks. */
const BOARD = `M0 11.5h${WIDTH}${Array.from({ length: MONTHS - 1 }, (_, n) => `M${((n + 1) * WIDTH) / MONTHS} 1v10`).join("")}`;

export function Lasts({ onHand, perDay, low }: { onHand: number; perDay: number | null; low?: boolean }) {
  const months = lastsMonths(onHand, perDay);
  if (months === null) return <span className="text-pine-soft">{onHand > 0 ? "not used lately" : "—"}</span>;
  const filled = (Math.min(months, MONTHS) / MONTHS) * WIDTH;
  return (
    <span className="inline-flex items-center gap-2 whitespace-nowrap">
      <svg aria-hidden="true" viewBox={`0 0 ${WIDTH} 12`} className="h-3 w-18 flex-none print:hidden">
        <rect x="0" y="1" width={filled} height="8" className={low || months < 1 ? "fill-honey" : "fill-amber-glass"} />
        <path d={BOARD} className="stroke-rule-strong" />
      </svg>
      <span className={low ? "font-semibold text-honey" : ""}>{sayMonths(months)}</span>
    </span>
  );
}
