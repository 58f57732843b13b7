/** A lot's trace as a picture, from supplier to customer; the tables beneath say the same. */
import { lotGraph, type GraphIn } from "#core/lot/graph";
import type { traceLot } from "#db/lots/trace";
import { lazy, useMemo } from "react";
import { useSayDay } from "../ui/figures/amounts.tsx";
import { Drawn } from "../ui/figures/drawn.tsx";
import { Part } from "../ui/sheet/sheet.tsx";
import { sizesOf } from "./traceSizes.ts";

const TraceGraph = lazy(() => import("./traceGraph.tsx"));
/** Higher than this it is moved about in its frame. */
const HIGHEST_PX = 760;
const PHONE_PX = 420;
/** A pair of lots needs no more. */
const LOWEST_PX = 80;

type Traced = Awaited<ReturnType<typeof traceLot>>;

function graphOf({ lot, back, forward, links, history, made, strained }: Traced, sayDay: (day: string) => string): GraphIn {
  const lots = [lot, ...back.map((s) => s.lot), ...forward.map((s) => s.lot)];
  return {
    start: lot.id,
    links,
    lots: [...new Map(lots.map((l) => [l.id, l])).values()],
    makers: [
      ...made.flatMap((m) =>
        m.lotId === null ? [] : [{ lotId: m.lotId, kind: "batch" as const, title: m.name, sub: sayDay(m.day), to: `/bench/${m.batchId}` }],
      ),
      ...strained.map((j) => ({
        lotId: j.lotId,
        kind: "jar" as const,
        title: j.name,
        sub: `jar ${j.number}`,
        to: `/jars/${j.jarId}`,
      })),
    ],
    places: history.flatMap((h) => {
      if (h.marketDayId !== null)
        return [
          {
            lotId: h.lotId,
            kind: "place" as const,
            title: h.market!,
            sub: sayDay(h.day),
            to: `/markets/${h.marketDayId}`,
          },
        ];
      if (h.giftOrderId !== null)
        return [
          {
            lotId: h.lotId,
            kind: "place" as const,
            title: h.customer!,
            sub: sayDay(h.day),
            to: `/gifts/${h.giftOrderId}`,
          },
        ];
      return [];
    }),
  };
}

export function TraceDrawn({ traced }: { traced: Traced }) {
  const sayDay = useSayDay();
  const graph = useMemo(() => lotGraph(graphOf(traced, sayDay)), [traced, sayDay]);
  if (graph.edges.length === 0) return null;
  // Lines that pass between nodes need some room.
  const high = Math.max(LOWEST_PX, sizesOf(graph).height * 1.08);
  return (
    <Part
      title="From supplier to customer"
      aside={
        graph.folded && (
          <span className="text-small text-pine-soft">Too many to draw one by one: those of one product are drawn together.</span>
        )
      }
    >
      <Drawn height={Math.min(HIGHEST_PX, high)} onPhone={Math.min(PHONE_PX, high)} className="print:h-auto!">
        <TraceGraph graph={graph} />
      </Drawn>
    </Part>
  );
}
