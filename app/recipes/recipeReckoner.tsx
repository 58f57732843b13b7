/** What a recipe comes to, live: batch, units, cost by costing method and part, and what the shelf is short of. */
import { waxShare } from "#core/material/makeup";
import { firstUnread, readPlain } from "#core/measure/read";
import { grams } from "#core/measure/write";
import { money } from "#core/measure/money";
import { COST_PART_IDS, COST_PARTS, type CostPart, type WorkRates } from "#core/recipe/cost";
import type { Lot } from "#core/stock/lots";
import { uncertainCosts, type Unsure } from "#core/stock/opening";
import { COSTING_METHODS, COSTING_METHOD_IDS } from "#core/stock/costingMethods";
import { wordList } from "#core/words";
import { useMemo, useState, type ReactNode } from "react";
import { OnceLeft } from "../ui/fields/form.tsx";
import { percent, showBase } from "../ui/figures/amounts.tsx";
import { Figure, HowLine, Reckoner } from "../ui/figures/reckoner.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { SheetMaterial } from "#db/shelf/sheetMaterials";
import type { Costing } from "./costing.ts";
import { Sets } from "./foresight/sets.tsx";
import type { Foreseen } from "./foresight/foreseen.ts";
import type { RecipeTexts } from "./recipeTexts.ts";
import { LOOKUP_FAILED } from "../names/useLookup.ts";
import { unreadOf, type ReadRecipe } from "#core/recipe/written";

interface Props {
  read: ReadRecipe;
  values: RecipeTexts;
  stuff: readonly SheetMaterial[];
  /** There is no material at all yet. */
  bare: boolean;
  rates: WorkRates;
  costing: Costing;
  foreseen: Foreseen;
  /** The review, above its figures. */
  said: ReactNode;
  /** What a line names can't be looked up: the server doesn't answer. */
  lost: boolean;
}

/** What in the cost is not what was paid: guesses, unknown costs. */
function RestsOn({ lots: { guessed, none }, names }: { lots: Unsure; names: ReadonlyMap<number, string> }) {
  const say = (lots: readonly Lot[]): string => wordList([...new Set(lots.map((l) => names.get(l.of) ?? l.number))]);
  return (
    <>
      {none.length > 0 && <p className="py-2 text-honey">Nobody has said what {say(none)} cost, so it counts as nothing.</p>}
      {guessed.length > 0 && <p className="py-2 text-honey">What {say(guessed)} cost is a guess.</p>}
    </>
  );
}

