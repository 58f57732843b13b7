/** Each product's units by age; drawn only, its words stand in the table. */
import { AGE_IDS, AGES, type Age, type AgedProduct } from "#core/cabinet/ages";
import { useState } from "react";
import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { FIGURES, LEGEND, names, TOLD } from "../ui/figures/chart.tsx";

const LOOKS: Record<Age, { fill: string; stroke: string }> = {
  past: { fill: "var(--color-berry)", stroke: "var(--color-berry)" },
  soon: { fill: "var(--color-amber)", stroke: "var(--color-amber-deep)" },
  second: { fill: "var(--color-amber-glass)", stroke: "var(--color-amber)" },
  first: { fill: "var(--color-sage-wash)", stroke: "var(--color-sage)" },
};
/** What is oldest stands nearest the name. */
const ORDER = [...AGE_IDS].reverse();

export default function AgeChart({ products }: { products: readonly AgedProduct[] }) {
  const [width, setWidth] = useState(800);
  const rows = products.map((p) => ({ name: p.name, ...p.units }));
  const drawn = ORDER.filter((a) => products.some((p) => p.units[a] > 0));
  return (
    <ResponsiveContainer width="100%" height="100%" onResize={setWidth}>
      <BarChart data={rows} layout="vertical" margin={{ left: 8, right: 24, top: 0, bottom: 0 }} barSize={16} accessibilityLayer>
        <CartesianGrid horizontal={false} stroke="var(--color-rule)" />
        <XAxis type="number" allowDecimals={false} {...FIGURES} />
        <YAxis {...names(width)} />
        <Tooltip {...TOLD} />
        <Legend {...LEGEND} />
        {drawn.map((a) => (
          <Bar key={a} dataKey={a} name={AGES[a]} stackId="age" {...LOOKS[a]} isAnimationActive={false} />
        ))}
      </BarChart>
    </ResponsiveContainer>
  );
}
