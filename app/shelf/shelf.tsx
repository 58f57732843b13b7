/** The shelf: every material with what is on hand, what it is worth, and its lots, the one to use first in front. */
import { groupBy } from "#core/collect";
import { KINDS, KIND_IDS, kind } from "#core/material/kinds";
import { sum } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { useFirst } from "#core/stock/lots";
import { runningAverage } from "#core/stock/schools";
import { lotsOfMaterials } from "#db/ledger";
import { listMaterials } from "#db/shelf/materials";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { db } from "../db.server.ts";
import { LotTag, PerUnit, showInColumn } from "../ui/amounts.tsx";
import { Empty, Heading, Sheet } from "../ui/sheet.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { Route } from "./+types/shelf";

export const meta: Route.MetaFunction = () => [{ title: "Shelf · Zelbin" }];

export async function loader() {
  const [materials, lots] = await Promise.all([listMaterials(db()), lotsOfMaterials(db())]);
  return {
    materials: materials.map(({ id, name, kind: k, reorderAt }) => ({ id, name, kind: k, reorderAt })),
    lots,
  };
}

export default function Shelf({ loaderData: { materials, lots } }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  const [find, setFind] = useState("");
  const rows = useMemo(() => {
    const byMaterial = groupBy([...lots].sort(useFirst), (l) => l.of);
    return materials.map((m) => {
      const own = byMaterial.get(m.id) ?? [];
      return {
        ...m,
        lots: own,
        onHand: own.reduce((a, l) => a + l.onHand, 0),
        value: sum(own.map((l) => l.value)),
        average: runningAverage(own),
      };
    });
  }, [materials, lots]);
  const shown = rows.filter((r) => r.name.toLowerCase().includes(find.trim().toLowerCase()));
  const worth = (group: "ingredient" | "packaging"): string =>
    money(sum(rows.filter((r) => kind(r.kind).group === group).map((r) => r.value)), currency);

  return (
    <>
      <Heading
        title="Shelf"
        about={
          <>
            Ingredients worth {worth("ingredient")} and packaging worth {worth("packaging")} are on hand.
          </>
        }
      >
        <input
          type="search"
          aria-label="Find a material"
          placeholder="Find a material  ( / )"
          className="field w-56!"
          value={find}
          onChange={(e) => setFind(e.target.value)}
        />
        <Link to="/shelf/new" className="act">
          Add a material
        </Link>
        <Link to="/shelf/receive" className="act act-main">
          Receive a purchase
        </Link>
      </Heading>
      {materials.length === 0 ? (
        <Empty
          title="The shelf is empty"
          act={
            <Link to="/shelf/new" className="act act-main">
              Add a material
            </Link>
          }
        >
          Waxes, butters, oils, tins and labels stand here, each with its lots. Add the first one, then receive what you have bought of it.
        </Empty>
      ) : (
        <Sheet>
          <table className="ruled stack">
            <thead>
              <tr>
                <th scope="col">Material</th>
                <th scope="col" className="text-right!">
                  On hand
                </th>
                <th scope="col" className="text-right!">
                  Worth
                </th>
                <th scope="col" className="text-right!">
                  Average cost
                </th>
                <th scope="col" className="pl-6!">
                  Lots, use first in front
                </th>
              </tr>
            </thead>
            {KIND_IDS.map((k) => {
              const group = shown.filter((r) => r.kind === k);
              if (group.length === 0) return null;
              return (
                <tbody key={k}>
                  <tr className="group">
                    <th colSpan={5} scope="rowgroup" className="font-display text-[1.1rem]! font-normal text-pine!">
                      {KINDS[k].plural}
                    </th>
                  </tr>
                  {group.map((r) => {
                    const measured = kind(r.kind).measured;
                    return (
                      <tr key={r.id}>
                        <td>
                          <a href={`/shelf/${r.id}`} className="font-semibold hover:underline">
                            {r.name}
                          </a>
                          {r.reorderAt !== null && r.onHand < r.reorderAt && (
                            <span className="ml-2 rounded-sm bg-honey-wash px-1.5 text-[0.85rem] font-semibold text-honey">low</span>
                          )}
                        </td>
                        <td data-label="On hand" className="num weight">
                          {r.onHand === 0 ? "none" : showInColumn(r.onHand, measured)}
                        </td>
                        <td data-label="Worth" className="num">
                          {money(r.value, currency)}
                        </td>
                        <td data-label="Average cost" className="num">
                          <PerUnit cost={r.average} measured={measured} />
                        </td>
                        <td className="pl-6!">
                          <span className="flex flex-wrap gap-1.5">
                            {r.lots.map((l) => (
                              <LotTag key={l.id} lot={l} />
                            ))}
                          </span>
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              );
            })}
          </table>
          {shown.length === 0 && <p className="py-6 text-center text-pine-soft">Nothing on the shelf is called “{find}”.</p>}
        </Sheet>
      )}
    </>
  );
}
