/**
 * A day: typed the way people say it (`5 12`, `tomorrow`, `in 3 weeks`), written the way the workshop writes days, the same on any browser;
 * or chosen from a calendar. What can't be read stays as it was typed, with an error when the sheet is sent.
 */
import { readTypedDay, writeDay, type Leaning } from "#core/typedDay";
import { readDay } from "#core/when";
import { Popover } from "radix-ui";
import { lazy, Suspense, useId, useState, type ComponentProps, type KeyboardEvent } from "react";
import { useTextField, type InSheet } from "./useTextField.ts";
import { describe, Frame, type FieldProps } from "./form.tsx";
import { useWorkshop } from "../workshop.ts";

// Only who opens it needs it.
const Calendar = lazy(() => import("./calendar.tsx"));

interface DayProps extends Omit<ComponentProps<"input">, "value" | "onChange" | "ref" | "type"> {
  /** An ISO day, or what was typed and is none. */
  value: string;
  onDay: (value: string) => void;
  leaning?: Leaning;
  inputRef?: (input: HTMLInputElement | null) => void;
}

export function DayInput({ value, onDay, leaning = "near", inputRef, className = "", onBlur, onKeyDown, ...input }: DayProps) {
  const { today, dates } = useWorkshop();
  const [typed, type] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const day = readDay(value);
  const read = (text: string): string => {
    const r = readTypedDay(text, { today, style: dates, leaning });
    return r.ok ? r.value : text.trim();
  };
  const onKey = (e: KeyboardEvent<HTMLInputElement>): void => {
    if (e.key === "ArrowDown" && e.altKey) {
      e.preventDefault();
      setOpen(true);
    } else onKeyDown?.(e);
  };
  return (
    <span className="relative block">
      <input
        type="text"
        {...input}
        ref={inputRef}
        className={`${className} pr-8!`}
        autoComplete="off"
        value={typed ?? (day.ok ? writeDay(day.value, dates) : value)}
        onChange={(e) => {
          type(e.target.value);
          onDay(read(e.target.value));
        }}
        onBlur={(e) => {
          type(null);
          onBlur?.(e);
        }}
        onKeyDown={onKey}
      />
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger
          tabIndex={-1}
          disabled={input.disabled}
          aria-label="Choose a day"
          className="no-print absolute inset-y-0 right-0 grid w-8 cursor-pointer place-items-center text-pine-soft hover:text-amber"
        >
          <svg aria-hidden="true" viewBox="0 0 16 16" className="h-4 w-4" fill="none" stroke="currentColor" strokeWidth="1.5">
            <path d="M2 4.5h12v9.5H2zM2 7.5h12M5 2v3M11 2v3" />
          </svg>
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="end"
            sideOffset={4}
            collisionPadding={8}
            aria-label="Calendar"
            className="z-50 min-h-72 min-w-72 rounded-md border border-rule-strong bg-sheet p-3 shadow-xl"
          >
            <Suspense>
              <Calendar
                day={day.ok ? day.value : null}
                today={today}
                sundayFirst={dates === "mdy"}
                choose={(d) => {
                  type(null);
                  onDay(d);
                  setOpen(false);
                }}
              />
            </Suspense>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </span>
  );
}

function useDayField(at: InSheet) {
  const { value, set, rest } = useTextField(at);
  return { ...rest, value, onDay: set };
}

/** In a table of lines. */
export const DayCell = ({ control, name, ...rest }: InSheet & Omit<DayProps, "value" | "onDay" | "inputRef" | "name">) => (
  <DayInput {...rest} {...useDayField({ control, name })} />
);

/** With its label, hint and problem. */
export function DayText({
  control,
  name,
  label,
  problem,
  hint,
  className,
  ...input
}: InSheet & FieldProps & Omit<DayProps, "value" | "onDay" | "inputRef" | "name">) {
  const id = useId();
  return (
    <Frame {...{ id, label, problem, hint, className }}>
      <DayInput
        id={id}
        className="field"
        aria-invalid={problem ? true : undefined}
        aria-describedby={describe(id, problem, hint)}
        {...input}
        {...useDayField({ control, name })}
      />
    </Frame>
  );
}

/** In a form that asks by its address: the day goes with it as an ISO day. */
export function AskedDay({
  name,
  label,
  defaultValue,
  ...input
}: { name: string; label: string; defaultValue: string } & Pick<DayProps, "leaning">) {
  const id = useId();
  const [value, setValue] = useState(defaultValue);
  return (
    <Frame id={id} label={label}>
      <DayInput id={id} className="field" value={value} onDay={setValue} {...input} />
      <input type="hidden" name={name} value={value} />
    </Frame>
  );
}
