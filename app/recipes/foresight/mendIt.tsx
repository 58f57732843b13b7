/** Too soft or too hard: what to put into the pot, melted again, to have it as it is wished, and what that does to the rest. */
import { mendWith } from "#core/firmness/mend";
import { firmness, mixOf } from "#core/firmness/model";
import { FEEL_IDS, FEELS, feelMiddle, feelOf, WARMTHS, WARMTH_IDS, type Feel, type Warmth } from "#core/firmness/words";
import { fitOf, measured, wishOf } from "#core/recipe/firmnessTargets";
import { mg, mulDiv, type Mg } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { done, orElse, refuse, type Outcome } from "#core/outcome";
import { readPlain, readWeight } from "#core/measure/read";
import { grams, sayShare } from "#core/measure/write";
import { forScale, inGrams, type Judged, type JudgedLine } from "#core/recipe/judge/judgement";
import { mendingLine } from "#core/recipe/judge/setting";
import { RECIPE_TYPES } from "#core/recipe/types";
import type { CostingMethod } from "#core/stock/costingMethods";
import { waxShare } from "#core/material/makeup";
import { carries } from "#core/material/kinds";
import { scentShare } from "#core/scent/dilution";
import { useState } from "react";
import { Button, Choice, Text } from "../../ui/fields/form.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import type { Costing } from "../costing.ts";
import type { AppliedFix } from "./suggestedFix.ts";

const WISHED = FEEL_IDS.filter((f) => f !== "pours");

export function MendIt({ judged, costing, mending }: { judged: Judged; costing: Costing; mending: AppliedFix }) {
  const { currency, school } = useWorkshop();
  const product = RECIPE_TYPES[judged.type].label.toLowerCase();
  const [wish, setWish] = useState<Feel | "right">("right");
  const [place, setPlace] = useState<Warmth | "own">("kitchen");
  const [warmText, setWarm] = useState("");
  const [chosen, choose] = useState<number | null>(null);
  const [potText, setPot] = useState("");
  const warm = place === "own" ? readWarmth(warmText) : done(WARMTHS[place].celsius);
  const celsius = warm.ok ? warm.value : WARMTHS.kitchen.celsius;
  const mix = mixOf(judged.lines);
  const fit = fitOf(mix, judged.type, judged.constants, celsius);
  const wished =
    wish === "right" ? wishOf(judged.type, fit !== "hard", celsius) : { part: "all" as const, celsius, firm: feelMiddle(wish) };
  const now = measured(mix, wished, judged.constants);
  const can = judged.lines.filter((l) => carries(l));
  const by = can.find((l) => l.row === chosen) ?? mendingLine(judged, now < wished.firm) ?? can[0];
  const pot = potText.trim() === "" ? judged.total : orElse(readWeight(potText), null);
  if (!by) return null;
  const inPot = pot === null ? null : inPotOf(judged, pot);
  const there = wish === "right" ? fit === "fit" : feelOf(now) === wish;
  const more = there || !inPot || !warm.ok ? null : mendWith(inPot, by.sets, wished, judged.constants);
  return (
    <div>
      <h3 className="mb-1 font-semibold">Harder or softer</h3>
      <div className="grid gap-3 sm:grid-cols-[1.2fr_1fr_1.4fr_0.9fr]">
        <Choice
          label="Make it"
          options={[["right", `right for a ${product}`], ...WISHED.map((f) => [f, FEELS[f].say] as const)]}
          value={wish}
          onChange={(e) => setWish(e.target.value as Feel | "right")}
        />
        <Choice
          label="Where it is used"
          options={[
            ...WARMTH_IDS.map((p) => [p, `${WARMTHS[p].label}, ${WARMTHS[p].celsius} °C`] as const),
            ["own", "at a warmth of my own"] as const,
          ]}
          value={place}
          onChange={(e) => setPlace(e.target.value as Warmth | "own")}
        />
        <Choice
          label="By adding"
          options={can.map((l) => [String(l.row), l.name] as const)}
          value={String(by.row)}
          onChange={(e) => choose(Number(e.target.value))}
        />
        <Text
          data-amount
          label="In the pot"
          placeholder={`now ${grams(judged.total)}`}
          value={potText}
          onChange={(e) => setPot(e.target.value)}
          unread={pot === null ? "Enter a weight, such as 400 g." : undefined}
        />
      </div>
      {place === "own" && (
        <Text
          data-amount="decimal"
          className="mt-3 w-44"
          label="Warmth, °C"
          placeholder="such as 29"
          value={warmText}
          onChange={(e) => setWarm(e.target.value)}
          unread={warm.ok || warmText.trim() === "" ? undefined : warm.problem.say}
        />
      )}
      <div className="mt-2" aria-live="polite">
        {warm.ok && there && (
          <p className="text-sage">It is that already: like {sayShare(firmness(mix, celsius, judged.constants))} beeswax.</p>
        )}
        {warm.ok && !there && inPot && more === null && (
          <p className="text-honey">
            No amount of {by.name} makes it so. Add something {now < wished.firm ? "harder" : "softer"}.
          </p>
        )}
        {inPot && more !== null && (
          <After {...{ judged, costing, by, more, pot: pot!, currency }} celsius={wished.celsius} inPot={inPot} school={school} />
        )}
        {inPot && more !== null && pot === judged.total && inGrams(judged) && (
          <Button
            small
            className="mt-2"
            onClick={() => {
              const entered = forScale(mg(by.weight + more), judged.scale, "up");
              mending.press({ say: `Made it ${entered} of ${by.name}`, rows: [{ row: by.row, entered }] });
            }}
          >
            Put it in the recipe
          </Button>
        )}
      </div>
    </div>
  );
}

