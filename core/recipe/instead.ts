/**
 * What could stand in for an ingredient, at what amount, and what follows: how it sets, what it costs, keeps and has to name on its label. A
 * wax by as much as sets the pot alike (candelilla is stronger than beeswax), a liquid gram for gram, a butter gram for gram with the wax put
 * right. An estimate like all that is said of firmness; ranked with its reasons.
 */
import { mendWith } from "../firmness/mend.ts";
import { firmness, mixOf, SAID_AT } from "../firmness/model.ts";
import { setsBy } from "../firmness/solids.ts";
import type { Vegan } from "../material/facts.ts";
import { kind, type KindId } from "../material/kinds.ts";
import { mg, type Mg, type Micros } from "../measure/exact.ts";
import { costOf, type UnitCost } from "../measure/money.ts";
import { isScent } from "../scent/dilution.ts";
import { ceilingOf } from "../scent/limits.ts";
import { judge } from "./judge/judge.ts";
import { inGrams, type Judged, type JudgedLine, type Judgement } from "./judge/judgement.ts";
import type { MaterialChoice } from "./written.ts";

/** A material that may stand in, with what there is of it. */
export interface StandIn extends MaterialChoice {
  allergen: string;
  vegan: Vegan;
  /** On hand and usable; nought for one of the library, or used up. */
  onHand: number;
  /** What a gram of it costs: of what is on hand, else as it was bought last. */
  per: UnitCost | null;
}

const GROUPS: readonly (readonly KindId[])[] = [
  ["wax"],
  ["hardButter", "softButter"],
  ["oil", "infusedOil"],
  ["essentialOil", "fragrance"],
  ["antioxidant"],
  ["powder"],
  ["colour"],
  ["herb"],
];
/** Kinds that can stand in for one another. @example likeKinds("hardButter") // ["hardButter", "softButter"] */
export const likeKinds = (of: KindId): readonly KindId[] => GROUPS.find((g) => g.includes(of)) ?? [of];

export interface Instead {
  by: StandIn;
  weight: Mg;
  /** The wax line that puts the firmness right, and what it weighs then; null where none has to. */
  wax: { row: number; name: string; weight: Mg } | null;
  firm: number;
  /** Of the whole batch, against what the replaced amount costs; null where either isn't known. */
  dearer: Micros | null;
  /** What is to be said of it then that wasn't before, and what no longer is. */
  worse: Judgement[];
  better: Judgement[];
  reasons: string[];
  /** The lower, the better. */
  rank: number;
}

/** The pot with one line another thing. */
const withLine = (of: Judged, row: number, line: JudgedLine, wax: Instead["wax"]): Judged => {
  const lines = of.lines.map((l) => (l.row === row ? line : l.row === wax?.row ? { ...l, weight: wax.weight } : l));
  const total = mg(lines.reduce((a, l) => a + l.weight, 0));
  return { ...of, total, lines: lines.map((l) => ({ ...l, share: l.weight / total })) };
};

/** How much of a wax sets the pot as the other did; null where no amount up to four times does. */
function asStrong(of: Judged, line: JudgedLine, by: JudgedLine): Mg | null {
  const wished = firmness(mixOf(of.lines), SAID_AT, of.constants);
  const rest = of.lines.filter((l) => l.row !== line.row);
  return rest.length === 0 ? line.weight : mendWith(rest, by.sets, { firm: wished, celsius: SAID_AT }, of.constants);
}

/** The largest wax line, and what it must weigh for the pot to set as it did. */
function rightWax(of: Judged, row: number, line: JudgedLine): Instead["wax"] {
  const wax = [...of.lines].filter((l) => l.sets.as === "wax" && l.row !== row).sort((a, b) => b.weight - a.weight)[0];
  if (!wax) return null;
  const wished = { firm: firmness(mixOf(of.lines), SAID_AT, of.constants), celsius: SAID_AT };
  const rest = of.lines.filter((l) => l.row !== wax.row).map((l) => (l.row === row ? line : l));
  if (firmness(mixOf(rest), SAID_AT, of.constants) >= wished.firm) return { row: wax.row, name: wax.name, weight: mg(0) };
  const weight = mendWith(rest, wax.sets, wished, of.constants);
  // Less than a hundredth of it is nothing anybody notices.
  return weight === null || Math.abs(weight - wax.weight) < wax.weight / 100 ? null : { row: wax.row, name: wax.name, weight };
}

/**
 * What one material does in the place of a line.
 * @param was what a gram of what stands there costs, its allergen and whether it is vegan
 */
