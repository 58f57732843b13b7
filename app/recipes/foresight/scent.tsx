/** Scent: who it is for and where, each oil's part and ceiling, and the most the blend may be and why. */
import { USUAL_DROPS_PER_ML } from "#core/measure/mass";
import { gramsIn, sayShare } from "#core/measure/write";
import { inGrams, type Judged } from "#core/recipe/judge/judgement";
import { COUNTABLE_DROPS } from "#core/recipe/judge/scent";
import { RECIPE_TYPES } from "#core/recipe/types";
import { isScent, scentOf, type Most, type ScentFacts } from "#core/scent/dilution";
import { FOR_WHOM, FOR_WHOM_IDS, USED_ON, USED_ON_IDS } from "#core/scent/limits";
import { counted } from "#core/words";
import type { MaterialChoice } from "#core/recipe/written";
import type { UseFormReturn } from "react-hook-form";
import { Choice } from "../../ui/fields/form.tsx";
import { Caution } from "../../ui/sheet/sheet.tsx";
import { Table } from "../../ui/lists/table.tsx";
import type { RecipeTexts } from "../recipeTexts.ts";
import { Blend } from "./blend.tsx";
import type { AppliedFix } from "./suggestedFix.ts";
import { Spill } from "./spill.tsx";

interface Props {
  judged: Judged;
  materials: readonly MaterialChoice[];
  form: UseFormReturn<RecipeTexts>;
  mending: AppliedFix;
}

const sayMost = ({ by }: Most, judged: Judged): string =>
  by.kind === "use"
    ? `as much as ${USED_ON[judged.usedOn].label.toLowerCase()} take, ${sayShare(USED_ON[judged.usedOn].usual)} is usual${judged.forWhom === "anyone" ? "" : `, ${FOR_WHOM[judged.forWhom].say}`}`
    : by.kind === "sun"
      ? "as much as skin in the sun takes of these citrus oils"
      : `${by.name} may be ${sayShare(by.ceiling.share)} of the whole${by.ceiling.lot === null ? "" : `, says the paper of lot ${by.ceiling.lot}`}`;

const mostOf = (o: ScentFacts["oils"][number]): number => Math.min(o.ceiling?.share ?? 1, o.sun ?? 1);

export function Scent({ judged, materials, form, mending }: Props) {
  const lines = judged.lines.filter(isScent);
  const scent = scentOf(lines, judged.total, judged.usedOn, judged.forWhom);
  const product = RECIPE_TYPES[judged.type].label.toLowerCase();
  const facts = new Map(materials.map((m) => [m.name, m]));
  /** As many drops as can be counted, or millilitres. */
  const measured = (name: string, weight: number): string => {
    const m = facts.get(name);
    const density = m?.densities.liquid;
    if (!density) return "—";
    const drops = Math.round((weight / density) * (m.dropsPerMl ?? USUAL_DROPS_PER_ML));
    return drops <= COUNTABLE_DROPS ? counted(drops, "drop") : `${(weight / density).toFixed(1)}\u00a0mL`;
  };
  return (
    <div className="space-y-5">
      <div className="grid gap-4 sm:grid-cols-2">
        <Choice
          label="Where it goes"
          options={[
            ["", `As a ${product} does: ${USED_ON[RECIPE_TYPES[judged.type].usedOn].label.toLowerCase()}`] as const,
            ...USED_ON_IDS.map((u) => [u, USED_ON[u].label] as const),
          ]}
          {...form.register("usedOn")}
        />
        <Choice label="Who uses it" options={FOR_WHOM_IDS.map((w) => [w, FOR_WHOM[w].label] as const)} {...form.register("forWhom")} />
      </div>
      {!scent ? (
        <p className="text-pine-soft">No essential oil or fragrance in it. Add one as an ingredient: by drops, mL, grams or per cent.</p>
      ) : (
        <>
          <p>
            <strong>{sayShare(scent.share)}</strong> scent. In these proportions it may be{" "}
            <strong className={scent.share > scent.most.share ? "text-berry" : "text-sage"}>{sayShare(scent.most.share)}</strong> at most:{" "}
            {sayMost(scent.most, judged)}.
            {scent.sun > 0 && ` On skin in the sun it is ${sayShare(scent.sun)} of what these citrus oils allow together.`}
          </p>
          <Table
            rows={scent.oils}
            by={(o) => o.name}
            columns={[
              {
                head: "Oil",
                cell: (o) => (
                  <>
                    {o.name} <span className="text-fine text-pine-soft">{facts.get(o.name)?.scentNote}</span>
                  </>
                ),
              },
              { head: "Weighs", as: "weight", cell: (o) => gramsIn(2)(o.share * judged.total) },
              {
                head: "Drops or mL",
                as: "figure",
                cell: (o) => measured(o.name, o.share * judged.total),
              },
              { head: "Of the blend", as: "figure", cell: (o) => sayShare(o.part) },
              { head: "Of the whole", as: "figure", cell: (o) => sayShare(o.share) },
              {
                head: "At most",
                as: "figure",
                cell: (o) => (
                  <>
                    {(o.ceiling ?? o.sun) === null ? "—" : sayShare(mostOf(o))}
                    {o.ceiling?.lot && <span className="block text-fine text-pine-soft">lot {o.ceiling.lot}</span>}
                  </>
                ),
                className: (o) => (o.share > mostOf(o) ? "text-berry font-semibold" : ""),
              },
            ]}
          />
          {inGrams(judged) && <Blend {...{ judged, lines, facts, measured, mending }} most={scent.most.share} />}
          <Spill {...{ judged, lines, mending, facts }} />
        </>
      )}
      <Caution>
        Ceilings here are from memory: the certificate that came with the lot, and the rules where you sell, come first. Write the
        certificate’s figure down on the lot’s page, and it is what counts here. Keep essential oils from children and pets; in pregnancy
        ask a midwife or doctor; patch-test.
      </Caution>
    </div>
  );
}
