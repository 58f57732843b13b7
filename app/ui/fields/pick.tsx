/**
 * Choosing one of a few where each needs a second line to be told apart: a lot by its best-before and what is left of it, a recipe by its
 * batch. With a mouse a list of our own; on a phone the device's own wheel, which a thumb knows better.
 */
import { Select } from "radix-ui";
import { useId, useSyncExternalStore } from "react";
import { useTextField, type InSheet } from "./useTextField.ts";
import { describe, Frame, type FieldProps } from "./form.tsx";

export interface Choosable {
  value: string;
  name: string;
  /** At its right: what is on hand. */
  aside?: string;
  /** Under it. */
  about?: string;
}

const FINE = "(pointer: fine)";
const watch = (changed: () => void) => {
  const pointer = matchMedia(FINE);
  pointer.addEventListener("change", changed);
  return () => pointer.removeEventListener("change", changed);
};
/** Whether there is a mouse; a page from the server doesn't know yet, and has the native control. */
const useMouse = (): boolean =>
  useSyncExternalStore(
    watch,
    () => matchMedia(FINE).matches,
    () => false,
  );

// The list has no room for an empty value.
const NONE = "·";

interface BoxProps {
  id?: string;
  name?: string;
  value: string;
  onValue: (value: string) => void;
  options: readonly Choosable[];
  className: string;
  inputRef?: (el: HTMLElement | null) => void;
  onBlur?: () => void;
  onKeyDown?: (e: React.KeyboardEvent<HTMLElement>) => void;
  "aria-label"?: string;
  "aria-invalid"?: true;
  "aria-describedby"?: string;
}

/** The control alone, for a place that has its own label. */
export function PickBox({ value, onValue, options, inputRef, className, ...box }: BoxProps) {
  const mouse = useMouse();
  const chosen = options.find((o) => o.value === value);
  if (!mouse)
    return (
      <select {...box} ref={inputRef} className={className} value={value} onChange={(e) => onValue(e.target.value)}>
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {[o.name, o.aside].filter(Boolean).join(", ")}
          </option>
        ))}
      </select>
    );
  const { name: _name, onKeyDown, ...trigger } = box;
  return (
    <Select.Root value={value === "" ? NONE : value} onValueChange={(v) => onValue(v === NONE ? "" : v)}>
      <Select.Trigger
        {...trigger}
        ref={inputRef}
        className={`${className} flex items-center justify-between gap-2 text-left`}
        onKeyDown={(e) => {
          // Enter is the table's, which goes to the next row.
          if (e.key === "Enter") onKeyDown?.(e);
        }}
      >
        <span className="min-w-0 flex-1 truncate">
          <Select.Value>{chosen?.name ?? ""}</Select.Value>
        </span>
        {chosen?.aside && <span className="no-print weight flex-none text-small text-pine-soft">{chosen.aside}</span>}
        <Select.Icon asChild>
          <svg aria-hidden="true" viewBox="0 0 10 6" className="no-print h-1.5 w-2.5 flex-none">
            <path d="M0 0h10L5 6z" fill="currentColor" />
          </svg>
        </Select.Icon>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={3}
          collisionPadding={8}
          className="z-50 max-h-[min(24rem,var(--radix-select-content-available-height))] min-w-[var(--radix-select-trigger-width)] overflow-hidden rounded-md border border-rule-strong bg-sheet shadow-xl"
        >
          <Select.Viewport className="p-1">
            {options.map((o) => (
              <Select.Item
                key={o.value}
                value={o.value === "" ? NONE : o.value}
                textValue={o.name}
                className="grid cursor-pointer grid-cols-[1fr_auto] items-baseline gap-x-5 rounded px-2.5 py-1.5 outline-none data-[highlighted]:bg-honey-wash data-[state=checked]:font-semibold"
              >
                <Select.ItemText>{o.name}</Select.ItemText>
                {o.aside && <span className="weight text-small font-normal">{o.aside}</span>}
                {o.about && <span className="col-span-2 text-fine font-normal text-pine-soft">{o.about}</span>}
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}

interface Picking extends InSheet {
  options: readonly Choosable[];
  onPicked?: (value: string) => void;
}

function useField({ control, name, onPicked }: Omit<Picking, "options">) {
  const { value, set, rest } = useTextField({ control, name });
  return {
    ...rest,
    name,
    value,
    onValue: (chosen: string) => {
      set(chosen);
      onPicked?.(chosen);
    },
  };
}

/** In a table of lines. */
export function PickCell({ control, name, onPicked, ...rest }: Picking & Omit<BoxProps, "value" | "onValue" | "inputRef" | "name">) {
  return <PickBox {...rest} {...useField({ control, name, onPicked })} />;
}

/** With its label, hint and problem. */
export function Pick({ control, name, options, onPicked, label, problem, hint, className }: Picking & FieldProps) {
  const id = useId();
  return (
    <Frame {...{ id, label, problem, hint, className }}>
      <PickBox
        id={id}
        className="field"
        options={options}
        aria-invalid={problem ? true : undefined}
        aria-describedby={describe(id, problem, hint)}
        {...useField({ control, name, onPicked })}
      />
    </Frame>
  );
}
