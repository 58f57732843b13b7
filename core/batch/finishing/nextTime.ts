/**
 * What a batch teaches for the next: amounts that went in otherwise than the recipe says, what really stays in pot and jug, how long it really
 * takes. How much has to be off before it is worth changing a recipe is common practice, no source.
 */
import { isFarLoss } from "./result.ts";
import { mg, mulDiv, sum, type Mg } from "../../measure/exact.ts";
import { parseAmount } from "../../measure/parse.ts";
import { weightText } from "../../measure/read.ts";
import { unit } from "../../measure/units.ts";
import { grams } from "../../measure/write.ts";

/** A weight is worth learning from when it is off by so much of itself, and by more than the scale's step. */
const WEIGHT_OFF = 0.03;
/** Loss: by a point. */
const LOSS_OFF_BP = 100;
const LOSS_STEP_BP = 50;
/** Minutes: by a fifth, and five at least. */
const MINUTES_OFF = 0.2;
const MINUTES_STEP = 5;

export interface RecipeLine {
  materialId: number;
  name: string;
  entered: string;
  weight: Mg;
}

/** What really went into the pot of one material. */
export interface WentIn {
  materialId: number;
  name: string;
  weighed: Mg;
}

/** How a batch of the recipe went before, or this one. */
export interface Went {
  lostShare: number;
  /** Minutes of the pot, without those of filling each unit; 0 where nobody said. */
  minutes: number;
}

export interface Change {
  /** Which change, and to what: what was ticked is what is written, or nothing. */
  key: string;
  of: { line: number } | "loss" | "minutes";
  /** Milligrams of the recipe's batch, basis points, or minutes. */
  was: number;
  now: number;
  say: string;
  why: string;
}

/** The middle of some figures by their weights. */
function weightedMedian(of: readonly (readonly [figure: number, weight: number])[]): number {
  const sorted = [...of].sort((a, b) => a[0] - b[0]);
  const half = sorted.reduce((a, [, w]) => a + w, 0) / 2;
  let passed = 0;
  return sorted.find(([, w]) => (passed += w) >= half)?.[0] ?? 0;
}
/** The middle figure, or between the middle two. */
function middle(of: readonly number[]): number {
  const sorted = [...of].sort((a, b) => a - b);
  return sorted.length === 0 ? 0 : (sorted[(sorted.length - 1) >> 1]! + sorted[sorted.length >> 1]!) / 2;
}
const near = (n: number, step: number): number => Math.round(n / step) * step;
/** To what a scale tells apart, so that what is on the sheet is the weight. */
const rounded = (weight: number): Mg => mg(near(weight, weight < 10_000 ? 10 : 100));
const times = (n: number): string => (n === 1 ? "this time" : `by the middle of the last ${n} batches`);

/** @param step what the scale tells apart */
function lineChanges(lines: readonly RecipeLine[], wentIn: readonly WentIn[], step: Mg): Change[] {
  const of = new Map<number, { name: string; written: Mg; weighed: Mg }>();
  for (const { materialId, name, weight } of lines)
    of.set(materialId, { name, written: mg((of.get(materialId)?.written ?? 0) + weight), weighed: mg(0) });
  for (const { materialId, name, weighed } of wentIn) {
    const there = of.get(materialId) ?? { name, written: mg(0), weighed: mg(0) };
    of.set(materialId, { ...there, weighed: mg(there.weighed + weighed) });
  }
  // How much larger than written the batch was, by what most of the pot says: one line that is off doesn't make the others so.
  const scale = weightedMedian([...of.values()].flatMap((m) => (m.written > 0 ? [[m.weighed / m.written, m.written] as const] : [])));
  if (scale <= 0) return [];
  return [...of].flatMap(([line, { name, written, weighed }]) => {
    const off = Math.abs(weighed - written * scale);
    if (off <= step || off <= WEIGHT_OFF * Math.max(weighed, written * scale)) return [];
    const now = rounded(weighed / scale);
    const went = `${grams(weighed)} went in where this batch wanted ${grams(Math.round(written * scale))}.`;
    const say =
      written === 0
        ? `${grams(now)} of ${name}, which isn't in it`
        : now === 0
          ? `${name} left out`
          : `${name}: ${grams(now)} instead of ${grams(written)}`;
    return [{ key: `line.${line}=${now}`, of: { line }, was: written, now, say, why: went }];
  });
}

