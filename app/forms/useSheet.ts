/**
 * A sheet being filled in: react-hook-form on the page, JSON to the action, its problems back beside the fields. What is typed is saved
 * until it is sent, and taken up again by the next page that has the sheet.
 */
import type { FieldProblem } from "#core/refused";
import { useCallback, useEffect, useRef, useState, type BaseSyntheticEvent } from "react";
import { useForm, useWatch, type DefaultValues, type FieldValues, type Path } from "react-hook-form";
import { useFetcher, useHref } from "react-router";
import { isObject } from "#core/objects";
import { withInitialValues } from "./initialValue.ts";
import { pathsOf, problemAt } from "../ui/fields/problems.ts";
import { readMeanings } from "./meanings.ts";
import { useDraftPath, useKeptDraft } from "./drafts/keptDrafts.ts";
import type { Reply } from "./sheet.server.ts";
import { storedDraft, useDraft } from "./drafts/useDraft.ts";
import { useRevalidation } from "./useRevalidation.ts";

/** What was on a sheet when it was opened. */
export interface Opened {
  /** One per page load; makes a second press of the same button count once. */
  token: string;
  /** The version of the record on it; none for a new one. */
  seen?: number | null;
}

/**
 * A separate token for each of several sheets on one page.
 * @example tokenFor("0b0e7e6e-6d1c-4a53-9b1e-3b6f8f0a1c2d", 7) // "0b0e7e6e-6d1c-4a53-9b1e-3b6f8f0a1c2a"
 */
export const tokenFor = (token: string, part: number): string =>
  `${token.slice(0, 24)}${(BigInt(`0x${token.slice(24)}`) ^ BigInt(part)).toString(16).padStart(12, "0")}`;

interface How<T> {
  /** Where to post when not to the page itself. */
  action?: string;
  /** What to call it while it is unfinished; a sheet without is not saved. */
  draft?: string | ((values: T) => string);
  /** Which of the page's sheets it is, where there are several. */
  sheet?: string;
  /** The fields that are saved, where the others are saved in another way (a weigh sheet's weights, on the batch itself). */
  only?: readonly (keyof T & string)[];
}

/** A number for a sheet's name. */
const numberOf = (name: string): number => Array.from(name).reduce((n, c) => (n * 31 + c.charCodeAt(0)) % 1_000_003, 7);
const alike = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

