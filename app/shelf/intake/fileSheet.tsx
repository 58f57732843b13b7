/** Stock from a spreadsheet's file or a paste: match the columns, look at what it would become, then put it on the shelf. */
import type { Purpose } from "#core/intake/columns";
import { counted } from "#core/words";
import { useEffect, type ReactNode } from "react";
import { useSheet } from "../../forms/useSheet.ts";
import { TableSource } from "../../forms/table/tableSource.tsx";
import { useLook } from "../../forms/table/useLook.ts";
import { Waiting } from "../../forms/waiting.tsx";
import { Button, Choice } from "../../ui/fields/form.tsx";
import { Heading, Sheet } from "../../ui/sheet/sheet.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { HeldBack, SheetSays } from "../../forms/sheetSays.tsx";
import type { Matching } from "./fileChoices.tsx";
import { FilePreview } from "./filePreview.tsx";
import type { Preview } from "./intake.server.ts";

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
export function FileSheet({ purpose, names, token, title, about, links, placeholder, guesses = false }: FileProps) {
  const sheet = useSheet(
    { ...NOTHING, text: "", fileName: "", known: "paid", shown: "" },
    { token },
    { draft: (v) => (v.fileName ? `${title}: ${v.fileName}` : title) },
  );
  const v = sheet.values;
  const { currency } = useWorkshop();
  const { preview, unread, waiting } = useLook<Preview, typeof v>(v, CHOICES);
  // Nothing is put on the shelf but what was looked at.
  const { setValue } = sheet;
  const digest = preview?.digest ?? "";
  useEffect(() => setValue("shown", digest), [digest, setValue]);
  const set = (change: Partial<typeof v>): void => {
    for (const [field, value] of Object.entries(change)) sheet.setValue(field as keyof typeof v, value, { shouldDirty: true });
  };
  const lines = preview?.intake.lines ?? 0;
  return (
    <>
      <Heading title={title} about={about}>
        {links}
        <Button main disabled={lines === 0 || sheet.busy || waiting} onClick={() => void sheet.send("receive")()}>
          {sheet.busy ? "Putting on the shelf …" : `Put ${lines > 0 ? counted(lines, "line") : ""} on the shelf`}
        </Button>
        <HeldBack sheet={sheet} />
      </Heading>
      <Sheet>
        <SheetSays sheet={sheet} />
        {sheet.busy && <Waiting token={sheet.token} what="Putting on the shelf" />}
        <TableSource
          text={v.text}
          fileName={v.fileName}
          found={counted(preview?.rows ?? 0, "line")}
          placeholder={placeholder}
          problem={unread ?? sheet.formState.errors.text?.message}
          unseen={`A currency that only a cell’s format shows is not seen: all its prices are taken to be in ${currency}.`}
          onText={(text, fileName) => set({ ...NOTHING, text, fileName })}
        />
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
