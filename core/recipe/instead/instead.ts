/**
 * Substitutes for an ingredient, at what amount, with the consequences for firmness, cost, shelf life and label. A wax by as much as sets
 * the pot alike (candelilla is stronger than beeswax), a liquid gram for gram, a butter gram for gram with the wax corrected. An estimate
 * as everything about firmness is; ranked with its reasons. /
 */
import { mendWith } from "../../firmness/mend.ts";
import { firmness, mixOf, SAID_AT } from "../../firmness/model.ts";
import { setsBy } from "../../firmness/solids.ts";
import { kind } from "../../material/kinds.ts";
import { mg, micros, type Mg, type Micros } from "../../measure/exact.ts";
import { costOf, type UnitCost } from "../../measure/money.ts";
import { isScent, mostInPot } from "../../scent/dilution.ts";
import { ceilingBy } from "../../scent/limits.ts";
import { judge } from "../judge/judge.ts";
import { factsOf } from "../judge/judgedOf.ts";
import { inGrams, isShared, type Judged, type JudgedLine, type Judgement } from "../judge/judgement.ts";
import { keepingOf } from "../keeping.ts";
import { feelsApart, otherwise, smellsApart, type Comparable } from "./order.ts";
import { likeKinds, onHandOf, type StandIn } from "./standIn.ts";

export interface Instead extends Comparable {
  weight: Mg;
  /** The wax line that puts the firmness right, and what it weighs then; null where none has to. */
  wax: { row: number; name: string; weight: Mg } | null;
  firm: number;
  /** Judgements that are new with it, and those that go. */
  worse: Judgement[];
  better: Judgement[];
  reasons: string[];
}

/** The pot with one line another thing, and a wax corrected for it. */
const withLine = (of: Judged, line: JudgedLine, wax: Instead["wax"]): Judged => {
  const lines = of.lines.map((l) => (l.row === line.row ? line : l.row === wax?.row ? { ...l, weight: wax.weight } : l));
  const total = mg(lines.reduce((a, l) => a + l.weight, 0));
  return { ...of, total, lines: lines.map((l) => ({ ...l, share: l.weight / total })) };
};

const firmOf = (lines: readonly JudgedLine[], of: Judged): number => firmness(mixOf(lines), SAID_AT, of.constants);

/** A material in the place of a line, so much of it, out of the lots it would be taken from. */
function placed(line: JudgedLine, by: StandIn, weight: Mg): JudgedLine {
  let left: number = weight;
  const lots = by.lots.filter((l) => {
    const taken = left > 0;
    left -= l.onHand;
    return taken;
  });
  return { ...line, ...factsOf(by), weight, lots, short: left > 0 };
}

/** How much of it: a wax by what sets the pot alike, a scent up to its ceiling, the rest gram for gram; null where no amount does. */
function amountOf(of: Judged, line: JudgedLine, by: StandIn): Mg | null {
  const sets = setsBy(by);
  const rest = of.lines.filter((l) => l.row !== line.row);
  if (sets.as === "wax" && rest.length > 0) return mendWith(rest, sets, { firm: firmOf(of.lines, of), celsius: SAID_AT }, of.constants);
  const ceiling = isScent(by) ? ceilingBy({ ...by, short: onHandOf(by) < line.weight }, of.usedOn) : null;
  return ceiling === null || ceiling.share >= 1
    ? line.weight
    : mg(Math.min(line.weight, mostInPot(mg(of.total - line.weight), ceiling.share)));
}

/** The largest wax line, and what it must weigh for the pot to set as it did; null where nothing has to be, or can be, corrected. */
function rightWax(of: Judged, line: JudgedLine): Instead["wax"] {
  const wax = of.lines.filter((l) => l.sets.as === "wax" && l.row !== line.row).sort((a, b) => b.weight - a.weight)[0];
  if (!wax) return null;
  const firm = firmOf(of.lines, of);
  const rest = of.lines.filter((l) => l.row !== wax.row).map((l) => (l.row === line.row ? line : l));
  const weight = firmOf(rest, of) < firm ? mendWith(rest, wax.sets, { firm, celsius: SAID_AT }, of.constants) : null;
  // Less than a hundredth of it is nothing anybody notices.
  return weight === null || Math.abs(weight - wax.weight) < wax.weight / 100 ? null : { row: wax.row, name: wax.name, weight };
}

/** What the lines come to that one pot has and the other hasn't alike; null where something in them has no cost. */
function costBetween(before: Judged, after: Judged, per: (material: number) => UnitCost | null): Micros | null {
  let cost = 0;
  for (const [i, was] of before.lines.entries()) {
    const is = after.lines[i]!;
    if (was.of === is.of && was.weight === is.weight) continue;
    const [a, b] = [per(was.of), per(is.of)];
    if (!a || !b) return null;
    cost += costOf(is.weight, b) - costOf(was.weight, a);
  }
  return micros(cost);
}

