/**
 * A recipe's lines. The table isn't drawn again while one is typed in: what is worked out for each line is looked up by its own cell, from what the
 * whole sheet was read as.
 */
import { isKeyOf } from "#core/objects";
import { kind, type KindId } from "#core/material/kinds";
import { factsIn, usualForm } from "#core/material/facts";
import { FORMS, massOf } from "#core/measure/mass";
import { unit } from "#core/measure/units";
import { grams, gramsIn } from "#core/measure/write";
import type { ReadRecipe } from "#core/recipe/written";
import { createContext, memo, use, useCallback, useDeferredValue, useEffect, type ReactNode } from "react";
import type { UseFormReturn } from "react-hook-form";
import { useTextField } from "../ui/fields/useTextField.ts";
import { INGREDIENTS } from "../names/finds.ts";
import { normalizeName } from "#core/meant";
import { OnceLeft } from "../ui/fields/form.tsx";
import { percent } from "../ui/figures/amounts.tsx";
import { nameCell } from "../names/combo.tsx";
import { LineTable, type Column, type Derived, type OwnCell } from "../ui/fields/lines.tsx";
import { BLANK_LINE, type RecipeTexts } from "./recipeTexts.ts";

type Form = UseFormReturn<RecipeTexts>;

interface Read {
  read: ReadRecipe;
  form: Form;
}
const Now = createContext<Read | null>(null);
const Soon = createContext<Read | null>(null);

/** What the sheet was read as, for the cells of its lines: those in sight know it at once, the others as soon as those are drawn. */
export function Reading({ of, children }: { of: Read; children: ReactNode }) {
  const soon = useDeferredValue(of);
  return (
    <Now value={of}>
      <Soon value={soon}>{children}</Soon>
    </Now>
  );
}

/** What is worked out for one line. */
function LineCell({ row, far, show }: { row: number; far: boolean; show: (line: ReadRecipe["lines"][number], form: Form) => ReactNode }) {
  const { read, form } = use(far ? Soon : Now)!;
  const line = read.lines[row];
  return line ? show(line, form) : null;
}

function FormCell({ row, ...cell }: Pick<OwnCell, "row" | "control" | "name" | "looks">) {
  const line = use(Soon)!.read.lines[row];
  return <FormChoice {...cell} of={line?.material?.kind ?? null} weighs={weighsIn(line)} />;
}

/** What an amount measured by volume weighs in each form, as one text: a cup of pellets is no cup of the melted thing. */
function weighsIn(line: ReadRecipe["lines"][number] | undefined): string {
  if (!line?.material || !line.amount || unit(line.amount.unit).kind !== "volume") return "";
  const { material, amount } = line;
  const { forms } = kind(material.kind);
  if (forms.length < 2) return "";
  return forms
    .map((form) => {
      const weight = massOf(amount, factsIn(material, form));
      return weight.ok ? grams(weight.value) : "";
    })
    .join("\n");
}

/** The forms a material of some kind can be measured in. */
const FormChoice = memo(function FormChoice({
  control,
  name,
  looks,
  of,
  weighs,
}: Pick<OwnCell, "control" | "name" | "looks"> & { of: KindId | null; weighs: string }) {
  const { value, set, rest } = useTextField({ control, name });
  const forms = of ? kind(of).forms : [];
  const weights = weighs.split("\n");
  return (
    <select {...looks} ref={rest.inputRef} onBlur={rest.onBlur} value={value} onChange={(e) => set(e.target.value)}>
      {forms.length === 0 && <option value={value}>—</option>}
      {forms.map((f, i) => (
        <option key={f} value={f}>
          {weights[i] && f !== value ? `${FORMS[f]}, ${weights[i]}` : FORMS[f]}
        </option>
      ))}
    </select>
  );
});

function weight({ out, asFluid, dripped }: ReadRecipe["lines"][number], row: number, form: Form): ReactNode {
  if (!out.ok && out.problem.say === "") return null;
  if (!out.ok)
    return (
      <OnceLeft say={out.problem.say} className="max-w-56 text-left text-fine leading-tight font-semibold whitespace-normal text-berry" />
    );
  const entered = `lines.${row}.entered` as const;
  return (
    <span className="weight">
      {gramsIn(2)(out.weight)}
      {dripped !== null && (
        <button
          type="button"
          className="pressable ml-auto block font-sans text-fine"
          title={`A pipette gives about 20 drops to the mL, a bottle with an orifice in its neck 25 to 35: ${dripped.ml} is the same out of any`}
          onClick={() => form.setValue(entered, dripped.ml, { shouldDirty: true })}
        >
          {dripped.said ? "from your bottle" : "orifice bottle?"} {gramsIn(2)(dripped.weight)}
        </button>
      )}
      {asFluid !== null && (
        <button
          type="button"
          className="pressable ml-auto block font-sans text-fine"
          title="An ounce of a liquid is often meant by volume"
          onClick={() => form.setValue(entered, form.getValues(entered).replace(/oz|ounces?/i, "fl oz"), { shouldDirty: true })}
        >
          fl oz? {grams(asFluid)}
        </button>
      )}
    </span>
  );
}

const COLUMNS: readonly Column[] = [
  { key: "material", label: "Material", own: nameCell(INGREDIENTS), width: "36%" },
  { key: "entered", label: "Amount", amount: true, placeholder: "such as 2 1/2 cups", width: "17%" },
  {
    key: "form",
    label: "Measured as",
    own: { cell: (cell) => <FormCell {...cell} />, said: (form) => (isKeyOf(FORMS, form) ? FORMS[form] : "—") },
    width: "15%",
  },
];
const DERIVED: readonly Derived[] = [
  { label: "Grams", width: "17%", cell: (row, far) => <LineCell row={row} far={far} show={(line, form) => weight(line, row, form)} /> },
  { label: "Share", width: "11%", cell: (row, far) => <LineCell row={row} far={far} show={({ out }) => out.ok && percent(out.share)} /> },
];

/** Several lines with numbers among them, where one name goes: a recipe as somebody wrote it. */
const isScribbled = (key: string, text: string): boolean => key === "material" && /[\d½¼¾⅓⅔⅛]/.test(text);

/** The lines; a material put in another's place is measured in the form it usually has. */
export function Ingredients({ form, onScribbled }: { form: Form; onScribbled: (text: string) => void }) {
  const { read } = use(Soon)!;
  useEffect(() => {
    read.lines.forEach(({ material }, i) => {
      const path = `lines.${i}.form` as const;
      // Rows may have been taken out or put in since it was read.
      if (!material || normalizeName(form.getValues("lines")[i]?.material ?? "") !== normalizeName(material.name)) return;
      const { forms } = kind(material.kind);
      if (forms.length > 0 && !forms.some((f) => f === form.getValues(path))) form.setValue(path, usualForm(material.kind));
    });
  }, [read, form]);
  const onText = useCallback(
    (key: string, text: string): boolean => {
      const is = isScribbled(key, text);
      if (is) onScribbled(text);
      return is;
    },
    [onScribbled],
  );
  return (
    <LineTable
      form={form}
      name="lines"
      blank={BLANK_LINE}
      addLabel="Add an ingredient"
      columns={COLUMNS}
      derived={DERIVED}
      onText={onText}
    />
  );
}
