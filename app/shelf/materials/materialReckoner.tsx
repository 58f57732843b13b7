/** What a material comes to: on hand, worth, its cost by three costing methods, what it weighs and what a container holds. */
import { holds, weightHeld } from "#core/material/container";
import { kind } from "#core/material/kinds";
import { FORMS, type Form } from "#core/measure/mass";
import { costOf, money, type UnitCost } from "#core/measure/money";
import { grams } from "#core/measure/write";
import { writeNumber } from "#core/numbers";
import type { Lot } from "#core/stock/lots";
import { COSTING_METHODS } from "#core/stock/costingMethods";
import { sum, type Base } from "#core/measure/exact";
import { runningAverage } from "#core/stock/shelf";
import type { MaterialRow } from "#db/shelf/materials";
import { PerUnit, showBase } from "../../ui/figures/amounts.tsx";
import { Figure, HowLine, Reckoner } from "../../ui/figures/reckoner.tsx";
import { useWorkshop } from "../../ui/workshop.ts";

/** Roughly what a poured balm weighs, mg to the mL; from memory. */
const BALM = 900;

interface Props {
  material: MaterialRow;
  /** With something on hand, the one to use first in front. */
  live: readonly Lot[];
  again: UnitCost | null;
  reorder: { perDay: number | null; point: Base | null; coming: Base };
}

export function MaterialReckoner({ material: m, live, again, reorder }: Props) {
  const { currency } = useWorkshop();
  const { measured, forms } = kind(m.kind);
  const onHand = sum(live.map((l) => l.onHand));
  const first = live[0];
  const holding = m.kind === "container" ? holds(m) : null;
  return (
    <Reckoner>
      <Figure
        label="On hand"
        big
        value={onHand === 0 ? "none" : showBase(onHand, measured)}
        how={live.slice(0, 20).map((l) => (
          <HowLine key={l.id} label={l.number} value={showBase(l.onHand, measured)} />
        ))}
      />
      {reorder.coming > 0 && <Figure label="Still to come" value={showBase(reorder.coming, measured)} />}
      <Figure
        label="Worth"
        value={money(sum(live.map((l) => l.value)), currency)}
        how={
          <>
            {live.slice(0, 20).map((l) => (
              <HowLine key={l.id} label={l.number} value={money(l.value, currency)} />
            ))}
            {again && onHand > 0 && <HowLine label={COSTING_METHODS.again} value={money(costOf(onHand, again), currency)} />}
          </>
        }
      />
      {(reorder.perDay !== null || reorder.point !== null) && (
        <Figure
          label="Lasts"
          value={reorder.perDay ? `${writeNumber(onHand / reorder.perDay, 0, 0)} days` : "—"}
          tone={reorder.point !== null && onHand + reorder.coming < reorder.point ? "warn" : undefined}
          how={
            <>
              <HowLine
                label="Used in a week"
                value={reorder.perDay ? showBase(Math.round(reorder.perDay * 7), measured) : "not known yet"}
              />
              <HowLine label="Buy below" value={reorder.point === null ? "not reminded" : showBase(reorder.point, measured)} />
              <p>
                {m.reorderBy === "use"
                  ? "Learned from the last half year, over the days to delivery twice."
                  : m.reorderBy === "hand"
                    ? "The point you set."
                    : "Nobody asked to be reminded."}
              </p>
            </>
          }
        />
      )}
      <Figure
        label={COSTING_METHODS.lot}
        value={<PerUnit cost={first ? { value: first.value, per: first.onHand } : null} measured={measured} />}
        how={
          first ? (
            <p>
              Lot {first.number} is used first: {money(first.value, currency)} left in {showBase(first.onHand, measured)}.
            </p>
          ) : (
            <p>No lot is on hand.</p>
          )
        }
      />
      <Figure
        label={COSTING_METHODS.average}
        value={<PerUnit cost={runningAverage(live)} measured={measured} />}
        how={<p>Everything on hand: its worth over its amount.</p>}
      />
      <Figure
        label={COSTING_METHODS.again}
        value={<PerUnit cost={again} measured={measured} />}
        how={<p>The newest purchase with its share of the postage, or the newest straining, blend or harvest.</p>}
      />
      {forms.map((f: Form) => (
        <Figure
          key={f}
          label={`Density, ${FORMS[f]}`}
          value={m.densities[f] ? `${(m.densities[f] / 1000).toFixed(2)} g/mL` : "unknown"}
          how={
            <p>
              Turns cups, spoons and mL of it into grams.{" "}
              {m.densities[f] ? "Change it under its facts." : "Until it has one, only weights can be used."}
            </p>
          }
        />
      ))}
      {m.kind === "container" && (
        <Figure
          label="Holds"
          value={holding ? `${writeNumber(holding.ml, 0, 1)} mL` : "unknown"}
          how={
            holding ? (
              <>
                <HowLine
                  label={`By ${holding.by === "measured" ? "a measure of yours" : holding.by}`}
                  value={holding.by === "its size" ? `⌀ ${m.innerMm} × ${m.fillMm} mm` : `${writeNumber(holding.ml, 0, 1)} mL`}
                />
                <HowLine label="Melted balm, about" value={grams(weightHeld(holding.ml, BALM), 0)} />
              </>
            ) : (
              <p>Measure its inner diameter and how high you fill it, under its facts.</p>
            )
          }
        />
      )}
    </Reckoner>
  );
}
