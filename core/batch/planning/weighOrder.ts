/** In what order what goes into a pot is weighed: as the method names it or, where it doesn't name all of it, as a pot is melted. */
import { meltSequence, type MeltLine } from "./meltOrder.ts";

export interface WeighLine extends MeltLine {
  /** Of the line in its recipe; of several lots of one material the same. */
  position: number;
  material: string;
  /** The part it goes into alone, once that is ladled out; null for the whole pot. */
  sizeId: number | null;
}

/** Where a method first speaks of a material: by its name without what comes after a comma, or by the first word of it; -1 where it doesn't. */
function namedAt(method: string, material: string): number {
  const name = material.split(",")[0]!.trim().toLowerCase();
  const [first = ""] = name.split(" ");
  const at = method.indexOf(name);
  return at >= 0 || first.length < 4 ? at : method.indexOf(first);
}

/**
 * Lines in the order they are weighed in, those of a part last; lots of one line stay together, as they were.
 * @example weighOrder([{ position: 0, material: "Olive oil", sizeId: null, sets: liquid, delicate: false }, { position: 1, material: "Beeswax, yellow", sizeId: null, sets: waxy, delicate: false }], "Melt the beeswax in the olive oil.").map((l) => l.material) // ["Beeswax, yellow", "Olive oil"]
 */
export function weighOrder<T extends WeighLine>(lines: readonly T[], method: string): T[] {
  const pot = lines.filter((l) => l.sizeId === null);
  const one = [...new Map(pot.map((l) => [l.position, l])).values()];
  const text = method.toLowerCase();
  const named = one.map((l) => ({ l, at: namedAt(text, l.material) }));
  const order = named.every((n) => n.at >= 0)
    ? [...named].sort((a, b) => a.at - b.at).map((n) => n.l)
    : meltSequence(one).flatMap((stage) => stage.lines.map((i) => one[i]!));
  const rank = new Map(order.map((l, i) => [l.position, i]));
  return [...pot.sort((a, b) => rank.get(a.position)! - rank.get(b.position)!), ...lines.filter((l) => l.sizeId !== null)];
}
