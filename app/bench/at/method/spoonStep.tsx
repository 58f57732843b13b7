/** A drop on a cold spoon: how it will set, and what puts it right while it is still liquid. */
import { SPOON, firmnessFix, type SpoonVerdict } from "#core/batch/finishing/spoon";
import { grams } from "#core/measure/write";
import { useState } from "react";
import { percent } from "../../../ui/figures/amounts.tsx";
import { KeepFile } from "../../../files/keepFile.tsx";
import { Button } from "../../../ui/fields/form.tsx";
import type { AtBenchLoaded } from "../loaded.ts";
import { potOf } from "../weighing/pot.ts";
import { Nose } from "./noseStep.tsx";
import { Answer, Verdicts } from "./verdicts.tsx";

export function SpoonStep({ page, next, done }: { page: AtBenchLoaded; next: () => void; done: boolean }) {
  const { batch, recipe, constants } = page;
  const [verdict, say] = useState<SpoonVerdict | null>(null);
  const pot = potOf(page);
  const fix = verdict && firmnessFix([...pot, ...page.couldMend], verdict, recipe.type, constants);
  // What is in it gets more of its line; what isn't gets a new line.
  const other = fix ? page.couldMend[fix.line - pot.length] : undefined;
  const by = fix && (other?.name ?? pot[fix.line]!.name);
  return (
    <>
      <h2 className="font-display text-display leading-tight">A drop on a cold spoon</h2>
      <p className="mt-1 text-pine-soft">Set and rubbed between two fingers, it is …</p>
      <Verdicts label="How it sets" words={SPOON} chosen={verdict} choose={say} />
      {verdict && (
        <div className="mt-5">
          {fix ? (
            <p className="text-large">
              <strong className="font-mono">{grams(fix.more, 1)}</strong> {other ? "" : "more "}
              {by} puts it right: {grams(fix.total)} in the pot
              {fix.scent[0] > 0 && `, scent ${percent(fix.scent[1], 2)} and not ${percent(fix.scent[0], 2)}`}.
            </p>
          ) : (
            verdict !== "right" && <p className="text-lead text-honey">Nothing that is in the pot puts that right by itself.</p>
          )}
          <Answer
            page={page}
            found={`Cold spoon: ${SPOON[verdict]}`}
            verdict={verdict}
            adds={fix ? [{ ...(other ? { materialId: other.materialId } : { line: fix.line }), more: fix.more }] : []}
            what={fix ? `${grams(fix.more, 1)} of ${by}` : ""}
            leave={["Leave it as it is", "Write it down"]}
            kept={next}
          />
        </div>
      )}
      {done && !verdict && (
        <Button main className="mt-5 text-large" onClick={next}>
          Done; go on
        </Button>
      )}
      <Nose page={page} />
      <p className="mt-5">
        <KeepFile to={`/bench/${batch.id}/photo`} accept="image/*" label="Add a photo of it" />
      </p>
    </>
  );
}
