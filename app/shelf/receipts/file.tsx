/** Receipts from a spreadsheet's file or a paste: match the columns, look at what it would become, then put it on the shelf. */
import { counted } from "#core/words";
import { receiveMany } from "#db/shelf/receive";
import { listMaterials } from "#db/shelf/materials";
import { today } from "#db/clock";
import { data, Link, useFetcher } from "react-router";
import { useEffect, useState } from "react";
import { object } from "yup";
import { db } from "../../db.server.ts";
import { note, reads } from "../../forms/fields.ts";
import { act, readSheet, refuseSheet, type Reply } from "../../forms/sheet.server.ts";
import { Area, Button, Problem } from "../../ui/form.tsx";
import { Heading, Sheet } from "../../ui/sheet.tsx";
import { FilePreview } from "./filePreview.tsx";
import { readFile, type Preview } from "./intake.server.ts";
import type { Route } from "./+types/file";

export const meta: Route.MetaFunction = () => [{ title: "Receipts from a file · Zelbin" }];

export const loader = async () => ({ names: (await listMaterials(db())).map((m) => m.name), token: crypto.randomUUID() });

/** About twenty thousand long lines. */
const MOST_CHARACTERS = 8_000_000;
const texts = () => reads<Record<string, string>>(() => ({ ok: true, value: {} }));
const schema = object({
  intent: note(20),
  text: reads((t) =>
    t.length > MOST_CHARACTERS
      ? { ok: false, problem: { code: "long", say: "That is too much at once. Split the file." } }
      : { ok: true, value: t },
  ),
  numbers: note(10),
  dates: note(10),
  supplier: note(120),
  columns: texts(),
  matches: texts(),
});

/** Texts by key, of whatever was posted. */
const textsIn = (v: unknown): Record<string, string> =>
  typeof v === "object" && v !== null
    ? Object.fromEntries(Object.entries(v).flatMap(([k, x]) => (typeof x === "string" ? [[k, x]] : [])))
    : {};

export async function action({ request }: Route.ActionArgs) {
  const body = await request.text();
  const sheet = await readSheet(new Request(request.url, { method: "POST", body }), schema);
  if (!sheet.ok) return sheet.reply;
  const posted = JSON.parse(body) as { columns?: unknown; matches?: unknown };
  const read = await readFile({ ...sheet.value, columns: textsIn(posted.columns), matches: textsIn(posted.matches) }, today());
  if (!read.ok) return refuseSheet([{ field: "text", say: read.problem.say }]);
  if (sheet.value.intent !== "receive") return data({ preview: read.value.preview });
  const { receipts, add, preview } = read.value;
  const asked = preview.asked.numbers || preview.asked.dates;
  if (asked) return refuseSheet([{ field: "", say: asked }]);
  if (receipts.length === 0)
    return refuseSheet([{ field: "", say: "No line of it can be received yet. Match the columns and the names first." }]);
  if (receipts.some((r) => r.day > today()))
    return refuseSheet([{ field: "", say: "A line of it is dated after today. Check the order of day and month." }]);
  return act(() => receiveMany(db(), { add, receipts }, sheet.doing));
}

type Back = Reply | { preview: Preview } | null;

export default function FromFile({ loaderData: { names, token } }: Route.ComponentProps) {
  const [text, setText] = useState("");
  const [fileName, setFileName] = useState("");
  const [columns, setColumns] = useState<Record<string, string>>({});
  const [matches, setMatches] = useState<Record<string, string>>({});
  const [numbers, setNumbers] = useState("");
  const [dates, setDates] = useState("");
  const [supplier, setSupplier] = useState("");
  const look = useFetcher<Back>();
  const put = useFetcher<Back>();
  const sheet = { text, columns, matches, numbers, dates, supplier };
  const key = JSON.stringify([text.length, fileName, columns, matches, numbers, dates, supplier]);
  useEffect(() => {
    if (text.trim() === "") return;
    const wait = setTimeout(() => void look.submit({ ...sheet, intent: "look" }, { method: "post", encType: "application/json" }), 250);
    return () => clearTimeout(wait);
    // What is looked at follows from the key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const problemIn = (back: Back | undefined): string | null => (back && "problems" in back ? (back.problems[0]?.say ?? null) : null);
  const preview = look.data && "preview" in look.data ? look.data.preview : null;
  const problem = problemIn(look.data) ?? problemIn(put.data);
  const load = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setColumns({});
    setMatches({});
    setNumbers("");
    setDates("");
    setFileName(file.name);
    setText(await file.text());
  };
  return (
    <>
      <Heading
        title="Receipts from a file"
        about="A CSV file of a spreadsheet or a shop, or rows pasted from one. Lines of one supplier on one day become one receipt; nothing is kept before you have looked."
      >
        <Link to="/shelf/receive" className="act">
          Type one instead
        </Link>
        <Button
          main
          disabled={!preview || preview.intake.lines === 0 || put.state !== "idle"}
          onClick={() => void put.submit({ ...sheet, token, intent: "receive" }, { method: "post", encType: "application/json" })}
        >
          {put.state !== "idle"
            ? "Putting on the shelf …"
            : `Put ${preview && preview.intake.lines > 0 ? counted(preview.intake.lines, "line") : ""} on the shelf`}
        </Button>
      </Heading>
      <Sheet>
        <Problem say={problem} />
        <div className="grid gap-4 sm:grid-cols-[16rem_1fr]">
          <div>
            <label htmlFor="intake-file" className="mb-0.5 block text-[0.9rem] font-semibold">
              File
            </label>
            <input
              id="intake-file"
              type="file"
              accept=".csv,.tsv,.txt,text/csv,text/plain"
              className="field"
              onChange={(e) => void load(e.target.files?.[0])}
            />
            <p className="mt-0.5 text-[0.86rem] text-pine-soft">Up to 20,000 lines. Or paste beside.</p>
          </div>
          <Area
            label="Rows"
            rows={4}
            className="[&_textarea]:font-mono [&_textarea]:text-[0.85rem]"
            value={text.length > 20_000 ? `${text.slice(0, 20_000)}\n…` : text}
            readOnly={text.length > 20_000}
            placeholder={"material;packs;size;price\nShea butter, unrefined;1;2,5 kg;33,20"}
            onChange={(e) => {
              setFileName("");
              setText(e.target.value);
            }}
          />
        </div>
        {preview && (
          <FilePreview
            preview={preview}
            names={names}
            {...{ columns, setColumns, matches, setMatches, setNumbers, setDates, supplier, setSupplier }}
          />
        )}
      </Sheet>
    </>
  );
}
