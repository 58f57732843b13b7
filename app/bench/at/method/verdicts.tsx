/** What a test at the bench says, in one of several words, and what is done about it: so much more of something, or nothing. */
import type { Mg } from "#core/measure/exact";
import { exactWeightText } from "#core/measure/read";
import type { SpoonVerdict } from "#core/batch/finishing/spoon";
import { Button, Problem } from "../../../ui/fields/form.tsx";
import type { AtBenchLoaded } from "../loaded.ts";
import { useDid } from "../useDid.ts";
import { lineOf } from "../weighing/pot.ts";

export function Verdicts<V extends string>({
  label,
  words,
  chosen,
  choose,
}: {
  label: string;
  words: Readonly<Record<V, string>>;
  chosen: V | null;
  choose: (v: V) => void;
}) {
  return (
    <div role="group" aria-label={label} className="mt-3 flex flex-wrap gap-2">
      {(Object.keys(words) as V[]).map((v) => (
        <button
          key={v}
          type="button"
          aria-pressed={chosen === v}
          className={`act text-lead ${chosen === v ? "border-amber! bg-honey-wash font-semibold" : ""}`}
          onClick={() => choose(v)}
        >
          {words[v]}
        </button>
      ))}
    </div>
  );
}

/** So much more of a line that is in the pot, or of a material that isn't. */
export type Add = ({ line: number } | { materialId: number }) & { more: Mg };

interface AnswerProps {
  page: AtBenchLoaded;
  /** What was tested and found, as it is written down. */
  found: string;
  verdict?: SpoonVerdict;
  /** What puts it right, none where nothing does or nothing has to; and that in words. */
  adds: readonly Add[];
  what: string;
  /** What leaving it is called where something could be added, and where not. */
  leave: readonly [leave: string, note: string];
  kept: () => void;
}

/** Adding what puts a pot right, or writing down what was found. */
export function Answer({ page: { batch, takes }, found, verdict, adds, what, leave, kept }: AnswerProps) {
  const did = useDid(batch.id);
  const add = (): void =>
    did.keep(
      {
        intent: "mend",
        had: takes.length,
        lines: adds.flatMap((a) => ("line" in a ? [{ ...lineOf(takes, a.line), amount: exactWeightText(a.more) }] : [])),
        others: adds.flatMap((a) => ("line" in a ? [] : [{ materialId: a.materialId, amount: exactWeightText(a.more) }])),
        verdict,
        said: `${found}; ${what} to be added`,
      },
      kept,
    );
  return (
    <>
      <div className="mt-3 flex flex-wrap gap-2">
        {adds.length > 0 && (
          <Button main className="text-large" disabled={did.busy} onClick={add}>
            Add {adds.length > 1 ? "them" : "it"}
          </Button>
        )}
        <Button
          main={adds.length === 0}
          className="text-large"
          disabled={did.busy}
          onClick={() => did.keep({ intent: "event", kind: "test", verdict, note: found }, kept)}
        >
          {adds.length > 0 ? leave[0] : leave[1]}
        </Button>
      </div>
      <Problem say={did.problem?.say} />
    </>
  );
}
