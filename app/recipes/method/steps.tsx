/**
 * The method, a step to a line: typed, added on Enter, moved by dragging or by keys, with the minutes of hands each takes. It is saved as text,
 * so that it reads the same wherever it is shown.
 */
import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors, type DragEndEvent } from "@dnd-kit/core";
import { arrayMove, SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from "@dnd-kit/sortable";
import type { Judged } from "#core/recipe/judge/judgement";
import { draftMethod, readSteps, SHEA, writeSteps, type Shea, type Step } from "#core/recipe/method";
import { counted } from "#core/words";
import { memo, useId, useMemo, useState, type KeyboardEvent } from "react";
import type { UseFormReturn } from "react-hook-form";
import { Button, Choice, Problem } from "../../ui/fields/form.tsx";
import type { RecipeTexts } from "../recipeTexts.ts";

interface Row extends Step {
  id: number;
}
let last = 0;
const row = (s: Step): Row => ({ ...s, id: ++last });
const BLANK: Step = { text: "", minutes: null };
const asText = (method: string): string => writeSteps(readSteps(method));

interface Props {
  method: string;
  batchMinutes: string;
  form: UseFormReturn<RecipeTexts>;
  judged: Judged;
  problem?: string;
}

/** Drawn again only when something of what it is given is another. */
export const Steps = memo(function Steps({ method, batchMinutes, form, judged, problem }: Props) {
  const [rows, setRows] = useState<readonly Row[]>(() => readSteps(method).map(row));
  const [kept, keep] = useState(() => asText(method));
  const [shea, choose] = useState<Shea>("hold");
  const [folded, fold] = useState(true);
  // The sheet was filled again, by a paste or a draft taken up.
  if (kept !== asText(method)) {
    keep(asText(method));
    setRows(readSteps(method).map(row));
  }
  const put = (next: readonly Row[]): void => {
    setRows(next);
    const text = writeSteps(next);
    keep(text);
    form.setValue("method", text, { shouldDirty: true });
  };
  const move = (from: number, to: number): void => {
    if (to >= 0 && to < rows.length) put(arrayMove([...rows], from, to));
  };
  const id = useId();
  const field = (at: number): string => `${id}-${at}`;
  const goTo = (at: number): void => void setTimeout(() => document.getElementById(field(at))?.focus(), 0);
  const add = (at: number, step: Step = BLANK): void => {
    put([...rows.slice(0, at), row(step), ...rows.slice(at)]);
    goTo(at);
  };
  const onKeyDown = (e: KeyboardEvent, i: number): void => {
    if (e.key === "Enter" && !e.shiftKey) {
      e.preventDefault();
      add(i + 1);
    } else if (e.altKey && (e.key === "ArrowUp" || e.key === "ArrowDown")) {
      e.preventDefault();
      const to = e.key === "ArrowUp" ? i - 1 : i + 1;
      move(i, to);
      goTo(Math.max(0, Math.min(rows.length - 1, to)));
    } else if (e.key === "Backspace" && rows[i]!.text === "" && rows.length > 1) {
      e.preventDefault();
      put(rows.filter((_, n) => n !== i));
      goTo(Math.max(0, i - 1));
    }
  };
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    if (over && active.id !== over.id)
      move(
        rows.findIndex((r) => r.id === active.id),
        rows.findIndex((r) => r.id === over.id),
      );
  };
  const draft = useMemo(() => draftMethod(judged, shea), [judged, shea]);
  const why = new Map(draft.map((d) => [d.text, d.why]));
  const minutes = rows.reduce((a, r) => a + (r.minutes ?? 0), 0);
  const hasShea = judged.lines.some((l) => /\bshea\b/i.test(l.name));
  return (
    <div className="mt-4">
      <div className="mb-1 flex flex-wrap items-end justify-between gap-3">
        <h3 className="text-small font-semibold">Method</h3>
        <div className="no-print flex flex-wrap items-end gap-3">
          {hasShea && (
            <Choice
              label="Shea"
              options={(Object.keys(SHEA) as Shea[]).map((s) => [s, SHEA[s]] as const)}
              value={shea}
              onChange={(e) => choose(e.target.value as Shea)}
            />
          )}
          {judged.lines.length > 0 && (
            <Button small onClick={() => put([...rows.filter((r) => r.text !== ""), ...draft.map(row)])}>
              {rows.some((r) => r.text !== "") ? "Add drafted steps" : "Draft the steps"}
            </Button>
          )}
        </div>
      </div>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd} id={id}>
        <SortableContext items={rows.map((r) => r.id)} strategy={verticalListSortingStrategy}>
          <ol className="space-y-1.5">
            {rows.map((r, i) => (
              <OneStep
                key={r.id}
                of={r}
                n={i + 1}
                field={field(i)}
                why={folded ? undefined : why.get(r.text)}
                change={(by) => put(rows.map((x) => (x.id === r.id ? { ...x, ...by } : x)))}
                remove={() => put(rows.filter((x) => x.id !== r.id))}
                onKeyDown={(e) => onKeyDown(e, i)}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <div className="no-print mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
        <Button small onClick={() => add(rows.length)}>
          Add a step
        </Button>
        {rows.some((r) => why.has(r.text)) && (
          <button type="button" className="pressable text-small" aria-pressed={!folded} onClick={() => fold(!folded)}>
            {folded ? "Why each step" : "Fold the reasons away"}
          </button>
        )}
        {minutes > 0 && String(minutes) !== batchMinutes && (
          <span className="text-small text-pine-soft">
            {counted(minutes, "minute")} of hands in all.{" "}
            <button
              type="button"
              className="pressable"
              onClick={() => form.setValue("batchMinutes", String(minutes), { shouldDirty: true })}
            >
              Cost it by that
            </button>
          </span>
        )}
        {rows.length > 1 && <span className="text-fine text-pine-soft">Enter adds one, Alt with ↑ or ↓ moves it.</span>}
      </div>
      <Problem say={problem} />
    </div>
  );
});

interface OneProps {
  of: Row;
  n: number;
  field: string;
  why: string | undefined;
  change: (by: Partial<Step>) => void;
  remove: () => void;
  onKeyDown: (e: KeyboardEvent) => void;
}

function OneStep({ of, n, field, why, change, remove, onKeyDown }: OneProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({ id: of.id });
  return (
    <li
      ref={setNodeRef}
      style={transform ? { transform: `translate3d(0, ${transform.y}px, 0)`, transition } : undefined}
      className={`flex flex-wrap items-start gap-2 sm:flex-nowrap ${isDragging ? "relative z-10 bg-honey-wash" : ""}`}
    >
      <button
        type="button"
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        aria-label={`Move step ${n}`}
        className="no-print min-h-9 w-8 flex-none cursor-grab touch-none text-pine-soft"
      >
        <span aria-hidden="true">⠿</span>
      </button>
      <span className="num w-6 flex-none pt-1.5 text-pine-soft">{n}</span>
      <div className="order-last min-w-0 basis-full sm:order-none sm:basis-0 sm:flex-1">
        <textarea
          id={field}
          aria-label={`Step ${n}`}
          rows={1}
          className="field grows py-1.5!"
          value={of.text}
          placeholder="What is done"
          onChange={(e) => change({ text: e.target.value.replace(/\n/g, " ") })}
          onKeyDown={onKeyDown}
        />
        {why && <p className="mt-0.5 text-fine text-pine-soft">{why}</p>}
      </div>
      <input
        className="field ml-auto w-16 flex-none sm:ml-0 py-1.5! text-right"
        aria-label={`Minutes of step ${n}`}
        data-amount
        inputMode="numeric"
        placeholder="min"
        value={of.minutes === null ? "" : String(of.minutes)}
        onChange={(e) => {
          const digits = e.target.value.replace(/\D/g, "").slice(0, 3);
          change({ minutes: digits === "" ? null : Number(digits) });
        }}
      />
      <button type="button" aria-label={`Take step ${n} out`} className="no-print min-h-9 w-7 flex-none text-pine-soft" onClick={remove}>
        ×
      </button>
    </li>
  );
}
