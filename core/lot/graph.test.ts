/** A trace as a graph: nothing is lost or joined that isn't, and it stays small enough to look at. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { columns, lotGraph, NODES_AT_MOST, type GraphIn, type Joint } from "./graph.ts";
import { trace } from "./trace.ts";

const place = (lotId: number, n: number): Joint => ({
  lotId,
  kind: "place",

  title: `Fair ${n % 3}`,
  sub: `day ${n}`,
  to: `/markets/${n}`,
});

/** A lot that so many others come of, each out of a separate batch and sold at a few fairs; of so many products. */
const many = (n: number, products: number): GraphIn => ({
  start: 1,
  links: Array.from({ length: n }, (_, i) => ({ from: 1, to: i + 2 })),
  lots: Array.from({ length: n + 1 }, (_, i) => ({
    id: i + 1,
    number: `L${i + 1}`,
    name: i === 0 ? "Beeswax" : `Balm ${i % products}`,
    label: i === 0 ? "" : `${(i % 2) * 30 + 30} g`,
    supplier: null,
  })),
  makers: Array.from({ length: n }, (_, i) => ({ lotId: i + 2, kind: "batch" as const, title: "Balm", sub: "", to: `/bench/${i}` })),
  places: Array.from({ length: n }, (_, i) => place(i + 2, i % 40)),
});

/** Which nodes can be reached from one. */
function reachable(edges: readonly { from: string; to: string }[], start: string): Set<string> {
  const seen = new Set([start]);
  for (let more = true; more;) {
    more = false;
    for (const e of edges)
      if (seen.has(e.from) && !seen.has(e.to)) {
        seen.add(e.to);
        more = true;
      }
  }
  return seen;
}

describe("a drawn trace", () => {
  it("leads from a lot to just what it is in, whatever stands between", () => {
    const link = fc.record({ from: fc.integer({ min: 1, max: 8 }), to: fc.integer({ min: 1, max: 8 }) });
    fc.assert(
      fc.property(fc.array(link, { maxLength: 14 }), fc.subarray([1, 2, 3, 4, 5, 6, 7, 8]), (links, made) => {
        const lots = Array.from({ length: 8 }, (_, i) => ({ id: i + 1, number: `L${i + 1}`, name: "Oil", label: "", supplier: null }));
        const makers = made.map((lotId) => ({ lotId, kind: "jar" as const, title: "Jar", sub: "", to: `/jars/${lotId}` }));
        const g = lotGraph({ start: 1, links, lots, makers, places: [] });
        const keys = new Set(g.nodes.map((n) => n.key));
        expect(keys.size).toBe(g.nodes.length);
        for (const e of g.edges) expect([keys.has(e.from), keys.has(e.to)]).toEqual([true, true]);
        const found = [...reachable(g.edges, "lot 1")].filter((k) => k.startsWith("lot") && k !== "lot 1");
        expect(found.sort()).toEqual(
          trace(1, links, "forward")
            .map((s) => `lot ${s.lot}`)
            .sort(),
        );
        const drawn = columns(g);
        expect(drawn.flat().length).toBe(g.nodes.length);
        // Where nothing leads back to itself, every line goes from left to right.
        const at = new Map(drawn.flatMap((nodes, i) => nodes.map((n) => [n.key, i] as const)));
        if (!g.edges.some((e) => reachable(g.edges, e.to).has(e.from)))
          for (const e of g.edges) expect(at.get(e.from)!).toBeLessThan(at.get(e.to)!);
      }),
    );
  });
  it.each([
    [10, 3, false],
    [200, 5, true],
    [3000, 30, true],
  ])("of %d lots in %d products stays small enough to look at", (n, products, folded) => {
    const g = lotGraph(many(n, products));
    expect(g.folded).toBe(folded);
    expect(g.nodes.length).toBeLessThanOrEqual(NODES_AT_MOST);
    expect(g.nodes.filter((x) => x.start)).toHaveLength(1);
    // All that was sold can still be reached from where it began.
    const far = reachable(g.edges, "lot 1");
    for (const x of g.nodes) expect(far.has(x.key), x.title).toBe(true);
  });
});
