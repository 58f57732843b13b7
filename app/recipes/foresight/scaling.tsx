/** More or less of it: by weight, times, units or all of one lot, as the scale can weigh it, and what rounding does to the shares. */
import { firstThenNext, packagingOnHand } from "#core/fill/fill";
import { mg, type Mg } from "#core/measure/exact";
import { ABSURD_MG } from "#core/measure/mass";
import { parseNumber } from "#core/measure/parse";
import { readCount, readWeight } from "#core/measure/read";
import { grams, gramsIn } from "#core/measure/write";
import { done, refuse, type Outcome } from "#core/outcome";
import { rescale } from "#core/recipe/rescale";
import { forScale, type Judged, type SuggestedFix } from "#core/recipe/judge/judgement";
import { batchFor, fillMix, showScale, showSteps, totalForLine } from "#core/recipe/scale";
import { isUsable, type Lot } from "#core/stock/lots";
import type { Shelf } from "#core/stock/shelf";
import { useState } from "react";
import { Button, Choice, OnceLeft, Text } from "../../ui/fields/form.tsx";
import { percent } from "../../ui/figures/amounts.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import type { Costing } from "../costing.ts";
import type { AppliedFix } from "./suggestedFix.ts";

const BY = {
  units: "To fill so many",
  times: "So many times",
  weight: "To a batch of",
  lot: "To use up a lot",
  hand: "To fill all that is on hand",
} as const;
type By = keyof typeof BY;

interface Props {
  judged: Judged;
  costing: Costing;
  lots: ReadonlyMap<number, Lot>;
  shelf: Shelf;
  mending: AppliedFix;
}

export function Scaling({ judged, costing, lots, shelf, mending }: Props) {
  const { today } = useWorkshop();
  const [by, setBy] = useState<By>("units");
  const [texts, setTexts] = useState<Record<number, string>>({});
  const [times, setTimes] = useState("");
  const [weight, setWeight] = useState("");
  const [lotId, setLot] = useState(0);
  const { lines, total, scale, lossBp } = judged;
  const { sizes } = costing;
  const usable = lines.flatMap((l) =>
    [...lots.values()].filter((lot) => lot.of === l.of && isUsable(lot, today)).map((lot) => ({ lot, name: l.name })),
  );
  const whole = (): Outcome<Mg> => {
    if (by === "times") {
      const n = parseNumber(times || "1");
      if (!n.ok) return n;
      return n.value.compare(0) > 0 && n.value.compare(1000) <= 0
        ? done(mg(Math.round(total * n.value.valueOf())))
        : refuse("range", "Enter more than 0, and 1000 at most.");
    }
    if (by === "weight") return weight.trim() === "" ? done(total) : readWeight(weight);
    if (by === "lot") {
      const lot = usable.find((u) => u.lot.id === lotId)?.lot ?? usable[0]?.lot;
      const line = lot ? lines.filter((l) => l.of === lot.of).reduce((a, l) => a + l.weight, 0) : 0;
      return lot && line > 0 ? done(totalForLine(total, mg(line), mg(lot.onHand))) : refuse("lot", "Nothing of it is on the shelf.");
    }
    if (by === "hand") {
      // What is filled into nothing that is counted has no end.
      const counted = sizes.filter((s) => s.packaging.length > 0).map((s) => ({ ...s, wished: null }));
      const all = firstThenNext({ usable: ABSURD_MG, sizes: counted, onHand: packagingOnHand(counted, shelf) });
      const units = counted.map(({ fill }, i) => ({ fill, units: all?.units[i] ?? 0 }));
      return units.some((u) => u.units > 0) ? done(batchFor(units, lossBp)) : refuse("none", "No container or its lid is on hand.");
    }
    const wanted: { units: number; fill: Mg }[] = [];
    for (const [i, s] of sizes.entries()) {
      const text = texts[i]?.trim() ?? "";
      if (text === "") continue;
      const n = readCount(text);
      if (!n.ok) return n;
      wanted.push({ units: n.value, fill: s.fill });
    }
    return wanted.some((w) => w.units > 0) ? done(batchFor(wanted, lossBp)) : done(total);
  };
  const to = whole();
  return (
    <div className="space-y-4">
      <div className="grid gap-3 sm:grid-cols-[1fr_2fr]">
        <Choice
          label="Make it"
          options={(Object.keys(BY) as By[]).map((b) => [b, BY[b]] as const)}
          value={by}
          onChange={(e) => setBy(e.target.value as By)}
        />
        <div className="flex flex-wrap gap-3">
          {by === "units" &&
            sizes.map((s, i) => (
              <Text
                key={i}
                data-amount
                className="w-28"
                label={s.label}
                placeholder="such as 12"
                value={texts[i] ?? ""}
                onChange={(e) => setTexts({ ...texts, [i]: e.target.value })}
              />
            ))}
          {by === "times" && (
            <Text
              data-amount="decimal"
              className="w-28"
              label="Times"
              placeholder="such as 1 1/2"
              value={times}
              onChange={(e) => setTimes(e.target.value)}
            />
          )}
          {by === "weight" && (
            <Text
              data-amount
              className="w-36"
              label="Batch"
              placeholder={`now ${grams(total)}`}
              value={weight}
              onChange={(e) => setWeight(e.target.value)}
            />
          )}
          {by === "lot" && (
            <Choice
              label="Lot"
              options={usable.map(({ lot, name }) => [String(lot.id), `${name} · ${lot.number}, ${grams(lot.onHand)}`] as const)}
              value={String(lotId || (usable[0]?.lot.id ?? ""))}
              onChange={(e) => setLot(Number(e.target.value))}
            />
          )}
        </div>
      </div>
      {!to.ok ? (
        <OnceLeft say={to.problem.say} className="font-semibold text-berry" />
      ) : (
        <Then {...{ judged, costing, mending }} to={to.value} scaleSaid={showScale(scale)} />
      )}
    </div>
  );
}

