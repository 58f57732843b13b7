/** A change pressed into the sheet, and the way back from it: what stood there before is put back as it was typed. */
import type { Mend } from "#core/recipe/judge/judgement";
import { useState } from "react";
import type { UseFormReturn } from "react-hook-form";
import type { RecipeTexts } from "../recipeTexts.ts";

type Change = Omit<Mend, "say">;

export interface Mending {
  /** What was pressed last and can be put back. */
  last: string | null;
  press: (mend: Mend) => void;
  putBack: () => void;
}

export function useMends(form: UseFormReturn<RecipeTexts>): Mending {
  const [last, keep] = useState<{ say: string; was: Change } | null>(null);
  const put = ({ rows, makes }: Change): Change => {
    const was = {
      rows: rows.map(({ row }) => ({ row, entered: form.getValues(`lines.${row}.entered`) })),
      ...(makes === undefined ? {} : { makes: form.getValues("makes") }),
    };
    for (const { row, entered } of rows) form.setValue(`lines.${row}.entered`, entered, { shouldDirty: true });
    if (makes !== undefined) form.setValue("makes", makes, { shouldDirty: true });
    return was;
  };
  return {
    last: last?.say ?? null,
    press: ({ say, ...change }) => keep({ say, was: put(change) }),
    putBack: () => {
      if (last) put(last.was);
      keep(null);
    },
  };
}
