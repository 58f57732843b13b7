/** Builds the scent blend: as it is, by the proportions of its notes, or oil by oil, up to a share of the whole. */
import { mg, sum } from "#core/measure/exact";
import { parseAmount } from "#core/measure/parse";
import { gramsIn, sayShare } from "#core/measure/write";
import { done, refuse, type Outcome } from "#core/outcome";
import { type Judged, type JudgedLine } from "#core/recipe/judge/judgement";
import { blendTo, blendWeights } from "#core/recipe/judge/scent";
import type { MaterialChoice } from "#core/recipe/written";
import { byNotes, byOils, notesOf, readParts, USUAL_NOTES, type BlendOil } from "#core/scent/blend";
import { scentOf } from "#core/scent/dilution";
import { wordList } from "#core/words";
import { useState } from "react";
import { Button, Choice, Text } from "../../ui/fields/form.tsx";
import type { AppliedFix } from "./suggestedFix.ts";

interface Props {
  judged: Judged;
  lines: readonly JudgedLine[];
  facts: ReadonlyMap<string, MaterialChoice>;
  /** A weight of an oil in drops or millilitres. */
  measured: (name: string, weight: number) => string;
  mending: AppliedFix;
  most: number;
}

const BY = { stands: "as they stand", notes: "by their notes", oils: "oil by oil" } as const;
type By = keyof typeof BY;

export function Blend({ judged, lines, facts, measured, mending, most }: Props) {
  const [by, choose] = useState<By>("stands");
  const [partsText, setParts] = useState("");
  const [text, setText] = useState("");
  const [asked, ask] = useState(false);
  const oils = lines.map((l): BlendOil => ({ name: l.name, note: facts.get(l.name)?.scentNote ?? "", weight: l.weight }));
  const notes = notesOf(oils);
  const unsaid = by === "notes" ? oils.filter((o) => o.note === "").map((o) => o.name) : [];
  const parts = by === "stands" || unsaid.length > 0 ? null : readParts(partsText, by === "notes" ? notes.length : oils.length);
  const now = lines.reduce((a, l) => a + l.share, 0);
  const wished: Outcome<number> = text.trim() === "" && by !== "stands" ? done(now) : readShare(text);
  const shares = parts?.ok ? (by === "notes" ? byNotes(oils, parts.value) : byOils(parts.value)) : undefined;
  const ready = wished.ok && unsaid.length === 0 && (by === "stands" || shares !== undefined);
  const weights = ready ? blendWeights(judged, lines, wished.value, shares) : null;
  const then =
    weights &&
    scentOf(
      lines.map((l, i) => ({ ...l, weight: weights[i]! })),
      mg(judged.total + sum(weights) - sum(lines.map((l) => l.weight))),
      judged.usedOn,
      judged.forWhom,
    );
  const put = (): void => {
    ask(true);
    if (ready) mending.press({ say: `Made the scent ${sayShare(wished.value)}`, rows: blendTo(judged, lines, wished.value, shares) });
  };
  const problem = (of: Outcome<unknown> | null, typed: string): string | undefined =>
    of === null || of.ok || (typed.trim() === "" && !asked) ? undefined : of.problem.say;
  return (
    <div>
      <h3 className="mb-1 font-semibold">The blend</h3>
      <div className="grid items-start gap-3 sm:grid-cols-[1fr_1.4fr_1fr]">
        <Choice
          label="Proportions"
          options={(Object.keys(BY) as By[]).map((b) => [b, BY[b]] as const)}
          value={by}
          onChange={(e) => choose(e.target.value as By)}
        />
        {by !== "stands" && unsaid.length === 0 && (
          <Text
            data-amount
            label={by === "notes" ? notes.join(" : ") : oils.map((o) => o.name.replace(/ essential oil.*$/, "")).join(" : ")}
            placeholder={by === "notes" && notes.length === 3 ? `usually ${USUAL_NOTES}` : undefined}
            hint={by === "notes" ? "Oils of one note keep their proportions to one another." : undefined}
            value={partsText}
            onChange={(e) => setParts(e.target.value)}
            unread={problem(parts, partsText)}
          />
        )}
        <Text
          data-amount="decimal"
          label="Make it, per cent"
          placeholder={by === "stands" ? `${(most * 100).toFixed(2)} at most` : `${(now * 100).toFixed(2)} as now`}
          value={text}
          onChange={(e) => setText(e.target.value)}
          unread={problem(wished, text)}
        />
      </div>
      {unsaid.length > 0 && (
        <p className="mt-2 font-semibold text-honey">
          Say at {wordList(unsaid)} first which note it is: top, middle or base, among its facts.
        </p>
      )}
      {then && (
        <p className="mt-2" aria-live="polite">
          {lines.map((l, i) => `${l.name} ${gramsIn(2)(weights[i]!)}, ${measured(l.name, weights[i]!)}`).join(" · ")}
          {then.share > then.most.share + 1e-6 && (
            <span className="block font-semibold text-berry">
              So much is too much: in these proportions {sayShare(then.most.share)} at most.
            </span>
          )}
        </p>
      )}
      <Button small className="mt-2" onClick={put}>
        Put it in the recipe
      </Button>
    </div>
  );
}

function readShare(text: string): Outcome<number> {
  const n = parseAmount(`${text.replace("%", "").trim()} %`);
  if (!n.ok) return n;
  const share = n.value.n.valueOf() / 100;
  return share > 0 && share <= 0.5 ? done(share) : refuse("range", "Enter more than 0, and 50 at most.");
}
