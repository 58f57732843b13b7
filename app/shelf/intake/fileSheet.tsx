/** Stock from a spreadsheet's file or a paste: match the columns, look at what it would become, then put it on the shelf. */
import type { Purpose } from "#core/intake/columns";
import { counted } from "#core/words";
import { useEffect, useState, type ReactNode } from "react";
import { useFetcher } from "react-router";
import type { Reply } from "../../forms/sheet.server.ts";
import { useSheet } from "../../forms/useSheet.ts";
import { Waiting } from "../../forms/waiting.tsx";
import { Area, Button, Choice, Problem } from "../../ui/fields/form.tsx";
import { Heading, Sheet } from "../../ui/sheet/sheet.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { HeldBack, SheetSays } from "../../forms/sheetSays.tsx";
import type { Matching } from "./fileChoices.tsx";
import { FilePreview } from "./filePreview.tsx";
import { tablesOf } from "./chosenFile.ts";
import type { Preview } from "./intake.server.ts";
import type { SheetText } from "./workbookWorker.ts";

type Back = Reply | { preview: Preview } | null;

interface FileProps {
  purpose: Purpose;
  names: readonly string[];
  token: string;
  title: string;
  about: string;
  /** Where it can be typed instead. */
  links: ReactNode;
  placeholder: string;
  /** Whether the costs in it may be marked as guesses. */
  guesses?: boolean;
}

const NOTHING: Matching = {
  columns: {},
  matches: {},
  blanks: {},
  money: {},
  rates: {},
  numbers: "",
  dates: "",
  priceOf: "",
  supplier: "",
  day: "",
  twice: "",
};
const CHOICES = Object.keys(NOTHING) as (keyof Matching)[];
/** More than this is shown, not typed on. */
const TYPED_ON = 20_000;

export function FileSheet({ purpose, names, token, title, about, links, placeholder, guesses = false }: FileProps) {
  const sheet = useSheet(
    { ...NOTHING, text: "", fileName: "", known: "paid", shown: "" },
    { token },
    { draft: (v) => (v.fileName ? `${title}: ${v.fileName}` : title) },
  );
  const v = sheet.values;
  const { currency } = useWorkshop();
  const look = useFetcher<Back>();
  const [waiting, setWaiting] = useState(false);
  const [wrong, setWrong] = useState<string>();
  // A spreadsheet may have several; the one that is looked at is the text.
  const [tables, setTables] = useState<readonly SheetText[]>([]);
  const [reading, setReading] = useState(false);
  const choices = JSON.stringify(CHOICES.map((c) => v[c]));
  useEffect(() => {
    if (v.text.trim() === "") return;
    setWaiting(true);
    const wait = setTimeout(() => {
      setWaiting(false);
      void look.submit({ ...v, intent: "look" }, { method: "post", encType: "application/json" });
    }, 250);
    return () => clearTimeout(wait);
    // What is looked at follows from the text, to its last character, and the choices beside it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [v.text, choices]);
  const preview = look.data && "preview" in look.data ? look.data.preview : null;
  // Nothing is put on the shelf but what was looked at.
  const { setValue } = sheet;
  const digest = preview?.digest ?? "";
  useEffect(() => setValue("shown", digest), [digest, setValue]);
  const unread = look.data && "problems" in look.data ? look.data.problems[0]?.say : undefined;
  const set = (change: Partial<typeof v>): void => {
    for (const [field, value] of Object.entries(change)) sheet.setValue(field as keyof typeof v, value, { shouldDirty: true });
  };
  const load = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setReading(true);
    const tables = await tablesOf(file).finally(() => setReading(false));
    setWrong(tables.ok ? undefined : tables.problem.say);
    if (!tables.ok) return;
    setTables(tables.value);
    set({ ...NOTHING, fileName: file.name, text: tables.value[0]!.text });
  };
  const lines = preview?.intake.lines ?? 0;
  return (
    <>
      <Heading title={title} about={about}>
        {links}
        <Button main disabled={lines === 0 || sheet.busy || waiting || look.state !== "idle"} onClick={() => void sheet.send("receive")()}>
          {sheet.busy ? "Putting on the shelf …" : `Put ${lines > 0 ? counted(lines, "line") : ""} on the shelf`}
        </Button>
        <HeldBack sheet={sheet} />
      </Heading>
      <Sheet>
        <SheetSays sheet={sheet} />
        {sheet.busy && <Waiting token={sheet.token} what="Putting on the shelf" />}
        <Problem say={wrong ?? unread ?? sheet.formState.errors.text?.message} />
        <div className="grid gap-4 sm:grid-cols-[16rem_1fr]">
          <div>
            <label htmlFor="intake-file" className="mb-0.5 block text-small font-semibold">
              File
            </label>
            <input
              id="intake-file"
              type="file"
              accept=".csv,.tsv,.txt,.xlsx,text/csv,text/plain"
              className="field"
              onChange={(e) => void load(e.target.files?.[0])}
            />
            <p className="mt-0.5 text-fine text-pine-soft">
              {reading
                ? "Reading it …"
                : v.fileName
                  ? `${v.fileName}, ${counted(preview?.rows ?? 0, "line")}.`
                  : "CSV or .xlsx, up to 20\u202f000 lines. Or paste beside."}
            </p>
            {v.fileName && tables.length > 1 && (
              <Choice
                className="mt-3"
                label="Its sheet"
                value={String(tables.findIndex((t) => t.text === v.text))}
                onChange={(e) => set({ ...NOTHING, text: tables[Number(e.target.value)]!.text })}
                options={tables.map((t, i) => [String(i), t.name] as const)}
              />
            )}
            {/\.xlsx$/i.test(v.fileName) && (
              <p className="mt-2 text-fine text-honey">
                A currency that only a cell’s format shows is not seen: all its prices are taken to be in {currency}.
              </p>
            )}
          </div>
          <Area
            label="Rows"
            rows={4}
            className="[&_textarea]:font-mono [&_textarea]:text-fine"
            value={v.text.length > TYPED_ON ? `${v.text.slice(0, TYPED_ON)}\n…` : v.text}
            readOnly={v.text.length > TYPED_ON}
            placeholder={placeholder}
            onChange={(e) => set({ fileName: "", text: e.target.value })}
          />
        </div>
        {guesses && (
          <Choice
            className="mt-4 max-w-xs"
            label="The costs in it are"
            options={[
              ["paid", "what was paid"],
              ["guessed", "guesses, to be marked so"],
            ]}
            {...sheet.register("known")}
          />
        )}
        {preview && <FilePreview purpose={purpose} preview={preview} names={names} matching={v} set={set} />}
      </Sheet>
    </>
  );
}
