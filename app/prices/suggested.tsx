/** What a price leaves, and a price that a pricing method suggests. */
import { micros, type Micros } from "#core/measure/exact";
import { money } from "#core/measure/money";
import type { priceBy, viewPrice } from "#core/pricing/pricingMethods";
import { percent } from "../ui/figures/amounts.tsx";
import { useWorkshop } from "../ui/workshop.ts";

/** What a price leaves: of itself, and for an hour of making. */
export function Leaves({ view: { margin, marginShare, perHour } }: { view: ReturnType<typeof viewPrice> }) {
  const { currency } = useWorkshop();
  return (
    <>
      <span className={`text-fine ${margin < micros(0) ? "text-berry" : "text-pine-soft"}`}>
        {margin < 0 ? "loses " : ""}
        {percent(Math.abs(marginShare), 0)}
      </span>
      {perHour !== null && <span className="text-fine text-pine-soft">{money(perHour, currency)}/h</span>}
    </>
  );
}

/** What a pricing method says to ask in a channel; pressed, that is the price. */
export function Suggested({ view, channel, take }: { view: ReturnType<typeof priceBy>; channel: string; take: (price: Micros) => void }) {
  const { currency } = useWorkshop();
  if (view === null) return "—";
  const say = `Take ${money(view.price, currency)} for ${channel}`;
  return (
    <button
      type="button"
      title={say}
      aria-label={say}
      className="inline-flex cursor-pointer flex-col items-end rounded px-1.5 py-0.5 hover:bg-honey-wash"
      onClick={() => take(view.price)}
    >
      <strong className="underline decoration-dotted underline-offset-4">{money(view.price, currency)}</strong>
      <Leaves view={view} />
    </button>
  );
}
