/** Each jar as a bar over the weeks: steeping, usable, at its best; drawn only, its days are in the table. */
import type { Steeping } from "#core/infusion/tend";
import { addDays, daysBetween, sayDay, type Day } from "#core/when";
import { useState } from "react";
import { Bar, BarChart, CartesianGrid, Legend, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { FIGURES, LEGEND, names, TOLD } from "../ui/figures/chart.tsx";

export interface WeekJar extends Steeping {
  id: number;
  name: string;
  number: string;
}

const WEEK = 7;
const STAGES = [
  { key: "steeping", name: "steeping", fill: "var(--color-paper-deep)", stroke: "var(--color-rule-strong)" },
  { key: "usable", name: "could be strained", fill: "var(--color-sage-wash)", stroke: "var(--color-sage)" },
  { key: "best", name: "at its best", fill: "var(--color-amber-glass)", stroke: "var(--color-amber)" },
] as const;

export default function WeekChart({ jars, today }: { jars: readonly WeekJar[]; today: Day }) {
  const [width, setWidth] = useState(800);
  const start = jars.reduce((a, j) => (j.day < a ? j.day : a), today);
  const end = jars.reduce((a, j) => (j.latest > a ? j.latest : a), today);
  const at = (day: Day): number => daysBetween(start, day);
  const rows = jars.map((j) => ({
    name: j.name,
    steeping: [at(j.day), at(j.earliest)],
    usable: [at(j.earliest), at(j.best)],
    best: [at(j.best), at(j.latest)],
  }));
  const weeks = Math.ceil((at(end) + 1) / WEEK);
  // No more marks than can be read.
  const every = Math.max(1, Math.ceil(weeks / (width < 560 ? 4 : 9)));
  const ticks = Array.from({ length: Math.floor(weeks / every) + 1 }, (_, n) => n * every * WEEK);
  const day = (n: number): string => sayDay(addDays(start, n), today).replace(/^\w{3} /, "");
  return (
    <ResponsiveContainer width="100%" height="100%" onResize={setWidth}>
      <BarChart
        data={rows}
        layout="vertical"
        margin={{ left: 8, right: 24, top: 0, bottom: 0 }}
        barSize={16}
        barGap={-16}
        accessibilityLayer
      >
        <CartesianGrid horizontal={false} stroke="var(--color-rule)" />
        <XAxis type="number" domain={[0, weeks * WEEK]} ticks={ticks} tickFormatter={day} {...FIGURES} allowDataOverflow />
        <YAxis {...names(width)} />
        <Tooltip formatter={(v) => (Array.isArray(v) ? v.map((n) => day(Number(n))).join(" – ") : String(v))} {...TOLD} />
        <Legend {...LEGEND} />
        {STAGES.map(({ key, ...looks }) => (
          <Bar key={key} dataKey={key} {...looks} isAnimationActive={false} />
        ))}
        <ReferenceLine x={at(today)} stroke="var(--color-berry)" strokeWidth={2} />
      </BarChart>
    </ResponsiveContainer>
  );
}
