/**
 * A recipe's lines. The table stands still while one is typed in: what is worked out for each line is looked up by its own cell, from what the
 * whole sheet was read as.
 */
import { kind, type KindId } from "#core/material/kinds";
import { usualForm } from "#core/material/facts";
import { FORMS } from "#core/measure/mass";
import { grams, gramsIn } from "#core/measure/write";
import type { ReadRecipe } from "#core/recipe/written";
import { createContext, memo, useContext, useEffect } from "react";
import type { UseFormReturn } from "react-hook-form";
import { useTextField } from "../forms/useTextField.ts";
import { INGREDIENTS } from "../names/finds.ts";
import { percent } from "../ui/figures/amounts.tsx";
import { LineTable, type Column, type Derived, type OwnCell } from "../ui/fields/lines.tsx";
import { BLANK_LINE, type RecipeTexts } from "./recipeTexts.ts";

type Form = UseFormReturn<RecipeTexts>;

/** What the sheet was read as, and its form. */
export const Reading = createContext<{ read: ReadRecipe; form: Form } | null>(null);
const useReading = () => useContext(Reading)!;

const FormCell = ({ row, ...cell }: OwnCell) => <FormChoice {...cell} of={useReading().read.lines[row]?.material?.kind ?? null} />;

/** The forms a material of some kind can be measured in; one put in another's place has the one it usually has. */
const FormChoice = memo(function FormChoice({ control, name, looks, of }: Omit<OwnCell, "row"> & { of: KindId | null }) {
  const { value, set, rest } = useTextField({ control, name });
  const forms = of ? kind(of).forms : [];
  const usual = of && forms.length > 0 && !forms.some((f) => f === value) ? usualForm(of) : null;
  useEffect(() => {
    if (usual !== null) set(usual);
  }, [usual, set]);
  return (
    <select {...looks} ref={rest.inputRef} onBlur={rest.onBlur} value={value} onChange={(e) => set(e.target.value)}>
      {forms.length === 0 && <option value={value}>—</option>}
      {forms.map((f) => (
        <option key={f} value={f}>
          {FORMS[f]}
        </option>
      ))}
    </select>
  );
});

function WeightCell({ row }: { row: number }) {
  const { read, form } = useReading();
  const line = read.lines[row];
  if (!line || (!line.out.ok && line.out.problem.say === "")) return null;
  if (!line.out.ok)
    return (
      <span className="block max-w-56 text-left text-[0.88rem] leading-tight font-semibold whitespace-normal text-berry">
        {line.out.problem.say}
      </span>
    );
  const asFluid = (): void =>
    form.setValue(`lines.${row}.entered`, form.getValues(`lines.${row}.entered`).replace(/oz|ounces?/i, "fl oz"), { shouldDirty: true });
  return (
    <span className="weight">
      {gramsIn(2)(line.out.weight)}
      {line.asFluid !== null && (
        <button
          type="button"
          className="pressable ml-auto block font-sans text-[0.85rem]"
          title="An ounce of a liquid is often meant by volume"
          onClick={asFluid}
        >
          fl oz? {grams(line.asFluid)}
        </button>
      )}
    </span>
  );
}

function ShareCell({ row }: { row: number }) {
  const line = useReading().read.lines[row]?.out;
  return line?.ok ? percent(line.share) : null;
}

const COLUMNS: readonly Column[] = [
  { key: "material", label: "Material", finds: INGREDIENTS, width: "36%" },
  { key: "entered", label: "Amount", amount: true, placeholder: "2 1/2 cups", width: "17%" },
  { key: "form", label: "Measured as", own: (cell) => <FormCell {...cell} />, width: "15%" },
];
const DERIVED: readonly Derived[] = [
  { label: "Grams", width: "17%", cell: (row) => <WeightCell row={row} /> },
  { label: "Share", width: "11%", cell: (row) => <ShareCell row={row} /> },
];

export const Ingredients = ({ form }: { form: Form }) => (
  <LineTable form={form} name="lines" blank={BLANK_LINE} addLabel="Add an ingredient" columns={COLUMNS} derived={DERIVED} />
);
