/** One act, opened: what it did, to which records, what it moved, and what it corrected or was corrected by. */
import { Link } from "react-router";
import { isKeyOf } from "#core/objects";
import { ACTS_SAID } from "#core/act/kinds";
import { kind, KINDS } from "#core/material/kinds";
import { micros } from "#core/measure/exact";
import { REASONS } from "#core/ledger/reasons";
import { sayFullDay } from "#core/when";
import { readAct } from "#db/acts/book";
import { db } from "../server/workshop.server.ts";
import { idOf } from "../forms/ids.ts";
import { Money, showInColumn, When } from "../ui/figures/amounts.tsx";
import { Figure, Reckoner } from "../ui/figures/reckoner.tsx";
import { Print } from "../ui/sheet/print.tsx";
import { Heading, Part, Sheet, SideBySide } from "../ui/sheet/sheet.tsx";
import { TakeBack } from "./takeBackPress.tsx";
import { Record } from "./record.tsx";
import { Table } from "../ui/lists/table.tsx";
import type { Route } from "./+types/act";

export const meta: Route.MetaFunction = () => [{ title: "The book · Zelbin" }];

export async function loader({ params }: Route.LoaderArgs) {
  const found = await readAct(db(), idOf(params.id));
  if (!found) throw new Response("Not found", { status: 404 });
  return found;
}

const measuredOf = (k: string | null) => (k !== null && isKeyOf(KINDS, k) ? kind(k).measured : "count");

export default function Act({ loaderData: { act: a, about, moved, others, never } }: Route.ComponentProps) {
  const other = (id: number | null) => others.find((o) => o.id === id);
  const taken = other(a.undoneBy);
  const undone = other(a.undoes);
  const seen = other(a.seen);
  const at = new Date(a.at);
  return (
    <>
      <Heading title={a.summary} about={`${ACTS_SAID[a.kind].say}, ${sayFullDay(a.day)}.`}>
        <Link to="/book" className="act">
          The book
        </Link>
        {a.path !== "/" && (
          <Link to={a.path} className="act">
            Where it led
          </Link>
        )}
        <Print />
        {a.undoneBy === null && never === null && <TakeBack actId={a.id} main />}
      </Heading>
      <SideBySide
        reckoner={
          <Reckoner title="In short">
            <Figure label="Who" value={a.who || "—"} />
            <Figure label="For the day" value={<When day={a.day} />} />
            <Figure
              label="Entered"
              value={at.toLocaleString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" })}
            />
            <Figure label="State" value={a.undoneBy !== null ? "taken back" : a.undoes !== null ? "takes back another" : "in effect"} />
            {never !== null && a.undoes === null && (
              <p className="py-2 text-small text-pine-soft">It can't be taken back with a press. {never}</p>
            )}
          </Reckoner>
        }
      >
        <Sheet>
          {taken && (
            <p className="mb-4">
              Taken back by{" "}
              <Link to={`/book/${taken.id}`} className="underline underline-offset-4">
                {taken.summary}
              </Link>
            </p>
          )}
          {undone && (
            <p className="mb-4">
              Takes back{" "}
              <Link to={`/book/${undone.id}`} className="underline underline-offset-4">
                {undone.summary}
              </Link>
            </p>
          )}
          {seen && (
            <p className="mb-4 text-pine-soft">
              The sheet showed what was saved by{" "}
              <Link to={`/book/${seen.id}`} className="underline underline-offset-4">
                {seen.summary}
              </Link>
            </p>
          )}
          {about.length > 0 && (
            <Part title="About">
              <ul className="grid gap-x-6 gap-y-1 sm:grid-cols-2">
                {about.map((s) => (
                  <li key={`${s.kind} ${s.id}`}>
                    <Record of={s} />
                    {s.changes && <span className="text-small text-pine-soft">, changed</span>}
                  </li>
                ))}
              </ul>
            </Part>
          )}
          <Part title="What it moved">
            {moved.length === 0 ? (
              <p className="text-pine-soft">It moved no stock.</p>
            ) : (
              <Table
                rows={moved}
                by={(m) => m.id}
                columns={[
                  {
                    head: "Lot",
                    cell: (m) => (
                      <Link to={`/lots/${encodeURIComponent(m.number)}`} className="weight underline underline-offset-4">
                        {m.number}
                      </Link>
                    ),
                  },
                  {
                    head: "Of",
                    plain: true,
                    cell: (m) => (
                      <>
                        {m.name}
                        {m.label && <span className="text-pine-soft">, {m.label}</span>}
                      </>
                    ),
                  },
                  {
                    head: "Why",
                    plain: true,
                    cell: (m) => (
                      <>
                        {REASONS[m.reason].say}
                        {m.note && <span className="text-pine-soft">, {m.note}</span>}
                      </>
                    ),
                  },
                  {
                    head: "Amount",
                    as: "weight",
                    cell: (m) => (m.qty === 0 ? "—" : `${m.qty < 0 ? "−" : "+"}${showInColumn(Math.abs(m.qty), measuredOf(m.kind))}`),
                  },
                  {
                    head: "Value",
                    as: "figure",
                    cell: (m) => (
                      <span>
                        {m.value < 0 && "−"}
                        <Money of={micros(Math.abs(m.value))} />
                      </span>
                    ),
                  },
                ]}
              />
            )}
          </Part>
        </Sheet>
      </SideBySide>
    </>
  );
}
