/** Receipts: those of which something is still to come, then the others, newest first. */
import { Link } from "react-router";
import { money } from "#core/measure/money";
import { counted } from "#core/words";
import { listReceipts } from "#db/shelf/receipts/receipts";
import { db } from "../../server/workshop.server.ts";
import { When } from "../../ui/figures/amounts.tsx";
import { Empty, Heading, Part, Sheet } from "../../ui/sheet/sheet.tsx";
import { ListTable } from "../../ui/lists/listTable.tsx";
import { SaveList } from "../../ui/lists/saveList.tsx";
import { askedOf, partOf, useFullList } from "../../ui/lists/useFullList.ts";
import { useWorkshop } from "../../ui/workshop.ts";
import { RECEIPTS_FILE } from "./receiptsFile.ts";
import type { Route } from "./+types/receipts";

export const meta: Route.MetaFunction = () => [{ title: "Receipts · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const { most } = askedOf(request);
  return partOf(await listReceipts(db(), most), most);
}

/** Those of which everything has come. */
const ALL = "receipts";

export default function Receipts({ loaderData }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  const { rows, more, ask } = useFullList(loaderData);
  const coming = rows.filter((r) => r.toCome > 0);
  const came = rows.filter((r) => r.toCome === 0);
  const table = (what: string, of: typeof rows) => (
    <ListTable
      what={what}
      more={more && what === ALL}
      ask={ask}
      rows={of}
      by={(r) => r.id}
      finds={(r) => `${r.supplier} ${r.day}`}
      under={(found) => <SaveList what={what} rows={found} {...RECEIPTS_FILE} more={more && what === ALL} ask={ask} />}
      columns={[
        { head: "Day", sorts: (r) => r.day, cell: (r) => <When day={r.day} /> },
        {
          head: "Supplier",
          sorts: (r) => r.supplier,
          plain: true,
          cell: (r) => (
            <>
              <Link to={`/shelf/receipts/${r.id}`} className="font-semibold hover:underline">
                {r.supplier}
              </Link>
              {r.toCome > 0 && (
                <span className="ml-2 rounded-sm bg-honey-wash px-1.5 text-fine font-semibold text-honey">
                  {counted(r.toCome, "line")} to come
                </span>
              )}
            </>
          ),
        },
        { head: "Lines", cell: (r) => r.lines },
        { head: "Scan", cell: (r) => (r.scans > 0 ? "kept" : "") },
        { head: "Paid", as: "figure", sorts: (r) => r.paid, cell: (r) => money(r.paid, currency) },
      ]}
    />
  );
  return (
    <>
      <Heading title="Receipts" about="What was bought, from whom, with a scan where there is one.">
        <Link to="/people?of=supplier" className="act">
          Suppliers
        </Link>
        <Link to="/shelf/receive/file" className="act">
          From a file
        </Link>
        <Link to="/shelf/receive" className="act act-main">
          Receive a purchase
        </Link>
      </Heading>
      {rows.length === 0 ? (
        <Empty
          title="The receipt box is empty"
          act={
            <Link to="/shelf/receive" className="act act-main">
              Receive a purchase
            </Link>
          }
        >
          Each receipt stays here with its lines, its lots and a scan.
        </Empty>
      ) : (
        <Sheet>
          {coming.length > 0 && <Part title="Still to come">{table("receipts to come", coming)}</Part>}
          {came.length > 0 && (coming.length > 0 ? <Part title="All here">{table(ALL, came)}</Part> : table(ALL, came))}
        </Sheet>
      )}
    </>
  );
}
