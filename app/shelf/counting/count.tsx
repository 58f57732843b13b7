/** One lot's count in a stock-take: saved as its field is left, and brought up to date where another window counted it. */
import { kind } from "#core/material/kinds";
import type { Base } from "#core/measure/exact";
import { forField } from "#core/numbers";
import type { FieldProblem } from "#core/refused";
import type { WalkRow } from "#db/shelf/counting/stocktake";
import { useEffect, useRef, useState } from "react";
import { showBase } from "../../ui/figures/amounts.tsx";
import { Button, Problem } from "../../ui/fields/form.tsx";

/** Before an answer has come no more is typed into one field. */
const SENT_LATELY = 5;

export type Keep = (count: {
  lotId: number;
  counted: string;
  was: Base | null;
  sent: readonly string[];
  note: string;
}) => Promise<readonly FieldProblem[]>;
/** Told whether the text of a lot's field is saved; what isn't can't be posted. */
export type OnWrong = (of: WalkRow, wrong: boolean) => void;

interface Props {
  row: WalkRow;
  problem: string | undefined;
  keep: Keep;
  onWrong: OnWrong;
  /** Another window counted it. */
  onElsewhere: (of: WalkRow) => void;
}

/** What was found of a lot: saved as it is left, the next one a press of Enter away. */
export function Count({ row: r, problem, keep, onWrong, onElsewhere }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const measured = kind(r.kind).measured;
  const start = r.counted === null ? "" : forField(showBase(r.counted, measured));
  // What the field said last, what the books are known to have, what was sent lately, and whether what they have next is our own.
  const at = useRef({ said: start, known: r.counted, sent: [] as readonly string[], ours: false, wrong: false });
  const [wrong, setSay] = useState<string>();
  const [elsewhere, setElsewhere] = useState<string>();
  const say = wrong ?? problem;
  const send = (text: string): void => {
    if (text.trim() === at.current.said.trim() && !at.current.wrong) return;
    const { known, sent } = at.current;
    at.current.said = text;
    at.current.sent = [...sent, text].slice(-SENT_LATELY);
    void keep({ lotId: r.id, counted: text, was: known, sent, note: r.note ?? "" }).then((problems) => {
      at.current.wrong = problems.length > 0;
      at.current.ours = problems.length === 0;
      setSay(problems[0]?.say);
      setElsewhere(undefined);
      onWrong(r, problems.length > 0);
    });
  };
  useEffect(() => {
    const { known, said, ours, wrong: isWrong } = at.current;
    if (r.counted === known) return;
    at.current.known = r.counted;
    at.current.ours = false;
    const field = input.current;
    // What was typed and isn't sent yet, or was refused, stays.
    if (field && !isWrong && field.value.trim() === said.trim() && document.activeElement !== field) {
      field.value = start;
      at.current.said = start;
    }
    if (ours) return;
    setElsewhere(start === "" ? "Taken out in another window." : `Counted ${start} in another window.`);
    onElsewhere(r);
    // Only when what is saved of it has changed.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [r.counted]);
  return (
    <>
      <span className="flex items-baseline gap-2">
        <input
          ref={input}
          className="cell peer to-write text-right tabular-nums"
          defaultValue={start}
          placeholder={measured === "weight" ? "g" : "pcs"}
          aria-label={`Counted, ${r.number}`}
          aria-invalid={say ? true : undefined}
          aria-describedby={say ? `count-${r.id}` : undefined}
          onBlur={(e) => send(e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== "Enter") return;
            e.preventDefault();
            const all = [...document.querySelectorAll<HTMLInputElement>("input[data-count]")];
            (all[all.indexOf(e.currentTarget) + 1] ?? e.currentTarget).focus();
            send(e.currentTarget.value);
          }}
          data-count
          data-amount
        />
        <span className="hidden print:peer-placeholder-shown:inline">{measured === "weight" ? "g" : "pcs"}</span>
        <Button
          small
          className="no-print flex-none"
          aria-label={`As expected, ${r.number}`}
          onClick={() => {
            const text = forField(showBase(r.onHand, measured));
            if (input.current) input.current.value = text;
            send(text);
          }}
        >
          As expected
        </Button>
      </span>
      <Problem id={`count-${r.id}`} say={say} />
      {!say && elsewhere && <p className="text-fine font-semibold text-honey">{elsewhere}</p>}
    </>
  );
}
