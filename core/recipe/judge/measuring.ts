/** Whether it can be weighed and is worth it: the scale's reach, what is left over, and what may not be made for lips. */
import { mg } from "../../measure/exact.ts";
import { fillMix, leastBatch, MOVED, ofSteps, onScale, showScale } from "../scale.ts";
import { grams, sayShare } from "../../measure/write.ts";
import { exactWeightText } from "../../measure/read.ts";
import { forScale, isShared, type Judge, type Judged, type JudgedLine, type Judgement, type SuggestedFix } from "./judgement.ts";

/** What is measured by drops, pieces or spoons is not for the scale to show. */
const byScale = (of: Judged): Judged["lines"] => of.lines.filter((l) => l.amount.unit !== "drop" && l.amount.unit !== "pc");

function reach(of: Judged): Judgement[] {
  return byScale(of).flatMap((l): Judgement[] => {
    const read = onScale(l.weight, of.scale);
    if (Math.abs(read.shift) <= MOVED) return [];
    const batch = leastBatch(of.total, l.weight, of.scale);
    return [
      {
        key: `reach ${l.name}`,
        gravity: 2,
        say: `${exactWeightText(l.weight)} of ${l.name} is below what the scale can show.`,
        why: `It reads to ${showScale(of.scale)}. A batch of ${grams(batch)} is the smallest it can weigh this in; or measure it by drops.`,
        figure: showScale(of.scale),
        mend: null,
      },
    ];
  });
}

const MADE_FOR_LIPS: ReadonlySet<string | null> = new Set(["lip-flavour"]);

const onLips = (of: Judged): Judgement[] =>
  of.type !== "lipBalm"
    ? []
    : of.lines
        // A flavour is made for them; what is known not to be is judged in people.ts.
        .filter(
          (l) => (l.kind === "fragrance" || l.kind === "colour") && !MADE_FOR_LIPS.has(l.libraryKey) && !l.cautions.includes("notLips"),
        )
        .map((l) => ({
          key: `lips ${l.name}`,
          gravity: 2,
          say: `Is ${l.name} made for lips?`,
          why: "What is on the lips is swallowed: only colours and flavours that are safe there. Its papers say so, or they don't.",
          figure: sayShare(l.share),
          mend: null,
        }));

/** So much may a recipe be stretched or cut to end with a full tin (common practice, no source). */
const STRETCH = 0.08;
/** Less than this of a unit is nobody's worry. */
const A_REST = 0.1;

/**
 * Every line that was weighed times so much, and the whole where there are shares of it; rounded up, so that what is to be filled is.
 * @param factor > 0
 */
export const timesAll = (of: Pick<Judged, "lines" | "scale" | "total">, factor: number): Omit<SuggestedFix, "say"> => {
  const entered = (l: JudgedLine): string =>
    l.amount.unit === "drop"
      ? `${Math.ceil(l.amount.n.valueOf() * factor)} drops`
      : forScale(mg(Math.ceil(l.weight * factor)), of.scale, "up");
  return {
    rows: of.lines.filter((l) => !isShared(l)).map((l) => ({ row: l.row, entered: entered(l) })),
    ...(of.lines.some(isShared) ? { makes: forScale(mg(Math.ceil(of.total * factor)), of.scale, "up") } : {}),
  };
};

function leftOver(of: Judged): Judgement[] {
  if (of.fill === null) return [];
  const { units, leftover } = fillMix(of.total, of.lossBp, [{ fill: of.fill, units: null }]);
  const n = units[0]!;
  const part = leftover / of.fill;
  // What the scale's readings alone leave is not for a recipe to mend.
  if (n === 0 || part < A_REST || leftover <= of.lines.length * ofSteps(1, of.scale)) return [];
  const up = part >= 0.5;
  const factor = ((n + (up ? 1 : 0)) * of.fill) / (of.total * (1 - of.lossBp / 10_000));
  const by = Math.abs(factor - 1);
  if (by > STRETCH) return [];
  const change = sayShare(by);
  return [
    {
      key: "left over",
      gravity: 1,
      say: up ? `${change} more fills one more.` : `${grams(leftover)} is left over.`,
      why: up
        ? `${grams(leftover)} would be left, too little for another unit. Times ${factor.toFixed(3)} it fills ${n + 1} and leaves nothing.`
        : `Times ${factor.toFixed(3)}, ${change} less of everything, it fills the same ${n} and leaves nothing; or use the rest for a tester.`,
      figure: change,
      mend: { say: up ? `Make ${change} more` : `Make ${change} less`, ...timesAll(of, factor) },
    },
  ];
}

export const judgeMeasuring: Judge = (of) => [...onLips(of), ...reach(of), ...leftOver(of)];
