/** Figures with their unit: weights, counts, money and days, the way every screen writes them. */
import { Link } from "react-router";
import { gramsIn, showStock } from "#core/measure/write";
import { money, showUnitCost, type PerWeight, type UnitCost } from "#core/measure/money";
import { lotState, type Lot, type LotState } from "#core/stock/lots";
import { sayDay, sayFullDay, type Day } from "#core/when";
import { useCallback } from "react";
import { useWorkshop } from "../workshop.ts";

/** An amount in a material's base unit. @example showBase(1500, "weight") // "1.5 g" */
export const showBase = showStock;

/** The same for a column: always grams to a tenth, so that amounts line up. */
export const showInColumn = (n: number, measured: "weight" | "count"): string =>
  measured === "count" ? showBase(n, measured) : gramsIn(1)(n);

export function Money({ of }: { of: number | null }) {
  const { currency } = useWorkshop();
  return <span className="tabular-nums">{of === null ? "—" : money(of, currency)}</span>;
}

export function PerUnit({ cost, measured, per }: { cost: UnitCost | null; measured: "weight" | "count"; per?: PerWeight }) {
  const { currency } = useWorkshop();
  return <span className="tabular-nums">{cost ? showUnitCost(cost, measured, currency, per) : "—"}</span>;
}

/** Says days within a sentence, as the workshop writes them: "Mon 14 Dec", or "Mon Dec 14". */
export function useSayDay(): (day: Day) => string {
  const { today, dates } = useWorkshop();
  return useCallback((day) => sayDay(day, today, dates === "mdy"), [today, dates]);
}

export function When({ day }: { day: Day | null }) {
  const sayIt = useSayDay();
  return day === null ? (
    <span>—</span>
  ) : (
    <time className="whitespace-nowrap" dateTime={day} title={sayFullDay(day)}>
      {sayIt(day)}
    </time>
  );
}

export const STATE_WORDS: Record<LotState, string> = { good: "", soon: "use soon", expired: "expired", hold: "on hold", empty: "used up" };

/** A lot's tie-on tag; pressing it opens its history. */
export function LotTag({ lot, plain }: { lot: Pick<Lot, "number" | "onHand" | "bestBefore" | "hold">; plain?: boolean }) {
  const { today } = useWorkshop();
  const state = lotState(lot, today);
  const inside = (
    <>
      {lot.number}
      {STATE_WORDS[state] && <em>{STATE_WORDS[state]}</em>}
    </>
  );
  const title = lot.bestBefore ? `Best before ${sayFullDay(lot.bestBefore)}` : undefined;
  return plain ? (
    <span className={`lot lot-${state}`} title={title}>
      {inside}
    </span>
  ) : (
    <Link to={`/lots/${encodeURIComponent(lot.number)}`} className={`lot lot-${state}`} title={title}>
      {inside}
    </Link>
  );
}

/** A share as a percentage. @example percent(0.125) // "12.5 %" */
export const percent = (share: number, decimals = 1): string => `${(share * 100).toFixed(decimals)} %`;
