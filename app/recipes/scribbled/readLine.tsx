/** One line of a pasted recipe: what was written, what it is read as, and what is asked about it. */
import type { Ask, Scribbled } from "#core/recipe/scribbled/read";
import { grams } from "#core/measure/write";
import type { Mg } from "#core/measure/exact";
import { useState } from "react";
import { Button } from "../../ui/fields/form.tsx";

export type Line = Extract<Scribbled, { as: "line" }>;
/** A line on its way: what it says now, what of it was answered, and whether it is left out. */
export interface Open {
  line: Line["line"];
  answered: readonly Ask["field"][];
  out: boolean;
}
export const openAsks = (l: Line, o: Open): Ask[] => (o.out ? [] : l.asks.filter((a) => !o.answered.includes(a.field)));

interface Props {
  of: Line;
  open: Open;
  /** What it weighs, where that is known. */
  weight: Mg | null;
  change: (by: Partial<Open>) => void;
}

export function ReadLine({ of, open, weight, change }: Props) {
  const { line, out } = open;
  const answer = (field: Ask["field"], value: string): void =>
    change({ line: { ...line, [field]: value }, answered: [...open.answered, field] });
  const asks = openAsks(of, open);
  return (
    <li className={`py-2 ${asks.length > 0 ? "border-l-4 border-l-honey pl-2.5" : ""}`}>
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <span className={out ? "text-pine-soft line-through" : ""}>{of.text}</span>
        <button type="button" className="pressable text-fine" onClick={() => change({ out: !out })}>
          {out ? "Take it in again" : "Leave it out"}
        </button>
      </div>
      {!out && (
        <>
          <p className="flex flex-wrap gap-x-2 text-small">
            <span className="text-pine-soft">read as</span>
            <strong>{line.entered === "" ? "how much?" : line.entered}</strong>
            <strong>{line.material === "" ? "of what?" : line.material}</strong>
            {line.form !== "" && line.form !== "liquid" && <span className="text-pine-soft">{line.form}</span>}
            {weight !== null && <span className="weight ml-auto">{grams(weight)}</span>}
          </p>
          {of.remarks.map((r) => (
            <p key={r} className="text-small text-pine-soft">
              {r}
            </p>
          ))}
          {asks.map((a) => (
            <AskedFor key={a.field} of={a} typed={line[a.field]} answer={(v) => answer(a.field, v)} />
          ))}
        </>
      )}
    </li>
  );
}

/** One question about a line: what it may mean, to be pressed, or a field where only the maker knows. */
function AskedFor({ of, typed, answer }: { of: Ask; typed: string; answer: (value: string) => void }) {
  const [own, setOwn] = useState(typed);
  return (
    <div className="mt-1" role="group" aria-label={of.say}>
      <p className="text-small font-semibold text-honey">{of.say}</p>
      <div className="mt-1 flex flex-wrap items-center gap-1.5">
        {of.choices.map((c) => (
          <button key={c.value} type="button" className="act act-small" onClick={() => answer(c.value)}>
            {c.say}
          </button>
        ))}
        {of.field === "entered" && (
          <>
            <input
              className="field w-32 py-1!"
              data-amount
              aria-label="Amount"
              placeholder="such as 2 tbsp"
              value={own}
              onChange={(e) => setOwn(e.target.value)}
              onKeyDown={(e) => {
                if (e.key !== "Enter") return;
                e.preventDefault();
                if (own.trim() !== "") answer(own.trim());
              }}
            />
            <Button small onClick={() => own.trim() !== "" && answer(own.trim())}>
              That much
            </Button>
          </>
        )}
      </div>
    </div>
  );
}