export function insteadOf(of: Judged, line: JudgedLine, by: StandIn, was: Pick<StandIn, "allergen" | "vegan" | "per">): Instead | null {
  const stand: JudgedLine = {
    ...line,
    ...{ of: by.id, name: by.name, kind: by.kind, libraryKey: by.libraryKey, meltFrom: by.meltFrom, meltTo: by.meltTo, sets: setsBy(by) },
    ...{ cautions: by.cautions, dropsPerMl: by.dropsPerMl },
  };
  const ceiling = isScent(stand) ? ceilingOf(by.libraryKey) : null;
  const weight =
    stand.sets.as === "wax"
      ? asStrong(of, line, stand)
      : ceiling === null
        ? line.weight
        : mg(Math.min(line.weight, Math.floor(of.total * ceiling)));
  if (weight === null || weight === 0) return null;
  const placed = { ...stand, weight };
  const wax = stand.sets.as === "fat" ? rightWax(of, line.row, placed) : null;
  const then = withLine(of, line.row, placed, wax);
  const [before, after] = [judge(of), judge(then)];
  const news = (a: readonly Judgement[], b: readonly Judgement[]): Judgement[] =>
    a.filter((x) => x.key !== "left over" && !b.some((y) => y.key === x.key));
  const [worse, better] = [news(after, before), news(before, after)];
  const dearer = by.per && was.per ? ((costOf(weight, by.per) - costOf(line.weight, was.per)) as Micros) : null;
  const enough = by.onHand >= weight;
  const reasons = [
    enough ? "enough on hand" : by.onHand > 0 ? "some on hand" : by.per ? "to be bought again" : "not on the shelf yet",
    ...(weight !== line.weight ? [weight < line.weight ? "stronger, so less of it" : "weaker, so more of it"] : []),
    ...(wax
      ? [wax.weight > (of.lines.find((l) => l.row === wax.row)?.weight ?? 0) ? "softer: more wax with it" : "harder: less wax with it"]
      : []),
    ...(by.allergen !== was.allergen
      ? [by.allergen === "" ? `no ${was.allergen.toLowerCase()}` : `names ${by.allergen.toLowerCase()}`]
      : []),
    ...(by.vegan !== was.vegan && by.vegan !== "" ? [by.vegan === "yes" ? "vegan" : "not vegan"] : []),
    ...(by.keepsSealed !== null && by.keepsSealed < of.keepsMonths ? [`keeps ${by.keepsSealed} months at most`] : []),
    ...(by.kind !== line.kind ? [kind(by.kind).label.toLowerCase()] : []),
  ];
  const graver = worse.reduce((a, j) => a + j.gravity ** 2, 0) - better.reduce((a, j) => a + j.gravity ** 2, 0);
  const rank =
    (enough ? 0 : by.onHand > 0 ? 2 : by.per ? 3 : 5) +
    graver +
    (by.kind === line.kind ? 0 : 0.5) +
    (dearer === null ? 0.5 : Math.sign(dearer) * 0.4);
  return { by, weight, wax, firm: firmness(mixOf(then.lines), SAID_AT, of.constants), dearer, worse, better, reasons, rank };
}

/** What a whole recipe is to be free of, or made from. */
export const WITHOUT = {
  bee: {
    say: "Without beeswax",
    fits: (m: Pick<StandIn, "allergen" | "name">) => /bee/i.test(m.allergen) || /\bbees?wax|honey|propolis/i.test(m.name),
  },
  nut: {
    say: "Without nuts",
    fits: (m: Pick<StandIn, "allergen" | "name">) =>
      /nut/i.test(m.allergen.replace(/coconut/i, "")) || /almond|hazelnut|macadamia|walnut|peanut/i.test(m.name),
  },
  animal: { say: "Vegan", fits: (m: Pick<StandIn, "vegan">) => m.vegan === "no" },
} as const;
export type Without = keyof typeof WITHOUT;

/** Those that can stand in, best first; of alike ones by name. Nothing while the sheet's shares would move with it. */
export function standIns(
  of: Judged,
  line: JudgedLine,
  among: readonly StandIn[],
  was: Pick<StandIn, "allergen" | "vegan" | "per">,
): Instead[] {
  if (!inGrams(of)) return [];
  const here = new Set(of.lines.map((l) => l.of));
  const kinds = likeKinds(line.kind);
  return among
    .filter((m) => kinds.includes(m.kind) && !here.has(m.id))
    .flatMap((m) => insteadOf(of, line, m, was) ?? [])
    .sort((a, b) => a.rank - b.rank || a.by.name.localeCompare(b.by.name));
}

export interface Replaced {
  rows: { row: number; material: string; weight: Mg }[];
  /** Lines nothing can stand in for. */
  left: string[];
}

/**
 * Replaces every line that offends by the best that doesn't, one after the other, each in the pot as the ones before have left it.
 * @param offends what has to go @param may what may come
 */
export function replaceAll(
  of: Judged,
  among: readonly StandIn[],
  facts: ReadonlyMap<number, StandIn>,
  offends: (line: JudgedLine) => boolean,
  may: (by: StandIn, weight: Mg) => boolean,
): Replaced {
  const changed = new Map<number, { material: string; weight: Mg }>();
  const left: string[] = [];
  let now = of;
  for (const { row } of of.lines.filter(offends)) {
    const line = now.lines.find((l) => l.row === row)!;
    const was = facts.get(line.of) ?? { allergen: "", vegan: "" as const, per: null };
    const best = standIns(now, line, among, was).find((s) => may(s.by, s.weight));
    if (!best) {
      left.push(line.name);
      continue;
    }
    const stand: JudgedLine = {
      ...line,
      ...{ of: best.by.id, name: best.by.name, kind: best.by.kind, libraryKey: best.by.libraryKey },
      weight: best.weight,
    };
    now = withLine(
      now,
      row,
      { ...stand, ...{ meltFrom: best.by.meltFrom, meltTo: best.by.meltTo, sets: setsBy(best.by), cautions: best.by.cautions } },
      best.wax,
    );
    changed.set(row, { material: best.by.name, weight: best.weight });
    if (best.wax) changed.set(best.wax.row, { material: changed.get(best.wax.row)?.material ?? best.wax.name, weight: best.wax.weight });
  }
  return { rows: [...changed].map(([row, c]) => ({ row, ...c })), left };
}
