/** What each ingredient costs in one unit, dearest first; the table beneath has the same figures. */
import { money } from "#core/measure/money";
import { useState } from "react";
import { Bar, BarChart, CartesianGrid, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { FIGURES, names, TOLD } from "../../ui/figures/chart.tsx";

export interface CostBar {
  name: string;
  /** Of the currency, not of its millionths. */
  cost: number;
}

export default function CostChart({ bars, currency }: { bars: readonly CostBar[]; currency: string }) {
  const [width, setWidth] = useState(800);
  const show = (n: unknown): string => money(Math.round(Number(n) * 1e6), currency);
  return (
    <ResponsiveContainer width="100%" height="100%" onResize={setWidth}>
      <BarChart data={[...bars]} layout="vertical" margin={{ left: 8, right: 24, top: 0, bottom: 0 }} barSize={16} accessibilityLayer>
        <CartesianGrid horizontal={false} stroke="var(--color-rule)" />
        <XAxis type="number" tickFormatter={show} {...FIGURES} />
        <YAxis {...names(width)} />
        <Tooltip formatter={show} {...TOLD} />
        <Bar dataKey="cost" name="in one unit" fill="var(--color-amber-glass)" stroke="var(--color-amber)" isAnimationActive={false} />
      </BarChart>
    </ResponsiveContainer>
  );
}
