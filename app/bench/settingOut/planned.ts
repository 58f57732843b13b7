/** What follows from a batch as it is being set out: what is weighed out of which lots, what it fills and costs, and what is short of it. */
import { bestBefore } from "#core/batch/finishing/bestBefore";
import { stirredInto } from "#core/batch/planning/parts";
import { getReady } from "#core/batch/planning/ready";
import { mostUnits, readSize, type SizeMode } from "#core/batch/planning/size";
import { mg, sum, type Mg } from "#core/measure/exact";
import { costMix } from "#core/recipe/cost";
import { fillMix, onScale, scaleTo } from "#core/recipe/scale";
import type { Settings } from "#core/settings/settings";
import type { Lot } from "#core/stock/lots";
import { planTakes, type Shelf } from "#core/stock/shelf";
import type { Day } from "#core/when";
import type { WrittenRecipe } from "#db/recipe/read";
import type { SheetMaterial } from "#db/shelf/sheetMaterials";
import { partsOf, type PartText } from "./partsOut.tsx";
import { meltedOf, takesOf, type Base, type Melted, type MeltedText } from "./meltIn.tsx";

/** What is typed on the sheet. */
export interface SetOutTexts {
  recipe: string;
  /** Of the recipe, by its number. */
  version: string;
  mode: SizeMode;
  weight: string;
  lot: string;
  units: string[];
  parts: PartText[];
  melted: MeltedText[];
}

/** What the sheet was read with. */
interface Known {
  w: WrittenRecipe;
  stuff: readonly SheetMaterial[];
  lots: readonly Lot[];
  shelf: Shelf;
  bases: readonly Base[];
  settings: Pick<Settings, "scale" | "hourly" | "overheadHourly">;
  day: Day;
}

export interface Short {
  of: number;
  by: number;
  /** A line of the recipe, what it is packed in, a base that is melted in, or what is stirred into a part. */
  as: "line" | "pack" | "base" | "stirred";
}

/** Something to be weighed. */
interface Line {
  id: number | string;
  materialId: number;
  /** Where it comes from, in words. */
  how: string;
  weight: Mg;
  /** A base, with the lot it is. */
  own?: Melted;
}

/** The recipe's lines at what is left of a batch beside what is melted in, and that. */
function potOf({ lines }: WrittenRecipe, melted: readonly Melted[], batch: Mg): Line[] {
  const rest = mg(Math.max(0, batch - sum(melted.map((m) => m.weight))));
  const weights = scaleTo(
    lines.map((l) => l.weight),
    rest,
  );
  return [
    ...lines.map((l, i) => ({ ...l, how: `written as ${l.entered}`, weight: weights[i]! })),
    ...melted.map((m) => ({ ...m, id: -m.lotId, how: "melted in again", own: m })),
  ].filter((l) => l.weight > 0);
}

/** What is stirred into some of what is filled. */
const stirredOf = (w: WrittenRecipe, typed: readonly PartText[]): Line[] =>
  partsOf(w, typed).flatMap(({ variant, units }) =>
    stirredInto(variant, units, w.recipe.lossBp).map(({ of, amount }) => ({
      id: `${variant.id} ${of}`,
      materialId: of,
      how: `stirred into ${units} × ${variant.label}`,
      weight: amount,
    })),
  );

/** Whether there is enough of everything for so many of each size. */
function enoughFor({ w, shelf }: Known, melted: readonly Melted[], units: readonly number[]): boolean {
  const size = readSize({ mode: "pots", weight: "", lotId: 0, units: units.map(String) }, w, []);
  if (!size.ok) return false;
  const needs = [
    ...potOf(w, melted, size.value.batch).map((l) => ({ of: l.materialId, amount: l.weight })),
    ...w.sizes.flatMap((s, i) => s.packaging.map((p) => ({ of: p.materialId, amount: p.pieces * units[i]! }))),
  ];
  return planTakes(needs, shelf).every((p) => p.short === 0);
}

