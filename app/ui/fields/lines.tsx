/**
 * A table of lines to fill in: Enter goes to the next row and adds one after the last, rows paste in from a spreadsheet,
 * and what the tool works out for a row is at its end.
 */
import { memo, useId, useState, type ClipboardEvent, type ComponentProps, type KeyboardEvent, type ReactNode } from "react";
import { useFieldArray, useFormState, useWatch, type Control, type UseFormReturn } from "react-hook-form";
import { useInView } from "react-intersection-observer";
import { settleNumbers } from "#core/measure/habit";
import { readTypedDay, type Leaning } from "#core/typedDay";
import { problemAt } from "./problems.ts";
import type { InSheet } from "./useTextField.ts";
import { goToNamed } from "./enter.ts";
import { DayCell } from "./dateField.tsx";
import { Button, Problem } from "./form.tsx";
import { PickCell, type Choosable } from "./pick.tsx";
import { useWorkshop } from "../workshop.ts";

export interface Column {
  key: string;
  label: string;
  /** CSS width of the column. */
  width?: string;
  /** A day; which year is meant where none is typed. */
  day?: Leaning;
  /** Choices instead of free text. */
  options?: readonly (readonly [value: string, label: string])[];
  /** A field of another kind than the table knows, such as one for names; and its value in words, where that isn't the value itself. */
  own?: { cell: (cell: OwnCell) => ReactNode; said?: (value: string) => string };
  /** Choices that need a second line to be told apart: lots, by row. */
  picks?: (row: number) => readonly Choosable[];
  /** An amount, or money: figures, standing right. */
  right?: boolean;
  /** An amount aligned left, as words go with it. */
  amount?: boolean;
  placeholder?: string;
}

const isAmount = (c: Column): boolean => c.right === true || c.amount === true;

export interface OwnCell {
  control: unknown;
  name: string;
  row: number;
  looks: Looks;
  placeholder: string | undefined;
  onPicked: (value: string) => void;
  onPaste: (e: ClipboardEvent<HTMLInputElement>) => void;
}
type Looks = Pick<ComponentProps<"select">, "aria-label" | "aria-invalid" | "aria-describedby" | "className"> & {
  onKeyDown: (e: KeyboardEvent<HTMLElement>) => void;
};

/** The error of a row that isn't there: an empty table lacks its first. */
function strayProblem(errors: object, name: string, rows: number): string | undefined {
  const said = name.split(".").reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], errors);
  const stray = Object.entries(said ?? {}).find(([row]) => Number(row) >= rows)?.[1] as
    Record<string, { message?: string } | undefined> | undefined;
  return stray && Object.values(stray).find((e) => e?.message !== undefined)?.message;
}

/** What the tool works out for a row. */
export interface Derived {
  label: string;
  /** CSS width of its column. Where every column has one the table keeps its columns as they are, and a changed cell moves no other. */
  width?: string;
  cell: (row: number, far: boolean) => ReactNode;
}

/** A cell's value, in words. */
function Words({ control, name, row, of }: InSheet & { row: number; of: Column }) {
  const value = useWatch({ control: control as Control, name }) as string;
  const said = of.own?.said
    ? of.own.said(value)
    : (of.options?.find(([v]) => v === value)?.[1] ?? of.picks?.(row).find((o) => o.value === value)?.name ?? value);
  return <span className={`cell flex items-center ${of.right ? "justify-end tabular-nums" : ""}`}>{said}</span>;
}

/** So many rows have all their fields wherever they are. */
const SHORT = 24;

/** A row. Far above or below what is shown it has the words of its fields without the fields, which are most of what a long table costs. */
function Row({ held, cells }: { held: boolean; cells: (far: boolean) => ReactNode }) {
  const [far, leave] = useState(false);
  // The field that is typed in stays one.
  const onChange = (seen: boolean, { target }: IntersectionObserverEntry): void => leave(!seen && !target.contains(document.activeElement));
  const { ref } = useInView({ rootMargin: "50%", initialInView: true, onChange });
  return <tr ref={ref}>{cells(far && !held)}</tr>;
}

interface Props {
  /** The sheet's `form`. The table works for any sheet: it only touches the rows under `name`. */
  form: unknown;
  name: string;
  columns: readonly Column[];
  blank: Record<string, string>;
  addLabel: string;
  derived?: readonly Derived[];
  /** The rows are fixed: none is added or removed. */
  fixed?: boolean;
  onPicked?: (row: number, key: string, value: string) => void;
  /** Takes several lines pasted into one column which are no table, and says whether it did. */
  onText?: (key: string, text: string) => boolean;
}

/**
 * A keystroke in one of its fields is that field's alone: the table is drawn again when its rows, their messages, or what it was given
 * change. Where what it is given is the same thing each time, and its cells look up themselves what is worked out for them, that is seldom.
 */
