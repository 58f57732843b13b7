/** The sizes a recipe is made in: what one is filled with, its container, what else it takes, and its minutes. */
import { grams } from "#core/measure/write";
import type { ReadRecipe } from "#core/recipe/written";
import { useState } from "react";
import { useFieldArray, type UseFormReturn } from "react-hook-form";
import { problemAt } from "../ui/fields/problems.ts";
import { FindText, nameCell } from "../names/combo.tsx";
import { PACKAGING } from "../names/finds.ts";
import { Button, Problem, Text } from "../ui/fields/form.tsx";
import { LineTable, type Column } from "../ui/fields/lines.tsx";
import { Part } from "../ui/sheet/sheet.tsx";
import { BLANK_PACK, BLANK_SIZE, type RecipeTexts } from "./recipeTexts.ts";

type SheetForm = Pick<UseFormReturn<RecipeTexts>, "control" | "register" | "setValue" | "getValues" | "formState"> & {
  form: UseFormReturn<RecipeTexts>;
  values: RecipeTexts;
};

const PACK_COLUMNS: readonly Column[] = [
  { key: "material", label: "Lid, label, wrap …", own: nameCell(PACKAGING), width: "60%" },
  { key: "pieces", label: "Pieces for one", right: true, width: "30%" },
];

export function Sizes({ sheet, read }: { sheet: SheetForm; read: ReadRecipe }) {
  const { fields, append, remove } = useFieldArray({ control: sheet.control, name: "sizes", keyName: "key" });
  return (
    <Part title="Sizes" aside={<span className="text-small text-pine-soft">One pot can be poured into several.</span>}>
      <div className="space-y-6">
        {fields.map((f, i) => (
          <Size
            key={f.key}
            i={i}
            sheet={sheet}
            read={read}
            only={fields.length === 1}
            remove={() => remove(i)}
            copy={() => append({ ...sheet.getValues(`sizes.${i}`), id: "", away: "" })}
          />
        ))}
      </div>
      <Button small className="mt-4" onClick={() => append(BLANK_SIZE, { focusName: `sizes.${fields.length}.container` })}>
        Add a size
      </Button>
    </Part>
  );
}

interface SizeProps {
  i: number;
  sheet: SheetForm;
  read: ReadRecipe;
  only: boolean;
  remove: () => void;
  copy: () => void;
}

function Size({ i, sheet, read, only, remove, copy }: SizeProps) {
  const { errors } = sheet.formState;
  const size = read.sizes[i];
  const v = sheet.values.sizes[i];
  const away = v?.away === "yes";
  const named = v?.packaging.filter((p) => p.material.trim() !== "") ?? [];
  const packed = named.map((p) => `${p.pieces || "1"} × ${p.material}`).join(", ");
  // What is packed already says so in a line; a problem in it opens it.
  const [opened, setOpen] = useState(v?.id === "");
  const open = opened || errors.sizes?.[i]?.packaging !== undefined;
  const at = (field: string): string | undefined => problemAt(errors, `sizes.${i}.${field}`);
  const fill = size?.fill.ok ? size.fill.value : null;
  const fluid = size?.asFluid;
  return (
    <fieldset className={`border-l-4 pl-4 ${away ? "border-rule" : "border-amber-glass"}`}>
      <legend className="sr-only">Size {i + 1}</legend>
      <div className="mb-1 flex flex-wrap items-baseline gap-x-4">
        <span className={`font-display text-lead ${away ? "text-pine-soft" : ""}`}>
          {fill ? fill.label : `Size ${i + 1}`}
          {away && ", put away"}
        </span>
        {fill && fill.by !== "weight" && <span className="weight text-pine-soft">{grams(fill.weight)}</span>}
        <span className="no-print ml-auto flex gap-3 text-small">
          <button type="button" className="pressable" aria-label={`Copy size ${i + 1}`} onClick={copy}>
            Copy
          </button>
          {v?.id !== "" && (
            <button
              type="button"
              className="pressable"
              onClick={() => sheet.setValue(`sizes.${i}.away`, away ? "" : "yes", { shouldDirty: true })}
            >
              {away ? "Take it out again" : "Put this size away"}
            </button>
          )}
          {v?.id === "" && !only && (
            <button type="button" className="pressable" onClick={remove}>
              Remove
            </button>
          )}
        </span>
      </div>
      {away ? (
        <p className="text-small text-pine-soft">No longer made; what there is of it can still be ordered, sold and counted.</p>
      ) : (
        <>
          <div className="mb-3 grid gap-4 sm:grid-cols-[1fr_9rem_7rem]">
            <FindText
              control={sheet.control}
              name={`sizes.${i}.container`}
              finds={PACKAGING}
              label="Container"
              placeholder="such as screw tin, 80 mL"
              problem={at("container")}
            />
            <Text
              data-amount
              label="Filled with"
              placeholder={size?.container ? "filled" : "such as 60 g"}
              hint={size?.container ? "g, fl oz or mL; empty: full." : "g, fl oz or mL."}
              {...sheet.register(`sizes.${i}.fill`)}
              problem={at("fill")}
              unread={v?.fill && size && !size.fill.ok ? size.fill.problem.say : undefined}
            />
            <Text data-amount label="Minutes a unit" {...sheet.register(`sizes.${i}.minutes`)} problem={at("minutes")} />
          </div>
          {fluid && (
            <button
              type="button"
              className="pressable mb-2 text-small"
              onClick={() => sheet.setValue(`sizes.${i}.fill`, fluid.label, { shouldDirty: true })}
            >
              An ounce by weight, or a fluid ounce? {fluid.label} would be {grams(fluid.weight)}
            </button>
          )}
          {fill?.other != null && (
            <p className="mb-2 text-small text-pine-soft">
              {fill.by === "full"
                ? `It is filled hot, about 65 °C, and sinks as it sets: oil is lighter then. Filled cold it would weigh ${grams(fill.other)}.`
                : `That is its volume once it is cold. Filled to that mark hot, about 65 °C, it would weigh ${grams(fill.other)}: oil is lighter then.`}
            </p>
          )}
          {size?.over && (
            <p className="mb-2 font-semibold text-honey" role="note">
              {size.over}
            </p>
          )}
          <details open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
            <summary className="pressable text-small print:block!">{packed ? `Packed with ${packed}` : "Lid, label, wrap …"}</summary>
            <div className="no-print">
              <LineTable
                form={sheet.form}
                name={`sizes.${i}.packaging`}
                blank={BLANK_PACK}
                addLabel="Add packaging"
                columns={PACK_COLUMNS}
              />
            </div>
          </details>
        </>
      )}
      <Problem say={at("root")} />
    </fieldset>
  );
}
