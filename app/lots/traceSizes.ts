/** How large things are in a drawn trace, in pixels: as wide as its room allows, and as high as their words need, so that none is cut. */
import { columns, type GraphNode, type LotGraph } from "#core/lot/graph";

export const GAP_PX = 8;
export const RANK_GAP_PX = 26;
const POT_PX = 34;
/** The room of a sheet beside its Reckoner. */
const ROOM_PX = 812;
const WIDTH_PX = { least: 150, most: 250 };
/** Between the edges of a tag and its words, on both sides together. */
const EDGE_PX = 24;
/** A letter at its widest on average, and a line of them: of what it is called, of a number, and of what is under it. */
const TITLE = { letter: 7.6, line: 18 };
const NUMBER = { letter: 8.2, line: 18 };
const SUB = { letter: 6.6, line: 16 };

export interface Size {
  width: number;
  height: number;
}

export const isPot = (n: Pick<GraphNode, "kind">): boolean => n.kind === "batch" || n.kind === "jar";
/** Set in the face of lot numbers. */
export const isNumber = (n: GraphNode): boolean => n.kind === "lot" && n.to !== null;

/** What a text takes where it is broken between words, a word longer than a line within. */
function high(text: string, { letter, line }: typeof TITLE, width: number): number {
  const most = Math.max(1, Math.floor((width - EDGE_PX) / letter));
  let [lines, used] = [1, 0];
  for (const word of text.split(" ")) {
    if (used > 0 && used + 1 + word.length <= most) used += 1 + word.length;
    else {
      if (used > 0) lines += 1;
      lines += Math.floor(Math.max(0, word.length - 1) / most);
      used = ((word.length - 1) % most) + 1;
    }
  }
  return lines * line;
}

/** The size of every node, and what the whole will take. */
export function sizesOf(graph: LotGraph): { sizes: Map<string, Size>; width: number; height: number } {
  const drawn = columns(graph);
  const pots = drawn.filter((c) => c.every(isPot)).length;
  const tags = drawn.length - pots;
  const free = ROOM_PX - pots * POT_PX - (drawn.length - 1) * RANK_GAP_PX;
  const tag = Math.max(WIDTH_PX.least, Math.min(WIDTH_PX.most, Math.floor(free / Math.max(1, tags))));
  const sizeOf = (n: GraphNode): Size =>
    isPot(n)
      ? { width: POT_PX, height: POT_PX }
      : { width: tag, height: 8 + high(n.title, isNumber(n) ? NUMBER : TITLE, tag) + high(n.sub, SUB, tag) };
  const sizes = new Map(graph.nodes.map((n) => [n.key, sizeOf(n)]));
  const heights = drawn.map((c) => c.reduce((a, n) => a + sizes.get(n.key)!.height + GAP_PX, GAP_PX));
  return { sizes, width: ROOM_PX - free + tags * tag, height: Math.max(0, ...heights) };
}
