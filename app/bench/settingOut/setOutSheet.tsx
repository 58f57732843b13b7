/** Setting out on its sheet: which recipe, how large, into which pots, and what is then to be weighed. */
import { Link } from "react-router";
import { SIZE_MODES } from "#core/batch/planning/size";
import { readWeighed } from "#core/measure/read";
import { grams } from "#core/measure/write";
import { useCallback, useEffect, useMemo, useState } from "react";
import { selectFilled } from "../../forms/fillEmptyField.ts";
import { useSubmitWhenReady } from "../../forms/useSubmitWhenReady.ts";
import { useSheet } from "../../forms/useSheet.ts";
import { shelfOfStuff } from "../../names/named.ts";
import { useLastKnown } from "../../names/useLookup.ts";
import { showBase, useSayDay } from "../../ui/figures/amounts.tsx";
import { Choice, Problem, Text } from "../../ui/fields/form.tsx";
import { Pick } from "../../ui/fields/pick.tsx";
import { Empty, Heading, Part, Sheet, SideBySide } from "../../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../../forms/sheetSays.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { GetReady } from "./getReady.tsx";
import { MeltIn, rowsMissing } from "./meltIn.tsx";
import { PartsOut, partsMissing } from "./partsOut.tsx";
import { plannedOf, type SetOutTexts } from "./planned.ts";
import { SetOutReckoner } from "./setOutReckoner.tsx";
import { ToWeigh } from "./toWeigh.tsx";
import { allOfBase, initialUnits, useChosen, versionOf, type Chosen, type Loaded } from "./useChosen.ts";

export function SetOutSheet(page: Loaded) {
  if (!page.chosen)
    return (
      <Empty
        title="No recipe to make yet"
        act={
          <Link to="/recipes/new" className="act act-main">
            Write a recipe
          </Link>
        }
      >
        A batch is made from a recipe. Write one first.
      </Empty>
    );
  return <Sized page={page} start={page.chosen} />;
}

