/** A lot in a few figures, beside its history. */
import { lotState } from "#core/stock/lots";
import { COST_KNOWN } from "#core/stock/costKnown";
import { BEST_BY } from "#core/stock/bestBy";
import { money } from "#core/measure/money";
import { LotTag, showBase, When } from "../ui/figures/amounts.tsx";
import { Figure, HowLine, Reckoner } from "../ui/figures/reckoner.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { measureOf } from "./lotHistory.tsx";
import { percentText } from "./lotForms.tsx";
import type { Route } from "./+types/lot";

type Props = Pick<Route.ComponentProps["loaderData"], "lot" | "cost" | "back" | "forward" | "history"> & {
  /** Made before the books began: what is in it isn't known here. */
  beforeBooks: boolean;
};

export function InShort({ lot, cost, back, forward, history, beforeBooks }: Props) {
  const { today, currency } = useWorkshop();
  const state = lotState(lot, today);
  const places = new Map(history.filter((r) => r.marketDayId !== null).map((r) => [`m${r.marketDayId}`, r.market]));
  const people = new Map(history.filter((r) => r.giftOrderId !== null && r.reason === "ordered").map((r) => [r.giftOrderId, r.customer]));
  return (
    <Reckoner title="In short" onPaper={false}>
      <Figure label="State" value={<LotTag lot={lot} plain />} />
      <Figure label="Left" big value={showBase(lot.onHand, measureOf(lot))} />
      <Figure label={lot.productId ? "Poured" : "Arrived"} value={<When day={lot.arrived} />} />
      <Figure
        label="Best before"
        value={<When day={lot.bestBefore} />}
        tone={state === "expired" ? "bad" : undefined}
        how={lot.productId === null ? <p>{BEST_BY[lot.bestBy]}.</p> : undefined}
      />
      {cost && (
        <Figure
          label="Cost of one"
          value={lot.costKnown === "none" ? COST_KNOWN.none : money(cost.full, currency)}
          how={
            <>
              <HowLine label={beforeBooks ? `In all, ${COST_KNOWN[lot.costKnown]}` : "Materials"} value={money(cost.materials, currency)} />
              {beforeBooks ? null : cost.worked ? (
                <HowLine label="Work and overhead" value={money(cost.full - cost.materials, currency)} />
              ) : (
                <p>No work in it, since no minutes were written down.</p>
              )}
            </>
          }
        />
      )}
      {lot.scentMostPpm !== null && <Figure label="Of a product at most" value={`${percentText(lot.scentMostPpm)} %`} />}
      <Figure label="Came from" value={`${back.length} lots`} />
      <Figure label="Went into" value={`${forward.length} lots`} />
      <Figure label="Market days" value={places.size} how={places.size > 0 ? [...places].map(([k, n]) => <p key={k}>{n}</p>) : undefined} />
      <Figure label="Orders" value={people.size} how={people.size > 0 ? [...people].map(([k, n]) => <p key={k}>{n}</p>) : undefined} />
    </Reckoner>
  );
}
