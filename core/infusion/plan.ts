/**
 * A jar as planned on its sheet, read: used live on the page and again by the action that fills it.
 */
import { finderBy, type Meant } from "../meant.ts";
import { isKeyOf } from "../objects.ts";
import { expectedBack, isCut, oilRetention, type Cut, type Keeping, type Straining } from "./absorption.ts";
import { amounts, type AmountBy, type AmountIn, type Amounts } from "./amounts.ts";
import {
  METHODS,
  methodsInTime,
  ownHours,
  ownTimes,
  readyDays,
  suits,
  type MethodId,
  type Ready,
  type Suits,
  type Times,
} from "./methods.ts";
import { jarWarnings, usableMl, type Warning } from "./warnings.ts";
import { factsIn, type MaterialFacts } from "../material/facts.ts";
import type { CautionId } from "../material/cautions.ts";
import { CARRIER_KINDS } from "../material/kinds.ts";
import { mg, micros, shares, sum, type Mg, type Micros } from "../measure/exact.ts";
import { massOf } from "../measure/mass.ts";
import { parseAmount, parseNumber } from "../measure/parse.ts";
import { unit } from "../measure/units.ts";
import { grams } from "../measure/write.ts";
import { done, refuse, type Outcome } from "../outcome.ts";
import type { FieldProblem } from "../refused.ts";
import { drawValue, firstExpiredFirst, type Lot } from "../stock/lots.ts";
import type { Dryness } from "../material/dryness.ts";
import { daysBetween, readDay, type Day } from "../when.ts";
import { readMl } from "../measure/read.ts";

/** A lot a jar can be filled from. */
export interface JarLot extends Lot {
  dryness: Dryness;
  grown: number | null;
}

export interface JarMaterial extends MaterialFacts {
  id: number;
  cautions: CautionId[];
  keepsSealed: number | null;
  oilKept: number | null;
}

export interface PlanTexts {
  name: string;
  method: string;
  ownDays: string;
  /** On gentle heat, "12" or "2–4"; empty takes what is usual. */
  ownHours: string;
  day: string;
  wished: string;
  by: string;
  oil: string;
  ratio: string;
  herbCups: string;
  share: string;
  vessel: string;
  holds: string;
  herbs: readonly { material: string; lot: string; cut: string; parts: string }[];
  carriers: readonly { material: string; lot: string; parts: string }[];
}

export interface PlanPart {
  role: "herb" | "carrier";
  material: JarMaterial;
  lot: JarLot;
  cut: Cut | null;
  parts: number;
  qty: Mg | null;
  keeping: Keeping | null;
}

export interface JarPlan {
  name: string;
  method: MethodId;
  heated: boolean;
  times: Times;
  day: Day;
  ready: Ready;
  wished: Day | null;
  suits: Suits | null;
  inTime: MethodId[];
  parts: PlanPart[];
  amounts: Amounts | null;
  vesselMl: number | null;
  expected: Mg | null;
  cost: Micros | null;
  warnings: Warning[];
  problems: FieldProblem[];
}

const KINDS = { herb: ["herb"], carrier: CARRIER_KINDS } as const;

/** Lots of a material to fill from, the one to use first in front. */
export const lotsOf = (lots: readonly JarLot[], materialId: number): JarLot[] =>
  lots.filter((l) => l.of === materialId && !l.hold).sort(firstExpiredFirst);

/** Longer on the heat than a week is a slip of the keys. */
const MOST_HOURS = 168;

const readPositive = (text: string, what: string): Outcome<number> => {
  const n = parseNumber(text);
  if (!n.ok) return n.problem.code === "empty" ? refuse("empty", `Enter ${what}.`) : n;
  const value = n.value.valueOf();
  return value > 0 && value <= 1000 ? { ok: true, value } : refuse("range", `Enter ${what}, between 0 and 1000.`);
};

/** Hours on the heat as one number or a span. "2–4" is at best 3. */
function readHours(text: string): Outcome<Times> {
  const ends = text.replace(/\s*(h|hrs?|hours?)\.?\s*$/i, "").split(/\s*(?:-|–|—|to)\s*/);
  const read = ends.map((t) => readPositive(t, "how many hours it takes, such as 12 or 2–4"));
  const bad = read.find((r): r is Extract<typeof r, { ok: false }> => !r.ok);
  if (bad) return bad;
  const [from, to = from] = read.flatMap((r) => (r.ok ? [r.value] : []));
  if (ends.length > 2 || from === undefined || to === undefined || to < from || to > MOST_HOURS)
    return refuse("range", `Enter how many hours it takes, such as 12 or 2–4, up to ${MOST_HOURS}.`);
  return done(ownHours(from, to));
}

/** The short name of a herb or an oil in the name of what it becomes. "Calendula petals, dried" are "Calendula petals". */
const short = (name: string): string => name.split(",")[0]!;

