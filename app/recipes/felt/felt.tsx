/** Spoon and finger tests of a recipe, how near the estimate was, and the form for a new one. */
import { sayShare } from "#core/measure/write";
import { firmness, mixOf } from "#core/firmness/model";
import { FEEL_IDS, FEELS, feelOf, type Feel } from "#core/firmness/words";
import type { Fitted } from "#core/firmness/fit";
import type { firmnessTestsOf } from "#db/recipe/firmness";
import { type Judged } from "#core/recipe/judge/judgement";
import { counted } from "#core/words";
import { useState } from "react";
import { usePress } from "../../forms/usePress.ts";
import { When } from "../../ui/figures/amounts.tsx";
import { Button, Choice, Problem, Text } from "../../ui/fields/form.tsx";
import { Table } from "../../ui/lists/table.tsx";

export interface FeltProps {
  recipeId: number;
  /** The version that is made by now. */
  n: number;
  tests: Awaited<ReturnType<typeof firmnessTestsOf>>;
  learned: Fitted;
}

/** What the model was fitted to, and how far off it was. */
export function Learned({ of }: { of: Fitted }) {
  if (of.tests === 0) return null;
  return (
    <p className="mt-1 text-fine text-pine-soft">
      It has learned from {counted(of.tests, "test")} of this workshop: its word is the one that was felt in {of.rightNow}, the trade's in{" "}
      {of.rightBefore}
      {of.off > 0.01 && `; in the middle it is ${sayShare(of.off)} off`}.
    </p>
  );
}

export function Felt({ judged, recipeId, n, tests }: FeltProps & { judged: Judged }) {
  const [celsius, setCelsius] = useState("20");
  const [feel, setFeel] = useState<Feel>("scoops");
  const [note, setNote] = useState("");
  const hand = usePress(`/recipes/${recipeId}/felt`);
  const mix = mixOf(judged.lines);
  const guess = (t: FeltProps["tests"][number]): string =>
    t.n === n ? FEELS[feelOf(firmness(mix, t.celsius, judged.constants))].say : "—";
  return (
    <div>
      <h3 className="mb-1 font-semibold">What the spoon said of version {n}</h3>
      <div className="no-print grid items-end gap-3 sm:grid-cols-[6.5rem_13rem_1fr_auto]">
        <Text data-amount="decimal" label="At, °C" value={celsius} onChange={(e) => setCelsius(e.target.value)} />
        <Choice
          label="To the finger it"
          options={FEEL_IDS.map((f) => [f, FEELS[f].say] as const)}
          value={feel}
          onChange={(e) => setFeel(e.target.value as Feel)}
        />
        <Text
          label="Note"
          placeholder="such as from the fridge, after a day"
          maxLength={200}
          value={note}
          onChange={(e) => setNote(e.target.value)}
        />
        <Button small disabled={hand.busy} className="mb-0.5" onClick={() => hand.press({ n, celsius, feel, note })}>
          Note it
        </Button>
      </div>
      <Problem say={hand.problem?.say} />
      {tests.length > 0 && (
        <Table
          className="mt-3"
          rows={tests}
          by={(t) => t.id}
          columns={[
            { head: "Felt on", cell: (t) => <When day={t.day} /> },
            { head: "Version", as: "figure", cell: (t) => t.n },
            { head: "At", as: "figure", cell: (t) => `${t.celsius} °C` },
            { head: "It", cell: (t) => FEELS[t.feel].say },
            { head: "The estimate now", cell: guess },
            { head: "Noted", plain: true, cell: (t) => t.note },
          ]}
        />
      )}
    </div>
  );
}
