/**
 * In what order a pot is melted: the hardest first, each softer one as the one before goes, liquid oils last, so that what is soft isn't
 * heated for as long as what is hard. What heat harms goes in off the heat. Common practice, no source.
 */
import { meltsAt, type Sets } from "../../firmness/solids.ts";

export interface MeltLine {
  sets: Sets;
  /** A scent, an antioxidant, or an oil that heat harms. */
  delicate: boolean;
}

export interface MeltStage {
  /** Where it is melted, °C; null for oils, which are, and for what goes in off the heat. */
  melts: number | null;
  offHeat: boolean;
  /** Lines by their place. */
  lines: number[];
}

/** What is melted within so many degrees of each other goes in together. */
const TOGETHER = 3;

/**
 * Stages of a melt, in order; what is only one stage has no order to keep.
 * @example meltSequence([{ sets: liquid, delicate: false }, { sets: waxy, delicate: false }]).map((s) => s.lines) // [[1], [0]]
 */
export function meltSequence(lines: readonly MeltLine[]): MeltStage[] {
  const at = lines.map((l, i) => ({ i, melts: meltsAt(l.sets), offHeat: l.delicate || l.sets.as === "powder" }));
  const hot = at.filter((l) => !l.offHeat && l.melts > 0).sort((a, b) => b.melts - a.melts);
  const stages: MeltStage[] = [];
  for (const { i, melts } of hot) {
    const last = stages.at(-1);
    if (last && last.melts! - melts <= TOGETHER) last.lines.push(i);
    else stages.push({ melts, offHeat: false, lines: [i] });
  }
  const rest = (offHeat: boolean): void => {
    const own = at.filter((l) => l.offHeat === offHeat && (offHeat || l.melts === 0)).map((l) => l.i);
    if (own.length > 0) stages.push({ melts: null, offHeat, lines: own });
  };
  rest(false);
  rest(true);
  return stages;
}
