/**
 * The one field for names: typed, found by any word in any order, a slip forgiven; beside each are what is on hand, its cost and its lots.
 * What isn't there yet is taken from the library, or added, without leaving the sheet.
 */
import { finder } from "#core/find";
import { useCombobox, type UseComboboxState, type UseComboboxStateChangeOptions } from "downshift";
import { Popover } from "radix-ui";
import { useEffect, useId, useMemo, useRef, useState, type ComponentProps, type KeyboardEvent } from "react";
import { useFetcher } from "react-router";
import type { Reply } from "../forms/sheet.server.ts";
import { useTextField, type InSheet } from "../ui/fields/useTextField.ts";
import { Frame, describe, Problem, type FieldProps } from "../ui/fields/form.tsx";
import { AddMaterial } from "./addMaterial.tsx";
import type { Column } from "../ui/fields/lines.tsx";
import type { Finds, Name } from "./name.ts";
import { useNames } from "./useNames.ts";

type Option = Name & { how: "name" | "library" | "add" };
type Added = Reply | { added: string } | null;

const MOST_NAMES = 9;
/** With nothing typed yet the list is looked through. */
const MOST_BROWSED = 80;
const MOST_OF_LIBRARY = 6;
const byName = (n: Name): Name => n;

const T = useCombobox.stateChangeTypes;
/** Nothing is ever "selected": what is in the field is what was typed or chosen, and leaving it changes nothing. */
function keepText(state: UseComboboxState<Option>, { type, changes }: UseComboboxStateChangeOptions<Option>) {
  if (type === T.InputBlur || type === T.InputKeyDownEscape)
    return { ...changes, selectedItem: null, inputValue: state.inputValue, isOpen: false };
  return changes;
}

interface ComboProps extends Omit<ComponentProps<"input">, "value" | "onChange" | "ref"> {
  finds: Finds;
  value: string;
  onText: (text: string) => void;
  inputRef?: (input: HTMLInputElement | null) => void;
}

/** The field alone, for a place that has its own label. */
export function Combo({ finds, value, onText, inputRef, onKeyDown, ...input }: ComboProps) {
  const { names, there, coming, load } = useNames(finds);
  // What there is to choose from is gone through once somebody comes to choose.
  const [come, arrive] = useState(false);
  const open = (): void => {
    arrive(true);
    load();
  };
  const box = useRef<HTMLInputElement>(null);
  const [adding, add] = useState<string | null>(null);
  const library = useFetcher<Added>();
  const material = finds.of === "material";
  // Only known names are allowed in these fields; others take a new name.
  const strict = ["material", "product", "oilLot", "these"].includes(finds.of);
  const find = useMemo(() => finder(come ? names.names : [], byName), [come, names.names]);
  const findInLibrary = useMemo(() => finder(come ? names.library : [], byName), [come, names.library]);
  const text = value.trim();
  const same = (n: Name): boolean => n.name.toLowerCase() === text.toLowerCase();
  const exact = text !== "" && names.names.some(same);
  const options = useMemo((): Option[] => {
    // Before the list is there nothing is known to be missing from it.
    if (!come || !there) return [];
    const found = find(text, text === "" ? MOST_BROWSED : MOST_NAMES).map((n): Option => ({ ...n, how: "name" }));
    if (!material || text === "") return found;
    const more = findInLibrary(text, MOST_OF_LIBRARY).map((n): Option => ({ ...n, how: "library" }));
    return [...found, ...more, ...(exact ? [] : [{ name: text, how: "add" } as const])];
  }, [come, there, find, findInLibrary, text, exact, material]);

  const choose = (o: Option): void => {
    if (o.how === "add") {
      add(text);
      return;
    }
    onText(o.name);
    if (o.how === "library")
      void library.submit(
        { key: o.key!, token: crypto.randomUUID() },
        { method: "post", action: "/names/material", encType: "application/json" },
      );
  };
  const c = useCombobox<Option>({
    items: options,
    inputValue: value,
    selectedItem: null,
    defaultHighlightedIndex: strict && text !== "" ? 0 : -1,
    itemToString: (o) => o?.name ?? "",
    stateReducer: keepText,
    onStateChange: ({ type, selectedItem }) => {
      if (selectedItem && (type === T.ItemClick || type === T.InputKeyDownEnter)) choose(selectedItem);
    },
  });
  // What was typed before there was anything to choose from is looked for once there is.
  const markFirst = useRef<() => void>(() => undefined);
  markFirst.current = () => {
    if (c.isOpen && strict && text !== "" && c.highlightedIndex === -1) c.setHighlightedIndex(0);
  };
  useEffect(() => markFirst.current(), [names.names]);
  // A key pressed by then does what it would have done.
  const early = useRef<{ key: string; text: string } | null>(null);
  useEffect(() => {
    const pressed = early.current;
    early.current = null;
    if (!there || pressed?.text !== text) return;
    const [first] = options;
    if (!exact && first?.how === "name") choose(first);
    else if (pressed.key === "Enter" && document.activeElement === box.current)
      box.current?.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true }));
    // Once, when they come.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [there]);
  // A whole name needs no list over the next line, unless it is asked for.
  const [browsing, browse] = useState(false);
  const shown = c.isOpen && options.length > 0 && (!exact || browsing);
  useEffect(() => {
    if (!c.isOpen) browse(false);
  }, [c.isOpen]);
  const marked = shown ? options[c.highlightedIndex] : undefined;

  const onKey = (e: KeyboardEvent<HTMLInputElement>): void => {
    if (e.key === "ArrowDown" || e.key === "ArrowUp") {
      open();
      browse(true);
    }
    if ((e.key === "Tab" || e.key === "Enter") && coming && strict && text !== "") {
      early.current = { key: e.key, text };
      if (e.key === "Enter") e.preventDefault();
      return;
    }
    if (e.key === "Tab" && marked?.how === "name" && strict && text !== "" && !exact) choose(marked);
    if (e.key === "Enter" && marked) return;
    // Nothing is marked: Enter is the sheet's.
    if (e.key === "Enter") Object.assign(e.nativeEvent, { preventDownshiftDefault: true });
    onKeyDown?.(e);
  };
  const problem = library.data && "problems" in library.data ? library.data.problems[0]?.say : undefined;
  const menu = c.getMenuProps({}, { suppressRefError: true });

  return (
    <>
      <input
        type="text"
        {...input}
        {...c.getInputProps({
          ref: (el: HTMLInputElement | null) => {
            box.current = el;
            inputRef?.(el);
          },
          onChange: (e) => {
            open();
            browse(false);
            onText(e.currentTarget.value);
          },
          onFocus: open,
          onBlur: input.onBlur,
          onKeyDown: onKey,
          onPaste: input.onPaste,
          "aria-label": input["aria-label"],
          "aria-labelledby": undefined,
          id: input.id,
        })}
        autoComplete="off"
      />
      {shown && (
        <Popover.Root open>
          <Popover.Anchor virtualRef={box} />
          <Popover.Portal>
            <Popover.Content
              role="presentation"
              align="start"
              sideOffset={3}
              collisionPadding={8}
              onOpenAutoFocus={(e) => e.preventDefault()}
              onCloseAutoFocus={(e) => e.preventDefault()}
              className="z-50 w-[max(24rem,var(--radix-popover-trigger-width))] max-w-[calc(100vw-1rem)] rounded-md border border-rule-strong bg-sheet shadow-xl"
            >
              <ul
                {...menu}
                aria-label="To choose from"
                aria-labelledby={undefined}
                className="max-h-[min(22rem,var(--radix-popover-content-available-height))] overflow-y-auto p-1"
              >
                {options.map((o, i) => (
                  <li
                    key={`${o.how} ${o.name}`}
                    {...c.getItemProps({ item: o, index: i })}
                    className={`cursor-pointer rounded px-2.5 py-1.5 ${i === c.highlightedIndex ? "bg-honey-wash" : ""} ${
                      o.how !== "name" && options[i - 1]?.how !== o.how && i > 0 ? "mt-1 border-t border-rule" : ""
                    }`}
                  >
                    <Line of={o} />
                  </li>
                ))}
              </ul>
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      )}
      <Problem say={problem} />
      {adding !== null && finds.of === "material" && (
        <AddMaterial
          name={adding}
          kinds={finds.kinds}
          done={(name) => {
            add(null);
            if (name !== null) onText(name);
            box.current?.focus();
          }}
        />
      )}
    </>
  );
}

