/** Receipts: the box they are kept in, newest first. */
import { money } from "#core/measure/money";
import { counted } from "#core/words";
import { listReceipts } from "#db/shelf/receipts";
import { Link } from "react-router";
import { db } from "../../db.server.ts";
import { idOf } from "../../forms/ids.ts";
import { When } from "../../ui/amounts.tsx";
import { Empty, Heading, Sheet } from "../../ui/sheet.tsx";
import { Table } from "../../ui/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import type { Route } from "./+types/receipts";

export const meta: Route.MetaFunction = () => [{ title: "Receipts · Zelbin" }];

const PAGE = 40;

export async function loader({ request }: Route.LoaderArgs) {
  const page = idOf(new URL(request.url).searchParams.get("page"));
  const rows = await listReceipts(db(), page, PAGE + 1);
  return { rows: rows.slice(0, PAGE), page, more: rows.length > PAGE };
}

export default function Receipts({ loaderData: { rows, page, more } }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  return (
    <>
      <Heading title="Receipts" about="What was bought, from whom, with a scan where there is one.">
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
          <Table
            rows={rows}
            by={(r) => r.id}
            columns={[
              { head: "Day", cell: (r) => <When day={r.day} /> },
              {
                head: "Supplier",
                plain: true,
                cell: (r) => (
                  <>
                    <Link to={`/shelf/receipts/${r.id}`} className="font-semibold hover:underline">
                      {r.supplier}
                    </Link>
                    {r.toCome > 0 && (
                      <span className="ml-2 rounded-sm bg-honey-wash px-1.5 text-[0.85rem] font-semibold text-honey">
                        {counted(r.toCome, "line")} to come
                      </span>
                    )}
                  </>
                ),
              },
              { head: "Lines", cell: (r) => r.lines },
              { head: "Scan", cell: (r) => (r.scans > 0 ? "kept" : "") },
              { head: "Paid", as: "figure", cell: (r) => money(r.paid, currency) },
            ]}
          />
          <p className="mt-4 flex gap-6">
            {page > 0 && (
              <Link to={page > 1 ? `/shelf/receipts?page=${page - 1}` : "/shelf/receipts"} className="pressable">
                Newer
              </Link>
            )}
            {more && (
              <Link to={`/shelf/receipts?page=${page + 1}`} className="pressable">
                Older
              </Link>
            )}
          </p>
        </Sheet>
      )}
    </>
  );
}
