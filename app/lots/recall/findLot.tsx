/** Finding the lot a notice is about: by its number here, the supplier's number, or what it is. */
import { kind } from "#core/material/kinds";
import type { NamedLot } from "#db/lots/trace";
import { Form } from "react-router";
import { LotTag, showInColumn, When } from "../../ui/figures/amounts.tsx";
import { Link } from "../../ui/link.tsx";
import { Table } from "../../ui/lists/table.tsx";
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
          className="field font-mono text-[1.25rem]"
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
              {
                head: "Of",
                plain: true,
                cell: (l) => (
                  <>
                    {l.name}
                    {l.label && `, ${l.label}`}
                  </>
                ),
              },
              {
                head: "From",
                plain: true,
                cell: (l) => (
                  <>
                    {l.supplier ?? (l.productId ? "our bench" : "")}{" "}
                    <span className="weight text-[0.85rem] text-pine-soft">{l.supplierLot}</span>
                  </>
                ),
              },
              { head: "Since", cell: (l) => <When day={l.arrived} /> },
              { head: "Left", as: "weight", cell: (l) => showInColumn(l.onHand, l.kind ? kind(l.kind).measured : "count") },
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
