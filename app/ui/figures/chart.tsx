/** How every chart looks: its axes, its legend and what it says of a bar. */
import type { TooltipProps, XAxisProps, YAxisProps } from "recharts";

const INK = { stroke: "var(--color-pine-soft)", fontSize: 13 } as const;

/** An axis of figures. */
export const FIGURES = INK satisfies XAxisProps;

/** An axis of names; on a phone they may take no more than their share. @param width of the chart, in pixels */
export const names = (width: number) =>
  ({
    ...INK,
    type: "category",
    dataKey: "name",
    width: width < 560 ? 128 : 270,
    interval: 0,
    tickLine: false,
  }) as const satisfies YAxisProps;

export const TOLD = {
  contentStyle: { background: "var(--color-sheet)", borderColor: "var(--color-rule-strong)" },
} satisfies TooltipProps<number, string>;

export const LEGEND = {
  iconType: "square",
  formatter: (name: string) => <span style={{ color: "var(--color-pine)" }}>{name}</span>,
} as const;
