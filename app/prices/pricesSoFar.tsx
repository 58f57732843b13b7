/** What a product was sold for, from which day; what was sold under an old price keeps it. */
import { Link } from "react-router";
import { money } from "#core/measure/money";
import type { PriceStep } from "#core/pricing/history";
import { CHANNELS, CHANNEL_IDS } from "#core/pricing/pricingMethods";
import { When } from "../ui/figures/amounts.tsx";
import { Table, type Column } from "../ui/lists/table.tsx";
import { Part } from "../ui/sheet/sheet.tsx";
import { useWorkshop } from "../ui/workshop.ts";

export function PricesSoFar({ steps }: { steps: readonly PriceStep[] }) {
  const { currency } = useWorkshop();
  // One step is what is asked today.
  if (steps.length < 2) return null;
  const channels = CHANNEL_IDS.filter((c) => steps.some((s) => s.prices[c] !== undefined));
  return (
    <Part title="Since when" aside={<span className="text-small text-pine-soft">What was sold under an old price keeps it.</span>}>
      <Table
        rows={steps}
        by={(s) => s.actId}
        columns={[
          {
            head: "From",
            cell: (s) => (
              <Link to={`/book/${s.actId}`} className="hover:underline">
                <When day={s.day} />
              </Link>
            ),
          },
          ...channels.map((c): Column<PriceStep> => ({
            head: CHANNELS[c],
            as: "figure",
            cell: (s) => (s.prices[c] === undefined ? "" : money(s.prices[c], currency)),
          })),
        ]}
      />
    </Part>
  );
}
