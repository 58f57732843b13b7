/** The picture itself: laid out from left to right, lots as tags, a pot or a jar where they were joined, and where units went. */
import type { GraphNode, LotGraph } from "#core/lot/graph";
import dagre from "@dagrejs/dagre";
import { useLayoutEffect, useMemo, useRef } from "react";
import { Link } from "../ui/link.tsx";
import { GAP_PX, NODE_PX } from "./traceSizes.ts";

interface Point {
  x: number;
  y: number;
}
const RANK_GAP_PX = 26;

function layOut({ nodes, edges }: LotGraph) {
  const g = new dagre.graphlib.Graph<object, Point & { width: number; height: number }, { points: Point[] }>();
  g.setGraph({ rankdir: "LR", nodesep: GAP_PX, edgesep: 4, ranksep: RANK_GAP_PX, marginx: 2, marginy: GAP_PX });
  g.setDefaultEdgeLabel(() => ({ points: [] }));
  for (const n of nodes) g.setNode(n.key, { ...NODE_PX[n.kind], x: 0, y: 0 });
  for (const e of edges) g.setEdge(e.from, e.to);
  dagre.layout(g);
  const { width = 0, height = 0 } = g.graph() as { width?: number; height?: number };
  return {
    width,
    height,
    nodes: nodes.map((n) => ({ ...n, ...g.node(n.key) })),
    lines: edges.map((e) => {
      const [from, to] = [g.node(e.from), g.node(e.to)];
      const between = g.edge(e.from, e.to).points.slice(1, -1);
      // Of neighbours what is between is only the middle.
      const by = Math.abs(to.x - from.x) > from.width / 2 + to.width / 2 + 2 * RANK_GAP_PX ? between : [];
      return {
        key: `${e.from} ${e.to}`,
        points: [{ x: from.x + from.width / 2, y: from.y }, ...by, { x: to.x - to.width / 2, y: to.y }],
      };
    }),
  };
}

/** From the right of one to the left of the other, level at both ends and where it passes between others. */
function curve(points: readonly Point[]): string {
  return points
    .map((p, i) => {
      const before = points[i - 1];
      if (!before) return `M${p.x} ${p.y}`;
      const middle = (before.x + p.x) / 2;
      return `C${middle} ${before.y} ${middle} ${p.y} ${p.x} ${p.y}`;
    })
    .join("");
}

const GLYPH = {
  batch: "M5 9h14v8a3 3 0 0 1-3 3H8a3 3 0 0 1-3-3zM4 9h16M2.5 12.5H5M19 12.5h2.5M9.5 6.5c0-1.5 1-1.5 1-3M13.5 6.5c0-1.5 1-1.5 1-3",
  jar: "M8 3h8v3H8zM8.5 6C6 7 5 8.5 5 10.5V18a3 3 0 0 0 3 3h8a3 3 0 0 0 3-3v-7.5C19 8.5 18 7 15.5 6M5 13h14",
} as const;

function Shape({ node }: { node: GraphNode }) {
  if (node.kind === "batch" || node.kind === "jar")
    return (
      <span className="grid h-full w-full place-items-center rounded-full border-[1.5px] border-amber bg-sheet text-amber">
        <svg
          aria-hidden="true"
          viewBox="0 0 24 24"
          className="h-5 w-5"
          fill="none"
          stroke="currentColor"
          strokeWidth="1.7"
          strokeLinejoin="round"
        >
          <path d={GLYPH[node.kind]} />
        </svg>
        <span className="sr-only">
          {node.title}, {node.sub}
        </span>
      </span>
    );
  const looks =
    node.kind === "place"
      ? "rounded border border-sage bg-sage-wash"
      : `border-l-[5px] ${node.start ? "border-amber bg-honey-wash" : "border-rule-strong bg-paper-deep"}`;
  return (
    <span className={`flex h-full w-full flex-col justify-center overflow-hidden px-2 leading-tight ${looks}`}>
      <span className={`truncate text-[0.84rem] font-semibold ${node.kind === "lot" && node.to ? "font-mono" : ""}`}>{node.title}</span>
      <span className="truncate text-[0.76rem] text-pine-soft">{node.sub}</span>
    </span>
  );
}

export default function TraceGraph({ graph }: { graph: LotGraph }) {
  const { nodes, lines, width, height } = useMemo(() => layOut(graph), [graph]);
  const frame = useRef<HTMLDivElement>(null);
  // What it is about stands in the middle of it at first.
  useLayoutEffect(() => {
    const start = nodes.find((n) => n.start);
    if (!frame.current || !start) return;
    frame.current.scrollTo(start.x - frame.current.clientWidth / 2, start.y - frame.current.clientHeight / 2);
  }, [nodes]);
  return (
    <div
      ref={frame}
      role="group"
      aria-label="Drawn from supplier to customer"
      tabIndex={0}
      className="h-full overflow-auto rounded border border-rule bg-paper print:h-auto print:overflow-visible"
    >
      <div className="relative print:[zoom:0.7]" style={{ width: `${width}px`, height: `${height}px` }}>
        <svg
          aria-hidden="true"
          className="absolute inset-0"
          width={width}
          height={height}
          fill="none"
          stroke="var(--color-rule-strong)"
          strokeWidth="1.3"
        >
          {lines.map((l) => (
            <path key={l.key} d={curve(l.points)} />
          ))}
        </svg>
        {nodes.map((n) => {
          const style = { left: `${n.x - n.width / 2}px`, top: `${n.y - n.height / 2}px`, width: `${n.width}px`, height: `${n.height}px` };
          const title = `${n.title}, ${n.sub}`;
          return n.to === null ? (
            <span key={n.key} className="absolute" style={style} title={title}>
              <Shape node={n} />
            </span>
          ) : (
            <Link key={n.key} to={n.to} className="absolute hover:brightness-95" style={style} title={title}>
              <Shape node={n} />
            </Link>
          );
        })}
      </div>
    </div>
  );
}
