/** The recipe sheet: lines in whatever unit, the size, packaging and work. */
import { Link } from "react-router";
import type { Fitted } from "#core/firmness/fit";
import type { WorkRates } from "#core/recipe/cost";
import { lotLetters } from "#core/lot/letters";
import { RECIPE_TYPES, type RecipeType } from "#core/recipe/types";
import type { WrittenRecipe } from "#db/recipe/read";
import { lazy, Suspense, useCallback, useMemo, useState, type FocusEvent, type ReactNode } from "react";
import { useDebounced } from "../ui/useDebounced.ts";
import { fillEmptyField } from "../forms/fillEmptyField.ts";
import { useSubmitWhenReady } from "../forms/useSubmitWhenReady.ts";
import { useSheet, type Opened } from "../forms/useSheet.ts";
import { Claims } from "../ui/fields/claims.tsx";
import { Button, Choice, Text } from "../ui/fields/form.tsx";
import { Caution, Heading, Part, Sheet, SideBySide } from "../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../forms/sheetSays.tsx";
import { Ingredients, Reading } from "./ingredients.tsx";
import { RecipeReckoner } from "./recipeReckoner.tsx";
import type { Scale } from "#core/recipe/scale";
import { readWritten, unreadOf } from "#core/recipe/written";
import { AWAY_SAID } from "../away/keeping.tsx";
import { copyTexts, namesOn, recipeTexts, type RecipeTexts } from "./recipeTexts.ts";
import { Print } from "../ui/sheet/print.tsx";
import type { SheetMaterial } from "#db/shelf/sheetMaterials";
import { useLookup, useLastKnown } from "../names/useLookup.ts";
import type { FeltProps } from "./felt/felt.tsx";
import { costingOf } from "./costing.ts";
import { useForeseen } from "./foresight/foreseen.ts";
import { Foresight } from "./foresight/foresight.tsx";
import { Judgements } from "./foresight/judgements.tsx";
import { useMends } from "./foresight/suggestedFix.ts";
import { Steps } from "./method/steps.tsx";
import { Sizes } from "./sizes.tsx";

/** Said while an older version is on the sheet. */
const backSaid = (id: number, n: number): ReactNode => (
  <>
    This is version {n} as it was. Saved, it becomes the newest one; until then nothing has changed.{" "}
    <Link to={`/recipes/${id}`} className="underline underline-offset-4">
      Show what it is made by now
    </Link>
  </>
);

const PasteRecipe = lazy(() => import("./scribbled/pasteRecipe.tsx"));

interface Props {
  written: WrittenRecipe | null;
  /** The older version that is on the sheet to be gone back to. */
  back: number | null;
  /** One that the new one is a copy of. */
  like: WrittenRecipe | null;
  /** What it takes as it is written. */
  stuff: readonly SheetMaterial[];
  /** There is no material at all yet. */
  bare: boolean;
  rates: WorkRates;
  scale: Scale;
  /** What the workshop has taught the model of firmness, and what was felt of this recipe. */
  learned: Fitted;
  tests: FeltProps["tests"];
  opened: Opened;
  /** Letters other recipes have, where this one is new. */
  letters: readonly string[];
  /** Kept, it leads on through the first steps. */
  leadsOn: boolean;
  types: readonly (readonly [RecipeType, string])[];
  children?: ReactNode;
}

const FIELD_NAMES = {
  name: "Name",
  code: "Lot letters",
  type: "Made as",
  makes: "Batch weight",
  loss: "Loss, %",
  overrun: "Whipped, % air",
  keepsMonths: "Keeps, months",
  batchMinutes: "Minutes a batch",
  method: "Method",
  note: "What changed",
  usedOn: "Where it goes",
  forWhom: "Who uses it",
  answers: "What is known",
  lines: "Ingredients",
  sizes: "Sizes",
};

