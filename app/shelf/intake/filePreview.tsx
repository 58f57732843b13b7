/** What a file would become: its columns, unknown names, lines that can't be read, and the first of those that can. */
import { DATE_ORDERS, NUMBER_STYLES } from "#core/intake/loose";
import { FIELDS, isNeeded, PURPOSES, type FieldId, type Purpose } from "#core/intake/receipt";
import { KINDS, KIND_IDS } from "#core/material/kinds";
import { money } from "#core/measure/money";
import { counted } from "#core/words";
import { useState } from "react";
import { When } from "../../ui/figures/amounts.tsx";
import { Choice, Problem, Text } from "../../ui/fields/form.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import type { Preview } from "./intake.server.ts";

/** The choices made beside a file. */
export type Matching = {
  columns: Record<string, string>;
  matches: Record<string, string>;
  numbers: string;
  dates: string;
  supplier: string;
};

interface PreviewProps {
  purpose: Purpose;
  preview: Preview;
  names: readonly string[];
  matching: Matching;
  set: (change: Partial<Matching>) => void;
}

/** The choices, with a blank one as long as nobody has chosen. */
const asking = (value: string, of: Readonly<Record<string, string>>): (readonly [string, string])[] => [
  ...(value === "" ? [["", "— choose —"] as const] : []),
  ...Object.entries(of),
];

/** What opening stock calls its columns, where it is another word. */
const OPENING: Partial<Record<FieldId, string>> = { price: "Cost of all", day: "Bought on", supplierLot: "Lot on it", packSize: "Amount" };

export function FilePreview({ purpose, preview: p, names, matching: { columns, matches, supplier }, set }: PreviewProps) {
  const { currency } = useWorkshop();
  // What the library had for a name is still offered once it was taken.
  const [known] = useState(() => new Map<string, { key: string; name: string }>());
  for (const u of p.intake.unknown) if (u.library) known.set(u.name, u.library);
  const asked = [...new Set([...p.intake.unknown.map((u) => u.name), ...Object.keys(matches)])];
  const fromLibrary = p.intake.unknown.filter((u) => u.library && !matches[u.name]);
  return (
    <>
      <Part title="Which column is which" aside={<span className="text-pine-soft">{counted(p.rows, "line")}</span>}>
        <div className="grid gap-3 sm:grid-cols-4">
          {PURPOSES[purpose].fields.map((f) => (
            <Choice
              key={f}
              label={purpose === "opening" ? (OPENING[f] ?? FIELDS[f]) : FIELDS[f]}
              value={p.mapping[f] === null ? "none" : String(p.mapping[f])}
              onChange={(e) => set({ columns: { ...columns, [f]: e.target.value } })}
              options={[
                ["none", isNeeded(purpose, f) ? "— choose —" : "not in it"],
                ...p.header.map((h, i) => [String(i), `${h}${p.sample[0]?.[i] ? ` · ${p.sample[0][i]}` : ""}`] as const),
              ]}
            />
          ))}
          <Choice
            label="Numbers are written"
            problem={p.asked.numbers || undefined}
            value={p.numbers}
            onChange={(e) => set({ numbers: e.target.value })}
            options={asking(p.numbers, NUMBER_STYLES)}
          />
          <Choice
            label="Dates are written"
            problem={p.asked.dates || undefined}
            value={p.dates}
            onChange={(e) => set({ dates: e.target.value })}
            options={asking(p.dates, DATE_ORDERS)}
          />
          {p.mapping.supplier === null && purpose === "receipt" && (
            <Text label="All from" placeholder="Supplier" value={supplier} onChange={(e) => set({ supplier: e.target.value })} />
          )}
        </div>
        <Problem say={p.say} />
      </Part>
      {asked.length > 0 && (
        <Part
          title="Names the shelf doesn't know"
          aside={
            fromLibrary.length > 0 && (
              <button
                type="button"
                className="pressable"
                onClick={() =>
                  set({ matches: { ...matches, ...Object.fromEntries(fromLibrary.map((u) => [u.name, `library:${u.library!.key}`])) } })
                }
              >
                Take {counted(fromLibrary.length, "name")} from the library
              </button>
            )
          }
        >
          <div className="grid gap-3 sm:grid-cols-3">
            {asked.map((name) => {
              const unknown = p.intake.unknown.find((u) => u.name === name);
              const library = unknown?.library ?? known.get(name);
              return (
                <Choice
                  key={name}
                  label={name}
                  hint={unknown ? `in ${counted(unknown.rows, "line")}` : undefined}
                  value={matches[name] ?? ""}
                  onChange={(e) => set({ matches: { ...matches, [name]: e.target.value } })}
                  options={[
                    ["", "leave these lines out"],
                    ...(library ? [[`library:${library.key}`, `from the library: ${library.name}`] as const] : []),
                    ...KIND_IDS.map((k) => [`kind:${k}`, `add as: ${KINDS[k].label.toLowerCase()}`] as const),
                    ...names.map((n) => [n, `is: ${n}`] as const),
                  ]}
                />
              );
            })}
          </div>
        </Part>
      )}
      {p.intake.problemCount > 0 && (
        <Part title={`${counted(p.intake.problemCount, "thing")} can't be read`}>
          <p className="mb-1 text-pine-soft">
            These lines are left out; the others can be received. Mend them in the file, or by the choices above.
          </p>
          <ul className="max-h-52 space-y-0.5 overflow-y-auto text-[0.95rem]">
            {p.intake.problems.map((x, i) => (
              <li key={i} className="text-berry">
                Line {x.row}, {FIELDS[x.field as keyof typeof FIELDS].toLowerCase()}: {x.say}
              </li>
            ))}
            {p.intake.problemCount > p.intake.problems.length && <li>And {p.intake.problemCount - p.intake.problems.length} more.</li>}
          </ul>
        </Part>
      )}
      {p.intake.shown.length > 0 && (
        <Part title="What it becomes">
          <Table
            rows={p.intake.shown}
            by={(l) => l.row}
            columns={[
              { head: "Line", cell: (l) => l.row },
              { head: "Material", plain: true, cell: (l) => l.material },
              {
                head: "Packs",
                cell: (l) => (
                  <>
                    {l.packs} × {l.packSize}
                  </>
                ),
              },
              {
                head: purpose === "receipt" ? "From" : "Bought",
                cell: (l) => (
                  <>
                    {l.supplier && `${l.supplier}, `}
                    <When day={l.day} />
                  </>
                ),
              },
              { head: "Best before", cell: (l) => <When day={l.bestBefore} /> },
              { head: "Price", as: "figure", cell: (l) => (l.price === null ? "not known" : money(l.price, currency)) },
            ]}
          />
          {p.intake.lines > p.intake.shown.length && (
            <p className="pt-2 text-pine-soft">And {counted(p.intake.lines - p.intake.shown.length, "more line")} like these.</p>
          )}
        </Part>
      )}
    </>
  );
}