/** What the oil would be called when nobody says otherwise. */
export function suggestName(herbs: readonly string[], carrier: string): string {
  if (herbs.length === 0 || carrier === "") return "";
  const list = herbs.map((h, i) => (i === 0 ? short(h) : short(h).toLowerCase()));
  return `${list.length < 3 ? list.join(" and ") : `${list.slice(0, -1).join(", ")} and ${list.at(-1)}`} in ${short(carrier).toLowerCase()}`;
}

/** Reads the whole plan; every problem names its field. */
export function readPlan(
  t: PlanTexts,
  materials: readonly JarMaterial[],
  lots: readonly JarLot[],
  past: readonly Straining[],
  today: Day,
  meant?: Meant,
): JarPlan {
  const problems: FieldProblem[] = [];
  const read = <T>(field: string, o: Outcome<T>): T | null => {
    if (o.ok) return o.value;
    problems.push({ field, say: o.problem.say });
    return null;
  };
  const find = finderBy(materials, meant);

  const parts = (["herb", "carrier"] as const).flatMap((role) =>
    (role === "herb" ? t.herbs : t.carriers.map((c) => ({ ...c, cut: "" }))).flatMap((l, i): PlanPart[] => {
      const path = `${role}s.${i}`;
      if (l.material.trim() === "") {
        if (i === 0) problems.push({ field: `${path}.material`, say: role === "herb" ? "Choose the herb." : "Choose the oil." });
        return [];
      }
      const m = find(l.material);
      if (!m || !(KINDS[role] as readonly string[]).includes(m.kind)) {
        const what = role === "herb" ? "a herb" : "an oil or butter";
        problems.push({
          field: `${path}.material`,
          say: `“${l.material}” isn't ${what} of your shelf. Choose from the list, or add it first.`,
        });
        return [];
      }
      const own = lotsOf(lots, m.id);
      const lot = l.lot === "" ? own[0] : own.find((x) => String(x.id) === l.lot);
      if (!lot) {
        problems.push({ field: `${path}.lot`, say: own.length === 0 ? `No lot of ${m.name} is on hand.` : "Choose one of its lots." });
        return [];
      }
      const n = read(`${path}.parts`, readPositive(l.parts.trim() === "" ? "1" : l.parts, "its share in parts"));
      const cut = role === "carrier" ? null : isCut(l.cut) ? l.cut : "cut";
      return [{ role, material: m, lot, cut, parts: n ?? 1, qty: null, keeping: cut ? oilRetention(m.id, cut, m.oilKept, past) : null }];
    }),
  );
  const herbs = parts.filter((p) => p.role === "herb");
  const carriers = parts.filter((p) => p.role === "carrier");

  const method = isKeyOf(METHODS, t.method) ? t.method : "shelf";
  const ownDays = method === "own" ? read("ownDays", readPositive(t.ownDays, "how many days it takes")) : null;
  const heated = METHODS[method].heat === "gentle";
  const hours = heated && t.ownHours.trim() !== "" ? read("ownHours", readHours(t.ownHours)) : null;
  const times: Times = method === "own" ? ownTimes(Math.max(1, Math.round(ownDays ?? 14))) : (hours ?? METHODS[method].times);
  const day = read("day", readDay(t.day)) ?? today;
  if (day > today) problems.push({ field: "day", say: "That day hasn't come yet." });
  const wished = t.wished.trim() === "" ? null : read("wished", readDay(t.wished));
  const ready = readyDays(day, times);

  const needsVessel = t.by === "fill";
  const vesselMl = t.holds.trim() === "" && !needsVessel ? null : read("holds", readMl(t.holds));
  const made = herbs.length > 0 && carriers.length > 0 ? readAmounts(amountIn(t, herbs, carriers, vesselMl, heated), problems) : null;
  if (made) {
    herbs.forEach((h, i) => (h.qty = made.herbs[i]!));
    shares(
      made.oil,
      carriers.map((c) => c.parts),
    ).forEach((q, i) => (carriers[i]!.qty = mg(q)));
    parts.forEach((p) => {
      const i = (p.role === "herb" ? herbs : carriers).indexOf(p);
      if (p.qty !== null && p.qty > p.lot.onHand)
        problems.push({
          field: `${p.role}s.${i}.lot`,
          say: `Lot ${p.lot.number} has ${grams(p.lot.onHand)}, ${grams(p.qty - p.lot.onHand)} less than this takes.`,
        });
    });
  }
  const enough = made !== null && parts.every((p) => p.qty !== null && p.qty <= p.lot.onHand);
  const name =
    t.name.trim() ||
    suggestName(
      herbs.map((h) => h.material.name),
      carriers[0]?.material.name ?? "",
    );
  if (name === "" && made) problems.push({ field: "name", say: "Enter what the oil will be called." });
  return {
    name,
    method,
    heated,
    times,
    day,
    ready,
    wished,
    suits: wished === null ? null : suits(ready, wished),
    inTime: wished === null ? [] : methodsInTime(day, wished).filter((m) => m !== method),
    parts,
    amounts: made,
    vesselMl,
    expected: made
      ? expectedBack(
          made.oil,
          herbs.map((h) => ({ herb: h.qty!, perGram: h.keeping!.perGram })),
          false,
        )
      : null,
    cost: enough ? micros(sum(parts.map((p) => drawValue(p.lot, p.qty!)))) : null,
    warnings:
      herbs.length === 0 || carriers.length === 0
        ? []
        : jarWarnings({
            method,
            heated,
            day,
            ready,
            vesselMl,
            fillMl: made?.fillMl ?? null,
            looseMl: made?.looseMl ?? null,
            herbs: herbs.map((h) => ({ name: h.material.name, dryness: h.lot.dryness, cautions: h.material.cautions })),
            carriers: carriers.map((c) => ({ ...c.material, bestBefore: c.lot.bestBefore })),
          }),
    problems,
  };
}

