/** How hard it is at each warmth, with the places it will be in; the table beneath has the same figures. */
import { PLACES, PLACE_IDS } from "#core/firmness/words";
import { Area, AreaChart, CartesianGrid, ReferenceArea, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { FIGURES, TOLD } from "../../ui/figures/chart.tsx";

export interface Point {
  celsius: number;
  firm: number;
  /** In words. */
  feel: string;
}

interface Props {
  points: readonly Point[];
  /** From where to where it is right in the kitchen. */
  right: readonly [number, number];
}

const percent = (n: unknown): string => `${Math.round(Number(n) * 100)} %`;

export default function FirmnessChart({ points, right }: Props) {
  const most = Math.max(right[1] * 1.15, ...points.map((p) => p.firm));
  return (
    <ResponsiveContainer width="100%" height="100%">
      <AreaChart data={[...points]} margin={{ left: 0, right: 18, top: 22, bottom: 0 }} accessibilityLayer>
        <ReferenceArea y1={right[0]} y2={right[1]} fill="var(--color-sage-wash)" fillOpacity={1} ifOverflow="hidden" />
        <CartesianGrid vertical={false} stroke="var(--color-rule)" />
        <XAxis
          dataKey="celsius"
          type="number"
          domain={["dataMin", "dataMax"]}
          ticks={[15, 20, 25, 30, 35, 40, 45]}
          tickFormatter={(c: number) => `${c} °C`}
          {...FIGURES}
        />
        <YAxis domain={[0, most]} width={46} tickFormatter={percent} {...FIGURES} />
        <Tooltip
          formatter={(n, _, { payload }: { payload?: Point }) => [`${percent(n)}, ${payload?.feel ?? ""}`, "as hard as beeswax at"]}
          labelFormatter={(c) => `${Number(c)} °C`}
          {...TOLD}
        />
        {PLACE_IDS.map((p) => (
          <ReferenceLine
            key={p}
            x={PLACES[p].celsius}
            stroke="var(--color-pine-soft)"
            strokeDasharray="3 3"
            label={{ value: PLACES[p].label, position: "top", fill: "var(--color-pine)", fontSize: 13 }}
          />
        ))}
        <Area
          dataKey="firm"
          type="monotone"
          stroke="var(--color-amber)"
          strokeWidth={2.5}
          fill="var(--color-amber-glass)"
          fillOpacity={0.35}
          isAnimationActive={false}
        />
      </AreaChart>
    </ResponsiveContainer>
  );
}
