/** How it sets: the curve over warmth with its table, what would make it harder or softer, and how much wax each firmness takes. */
import { inParts, waxFor } from "#core/firmness/mend";
import { firmness, mixOf, SAID_AT } from "#core/firmness/model";
import { FEELS, feelMiddle, feelOf, PLACES, PLACE_IDS, type Feel } from "#core/firmness/words";
import { sayFit, wishOf, FIRMNESS_TARGETS } from "#core/recipe/firmnessTargets";
import { grams, sayShare } from "#core/measure/write";
import { type Judged, type JudgedLine } from "#core/recipe/judge/judgement";
import { mendingLine } from "#core/recipe/judge/setting";
import { RECIPE_TYPES } from "#core/recipe/types";
import { lazy, useMemo } from "react";
import { AsTable, Drawn } from "../../ui/figures/drawn.tsx";
import { Table } from "../../ui/lists/table.tsx";
import type { Fitted } from "#core/firmness/fit";
import { Felt, Learned, type FeltProps } from "../felt/felt.tsx";
import type { Costing } from "../costing.ts";
import { MendIt } from "./mendIt.tsx";
import type { AppliedFix } from "./suggestedFix.ts";

const FirmnessChart = lazy(() => import("./firmnessChart.tsx"));
const [FROM, TO] = [10, 50];

interface Props {
  judged: Judged;
  costing: Costing;
  mending: AppliedFix;
  learned: Fitted;
  felt: FeltProps | null;
}

export function Setting({ judged, costing, mending, learned, felt }: Props) {
  const { constants } = judged;
  const mix = useMemo(() => mixOf(judged.lines), [judged.lines]);
  const points = useMemo(
    () =>
      Array.from({ length: TO - FROM + 1 }, (_, i) => {
        const firm = firmness(mix, FROM + i, constants);
        return { celsius: FROM + i, firm, wax: firmness(mix, FROM + i, constants, "wax"), feel: FEELS[feelOf(firm)].say };
      }),
    [mix, constants],
  );
  const kitchen = firmness(mix, SAID_AT, constants);
  const { soft, hard } = FIRMNESS_TARGETS[judged.type];
  const product = RECIPE_TYPES[judged.type].label.toLowerCase();
  return (
    <div className="space-y-5">
      <div>
        <p className="mb-1">
          Likely <strong>{FEELS[feelOf(kitchen)].say}</strong> in the kitchen: {sayFit(mix, judged.type, constants)}. It sets like{" "}
          {sayShare(kitchen)} beeswax in plain oil.
        </p>
        <Drawn height={250}>
          <FirmnessChart points={points} soft={soft} hard={hard} />
        </Drawn>
        <p className="mt-1 text-small text-pine-soft">
          For a {product} the line has to pass above the lower mark, {sayShare(soft.bound)} at {soft.celsius} °C, else: {soft.say}.{" "}
          {hard.part === "wax"
            ? `The wax that is still solid, the broken line, has to pass below the upper mark, ${sayShare(hard.bound)} at ${hard.celsius} °C, as warm as skin: butter has melted there and can’t drag.`
            : `And below the upper one, ${sayShare(hard.bound)}, else: ${hard.say}.`}
        </p>
        <AsTable>
          <Table
            rows={PLACE_IDS}
            by={(p) => p}
            columns={[
              { head: "Where", cell: (p) => PLACES[p].in },
              { head: "Warm", as: "figure", cell: (p) => `${PLACES[p].celsius} °C` },
              { head: "Like beeswax in oil", as: "figure", cell: (p) => sayShare(firmness(mix, PLACES[p].celsius, constants)) },
              { head: "To the finger", cell: (p) => FEELS[feelOf(firmness(mix, PLACES[p].celsius, constants))].say },
            ]}
          />
        </AsTable>
        <p className="mt-1 text-fine text-pine-soft">
          An estimate from typical figures, from memory: try a drop on a cold spoon before you pour, and believe the spoon.
        </p>
        <Learned of={learned} />
      </div>
      <MendIt key={judged.type} judged={judged} costing={costing} mending={mending} />
      <WaxFor judged={judged} />
      {felt && <Felt judged={judged} {...felt} />}
    </div>
  );
}

const MIDDLE: readonly Feel[] = ["verySoft", "scoops", "firm", "twists"];

/** The other way round: for each firmness, how much wax a hundred grams of everything else take. */
function WaxFor({ judged }: { judged: Judged }) {
  const wax = mendingLine(judged, true);
  const rest: JudgedLine[] = judged.lines.filter((l) => l.sets.as !== "wax");
  if (!wax || rest.length === 0) return null;
  const rows = [
    {
      is: `right for a ${RECIPE_TYPES[judged.type].label.toLowerCase()}`,
      need: waxFor(rest, wax.sets, wishOf(judged.type, true), judged.constants),
    },
    ...MIDDLE.map((feel) => ({
      is: FEELS[feel].say,
      need: waxFor(rest, wax.sets, { firm: feelMiddle(feel), celsius: SAID_AT }, judged.constants),
    })),
  ];
  return (
    <div>
      <h3 className="mb-1 font-semibold">How much {wax.name} to 100 g of the rest</h3>
      <Table
        rows={rows}
        by={(r) => r.is}
        columns={[
          { head: "To be", cell: (r) => r.is },
          { head: wax.name, as: "weight", cell: (r) => (r.need === null ? "none: firm enough without" : grams(r.need)) },
          { head: "By parts", as: "figure", cell: (r) => r.need !== null && inParts(100_000 / r.need).join(" : ") },
          { head: "Of the whole", as: "figure", cell: (r) => r.need !== null && sayShare(r.need / (r.need + 100_000)) },
        ]}
      />
    </div>
  );
}
