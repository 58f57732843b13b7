/** What it costs and why: by ingredient, at other batch sizes, and what would save most. */
import { mg, micros } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { gramsIn } from "#core/measure/write";
import { boughtFor, savings } from "#core/recipe/savings";
import { batchFor, scaleTo } from "#core/recipe/scale";
import { COSTING_METHOD_IDS, COSTING_METHODS } from "#core/stock/costingMethods";
import { lazy, useEffect, useState } from "react";
import { useFetcher } from "react-router";
import type { Shelf } from "#core/stock/shelf";
import { percent } from "../../ui/figures/amounts.tsx";
import { Choice } from "../../ui/fields/form.tsx";
import { Drawn } from "../../ui/figures/drawn.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import type { Costing } from "../costing.ts";
import type { OfferOf } from "./offers.ts";

const CostChart = lazy(() => import("./costChart.tsx"));
/** Two to try, a dozen, forty for a market, and as written. */
const UNITS = [2, 6, 12, 24, 40, 100];

interface Props {
  costing: Costing;
  shelf: Shelf;
  lossBp: number;
}

export function Costs({ costing: { lines, sizes, cost }, shelf, lossBp }: Props) {
  const { currency, school } = useWorkshop();
  const [chosen, choose] = useState(0);
  const offers = useFetcher<OfferOf[]>();
  const ids = [...new Set(lines.map((l) => l.of))];
  const asked = ids.join(" ");
  const { load } = offers;
  useEffect(() => void load(`/recipes/offers?${new URLSearchParams(asked.split(" ").map((id) => ["of", id])).toString()}`), [asked, load]);
  const size = sizes[Math.min(chosen, sizes.length - 1)];
  if (!size) return <p className="text-pine-soft">Say what it is filled into, under Sizes, and what one costs is shown here.</p>;
  const now = cost(size);
  const { units } = now.fill;
  const offersOf = (of: number): OfferOf[] => (offers.data ?? []).filter((o) => o.materialId === of);
  const saved = savings(
    lines.map((l, i) => ({
      of: l.of,
      weight: l.weight,
      cost: now.lines[i]!.cost[school],
      again: shelf.of(l.of).again,
      offers: offersOf(l.of),
    })),
  );
  const nameOf = new Map(lines.map((l) => [l.of, l.name]));
  const each = (batch: number): number => (units > 0 ? Math.round(batch / units) : 0);
  const bySize = [...new Set([...UNITS, units])].filter((n) => n > 0).sort((a, b) => a - b);
  const weights = lines.map((l) => l.weight);
  const rows = bySize.map((n) => {
    const batch = batchFor([{ units: n, fill: size.fill }], lossBp);
    const scaled = scaleTo(weights, batch);
    const of = lines.map((l, i) => ({ ...l, weight: mg(scaled[i]!) }));
    const perUnit = cost(size, of).perUnit;
    const bought = offers.data ? boughtFor(of.map((l) => ({ ...l, offers: offersOf(l.of) }))) : null;
    return { n, batch, perUnit, one: perUnit[school], bought };
  });
  const cash = (m: number | null | undefined): string => (m === null || m === undefined ? "—" : money(m, currency));
  return (
    <div className="space-y-5">
      {sizes.length > 1 && (
        <Choice
          className="w-48"
          label="Size"
          options={sizes.map((s, i) => [String(i), s.label] as const)}
          value={String(chosen)}
          onChange={(e) => choose(Number(e.target.value))}
        />
      )}
      <div>
        <h3 className="mb-1 font-semibold">Ingredients of one, {COSTING_METHODS[school].toLowerCase()}</h3>
        <Drawn height={Math.max(120, saved.length * 30 + 40)}>
          <CostChart bars={saved.map((s) => ({ name: nameOf.get(s.of) ?? "", cost: each(s.cost ?? 0) / 1e6 }))} currency={currency} />
        </Drawn>
        <Table
          rows={saved}
          by={(s) => s.of}
          columns={[
            { head: "Ingredient", cell: (s) => nameOf.get(s.of) },
            { head: "In one", as: "figure", cell: (s) => (s.cost === null ? "no cost yet" : money(each(s.cost), currency)) },
            { head: "Of all of them", as: "figure", cell: (s) => percent(s.share, 0) },
            { head: "A tenth less saves", as: "figure", cell: (s) => money(each(s.tenth), currency) },
            {
              head: "Cheapest pack would save",
              as: "figure",
              cell: (s) => s.pack && `${money(each(s.pack.saves), currency)}: ${s.pack.offer.packSize}, ${s.pack.offer.supplier}`,
            },
          ]}
        />
      </div>
      <div>
        <h3 className="mb-1 font-semibold">One {size.label}, at other batch sizes</h3>
        <Table
          rows={rows}
          by={(r) => r.n}
          columns={[
            {
              head: "Units",
              as: "figure",
              cell: (r) => r.n,
              className: (r) => (r.n === units ? "font-bold" : ""),
            },
            { head: "Batch", as: "weight", cell: (r) => gramsIn(0)(r.batch) },
            ...COSTING_METHOD_IDS.map((s) => ({
              head: COSTING_METHODS[s],
              as: "figure" as const,
              cell: (r: (typeof rows)[number]) => cash(r.perUnit[s]?.total),
            })),
            { head: "Work in it", as: "figure", cell: (r) => cash(r.one && micros(r.one.work + r.one.overhead)) },
            {
              head: "If every pack is bought for it",
              as: "figure",
              cell: (r) =>
                r.bought === null || !r.one
                  ? "—"
                  : money(Math.round(r.bought / r.n) + r.one.packaging + r.one.work + r.one.overhead, currency),
            },
          ]}
        />
        <p className="mt-1 text-fine text-pine-soft">
          The first three count what is used; the last counts whole packs, and nothing for what is left of them. Where it says —, somebody
          still has to offer an ingredient, or it was never bought.
        </p>
      </div>
    </div>
  );
}
