/** Every recall there was, and every rehearsal of one. */
import { Link } from "react-router";
import { sayElapsed } from "#core/lot/recall";
import { wordList } from "#core/words";
import { listRecalls } from "#db/lots/recalls";
import { db } from "../../server/workshop.server.ts";
import { When } from "../../ui/figures/amounts.tsx";
import { ListTable } from "../../ui/lists/listTable.tsx";
import { Empty, Heading, Part, Sheet } from "../../ui/sheet/sheet.tsx";
import type { Route } from "./+types/recalls";

export const meta: Route.MetaFunction = () => [{ title: "Recalls · Zelbin" }];

export async function loader() {
  const rows = await listRecalls(db());
  return rows.map(({ begunAt, closedAt, ...r }) => ({
    ...r,
    closed: closedAt !== null,
    took: closedAt === null ? null : closedAt.getTime() - begunAt.getTime(),
  }));
}

const Begin = ({ rehearse = false }: { rehearse?: boolean }) => (
  <Link to={`/lots/recalls/new${rehearse ? "?rehearse=1" : ""}`} className={`act ${rehearse ? "act-main" : ""}`}>
    {rehearse ? "Rehearse one" : "Recall a lot"}
  </Link>
);

export default function Recalls({ loaderData: rows }: Route.ComponentProps) {
  const open = rows.filter((r) => r.took === null);
  const closed = rows.filter((r) => r.took !== null);
  const table = (what: string, of: typeof rows) => (
    <ListTable
      what={what}
      rows={of}
      by={(r) => r.id}
      finds={(r) => `${r.reason} ${r.starts.map((s) => `${s.number} ${s.name}`).join(" ")}`}
      columns={[
        {
          head: "What",
          cell: (r) => (
            <Link to={`/lots/recalls/${r.id}`} className="font-semibold hover:underline">
              {r.rehearsal ? "Rehearsal" : "Recall"} {r.id}
            </Link>
          ),
        },
        {
          head: "Began with",
          plain: true,
          cell: (r) => (
            <>
              {wordList([...new Set(r.starts.map((s) => s.name))])}{" "}
              <span className="weight text-fine text-pine-soft">{r.starts.map((s) => s.number).join(", ")}</span>
            </>
          ),
        },
        { head: "Why", plain: true, cell: (r) => r.reason },
        { head: "Begun", sorts: (r) => r.day, cell: (r) => <When day={r.day} /> },
        {
          head: "Took",
          as: "figure",
          sorts: (r) => r.took,
          cell: (r) => (r.took === null ? <strong className="text-honey">still open</strong> : sayElapsed(r.took)),
        },
        { head: "Came to", plain: true, className: "text-small", cell: (r) => r.came },
      ]}
    />
  );
  return (
    <>
      <Heading
        title="Recalls"
        about="From a supplier’s notice to every tin: where each one is, who has it, and who was told. Rehearse it once a year, so that the real one takes minutes."
      >
        <Link to="/lots" className="act">
          All lots
        </Link>
        {rows.length > 0 && (
          <>
            <Begin />
            <Begin rehearse />
          </>
        )}
      </Heading>
      {rows.length === 0 ? (
        <Empty
          title="Nothing was ever recalled"
          act={
            <>
              <Begin />
              <Begin rehearse />
            </>
          }
        >
          A rehearsal holds nothing and tells nobody. It shows how long it would take, and what can’t be found.
        </Empty>
      ) : (
        <Sheet>
          {open.length > 0 && <Part title="Under way">{table("open recalls", open)}</Part>}
          {closed.length > 0 && <Part title="Closed">{table("closed recalls", closed)}</Part>}
        </Sheet>
      )}
    </>
  );
}