const usual = (past: readonly Went[], lossBp: number): number[] =>
  past.filter((p) => !isFarLoss(p.lostShare, lossBp)).map((p) => Math.max(0, p.lostShare * 10_000));

/**
 * @param past this batch first, then those before it, newest first; loss and minutes are the middle of them all
 * @param step what the scale tells apart
 * @example nextTime({ lines: [], lossBp: 200, batchMinutes: 40 }, [], [{ lostShare: 0.041, minutes: 55 }], mg(100)).map((c) => c.say) // ["Loss 4 % instead of 2 %", "55 minutes instead of 40"]
 */
export function nextTime(
  written: { lines: readonly RecipeLine[]; lossBp: number; batchMinutes: number },
  wentIn: readonly WentIn[],
  past: readonly Went[],
  step: Mg,
): Change[] {
  const changes = lineChanges(written.lines, wentIn, step);
  // What went nobody knows where is no loss of pot and jug. Of this very batch, it says nothing of the others either.
  const losses = past[0] && isFarLoss(past[0].lostShare, written.lossBp) ? [] : usual(past, written.lossBp);
  const loss = near(middle(losses), LOSS_STEP_BP);
  if (losses.length > 0 && Math.abs(middle(losses) - written.lossBp) >= LOSS_OFF_BP)
    changes.push({
      key: `loss=${loss}`,
      of: "loss",
      was: written.lossBp,
      now: loss,
      say: `Loss ${loss / 100} % instead of ${written.lossBp / 100} %`,
      why: `So much stayed in pot and jug ${times(losses.length)}.`,
    });
  const took = past.flatMap((p) => (p.minutes > 0 ? [p.minutes] : []));
  const minutes = near(middle(took), MINUTES_STEP);
  const off = Math.abs(middle(took) - written.batchMinutes);
  if (took.length > 0 && minutes > 0 && off >= Math.max(MINUTES_STEP, written.batchMinutes * MINUTES_OFF))
    changes.push({
      key: `minutes=${minutes}`,
      of: "minutes",
      was: written.batchMinutes,
      now: minutes,
      say: `${minutes} minutes instead of ${written.batchMinutes}`,
      why: `The pot took so long ${times(took.length)}; filling comes on top.`,
    });
  return changes;
}

const isShare = (entered: string): boolean => {
  const amount = parseAmount(entered, "g");
  return amount.ok && unit(amount.value.unit).kind === "share";
};

/**
 * The lines as they are to be written then. Where some are shares of the whole, all become grams: another amount of one would move them all.
 * @param added how a line begins that wasn't there
 * @example changedLines([{ materialId: 3, name: "Wax", entered: "48 g", weight: mg(48_000) }], [{ of: { line: 3 }, now: 52_000 }]).lines[0].entered // "52 g"
 */
export function changedLines<L extends RecipeLine>(
  lines: readonly L[],
  changes: readonly Pick<Change, "of" | "now">[],
  added: (materialId: number) => L,
): { lines: L[]; inGrams: boolean } {
  const to = new Map(changes.flatMap((c) => (typeof c.of === "object" ? [[c.of.line, c.now] as const] : [])));
  if (to.size === 0) return { lines: [...lines], inGrams: false };
  const inGrams = lines.some((l) => isShare(l.entered));
  const grammed = (l: L, weight: Mg): L => ({ ...l, weight, entered: weightText(weight) });
  const kept = lines.flatMap((l) => {
    const now = to.get(l.materialId);
    if (now === undefined) return [inGrams ? grammed(l, rounded(l.weight)) : l];
    const all = sum(lines.flatMap((x) => (x.materialId === l.materialId ? [x.weight] : [])));
    return now === 0 ? [] : [grammed(l, rounded(mulDiv(now, l.weight, all)))];
  });
  const there = new Set(lines.map((l) => l.materialId));
  const fresh = [...to].flatMap(([line, now]) => (there.has(line) ? [] : [grammed(added(line), mg(now))]));
  return { lines: [...kept, ...fresh], inGrams };
}
