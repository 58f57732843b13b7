/** Suppliers, customers or markets from a spreadsheet's file or a paste: shown first, added as one act. */
import { CONTACT_KINDS, CONTACTS, isContactKind } from "#core/contact";
import { PEOPLE_FIELD_IDS, PEOPLE_FIELDS, peopleTable, readPeople, type PeopleColumns, type Person } from "#core/intake/people";
import { readRows } from "#core/intake/table";
import { isObject } from "#core/objects";
import { counted } from "#core/words";
import { addContacts, calledSo } from "#db/contacts/contacts";
import { createHash } from "node:crypto";
import { useEffect } from "react";
import { data, Link, useFetcher } from "react-router";
import { object } from "yup";
import { db } from "../server/workshop.server.ts";
import { noteText, oneOf, requiredText } from "../forms/fields.ts";
import { intentOf, readPosted, refuseSheet, runAct, validateSheet, type Reply } from "../forms/sheet.server.ts";
import { HeldBack, SheetSays } from "../forms/sheetSays.tsx";
import { TableSource } from "../forms/table/tableSource.tsx";
import { useDebounced } from "../ui/useDebounced.ts";
import { useSheet } from "../forms/useSheet.ts";
import { Button, Choice, Problem } from "../ui/fields/form.tsx";
import { Table } from "../ui/lists/table.tsx";
import { Heading, Part, Sheet } from "../ui/sheet/sheet.tsx";
import type { Route } from "./+types/file";

export const meta: Route.MetaFunction = () => [{ title: "Suppliers, customers, markets, from a file · Zelbin" }];

/** More people than a maker knows; a longer list is split. */
const MOST_PEOPLE = 2000;
/** How much of a list is shown. */
const SHOWN = 40;

export function loader({ request }: Route.LoaderArgs) {
  const of = new URL(request.url).searchParams.get("of") ?? "";
  return { kind: isContactKind(of) ? of : ("supplier" as const), token: crypto.randomUUID() };
}

interface Preview {
  /** Of everybody who would be added: sent back with the order to do so. */
  digest: string;
  header: string[];
  columns: PeopleColumns;
  rows: number;
  shown: Person[];
  fresh: number;
  there: string[];
  problems: { row: number; say: string }[];
  /** Why nobody of it can be added; null where they can. */
  say: string | null;
}

const schema = object({
  intent: intentOf(["look", "add"]),
  kind: oneOf(CONTACT_KINDS),
  text: requiredText("a list", 8_000_000),
  shown: noteText(60),
});

/** The columns as they were chosen, where somebody has chosen. */
function chosen(guess: PeopleColumns, said: unknown, wide: number): PeopleColumns {
  const of = isObject(said) ? said : {};
  return Object.fromEntries(
    PEOPLE_FIELD_IDS.map((f) => {
      const at = Object.hasOwn(of, f) ? String(of[f]) : "";
      return [f, at === "none" ? null : /^\d{1,3}$/.test(at) && Number(at) < wide ? Number(at) : guess[f]];
    }),
  ) as PeopleColumns;
}

export async function action({ request }: Route.ActionArgs) {
  const body = await readPosted(request);
  if (!body.ok) return body.reply;
  const sheet = await validateSheet(body.body, schema);
  if (!sheet.ok) return sheet.reply;
  const { kind, text, intent, shown } = sheet.value;
  const rows = readRows(text, { least: 1 });
  if (!rows.ok) return refuseSheet([{ field: "text", say: rows.problem.say }]);
  const table = peopleTable(rows.value);
  const columns = chosen(table.columns, (body.body as Record<string, unknown>).columns, table.header.length);
  const { fresh, there, problems } = readPeople(columns.name === null ? [] : table.rows, columns, await calledSo(db(), kind));
  const say =
    columns.name === null
      ? "Say which column has the names."
      : fresh.length > MOST_PEOPLE
        ? `It has ${counted(fresh.length, "name")}; up to ${MOST_PEOPLE} at a time can be added. Split it.`
        : null;
  const digest = createHash("sha256")
    .update(JSON.stringify([kind, fresh]))
    .digest("base64url");
  if (intent === "look")
    return data({
      preview: {
        digest,
        header: table.header,
        columns,
        rows: table.rows.length,
        shown: fresh.slice(0, SHOWN),
        fresh: fresh.length,
        there: there.map((p) => p.name),
        problems,
        say,
      } satisfies Preview,
    });
  if (say !== null) return refuseSheet([{ field: "", say }]);
  if (fresh.length === 0) return refuseSheet([{ field: "", say: "Nobody in it is new." }]);
  if (digest !== shown) return refuseSheet([{ field: "", say: "It has changed since it was shown. Look at it again, then add them." }]);
  return runAct(() => addContacts(db(), { kind, people: fresh }, sheet.doing));
}

const PLACEHOLDER = "name;address;telephone;e-mail\nWether Mill;Mill Lane 3;0555 0101;orders@mill.example";

