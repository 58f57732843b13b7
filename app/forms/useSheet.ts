/** A sheet being filled in: react-hook-form on the page, JSON to the action, its problems back beside the fields. */
import type { FieldProblem } from "#core/refused";
import { useCallback, useEffect, useRef, useState, type BaseSyntheticEvent } from "react";
import { useForm, useWatch, type DefaultValues, type FieldValues, type Path } from "react-hook-form";
import { useFetcher } from "react-router";
import type { Reply } from "./sheet.server.ts";

/** What was on a sheet when it was opened. */
export interface Opened {
  /** One per page load; makes a second press of the same button count once. */
  token: string;
  /** The version of the record on it; none for a new one. */
  seen?: number | null;
}

/**
 * A token of its own for each of several sheets on one page.
 * @example tokenFor("0b0e7e6e-6d1c-4a53-9b1e-3b6f8f0a1c2d", 7) // "0b0e7e6e-6d1c-4a53-9b1e-3b6f8f0a1c2a"
 */
export const tokenFor = (token: string, part: number): string =>
  `${token.slice(0, 24)}${(BigInt(`0x${token.slice(24)}`) ^ BigInt(part)).toString(16).padStart(12, "0")}`;

/** @param action where to post when not to the page itself */
export function useSheet<T extends FieldValues>(defaults: DefaultValues<T>, opened: Opened, action?: string) {
  const form = useForm<T>({ defaultValues: defaults, shouldFocusError: true });
  const fetcher = useFetcher<Reply | null>();
  const answered = useRef<unknown>(null);
  const values = useWatch({ control: form.control }) as T;
  const [see, setSee] = useState<FieldProblem["see"]>();
  const [changed, setChanged] = useState<Reply["changed"] | null>(null);
  // The version the maker has seen by now: the one on the sheet, or a newer one that was shown beside it.
  const seen = useRef(opened.seen ?? null);
  useEffect(() => {
    seen.current = opened.seen ?? null;
  }, [opened.seen]);
  const { setError, setFocus } = form;
  useEffect(() => {
    const problems = fetcher.data?.problems;
    if (!problems || answered.current === fetcher.data) return;
    answered.current = fetcher.data;
    setChanged(fetcher.data?.changed ?? null);
    setSee(problems.find((p) => p.see)?.see);
    for (const p of problems) setError((p.field || "root") as Path<T>, { type: "server", message: p.say });
    const first = problems.find((p) => p.field);
    if (first) setFocus(first.field as Path<T>);
  }, [fetcher.data, setError, setFocus]);

  /** Sends the sheet; `intent` says which of its buttons was pressed. */
  const send = (intent?: string) => (event?: BaseSyntheticEvent) => {
    // A problem beside no input of its own would otherwise stay, and hold the sheet back for good.
    form.clearErrors();
    setSee(undefined);
    return form.handleSubmit((entered) =>
      fetcher.submit(
        { ...entered, token: opened.token, seen: seen.current, intent: intent ?? null },
        {
          method: "post",
          encType: "application/json",
          action,
        },
      ),
    )(event);
  };
  /** Goes on with what was chosen of both sheets; theirs counts as seen from now on. */
  const settle = useCallback(
    (chosen: T) => {
      if (!changed) return;
      seen.current = changed.actId;
      form.reset(changed.theirs as T);
      for (const [key, value] of Object.entries(chosen)) form.setValue(key as Path<T>, value as never, { shouldDirty: true });
      setChanged(null);
    },
    [changed, form],
  );
  return {
    ...form,
    values,
    send,
    busy: fetcher.state !== "idle",
    problem: form.formState.errors.root?.message ?? null,
    see,
    changed,
    base: form.formState.defaultValues as T,
    settle,
  };
}

/** The message of a field by its path. @example problemAt({ lines: [{ price: { message: "Enter a price." } }] }, "lines.0.price") // "Enter a price." */
export function problemAt(errors: object, path: string): string | undefined {
  const found = path.split(".").reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], errors);
  return (found as { message?: string } | undefined)?.message;
}
