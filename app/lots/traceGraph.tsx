/** The picture itself: laid out from left to right, lots as tags, a pot or a jar where they were joined, and where units went. */
import { Link } from "react-router";
import type { GraphNode, LotGraph } from "#core/lot/graph";
import dagre from "@dagrejs/dagre";
import { useLayoutEffect, useMemo, useRef, useState, type CSSProperties } from "react";
import { GAP_PX, isNumber, isPot, RANK_GAP_PX, sizesOf } from "./traceSizes.ts";

interface Point {
  x: number;
  y: number;
}
/** On paper it is no wider than a page between its margins, and no higher than leaves room for what it is a picture of. */
const PAPER_PX = { width: 680, height: 820 };
/** Smaller than this nobody reads it: on paper the tables say it alone, on a screen it is moved about in its frame. */
const LEAST_SCALE = 0.55;

function layOut(graph: LotGraph) {
  const { nodes, edges } = graph;
  const { sizes } = sizesOf(graph);
  const g = new dagre.graphlib.Graph<object, Point & { width: number; height: number }, { points: Point[] }>();
  g.setGraph({ rankdir: "LR", nodesep: GAP_PX, edgesep: 4, ranksep: RANK_GAP_PX, marginx: 2, marginy: GAP_PX });
  g.setDefaultEdgeLabel(() => ({ points: [] }));
  for (const n of nodes) g.setNode(n.key, { ...sizes.get(n.key)!, x: 0, y: 0 });
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
  if (isPot(node))
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
          <path d={GLYPH[node.kind === "jar" ? "jar" : "batch"]} />
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
    <span className={`flex h-full w-full flex-col justify-center px-2 text-left [overflow-wrap:anywhere] ${looks}`}>
      <span className={`text-fine leading-4.5 font-semibold ${isNumber(node) ? "font-mono" : ""}`}>{node.title}</span>
      <span className="text-tiny leading-4 text-pine-soft">{node.sub}</span>
    </span>
  );
}

export default function TraceGraph({ graph }: { graph: LotGraph }) {
  const { nodes, lines, width, height } = useMemo(() => layOut(graph), [graph]);
  const frame = useRef<HTMLDivElement>(null);
  const [scale, fit] = useState(1);
  const onPaper = Math.min(1, PAPER_PX.width / width, PAPER_PX.height / height);
  // As large as its frame has room for; where that would be too small to read, the lot it is about is scrolled to the middle.
  useLayoutEffect(() => {
    const { current: at } = frame;
    if (!at) return;
    const room = Math.min(1, at.clientWidth / width, at.clientHeight / height);
    const fits = room < LEAST_SCALE ? 1 : room;
    fit(fits);
    const start = nodes.find((n) => n.start);
    if (start) at.scrollTo(start.x * fits - at.clientWidth / 2, start.y * fits - at.clientHeight / 2);
  }, [nodes, width, height]);
  return (
    <div
      ref={frame}
      role="group"
      aria-label="Drawn from supplier to customer"
      tabIndex={0}
      className={`h-full overflow-auto rounded border border-rule bg-paper print:h-auto print:break-inside-avoid print:overflow-visible ${onPaper < LEAST_SCALE ? "no-print" : ""}`}
    >
      <div
        className="relative [zoom:var(--fit)] print:[zoom:var(--paper)]"
        style={{ width: `${width}px`, height: `${height}px`, "--fit": scale, "--paper": onPaper } as CSSProperties}
      >
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
