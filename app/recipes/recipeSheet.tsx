/** The recipe sheet: lines in whatever unit, the size, packaging and work. */
import { kind } from "#core/material/kinds";
import { FORMS } from "#core/measure/mass";
import { grams, gramsIn } from "#core/measure/write";
import type { UnitCost } from "#core/measure/money";
import type { WorkRates } from "#core/recipe/cost";
import { RECIPE_TYPES, type RecipeType } from "#core/recipe/types";
import type { Lot } from "#core/stock/lots";
import type { WrittenRecipe } from "#db/recipe/read";
import { useDeferredValue, useMemo, type ReactNode } from "react";
import { Link } from "react-router";
import { useSheet, type Opened } from "../forms/useSheet.ts";
import { percent } from "../ui/figures/amounts.tsx";
import { INGREDIENTS } from "../names/finds.ts";
import { Area, Choice, Text } from "../ui/fields/form.tsx";
import { LineTable } from "../ui/fields/lines.tsx";
import { Caution, Heading, Part, Sheet, SideBySide } from "../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../ui/sheet/sheetSays.tsx";
import { RecipeReckoner } from "./recipeReckoner.tsx";
import { readWritten, type MaterialChoice } from "#core/recipe/written";
import { AWAY_SAID } from "../away/keeping.tsx";
import { BLANK_LINE, copyTexts, recipeTexts, type RecipeTexts } from "./recipeTexts.ts";
import { Print } from "../ui/sheet/print.tsx";
import { Sizes } from "./sizes.tsx";

interface Props {
  written: WrittenRecipe | null;
  /** One that the new one is a copy of. */
  like: WrittenRecipe | null;
  materials: MaterialChoice[];
  lots: Lot[];
  again: [number, UnitCost][];
  rates: WorkRates;
  opened: Opened;
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
  lines: "Ingredients",
  sizes: "Sizes",
};

export function RecipeSheet({ written, like, materials, lots, again, rates, opened, types, children }: Props) {
  const names = useMemo(() => new Map(materials.map((m) => [m.id, m.name])), [materials]);
  const sheet = useSheet<RecipeTexts>(like ? copyTexts(like, names) : recipeTexts(written, names), opened, {
    draft: (v) => v.name || "A recipe",
  });
  const watched = sheet.values;
  const values = useDeferredValue(watched);
  const read = useMemo(() => readWritten(values, materials), [values, materials]);
  const { errors } = sheet.formState;

  /** The forms the row's material can be measured in. */
  const formOptions = (row: number): readonly (readonly [string, string])[] => {
    const m = read.lines[row]?.material;
    return m ? kind(m.kind).forms.map((f) => [f, FORMS[f]] as const) : [["", "—"]];
  };

  // Choosing a material puts in the form it usually has.
  const onPicked = (row: number, key: string, value: string): void => {
    if (key !== "material") return;
    const m = materials.find((x) => x.name.toLowerCase() === value.trim().toLowerCase());
    const forms = m ? kind(m.kind).forms : [];
    if (forms[0] && !forms.some((f) => f === sheet.getValues(`lines.${row}.form`))) sheet.setValue(`lines.${row}.form`, forms[0]);
  };
  const weightCell = (i: number) => {
    const line = read.lines[i];
    if (!line || (!line.out.ok && line.out.problem.say === "")) return "";
    if (!line.out.ok)
      return (
        <span className="block max-w-56 text-left text-[0.88rem] leading-tight font-semibold whitespace-normal text-berry">
          {line.out.problem.say}
        </span>
      );
    return (
      <span className="weight">
        {gramsIn(2)(line.out.weight)}
        {line.asFluid !== null && (
          <button
            type="button"
            className="pressable ml-auto block font-sans text-[0.85rem]"
            title="An ounce of a liquid is often meant by volume"
            onClick={() =>
              sheet.setValue(`lines.${i}.entered`, sheet.getValues(`lines.${i}.entered`).replace(/oz|ounces?/i, "fl oz"), {
                shouldDirty: true,
              })
            }
          >
            fl oz? {grams(line.asFluid)}
          </button>
        )}
      </span>
    );
  };

  return (
    <form onSubmit={sheet.send()}>
      <Heading
        title={written ? written.recipe.name : like ? `Like ${like.recipe.name}` : "Write a recipe"}
        about={
          written
            ? written.recipe.retired && AWAY_SAID
            : "Measure the way you do: g, oz, cups, tbsp, drops, parts or per cent, mixed as you like. Grams stand beside every line."
        }
      >
        {written && <Print />}
        {written && !written.recipe.retired && (
          <Link to={`/bench/set-out?recipe=${written.recipe.id}`} className="act">
            Set out a batch
          </Link>
        )}
        <Send sheet={sheet}>Keep the recipe</Send>
      </Heading>
      <SideBySide reckoner={<RecipeReckoner read={read} values={values} lots={lots} again={again} rates={rates} names={names} />}>
        <Sheet>
          <SheetSays sheet={sheet} names={FIELD_NAMES} />
          <div className="mb-6 grid gap-4 sm:grid-cols-[1fr_9.5rem_7.5rem]">
            <Text label="Name" {...sheet.register("name")} problem={errors.name?.message} />
            <Choice
              label="Made as"
              options={types}
              {...sheet.register("type", {
                onChange: (e: { target: { value: RecipeType } }) =>
                  !written && sheet.setValue("keepsMonths", String(RECIPE_TYPES[e.target.value].keepsMonths)),
              })}
            />
            <Text label="Lot letters" placeholder="HB" {...sheet.register("code")} problem={errors.code?.message} />
          </div>
          <Part title="Ingredients">
            <LineTable
              form={sheet}
              name="lines"
              blank={BLANK_LINE}
              addLabel="Add an ingredient"
              onPicked={onPicked}
              columns={[
                { key: "material", label: "Material", finds: INGREDIENTS, width: "38%" },
                { key: "entered", label: "Amount", amount: true, placeholder: "2 1/2 cups", width: "8.5rem" },
                { key: "form", label: "Measured as", options: formOptions, width: "7.5rem" },
              ]}
              derived={[
                { label: "Grams", cell: weightCell },
                {
                  label: "Share",
                  cell: (i) => {
                    const l = read.lines[i]?.out;
                    return l?.ok ? percent(l.share) : "";
                  },
                },
              ]}
            />
            <div className="mt-4 max-w-xs">
              <Text
                data-amount
                label="Batch weight"
                hint="Only for parts and per cent: what they are taken of."
                placeholder="800 g"
                {...sheet.register("makes")}
                problem={errors.makes?.message}
              />
            </div>
          </Part>
          <Sizes sheet={sheet} read={read} />
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
            <Area className="mt-4" label="Method" rows={4} {...sheet.register("method")} problem={errors.method?.message} />
            {written && (
              <Text
                className="mt-4"
                label="What changed, and why"
                hint="Stands with the version this becomes; batches made before keep theirs."
                {...sheet.register("note")}
                problem={errors.note?.message}
              />
            )}
          </Part>
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
  );
}
