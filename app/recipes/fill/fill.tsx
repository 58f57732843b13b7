/** What the pot fills, of the containers on hand: least left over or a wished mix, to a proven best, and how much more or less leaves nothing. */
import { mg, mulDiv } from "#core/measure/exact";
import { readCount } from "#core/measure/read";
import { grams, gramsIn, sayShare } from "#core/measure/write";
import { packagingOnHand, type FillAsk } from "#core/fill/fill";
import type { Judged, SuggestedFix } from "#core/recipe/judge/judgement";
import { timesAll } from "#core/recipe/judge/measuring";
import type { Shelf } from "#core/stock/shelf";
import { useState } from "react";
import { Button, Choice, Text } from "../../ui/fields/form.tsx";
import { Table } from "../../ui/lists/table.tsx";
import type { Costing } from "../costing.ts";
import type { AppliedFix } from "../foresight/suggestedFix.ts";
import { useFill } from "./useFill.ts";

interface Props {
  judged: Judged;
  costing: Costing;
  shelf: Shelf;
  mending: AppliedFix;
}

const BY = {
  first: "The first size first, then the next",
  least: "With the least left over",
  wished: "As near to these numbers as it goes",
} as const;

export function Fill({ judged, costing: { sizes }, shelf, mending }: Props) {
  const [by, setBy] = useState<FillAsk["by"]>("first");
  const [wishes, wish] = useState<Record<string, string>>({});
  const [bound, bind] = useState(true);
  const usable = mg(judged.total - mulDiv(judged.total, judged.lossBp, 10_000));
  const readings = sizes.map((_, i) => {
    const text = wishes[i]?.trim() ?? "";
    return text === "" ? null : readCount(text);
  });
  const problem = readings.find((r) => r !== null && !r.ok);
  const packs = [...new Map(sizes.flatMap((s) => s.packaging.map((p) => [p.of, p.name] as const)))];
  const onHand = packagingOnHand(sizes, shelf);
  const ask: FillAsk = {
    usable,
    by,
    sizes: sizes.map((s, i) => ({ fill: s.fill, packaging: s.packaging, wished: readings[i]?.ok ? readings[i].value : null })),
    onHand: bound ? onHand : new Map(),
  };
  const state = useFill(ask, JSON.stringify([ask.usable, ask.by, ask.sizes, [...ask.onHand]]));
  if (sizes.length === 0)
    return <p className="text-pine-soft">Say what it is filled into, under Sizes, and what the pot fills is shown here.</p>;
  const answer = state.at === "known" ? state.answer : null;
  const scaled = (factor: number, say: string): SuggestedFix => ({ say, ...timesAll(judged, factor) });
  return (
    <div className="space-y-4">
      <div className="flex flex-wrap items-end gap-3">
        <Choice
          className="min-w-56 flex-1"
          label="Fill it"
          options={(Object.keys(BY) as FillAsk["by"][]).map((b) => [b, BY[b]] as const)}
          value={by}
          onChange={(e) => setBy(e.target.value as FillAsk["by"])}
        />
        {sizes.map((s, i) => (
          <Text
            key={i}
            data-amount
            className="w-28"
            label={by === "wished" ? s.label : `${s.label}, at least`}
            placeholder="any"
            value={wishes[i] ?? ""}
            onChange={(e) => wish({ ...wishes, [i]: e.target.value })}
            unread={readings[i] && !readings[i].ok ? readings[i].problem.say : undefined}
          />
        ))}
      </div>
      <label className="flex items-center gap-2">
        <input type="checkbox" checked={bound} onChange={(e) => bind(e.target.checked)} />
        Only with what is on hand: {packs.map(([of, name]) => `${onHand.get(of)} × ${name}`).join(", ") || "no packaging is named"}
      </label>
      <div aria-live="polite" className="min-h-40 space-y-3">
        {problem ? null : state.at === "thinking" ? (
          <p className="text-pine-soft">Working it out …</p>
        ) : state.at === "lost" ? (
          <p className="font-semibold text-berry">
            The solver can't be loaded just now. The Reckoner's own figure stands: the main size first.
          </p>
        ) : !answer ? (
          <p className="font-semibold text-honey">That many don't go in: the pot has {grams(usable)}, or the containers run out.</p>
        ) : (
          <>
            <Table
              rows={sizes.map((s, i) => ({ ...s, units: answer.units[i]! }))}
              by={(r, i) => `${r.label} ${i}`}
              columns={[
                { head: "Size", cell: (r) => r.label, foot: "Left over" },
                { head: "So many", as: "figure", cell: (r) => <strong>{r.units}</strong> },
                { head: "Each", as: "weight", cell: (r) => gramsIn(1)(r.fill) },
                { head: "Together", as: "weight", cell: (r) => gramsIn(1)(r.fill * r.units), foot: gramsIn(1)(answer.left) },
              ]}
            />
            <p className="text-small text-pine-soft">
              {by === "first"
                ? ""
                : answer.proven
                  ? "There is no better: that is proven. "
                  : "The best found in five seconds; a better one may exist. "}
              Weights are by this pot's density, air and all; {grams(judged.total - usable)} stays in pot and jug.
            </p>
            {answer.left > 0 && (
              <div className="flex flex-wrap gap-2">
                {answer.more && (
                  <Button
                    small
                    onClick={() => mending.press(scaled(answer.more!.factor, `Made ${sayShare(answer.more!.factor - 1)} more`))}
                  >
                    {`${sayShare(answer.more.factor - 1)} more fills ${answer.more.units
                      .map((n, i) => (n > 0 ? `${n} × ${sizes[i]!.label}` : ""))
                      .filter(Boolean)
                      .join(" and ")}, and leaves nothing`}
                  </Button>
                )}
                {answer.less > 0 && (
                  <Button small onClick={() => mending.press(scaled(answer.less, `Made ${sayShare(1 - answer.less)} less`))}>
                    {`${sayShare(1 - answer.less)} less fills the same, and leaves nothing`}
                  </Button>
                )}
              </div>
            )}
          </>
        )}
      </div>
    </div>
  );
}
