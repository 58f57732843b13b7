/** Landed cost over time, purchase by purchase; the table beneath has the same figures. */
import { money } from "#core/measure/money";
import { daysBetween, sayDay } from "#core/when";
import type { PriceRow } from "#db/shelf/buying";
import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { FIGURES, TOLD } from "../../ui/figures/chart.tsx";

interface Props {
  rows: readonly PriceRow[];
  measured: "weight" | "count";
  currency: string;
  today: string;
}

export default function PriceChart({ rows, measured, currency, today }: Props) {
  const scale = measured === "weight" ? 1_000_000 : 1;
  const first = rows[0]!.day;
  const points = rows.map((r) => ({
    at: daysBetween(first, r.day),
    day: r.day,
    cost: ((r.value / r.per) * scale) / 1e6,
    supplier: r.supplier,
  }));
  const unit = measured === "weight" ? "/kg" : "/pc";
  const show = (n: unknown): string => `${money(Math.round(Number(n) * 1e6), currency)}${unit}`;
  const dayAt = (at: unknown): string => {
    const p = points.find((x) => x.at === Number(at));
    return p ? `${sayDay(p.day, today)}, ${p.supplier}` : "";
  };
  const ticks = [...new Set(points.map((p) => p.at))].filter((_, i, all) => all.length < 8 || i % Math.ceil(all.length / 7) === 0);
  return (
    <ResponsiveContainer width="100%" height="100%">
      <LineChart data={points} margin={{ left: 8, right: 24, top: 8, bottom: 0 }} accessibilityLayer>
        <CartesianGrid vertical={false} stroke="var(--color-rule)" />
        <XAxis
          dataKey="at"
          type="number"
          domain={["dataMin", "dataMax"]}
          ticks={ticks}
          tickFormatter={(at: number) => dayAt(at).split(",")[0]!}
          {...FIGURES}
        />
        <YAxis domain={[0, "auto"]} width={84} tickFormatter={show} {...FIGURES} />
        <Tooltip formatter={show} labelFormatter={dayAt} {...TOLD} />
        <Line
          dataKey="cost"
          name="Delivered"
          stroke="var(--color-amber)"
          strokeWidth={2.5}
          dot={{ r: 4, fill: "var(--color-amber)" }}
          isAnimationActive={false}
        />
      </LineChart>
    </ResponsiveContainer>
  );
}
