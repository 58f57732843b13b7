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
      <AreaChart data={[...points]} margin={{ left: 0, right: 18, top: 38, bottom: 0 }} accessibilityLayer>
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
          formatter={(n, _, { payload }: { payload?: Point }) => [`${percent(n)}, ${payload?.feel ?? ""}`, "like beeswax in oil"]}
          labelFormatter={(c) => `${Number(c)} °C`}
          {...TOLD}
        />
        {PLACE_IDS.map((p, i) => (
          <ReferenceLine
            key={p}
            x={PLACES[p].celsius}
            stroke="var(--color-pine-soft)"
            strokeDasharray="3 3"
            label={(at: { viewBox?: { x?: number; y?: number } }) => (
              // By turns at two heights, so that neighbours don't meet on a phone.
              <text
                x={at.viewBox?.x}
                y={(at.viewBox?.y ?? 0) - (i % 2 ? 22 : 6)}
                textAnchor="middle"
                fontSize={13}
                fill="var(--color-pine)"
              >
                {PLACES[p].label}
              </text>
            )}
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
