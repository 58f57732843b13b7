/**
 * A lot's trace as a graph, to be drawn: what it came from on the left, what it went into on the right, and where that is now. A batch or a jar
 * is between what went into it and what came out, so that a dozen lots in three sizes are fifteen lines and not thirty-six.
 *
 * A lot of wax goes into hundreds of tins: what is too much to look at is folded, first by product and place, then by product alone; the table
 * beside it has every lot.
 */
import { groupBy } from "../collect.ts";
import { counted } from "../words.ts";
import type { Link } from "./trace.ts";

export type NodeKind = "lot" | "batch" | "jar" | "place";

export interface GraphNode {
  key: string;
  kind: NodeKind;
  /** A lot's number, or what is folded in it. */
  title: string;
  sub: string;
  /** Where it is read; null where several are folded in one. */
  to: string | null;
  start: boolean;
}

export interface LotGraph {
  nodes: GraphNode[];
  edges: { from: string; to: string }[];
  /** Several lots drawn as one. */
  folded: boolean;
}

export interface GraphLot {
  id: number;
  number: string;
  name: string;
  label: string;
  supplier: string | null;
}

/** What joins lots to what was made of them, and where units went. */
export interface Joint {
  lotId: number;
  kind: Exclude<NodeKind, "lot">;
  title: string;
  sub: string;
  to: string;
}

export interface GraphIn {
  start: number;
  links: readonly Link[];
  lots: readonly GraphLot[];
  /** The batch or jar each lot came out of. */
  makers: readonly Joint[];
  /** The market days and orders each lot went to. */
  places: readonly Joint[];
}

/** More than this is no picture any more. */
export const NODES_AT_MOST = 42;

type Edge = LotGraph["edges"][number];
/** Each once; none to itself. */
const distinct = (edges: readonly Edge[]): Edge[] => [
  ...new Map(edges.filter((e) => e.from !== e.to).map((e) => [`${e.from}\n${e.to}`, e])).values(),
];
const what = (l: GraphLot): string => (l.label ? `${l.name}, ${l.label}` : l.name);
const lotKey = (id: number): string => `lot ${id}`;
const jointKey = (j: Joint): string => `${j.kind} ${j.to}`;

/** Every lot, batch, jar and place by itself. */
function whole({ start, links, lots, makers, places }: GraphIn): LotGraph {
  const maker = new Map(makers.map((m) => [m.lotId, m]));
  const edges = links.flatMap(({ from, to }): Edge[] => {
    const m = maker.get(to);
    const [a, b] = [lotKey(from), lotKey(to)];
    return m
      ? [
          { from: a, to: jointKey(m) },
          { from: jointKey(m), to: b },
        ]
      : [{ from: a, to: b }];
  });
  const used = new Set(edges.flatMap((e) => [e.from, e.to]));
  const joints = [...makers.filter((m) => used.has(jointKey(m))), ...places];
  return {
    nodes: [
      ...lots.map((l) => ({
        key: lotKey(l.id),
        kind: "lot" as const,
        title: l.number,
        sub: l.supplier ? `${what(l)} · ${l.supplier}` : what(l),
        to: `/lots/${encodeURIComponent(l.number)}`,
        start: l.id === start,
      })),
      ...[...groupBy(joints, jointKey)].map(([key, [j]]) => ({
        key,
        kind: j!.kind,
        title: j!.title,
        sub: j!.sub,
        to: j!.to,
        start: false,
      })),
    ],
    edges: distinct([...edges, ...places.map((p) => ({ from: lotKey(p.lotId), to: jointKey(p) }))]),
    folded: false,
  };
}

/** Lots of one product as one, and what joins them left out; the lot it starts from stays by itself. @param classOf what is folded together */
function folded(g: GraphIn, classOf: { lot: (l: GraphLot) => string; place: (j: Joint) => string }): LotGraph {
  const { start, links, lots, places } = g;
  const keyOf = new Map(lots.map((l) => [l.id, l.id === start ? lotKey(l.id) : `of ${classOf.lot(l)}`]));
  const placeKey = (p: Joint): string => `at ${classOf.place(p)}`;
  const [own] = lots.filter((l) => l.id === start);
  const classes = groupBy(
    lots.filter((l) => l.id !== start),
    classOf.lot,
  );
  return {
    nodes: [
      ...(own ? whole({ start, links: [], lots: [own], makers: [], places: [] }).nodes : []),
      ...[...classes].map(([title, all]) => ({
        key: `of ${title}`,
        kind: "lot" as const,
        title: all.length === 1 ? all[0]!.number : title,
        sub: all.length === 1 ? what(all[0]!) : counted(all.length, "lot"),
        to: all.length === 1 ? `/lots/${encodeURIComponent(all[0]!.number)}` : null,
        start: false,
      })),
      ...[...groupBy(places, placeKey)].map(([key, all]) => {
        const times = new Set(all.map((p) => p.to)).size;
        const one = times === 1 ? all[0]! : null;
        const title = classOf.place(all[0]!);
        return { key, kind: "place" as const, title, sub: one?.sub ?? counted(times, "time"), to: one?.to ?? null, start: false };
      }),
    ],
    edges: distinct([
      ...links.map(({ from, to }) => ({ from: keyOf.get(from)!, to: keyOf.get(to)! })),
      ...places.map((p) => ({ from: keyOf.get(p.lotId)!, to: placeKey(p) })),
    ]),
    folded: true,
  };
}

/**
 * A lot's trace as a graph of no more than can be looked at.
 * @example lotGraph({ start: 1, links: [], lots: [], makers: [], places: [] }).nodes // []
 */
export function lotGraph(g: GraphIn): LotGraph {
  const all = whole(g);
  if (all.nodes.length <= NODES_AT_MOST) return all;
  const byProduct = folded(g, { lot: what, place: (p) => p.title });
  if (byProduct.nodes.length <= NODES_AT_MOST) return byProduct;
  return folded(g, { lot: (l) => l.name, place: (p) => (p.to.startsWith("/gifts") ? "Orders" : "Markets") });
}

/** The nodes in columns from left to right, each right of all that lead to it: what room a drawing will need. @example columns({ nodes: [], edges: [], folded: false }) // [] */
export function columns({ nodes, edges }: LotGraph): GraphNode[][] {
  const into = groupBy(edges, (e) => e.to);
  const rank = new Map<string, number>();
  const rankOf = (key: string, above: ReadonlySet<string>): number => {
    const known = rank.get(key);
    if (known !== undefined) return known;
    // A mixture that came back into what it was made of is drawn once.
    const before = (into.get(key) ?? []).filter((e) => !above.has(e.from));
    const own = before.reduce((n, e) => Math.max(n, rankOf(e.from, new Set([...above, key])) + 1), 0);
    rank.set(key, own);
    return own;
  };
  const ranks = groupBy(nodes, (n) => rankOf(n.key, new Set()));
  return [...ranks].sort(([a], [b]) => a - b).map(([, column]) => column);
}
