/** A drop on a cold spoon: how it will set, and what puts it right while it is still liquid. */
import { SPOON, spoonFix, type SpoonVerdict } from "#core/batch/spoon";
import { exactWeightText } from "#core/measure/read";
import { grams } from "#core/measure/write";
import { useState } from "react";
import { percent } from "../../../ui/figures/amounts.tsx";
import { KeepFile } from "../../../files/keepFile.tsx";
import { Button, Problem } from "../../../ui/fields/form.tsx";
import type { AtBenchLoaded } from "../loaded.ts";
import { lineOf, potOf } from "../weighing/pot.ts";
import { useDid } from "../useDid.ts";
import { Nose } from "./noseStep.tsx";
import { Verdicts } from "./verdicts.tsx";

export function SpoonStep({ page, next, done }: { page: AtBenchLoaded; next: () => void; done: boolean }) {
  const { batch, recipe, takes, constants } = page;
  const did = useDid(batch.id);
  const [verdict, say] = useState<SpoonVerdict | null>(null);
  const pot = potOf(page);
  const fix = verdict && spoonFix([...pot, ...page.couldMend], verdict, recipe.type, constants);
  // What is in it gets more of its line; what isn't gets a line of its own.
  const other = fix ? page.couldMend[fix.line - pot.length] : undefined;
  const by = fix && (other?.name ?? pot[fix.line]!.name);
  return (
    <>
      <h2 className="font-display text-[2.2rem] leading-tight">A drop on a cold spoon</h2>
      <p className="mt-1 text-pine-soft">Set and rubbed between two fingers, it is …</p>
      <Verdicts label="How it sets" words={SPOON} chosen={verdict} choose={say} />
      {verdict && (
        <div className="mt-5">
          {fix ? (
            <p className="text-[1.25rem]">
              <strong className="font-mono">{grams(fix.more, 1)}</strong> {other ? "" : "more "}
              {by} puts it right: {grams(fix.total)} in the pot
              {fix.scent[0] > 0 && `, scent ${percent(fix.scent[1], 2)} and not ${percent(fix.scent[0], 2)}`}.
            </p>
          ) : (
            verdict !== "right" && <p className="text-[1.15rem] text-honey">Nothing that is in the pot puts that right by itself.</p>
          )}
          <div className="mt-3 flex flex-wrap gap-2">
            {fix && (
              <Button
                main
                className="text-[1.2rem]"
                disabled={did.busy}
                onClick={() =>
                  did.keep(
                    {
                      intent: "mend",
                      had: takes.length,
                      ...(other
                        ? { others: [{ materialId: other.materialId, amount: exactWeightText(fix.more) }] }
                        : { lines: [{ ...lineOf(takes, fix.line), amount: exactWeightText(fix.more) }] }),
                      verdict,
                      said: `Cold spoon: ${SPOON[verdict]}; ${grams(fix.more, 1)} of ${by} to be added`,
                    },
                    next,
                  )
                }
              >
                Add it
              </Button>
            )}
            <Button
              main={!fix}
              className="text-[1.2rem]"
              disabled={did.busy}
              onClick={() => did.keep({ intent: "event", kind: "test", verdict, note: `Cold spoon: ${SPOON[verdict]}` }, next)}
            >
              {fix ? "Leave it as it is" : "Write it down"}
            </Button>
          </div>
        </div>
      )}
      {done && !verdict && (
        <Button main className="mt-5 text-[1.2rem]" onClick={next}>
          Done; go on
        </Button>
      )}
      <Problem say={did.problem?.say} />
      <Nose page={page} />
      <p className="mt-5">
        <KeepFile to={`/bench/${batch.id}/photo`} accept="image/*" label="Keep a photo of it" />
      </p>
    </>
  );
}