/** The model holds from a cold room to a hot car. */
function readWarmth(text: string): Outcome<number> {
  const n = readPlain(text.replace(/°?\s*C\s*$/i, ""));
  return n.ok && n.value >= 5 && n.value <= 50 ? n : refuse("warmth", "Enter 5 to 50 °C.");
}

/** What is in the pot of each line. */
const inPotOf = (judged: Judged, pot: Mg): JudgedLine[] =>
  judged.lines.map((l) => ({ ...l, weight: mg(mulDiv(l.weight, pot, judged.total)) }));

interface AfterProps {
  judged: Judged;
  costing: Costing;
  by: JudgedLine;
  more: Mg;
  pot: Mg;
  inPot: readonly JudgedLine[];
  /** Where it is compared. */
  celsius: number;
  currency: string;
  school: CostingMethod;
}

/** Before and after, figure by figure. */
function After({ judged, costing, by, more, pot, inPot, celsius, currency, school }: AfterProps) {
  const added = [...inPot, { ...by, weight: more }];
  const total = pot + more;
  const of = (lines: readonly JudgedLine[], part: (l: JudgedLine) => number): number => lines.reduce((a, l) => a + l.weight * part(l), 0);
  const [size] = costing.sizes;
  const costed = (lines: readonly JudgedLine[]) => lines.map((l) => ({ of: l.of, weight: l.weight }));
  const firm = (lines: readonly JudgedLine[]): string => sayShare(firmness(mixOf(lines), celsius, judged.constants));
  const rows: [what: string, was: string, is: string][] = [
    ["In the pot", grams(pot), grams(total)],
    [`Like beeswax in oil, ${celsius} °C`, firm(inPot), firm(added)],
    ["Wax share", sayShare(of(inPot, waxShare) / pot), sayShare(of(added, waxShare) / total)],
  ];
  if (of(inPot, scentShare) > 0) rows.push(["Scent", sayShare(of(inPot, scentShare) / pot), sayShare(of(added, scentShare) / total)]);
  if (size) {
    const [before, after] = [costing.cost(size, costed(inPot)), costing.cost(size, costed(added))];
    rows.push([`Fills, ${size.label}`, `${before.fill.units}`, `${after.fill.units}`]);
    const [a, b] = [before.perUnit[school], after.perUnit[school]];
    if (a && b) rows.push(["Cost of one", money(a.total, currency), money(b.total, currency)]);
  }
  return (
    <>
      <p>
        Melt it again with <strong>{grams(more)}</strong> more {by.name}.
      </p>
      <Table
        rows={rows}
        by={([what]) => what}
        columns={[
          { head: "It changes", cell: ([what]) => what },
          { head: "Now", as: "figure", cell: ([, was]) => was },
          { head: "Then", as: "figure", cell: ([, , is]) => <strong>{is}</strong> },
        ]}
      />
    </>
  );
}
