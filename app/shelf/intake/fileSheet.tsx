/** Stock from a spreadsheet's file or a paste: match the columns, look at what it would become, then put it on the shelf. */
import type { Purpose } from "#core/intake/receipt";
import { counted } from "#core/words";
import { useEffect, useState, type ReactNode } from "react";
import { useFetcher } from "react-router";
import type { Reply } from "../../forms/sheet.server.ts";
import { Area, Button, Problem } from "../../ui/form.tsx";
import { Heading, Sheet } from "../../ui/sheet.tsx";
import { FilePreview } from "./filePreview.tsx";
import type { Preview } from "./intake.server.ts";

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
  /** Further choices of the sheet, sent along. */
  more?: Record<string, string>;
  children?: ReactNode;
}

export function FileSheet({ purpose, names, token, title, about, links, placeholder, more = {}, children }: FileProps) {
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
      <Heading title={title} about={about}>
        {links}
        <Button
          main
          disabled={!preview || preview.intake.lines === 0 || put.state !== "idle"}
          onClick={() => void put.submit({ ...sheet, ...more, token, intent: "receive" }, { method: "post", encType: "application/json" })}
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
            placeholder={placeholder}
            onChange={(e) => {
              setFileName("");
              setText(e.target.value);
            }}
          />
        </div>
        {children}
        {preview && (
          <FilePreview
            purpose={purpose}
            preview={preview}
            names={names}
            {...{ columns, setColumns, matches, setMatches, setNumbers, setDates, supplier, setSupplier }}
          />
        )}
      </Sheet>
    </>
  );
}
