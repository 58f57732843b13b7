/** What a hundred grams of each size cost on each channel, and what they cost to make; the table beneath has the same figures. */
import { money } from "#core/measure/money";
import { CHANNEL_IDS, CHANNELS, type ChannelId } from "#core/pricing/pricingMethods";
import { useState } from "react";
import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { FIGURES, LEGEND, names, TOLD } from "../ui/figures/chart.tsx";

export interface LadderBar {
  name: string;
  /** For a hundred grams, in micros. */
  cost: number | null;
  prices: Partial<Record<ChannelId, number>>;
}

const FILLS = {
  market: { fill: "var(--color-amber-glass)", stroke: "var(--color-amber)" },
  online: { fill: "var(--color-honey-wash)", stroke: "var(--color-honey)" },
  wholesale: { fill: "var(--color-sage-wash)", stroke: "var(--color-sage)" },
  gift: { fill: "var(--color-rule)", stroke: "var(--color-rule-strong)" },
} as const satisfies Record<ChannelId, object>;

export default function LadderChart({ bars, channels, currency }: { bars: LadderBar[]; channels: ChannelId[]; currency: string }) {
  const [width, setWidth] = useState(800);
  const rows = bars.map((b) => ({
    name: b.name,
    "Costs to make": b.cost === null ? null : b.cost / 1e6,
    ...Object.fromEntries(CHANNEL_IDS.map((c) => [CHANNELS[c], b.prices[c] === undefined ? null : b.prices[c] / 1e6])),
  }));
  const show = (n: unknown): string => money(Math.round(Number(n) * 1e6), currency);
  return (
    <ResponsiveContainer width="100%" height="100%" onResize={setWidth}>
      <BarChart data={rows} layout="vertical" margin={{ left: 8, right: 24, top: 0, bottom: 0 }} barSize={9} barGap={1} accessibilityLayer>
        <CartesianGrid horizontal={false} stroke="var(--color-rule)" />
        <XAxis type="number" tickFormatter={(n: number) => show(n).replace(/\.00$/, "")} {...FIGURES} />
        <YAxis {...names(width)} width={width < 560 ? 84 : 140} />
        <Tooltip formatter={show} {...TOLD} />
        <Legend {...LEGEND} itemSorter={null} />
        {channels.map((c) => (
          <Bar key={c} dataKey={CHANNELS[c]} {...FILLS[c]} isAnimationActive={false} />
        ))}
        <Bar dataKey="Costs to make" fill="var(--color-pine-soft)" isAnimationActive={false} />
      </BarChart>
    </ResponsiveContainer>
  );
}
