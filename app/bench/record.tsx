/** The record of a poured batch, to read and to print. */
import type { PourResult } from "#core/batch/result";
import { grams, gramsIn } from "#core/measure/write";
import { money } from "#core/measure/money";
import { COST_PARTS, type CostPart } from "#core/recipe/cost";
import { Link } from "react-router";
import { LotTag, percent, When } from "../ui/amounts.tsx";
import { Tin } from "../ui/drawings.tsx";
import { Button } from "../ui/form.tsx";
import { Figure, Heading, HowLine, Part, Reckoner, Sheet, SideBySide } from "../ui/sheet.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { BatchSheet } from "./weighSheet.tsx";

export function BatchRecord({ sheet: { batch, recipe, fill, takes, lots, lot }, result }: { sheet: BatchSheet; result: PourResult }) {
  const { currency } = useWorkshop();
  const byId = new Map(lots.map((l) => [l.id, l]));
  const weighed = takes.reduce((a, t) => a + (t.weighed ?? 0), 0);
  return (
    <>
      <Heading
        title={recipe.name}
        about={
          <>
            Batch record. Poured <When day={batch.day} />.
          </>
        }
      >
        <Button onClick={() => window.print()}>Print</Button>
        <Link to={`/bench/set-out?recipe=${recipe.id}`} className="act">
          Make it again
        </Link>
      </Heading>
      <SideBySide
        reckoner={
          <Reckoner>
            <div className="flex items-center gap-4 py-2">
              <Tin share={result.yield} label={`Yield ${percent(result.yield)}`} />
              <p className="font-display text-[1.3rem]">
                {batch.units} × {grams(fill)}
              </p>
            </div>
            <Figure
              label="Yield"
              value={percent(result.yield)}
              how={
                <>
                  <HowLine label="Weighed in" value={grams(weighed)} />
                  <HowLine label="Left in the jug" value={grams(batch.leftover ?? 0)} />
                  <HowLine label="Lost in pot and jug" value={`${grams(result.lost)}, ${percent(result.lostShare)}`} />
                </>
              }
            />
            <Figure
              label="Cost of one unit"
              big
              value={money(result.perUnit.total, currency)}
              how={
                <p>
                  What its lots really cost, and {batch.minutes} minutes of work, over {batch.units} units.
                </p>
              }
            />
            {(Object.keys(COST_PARTS) as CostPart[]).map((p) => (
              <Figure key={p} label={COST_PARTS[p]} value={money(result.perUnit[p], currency)} />
            ))}
            <Figure label="Planned" value={`${batch.plannedUnits} units`} />
          </Reckoner>
        }
      >
        <Sheet>
          {lot && (
            <div className="mb-5 flex flex-wrap items-center gap-x-6 gap-y-2 text-[1.15rem]">
              <LotTag lot={{ ...lot, hold: lot.holdReason !== null }} />
              <span>
                Best before{" "}
                <strong>
                  <When day={lot.bestBefore} />
                </strong>
              </span>
              <span>
                {lot.onHand} of {batch.units} still here
              </span>
              <Link to={`/lots/${encodeURIComponent(lot.number)}`} className="no-print text-amber underline underline-offset-4">
                Where it came from and went
              </Link>
            </div>
          )}
          <Part title="Weighed">
            <table className="ruled stack">
              <thead>
                <tr>
                  <th scope="col">Material</th>
                  <th scope="col">Lot</th>
                  <th scope="col" className="text-right!">
                    Planned
                  </th>
                  <th scope="col" className="text-right!">
                    Weighed
                  </th>
                  <th scope="col" className="text-right!">
                    Off by
                  </th>
                </tr>
              </thead>
              <tbody>
                {takes.map((t, i) => {
                  const off = (t.weighed ?? 0) - t.planned;
                  return (
                    <tr key={i}>
                      <td>{t.material}</td>
                      <td>{byId.get(t.lotId) && <LotTag lot={byId.get(t.lotId)!} />}</td>
                      <td data-label="Planned" className="num weight">
                        {gramsIn(1)(t.planned)}
                      </td>
                      <td data-label="Weighed" className="num weight font-semibold">
                        {gramsIn(1)(t.weighed ?? 0)}
                      </td>
                      <td data-label="Off by" className="num weight text-pine-soft">
                        {Math.abs(off) < 50 ? "" : `${off > 0 ? "+" : "−"}${gramsIn(1)(Math.abs(off))}`}
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </Part>
          {batch.note && (
            <Part title="What happened">
              <p className="max-w-prose whitespace-pre-line">{batch.note}</p>
            </Part>
          )}
          {recipe.method && (
            <Part title="Method">
              <p className="max-w-prose whitespace-pre-line">{recipe.method}</p>
            </Part>
          )}
        </Sheet>
      </SideBySide>
    </>
  );
}
