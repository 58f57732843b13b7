/** Looking a lot up: by its number, part of it, the supplier's number, or what it is of. */
import { checks } from "#core/lot/check";
import { isChecked } from "#core/lot/number";
import { cachedSettings } from "#db/settings/settings";
import { findLot, lotsLike, lotsNear } from "#db/lots/trace";
import { Form, Link, redirect } from "react-router";
import { db } from "../server/workshop.server.ts";
import { LotTag, When } from "../ui/figures/amounts.tsx";
import { LOT_FROM, LOT_LEFT, LOT_OF, LOT_SINCE } from "./lotColumns.tsx";
import { Empty, Heading, Sheet } from "../ui/sheet/sheet.tsx";
import { ListTable } from "../ui/lists/listTable.tsx";
import { SaveAs } from "../ui/lists/saveAs.tsx";
import { lotAsked } from "./asked.ts";
import type { Route } from "./+types/lots";

export const meta: Route.MetaFunction = () => [{ title: "Lots · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const q = lotAsked(request);
  const exact = q === "" ? null : await findLot(db(), q);
  if (exact) throw redirect(`/lots/${encodeURIComponent(exact.number)}`);
  const found = await lotsLike(db(), q);
  const near = q !== "" && found.length === 0;
  const [nearest, { batchScheme, receiptScheme }] = await Promise.all([near ? lotsNear(db(), q) : [], cachedSettings(db())]);
  // Where numbers carry a check character, one that doesn't fit says so before anybody looks for the tin.
  const slip = near && [batchScheme, receiptScheme].some(isChecked) && /^[\dA-Z.-]{4,}$/i.test(q) && !checks(q);
  return { q, found: nearest.length > 0 ? nearest : found, near: nearest.length > 0, slip };
}

export default function Lots({ loaderData: { q, found, near, slip } }: Route.ComponentProps) {
  return (
    <>
      <Heading
        title="Lots"
        about="Type any lot number, or part of one: off a tin, a bag, a supplier's notice. You get everything it came from and everything it went into."
      >
        <Link to="/lots/recalls" className="act">
          Recalls
        </Link>
      </Heading>
      <Form className="mb-6 flex max-w-xl gap-2">
        <input
          type="search"
          name="number"
          defaultValue={q}
          aria-label="Lot number"
          placeholder="such as SB261117-1"
          className="field font-mono text-large"
          autoComplete="off"
          autoFocus
        />
        <button className="act act-main">Trace</button>
      </Form>
      {near && (
        <p className="mb-4 rounded bg-honey-wash px-4 py-2 font-semibold text-honey">
          No lot is called “{q}”.{slip && " By its check character there is a slip in it."} With one slip in it, it would be:
        </p>
      )}
      {found.length === 0 ? (
        <Empty title={q ? `No lot matches “${q}”` : "No lots yet"}>
          {slip && "By its check character there is a slip in it. "}
          {q
            ? "Check the number on the tag; a part of it is enough. Capitals don't matter."
            : "Lots appear when a purchase is received or a batch is poured."}
        </Empty>
      ) : (
        <Sheet>
          <ListTable
            what="lots"
            rows={found}
            by={(l) => l.id}
            finds={(l) => `${l.number} ${l.name} ${l.label} ${l.supplier ?? ""} ${l.supplierLot}`}
            columns={[
              { head: "Lot", cell: (l) => <LotTag lot={l} /> },
              LOT_OF,
              LOT_FROM,
              LOT_SINCE,
              { head: "Best before", sorts: (l) => l.bestBefore, cell: (l) => <When day={l.bestBefore} /> },
              LOT_LEFT,
            ]}
          />
          {!near && (
            <SaveAs files={[[`/lots/lots.csv?${new URLSearchParams({ number: q })}`, q ? "Save as CSV" : "Save all lots as CSV"]]} />
          )}
        </Sheet>
      )}
    </>
  );
}
