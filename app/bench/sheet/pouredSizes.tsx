/** Counting what was filled: each size that was planned, and any other the recipe is made in. */
import type { ContainerFacts } from "#core/material/container";
import { grams } from "#core/measure/write";
import { overfull } from "#core/recipe/sizes";
import { useFieldArray, type Control, type UseFormRegister } from "react-hook-form";
import { problemAt } from "../../ui/fields/problems.ts";
import { Text } from "../../ui/fields/form.tsx";
import type { BatchSheet } from "#db/bench/read";

/** What a size goes into, as far as it is known. */
export type Container = ContainerFacts & { productId: number; name: string };

interface Props {
  form: unknown;
  sizes: BatchSheet["sizes"];
  /** Every size some of it may have gone into: what was parted off since the sheet was begun isn't on it yet. */
  others: readonly Pick<BatchSheet["others"][number], "productId" | "label" | "fill">[];
  containers: readonly Container[];
  /** Of this batch as it is filled, mg/mL; null where a material has none. */
  density: number | null;
}

interface Rows {
  sizes: { productId: number; label: string; fill: number; units: string }[];
}

export function PouredSizes({ form, sizes, others, containers, density }: Props) {
  const sheet = form as { control: Control<Rows>; register: UseFormRegister<Rows>; formState: { errors: object } };
  const { fields, append } = useFieldArray({ control: sheet.control, name: "sizes", keyName: "key" });
  const left = others.filter((o) => !fields.some((f) => f.productId === o.productId));
  return (
    <>
      <div className="grid gap-4 sm:grid-cols-3">
        {fields.map((f, i) => {
          const container = containers.find((c) => c.productId === f.productId) ?? null;
          const ladled = sizes.find((s) => s.productId === f.productId)?.ladled ?? null;
          const over = density === null ? null : overfull(f.fill / density, container);
          return (
            <Text
              data-amount
              key={f.key}
              label={fields.length > 1 ? `Filled, ${f.label}` : "Units filled"}
              placeholder={`of ${sizes.find((s) => s.productId === f.productId)?.planned ?? 0}`}
              hint={
                over ? (
                  <strong className="text-honey">{over}</strong>
                ) : fields.length > 1 ? (
                  `${grams(f.fill)} each${ladled === null ? "" : `; ${grams(ladled)} ladled out`}`
                ) : undefined
              }
              className="[&_input]:text-right [&_input]:text-large"
              {...sheet.register(`sizes.${i}.units`)}
              problem={problemAt(sheet.formState.errors, `sizes.${i}.units`)}
            />
          );
        })}
      </div>
      {left.length > 0 && (
        <p className="no-print mt-2 flex flex-wrap items-baseline gap-x-3 text-small text-pine-soft">
          Some of it went into another size?
          {left.map((o) => (
            <button
              key={o.productId}
              type="button"
              className="pressable"
              onClick={() =>
                append({ productId: o.productId, label: o.label, fill: o.fill, units: "" }, { focusName: `sizes.${fields.length}.units` })
              }
            >
              {o.label}
            </button>
          ))}
        </p>
      )}
    </>
  );
}
