/** How the pot smells, and what puts it right while it is still liquid. */
import { NOSE, scentFix, type NoseVerdict } from "#core/batch/finishing/nose";
import { grams, sayShare } from "#core/measure/write";
import { wordList } from "#core/words";
import { useState } from "react";
import { percent } from "../../../ui/figures/amounts.tsx";
import type { AtBenchLoaded } from "../loaded.ts";
import { potOf } from "../weighing/pot.ts";
import { Answer, Verdicts } from "./verdicts.tsx";

/** Nothing where no scent is in the pot yet. */
export function Nose({ page }: { page: AtBenchLoaded }) {
  const { mostScent } = page;
  const [verdict, say] = useState<NoseVerdict | null>(null);
  const pot = potOf(page);
  if (!pot.some((l) => l.weighed && l.scent > 0)) return null;
  const fix = verdict && scentFix(pot, verdict, mostScent);
  const adds = fix?.adds ?? [];
  const said = wordList(adds.map((a) => `${grams(a.more, 2)} ${pot[a.line]!.name}`));
  return (
    <section className="mt-7 border-t border-rule pt-4" aria-label="How it smells">
      <h3 className="font-display text-large">And to the nose it is …</h3>
      <Verdicts label="How it smells" words={NOSE} chosen={verdict} choose={say} />
      {verdict && (
        <div className="mt-4">
          {fix && adds.length > 0 && (
            <p className="text-lead">
              <strong>{said}</strong> {adds.length > 1 ? "put" : "puts"} it right: scent {percent(fix.scent[1], 2)} and not{" "}
              {percent(fix.scent[0], 2)}, {grams(fix.total)} in the pot.
            </p>
          )}
          {fix?.capped && (
            <p className="text-lead text-honey">
              No more than {sayShare(mostScent ?? 0)} of the pot: that is its ceiling here. Supplier’s papers and local rules come first.
            </p>
          )}
          <Answer
            page={page}
            found={`By the nose ${NOSE[verdict]}`}
            adds={adds}
            what={said}
            leave={["Leave it as it smells", "Write down how it smells"]}
            kept={() => say(null)}
          />
        </div>
      )}
    </section>
  );
}
