/** The record of a poured batch, to read and to print. */
import { Link } from "react-router";
import type { ComponentProps } from "react";
import type { PourResult } from "#core/batch/finishing/result";
import type { Minded } from "#core/material/minded";
import { grams, gramsIn } from "#core/measure/write";
import { money } from "#core/measure/money";
import { COST_PART_IDS, COST_PARTS } from "#core/recipe/cost";
import type { Restatements as Correction } from "#db/acts/book";
import { ActsOf, Restatements, type ActLine } from "../../book/actsOf.tsx";
import { LotTag, percent, When } from "../../ui/figures/amounts.tsx";
import { Tin } from "../../ui/figures/drawings.tsx";
import { Figure, HowLine, Reckoner } from "../../ui/figures/reckoner.tsx";
import { Mind } from "../../ui/sheet/mind.tsx";
import { Part, Sheet, SideBySide } from "../../ui/sheet/sheet.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { WEIGHED_BY } from "#core/batch/weighing/events";
import type { Check } from "#db/bench/finishing/check";
import type { Plan } from "#db/bench/planning/plan";
import type { BatchSheet } from "#db/bench/read";
import type { Opened } from "../../forms/useSheet.ts";
import { TimeOfDay } from "../../ui/figures/timeOfDay.tsx";
import { AgainstPlan } from "./againstPlan.tsx";
import { Checked } from "./checked.tsx";
import { onItsDay } from "./onItsDay.ts";
import { NextTime } from "./nextTime.tsx";
import { RecordHeading } from "./recordHeading.tsx";
import { Made, type HowMade } from "./recordMade.tsx";

interface Props {
  sheet: BatchSheet;
  result: PourResult;
  book: { acts: ActLine[]; more: string };
  righted: Correction[];
  made: HowMade;
  plan: Plan | null;
  taught: ComponentProps<typeof NextTime>["taught"];
  opened: Opened;
  checks: readonly Check[];
  minded: Minded;
}

export function BatchRecord({ sheet, result, book, righted, made, plan, taught, opened, checks, minded }: Props) {
  const { batch, recipe, current, sizes: all, takes, lots } = sheet;
  const { currency } = useWorkshop();
  const sizes = all.filter((s) => s.units);
  const many = sizes.length > 1;
  const byId = new Map(lots.map((l) => [l.id, l]));
  const weighed = takes.reduce((a, t) => a + (t.weighed ?? 0), 0);
  return (
    <>
      <RecordHeading
        batch={batch}
        recipe={recipe}
        about={
          <>
            Batch record. Poured <When day={batch.day} />, by version {recipe.n}
            {!current && <span className="no-print">, which is no longer the newest</span>}.
          </>
        }
      />
      <SideBySide
        reckoner={
          <Reckoner>
            <div className="flex items-center gap-4 py-2">
              <Tin share={result.yield} label={`Yield ${percent(result.yield)}`} />
              <div className="font-display text-large">
                {sizes.map((s) => (
                  <p key={s.id}>
                    {s.units} × {s.label}
                  </p>
                ))}
              </div>
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
            {sizes.map((s, i) => {
              const one = result.perUnit[i]!;
              return (
                <div key={s.id}>
                  <Figure
                    label={many ? `Cost of one, ${s.label}` : "Cost of one unit"}
                    big
                    value={money(one.total, currency)}
                    how={
                      <>
                        <p>
                          What its lots really cost, and{" "}
                          {s.minutesHundredths
                            ? `${(s.minutesHundredths / 100).toFixed(0)} minutes of work`
                            : "no work, since no minutes were written down"}
                          , over {s.units} units.
                        </p>
                        {many && COST_PART_IDS.map((p) => <HowLine key={p} label={COST_PARTS[p]} value={money(one[p], currency)} />)}
                      </>
                    }
                  />
                  {!many && COST_PART_IDS.map((p) => <Figure key={p} label={COST_PARTS[p]} value={money(one[p], currency)} />)}
                </div>
              );
            })}
          </Reckoner>
        }
      >
        <Sheet>
          <div
            className={`mb-5 grid gap-x-6 gap-y-3 text-lead max-sm:gap-y-1 ${many ? "sm:grid-cols-[auto_auto_auto_1fr_auto]" : "sm:grid-cols-[auto_auto_1fr_auto]"}`}
          >
            {sizes.map(
              (s) =>
                s.lot && (
                  <div
                    key={s.id}
                    className="items-center max-sm:flex max-sm:flex-wrap max-sm:gap-x-4 sm:col-span-full sm:grid sm:grid-cols-subgrid"
                  >
                    <LotTag lot={{ ...s.lot, hold: s.lot.holdReason !== null }} />
                    {many && <span className="font-display">{s.label}</span>}
                    <span>
                      Best before{" "}
                      <strong>
                        <When day={s.lot.bestBefore} />
                      </strong>
                    </span>
                    <span>
                      {s.lot.onHand} of {s.units} still here
                    </span>
                    <span className="no-print flex flex-wrap gap-x-5">
                      <Link to={`/lots/${encodeURIComponent(s.lot.number)}`} className="text-amber underline underline-offset-4">
                        From and into
                      </Link>
                      <Link to={`/prices/${s.productId}`} className="text-amber underline underline-offset-4">
                        Its price
                      </Link>
                    </span>
                  </div>
                ),
            )}
          </div>
          <Checked sheet={sheet} checks={checks} events={made.events} opened={opened} />
          <Part title="Weighed">
            <Table
              rows={takes.map((t) => ({ ...t, off: (t.weighed ?? 0) - t.planned }))}
              by={(_, i) => i}
              columns={[
                {
                  head: "Material",
                  cell: (t) => {
                    const into = all.find((s) => s.id === t.sizeId);
                    return into ? `${t.material}, into ${into.label}` : t.material;
                  },
                },
                {
                  head: "Lot",
                  plain: true,
                  cell: (t) => byId.get(t.lotId) && <LotTag lot={byId.get(t.lotId)!} />,
                },
                {
                  head: "Planned",
                  as: "weight",
                  cell: (t) => gramsIn(1)(t.planned),
                },
                {
                  head: "Weighed",
                  as: "weight",
                  className: "font-semibold",
                  cell: (t) => gramsIn(1)(t.weighed ?? 0),
                },
                {
                  head: "When",
                  plain: true,
                  className: "text-small text-pine-soft whitespace-nowrap",
                  cell: (t) =>
                    t.weighedBy && (
                      <>
                        {onItsDay(batch.day, t.weighedAt) && <TimeOfDay at={t.weighedAt!} />} {WEIGHED_BY[t.weighedBy]}
                      </>
                    ),
                },
                {
                  head: "Off by",
                  as: "weight",
                  className: "text-pine-soft",
                  cell: (t) => (Math.abs(t.off) < 50 ? "" : `${t.off > 0 ? "+" : "−"}${gramsIn(1)(Math.abs(t.off))}`),
                },
              ]}
            />
          </Part>
          {plan?.result && <AgainstPlan sheet={sheet} plan={{ ...plan, result: plan.result }} was={result} events={made.events} />}
          <Made sheet={{ batch, takes, sizes: all }} {...made} />
          <Part title="Cautions">
            <Mind of={minded} />
          </Part>
          <NextTime recipe={recipe} taught={taught} opened={opened} />
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
          <Restatements rows={righted} />
          <ActsOf {...book} />
        </Sheet>
      </SideBySide>
    </>
  );
}
