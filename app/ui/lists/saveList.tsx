/**
 * A list as a CSV file, by a press under it: the rows it shows, in their order, all of them however many stand on the screen. Where each row
 * has lines (a receipt, a market day), a second press saves those.
 */
import type { FileColumn } from "#core/lists/fileColumns";
import { useEffect, useRef, useState } from "react";
import { useHref } from "react-router";
import { Problem } from "../fields/form.tsx";
import { useWorkshop } from "../workshop.ts";

/** The lines of a list's rows, each with the id of its row in `of`. */
export interface LinesFile<R, L extends { of: number }> {
  /** Where they are read: a resource route that answers `?of=3,4,7`. */
  from: string;
  /** What they are, together: "lines of receipts". */
  what: string;
  /** A row's number. */
  by: (row: R) => number;
  columns: readonly FileColumn<L>[];
}

interface Props<R, L extends { of: number }> {
  /** What the rows are, together: "orders". */
  what: string;
  rows: readonly R[];
  columns: readonly FileColumn<R>[];
  lines?: LinesFile<R, L>;
  /** There are more rows than these, which `ask` reads. */
  more?: boolean;
  ask?: () => void;
}

/** As many rows' lines as an address has room for are read at once. */
const AT_ONCE = 400;

async function linesOf<L extends { of: number }>(address: string, ids: readonly number[]): Promise<L[]> {
  const read: L[] = [];
  for (let at = 0; at < ids.length; at += AT_ONCE) {
    const reply = await fetch(`${address}?of=${ids.slice(at, at + AT_ONCE).join(",")}`);
    if (!reply.ok) throw new Error(String(reply.status));
    read.push(...((await reply.json()) as L[]));
  }
  // In the order of their rows; a row's own lines keep theirs.
  const place = new Map(ids.map((id, i) => [id, i]));
  return read.sort((a, b) => place.get(a.of)! - place.get(b.of)!);
}

function saveText(name: string, text: string): void {
  const at = URL.createObjectURL(new Blob([text], { type: "text/csv;charset=utf-8" }));
  Object.assign(document.createElement("a"), { href: at, download: name }).click();
  // The browser reads it after this turn.
  setTimeout(() => URL.revokeObjectURL(at), 1000);
}

export function SaveList<R, L extends { of: number } = never>({ what, rows, columns, lines, more = false, ask }: Props<R, L>) {
  const { currency, numbers, today } = useWorkshop();
  const address = useHref(lines?.from ?? "/");
  const [wanted, want] = useState<"rows" | "lines" | null>(null);
  const [problem, say] = useState<string | null>(null);
  const save = async (which: "rows" | "lines"): Promise<void> => {
    const { numbersInFiles, writeList } = await import("#core/lists/csv");
    const style = { numbers: numbersInFiles(numbers), currency };
    const text =
      which === "lines" && lines
        ? writeList(lines.columns, await linesOf<L>(address, rows.map(lines.by)), style)
        : writeList(columns, rows, style);
    saveText(`${(which === "lines" && lines ? lines.what : what).replaceAll(" ", "-")}-${today}.csv`, text);
  };
  const now = useRef(save);
  now.current = save;
  // Written once the whole list is here.
  useEffect(() => {
    if (wanted === null || more) return;
    want(null);
    now.current(wanted).catch(() => say("The list couldn't be read just now. Nothing was saved; try again."));
  }, [wanted, more]);
  const press = (which: "rows" | "lines") => () => {
    say(null);
    want(which);
    ask?.();
  };
  if (rows.length === 0) return null;
  return (
    <div className="no-print mt-3 flex flex-wrap items-baseline justify-end gap-x-5 text-small">
      <Problem say={problem} />
      <button type="button" className="pressable" disabled={wanted !== null} onClick={press("rows")} aria-label={`Save the ${what} as CSV`}>
        Save as CSV
      </button>
      {lines && (
        <button
          type="button"
          className="pressable"
          disabled={wanted !== null}
          onClick={press("lines")}
          aria-label={`Save the ${lines.what} as CSV`}
        >
          Their lines as CSV
        </button>
      )}
    </div>
  );
}