/** What makes it worth a thought, in a few words each. */
function reasonsOf(
  of: Judged,
  line: JudgedLine,
  then: JudgedLine,
  { by, was, wax }: { by: StandIn; was: StandIn | undefined; wax: Instead["wax"] },
): string[] {
  const more = wax && wax.weight > of.lines.find((l) => l.row === wax.row)!.weight;
  const said = [
    !then.short ? "enough on hand" : by.lots.length > 0 ? "some on hand" : by.per ? "to be bought again" : "not on the shelf yet",
    then.weight < line.weight && (isScent(by) ? "its ceiling allows less of it" : "stronger, so less of it"),
    then.weight > line.weight && "weaker, so more of it",
    wax && (more ? "softer: more wax with it" : "harder: less wax with it"),
    was && by.allergen !== was.allergen && (by.allergen === "" ? `no ${was.allergen.toLowerCase()}` : `names ${by.allergen.toLowerCase()}`),
    was && by.vegan !== was.vegan && by.vegan !== "" && (by.vegan === "yes" ? "vegan" : "not vegan"),
    by.kind !== line.kind && kind(by.kind).label.toLowerCase(),
    ...(was ? otherwise(by, was) : []),
  ];
  return said.filter((r) => typeof r === "string");
}

/** How far it is from what is there: the stock there is, the judgements on the pot, what it costs. */
function rankOf(
  line: JudgedLine,
  then: JudgedLine,
  { by, worse, better, dearer }: Pick<Instead, "by" | "worse" | "better" | "dearer">,
  was: StandIn | undefined,
): number {
  const there = !then.short ? 0 : by.lots.length > 0 ? 2 : by.per ? 3 : 5;
  const grave = (said: readonly Judgement[]): number => said.reduce((a, j) => a + j.gravity ** 2, 0);
  const apart = was ? 0.4 * (feelsApart(by, was) + smellsApart(by, was)) : 0;
  return (
    there + grave(worse) - grave(better) + apart + (by.kind === line.kind ? 0 : 0.5) + (dearer === null ? 0.5 : Math.sign(dearer) * 0.4)
  );
}

/**
 * What one material does in the place of a line; null where no amount of it does.
 * @param known what is known of materials by number: those that may stand in, and those that stand there
 */
export function insteadOf(
  of: Judged,
  line: JudgedLine,
  by: StandIn,
  known: ReadonlyMap<number, StandIn>,
): (Instead & { pot: Judged }) | null {
  const weight = amountOf(of, line, by);
  if (weight === null || weight === 0) return null;
  const then = placed(line, by, weight);
  const wax = then.sets.as === "fat" ? rightWax(of, then) : null;
  const pot = withLine(of, then, wax);
  const [before, after] = [judge(of), judge(pot)];
  // A rest in the jug is nobody's reason for another oil.
  const news = (a: readonly Judgement[], b: readonly Judgement[]): Judgement[] =>
    a.filter((x) => x.key !== "left over" && !b.some((y) => y.key === x.key));
  const dearer = costBetween(of, pot, (id) => known.get(id)?.per ?? null);
  const told = { by, dearer, worse: news(after, before), better: news(before, after) };
  const was = known.get(line.of);
  const { months } = keepingOf(pot.lines, pot.today, pot.keepsMonths);
  const reasons = reasonsOf(of, line, then, { by, wax, was });
  return { ...told, weight, wax, firm: firmOf(pot.lines, pot), months, reasons, rank: rankOf(line, then, told, was), pot };
}

/** Whether amounts can be put into its rows: all of them grams, or all of them parts, or per cent, which are then shares of the same whole. */
export const takesAmounts = (of: Judged): boolean =>
  inGrams(of) || of.lines.every((l) => isShared(l) && l.amount.unit === of.lines[0]!.amount.unit);

/**
 * Those that can stand in, best first; of alike ones by name. Nothing where a sheet mixes grams with shares, which would move with it.
 * @param known what is known of materials: those that may stand in, and those that stand in the recipe
 */
export function standIns(of: Judged, line: JudgedLine, known: readonly StandIn[]): (Instead & { pot: Judged })[] {
  if (!takesAmounts(of)) return [];
  const byId = new Map(known.map((m) => [m.id, m]));
  const here = new Set(of.lines.map((l) => l.of));
  const kinds = likeKinds(line.kind);
  return known
    .filter((m) => kinds.includes(m.kind) && !here.has(m.id))
    .flatMap((m) => insteadOf(of, line, m, byId) ?? [])
    .sort((a, b) => a.rank - b.rank || a.by.name.localeCompare(b.by.name));
}
