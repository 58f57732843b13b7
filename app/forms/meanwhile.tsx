/** Somebody saved the record while this sheet was open: both are shown, field by field, and neither is lost. */
import { Link } from "react-router";
import { useMemo, useState } from "react";
import { mergeSheets, joined, type Field, type Side } from "./mergeSheets.ts";
import type { Reply } from "./sheet.server.ts";
import { Button } from "../ui/fields/form.tsx";
import { Table, type Column } from "../ui/lists/table.tsx";

interface Open {
  changed: Reply["changed"] | null | undefined;
  base: object;
  getValues: () => object;
  settle: (chosen: never) => void;
}

/** What a field holds, in a line. */
function inWords(value: unknown): string {
  if (value === undefined || value === null || value === "") return "nothing";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "string" || typeof value === "number") return String(value);
  if (typeof value !== "object") return "";
  const parts = Array.isArray(value)
    ? value.map(inWords)
    : Object.entries(value).flatMap(([k, v]) => (k === "id" || k === "means" || v === "" ? [] : [inWords(v)]));
  return parts.filter((p) => p !== "nothing").join(" · ") || "nothing";
}

/** @param names what the sheet calls its fields, by their path; a row by its table's, with its number */
export function EditConflictChoices({ sheet, names }: { sheet: Open; names: Readonly<Record<string, string>> }) {
  return sheet.changed ? <Both key={sheet.changed.actId} sheet={sheet} changed={sheet.changed} names={names} /> : null;
}

function Both({ sheet, changed, names }: { sheet: Open; changed: NonNullable<Reply["changed"]>; names: Readonly<Record<string, string>> }) {
  const fields = useMemo(
    () => mergeSheets(sheet.base as never, sheet.getValues() as never, changed.theirs),
    // The sheets as they were when the answer came; what is typed below meanwhile is settled with them.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [changed],
  );
  const [chosen, choose] = useState<Record<string, Side>>({});
  const sideOf = (f: Field): Side => f.settled ?? chosen[f.path] ?? "mine";
  const nameOf = (path: string): string => {
    const [key, row] = path.split(".") as [string, string | undefined];
    const name = names[path] ?? names[key] ?? key;
    return row !== undefined && /^\d+$/.test(row) ? `${name}, row ${Number(row) + 1}` : name;
  };
  const at = new Date(changed.at).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
  const asked = fields.filter((f) => f.settled === null);
  return (
    <section aria-label="Changed meanwhile" className="mb-5 rounded border-l-4 border-honey bg-honey-wash px-4 py-3">
      <h2 className="text-lead">Changed meanwhile</h2>
      <p className="mb-2">
        {changed.who} saved it at {at}:{" "}
        <Link to={`/book/${changed.actId}`} className="underline underline-offset-4">
          {changed.summary}
        </Link>
        . {asked.length === 0 ? "You changed different fields; both changes are below." : "Choose for each field that was changed on both."}
      </p>
      <Table
        rows={fields}
        by={(f) => f.path}
        columns={[
          { head: "Field", className: "font-semibold!", cell: (f) => nameOf(f.path) },
          ...(["mine", "theirs"] as const).map((side): Column<Field> => ({
            head: side === "mine" ? "Yours" : "Theirs",
            cell: (f) => (
              <label className={`flex items-baseline gap-2 ${sideOf(f) === side ? "font-semibold" : "text-pine-soft"}`}>
                <input
                  type="radio"
                  name={`both-${f.path}`}
                  checked={sideOf(f) === side}
                  disabled={f.settled !== null}
                  onChange={() => choose({ ...chosen, [f.path]: side })}
                />
                <span>{inWords(f[side])}</span>
              </label>
            ),
          })),
        ]}
      />
      <Button
        small
        className="mt-2"
        onClick={() => sheet.settle(joined(sheet.getValues() as never, changed.theirs, fields, sideOf) as never)}
      >
        Go on with this
      </Button>
      <p className="mt-1 text-small text-pine-soft">Then look it over and save it.</p>
    </section>
  );
}
