/** Each closed day's takings, split into stock, fees and what was left; the table beneath has the same figures. */
import { money } from "#core/measure/money";
import { useState } from "react";
import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { FIGURES, LEGEND, names, TOLD } from "../ui/figures/chart.tsx";

interface Day {
  label: string;
  stockCost: number;
  fees: number;
  cardFee: number;
  profit: number;
}

export default function DayChart({ days, currency }: { days: Day[]; currency: string }) {
  // On a phone the days' names may take no more than their share.
  const [width, setWidth] = useState(800);
  const rows = days.map((d) => ({
    name: d.label,
    Stock: d.stockCost / 1e6,
    "Fees and travel": (d.fees + d.cardFee) / 1e6,
    Profit: Math.max(0, d.profit / 1e6),
  }));
  const show = (n: unknown): string => money(Math.round(Number(n) * 1e6), currency);
  return (
    <ResponsiveContainer width="100%" height="100%" onResize={setWidth}>
      <BarChart data={rows} layout="vertical" margin={{ left: 8, right: 24, top: 0, bottom: 0 }} barSize={18} accessibilityLayer>
        <CartesianGrid horizontal={false} stroke="var(--color-rule)" />
        <XAxis type="number" tickFormatter={(n: number) => show(n).replace(/\.00$/, "")} {...FIGURES} />
        <YAxis {...names(width)} />
        <Tooltip formatter={show} {...TOLD} />
        <Legend {...LEGEND} />
        <Bar dataKey="Stock" stackId="day" fill="var(--color-pine-soft)" isAnimationActive={false} />
        <Bar dataKey="Fees and travel" stackId="day" fill="var(--color-rule)" stroke="var(--color-rule-strong)" isAnimationActive={false} />
        <Bar dataKey="Profit" stackId="day" fill="var(--color-amber-glass)" stroke="var(--color-amber)" isAnimationActive={false} />
      </BarChart>
    </ResponsiveContainer>
  );
}
