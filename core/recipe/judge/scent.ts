/** Scent: too much of an oil, too much for the sun, too much for the place and the person; and drops past counting. */
import { sayShare } from "../../measure/write.ts";
import { isScent, mostInPot, scentsOfBase } from "../../scent/dilution.ts";
import { sunLimitOf } from "../../scent/limits.ts";
import { tooMuchScent, type TooMuch } from "../../scent/tooMuch.ts";
import { mg, sum, type Mg } from "../../measure/exact.ts";
import { USUAL_DROPS_PER_ML } from "../../measure/mass.ts";
import { plainText } from "../../measure/parse.ts";
import { exactWeightText } from "../../measure/read.ts";
import { CAUTIONS } from "../../material/cautions.ts";
import { forScale, inGrams, type Judge, type Judged, type Judgement, type JudgedLine, type SuggestedFix } from "./judgement.ts";

/** One line cut down to a ceiling, if its amount is its own; never over, whatever the scale reads. Where none is allowed there is no such amount. */
function lowered(of: Judged, line: JudgedLine, ceiling: number): SuggestedFix | null {
  if (!inGrams(of) || ceiling === 0) return null;
  const entered = forScale(mostInPot(mg(of.total - line.weight), ceiling), of.scale, "down");
  return { say: `Lower it to ${entered}`, rows: [{ row: line.row, entered }] };
}

/** Lines times so much, in their proportions, to the milligram. */
const times = (lines: readonly JudgedLine[], factor: number): SuggestedFix["rows"] =>
  lines.map((l) => ({ row: l.row, entered: exactWeightText(mg(Math.max(1, Math.floor(l.weight * factor)))) }));

/**
 * What each scent weighs once the blend is brought to another share of the pot, and to other proportions where those are given; never over the share.
 * @param share below 1 @param parts what each line is of the blend, together one; as they stand when absent
 */
export function blendWeights(of: Pick<Judged, "total">, scents: readonly JudgedLine[], share: number, parts?: readonly number[]): Mg[] {
  const blend = sum(scents.map((l) => l.weight));
  const whole = mostInPot(mg(of.total - blend), share);
  return scents.map((l, i) => mg(Math.max(1, Math.floor(whole * (parts?.[i] ?? l.weight / blend) + 1e-6))));
}

/** That as the change of the sheet. */
export function blendTo(
  of: Pick<Judged, "total">,
  scents: readonly JudgedLine[],
  share: number,
  parts?: readonly number[],
): SuggestedFix["rows"] {
  const weights = blendWeights(of, scents, share, parts);
  return scents.map((l, i) => ({ row: l.row, entered: exactWeightText(weights[i]!) }));
}

/** The citrus of a pot cut down to what skin in the sun takes. */
function outOfTheSun(of: Judged, citrus: readonly JudgedLine[]): SuggestedFix | null {
  if (!inGrams(of)) return null;
  // At f times the citrus the pot weighs rest + f · citrus: f · Σ(weight ÷ limit) is to be just that.
  const all = sum(citrus.map((l) => l.weight));
  const byLimit = citrus.reduce((a, l) => a + l.weight / sunLimitOf(l.libraryKey)!, 0);
  return { say: "Lower the citrus to what is allowed", rows: times(citrus, (of.total - all) / (byLimit - all)) };
}

function tooMuch(of: Judged, scents: readonly JudgedLine[]): Judgement[] {
  // What came with a base can't be weighed again.
  const came = of.lines.flatMap(scentsOfBase);
  const mendOf = (over: TooMuch): SuggestedFix | null => {
    if (came.length > 0) return null;
    const lines = scents.filter((l) => over.of.includes(l.name));
    if (over.by === "sun") return outOfTheSun(of, lines);
    if (over.by === "oil") return lines.length === 1 ? lowered(of, lines[0]!, over.most) : null;
    // Where there should be none, there is no such amount.
    return inGrams(of) && over.most > 0 ? { say: `Lower all of it to ${sayShare(over.most)}`, rows: blendTo(of, scents, over.most) } : null;
  };
  return tooMuchScent([...scents, ...came], of.total, of.usedOn, of.forWhom).map((over) => ({
    key: over.key,
    gravity: over.gravity,
    say: over.say,
    why: over.why,
    figure: over.figure,
    mend: mendOf(over),
  }));
}

/** Past so many, drops are miscounted: a millilitre is quicker and truer (common practice, no source). */
export const COUNTABLE_DROPS = 30;

function drops(of: Judged): Judgement[] {
  return of.lines.flatMap((l): Judgement[] => {
    const n = l.amount.n.valueOf();
    if (l.amount.unit !== "drop" || n <= COUNTABLE_DROPS) return [];
    const ml = Math.round((n / (l.dropsPerMl ?? USUAL_DROPS_PER_ML)) * 100) / 100;
    const entered = `${plainText(ml)} mL`;
    return [
      {
        key: `drops ${l.name}`,
        gravity: 1,
        say: `${n} drops of ${l.name}: count gets lost past ${COUNTABLE_DROPS}.`,
        why: `At ${l.dropsPerMl ?? USUAL_DROPS_PER_ML} drops to the millilitre that is ${entered}; a small measure or the scale is truer.`,
        figure: entered,
        mend: { say: `Write ${entered}`, rows: [{ row: l.row, entered }] },
      },
    ];
  });
}

/** What isn't a scent and has sun on it: St John's wort, say. */
const sunny = (of: Judged): Judgement[] =>
  of.lines
    .filter((l) => l.cautions.includes("photosensitising") && !isScent(l))
    .map((l) => ({
      key: `sun ${l.name}`,
      gravity: 2,
      say: `${l.name} can make skin burn in the sun.`,
      why: CAUTIONS.photosensitising.say,
      figure: sayShare(l.share),
      mend: null,
    }));

export const judgeScent: Judge = (of) => [...tooMuch(of, of.lines.filter(isScent)), ...sunny(of), ...drops(of)];