function Sized({ page, start }: { page: Loaded; start: Chosen }) {
  const { choices, settings } = page;
  const { today: day } = useWorkshop();
  const all = page.melt === null ? "" : allOfBase(start, page.melt);
  const sheet = useSheet<SetOutTexts>(
    {
      recipe: String(start.written.recipe.id),
      version: versionOf(start),
      // Asked for to use up a lot, or to pour one again, it is all of that, in as many of each size as there is left for.
      mode: page.lot ? "lot" : all ? "grams" : "pots",
      weight: all,
      lot: page.lot,
      parts: partsMissing(start.written, []),
      melted: page.bases.map((b) => ({ lot: String(b.lotId), amount: b.lotId === page.melt ? all : "" })),
      units: page.lot || all ? start.written.sizes.map(() => "") : initialUnits(start, page),
    },
    page.opened,
    { draft: "Setting out a batch" },
  );
  const { errors } = sheet.formState;
  const sayIt = useSayDay();
  const { setValue, getValues } = sheet;
  const toNewest = useCallback(() => setValue("version", ""), [setValue]);
  const chosen = useChosen(page, sheet.values.recipe, sheet.values.version, toNewest);
  // The sizes of a recipe chosen by hand are filled in once they are known, unless a hand has filled them in meanwhile.
  const [picked, pick] = useState<string>();
  useEffect(() => {
    // What is set out is what is seen, even where somebody writes a newer version meanwhile.
    if (chosen) {
      setValue("version", versionOf(chosen));
      const parts = partsMissing(chosen.written, getValues("parts"));
      if (parts.length > 0) setValue("parts", [...getValues("parts"), ...parts]);
    }
    if (!chosen || picked !== String(chosen.written.recipe.id)) return;
    if (getValues("units").every((u) => u.trim() === "")) {
      setValue("units", initialUnits(chosen));
      selectFilled("units");
    }
    pick(undefined);
  }, [chosen, picked, setValue, getValues]);
  // So are bases that came to the shelf since the sheet was begun.
  useEffect(() => {
    const missing = rowsMissing(page.bases, getValues("melted"));
    if (missing.length > 0) setValue("melted", [...getValues("melted"), ...missing]);
  }, [page.bases, setValue, getValues]);
  const waits = !chosen || picked !== undefined;
  const sending = useSubmitWhenReady(sheet, waits);
  const { v, of } = useLastKnown({ v: sheet.values, of: chosen ?? start }, waits);
  const { written: w, versions, stuff, holders } = of;
  const newest = versions[0]?.n;
  const lots = useMemo(() => stuff.flatMap((s) => s.lots), [stuff]);
  const shelf = useMemo(() => shelfOfStuff(stuff, day), [stuff, day]);
  const planned = useMemo(
    () => plannedOf({ w, stuff, lots, shelf, bases: page.bases, settings, day }, v),
    [w, stuff, lots, shelf, page.bases, settings, day, v],
  );
  const { size, weigh, plan, byId, name, ready } = planned;
  const { scale } = settings;
  const lotChoices = [
    { value: "", name: "Choose a lot" },
    ...lots
      .filter((l) => w.lines.some((x) => x.materialId === l.of))
      .map((l) => ({
        value: String(l.id),
        name: l.number,
        aside: showBase(l.onHand, "weight"),
        about: [name.get(l.of), l.bestBefore && `best before ${sayIt(l.bestBefore)}`].filter(Boolean).join(", "),
      })),
  ];
  const many = w.sizes.length > 1;
  const sizeProblem = size.ok ? undefined : size.problem;

  // What is melted in counts too: no figure of what can't be read.
  const bad = v.melted.map((m) => (m.amount.trim() === "" ? null : readWeighed(m.amount))).find((m) => m?.ok === false);
  const begun = v.units.some((u) => u.trim() !== "") || v.weight.trim() !== "";
  const unread = bad?.ok === false ? bad.problem.say : !size.ok && begun ? size.problem.say : null;

  return (
    <form onSubmit={sending.send()}>
      <Heading
        title="Set out a batch"
        about="Choose how much. The lots to use first are picked for you; you can change them on the weigh sheet. Nothing leaves the shelf until you pour."
      >
        <Link to="/bench" className="act">
          Leave
        </Link>
        <Send sheet={sending}>Set out</Send>
      </Heading>
      <SideBySide
        reckoner={
          <SetOutReckoner
            {...{ ...planned, unread, holders, w, settings }}
            fewer={(units) => {
              setValue("mode", "pots");
              setValue("units", units.map(String));
              selectFilled("units");
            }}
          />
        }
      >
        <Sheet>
          <SheetSays sheet={sheet} />
          <Problem say={(errors as { size?: { message?: string } }).size?.message} />
          <div className="grid gap-4 sm:grid-cols-2">
            <Pick
              label="Recipe"
              className={versions.length > 1 ? "" : "sm:col-span-2"}
              control={sheet.control}
              name="recipe"
              options={choices.map((r) => ({ value: String(r.id), name: r.name, aside: grams(r.total), about: r.sizes }))}
              onPicked={(recipe) => {
                setValue("version", "");
                setValue("parts", []);
                // The other recipe's number is nobody's now: the same, typed before this one's is known, is a hand's.
                setValue(
                  "units",
                  getValues("units").map(() => ""),
                );
                pick(recipe);
              }}
              problem={errors.recipe?.message}
            />
            {versions.length > 1 && (
              <Pick
                label="Made by"
                control={sheet.control}
                name="version"
                options={versions.map(({ n, day: since, note }) => ({
                  value: String(n),
                  name: `Version ${n}`,
                  aside: n === newest ? "the newest" : `of ${sayIt(since)}`,
                  about: note,
                }))}
                hint={w.recipe.n !== newest && <strong className="text-honey">It is made by version {newest} now.</strong>}
                problem={errors.version?.message}
              />
            )}
            <Choice label="How large" options={Object.entries(SIZE_MODES)} {...sheet.register("mode")} />
            {v.mode === "lot" && (
              <Pick label="Lot to use up" options={lotChoices} control={sheet.control} name="lot" problem={errors.lot?.message} />
            )}
            {v.mode === "grams" && (
              <Text
                data-amount
                label="Batch weight"
                placeholder="such as 800 g"
                {...sheet.register("weight")}
                problem={errors.weight?.message}
                unread={v.weight && sizeProblem ? sizeProblem.say : undefined}
              />
            )}
          </div>
          <div className="mt-4 grid gap-4 sm:grid-cols-4">
            {/* By place, not by product: a hand that went into the first before the chosen recipe was known stays in it. */}
            {w.sizes.map((s, i) => (
              <Text
                data-amount
                key={i}
                label={many ? `Pots of ${s.label}` : "Units"}
                placeholder={v.mode === "pots" ? "none" : "as many as there are"}
                className="[&_input]:text-right"
                {...sheet.register(`units.${i}`)}
                problem={errors.units?.[i]?.message}
                unread={
                  i === 0 && sizeProblem && v.mode !== "grams" && v.mode !== "lot" && v.units.some((u) => u) ? sizeProblem.say : undefined
                }
              />
            ))}
          </div>
          {v.mode !== "pots" && (
            <p className="mt-1 text-small text-pine-soft">
              Leave a number empty to fill as many as there is left for{many && ": the first size first, then the next with the rest"}.
            </p>
          )}
          <PartsOut
            w={w}
            typed={v.parts}
            names={name}
            field={(i, label) => (
              <Text
                data-amount
                label={label}
                className="w-24 [&_input]:text-right [&_label]:sr-only"
                placeholder="none"
                {...sheet.register(`parts.${i}.units`)}
                problem={errors.parts?.[i]?.units?.message}
              />
            )}
          />
          <MeltIn
            bases={page.bases}
            typed={v.melted}
            lots={byId}
            field={(i, label) => (
              <Text
                data-amount
                label={label}
                className="w-40 [&_input]:text-right [&_label]:sr-only"
                placeholder="none"
                {...sheet.register(`melted.${i}.amount`)}
                problem={errors.melted?.[i]?.amount?.message}
              />
            )}
          />
          <Part title="To weigh">
            <ToWeigh lines={weigh} plan={plan} lots={byId} names={name} scale={scale} />
          </Part>
          <GetReady items={ready} />
        </Sheet>
      </SideBySide>
    </form>
  );
}
