/** How firm a recipe sets, as one figure of the Reckoner that says where it comes from. */
import { sayShare } from "#core/measure/write";
import { firmness, mixOf, SAID_AT } from "#core/firmness/model";
import { FEELS, feelOf, PLACES, PLACE_IDS } from "#core/firmness/words";
import { sayFit } from "#core/recipe/firmnessTargets";
import { type Judged } from "#core/recipe/judge/judgement";
import { Figure, HowLine } from "../../ui/figures/reckoner.tsx";

export function Sets({ of }: { of: Judged }) {
  const mix = mixOf(of.lines);
  const kitchen = firmness(mix, SAID_AT, of.constants);
  return (
    <Figure
      label="Likely firmness"
      value={FEELS[feelOf(kitchen)].say}
      how={() => (
        <>
          <p>
            An estimate: like {sayShare(kitchen)} beeswax in plain oil, {sayFit(mix, of.type, of.constants)}.
          </p>
          {PLACE_IDS.map((p) => {
            const firm = firmness(mix, PLACES[p].celsius, of.constants);
            return <HowLine key={p} label={`${PLACES[p].label}, ${PLACES[p].celsius} °C`} value={FEELS[feelOf(firm)].say} />;
          })}
        </>
      )}
    />
  );
}
