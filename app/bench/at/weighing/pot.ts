/** The pot as the core takes it, out of what the page was read with. */
import type { PotLine } from "#core/batch/weighing/weighingFixes";
import type { AtBenchLoaded } from "../loaded.ts";

const costOf = (lot: { onHand: number; value: number } | undefined): number | null =>
  lot && lot.onHand > 0 ? lot.value / lot.onHand : null;

/** Lines as the pot has them: of several lots of one material each is a line. What goes into a part only comes after all of them, and isn't in it. */
export const potOf = ({ takes, lots }: AtBenchLoaded): PotLine[] =>
  takes
    .filter((t) => t.sizeId === null)
    .map((t) => ({
      name: t.material,
      planned: t.planned,
      weighed: t.weighed,
      sets: t.sets,
      scent: t.scent,
      carries: t.carries,
      position: t.position,
      onHand: lots.filter((l) => l.of === t.materialId && !l.hold).reduce((n, l) => n + l.onHand, 0),
      perMg: costOf(lots.find((l) => l.id === t.lotId)),
    }));

/** Which line it is: its place, its lot, and which of those. */
export function lineOf(takes: AtBenchLoaded["takes"], line: number): { position: number; lotId: number; nth: number } {
  const { position, lotId } = takes[line]!;
  return { position, lotId, nth: takes.slice(0, line).filter((t) => t.position === position && t.lotId === lotId).length };
}

/** Whether there is some of it in the pot by the line before: out of another lot, or added later. */
export const isMore = (takes: AtBenchLoaded["takes"], line: number): boolean =>
  takes.slice(0, line).some((t) => t.position === takes[line]!.position && t.materialId === takes[line]!.materialId);
