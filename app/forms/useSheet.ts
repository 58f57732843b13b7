/** A sheet being filled in: react-hook-form on the page, JSON to the action, its problems back beside the fields. */
import { useEffect, useRef, type BaseSyntheticEvent } from "react";
import { useForm, useWatch, type DefaultValues, type FieldValues, type Path } from "react-hook-form";
import { useFetcher } from "react-router";
import type { Reply } from "./sheet.server.ts";

/**
 * @param token one per page load; makes a second press of the same button count once
 * @param action where to post when not to the page itself
 */
export function useSheet<T extends FieldValues>(defaults: DefaultValues<T>, token: string, action?: string) {
  const form = useForm<T>({ defaultValues: defaults, shouldFocusError: true });
  const fetcher = useFetcher<Reply | null>();
  const seen = useRef<unknown>(null);
  const values = useWatch({ control: form.control }) as T;
  const { setError, setFocus } = form;
  useEffect(() => {
    const problems = fetcher.data?.problems;
    if (!problems || seen.current === fetcher.data) return;
    seen.current = fetcher.data;
    for (const p of problems) setError((p.field || "root") as Path<T>, { type: "server", message: p.say });
    const first = problems.find((p) => p.field);
    if (first) setFocus(first.field as Path<T>);
  }, [fetcher.data, setError, setFocus]);

  /** Sends the sheet; `intent` says which of its buttons was pressed. */
  const send = (intent?: string) => (event?: BaseSyntheticEvent) => {
    // A problem beside no input of its own would otherwise stay, and hold the sheet back for good.
    form.clearErrors();
    return form.handleSubmit((entered) =>
      fetcher.submit({ ...entered, token, intent: intent ?? null } as never, { method: "post", encType: "application/json", action }),
    )(event);
  };
  const problem = form.formState.errors.root?.message ?? null;
  return { ...form, values, send, busy: fetcher.state !== "idle", problem };
}

/** The message of a field by its path. @example problemAt(errors, "lines.2.price") */
export function problemAt(errors: object, path: string): string | undefined {
  const found = path.split(".").reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], errors);
  return (found as { message?: string } | undefined)?.message;
}
