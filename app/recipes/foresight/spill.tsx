/** A slip of the hand: more of one scent went in than was meant, and what that makes of the others or of the whole. */
import type { MaterialChoice } from "#core/recipe/written";
import { factsIn } from "#core/material/facts";
import { mg, type Mg } from "#core/measure/exact";
import { massOf } from "#core/measure/mass";
import { parseAmount } from "#core/measure/parse";
import { exactWeightText } from "#core/measure/read";
import { gramsIn, sayShare } from "#core/measure/write";
import type { Outcome } from "#core/outcome";
import { type Judged, type JudgedLine } from "#core/recipe/judge/judgement";
import { afterSpill, scentOf } from "#core/scent/dilution";
import { useState } from "react";
import { Button, Choice, Text } from "../../ui/fields/form.tsx";
import type { AppliedFix } from "./suggestedFix.ts";

interface SpillProps {
  judged: Judged;
  lines: readonly JudgedLine[];
  mending: AppliedFix;
  facts: ReadonlyMap<string, MaterialChoice>;
}

/** More went in than was meant: what the others must come to, or what it is now. */
export function Spill({ judged, lines, mending, facts }: SpillProps) {
  const [row, choose] = useState(lines[0]!.row);
  const [text, setText] = useState("");
  const at = Math.max(
    0,
    lines.findIndex((l) => l.row === row),
  );
  const line = lines[at]!;
  const amount = text.trim() === "" ? null : parseAmount(text, "drop");
  const material = facts.get(line.name);
  const poured: Outcome<Mg> | null = amount && material ? (amount.ok ? massOf(amount.value, factsIn(material)) : amount) : null;
  const problem =
    poured && !poured.ok ? poured.problem.say : poured?.ok && poured.value <= line.weight ? "That isn't more than was meant." : undefined;
  const others =
    poured?.ok && problem === undefined
      ? afterSpill(
          lines.map((l) => l.weight),
          at,
          poured.value,
        )
      : null;
  const asItIs =
    others &&
    scentOf(
      lines.map((l, i) => (i === at ? { ...l, weight: others[at]! } : l)),
      mg(judged.total + others[at]! - line.weight),
      judged.usedOn,
      judged.forWhom,
    );
  return (
    <details>
      <summary className="pressable">Too much of one went in</summary>
      <div className="mt-2 grid gap-3 sm:grid-cols-[1.5fr_1fr]">
        <Choice
          label="Of"
          options={lines.map((l) => [String(l.row), l.name] as const)}
          value={String(line.row)}
          onChange={(e) => choose(Number(e.target.value))}
        />
        <Text
          data-amount
          label="Went in"
          placeholder="such as 90 drops"
          value={text}
          onChange={(e) => setText(e.target.value)}
          unread={problem}
        />
      </div>
      {others && asItIs && (
        <div className="mt-2 space-y-1">
          <p>
            As it is: <strong>{sayShare(asItIs.share)}</strong> scent
            {asItIs.share > asItIs.most.share && <span className="text-berry"> (at most {sayShare(asItIs.most.share)})</span>}.
            {lines.length > 1 && " To smell as it was meant to, bring the others to:"}
          </p>
          {lines.map((l, i) =>
            i === at ? null : <p key={l.row}>{`${l.name}: ${gramsIn(2)(others[i]!)}, ${gramsIn(2)(others[i]! - l.weight)} more`}</p>,
          )}
          <div className="flex flex-wrap gap-2">
            <Button
              small
              onClick={() =>
                mending.press({
                  say: `Wrote what went in of ${line.name}`,
                  rows: [{ row: line.row, entered: exactWeightText(others[at]!) }],
                })
              }
            >
              Write it as it is
            </Button>
            {lines.length > 1 && (
              <Button
                small
                onClick={() =>
                  mending.press({
                    say: "Brought the others up to it",
                    rows: lines.map((l, i) => ({ row: l.row, entered: exactWeightText(others[i]!) })),
                  })
                }
              >
                Bring the others up to it
              </Button>
            )}
          </div>
        </div>
      )}
    </details>
  );
}
