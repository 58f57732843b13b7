/** The record of a batch that failed: what was in it, what it cost, and why. */
import { grams, gramsIn } from "#core/measure/write";
import { money } from "#core/measure/money";
import type { BatchSheet } from "#db/bench/read";
import { ActsOf, type ActLine } from "../../book/actsOf.tsx";
import { LotTag, When } from "../../ui/figures/amounts.tsx";
import { Figure, Reckoner } from "../../ui/figures/reckoner.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { Part, Sheet, SideBySide } from "../../ui/sheet/sheet.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { RecordHeading } from "./recordHeading.tsx";
import { Made, type HowMade } from "./recordMade.tsx";

interface Props {
  sheet: BatchSheet;
  cost: number;
  book: { acts: ActLine[]; more: string };
  made: HowMade;
}

export function SpoiledRecord({ sheet: { batch, recipe, sizes, takes, lots }, cost, book, made }: Props) {
  const { currency } = useWorkshop();
  const byId = new Map(lots.map((l) => [l.id, l]));
  const weighed = takes.filter((t) => t.weighed);
  return (
    <>
      <RecordHeading
        batch={batch}
        recipe={recipe}
        about={
          <>
            Written off; set out <When day={batch.day} />, by version {recipe.n}.
          </>
        }
      />
      <p className="mb-4 rounded bg-berry-wash px-4 py-2 font-semibold text-berry">It failed: {batch.spoiledWhy}</p>
      <SideBySide
        reckoner={
          <Reckoner>
            <Figure label="Gone with it" big value={money(cost, currency)} />
            <Figure label="Weighed" value={grams(weighed.reduce((a, t) => a + t.weighed!, 0))} />
            <Figure label="Planned" value={sizes.map((s) => `${s.planned} × ${s.label}`).join(", ")} />
          </Reckoner>
        }
      >
        <Sheet>
          <Part title="Weighed">
            <Table
              rows={weighed}
              by={(_, i) => i}
              columns={[
                { head: "Material", cell: (t) => t.material },
                { head: "Lot", plain: true, cell: (t) => byId.get(t.lotId) && <LotTag lot={byId.get(t.lotId)!} /> },
                { head: "Weighed", as: "weight", className: "font-semibold", cell: (t) => gramsIn(1)(t.weighed!) },
              ]}
            />
          </Part>
          <Made sheet={{ batch, takes: [], sizes: [] }} {...made} failed />
          <ActsOf {...book} />
        </Sheet>
      </SideBySide>
    </>
  );
}
