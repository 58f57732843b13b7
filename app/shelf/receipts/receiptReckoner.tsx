/** What a receipt comes to: goods, what is shared out, what was paid, and each material's cost against the last time. */
import { factsIn } from "#core/material/facts";
import type { Base, Micros } from "#core/measure/exact";
import { money, type UnitCost } from "#core/measure/money";
import type { Outcome } from "#core/outcome";
import type { Receipt } from "#core/stock/receipt";
import { OnceLeft } from "../../ui/fields/form.tsx";
import { PerUnit, percent, showBase } from "../../ui/figures/amounts.tsx";
import { Figure, HowLine, Reckoner } from "../../ui/figures/reckoner.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import type { PurchasedMaterial } from "#db/shelf/sheetMaterials";

interface Props {
  read: readonly { m: PurchasedMaterial | undefined; price: Micros; qty: Base | null }[];
  goods: Micros;
  landed: Outcome<Receipt>;
  unread: string | null;
  /** Currency of the receipt. */
  paidIn: string;
}

export function ReceiptReckoner({ read, goods, landed, unread, paidIn }: Props) {
  const { currency } = useWorkshop();
  const lines = landed.ok ? landed.value.lines : [];
  const shares = (what: "postage" | "tax" | "discount") =>
    read.map(
      (r, i) => r.m && lines[i] && lines[i][what] !== 0 && <HowLine key={i} label={r.m.name} value={money(lines[i][what], paidIn)} />,
    );
  const total = (what: "postage" | "tax" | "discount"): number => lines.reduce((a, l) => a + l[what], 0);
  return (
    <Reckoner unread={unread}>
      <Figure label="Goods" value={money(goods, paidIn)} />
      {!landed.ok && <OnceLeft say={landed.problem.say} />}
      <Figure
        label="Postage"
        value={money(total("postage"), paidIn)}
        how={
          <>
            <p>Shared over the lines, to the last cent.</p>
            {shares("postage")}
          </>
        }
      />
      {total("tax") > 0 && <Figure label="Tax" value={money(total("tax"), paidIn)} how={shares("tax")} />}
      {total("discount") > 0 && <Figure label="Discount" value={`− ${money(total("discount"), paidIn)}`} how={shares("discount")} />}
      <Figure label="Paid in all" big value={landed.ok ? money(landed.value.paid, paidIn) : "—"} />
      {paidIn !== currency && landed.ok && <Figure label={`In ${currency}`} value={money(landed.value.paidHere, currency)} />}
      {read.map((r, i) => {
        const last = r.m?.again;
        if (!r.m || !r.qty || !lines[i] || lines[i].landed === 0) return null;
        const now: UnitCost = { value: lines[i].landed, per: r.qty };
        const change = last && last.value > 0 ? now.value / now.per / (last.value / last.per) - 1 : null;
        const measured = factsIn(r.m).measured;
        return (
          <Figure
            key={i}
            label={r.m.name}
            value={<PerUnit cost={now} measured={measured} />}
            tone={change !== null && change > 0.1 ? "warn" : undefined}
            how={
              <>
                <HowLine label="Price and its shares" value={money(now.value, currency)} />
                <HowLine label="Spread over" value={showBase(now.per, measured)} />
                {last && <HowLine label="Bought last at" value={<PerUnit cost={last} measured={measured} />} />}
                {change !== null && <HowLine label="Change" value={`${change >= 0 ? "+" : "−"}${percent(Math.abs(change))}`} />}
              </>
            }
          />
        );
      })}
    </Reckoner>
  );
}
