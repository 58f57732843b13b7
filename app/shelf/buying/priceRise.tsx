/** What a price rise of one material would do to the unit cost of each product with it. */
import { Link } from "react-router";
import { micros, type Micros } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { readPlain } from "#core/measure/read";
import type { PriceRow } from "#db/shelf/buying";
import { useState } from "react";
import { percent } from "../../ui/figures/amounts.tsx";
import { Text } from "../../ui/fields/form.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";

interface Props {
  products: readonly { id: number; name: string; share: Micros; unit: Micros | null }[];
  history: readonly PriceRow[];
}

/** The last change of price, in whole per cent, to start from. */
const lastChange = (rows: readonly PriceRow[]): number => {
  const [before, now] = rows.slice(-2);
  if (!before || !now || before.value === 0) return 10;
  const n = Math.round((now.value / now.per / (before.value / before.per) - 1) * 100);
  return n > 0 ? n : 10;
};

export function PriceRise({ products, history }: Props) {
  const { currency } = useWorkshop();
  const [text, setText] = useState(String(lastChange(history)));
  const falls = /^\s*[-−–]/.test(text);
  const read = readPlain(text.replace(/^\s*[-−–+]/, ""));
  const rise = read.ok ? read.value * (falls ? -1 : 1) : NaN;
  const ok = rise >= -90 && rise <= 900;
  if (products.length === 0) return null;
  return (
    <Part title="If its price rises">
      <Text
        data-amount="decimal"
        label="By, %"
        className="mb-3 w-32 [&_input]:text-right"
        value={text}
        onChange={(e) => setText(e.target.value)}
        unread={ok ? undefined : "Enter a number of per cent, such as 15."}
      />
      <Table
        rows={products.map((p) => ({ ...p, more: micros(ok ? Math.round((p.share * rise) / 100) : 0) }))}
        by={(p) => p.id}
        columns={[
          {
            head: "Product",
            cell: (p) => (
              <Link to={`/prices/${p.id}`} className="font-semibold hover:underline">
                {p.name}
              </Link>
            ),
          },
          {
            head: "One costs now",
            as: "figure",
            cell: (p) => (p.unit === null ? "—" : money(p.unit, currency)),
          },
          {
            head: "Of it, this",
            as: "figure",
            cell: (p) => (
              <>
                {money(p.share, currency)}
                {p.unit ? <span className="text-part text-pine-soft"> {percent(p.share / p.unit, 0)}</span> : ""}
              </>
            ),
          },
          {
            head: "One would cost",
            as: "figure",
            className: "font-semibold",
            cell: (p) => (p.unit === null ? "—" : money(p.unit + p.more, currency)),
          },
          {
            head: "More",
            as: "figure",
            cell: (p) => (
              <>
                {p.more >= 0 ? "+" : "−"}
                {money(Math.abs(p.more), currency)}
              </>
            ),
          },
        ]}
      />
    </Part>
  );
}
