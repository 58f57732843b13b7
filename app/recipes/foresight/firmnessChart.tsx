/**
 * How hard it is at each warmth, with the places it will be in, and the two marks it has to pass between to be right for what it is; the table
 * beneath has the same figures.
 */
import { PLACES, PLACE_IDS } from "#core/firmness/words";
import type { Side } from "#core/recipe/firmnessTargets";
import { Area, CartesianGrid, ComposedChart, Line, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { FIGURES, TOLD } from "../../ui/figures/chart.tsx";

export interface Point {
  celsius: number;
  firm: number;
  /** Of its wax alone. */
  wax: number;
  /** In words. */
  feel: string;
}

interface Props {
  points: readonly Point[];
  /** Above it, and below it, it is right. */
  soft: Side;
  hard: Side;
}

const percent = (n: unknown): string => `${Math.round(Number(n) * 100)} %`;

const MARK = { stroke: "var(--color-berry)", strokeWidth: 5, strokeOpacity: 0.75 };

export default function FirmnessChart({ points, soft, hard }: Props) {
  const most = Math.max(hard.bound * 1.3, ...points.map((p) => p.firm));
  return (
    <ResponsiveContainer width="100%" height="100%">
      <ComposedChart data={[...points]} margin={{ left: 0, right: 18, top: 38, bottom: 0 }} accessibilityLayer>
        <CartesianGrid vertical={false} stroke="var(--color-rule)" />
        <XAxis
          dataKey="celsius"
          type="number"
          domain={["dataMin", "dataMax"]}
          ticks={[10, 15, 20, 25, 30, 35, 40, 45]}
          tickFormatter={(c: number) => `${c} °C`}
          {...FIGURES}
        />
        <YAxis domain={[0, most]} width={46} tickFormatter={percent} {...FIGURES} />
        <Tooltip
          formatter={(n, name, { payload }: { payload?: Point }) =>
            name === "wax" ? [percent(n), "of it by wax"] : [`${percent(n)}, ${payload?.feel ?? ""}`, "like beeswax in oil"]
          }
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
        {hard.part === "wax" && (
          <Line dataKey="wax" stroke="var(--color-pine)" strokeDasharray="6 4" strokeWidth={1.5} dot={false} isAnimationActive={false} />
        )}
        <ReferenceLine
          segment={[
            { x: soft.celsius, y: 0 },
            { x: soft.celsius, y: soft.bound },
          ]}
          {...MARK}
        />
        <ReferenceLine
          segment={[
            { x: hard.celsius, y: hard.bound },
            { x: hard.celsius, y: most },
          ]}
          {...MARK}
        />
      </ComposedChart>
    </ResponsiveContainer>
  );
}
