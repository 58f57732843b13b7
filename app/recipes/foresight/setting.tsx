/** How it sets: the curve over warmth with its table, what would make it harder or softer, and how much wax each firmness takes. */
import { inParts, waxFor } from "#core/firmness/mend";
import { firmness, mixOf, SAID_AT } from "#core/firmness/model";
import { FEELS, feelMiddle, feelOf, PLACES, PLACE_IDS, type Feel } from "#core/firmness/words";
import { fitOf, sayFit, WISHES } from "#core/recipe/wishes";
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
import type { Mending } from "./mending.ts";

const FirmnessChart = lazy(() => import("./firmnessChart.tsx"));
const [FROM, TO] = [15, 50];

interface Props {
  judged: Judged;
  costing: Costing;
  mending: Mending;
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
        return { celsius: FROM + i, firm, feel: FEELS[feelOf(firm)].say };
      }),
    [mix, constants],
  );
  const kitchen = firmness(mix, SAID_AT, constants);
  const { right } = WISHES[judged.type];
  const product = RECIPE_TYPES[judged.type].label.toLowerCase();
  return (
    <div className="space-y-5">
      <div>
        <p className="mb-1">
          Likely <strong>{FEELS[feelOf(kitchen)].say}</strong> in the kitchen:{" "}
          {fitOf(kitchen, judged.type) === "fit" ? "as a " + product + " should" : sayFit(kitchen, judged.type)}. It sets like{" "}
          {sayShare(kitchen)} beeswax in plain oil; the green band is right for a {product}.
        </p>
        <Drawn height={250}>
          <FirmnessChart points={points} right={right} />
        </Drawn>
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
        <p className="mt-1 text-[0.88rem] text-pine-soft">
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

const MIDDLE: readonly Feel[] = ["verySoft", "scoops", "firm", "twists", "bar"];

/** The other way round: for each firmness, how much wax a hundred grams of everything else take. */
function WaxFor({ judged }: { judged: Judged }) {
  const wax = mendingLine(judged, true);
  const rest: JudgedLine[] = judged.lines.filter((l) => l.sets.as !== "wax");
  if (!wax || rest.length === 0) return null;
  const rows = MIDDLE.map((feel) => ({
    feel,
    need: waxFor(rest, wax.sets, { firm: feelMiddle(feel), celsius: SAID_AT }, judged.constants),
  }));
  return (
    <div>
      <h3 className="mb-1 font-semibold">How much {wax.name} to 100 g of the rest</h3>
      <Table
        rows={rows}
        by={(r) => r.feel}
        columns={[
          { head: "In the kitchen", cell: (r) => FEELS[r.feel].say },
          { head: wax.name, as: "weight", cell: (r) => (r.need === null ? "none: firm enough without" : grams(r.need)) },
          { head: "By parts", as: "figure", cell: (r) => r.need !== null && inParts(100_000 / r.need).join(" : ") },
          { head: "Of the whole", as: "figure", cell: (r) => r.need !== null && sayShare(r.need / (r.need + 100_000)) },
        ]}
      />
    </div>
  );
}
