/** The bench: what is set out, and every batch made before. */
import { Link } from "react-router";
import { wordList } from "#core/words";
import { RECIPE_TYPES } from "#core/recipe/types";
import { listBatches } from "#db/bench/read";
import { db } from "../server/workshop.server.ts";
import { LotTag, When } from "../ui/figures/amounts.tsx";
import { Tin } from "../ui/figures/drawings.tsx";
import { Empty, Heading, Part, Sheet } from "../ui/sheet/sheet.tsx";
import { Table } from "../ui/lists/table.tsx";
import { ListTable } from "../ui/lists/listTable.tsx";
import { SaveList } from "../ui/lists/saveList.tsx";
import { askedOf, partOf, useFullList } from "../ui/lists/useFullList.ts";
import { BATCHES_FILE, filledOf } from "./batchesFile.ts";
import type { Route } from "./+types/bench";

export const meta: Route.MetaFunction = () => [{ title: "Bench · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const { most } = askedOf(request);
  return partOf(await listBatches(db(), most), most);
}

const SetOut = () => (
  <Link to="/bench/set-out" className="act act-main">
    Set out a batch
  </Link>
);

export default function Bench({ loaderData }: Route.ComponentProps) {
  const { rows, more, ask } = useFullList(loaderData);
  const open = rows.filter((b) => !b.poured && !b.cleared);
  const failed = rows.filter((b) => b.spoiled);
  const made = rows.filter((b) => b.poured);
  return (
    <>
      <Heading title="Bench">
        <SetOut />
      </Heading>
      {rows.length === 0 ? (
        <Empty title="The bench is clear" act={<SetOut />}>
          Set out a batch of a recipe: Zelbin picks the lots to use first, you weigh and pour, and the batch gets its lot number.
        </Empty>
      ) : (
        <Sheet>
          {open.length > 0 && (
            <Part title="Set out">
              <ul className="divide-y divide-rule border-y border-rule">
                {open.map((b) => (
                  <li key={b.id}>
                    <Link to={`/bench/${b.id}`} className="flex items-center gap-5 px-1 py-3 hover:bg-honey-wash">
                      <Tin share={b.lines ? b.weighed / b.lines : 0} label={`${b.weighed} of ${b.lines} weighed`} />
                      <span className="min-w-0 flex-1">
                        <span className="block font-display text-large">{b.recipe}</span>
                        <span className="text-pine-soft">
                          {wordList(b.sizes.map((s) => `${s.planned} × ${s.label}`))}, {b.weighed} of {b.lines} weighed
                        </span>
                      </span>
                      <span className="text-pine-soft max-sm:hidden">
                        since <When day={b.day} />
                      </span>
                    </Link>
                  </li>
                ))}
              </ul>
            </Part>
          )}
          {made.length > 0 && (
            <Part title="Poured">
              <ListTable
                what="batches"
                more={more}
                ask={ask}
                rows={made}
                by={(b) => b.id}
                under={(found) => <SaveList what="batches" rows={filledOf(found)} columns={BATCHES_FILE} more={more} ask={ask} />}
                finds={(b) => `${b.recipe} ${RECIPE_TYPES[b.type].label} ${b.sizes.map((s) => `${s.number} ${s.label}`).join(" ")}`}
                columns={[
                  {
                    head: "Lot",
                    cell: (b) => (
                      <span className="flex flex-wrap gap-1.5">
                        {b.sizes.map(
                          (s) =>
                            s.number &&
                            s.units !== 0 && (
                              <LotTag
                                key={s.number}
                                lot={{ number: s.number, onHand: s.onHand ?? 0, bestBefore: s.bestBefore, hold: s.hold }}
                              />
                            ),
                        )}
                      </span>
                    ),
                  },
                  {
                    head: "Product",
                    sorts: (b) => b.recipe,
                    plain: true,
                    cell: (b) => (
                      <>
                        <Link to={`/bench/${b.id}`} className="font-semibold hover:underline">
                          {b.recipe}
                        </Link>{" "}
                        <span className="text-pine-soft">{RECIPE_TYPES[b.type].label}</span>
                      </>
                    ),
                  },
                  { head: "Poured", sorts: (b) => b.day, cell: (b) => <When day={b.day} /> },
                  {
                    head: "Filled",
                    as: "weight",
                    cell: (b) =>
                      b.sizes
                        .filter((s) => s.units)
                        .map((s, i) => (
                          <div key={i}>
                            {s.units} × {s.label}
                          </div>
                        )),
                  },
                  {
                    head: "Planned",
                    as: "weight",
                    cell: (b) => b.sizes.filter((s) => s.units).map((s, i) => <div key={i}>{s.planned}</div>),
                  },
                  {
                    head: "Best before",
                    sorts: (b) => b.sizes.find((s) => s.units)?.bestBefore ?? null,
                    cell: (b) => <When day={b.sizes.find((s) => s.units)?.bestBefore ?? null} />,
                  },
                ]}
              />
            </Part>
          )}
          {failed.length > 0 && (
            <Part title="Written off">
              <Table
                rows={failed}
                by={(b) => b.id}
                columns={[
                  {
                    head: "Product",
                    cell: (b) => (
                      <Link to={`/bench/${b.id}`} className="font-semibold hover:underline">
                        {b.recipe}
                      </Link>
                    ),
                  },
                  { head: "Set out", cell: (b) => <When day={b.day} /> },
                  { head: "Why", plain: true, cell: (b) => b.why },
                ]}
              />
            </Part>
          )}
        </Sheet>
      )}
    </>
  );
}
