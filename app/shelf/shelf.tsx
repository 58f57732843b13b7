/**
 * The shelf: every material with what is on hand, what it is worth, and its lots, the one to use first in front. A big shelf is shown in
 * boards, one for each kind, opened one at a time.
 */
import { groupBy } from "#core/collect";
import { finder } from "#core/find";
import { KINDS, KIND_IDS, kind } from "#core/material/kinds";
import { sum } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { firstExpiredFirst } from "#core/stock/lots";
import { usedPerDay } from "#core/stock/reorder";
import { counted } from "#core/words";
import { lotsOfMaterials } from "#db/ledger/lots";
import { monthlyUse } from "#db/shelf/buying";
import type { Board } from "#db/shelf/overview";
import { today } from "#db/clock";
import { useMemo, useState } from "react";
import { Form, Link } from "react-router";
import { db } from "../server/workshop.server.ts";
import { Empty, Heading, Sheet } from "../ui/sheet/sheet.tsx";
import { useRemembered } from "../ui/lists/remembered.ts";
import { useWorkshop } from "../ui/workshop.ts";
import { SaveAs } from "../ui/lists/saveAs.tsx";
import { askedMaterials, askedOfShelf } from "./asked.server.ts";
import { ShelfTable } from "./shelfTable.tsx";
import { Worth } from "./worth.tsx";
import type { Route } from "./+types/shelf";

export const meta: Route.MetaFunction = () => [{ title: "Shelf · Zelbin" }];

/** More lots of one material than this are a number, not tags. */
const TAGS = 6;
/** The most rows of one board or one search. */
const MOST = 100;

export async function loader({ request }: Route.LoaderArgs) {
  const asked = await askedOfShelf(request);
  const materials = await askedMaterials(asked, MOST);
  const ids = materials.map((m) => m.id);
  const [lots, use] = await Promise.all([lotsOfMaterials(db(), ids), monthlyUse(db(), today(), ids)]);
  const own = groupBy([...lots].sort(firstExpiredFirst), (l) => l.of);
  return {
    ...asked,
    // Only what is shown of each: its tags, and how many more there are.
    materials: materials.map((m) => ({
      ...m,
      perDay: usedPerDay(use.get(m.id) ?? [], today()),
      tags: (own.get(m.id) ?? []).slice(0, TAGS).map(({ number, onHand, bestBefore, hold }) => ({ number, onHand, bestBefore, hold })),
      untagged: Math.max(0, (own.get(m.id)?.length ?? 0) - TAGS),
    })),
  };
}

/** A board with its totals; pressing its name opens it. */
function BoardHead({ board: b, open, folds }: { board: Board; open: boolean; folds: boolean }) {
  const { currency } = useWorkshop();
  return (
    <span className="flex flex-wrap items-baseline gap-x-4">
      {folds ? (
        <Link
          to={open ? "/shelf?board=" : `/shelf?board=${b.kind}`}
          aria-expanded={open}
          className="font-display text-lead font-normal hover:underline"
        >
          {KINDS[b.kind].plural}
        </Link>
      ) : (
        <span className="font-display text-lead font-normal">{KINDS[b.kind].plural}</span>
      )}
      {folds && (
        <span className="text-small font-normal text-pine-soft">
          {counted(b.materials, "material")}, {money(b.worth, currency)}
          {b.low > 0 && <span className="ml-3 font-semibold text-honey">{b.low} low</span>}
          {b.soon > 0 && <span className="ml-3 font-semibold text-honey">{counted(b.soon, "lot")} to use first</span>}
        </span>
      )}
    </span>
  );
}

/** Where the shelf leads, in the order of the work. */
const WAYS = [
  {
    to: "Buy",
    ways: [
      ["/shelf/shopping", "Shopping list"],
      ["/shelf/receipts", "Receipts"],
    ],
  },
  { to: "Grow", ways: [["/shelf/harvests", "Harvests"]] },
  { to: "Count", ways: [["/shelf/stock-take", "Stock-take"]] },
  {
    to: "Begin",
    ways: [
      ["/shelf/library", "Library"],
      ["/shelf/opening", "Opening stock"],
    ],
  },
] as const;

export default function Shelf({ loaderData: { boards, whole, board, find, materials } }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  useRemembered("board");
  const [typed, setTyped] = useState("");
  // A whole shelf is searched as it is typed; a big one when asked.
  const search = useMemo(() => finder(materials, (m) => m), [materials]);
  const shown = whole && !find ? search(typed) : materials;
  const byKind = groupBy(shown, (m) => m.kind);
  const worth = (group: "ingredient" | "packaging"): string =>
    money(sum(boards.filter((b) => kind(b.kind).group === group).map((b) => b.worth)), currency);
  const visible = boards
    .filter((b) => (find || (whole && typed) ? byKind.has(b.kind) : true))
    .sort((a, b) => KIND_IDS.indexOf(a.kind) - KIND_IDS.indexOf(b.kind));

  const saved = new URLSearchParams({ find: find || typed.trim(), board: (!whole && board) || "" }).toString();

  return (
    <>
      <Heading
        title="Shelf"
        about={
          boards.length > 0 && (
            <>
              Ingredients worth {worth("ingredient")} and packaging worth {worth("packaging")} are on hand.
            </>
          )
        }
      >
        <Link to="/shelf/new" className="act">
          Add a material
        </Link>
        <Link to="/shelf/receive" className="act act-main">
          Receive a purchase
        </Link>
      </Heading>
      <nav aria-label="Shelf" className="no-print mb-4 flex flex-wrap items-center gap-x-5 gap-y-2">
        <Form method="get" role="search">
          <input
            type="search"
            name="find"
            aria-label="Find a material"
            placeholder="Find a material  ( / )"
            className="field w-56!"
            defaultValue={find}
            onChange={(e) => setTyped(e.target.value)}
          />
        </Form>
        {WAYS.map(({ to, ways }) => (
          <span key={to} className="flex flex-wrap items-baseline gap-x-3.5">
            <span className="text-small text-pine-soft">{to}</span>
            {ways.map(([path, name]) => (
              <Link key={path} to={path} className="pressable">
                {name}
              </Link>
            ))}
            {to === "Count" && boards.length > 0 && <Worth />}
          </span>
        ))}
      </nav>
      {boards.length === 0 ? (
        <Empty
          title="The shelf is empty"
          act={
            <>
              <Link to="/shelf/library" className="act act-main">
                Take from the library
              </Link>
              <Link to="/shelf/new" className="act">
                Add a material
              </Link>
            </>
          }
        >
          Waxes, butters, oils, tins and labels are listed here, each with its lots. Add the first ones, then receive what you have bought
          of them.
        </Empty>
      ) : (
        <Sheet>
          <ShelfTable
            boards={visible.map((b) => ({
              key: b.kind,
              head: <BoardHead board={b} open={board === b.kind} folds={!whole && !find} />,
              rows: byKind.get(b.kind) ?? [],
            }))}
          />
          {visible.length === 0 && <p className="py-6 text-center text-pine-soft">Nothing on the shelf is called “{find || typed}”.</p>}
          {materials.length === MOST && <p className="pt-3 text-pine-soft">The first {MOST} are shown. Find the others by name.</p>}
          {visible.length > 0 && (
            <SaveAs
              files={[
                [`/shelf/pdf?${saved}`, "Save as PDF"],
                [`/shelf/shelf.csv?${saved}`, "Save as CSV"],
              ]}
            />
          )}
        </Sheet>
      )}
    </>
  );
}
