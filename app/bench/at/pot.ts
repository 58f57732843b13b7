/** The pot as the core takes it, out of what the page was read with. */
import { substitute, type Consequence, type PotLine } from "#core/batch/offTarget";
import type { Mg } from "#core/measure/exact";
import { likeKinds } from "#core/recipe/instead/standIn";
import type { AtBenchLoaded } from "./loaded.ts";

const costOf = (lot: { onHand: number; value: number } | undefined): number | null =>
  lot && lot.onHand > 0 ? lot.value / lot.onHand : null;

/** Lines as the pot has them: of several lots of one material each is a line. What goes into a part only comes after all of them, and isn't in it. */
export const potOf = ({ takes, lots }: AtBenchLoaded): PotLine[] =>
  takes.flatMap((t) =>
    t.sizeId === null
      ? [
          {
            name: t.material,
            planned: t.planned,
            weighed: t.weighed,
            sets: t.sets,
            scent: t.scent,
            position: t.position,
            onHand: lots.filter((l) => l.of === t.materialId && !l.hold).reduce((n, l) => n + l.onHand, 0),
            perMg: costOf(lots.find((l) => l.id === t.lotId)),
          },
        ]
      : [],
  );

/** Which line it is: its place, its lot, and which of those. */
export function lineOf(takes: AtBenchLoaded["takes"], line: number): { position: number; lotId: number; nth: number } {
  const { position, lotId } = takes[line]!;
  return { position, lotId, nth: takes.slice(0, line).filter((t) => t.position === position && t.lotId === lotId).length };
}

/** Whether there is some of it in the pot by the line before: out of another lot, or added later. */
export const isMore = (takes: AtBenchLoaded["takes"], line: number): boolean =>
  takes.slice(0, line).some((t) => t.position === takes[line]!.position && t.materialId === takes[line]!.materialId);

/** Something that could take the place of what is missing: how much of it, and what that does. */
export interface AtHand extends Consequence {
  materialId: number;
  name: string;
  amount: Mg;
  /** What has to be named of it, and isn't of what it stands for. */
  allergen: string;
}

/** So many are offered. */
const OFFERED = 3;

/** What could take the place of a line there isn't enough of; nothing where there is too much. */
export const standInsOf = (page: AtBenchLoaded, line: number, weighed: Mg): AtHand[] => {
  const take = page.takes[line]!;
  if (take.sizeId !== null || weighed >= take.planned) return [];
  const pot = potOf(page);
  return page.instead
    .filter((m) => likeKinds(take.kind).includes(m.kind))
    .flatMap((m) => {
      const does = substitute(pot, line, weighed, m, page.constants);
      const { materialId, name, allergen } = m;
      return does ? [{ materialId, name, allergen: allergen === take.allergen ? "" : allergen, ...does }] : [];
    })
    .slice(0, OFFERED);
};