/** A name in the list, with what helps to choose it at its right and under it. */
function Line({ of: o }: { of: Option }) {
  if (o.how === "add")
    return (
      <span className="text-amber">
        Add <strong>{o.name}</strong> to the shelf …
      </span>
    );
  return (
    <span className="grid grid-cols-[1fr_auto] items-baseline gap-x-4">
      <span className="font-semibold">{o.name}</span>
      <span className={`text-small tabular-nums ${o.first ? "weight" : "text-pine-soft"}`}>
        {o.how === "library" ? "from the library" : o.aside}
      </span>
      {o.about && <span className="col-span-2 text-fine text-pine-soft">{o.about}</span>}
    </span>
  );
}

interface Finding extends InSheet {
  finds: Finds;
  onPicked?: (text: string) => void;
}

/** The field of a sheet. */
function useField({ control, name, onPicked }: Omit<Finding, "finds">) {
  const { value, set, rest } = useTextField({ control, name });
  return {
    ...rest,
    value,
    onText: (text: string) => {
      set(text);
      onPicked?.(text);
    },
  };
}

function ComboCell({ control, name, onPicked, ...rest }: Finding & Omit<ComboProps, "value" | "onText" | "inputRef" | "name">) {
  return <Combo {...rest} {...useField({ control, name, onPicked })} />;
}

/** A field for names in a table of lines. @example { key: "product", label: "Product", own: nameCell({ of: "product" }) } */
export const nameCell = (finds: Finds): NonNullable<Column["own"]> => ({
  cell: ({ row: _, looks, ...cell }) => <ComboCell finds={finds} {...cell} {...looks} />,
});

/** With its label, hint and problem. */
export function FindText({
  control,
  name,
  finds,
  onPicked,
  label,
  problem,
  hint,
  className,
  ...input
}: Finding & FieldProps & Omit<ComponentProps<"input">, "ref">) {
  const id = useId();
  return (
    <Frame {...{ id, label, problem, hint, className }}>
      <Combo
        id={id}
        className="field"
        finds={finds}
        aria-invalid={problem ? true : undefined}
        aria-describedby={describe(id, problem, hint)}
        {...input}
        {...useField({ control, name, onPicked })}
      />
    </Frame>
  );
}
