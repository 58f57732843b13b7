/** Harvests: what is drying, and what was picked and dried before, year by year. */
import { Link } from "react-router";
import { groupBy } from "#core/collect";
import { DRYING_METHODS, dryingState } from "#core/infusion/drying";
import { grams } from "#core/measure/write";
import { listHarvests, type HarvestRow } from "#db/shelf/harvests";
import { db } from "../../server/workshop.server.ts";
import { LotTag, percent, When } from "../../ui/figures/amounts.tsx";
import { Empty, Heading, Part, Sheet } from "../../ui/sheet/sheet.tsx";
import { SaveList } from "../../ui/lists/saveList.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { HARVESTS_FILE } from "./harvestsFile.ts";
import type { Route } from "./+types/harvests";

export const meta: Route.MetaFunction = () => [{ title: "Harvests · Zelbin" }];
export const loader = () => listHarvests(db());

function Rows({ rows }: { rows: readonly HarvestRow[] }) {
  return (
    <Table
      rows={rows.map(({ harvest, checks, ...r }) => ({
        ...harvest,
        ...r,
        now: harvest.dry ?? checks.at(-1)?.weight ?? harvest.fresh,
        say: dryingState(
          harvest.fresh,
          checks.map((c) => c.weight),
        ).say,
      }))}
      by={(h) => h.id}
      columns={[
        {
          head: "Picked",
          cell: (h) => <When day={h.picked} />,
        },
        {
          head: "Herb",
          plain: true,
          cell: (h) => (
            <>
              <Link to={`/shelf/harvests/${h.id}`} className="font-semibold hover:underline">
                {h.material}
              </Link>
              {h.place && <span className="text-pine-soft"> · {h.place}</span>}
            </>
          ),
        },
        {
          head: "Drying",
          cell: (h) => (
            <>
              {DRYING_METHODS[h.method].toLowerCase()}
              {h.celsius !== null && `, ${h.celsius} °C`}
              {h.driedActId === null && <span className="block text-part text-honey">{h.say}</span>}
            </>
          ),
        },
        {
          head: "Fresh",
          as: "weight",
          cell: (h) => grams(h.fresh, 0),
        },
        {
          head: "Now",
          as: "weight",
          cell: (h) => (
            <>
              {grams(h.now, 0)} <span className="font-sans text-part text-pine-soft">{percent(h.now / h.fresh, 0)}</span>
            </>
          ),
        },
        {
          head: "Lot",
          plain: true,
          cell: (h) => h.number && <LotTag lot={{ number: h.number, onHand: h.onHand ?? 0, bestBefore: h.bestBefore, hold: false }} />,
        },
      ]}
    />
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
          <SaveList what="harvests" rows={rows} columns={HARVESTS_FILE} />
        </Sheet>
      )}
    </>
  );
}
