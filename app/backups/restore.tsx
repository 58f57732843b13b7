/** What is in an archive beside what is in the books now, and the one question before it takes their place. */
import { Link } from "react-router";
import { Button } from "../ui/fields/form.tsx";
import { Table, type Column } from "../ui/lists/table.tsx";
import { useSayDay } from "../ui/figures/amounts.tsx";
import { Caution, Sheet } from "../ui/sheet/sheet.tsx";
import type { Compared, ComparedRow } from "./compared.ts";

function Newest({ title, acts }: { title: string; acts: Compared["newestThen"] }) {
  const say = useSayDay();
  if (acts.length === 0) return null;
  return (
    <div>
      <h3 className="text-small font-semibold">{title}</h3>
      <ul className="text-small">
        {acts.map((a) => (
          <li key={a.id} className="py-0.5">
            <span className="text-pine-soft">{say(a.day)}</span> {a.what}
          </li>
        ))}
      </ul>
    </div>
  );
}

export function Restore({ of, busy, onLook, onRestore }: { of: Compared; busy: boolean; onLook: () => void; onRestore: () => void }) {
  const say = useSayDay();
  const hasBooks = of.rows.some((r) => r.now !== null);
  const columns: Column<ComparedRow>[] = [
    { head: "", cell: (r) => r.what },
    { head: "In the archive", as: "figure", cell: (r) => r.then },
    ...(hasBooks ? [{ head: "In your books now", as: "figure" as const, cell: (r: ComparedRow) => r.now }] : []),
  ];
  return (
    <Sheet label="An archive">
      <h2 className="text-title">{of.workshop || "A workshop without a name"}</h2>
      <p className="mt-1 mb-3 text-pine-soft">
        As it was on {say(of.asOf.slice(0, 10))}, written by Zelbin {of.zelbin}. The file is whole and unchanged.
      </p>
      <div className="grid items-start gap-6 md:grid-cols-[minmax(0,24rem)_minmax(0,1fr)]">
        <Table rows={of.rows} by={(r) => r.what} columns={columns} />
        <div className="space-y-3">
          <Newest title="Newest in the archive" acts={of.newestThen} />
          <Newest title="Newest in your books now" acts={of.newestNow} />
        </div>
      </div>
      <div className="mt-4 space-y-3">
        {hasBooks && (
          <Caution>
            The archive takes the place of your books. They aren’t lost: they are kept beside it under another name, and you can go back to
            them from this page.
          </Caution>
        )}
        <div className="flex flex-wrap gap-2">
          <Button main={!hasBooks} disabled={busy} onClick={onRestore}>
            {hasBooks ? "Put it in their place" : "Open it as your own workshop"}
          </Button>
          <Button disabled={busy} onClick={onLook}>
            Only look at it
          </Button>
          <Link to="/backups" className="act">
            Leave it
          </Link>
        </div>
      </div>
    </Sheet>
  );
}
