/** Finding the lot a notice is about: by its number here, the supplier's number, or what it is. */
import type { NamedLot } from "#db/lots/trace";
import { Form, Link } from "react-router";
import { LotTag } from "../../ui/figures/amounts.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { LOT_FROM, LOT_LEFT, LOT_OF, LOT_SINCE } from "../lotColumns.tsx";
import { Heading, Sheet } from "../../ui/sheet/sheet.tsx";

export function FindLot({ found, find, rehearse }: { found: NamedLot[]; find: string; rehearse: boolean }) {
  const to = (lots: readonly NamedLot[]): string =>
    `/lots/recalls/new?${lots.map((l) => `lot=${encodeURIComponent(l.number)}`).join("&")}${rehearse ? "&rehearse=1" : ""}`;
  const theirs = found.filter((l) => find !== "" && l.supplierLot.toLowerCase() === find.toLowerCase());
  return (
    <>
      <Heading
        title={rehearse ? "Rehearse a recall" : "Recall a lot"}
        about="What is the notice about? A supplier’s lot number, one of your own, or what it is."
      >
        <Link to="/lots/recalls" className="act">
          Leave
        </Link>
      </Heading>
      <Form className="mb-6 flex max-w-xl gap-2">
        {rehearse && <input type="hidden" name="rehearse" value="1" />}
        <input
          type="search"
          name="find"
          defaultValue={find}
          aria-label="Lot number, theirs or yours"
          placeholder="their number, or yours"
          className="field font-mono text-large"
          autoComplete="off"
          autoFocus
        />
        <button className="act act-main">Find it</button>
      </Form>
      {find !== "" && found.length === 0 && (
        <p role="status" className="text-pine-soft">
          No lot matches “{find}”. Part of a number is enough; try what it is of instead.
        </p>
      )}
      {found.length > 0 && (
        <Sheet>
          {theirs.length > 1 && (
            <p className="mb-3">
              <Link to={to(theirs)} className="act act-main">
                All {theirs.length} of their lot {theirs[0]!.supplierLot}
              </Link>
            </p>
          )}
          <Table
            rows={found}
            by={(l) => l.id}
            columns={[
              { head: "Lot", cell: (l) => <LotTag lot={l} plain /> },
              LOT_OF,
              LOT_FROM,
              LOT_SINCE,
              LOT_LEFT,
              {
                head: "",
                as: "press",
                cell: (l) => (
                  <Link to={to([l])} className="act act-small" aria-label={`Begin with ${l.number}`}>
                    Begin with it
                  </Link>
                ),
              },
            ]}
          />
        </Sheet>
      )}
    </>
  );
}