export function plannedOf(known: Known, v: SetOutTexts) {
  const { w, stuff, lots, shelf, settings, day } = known;
  const size = readSize({ mode: v.mode, weight: v.weight, lotId: Number(v.lot), units: v.units }, w, lots);
  const batch = size.ok ? size.value.batch : w.recipe.total;
  const byId = new Map(lots.map((l) => [l.id, l]));
  const melted = meltedOf(known.bases, v.melted);
  const pot = potOf(w, melted, batch);
  const lines = pot.map((l) => ({ of: l.materialId, weight: l.weight }));
  const sizes = w.sizes.map((s, i) => ({
    ...s,
    units: size.ok ? size.value.units[i]! : 0,
    unitMinutes: s.unitMinutesHundredths / 100,
    packaging: s.packaging.map((p) => ({ of: p.materialId, pieces: p.pieces })),
  }));
  const cost = size.ok ? costMix({ lines, sizes, work: { ...settings, batchMinutes: w.recipe.batchMinutes } }, shelf) : null;
  const useFirst = cost
    ? cost.lines.map((l) => l.plan)
    : planTakes(
        lines.map((l) => ({ of: l.of, amount: l.weight })),
        shelf,
      );
  const inPot = pot.map((l, i) => (l.own ? takesOf(l.own, byId.get(l.own.lotId)?.onHand ?? 0) : useFirst[i]!));
  const stirred = stirredOf(w, v.parts);
  // Out of what the pot leaves of it.
  const after = planTakes(
    [...pot, ...stirred].map((l) => ({ of: l.materialId, amount: l.weight })),
    shelf,
  ).slice(pot.length);
  const weigh = [...pot, ...stirred];
  const plan = [...inPot, ...after];
  const short: Short[] = [
    ...weigh.flatMap((l, i) => {
      const by = plan[i]!.short;
      return by > 0
        ? [{ of: l.materialId, by, as: l.own ? ("base" as const) : i < pot.length ? ("line" as const) : ("stirred" as const) }]
        : [];
    }),
    ...sizes.flatMap((s, n) =>
      s.packaging.flatMap((p, i) => {
        const by = cost?.sizes[n]?.packaging[i]?.plan.short ?? 0;
        return by > 0 ? [{ of: p.of, by, as: "pack" as const }] : [];
      }),
    ),
  ];
  const facts = new Map(stuff.map((s) => [s.id, s]));
  const asMade = (id: number) => {
    const { name, kind, cautions } = facts.get(id) ?? { name: "", kind: "consumable" as const, cautions: [] };
    return { name, kind, cautions };
  };
  return {
    ...{ size, batch, byId, weigh, sizes, cost, plan, short },
    name: new Map(stuff.map((s) => [s.id, s.name])),
    madeHere: new Set(stuff.filter((s) => s.kind === "infusedOil").map((s) => s.id)),
    potLoss: fillMix(batch, w.recipe.lossBp, []).potLoss,
    best: bestBefore(
      day,
      w.recipe.keepsMonths,
      inPot.flatMap((p) => p.takes.flatMap((t) => byId.get(t.lotId) ?? [])),
    ),
    unreadable: weigh.filter((l) => onScale(l.weight, settings.scale).outOfReach),
    /** The largest batch there is enough for, where there isn't for this one; nothing where a smaller one wouldn't help. */
    instead: short.some((s) => s.as === "base" || s.as === "stirred")
      ? undefined
      : short.length > 0 && size.ok && size.value.units.some((u) => u > 0)
        ? mostUnits(size.value.units, (units) => enoughFor(known, melted, units))
        : null,
    ready: getReady({
      type: w.recipe.type,
      ingredients: weigh.map((l) => asMade(l.materialId)),
      packaging: sizes.flatMap((s) => s.packaging.map((p) => ({ ...asMade(p.of), pieces: p.pieces * s.units }))),
      scale: settings.scale,
    }),
  };
}
