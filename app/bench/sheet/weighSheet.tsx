/** The weigh sheet: large, one line a weighing, lots changeable by hand, saved as it is typed. */
import { Link } from "react-router";
import { bestBefore } from "#core/batch/finishing/bestBefore";
import { pourResult } from "#core/batch/finishing/result";
import { micros, mg, sum } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { money } from "#core/measure/money";
import { plannedMinutes } from "#core/recipe/cost";
import { fillMix, onScale, SCALE_STEPS, showSteps, type Scale } from "#core/recipe/scale";
import type { WorkRates } from "#core/recipe/cost";
import { drawValue } from "#core/stock/lots";
import type { BatchSheet } from "#db/bench/read";
import { wordList } from "#core/words";
import { useState } from "react";
import { useFieldArray } from "react-hook-form";
import { exactWeightText, firstUnread, orNothing, readCount, readWeighed } from "#core/measure/read";
import { useSheet, type Opened } from "../../forms/useSheet.ts";
import { When } from "../../ui/figures/amounts.tsx";
import { PourWindow, Tin } from "../../ui/figures/drawings.tsx";
import { Area, Button } from "../../ui/fields/form.tsx";
import { enterGoesOn, goToNamed } from "../../ui/fields/enter.ts";
import { Print } from "../../ui/sheet/print.tsx";
import { Send, SheetSays } from "../../forms/sheetSays.tsx";
import { Figure, HowLine, Reckoner } from "../../ui/figures/reckoner.tsx";
import { Caution, Heading, Part, Sheet, SideBySide } from "../../ui/sheet/sheet.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import type { Liquid } from "../inDrops.tsx";
import { Failed } from "./failed.tsx";
import { WeighLine } from "./weighLine.tsx";
import { useSavedWeights } from "./useSavedWeights.ts";
import { ByHand } from "./byHand.tsx";
import { PouredRest } from "./pouredRest.tsx";
import { PouredSizes, type Container } from "./pouredSizes.tsx";

/** Said on every weigh sheet. */
export const HOT_WAX = "Never leave hot wax or put it over a flame. Dry tools: a drop of water spoils the batch.";

interface Props {
  sheet: BatchSheet;
  scale: Scale;
  rates: WorkRates;
  density: number | null;
  liquids: readonly Liquid[];
  containers: readonly Container[];
  opened: Opened;
}

