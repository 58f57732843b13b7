/** How large things are in a drawn trace, in pixels. */
import type { NodeKind } from "#core/lot/graph";

export const NODE_PX: Record<NodeKind, { width: number; height: number }> = {
  lot: { width: 168, height: 44 },
  batch: { width: 34, height: 34 },
  jar: { width: 34, height: 34 },
  place: { width: 168, height: 44 },
};
export const GAP_PX = 8;
