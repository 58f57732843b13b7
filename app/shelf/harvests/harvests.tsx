/** Harvests: what is drying, and what was picked and dried before, year by year. */
import { groupBy } from "#core/collect";
import { DRYING_METHODS, dryingState } from "#core/infusion/drying";
import { grams } from "#core/measure/write";
import { listHarvests, type HarvestRow } from "#db/shelf/harvests";
import { Link } from "react-router";
import { db } from "../../db.server.ts";
import { LotTag, percent, When } from "../../ui/amounts.tsx";
import { Empty, Heading, Part, Sheet } from "../../ui/sheet.tsx";
import type { Route } from "./+types/harvests";

export const meta: Route.MetaFunction = () => [{ title: "Harvests · Zelbin" }];
export const loader = () => listHarvests(db());

function Rows({ rows }: { rows: readonly HarvestRow[] }) {
  return (
    <table className="ruled stack">
      <thead>
        <tr>
          <th scope="col">Picked</th>
          <th scope="col">Herb</th>
          <th scope="col">Drying</th>
          <th scope="col" className="text-right!">
            Fresh
          </th>
          <th scope="col" className="text-right!">
            Now
          </th>
          <th scope="col">Lot</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ harvest: h, material, checks, number, onHand, bestBefore }) => {
          const state = dryingState(
            h.fresh,
            checks.map((c) => c.weight),
          );
          return (
            <tr key={h.id}>
              <td>
                <When day={h.picked} />
              </td>
              <td>
                <a href={`/shelf/harvests/${h.id}`} className="font-semibold hover:underline">
                  {material}
                </a>
                {h.place && <span className="text-pine-soft"> · {h.place}</span>}
              </td>
              <td data-label="Drying">
                {DRYING_METHODS[h.method].toLowerCase()}
                {h.celsius !== null && `, ${h.celsius} °C`}
                {h.driedActId === null && <span className="block text-[0.9em] text-honey">{state.say}</span>}
              </td>
              <td data-label="Fresh" className="num weight">
                {grams(h.fresh, 0)}
              </td>
              <td data-label="Now" className="num weight">
                {grams(h.dry ?? checks.at(-1)?.weight ?? h.fresh, 0)}{" "}
                <span className="font-sans text-[0.85em] text-pine-soft">
                  {percent((h.dry ?? checks.at(-1)?.weight ?? h.fresh) / h.fresh, 0)}
                </span>
              </td>
              <td>{number && <LotTag lot={{ number, onHand: onHand ?? 0, bestBefore, hold: false }} />}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

export default function Harvests({ loaderData: rows }: Route.ComponentProps) {
  const drying = rows.filter((r) => r.harvest.driedActId === null);
  const years = groupBy(
    rows.filter((r) => r.harvest.driedActId !== null),
    (r) => r.harvest.picked.slice(0, 4),
  );
  return (
    <>
      <Heading title="Harvests" about="Picked, dried low and slow until it snaps, then a lot of its herb with its year.">
        <Link to="/shelf/harvests/new" className="act act-main">
          Note a picking
        </Link>
      </Heading>
      {rows.length === 0 ? (
        <Empty
          title="Nothing picked yet"
          act={
            <Link to="/shelf/harvests/new" className="act act-main">
              Note a picking
            </Link>
          }
        >
          Weigh what you pick, weigh it again as it dries, and it goes on the shelf with its year and its cost.
        </Empty>
      ) : (
        <Sheet>
          {drying.length > 0 && (
            <Part title="Drying">
              <Rows rows={drying} />
            </Part>
          )}
          {[...years].map(([year, of]) => (
            <Part key={year} title={year}>
              <Rows rows={of} />
            </Part>
          ))}
        </Sheet>
      )}
    </>
  );
}