export default function PeopleFile({ loaderData: { kind, token } }: Route.ComponentProps) {
  const sheet = useSheet(
    { kind, text: "", fileName: "", shown: "", columns: {} },
    { token },
    { draft: (v) => v.fileName || "Names from a list" },
  );
  const v = sheet.values;
  const of = CONTACTS[v.kind];
  const listed = v.text.trim() !== "";
  const look = useFetcher<Reply | { preview: Preview } | null>();
  const asked = useDebounced(JSON.stringify([v.kind, v.text, v.columns]));
  useEffect(() => {
    if (listed) void look.submit({ ...v, intent: "look" }, { method: "post", encType: "application/json" });
    // What is looked at follows from the list and the choices beside it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [asked]);
  const preview = look.data && "preview" in look.data ? look.data.preview : null;
  const { setValue } = sheet;
  const digest = preview?.digest ?? "";
  // Nobody is added but who was looked at.
  useEffect(() => setValue("shown", digest), [digest, setValue]);
  const unread = look.data && "problems" in look.data ? look.data.problems[0]?.say : undefined;
  const waiting = look.state !== "idle" || asked !== JSON.stringify([v.kind, v.text, v.columns]);
  const n = listed && preview?.say === null ? preview.fresh : 0;
  return (
    <>
      <Heading
        title={`${of.all}, from a file`}
        about="A spreadsheet’s file, or rows pasted from one: a name, and how to reach them where you have it. Nobody is added before you have looked."
      >
        <Link to={`/people?of=${v.kind}`} className="act">
          All {of.all.toLowerCase()}
        </Link>
        <Button main disabled={n === 0 || sheet.busy || waiting} onClick={() => void sheet.send("add")()}>
          Add {n > 0 ? counted(n, of.say.toLowerCase(), of.all.toLowerCase()) : "them"}
        </Button>
        <HeldBack sheet={sheet} />
      </Heading>
      <Sheet>
        <SheetSays sheet={sheet} />
        <Choice
          className="mb-4 max-w-xs"
          label="They are"
          options={CONTACT_KINDS.map((k) => [k, CONTACTS[k].all] as const)}
          {...sheet.register("kind")}
        />
        <TableSource
          text={v.text}
          fileName={v.fileName}
          found={counted(preview?.rows ?? 0, "line")}
          placeholder={PLACEHOLDER}
          problem={unread ?? sheet.formState.errors.text?.message}
          onText={(text, fileName) => {
            for (const [field, value] of Object.entries({ text, fileName, columns: {} }))
              setValue(field as "text", value as string, { shouldDirty: true });
          }}
        />
        {preview && listed && (
          <>
            <Part title="Which column is which" aside={<span className="text-pine-soft">{counted(preview.rows, "row")}</span>}>
              <div className="grid gap-3 sm:grid-cols-5">
                {PEOPLE_FIELD_IDS.map((f) => (
                  <Choice
                    key={f}
                    label={PEOPLE_FIELDS[f]}
                    value={preview.columns[f] === null ? "none" : String(preview.columns[f])}
                    onChange={(e) => setValue("columns", { ...v.columns, [f]: e.target.value }, { shouldDirty: true })}
                    options={[
                      ["none", f === "name" ? "— choose —" : "not in it"],
                      ...preview.header.map((h, i) => [String(i), h] as const),
                    ]}
                  />
                ))}
              </div>
              <Problem say={preview.say} />
            </Part>
            {preview.problems.length > 0 && (
              <Part title={`${counted(preview.problems.length, "row")} left out`}>
                <ul className="max-h-52 space-y-0.5 overflow-y-auto text-small text-berry">
                  {preview.problems.slice(0, SHOWN).map((p) => (
                    <li key={p.row}>
                      Row {p.row}: {p.say}
                    </li>
                  ))}
                  {preview.problems.length > SHOWN && <li>And {preview.problems.length - SHOWN} more.</li>}
                </ul>
              </Part>
            )}
            {preview.there.length > 0 && (
              <Part title={`${counted(preview.there.length, "name")} known already`}>
                <p className="text-pine-soft">
                  Nothing of theirs is changed: {preview.there.slice(0, SHOWN).join(", ")}
                  {preview.there.length > SHOWN && ` and ${preview.there.length - SHOWN} more`}.
                </p>
              </Part>
            )}
            {n > 0 && (
              <Part title={`To add: ${counted(n, of.say.toLowerCase(), of.all.toLowerCase())}`}>
                <Table
                  rows={preview.shown}
                  by={(p) => p.row}
                  columns={[
                    { head: "Row", as: "figure", className: "w-16", cell: (p) => p.row },
                    { head: "Name", cell: (p) => <span className="font-display text-lead">{p.name}</span> },
                    { head: of.reach, plain: true, cell: (p) => <span className="whitespace-pre-line">{p.reach}</span> },
                    { head: "Noted", plain: true, cell: (p) => p.note },
                  ]}
                />
                {n > SHOWN && <p className="pt-2 text-pine-soft">And {n - SHOWN} more.</p>}
              </Part>
            )}
          </>
        )}
      </Sheet>
    </>
  );
}