export function RecipeReckoner({ read, values, stuff, bare, rates, costing, foreseen, said, lost }: Props) {
  const { currency, school } = useWorkshop();
  const [chosen, choose] = useState(0);
  const { lines, sizes, lossBp, cost: costOf } = costing;
  const size = sizes[Math.min(chosen, sizes.length - 1)];
  const { lots } = foreseen;
  const names = useMemo(() => new Map(stuff.map((m) => [m.id, m.name])), [stuff]);

  if (lines.length === 0 || !size) {
    const nothing = read.problem === null || read.problem.code === "noLines";
    const first = read.sizes[0]?.fill;
    return (
      <Reckoner>
        {said}
        <Figure label="Batch" value={lines.length > 0 ? grams(read.total) : "—"} />
        {!nothing && <OnceLeft say={read.problem!.say} />}
        {nothing && lines.length === 0 && (
          <p className="py-2 text-pine-soft">Write the first ingredient with its amount and the batch begins to add up here.</p>
        )}
        {nothing && lines.length > 0 && first && !first.ok && <p className="py-2 text-pine-soft">{first.problem.say}</p>}
      </Reckoner>
    );
  }

  const cost = costOf(size);
  const { fill, packaging } = size;
  const one = cost.perUnit[school];
  const wax = read.lines.reduce((a, l) => (l.out.ok && l.material ? a + l.out.share * waxShare(l.material) : a), 0);
  const short = [
    ...lines.flatMap((l, i) =>
      cost.lines[i]!.plan.short > 0 ? [{ name: l.name, say: showBase(cost.lines[i]!.plan.short, "weight") }] : [],
    ),
    ...packaging.flatMap((p, i) =>
      cost.packaging[i]!.plan.short > 0 ? [{ name: p.name, say: showBase(cost.packaging[i]!.plan.short, "count") }] : [],
    ),
  ];
  const perUnit = (n: number): string => `${money(n, currency)} ÷ ${cost.fill.units}`;
  const how: Record<CostPart, ReactNode | (() => ReactNode)> = {
    ingredients: () =>
      lines.map((l, i) => (
        <div key={i}>
          <HowLine
            label={l.name}
            value={cost.lines[i]!.cost[school] === null ? "no cost yet" : money(cost.lines[i]!.cost[school], currency)}
          />
          {school === "lot" && (
            <p className="text-fine text-pine-soft">
              {[
                ...cost.lines[i]!.plan.takes.map((t) => `${grams(t.amount)} of ${lots.get(t.lotId)?.number}`),
                ...(cost.lines[i]!.plan.short > 0 ? [`${grams(cost.lines[i]!.plan.short)} at today's price`] : []),
              ].join(" + ")}
            </p>
          )}
        </div>
      )),
    packaging: () =>
      packaging.map((p, i) => (
        <HowLine
          key={i}
          label={`${p.pieces} × ${p.name}`}
          value={cost.packaging[i]!.cost[school] === null ? "no cost yet" : perUnit(cost.packaging[i]!.cost[school])}
        />
      )),
    work: (
      <p>
        {cost.minutes.toFixed(0)} minutes for {cost.fill.units} units at {money(rates.hourly, currency)} an hour.
      </p>
    ),
    overhead: <p>{money(rates.overheadHourly, currency)} for each hour of work: power, rent, insurance.</p>,
    loss: (
      <p>
        Ingredients that end in no unit: {grams(cost.fill.potLoss)} in pot and jug, {grams(cost.fill.leftover)} left over.
      </p>
    ),
  };

  const unread = lost
    ? LOOKUP_FAILED
    : (firstUnread([
        ["Loss", values.loss, readPlain],
        ["Minutes a batch", values.batchMinutes, readPlain],
        ...values.sizes.map((s, i) => [`Minutes a unit, size ${i + 1}`, s.minutes, readPlain] as const),
      ]) ?? unreadOf(read, values));
  return (
    <Reckoner unread={unread}>
      {said}
      {sizes.length > 1 && (
        <div role="group" aria-label="Which size" className="flex flex-wrap gap-1.5 py-2">
          {sizes.map((s, i) => (
            <button
              key={i}
              type="button"
              aria-pressed={s === size}
              className={`act act-small ${s === size ? "border-amber! font-semibold" : ""}`}
              onClick={() => choose(i)}
            >
              {s.label}
            </button>
          ))}
        </div>
      )}
      <Figure
        label="Batch"
        value={grams(cost.batch)}
        how={() => lines.map((l, i) => <HowLine key={i} label={l.name} value={grams(l.weight)} />)}
      />
      <Figure
        label="Fills"
        big
        value={`${cost.fill.units} units`}
        how={
          <>
            <HowLine label="Batch" value={grams(cost.batch)} />
            <HowLine label={`Pot and jug, ${percent(lossBp / 10_000)}`} value={`− ${grams(cost.fill.potLoss)}`} />
            <HowLine label="Each unit" value={grams(fill)} />
          </>
        }
      />
      <Figure
        label="Left over"
        value={grams(cost.fill.leftover)}
        tone={cost.fill.leftover > fill * 0.6 ? "warn" : undefined}
        how={<p>{grams(fill - cost.fill.leftover)} more would fill another unit.</p>}
      />
      {read.sizes.map(
        (s, i) =>
          s.over && (
            <p key={i} className="py-1.5 font-semibold text-honey">
              {s.over}
            </p>
          ),
      )}
      <Figure label="Wax share" value={percent(wax)} />
      <Sets of={foreseen.judged} />
      {read.density.ok && <Figure label="Density, as filled" value={`${(read.density.value.filled / 1000).toFixed(3)} g/mL`} />}
      {cost.fill.units === 0 ? (
        <p className="py-2 font-semibold text-berry">This batch doesn't fill one unit.</p>
      ) : (
        <>
          <Figure
            label="Cost of one unit"
            big
            value={one ? money(one.total, currency) : "—"}
            how={
              <p>
                By the workshop's costing method: {COSTING_METHODS[school].toLowerCase()}. At {cost.fill.units} units; fewer from the same
                packs cost more each.
              </p>
            }
          />
          {one && COST_PART_IDS.map((p) => <Figure key={p} label={COST_PARTS[p]} value={money(one[p], currency)} how={how[p]} />)}
          {!one && (
            <p className="py-2 text-pine-soft">
              Something in it was never bought, so it has no cost yet. Open a line under Ingredients on the shelf and receive it.
            </p>
          )}
          <RestsOn
            lots={uncertainCosts(
              [...cost.lines, ...cost.packaging].map((c) => c.plan),
              [...lots.values()],
            )}
            names={names}
          />
          <div className="py-2">
            <p className="mb-1 font-semibold">One unit, by costing method</p>
            {COSTING_METHOD_IDS.map((s) => (
              <HowLine key={s} label={COSTING_METHODS[s]} value={cost.perUnit[s] ? money(cost.perUnit[s].total, currency) : "—"} />
            ))}
          </div>
          {sizes.length > 1 && (
            <div className="py-2">
              <p className="mb-1 font-semibold">One of each size</p>
              {sizes.map((s, i) => {
                const each = s === size ? one : costOf(s).perUnit[school];
                return <HowLine key={i} label={s.label} value={each ? money(each.total, currency) : "—"} />;
              })}
            </div>
          )}
        </>
      )}
      <div className="py-2" hidden={unread !== null}>
        <p className="font-semibold">{short.length === 0 ? "The shelf has all of it" : "The shelf is short of"}</p>
        {short.map((s, i) => (
          // A material may be short in two lines, so its name is no key.
          <p key={i} className="flex justify-between gap-3 text-honey">
            <span>{s.name}</span>
            <span className="num weight">{s.say}</span>
          </p>
        ))}
        {bare && <p className="text-pine-soft">There is nothing on the shelf yet.</p>}
      </div>
    </Reckoner>
  );
}
