/** Where a list comes from: a file, one of its sheets, or rows pasted beside. */
import { useState } from "react";
import { Area, Choice, Problem } from "../../ui/fields/form.tsx";
import { tablesOf } from "./chosenFile.ts";
import type { SheetText } from "./workbookWorker.ts";

/** More than this is shown, not typed on. */
const TYPED_ON = 20_000;

/** A longer paste goes round the field: a browser needs seconds to put a year's rows into one. */
const PASTED_WHOLE = 2000;

interface Props {
  text: string;
  /** Of the chosen file; empty where rows were pasted. */
  fileName: string;
  /** How much was found in it, in words. */
  found: string;
  placeholder: string;
  /** Why the text can't be read. */
  problem: string | undefined;
  /** What spreadsheets don't tell of this list. */
  unseen?: string;
  /** Another text, and of which file. What was chosen for the last one no longer counts. */
  onText: (text: string, fileName: string) => void;
}

export function TableSource({ text, fileName, found, placeholder, problem, unseen, onText }: Props) {
  const [wrong, setWrong] = useState<string>();
  // A spreadsheet may have several; the one that is looked at is the text.
  const [tables, setTables] = useState<readonly SheetText[]>([]);
  const [reading, setReading] = useState(false);
  const load = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setReading(true);
    const read = await tablesOf(file).finally(() => setReading(false));
    setWrong(read.ok ? undefined : read.problem.say);
    if (!read.ok) return;
    setTables(read.value);
    onText(read.value[0]!.text, file.name);
  };
  return (
    <>
      <Problem say={wrong ?? problem} />
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
            {reading ? "Reading it …" : fileName ? `${fileName}, ${found}.` : "CSV or .xlsx, up to 20\u202f000 lines. Or paste beside."}
          </p>
          {fileName && tables.length > 1 && (
            <Choice
              className="mt-3"
              label="Its sheet"
              value={String(tables.findIndex((t) => t.text === text))}
              onChange={(e) => onText(tables[Number(e.target.value)]!.text, fileName)}
              options={tables.map((t, i) => [String(i), t.name] as const)}
            />
          )}
          {unseen && /\.xlsx$/i.test(fileName) && <p className="mt-2 text-fine text-honey">{unseen}</p>}
        </div>
        <Area
          label="Rows"
          rows={4}
          className="[&_textarea]:font-mono [&_textarea]:text-fine"
          value={text.length > TYPED_ON ? `${text.slice(0, TYPED_ON)}\n…` : text}
          readOnly={text.length > TYPED_ON}
          hint={text.length > TYPED_ON ? "Too long to type on. Paste another list over it, or choose a file." : undefined}
          placeholder={placeholder}
          onChange={(e) => onText(e.target.value, "")}
          onPaste={(e) => {
            const pasted = e.clipboardData.getData("text/plain").replace(/\r\n?/g, "\n");
            const { value, selectionStart, selectionEnd, readOnly } = e.currentTarget;
            if (pasted === "" || (pasted.length < PASTED_WHOLE && !readOnly)) return;
            e.preventDefault();
            onText(readOnly ? pasted : value.slice(0, selectionStart) + pasted + value.slice(selectionEnd), "");
          }}
        />
      </div>
    </>
  );
}
