/** One supplier, customer or market: how to reach them, what was noted, and all the books say of them. */
import { Link } from "react-router";
import { CONTACT_KINDS, CONTACTS, isContactKind } from "#core/contact";
import { readContact, saveContact } from "#db/contacts/contacts";
import { counted } from "#core/words";
import { object } from "yup";
import { AWAY_SAID, Keeping } from "../away/keeping.tsx";
import { ActsOf } from "../book/actsOf.tsx";
import { actsOf } from "../book/lines.server.ts";
import { db } from "../server/workshop.server.ts";
import { noteText, oneOf, requiredText } from "../forms/fields.ts";
import { idOf } from "../forms/ids.ts";
import { openSheet } from "../forms/openSheet.server.ts";
import { runAct, readSheet } from "../forms/sheet.server.ts";
import { useSheet } from "../forms/useSheet.ts";
import { When } from "../ui/figures/amounts.tsx";
import { Area, Text } from "../ui/fields/form.tsx";
import { Print } from "../ui/sheet/print.tsx";
import { Heading, Part, Sheet } from "../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../forms/sheetSays.tsx";
import { ListTable } from "../ui/lists/listTable.tsx";
import type { Route } from "./+types/contact";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${(loaderData as { contact?: { name: string } | null } | undefined)?.contact?.name ?? "Somebody new"} · Zelbin` },
];

const textsOf = (c: { name: string; reach: string; note: string } | null) => ({
  name: c?.name ?? "",
  reach: c?.reach ?? "",
  note: c?.note ?? "",
});

export async function loader({ request, params }: Route.LoaderArgs) {
  const id = "id" in params ? idOf(params.id) : null;
  const asked = new URL(request.url).searchParams;
  const like = id === null && asked.has("like") ? await readContact(db(), idOf(asked.get("like")!)) : null;
  const found = id === null ? null : await readContact(db(), id);
  if (id !== null && !found) throw new Response("Not found", { status: 404 });
  const of = asked.get("of") ?? "";
  const record = id === null ? null : ({ kind: "contact", id } as const);
  return {
    kind: found?.contact.kind ?? like?.contact.kind ?? (isContactKind(of) ? of : "supplier"),
    contact: found?.contact ?? null,
    // A copy is of what was noted; the name is somebody else's.
    texts: like ? { ...textsOf(like.contact), name: "" } : textsOf(found?.contact ?? null),
    mentions: found?.mentions ?? [],
    opened: await openSheet(record),
    book: record && (await actsOf(record)),
  };
}

const schema = object({ kind: oneOf(CONTACT_KINDS), name: requiredText("a name", 120), reach: noteText(200), note: noteText(1000) });

export async function action({ request, params }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const id = "id" in params ? idOf(params.id) : undefined;
  return runAct(() => saveContact(db(), { ...sheet.value, id }, sheet.doing), {
    theirs: async () => textsOf((await readContact(db(), id ?? 0))?.contact ?? null),
  });
}

export default function ContactPage({ loaderData }: Route.ComponentProps) {
  return <ContactSheet key={`${loaderData.contact?.id ?? "new"} ${loaderData.opened.seen}`} {...loaderData} />;
}

type Loaded = Route.ComponentProps["loaderData"];

/** Where the next one is begun with the name filled in already. */
const NEXT = {
  supplier: ["/shelf/receive?supplier=", "Receive a purchase"],
  customer: ["/gifts/new?for=", "Write an order"],
  market: ["/markets/new?at=", "Plan a day there"],
} as const;

const MENTIONED: Record<Loaded["mentions"][number]["what"], (n: number) => string> = {
  receipt: (n) => `Receipt, ${counted(n, "line")}`,
  offer: () => "Offer noted",
  order: (n) => `Order to pack, ${counted(n, "unit")}`,
  packed: (n) => `Order packed, ${counted(n, "unit")}`,
  day: (n) => `Day planned, ${counted(n, "unit")} along`,
  sold: (n) => `Day closed, ${counted(n, "unit")} sold`,
};

function ContactSheet({ kind, contact, texts, mentions, opened: sheetOpened, book }: Loaded) {
  const { say, reach, known } = CONTACTS[kind];
  const sheet = useSheet({ kind, ...texts }, sheetOpened, { draft: (v) => v.name || `A ${say.toLowerCase()}` });
  const { errors } = sheet.formState;
  const [to, next] = NEXT[kind];
  return (
    <form onSubmit={sheet.send()}>
      <Heading
        title={contact?.name ?? `Add a ${say.toLowerCase()}`}
        about={contact ? (contact.retired ? AWAY_SAID : `${say}, ${known} ${counted(mentions.length, "time")}.`) : undefined}
      >
        <Link to={`/people?of=${kind}`} className="act">
          All {CONTACTS[kind].all.toLowerCase()}
        </Link>
        {contact && (
          <Link to={`${to}${encodeURIComponent(contact.name)}`} className="act">
            {next}
          </Link>
        )}
        {contact && <Print />}
        <Send sheet={sheet}>Save</Send>
      </Heading>
      <Sheet>
        <SheetSays sheet={sheet} names={{ name: "Name", reach, note: "Note" }} />
        <div className="grid gap-4 sm:grid-cols-2">
          <Text
            label="Name"
            hint={contact ? "Older records show the old name, and still lead here." : undefined}
            {...sheet.register("name")}
            problem={errors.name?.message}
          />
          <Text label={reach} {...sheet.register("reach")} problem={errors.reach?.message} />
        </div>
        <Area className="mt-4" label="Note" {...sheet.register("note")} problem={errors.note?.message} />
        {mentions.length > 0 && (
          <Part title="In the books">
            <ListTable
              what="entries"
              rows={mentions}
              by={(m) => m.path + m.day}
              finds={(m) => `${m.asWritten} ${m.day}`}
              columns={[
                {
                  head: "Day",
                  sorts: (m) => m.day,
                  cell: (m) => (
                    <Link to={m.path} className="underline decoration-rule-strong underline-offset-4 hover:decoration-pine">
                      <When day={m.day} />
                    </Link>
                  ),
                },
                { head: "What", plain: true, cell: (m) => MENTIONED[m.what](m.n) },
                mentions.some((m) => m.asWritten !== contact?.name) && {
                  head: "Was called",
                  className: "text-pine-soft",
                  cell: (m) => (m.asWritten === contact?.name ? "" : m.asWritten),
                },
              ]}
            />
          </Part>
        )}
        {book && <ActsOf {...book} />}
        {contact && <Keeping of="contact" id={contact.id} retired={contact.retired} copy={`/people/new?like=${contact.id}`} />}
      </Sheet>
    </form>
  );
}
