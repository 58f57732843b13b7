/** Scent: too much of an oil, too much for the sun, too much for the place and the person; and drops past counting. */
import { isScent, mostInPot, scentOf, mostOn } from "../../scent/dilution.ts";
import { FOR_WHOM, sunLimitOf, USED_ON } from "../../scent/limits.ts";
import { mg, sum, type Mg } from "../../measure/exact.ts";
import { USUAL_DROPS_PER_ML } from "../../measure/mass.ts";
import { plainText } from "../../measure/parse.ts";
import { exactWeightText } from "../../measure/read.ts";
import { CAUTIONS } from "../../material/cautions.ts";
import { wordList } from "../../words.ts";
import { forScale, inGrams, sayShare, type Judge, type Judged, type Judgement, type JudgedLine, type Mend } from "./judgement.ts";

const PAPERS = "A figure from memory: the supplier's certificate for the lot, and local rules, stand above it.";

/** One line cut down to a ceiling, if its amount is its own; never over, whatever the scale reads. Where none is allowed there is no such amount. */
function lowered(of: Judged, line: JudgedLine, ceiling: number): Mend | null {
  if (!inGrams(of) || ceiling === 0) return null;
  const entered = forScale(mostInPot(mg(of.total - line.weight), ceiling), of.scale, "down");
  return { say: `Lower it to ${entered}`, rows: [{ row: line.row, entered }] };
}

/** Lines times so much, in their proportions, to the milligram. */
const times = (lines: readonly JudgedLine[], factor: number): Mend["rows"] =>
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
export function blendTo(of: Pick<Judged, "total">, scents: readonly JudgedLine[], share: number, parts?: readonly number[]): Mend["rows"] {
  const weights = blendWeights(of, scents, share, parts);
  return scents.map((l, i) => ({ row: l.row, entered: exactWeightText(weights[i]!) }));
}

/** The citrus of a pot cut down to what skin in the sun takes. */
function outOfTheSun(of: Judged, citrus: readonly JudgedLine[]): Mend | null {
  if (!inGrams(of)) return null;
  // At f times the citrus the pot weighs rest + f · citrus: f · Σ(weight ÷ limit) is to be just that.
  const all = sum(citrus.map((l) => l.weight));
  const byLimit = citrus.reduce((a, l) => a + l.weight / sunLimitOf(l.libraryKey)!, 0);
  return { say: "Lower the citrus to what is allowed", rows: times(citrus, (of.total - all) / (byLimit - all)) };
}

function tooMuch(of: Judged, scents: readonly JudgedLine[]): Judgement[] {
  const scent = scentOf(scents, of.total, of.usedOn, of.forWhom);
  if (!scent) return [];
  const found: Judgement[] = [];
  for (const oil of scent.oils) {
    const { ceiling } = oil;
    if (ceiling === null || oil.share <= ceiling.share) continue;
    const lines = scents.filter((l) => l.name === oil.name);
    found.push({
      // Known of the usual ceiling, it isn't known of what a lot's paper says.
      key: `scent.ceiling ${oil.name}${ceiling.lot === null ? "" : `, ${ceiling.lot}`}`,
      gravity: 3,
      say:
        ceiling.lot === null
          ? `${oil.name}: ${sayShare(oil.share)} is over its ceiling of ${sayShare(ceiling.share)}.`
          : `${oil.name}: ${sayShare(oil.share)} is over the ${sayShare(ceiling.share)} that lot ${ceiling.lot} may be.`,
      why: `More of it can irritate or sensitise skin. ${ceiling.lot === null ? PAPERS : "Its supplier’s paper says so, as you wrote it down with the lot; local rules stand above it."}`,
      figure: sayShare(oil.share),
      mend: lines.length === 1 ? lowered(of, lines[0]!, ceiling.share) : null,
    });
  }
  if (scent.sun > 1) {
    const citrus = scents.filter((l) => sunLimitOf(l.libraryKey) !== null);
    found.push({
      key: "scent.sun",
      gravity: 3,
      say: `Skin left in the sun can burn: ${wordList(citrus.map((l) => l.name))} ${citrus.length > 1 ? "add up to" : "is"} ${sayShare(scent.sun)} of what is allowed.`,
      why: `Each expressed citrus oil has a limit of its own on skin in the sun, and their shares of it add up. ${PAPERS}`,
      figure: sayShare(scent.sun),
      mend: outOfTheSun(of, citrus),
    });
  }
  const most = mostOn(of.usedOn, of.forWhom);
  if (scent.share > most) {
    const { label } = USED_ON[of.usedOn];
    const whom = FOR_WHOM[of.forWhom].say;
    found.push({
      key: "scent.use",
      gravity: of.forWhom === "anyone" ? 2 : 3,
      say: `${sayShare(scent.share)} scent is much: ${label.toLowerCase()} take ${sayShare(most)} at most.`,
      why: `Common practice${whom && `, and ${whom}`}.`,
      figure: sayShare(scent.share),
      mend: inGrams(of) ? { say: `Lower all of it to ${sayShare(most)}`, rows: blendTo(of, scents, most) } : null,
    });
  }
  return found;
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
