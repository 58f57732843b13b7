/** What a gift order comes to, while it is written and once it is packed; on paper its costs would lie in the box. */
import type { OrderResult } from "#core/gift/order";
import type { Micros } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { beforeCosts, COST_KNOWN, type CostKnown } from "#core/stock/costKnown";
import { forMinutes } from "#core/recipe/cost";
import type { ReactNode } from "react";
import { percent } from "../ui/figures/amounts.tsx";
import { Figure, HowLine, Reckoner } from "../ui/figures/reckoner.tsx";
import { useWorkshop } from "../ui/workshop.ts";

export interface Part {
  name: string;
  units: number;
  price: Micros;
  /** Of all units. */
  cost: Micros;
  /** Out of which lots, where that is planned. */
  out?: readonly Out[];
}

/** Some units of a line, out of a lot; out of none where they are still to be made. */
export interface Out {
  lot: { number: string; /** In one unit of it. */ work: Micros; costKnown?: CostKnown } | null;
  units: number;
  cost: Micros;
}

const outOf = ({ lot }: Out): string =>
  lot
    ? `, lot ${lot.number}, ${lot.costKnown === "none" ? "its cost not known" : lot.work > 0 ? "with its work" : "no work in it"}`
    : ", still to be made, as the recipe costs today";

interface Props {
  result: OrderResult;
  items: readonly Part[];
  wrapping: readonly { name: string; pieces: number; cost: Micros }[];
  extra: Micros;
  wrapMinutes: number;
  hourly: Micros;
  /** Units out of lots whose cost nobody knows. */
  costless: number;
  unread?: string | null;
  children?: ReactNode;
}

export function OrderReckoner({ result, items, wrapping, extra, wrapMinutes, hourly, costless, unread, children }: Props) {
  const { currency } = useWorkshop();
  return (
    <Reckoner unread={unread} onPaper={false}>
      <Figure
        label="Goods"
        value={money(result.goods, currency)}
        how={items.map((i, n) => (
          <HowLine key={n} label={`${i.units} × ${i.name}`} value={money(i.units * i.price, currency)} />
        ))}
      />
      <Figure label="Wrapping and card" value={money(extra, currency)} />
      {result.goods + extra > result.price && (
        <Figure label="Discount" value={`− ${money(result.goods + extra - result.price, currency)}`} />
      )}
      <Figure label="Price" big value={money(result.price, currency)} />
      <Figure
        label="Costs"
        value={costless > 0 && result.cost === 0 ? COST_KNOWN.none : money(result.cost, currency)}
        how={
          <>
            {items.map((i, n) =>
              (i.out ?? [{ lot: null, units: i.units, cost: i.cost }]).map((o, m) => (
                <HowLine key={`${n} ${m}`} label={`${o.units} × ${i.name}${i.out ? outOf(o) : ""}`} value={money(o.cost, currency)} />
              )),
            )}
            {wrapping.map((w, n) => (
              <HowLine key={n} label={`${w.pieces} × ${w.name}`} value={money(w.cost, currency)} />
            ))}
            <HowLine label={`${wrapMinutes} min of wrapping`} value={money(forMinutes(wrapMinutes, hourly), currency)} />
          </>
        }
      />
      {costless > 0 ? (
        <Figure label={beforeCosts(costless)} big value={money(result.margin, currency)} />
      ) : (
        <Figure
          label="Margin"
          big
          tone={result.margin < 0 ? "bad" : "good"}
          value={`${money(result.margin, currency)}, ${percent(result.marginShare, 0)}`}
        />
      )}
      {children}
    </Reckoner>
  );
}