function Then({
  judged,
  costing,
  mending,
  to,
  scaleSaid,
}: {
  judged: Judged;
  costing: Costing;
  mending: AppliedFix;
  to: Mg;
  scaleSaid: string;
}) {
  const { lines, total, scale, lossBp } = judged;
  if (to <= 0) return null;
  const then = rescale(
    lines.map((l) => l.weight),
    to,
    scale,
  );
  const rows = lines.map((line, i) => ({ line, ...then.lines[i]! }));
  const units = fillMix(
    then.total,
    lossBp,
    costing.sizes.map((s) => ({ fill: s.fill, units: null })),
  ).units;
  const mend = (): SuggestedFix => ({
    say: `Made it ${grams(then.total)}, in grams`,
    rows: rows.map((r) => ({ row: r.line.row, entered: forScale(r.weight, scale) })),
    makes: "",
  });
  return (
    <>
      <p>
        Times <strong>{(to / total).toFixed(3)}</strong>: a batch of <strong>{grams(to)}</strong>
        {costing.sizes.length > 0 && (
          <>
            {" "}
            that fills{" "}
            {costing.sizes
              .map((s, i) => (units[i]! > 0 || i === 0 ? `${units[i]} × ${s.label}` : null))
              .filter(Boolean)
              .join(" and ")}
          </>
        )}
        , weighed to {scaleSaid}.
      </p>
      {then.least !== null && (
        <p className="font-semibold text-honey">
          Marked lines are too little for the scale: rounding changes them by more than a tenth. The smallest batch it weighs well is{" "}
          {grams(then.least)}.
        </p>
      )}
      <Table
        rows={rows}
        by={(r) => r.line.row}
        columns={[
          { head: "Ingredient", cell: (r) => r.line.name, foot: "In all" },
          { head: "Now", as: "weight", cell: (r) => gramsIn(2)(r.line.weight), foot: gramsIn(2)(total) },
          {
            head: "Then, on the scale",
            as: "weight",
            cell: (r) => (r.reading.outOfReach ? `under ${scaleSaid}` : showSteps(r.reading.steps, scale)),
            className: (r) => (r.unsure ? "text-honey font-semibold" : ""),
            foot: gramsIn(2)(then.total),
          },
          { head: "Share", as: "figure", cell: (r) => percent(r.share) },
          {
            head: "Share then",
            as: "figure",
            cell: (r) => percent(r.shareThen),
            className: (r) => (r.unsure ? "text-honey font-semibold" : ""),
          },
        ]}
      />
      <Button small onClick={() => mending.press(mend())}>
        {to === total ? "Write it in grams" : "Put it in the recipe, in grams"}
      </Button>
    </>
  );
}
