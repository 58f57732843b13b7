/** Each lot's life as a bar from its pouring to its day, today across all of them; drawn only, its words are in the table. */
import { AGE_IDS, AGES, type Age, type Life } from "#core/cabinet/ages";
import { useState } from "react";
import { Bar, BarChart, CartesianGrid, LabelList, Legend, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { FIGURES, LEGEND, names, TOLD } from "../ui/figures/chart.tsx";

const LOOKS: Record<Age, { fill: string; stroke: string }> = {
  past: { fill: "var(--color-berry)", stroke: "var(--color-berry)" },
  soon: { fill: "var(--color-amber)", stroke: "var(--color-amber-deep)" },
  second: { fill: "var(--color-amber-glass)", stroke: "var(--color-amber)" },
  first: { fill: "var(--color-sage-wash)", stroke: "var(--color-sage)" },
};
const MONTH = 365.25 / 12;
/** What has no day is drawn a year on. */
const NO_DAY = 365;

export default function AgeChart({ lots }: { lots: readonly Life[] }) {
  const [width, setWidth] = useState(800);
  const end = (l: Life): number => l.left ?? NO_DAY;
  const rows = lots.map((l) => ({ ...l, [l.is]: [-l.age, end(l)], here: `${l.onHand}`, row: String(l.id) }));
  const called = new Map(lots.map((l) => [String(l.id), l.name]));
  const [least, most] = [Math.min(-MONTH, ...lots.map((l) => -l.age)), Math.max(MONTH, ...lots.map(end))];
  // A mark every so many months, as many as there is room for.
  const step = Math.max(1, Math.ceil((most - least) / MONTH / (width < 560 ? 5 : 12)));
  const from = Math.ceil(least / MONTH / step);
  const marks = Array.from({ length: Math.floor(most / MONTH / step) - from + 1 }, (_, i) => (from + i) * step);
  return (
    <ResponsiveContainer width="100%" height="100%" onResize={setWidth}>
      <BarChart data={rows} layout="vertical" margin={{ left: 8, right: 34, top: 22, bottom: 0 }} barSize={14} accessibilityLayer>
        <CartesianGrid horizontal={false} stroke="var(--color-rule)" />
        <XAxis
          type="number"
          domain={[least, most]}
          ticks={marks.map((m) => m * MONTH)}
          tickFormatter={(d: number) => `${Math.round(d / MONTH)}`}
          label={{ value: "months from today", position: "insideBottomRight", offset: -2, fontSize: 12, fill: "var(--color-pine-soft)" }}
          height={42}
          {...FIGURES}
        />
        <YAxis {...names(width)} dataKey="row" tickFormatter={(id: string) => called.get(id) ?? ""} />
        <Tooltip
          labelFormatter={(id) => (typeof id === "string" ? called.get(id) : "") ?? ""}
          formatter={(_, name, { payload: l }: { payload?: Life }) => [
            l ? `${l.onHand} here, ${l.age} days old, ${l.left === null ? "no day" : `${l.left} days left`}` : "",
            name,
          ]}
          {...TOLD}
        />
        <Legend {...LEGEND} />
        {AGE_IDS.filter((a) => lots.some((l) => l.is === a)).map((a) => (
          <Bar key={a} dataKey={a} name={AGES[a]} stackId="life" {...LOOKS[a]} isAnimationActive={false}>
            <LabelList
              dataKey={(row: unknown) => ((row as Life).is === a ? String((row as Life).onHand) : "")}
              position="right"
              fontSize={13}
              fill="var(--color-pine)"
            />
          </Bar>
        ))}
        <ReferenceLine
          x={0}
          stroke="var(--color-pine)"
          strokeWidth={1.5}
          label={{ value: "today", position: "top", fontSize: 13, fill: "var(--color-pine)" }}
        />
      </BarChart>
    </ResponsiveContainer>
  );
}
