/** How the pot smells, and what puts it right while it is still liquid. */
import { NOSE, noseFix, type NoseVerdict } from "#core/batch/nose";
import { exactWeightText } from "#core/measure/read";
import { grams, sayShare } from "#core/measure/write";
import { wordList } from "#core/words";
import { useState } from "react";
import { percent } from "../../../ui/figures/amounts.tsx";
import { Button, Problem } from "../../../ui/fields/form.tsx";
import type { AtBenchLoaded } from "../loaded.ts";
import { lineOf, potOf } from "../weighing/pot.ts";
import { useDid } from "../useDid.ts";
import { Verdicts } from "./verdicts.tsx";

/** Nothing where no scent is in the pot yet. */
export function Nose({ page }: { page: AtBenchLoaded }) {
  const { batch, takes, mostScent } = page;
  const did = useDid(batch.id);
  const [verdict, say] = useState<NoseVerdict | null>(null);
  const pot = potOf(page);
  if (!pot.some((l) => l.weighed && l.scent > 0)) return null;
  const fix = verdict && noseFix(pot, verdict, mostScent);
  const adds = fix?.adds ?? [];
  const said = wordList(adds.map((a) => `${grams(a.more, 2)} ${pot[a.line]!.name}`));
  const kept = (): void => say(null);
  return (
    <section className="mt-7 border-t border-rule pt-4" aria-label="How it smells">
      <h3 className="font-display text-[1.3rem]">And to the nose it is …</h3>
      <Verdicts label="How it smells" words={NOSE} chosen={verdict} choose={say} />
      {verdict && (
        <div className="mt-4">
          {fix && adds.length > 0 && (
            <p className="text-[1.15rem]">
              <strong>{said}</strong> {adds.length > 1 ? "put" : "puts"} it right: scent {percent(fix.scent[1], 2)} and not{" "}
              {percent(fix.scent[0], 2)}, {grams(fix.total)} in the pot.
            </p>
          )}
          {fix?.capped && (
            <p className="text-[1.05rem] text-honey">
              No more than {sayShare(mostScent ?? 0)} of the pot: that is its ceiling here. Supplier’s papers and local rules stand above
              it.
            </p>
          )}
          <div className="mt-3 flex flex-wrap gap-2">
            {adds.length > 0 && (
              <Button
                main
                className="text-[1.2rem]"
                disabled={did.busy}
                onClick={() =>
                  did.keep(
                    {
                      intent: "mend",
                      had: takes.length,
                      lines: adds.map((a) => ({ ...lineOf(takes, a.line), amount: exactWeightText(a.more) })),
                      said: `By the nose ${NOSE[verdict]}; ${said} to be added`,
                    },
                    kept,
                  )
                }
              >
                Add {adds.length > 1 ? "them" : "it"}
              </Button>
            )}
            <Button
              main={adds.length === 0}
              className="text-[1.2rem]"
              disabled={did.busy}
              onClick={() => did.keep({ intent: "event", kind: "test", note: `By the nose ${NOSE[verdict]}` }, kept)}
            >
              {adds.length > 0 ? "Leave it as it smells" : "Write down how it smells"}
            </Button>
          </div>
        </div>
      )}
      <Problem say={did.problem?.say} />
    </section>
  );
}