export function WeighSheet({
  sheet: { batch, recipe, sizes, others, takes, lots },
  scale: own,
  rates,
  density,
  liquids,
  containers,
  opened,
}: Props) {
  const { currency, today } = useWorkshop();
  const [unit, setUnit] = useState(own.unit);
  const scale: Scale = unit === own.unit ? own : { unit, step: SCALE_STEPS[unit][unit === "g" ? 1 : 2] };
  const form = useSheet(
    {
      takes: takes.map((t) => ({
        position: t.position,
        materialId: t.materialId,
        material: t.material,
        lot: String(t.lotId),
        planned: exactWeightText(t.planned),
        weighed: t.weighed === null ? "" : exactWeightText(t.weighed),
      })),
      sizes: sizes.map((s) => ({ productId: s.productId, label: s.label, fill: s.fill, units: s.units ? String(s.units) : "" })),
      leftover: batch.leftover === null ? "" : exactWeightText(batch.leftover),
      leftoverTo: "gone",
      minutes: String(batch.minutes ?? plannedMinutes(recipe.batchMinutes, sizes)),
      note: batch.note,
      kept: [] as { position: number; lot: string; weighed: string }[],
    },
    opened,
    // The weights are saved on the batch itself, for every window.
    { draft: `Pouring ${recipe.name}`, only: ["sizes", "leftover", "leftoverTo", "minutes", "note"] },
  );
  const { fields, insert, remove } = useFieldArray({ control: form.control, name: "takes" });
  const v = form.values;
  const { errors } = form.formState;

  const keep = useSavedWeights(batch.id, JSON.stringify(v.takes), (kept) => ({
    takes: form.getValues().takes,
    kept: JSON.parse(kept) as object,
  }));

  const rows = v.takes.map((t) => {
    const weighed = t.weighed.trim() === "" ? null : readWeighed(t.weighed);
    const planned = readWeighed(t.planned);
    return {
      ...t,
      lot: lots.find((l) => l.id === Number(t.lot)),
      weighed: weighed?.ok ? weighed.value : null,
      planned: planned.ok ? planned.value : mg(0),
    };
  });
  const done = rows.filter((r) => r.weighed !== null).length;
  const inPot = sum(rows.map((r) => r.weighed ?? mg(0)));
  const ingredients = micros(
    rows.reduce((a, r) => a + (r.lot && r.weighed !== null && r.weighed <= r.lot.onHand ? drawValue(r.lot, r.weighed) : 0), 0),
  );
  const expected = fillMix(
    inPot,
    recipe.lossBp,
    sizes.map((s, i) => ({ fill: s.fill, units: i === 0 ? null : s.planned })),
  );
  const best = bestBefore(
    today,
    recipe.keepsMonths,
    rows.flatMap((r) => (r.lot ? [r.lot] : [])),
  );
  const filled = v.sizes.flatMap((s) =>
    orNothing(s.units, readCount, 0) > 0
      ? [{ units: orNothing(s.units, readCount, 0), fill: mg(s.fill), packaging: micros(0), minutes: 0 }]
      : [],
  );
  const leftover = readWeighed(v.leftover || "0");
  const result =
    filled.length > 0 && leftover.ok && done === rows.length
      ? pourResult({ weighed: inPot, ingredients, sizes: filled, leftover: leftover.value, rates })
      : null;
  const unread = firstUnread([
    ...v.takes.map((t, i) => [`${t.material}, line ${i + 1}`, t.weighed, readWeighed] as const),
    ...v.sizes.map((s) => [s.label, s.units, readCount] as const),
    ["Left in the jug", v.leftover, readWeighed],
    ["Minutes of work", v.minutes, readCount],
  ]);
  const planned = wordList(sizes.flatMap((s) => (s.planned > 0 ? [`${s.planned} × ${s.label}`] : [])));

  /** The part a line goes into alone; nothing of what goes into the whole pot. */
  const intoOf = (position: number): string | null => {
    const sizeId = takes.find((t) => t.position === position)?.sizeId ?? null;
    return sizes.find((s) => s.id === sizeId)?.label ?? null;
  };
  const split = (i: number): void => {
    const row = rows[i]!;
    const other = lots.find((l) => l.of === row.materialId && l.id !== row.lot?.id && l.onHand > 0);
    insert(
      i + 1,
      {
        position: row.position,
        materialId: row.materialId,
        material: row.material,
        lot: String(other?.id ?? row.lot?.id ?? ""),
        planned: "0 g",
        weighed: "",
      },
      { focusName: `takes.${i + 1}.weighed` },
    );
  };

  const pour = (): void => {
    form.setValue("kept", JSON.parse(keep.kept()) as (typeof v)["kept"]);
    void form.send("pour")();
  };

  return (
    <form onSubmit={(e) => e.preventDefault()} onKeyDown={enterGoesOn}>
      <Heading
        title={recipe.name}
        about={
          <>
            Weigh sheet for {planned}, by version {recipe.n}, set out <When day={batch.day} />.{" "}
            <span className="no-print">{keep.going ? "Saving …" : (keep.problems[0]?.say ?? "What you type is saved.")}</span>
          </>
        }
      >
        <Print pdf={`/bench/${batch.id}/pdf`} />
        <Link to={`/bench/${batch.id}/at`} className="act">
          At the bench
        </Link>
        <Button onClick={() => void keep.atOnce().then(() => form.send("clear")())}>Clear off the bench</Button>
        <Send sheet={form} press={pour}>
          Pour
        </Send>
      </Heading>
      <SideBySide
        reckoner={
          <Reckoner unread={unread} onPaper={false}>
            <div className="flex items-center gap-4 py-2">
              <Tin share={done / rows.length} label={`${done} of ${rows.length} weighed`} />
              <p className="font-display text-large">
                {done} of {rows.length} weighed
              </p>
            </div>
            <Figure
              label="In the pot"
              big
              value={grams(inPot)}
              how={<HowLine label="Planned" value={grams(sum(rows.map((r) => r.planned)))} />}
            />
            <Figure
              label="Should fill"
              value={done === 0 ? "—" : sizes.map((s, i) => `${expected.units[i]} × ${s.label}`).join(", ")}
              how={
                <>
                  <HowLine label="Pot and jug" value={grams(expected.potLoss)} />
                  <HowLine label="Left over" value={grams(expected.leftover)} />
                </>
              }
            />
            <Figure label="Ingredients so far" value={money(ingredients, currency)} />
            <Figure
              label="Best before"
              value={<When day={best.day} />}
              tone={best.limitedBy ? "warn" : undefined}
              how={<p>{best.limitedBy ? `Cut short by lot ${best.limitedBy}.` : `${recipe.keepsMonths} months from today.`}</p>}
            />
            {result && (
              <Figure
                label="Yield"
                value={`${(result.yield * 100).toFixed(1)} %`}
                how={<HowLine label="Lost in pot and jug" value={grams(result.lost)} />}
              />
            )}
            <div className="pt-3">
              <PourWindow />
              <p className="text-small text-pine-soft">
                Balms pour at about 54 °C, shea-rich ones cooler, wax-rich ones hotter. Scent goes in below 50 °C.
              </p>
            </div>
          </Reckoner>
        }
      >
        <Sheet>
          <SheetSays sheet={form} />
          <div role="group" aria-label="Weigh in" className="no-print mb-1 flex items-center gap-1.5 text-small text-pine-soft">
            Weigh in
            {(["g", "oz"] as const).map((u) => (
              <button
                key={u}
                type="button"
                aria-pressed={unit === u}
                className={`act act-small ${unit === u ? "border-amber! font-semibold" : ""}`}
                onClick={() => setUnit(u)}
              >
                {u === "g" ? "grams" : "ounces"}
              </button>
            ))}
          </div>
          <ol className="divide-y divide-rule">
            {fields.map((f, i) => {
              const row = rows[i];
              return (
                row && (
                  <WeighLine
                    key={f.id}
                    at={i}
                    row={row}
                    into={intoOf(row.position)}
                    repeated={i > 0 && rows[i - 1]!.position === row.position}
                    scale={scale}
                    liquids={liquids}
                    lots={lots}
                    problem={errors.takes?.[i]?.weighed?.message ?? errors.takes?.[i]?.lot?.message}
                    field={form.register(`takes.${i}.weighed`)}
                    choose={(lot) => form.setValue(`takes.${i}.lot`, lot, { shouldDirty: true })}
                    split={() => split(i)}
                    remove={() => remove(i)}
                    next={(from) => goToNamed(from, i + 1 < fields.length ? `takes.${i + 1}.weighed` : "sizes.0.units")}
                  />
                )
              );
            })}
          </ol>
          <p className="flex justify-between gap-4 border-t border-rule-strong py-2">
            <span>Together</span>
            <span className="weight font-semibold">
              {showSteps(
                rows.reduce((a, r) => a + onScale(r.planned, scale).steps, 0),
                scale,
              )}
            </span>
          </p>
          <Part title={<span id="poured">Poured</span>}>
            <div className="no-print">
              <PouredSizes form={form} sizes={sizes} others={[...sizes, ...others]} containers={containers} density={density} />
              <PouredRest form={form} />
              <Area
                className="mt-4"
                label="What happened"
                hint="Temperatures, tests, what was changed."
                {...form.register("note")}
                problem={errors.note?.message}
              />
            </div>
            <ByHand
              sizes={sizes.map((s, i) => ({ ...s, units: v.sizes[i]?.units ?? "" }))}
              leftover={v.leftover}
              minutes={v.minutes}
              note={v.note}
            />
          </Part>
          {recipe.method && (
            <Part title="Method">
              <p className="max-w-prose whitespace-pre-line">{recipe.method}</p>
            </Part>
          )}
          <Failed opened={opened} before={keep.atOnce} />
          <div className="mt-5">
            <Caution>{HOT_WAX}</Caution>
          </div>
        </Sheet>
      </SideBySide>
    </form>
  );
}