export function useSheet<T extends FieldValues>(
  fresh: DefaultValues<T>,
  opened: Opened,
  { action, draft, sheet: which = "", only }: How<T> = {},
) {
  const path = useDraftPath();
  const found = useKeptDraft(draft === undefined ? null : which);
  // The draft this sheet was opened with; what the page reads later is about other windows.
  const [kept, setKept] = useState(found && isObject(found.values.mine) && isObject(found.values.base) ? found : undefined);
  /** What a draft has of the sheet, on top of what it has by itself. */
  const over = (part: unknown, sheet: unknown = fresh): DefaultValues<T> =>
    ({ ...(sheet as object), ...(isObject(part) ? part : {}) }) as DefaultValues<T>;
  const partOf = (values: unknown): unknown =>
    only && isObject(values) ? Object.fromEntries(only.map((field) => [field, values[field]])) : values;
  const defaults = over(kept?.values.base);
  // What the names on it mean goes with it wherever it goes.
  const [means] = useState(() => readMeanings(kept?.values.means));
  const library = useForm<T>({
    defaultValues: over(kept?.values.mine),
    shouldFocusError: true,
    // The error of a field stays until the field is right.
    reValidateMode: "onSubmit",
  });
  const [form] = useState(() => withInitialValues(library));
  const fetcher = useFetcher<Reply | null>();
  // Until it is sent, a sheet that is saved is the same one, also when the page around it is read again.
  const own = (): string => (which === "" ? opened.token : tokenFor(opened.token, numberOf(which)));
  const [pinned, pin] = useState(() => kept?.token ?? own());
  const token = draft === undefined ? opened.token : pinned;
  const answered = useRef<unknown>(null);
  const values = useWatch({ control: form.control }) as T;
  const [see, setSee] = useState<FieldProblem["see"]>();
  const [first, goTo] = useState<FieldProblem>();
  const [changed, setChanged] = useState<Reply["changed"] | null>(null);
  // The version the maker has seen by now: the one on the sheet, or a newer one that was shown beside it.
  const seen = useRef(kept ? kept.seen : (opened.seen ?? null));
  useEffect(() => {
    if (!kept) seen.current = opened.seen ?? null;
  }, [opened.seen, kept]);
  const { setError, setFocus, getValues, clearErrors } = form;
  const drafting = useDraft(
    draft === undefined || path === ""
      ? null
      : {
          path,
          sheet: which,
          token,
          seen: seen.current,
          now: () => {
            const mine = getValues();
            if (alike(partOf(mine), partOf(fresh))) return null;
            return {
              title: typeof draft === "string" ? draft : draft(mine),
              values: { mine: partOf(mine), base: partOf(defaults), means: [...means] },
            };
          },
        },
  );
  const { changed: typed, taken, sent } = useRef(drafting).current;
  const errors = useRef<object>({});
  errors.current = form.formState.errors;
  useEffect(() => {
    if (kept) taken();
  }, [kept, taken]);
  // Reloaded, or left and come back to, before the server had the last of it.
  const to = useHref("/drafts");
  useEffect(() => {
    if (draft === undefined || path === "") return;
    const left = storedDraft(to, path, which);
    if (!isObject(left) || !isObject(left.mine) || !isObject(left.base) || typeof left.token !== "string") return;
    if (alike(left.mine, partOf(getValues()))) return;
    const again = {
      sheet: which,
      token: left.token,
      seen: typeof left.seen === "number" ? left.seen : null,
      values: left,
      ago: "a moment ago",
    };
    setKept(again);
    pin(again.token);
    seen.current = again.seen;
    for (const [key, id] of readMeanings(left.means)) means.set(key, id);
    form.reset(over(left.mine, getValues()), { keepDefaultValues: true });
    // Once, when the sheet is opened.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const pressed = useRef<string | null>(null);
  const mend = useRevalidation({
    action,
    now: () =>
      Object.keys(errors.current).length === 0
        ? null
        : { ...getValues(), means: [...means], token, seen: seen.current, intent: pressed.current },
    left: (problems) => {
      const still = new Map(problems.map((p) => [p.field || "root", p.say]));
      const said = pathsOf(errors.current);
      // A new error stopped the check earlier than before: the old errors stay until they can be checked again.
      if ([...still.keys()].some((path) => !said.includes(path))) return;
      for (const path of said) {
        const say = still.get(path);
        if (say === undefined) clearErrors(path as Path<T>);
        else if (say !== problemAt(errors.current, path)) setError(path as Path<T>, { type: "server", message: say });
      }
    },
  });
  const mending = useRef(mend);
  mending.current = mend;
  useEffect(() => {
    const watching = form.watch(() => {
      typed();
      mending.current.typed();
    });
    return () => watching.unsubscribe();
  }, [form, typed]);
  useEffect(() => {
    const problems = fetcher.data?.problems;
    if (!problems || answered.current === fetcher.data) return;
    answered.current = fetcher.data;
    setChanged(fetcher.data?.changed ?? null);
    setSee(problems.find((p) => p.see)?.see);
    for (const p of problems) setError((p.field || "root") as Path<T>, { type: "server", message: p.say });
    goTo(problems.find((p) => p.field));
  }, [fetcher.data, setError]);
  // Once the errors are drawn: a field far down a long table isn't there before.
  useEffect(() => {
    if (first) setFocus(first.field as Path<T>);
  }, [first, setFocus]);

  // Once its act is done, what is typed next is another sheet.
  const sending = useRef(false);
  useEffect(() => {
    if (fetcher.state !== "idle") {
      sending.current = true;
      return;
    }
    if (!sending.current) return;
    sending.current = false;
    if (fetcher.data?.problems) return;
    sent();
    setKept(undefined);
    pin(own());
    seen.current = opened.seen ?? null;
    // When the sending ends, with what the page has read by then.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [fetcher.state]);

  /** Sends the sheet; `intent` says which of its buttons was pressed. */
  const send = (intent?: string) => (event?: BaseSyntheticEvent) => {
    // A sheet laid over this one is sent by itself, though React lets this one hear of it.
    if (event && event.target !== event.currentTarget) return undefined;
    // An error without an input would otherwise stay, and block the sheet for good.
    form.clearErrors();
    setSee(undefined);
    pressed.current = intent ?? null;
    mending.current.sent();
    drafting.now();
    return form.handleSubmit((entered) =>
      fetcher.submit(
        { ...entered, means: [...means], token, seen: seen.current, intent: intent ?? null },
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
    ...library,
    register: form.register,
    /** The form itself, the same for as long as the sheet is open. */
    form,
    values,
    means,
    /** Of the act it will do. */
    token,
    send,
    busy: fetcher.state !== "idle",
    problem: form.formState.errors.root?.message ?? null,
    see,
    changed,
    base: defaults as T,
    /** How long ago what was taken up again was typed; null for a fresh sheet. */
    keptAgo: kept?.ago ?? null,
    /** Throws away what was saved, and begins afresh. */
    startAfresh: () => {
      drafting.drop();
      setKept(undefined);
      pin(own());
      seen.current = opened.seen ?? null;
      form.reset(over(partOf(fresh), getValues()));
    },
    settle,
  };
}