export const LineTable = memo(function LineTable({ form, name, columns, blank, addLabel, derived = [], fixed, onPicked, onText }: Props) {
  const sheet = form as UseFormReturn;
  const { fields, append, remove } = useFieldArray({ control: sheet.control, name });
  const id = useId();
  const { today, dates, numbers } = useWorkshop();
  const { errors } = useFormState({ control: sheet.control, name });

  const onKeyDown = (e: KeyboardEvent<HTMLElement>, row: number, key: string): void => {
    if (e.key !== "Enter" || e.ctrlKey || e.metaKey) return;
    e.preventDefault();
    const below = `${name}.${row + 1}.${key}`;
    if (row + 1 < fields.length) {
      // A row far down, or a field with its own list, is reached by its form.
      if (!goToNamed(e.target, below)) sheet.setFocus(below);
    } else if (!fixed) append(blank, { focusName: `${name}.${row + 1}.${columns[0]!.key}` });
  };

  const dayOr = (text: string, leaning: Leaning): string => {
    const day = readTypedDay(text, { today, style: dates, leaning });
    return day.ok ? day.value : text;
  };

  /** Pasted text as it would be if it had been typed. */
  const asTyped = (text: string, c: Column): string => (c.day ? dayOr(text, c.day) : isAmount(c) ? settleNumbers(text, numbers) : text);

  const onPaste = (e: ClipboardEvent<HTMLInputElement>, row: number, col: number): void => {
    const text = e.clipboardData.getData("text/plain").replace(/\r?\n$/, "");
    if (!/[\t\n]/.test(text)) return;
    e.preventDefault();
    if (!text.includes("\t") && onText?.(columns[col]!.key, text)) return;
    const pasted = text.split(/\r?\n/).map((l) => l.split("\t"));
    const rows = [...(sheet.getValues(name) as Record<string, string>[])];
    pasted.forEach((cells, i) => {
      const at: Record<string, string> = { ...(rows[row + i] ?? blank) };
      cells.forEach((c, j) => {
        const column = columns[col + j];
        if (column) at[column.key] = asTyped(c.trim(), column);
      });
      rows[row + i] = at;
    });
    sheet.setValue(name, rows, { shouldDirty: true });
  };

  const input = (row: number, c: Column, col: number, far: boolean): ReactNode => {
    const path = `${name}.${row}.${c.key}`;
    if (far) return <Words control={sheet.control} name={path} row={row} of={c} />;
    const problem = problemAt(errors, path);
    const looks = {
      "aria-label": `${c.label}, row ${row + 1}`,
      "aria-invalid": problem ? (true as const) : undefined,
      "aria-describedby": problem ? `${id}-${row}-${c.key}` : undefined,
      "data-amount": isAmount(c) ? "" : undefined,
      className: `cell ${c.right ? "text-right tabular-nums" : ""}`,
      onKeyDown: (e: KeyboardEvent<HTMLElement>) => onKeyDown(e, row, c.key),
    };
    if (c.own)
      return c.own.cell({
        ...{ control: sheet.control, name: path, row, looks, placeholder: c.placeholder },
        onPicked: (value) => onPicked?.(row, c.key, value),
        onPaste: (e) => onPaste(e, row, col),
      });
    if (c.day)
      return (
        <DayCell
          control={sheet.control}
          name={path}
          leaning={c.day}
          onPaste={(e: ClipboardEvent<HTMLInputElement>) => onPaste(e, row, col)}
          {...looks}
        />
      );
    if (c.picks)
      return <PickCell control={sheet.control} name={path} options={c.picks(row)} onPicked={(v) => onPicked?.(row, c.key, v)} {...looks} />;
    const shared = {
      ...sheet.register(path, { onChange: (e: { target: { value: string } }) => onPicked?.(row, c.key, e.target.value) }),
      ...looks,
    };
    return c.options ? (
      <select {...shared}>
        {c.options.map(([value, label]) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </select>
    ) : (
      <input type="text" placeholder={c.placeholder} autoComplete="off" onPaste={(e) => onPaste(e, row, col)} {...shared} />
    );
  };

  return (
    <div>
      <table className={`ruled stack lines ${[...columns, ...derived].every((c) => c.width) ? "table-fixed" : ""}`}>
        <thead>
          <tr>
            {columns.map((c) => (
              <th key={c.key} scope="col" style={{ width: c.width }} className={c.right ? "text-right!" : ""}>
                {c.label}
              </th>
            ))}
            {derived.map((d) => (
              <th key={d.label} scope="col" style={{ width: d.width }} className="text-right! whitespace-nowrap">
                {d.label}
              </th>
            ))}
            {!fixed && <th scope="col" aria-label="Remove" className="w-9" />}
          </tr>
        </thead>
        <tbody>
          {fields.map((field, row) => {
            const problems = columns.flatMap((c) => {
              const say = problemAt(errors, `${name}.${row}.${c.key}`);
              return say ? [{ key: c.key, label: c.label, say }] : [];
            });
            const above = problems.length > 0 ? "border-b-0!" : "";
            return [
              <Row
                key={field.id}
                held={problems.length > 0 || fields.length <= SHORT}
                cells={(far) => (
                  <>
                    {columns.map((c, col) => (
                      <td key={c.key} data-label={c.label} className={above}>
                        {input(row, c, col, far)}
                      </td>
                    ))}
                    {derived.map((d) => (
                      <td key={d.label} data-label={d.label} className={`num ${above}`}>
                        {d.cell(row, far)}
                      </td>
                    ))}
                    {!fixed && (
                      <td className={`cross ${above}`}>
                        <button
                          type="button"
                          className="h-8 w-8 cursor-pointer rounded text-large leading-none text-pine-soft hover:bg-berry-wash hover:text-berry"
                          aria-label={`Remove row ${row + 1}`}
                          onClick={() => remove(row)}
                        >
                          ×
                        </button>
                      </td>
                    )}
                  </>
                )}
              />,
              problems.length > 0 && (
                <tr key={`${field.id}-said`}>
                  <td colSpan={columns.length + derived.length + 1} className="pt-0!">
                    {problems.map((s) => (
                      <Problem key={s.key} id={`${id}-${row}-${s.key}`} say={`${s.label}: ${s.say}`} />
                    ))}
                  </td>
                </tr>
              ),
            ];
          })}
        </tbody>
      </table>
      <Problem say={problemAt(errors, `${name}.root`) ?? problemAt(errors, name) ?? strayProblem(errors, name, fields.length)} />
      {!fixed && (
        <Button small className="mt-2" onClick={() => append(blank, { focusName: `${name}.${fields.length}.${columns[0]!.key}` })}>
          {addLabel}
        </Button>
      )}
    </div>
  );
});
