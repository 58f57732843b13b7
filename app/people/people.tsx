/** Suppliers, customers and markets: everybody the books know, the one last dealt with first. */
import { CONTACT_KINDS, CONTACTS, isContactKind } from "#core/contact";
import { contactsOf } from "#db/contacts/contacts";
import { Link, useNavigate } from "react-router";
import { Tabs } from "radix-ui";
import { db } from "../server/workshop.server.ts";
import { When } from "../ui/figures/amounts.tsx";
import { Empty, Heading, Sheet } from "../ui/sheet/sheet.tsx";
import { ListTable } from "../ui/lists/listTable.tsx";
import { SaveList } from "../ui/lists/saveList.tsx";
import { useRemembered } from "../ui/lists/remembered.ts";
import { peopleFile } from "./peopleFile.ts";
import type { Route } from "./+types/people";

export const meta: Route.MetaFunction = () => [{ title: "Suppliers, customers, markets · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const asked = new URL(request.url).searchParams.get("of") ?? "";
  const kind = isContactKind(asked) ? asked : "supplier";
  return { kind, all: await contactsOf(db(), kind) };
}

const FIRST = {
  supplier: "Suppliers named on a receipt or an offer are added by themselves. Note how to order, or add one before the first parcel.",
  customer: "Customers named on an order are added by themselves. Note what they can't have on their skin.",
  market: "Markets are added when you plan a day there. Note who runs it and when the stall has to be up.",
} as const;

export default function People({ loaderData: { kind, all } }: Route.ComponentProps) {
  useRemembered("of");
  const go = useNavigate();
  const { say, known } = CONTACTS[kind];
  return (
    <>
      <Heading
        title="Suppliers, customers, markets"
        about="Who you buy from, whom you make for and where you sell, with what you noted of each."
      >
        <Link to={`/people/file?of=${kind}`} className="act">
          From a file
        </Link>
        <Link to={`/people/new?of=${kind}`} className="act act-main">
          Add a {say.toLowerCase()}
        </Link>
      </Heading>
      <Tabs.Root value={kind} onValueChange={(of) => void go(`/people?of=${of}`, { preventScrollReset: true })} activationMode="manual">
        <Tabs.List aria-label="Which" className="boards">
          {CONTACT_KINDS.map((k) => (
            <Tabs.Trigger key={k} value={k} className="board">
              {CONTACTS[k].all}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <Tabs.Content value={kind} tabIndex={-1}>
          {all.length === 0 ? (
            <Empty
              title={`No ${say.toLowerCase()} yet`}
              act={
                <Link to={`/people/new?of=${kind}`} className="act act-main">
                  Add a {say.toLowerCase()}
                </Link>
              }
            >
              {FIRST[kind]}
            </Empty>
          ) : (
            <Sheet>
              <ListTable
                key={kind}
                what={CONTACTS[kind].all.toLowerCase()}
                rows={all}
                by={(c) => c.id}
                under={(found) => <SaveList what={CONTACTS[kind].all.toLowerCase()} rows={found} columns={peopleFile(kind)} />}
                finds={(c) => `${c.name} ${c.reach} ${c.note}`}
                columns={[
                  {
                    head: "Name",
                    sorts: (c) => c.name,
                    cell: (c) => (
                      <>
                        <Link to={`/people/${c.id}`} className="font-display text-lead hover:underline">
                          {c.name}
                        </Link>
                        {c.retired && <span className="ml-2 text-small text-pine-soft">put away</span>}
                      </>
                    ),
                  },
                  { head: CONTACTS[kind].reach, cell: (c) => c.reach },
                  { head: "Noted", plain: true, cell: (c) => c.note },
                  {
                    head: known.charAt(0).toUpperCase() + known.slice(1),
                    as: "figure",
                    sorts: (c) => c.times,
                    cell: (c) => (c.times === 0 ? "never" : c.times === 1 ? "once" : `${c.times} times`),
                  },
                  { head: "Last", as: "figure", sorts: (c) => c.last ?? "", cell: (c) => <When day={c.last} /> },
                ]}
              />
            </Sheet>
          )}
        </Tabs.Content>
      </Tabs.Root>
    </>
  );
}
