/** Suppliers, customers or markets from a spreadsheet's file or a paste: shown first, added as one act. */
import { CONTACT_KINDS, CONTACTS, isContactKind, type ContactKind } from "#core/contact";
import { PEOPLE, readPeople, type Person } from "#core/listsIn/people";
import { addContacts, calledSo } from "#db/contacts/contacts";
import { Link } from "react-router";
import { db } from "../server/workshop.server.ts";
import { listAction } from "../forms/table/listFile.server.ts";
import { ListFile } from "../forms/table/listFile.tsx";
import { Choice } from "../ui/fields/form.tsx";
import type { Route } from "./+types/file";

export const meta: Route.MetaFunction = () => [{ title: "Suppliers, customers, markets, from a file · Zelbin" }];

export function loader({ request }: Route.LoaderArgs) {
  const of = new URL(request.url).searchParams.get("of") ?? "";
  return { kind: isContactKind(of) ? of : ("supplier" as const), token: crypto.randomUUID() };
}

const kindIn = (of: string | undefined): ContactKind => (isContactKind(of ?? "") ? (of as ContactKind) : "supplier");

export const action = ({ request }: Route.ActionArgs) =>
  listAction(request, {
    spec: PEOPLE,
    words: ["name", "names"],
    read: async ({ rows, extras }) => {
      const kind = kindIn(extras.kind);
      const list = readPeople(rows, await calledSo(db(), kind));
      return { list, more: null, add: (doing) => addContacts(db(), { kind, people: list.fresh }, doing) };
    },
  });

export default function PeopleFile({ loaderData: { kind, token } }: Route.ComponentProps) {
  return (
    <ListFile<keyof typeof PEOPLE.fields, Person, null>
      spec={PEOPLE}
      token={token}
      title="People, from a file"
      about="A spreadsheet’s file, or rows pasted from one: a name, and how to reach them where you have it. Nobody is added before you have looked."
      links={
        <Link to={`/people?of=${kind}`} className="act">
          All {CONTACTS[kind].all.toLowerCase()}
        </Link>
      }
      placeholder={"name;address;telephone;e-mail\nWether Mill;Mill Lane 3;0555 0101;orders@mill.example"}
      words={["name", "names"]}
      extras={{ kind }}
      above={(extras, set) => (
        <Choice
          className="mb-4 max-w-xs"
          label="They are"
          options={CONTACT_KINDS.map((k) => [k, CONTACTS[k].all] as const)}
          value={kindIn(extras.kind)}
          onChange={(e) => set({ kind: e.target.value })}
        />
      )}
      columns={[
        { head: "Name", cell: (p) => <span className="font-display text-lead">{p.name}</span> },
        { head: "How to reach", plain: true, cell: (p) => <span className="whitespace-pre-line">{p.reach}</span> },
        { head: "Noted", plain: true, cell: (p) => p.note },
      ]}
    />
  );
}