export function RecipeSheet({
  written,
  back,
  like,
  stuff: given,
  bare,
  rates,
  scale,
  learned,
  tests,
  opened,
  letters,
  leadsOn,
  types,
  children,
}: Props) {
  const names = useMemo(() => new Map(given.map((m) => [m.id, m.name])), [given]);
  const sheet = useSheet<RecipeTexts>(
    like ? copyTexts(like, names) : recipeTexts(written, names, back === null ? "" : `Back to version ${back}`),
    opened,
    {
      draft: (v) => v.name || "A recipe",
    },
  );
  const { values } = sheet;
  const {
    known: stuff,
    meant,
    asking,
    lost,
  } = useLookup(
    "material",
    given,
    useMemo(() => namesOn(values), [values]),
    sheet.means,
  );
  const sending = useSubmitWhenReady(sheet, asking && !lost);
  const now = useMemo(() => ({ read: readWritten(values, stuff, meant), values, form: sheet.form }), [values, stuff, meant, sheet.form]);
  const shown = useLastKnown(now, asking);
  const taught = useMemo(() => ({ scale, constants: learned.constants }), [scale, learned]);
  const foreseen = useForeseen(shown, stuff, taught);
  const costing = useMemo(() => costingOf(shown.read, shown.values, rates, foreseen.shelf), [shown, rates, foreseen.shelf]);
  const unread = unreadOf(shown.read, shown.values);
  // What is beneath the ingredients is drawn once typing pauses.
  const soon = useDebounced(useMemo(() => ({ foreseen, costing, unread }), [foreseen, costing, unread]));
  const felt = useMemo(
    () => (written && back === null ? { recipeId: written.recipe.id, n: written.recipe.n, tests, learned } : null),
    [written, back, tests, learned],
  );
  // What was pasted outlives its window.
  const [scribble, setScribble] = useState("");
  const [pasting, paste] = useState<"no" | "asked" | "pasted">("no");
  const scribbled = useCallback((text: string) => {
    setScribble(text);
    paste("pasted");
  }, []);
  const mending = useMends(sheet.form);
  // Suggested once there is a name, and anybody's to change.
  const lettersOf = (name: string): string => (written ? "" : lotLetters(name, letters));
  const suggest = (name: string): void => fillEmptyField(sheet, "code", lettersOf(name));
  const { errors } = sheet.formState;
  // Weighed amounts are the batch; parts and shares are of one that has to be said.
  const inShares = values.makes !== "" || errors.makes !== undefined || values.lines.some((l) => /%|cent|part/i.test(l.entered));

  return (
    <Reading of={shown}>
      <form onSubmit={sending.send()}>
        <Heading
          title={written ? written.recipe.name : like ? `Like ${like.recipe.name}` : "Write a recipe"}
          about={
            written
              ? back === null
                ? written.recipe.retired && AWAY_SAID
                : backSaid(written.recipe.id, back)
              : "Measure the way you do: g, oz, cups, tbsp, drops, parts or per cent, mixed as you like. Grams are shown beside every line."
          }
        >
          {written && <Print />}
          {written && !written.recipe.retired && (
            <Link to={`/bench/set-out?recipe=${written.recipe.id}`} className="act">
              Set out a batch
            </Link>
          )}
          <Send sheet={sending}>{leadsOn ? "Save and go on" : "Save the recipe"}</Send>
        </Heading>
        <SideBySide
          reckoner={
            <RecipeReckoner
              {...{ stuff, bare, rates, costing, foreseen, lost }}
              read={shown.read}
              values={shown.values}
              said={<Judgements foreseen={foreseen} mending={mending} form={sheet.form} ready={unread === null} />}
            />
          }
        >
          <Sheet>
            <SheetSays sheet={sheet} names={FIELD_NAMES} />
            <div className="mb-6 grid gap-4 sm:grid-cols-[1fr_9.5rem_7.5rem]">
              <div>
                <Text
                  label="Name"
                  {...sheet.register("name", {
                    // Gone on to, the letters' own field is filled in as it is reached, so that what is typed next replaces it.
                    onBlur: (e: FocusEvent<HTMLInputElement>) =>
                      e.relatedTarget?.getAttribute("name") !== "code" && suggest(e.target.value),
                  })}
                  problem={errors.name?.message}
                />
                <Claims name={values.name} />
              </div>
              <Choice
                label="Made as"
                options={types}
                {...sheet.register("type", {
                  onChange: (e: { target: { value: RecipeType } }) =>
                    !written && sheet.setValue("keepsMonths", String(RECIPE_TYPES[e.target.value].keepsMonths)),
                })}
              />
              <Text
                label="Lot letters"
                placeholder="such as HB"
                {...sheet.register("code")}
                onFocus={() => suggest(sheet.getValues("name"))}
                problem={errors.code?.message}
              />
            </div>
            <Part
              title="Ingredients"
              aside={
                <div className="no-print flex flex-wrap items-baseline gap-x-4">
                  {written && (
                    <span className="text-small text-pine-soft">
                      as a file:{" "}
                      {(["json", "csv"] as const).map((as) => (
                        <Link key={as} reloadDocument to={`/recipes/${written.recipe.id}/file/${as}`} className="pressable mr-2">
                          {as.toUpperCase()}
                        </Link>
                      ))}
                    </span>
                  )}
                  <Button small onClick={() => paste("asked")}>
                    Paste a recipe
                  </Button>
                </div>
              }
            >
              {pasting !== "no" && (
                <Suspense>
                  <PasteRecipe
                    now={() => sheet.form.getValues()}
                    put={(t) => mending.replace("Put the pasted recipe in", { ...t, code: t.code || lettersOf(t.name) })}
                    text={scribble}
                    setText={setScribble}
                    readNow={pasting === "pasted"}
                    close={() => paste("no")}
                  />
                </Suspense>
              )}
              <Ingredients form={sheet.form} onScribbled={scribbled} />
              {inShares && (
                <div className="mt-4 max-w-xs">
                  <Text
                    data-amount
                    label="Batch weight"
                    hint="For parts and per cent: what they are taken of."
                    placeholder="such as 800 g"
                    {...sheet.register("makes")}
                    problem={errors.makes?.message}
                  />
                </div>
              )}
            </Part>
            <Sizes sheet={sheet} read={shown.read} />
            <Part title="The batch">
              <div className="mb-4 grid gap-4 sm:grid-cols-4">
                <Text
                  data-amount="decimal"
                  label="Loss, %"
                  hint="Stays in pot and jug."
                  {...sheet.register("loss")}
                  problem={errors.loss?.message}
                />
                <Text
                  data-amount="decimal"
                  label="Whipped, % air"
                  hint="On top of the volume before; empty when it isn't."
                  {...sheet.register("overrun")}
                  problem={errors.overrun?.message}
                />
                <Text data-amount label="Keeps, months" {...sheet.register("keepsMonths")} problem={errors.keepsMonths?.message} />
                <Text
                  data-amount
                  label="Minutes a batch"
                  hint="Weighing, melting, cleaning."
                  {...sheet.register("batchMinutes")}
                  problem={errors.batchMinutes?.message}
                />
              </div>
              {written && (
                <Text
                  label="What changed, and why"
                  hint="Saved with the version this becomes; earlier batches have theirs."
                  {...sheet.register("note")}
                  problem={errors.note?.message}
                />
              )}
            </Part>
            <Foresight {...soon} learned={learned} felt={felt} form={sheet.form} mending={mending} materials={stuff} />
            <div className="mt-7">
              <Steps
                method={sheet.values.method}
                batchMinutes={sheet.values.batchMinutes}
                form={sheet.form}
                judged={soon.foreseen.judged}
                problem={errors.method?.message}
              />
            </div>
            {children}
            <div className="mt-5">
              <Caution>
                Hot wax and oil burn and catch fire: a water bath, never an open flame, and never left alone. Patch-test before you give or
                sell; rules for selling cosmetics differ by place and come first.
              </Caution>
            </div>
          </Sheet>
        </SideBySide>
      </form>
    </Reading>
  );
}
