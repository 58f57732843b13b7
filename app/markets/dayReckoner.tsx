/** What a market day comes to, while it is typed and once it is closed. */
import { costlessUnits, type DayResult } from "#core/market/day";
import { micros, type Micros } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { beforeCosts, COST_KNOWN } from "#core/stock/costKnown";
import { counted } from "#core/words";
import { Figure, HowLine, Reckoner } from "../ui/figures/reckoner.tsx";
import { useWorkshop } from "../ui/workshop.ts";

interface Props {
  result: DayResult;
  lines: readonly ({ taken: number; sold: number; price: Micros } & Parameters<typeof costlessUnits>[0][number])[];
  stallFee: Micros;
  travel: Micros;
  byCard: Micros;
  /** In basis points. */
  cardFeeBp: number;
  hours: number;
  unread?: string | null;
}

export function DayReckoner({ result, lines, stallFee, travel, byCard, cardFeeBp, hours, unread }: Props) {
  const { currency } = useWorkshop();
  const costless = costlessUnits(lines);
  const carried = micros(lines.reduce((a, r) => a + r.taken * r.price, 0));
  return (
    <Reckoner unread={unread}>
      <Figure
        label="Takings"
        value={money(result.takings, currency)}
        how={lines
          .filter((r) => r.sold > 0)
          .map((r, i) => (
            <HowLine key={i} label={`${r.sold} × ${money(r.price, currency)}`} value={money(r.sold * r.price, currency)} />
          ))}
      />
      <Figure
        label="Stock that went"
        value={costless > 0 && result.stockCost === 0 ? COST_KNOWN.none : `− ${money(result.stockCost, currency)}`}
        how={
          <>
            <p>What the materials of all units cost that were sold, given and damaged, lot by lot. The work of making them is not in it.</p>
            {costless > 0 && <p>What {counted(costless, "unit")} cost isn’t known: say it on the lot’s page.</p>}
          </>
        }
      />
      <Figure label="Stall fee" value={`− ${money(stallFee, currency)}`} />
      <Figure label="Travel" value={`− ${money(travel, currency)}`} />
      <Figure
        label="Card fee"
        value={`− ${money(result.cardFee, currency)}`}
        how={<HowLine label={`${cardFeeBp / 100} % of`} value={money(byCard, currency)} />}
      />
      {costless > 0 ? (
        <Figure label={beforeCosts(costless)} big value={money(result.profit, currency)} />
      ) : (
        <Figure label="Profit" big tone={result.profit < 0 ? "bad" : "good"} value={money(result.profit, currency)} />
      )}
      <Figure
        label="Each hour there"
        value={result.perHour === null || costless > 0 ? "—" : money(result.perHour, currency)}
        how={
          <p>
            {hours ? `Over ${hours} hours on the stall and the road.` : "Enter the hours to see it."} The hours of making are not in it.
          </p>
        }
      />
      <Figure label="On the stall, at full price" value={money(carried, currency)} />
    </Reckoner>
  );
}