type AmountRead = { input: AmountIn; herbs: PlanPart[]; density: number } | { field: string; say: string };

function readAmounts(a: AmountRead | null, problems: FieldProblem[]): Amounts | null {
  if (a === null) return null;
  if ("field" in a) {
    problems.push(a);
    return null;
  }
  const made = amounts(
    a.input,
    a.herbs.map((h) => ({
      name: h.material.name,
      loose: h.material.densities[h.cut === "powder" ? "powder" : "dried"] ?? null,
      parts: h.parts,
    })),
    a.density,
  );
  if (made.ok) return made.value;
  problems.push({ field: a.input.by === "fill" ? "share" : a.input.by === "cups" ? "herbCups" : "ratio", say: made.problem.say });
  return null;
}

/** The amounts as typed, in the way chosen. */
function amountIn(t: PlanTexts, herbs: PlanPart[], carriers: PlanPart[], vesselMl: number | null, heated: boolean): AmountRead | null {
  const first = carriers[0]!;
  const form = first.material.densities.liquid ? "liquid" : "melted";
  const facts = factsIn(first.material, form);
  const parts = carriers.reduce((a, c) => a + c.parts, 0);
  const density = carriers.reduce((a, c) => a + c.parts * (c.material.densities.liquid ?? c.material.densities.melted ?? 920), 0) / parts;
  const bad = (field: string, o: Outcome<unknown>): { field: string; say: string } => ({ field, say: o.ok ? "" : o.problem.say });
  const by = t.by as AmountBy;
  if (by === "ratio" || by === "lot") {
    const ratio = readPositive(t.ratio, "how many parts of oil to one of herb");
    if (!ratio.ok) return bad("ratio", ratio);
    if (by === "lot")
      return {
        input: { by, herb: mg(sum(herbs.map((h) => h.lot.onHand))), oilPerHerb: ratio.value },
        herbs: herbs.map((h) => ({ ...h, parts: Math.max(h.lot.onHand / 1000, 0.001) })),
        density,
      };
    const amount = parseAmount(t.oil, "g");
    if (!amount.ok) return bad("oil", amount);
    const oil = massOf(amount.value, facts);
    if (!oil.ok) return bad("oil", oil);
    return { input: { by, oil: oil.value, oilPerHerb: ratio.value }, herbs, density };
  }
  if (by === "cups") {
    const herb = readMl(t.herbCups);
    if (!herb.ok) return bad("herbCups", herb);
    const amount = parseAmount(t.oil, "cup");
    if (!amount.ok) return bad("oil", amount);
    if (unit(amount.value.unit).kind === "mass") return { field: "oil", say: "By cups needs a volume of oil, such as 3 cups or 700 mL." };
    const oil = readMl(t.oil.trim() && /^[\d\s/.,½¼¾⅓⅔]+$/.test(t.oil) ? `${t.oil} cups` : t.oil);
    if (!oil.ok) return bad("oil", oil);
    return { input: { by, herbMl: herb.value, oilMl: oil.value }, herbs, density };
  }
  const share = readPositive(t.share.replace("%", ""), "how full of herb the jar is, in per cent");
  if (!share.ok) return bad("share", share);
  if (share.value > 100) return { field: "share", say: "A jar can't be more than full." };
  // What is wrong with its size has been said beside it.
  if (vesselMl === null) return null;
  return { input: { by: "fill", vesselMl, fillMl: usableMl(vesselMl, heated), share: share.value / 100 }, herbs, density };
}

/** Days from filling to its best day, for the Reckoner. */
export const waitDays = (p: JarPlan): number => daysBetween(p.day, p.ready.best);
