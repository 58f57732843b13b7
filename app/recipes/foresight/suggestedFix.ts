/**
 * A change pressed into the sheet, and the way back from it: what was there before is put back as it was typed. A row that was changed since,
 * or has moved, is left as it is.
 */
import type { SuggestedFix } from "#core/recipe/judge/judgement";
import type { LineText } from "#core/recipe/written";
import { useMemo, useState } from "react";
import type { UseFormReturn } from "react-hook-form";
import type { RecipeTexts } from "../recipeTexts.ts";

/** A row, what was put there and what was there before. */
interface Put {
  row: number;
  now: LineText;
  was: LineText;
}

interface Pressed {
  say: string;
  /** The whole sheet, where all of it was replaced. */
  all?: { now: string; was: RecipeTexts };
  rows: Put[];
  makes: { now: string; was: string } | null;
}

export interface AppliedFix {
  /** What was pressed last and can be put back. */
  last: string | null;
  press: (mend: SuggestedFix) => void;
  /** Puts another sheet in the place of this one. */
  replace: (say: string, texts: RecipeTexts) => void;
  putBack: () => void;
}

const same = (a: LineText | undefined, b: LineText): boolean =>
  a !== undefined && a.material === b.material && a.entered === b.entered && a.form === b.form;

export function useMends(form: UseFormReturn<RecipeTexts>): AppliedFix {
  const [last, keep] = useState<Pressed | null>(null);
  return useMemo(() => {
    const at = (row: number): LineText | undefined => form.getValues("lines")[row];
    const write = (row: number, texts: LineText): void => {
      for (const field of ["material", "form", "entered"] as const)
        form.setValue(`lines.${row}.${field}`, texts[field], { shouldDirty: true });
    };
    return {
      last: last?.say ?? null,
      press: ({ say, rows, makes }) => {
        const put = rows.flatMap(({ row, ...texts }): Put[] => {
          const was = at(row);
          return was ? [{ row, was: { ...was }, now: { ...was, ...texts } }] : [];
        });
        for (const { row, now } of put) write(row, now);
        const whole = makes === undefined ? null : { now: makes, was: form.getValues("makes") };
        if (whole) form.setValue("makes", whole.now, { shouldDirty: true });
        keep({ say, rows: put, makes: whole });
      },
      replace: (say, texts) => {
        const was = structuredClone(form.getValues());
        form.reset(texts, { keepDefaultValues: true });
        keep({ say, rows: [], makes: null, all: { now: JSON.stringify(form.getValues()), was } });
      },
      putBack: () => {
        // Typed on since, it is no longer what was put there.
        if (last?.all && JSON.stringify(form.getValues()) === last.all.now) form.reset(last.all.was, { keepDefaultValues: true });
        for (const { row, now, was } of last?.rows ?? []) if (same(at(row), now)) write(row, was);
        if (last?.makes && form.getValues("makes") === last.makes.now) form.setValue("makes", last.makes.was, { shouldDirty: true });
        keep(null);
      },
    };
  }, [last, form]);
}
