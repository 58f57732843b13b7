/** A page that takes a list in: a file or a paste, which column is which, what it becomes, and one button that puts all of that in. */
import { LEFT_OUT, type LeftOut } from "#core/intake/body";
import { fieldsOf, type Columns, type ListSpec, type RowProblem } from "#core/listsIn/list";
import { DATE_ORDERS, NUMBER_STYLES } from "#core/intake/loose";
import { counted } from "#core/words";
import { useEffect, type ReactNode } from "react";
import { Choice, Button, Problem } from "../../ui/fields/form.tsx";
import { Table, type Column } from "../../ui/lists/table.tsx";
import { Heading, Part, Sheet } from "../../ui/sheet/sheet.tsx";
import { HeldBack, SheetSays } from "../sheetSays.tsx";
import { useSheet } from "../useSheet.ts";
import { Waiting } from "../waiting.tsx";
import { TableSource } from "./tableSource.tsx";
import { UnknownNames } from "./unknownNames.tsx";
import { useLook } from "./useLook.ts";

export interface ListPreview<F extends string, L, M> {
  /** Of all that would go in: sent back with the order to do so. */
  digest: string;
  header: string[];
  columns: Columns<F>;
  rows: number;
  /** The first row, to tell columns by. */
  sample: string[];
  numbers: string;
  dates: string;
  asked: { numbers: string; dates: string };
  shown: L[];
  fresh: number;
  there: string[];
  thereCount: number;
  problems: RowProblem[];
  problemCount: number;
  unknown: { name: string; rows: number }[];
  remarks: RowProblem[];
  left: LeftOut[];
  leftCount: number;
  /** Rows that have something from above. */
  above: number;
  /** What else is to be chosen, and from what. */
  more: M;
  /** What has to be said first, beside its own choice. */
  first: string;
  /** Why none of it can go in; null where it can. */
  say: string | null;
}

type Texts = Record<string, string>;

interface Props<F extends string, L extends { row: number }, M> {
  spec: ListSpec<F>;
  token: string;
  title: string;
  about: string;
  links: ReactNode;
  placeholder: string;
  /** What a line becomes, and several: "order", "orders". */
  words: readonly [string, string];
  /** What else can be said, as it is at first. */
  extras?: Texts;
  /** Choices above the list. */
  above?: (extras: Texts, set: (change: Texts) => void) => ReactNode;
  /** Choices beside its columns. */
  beside?: (more: M, extras: Texts, set: (change: Texts) => void) => ReactNode;
  names?: {
    title: string;
    aside?: (more: M, say: (matches: Texts) => void) => ReactNode;
    options: (name: string, more: M) => readonly (readonly [string, string])[];
  };
  columns: readonly Column<L>[];
}

const SHOWN_SAMPLE = 24;

export function ListFile<F extends string, L extends { row: number }, M>(p: Props<F, L, M>) {
  const nothing = { columns: {} as Texts, matches: {} as Texts, numbers: "", dates: "" };
  const sheet = useSheet(
    { ...nothing, text: "", fileName: "", shown: "", extras: p.extras ?? {} },
    { token: p.token },
    { draft: (v) => (v.fileName ? `${p.title}: ${v.fileName}` : p.title) },
  );
  const v = sheet.values;
  const { preview, unread, waiting } = useLook<ListPreview<F, L, M>, typeof v>(v, ["columns", "matches", "numbers", "dates", "extras"]);
  const { setValue } = sheet;
  const digest = preview?.digest ?? "";
  // Nothing goes in but what was looked at.
  useEffect(() => setValue("shown", digest), [digest, setValue]);
  const set = (change: Partial<typeof v>): void => {
    for (const [field, value] of Object.entries(change)) setValue(field as "text", value as string, { shouldDirty: true });
  };
  const setExtras = (change: Texts): void => set({ extras: { ...v.extras, ...change } });
  const n = preview?.say === null ? preview.fresh : 0;
  return (
    <>
      <Heading title={p.title} about={p.about}>
        {p.links}
        <Button main disabled={n === 0 || sheet.busy || waiting} onClick={() => void sheet.send("add")()}>
          {sheet.busy ? "Adding …" : `Add ${n > 0 ? counted(n, ...p.words) : "them"}`}
        </Button>
        <HeldBack sheet={sheet} />
      </Heading>
      <Sheet>
        <SheetSays sheet={sheet} />
        {sheet.busy && <Waiting token={sheet.token} what={`Adding ${p.words[1]}`} />}
        {p.above?.(v.extras, setExtras)}
        <TableSource
          text={v.text}
          fileName={v.fileName}
          found={counted(preview?.rows ?? 0, "line")}
          placeholder={p.placeholder}
          problem={unread ?? sheet.formState.errors.text?.message}
          onText={(text, fileName) => set({ ...nothing, text, fileName })}
        />
        {preview && (
          <>
            <Which {...{ spec: p.spec, preview, columns: v.columns, set }}>{p.beside?.(preview.more, v.extras, setExtras)}</Which>
            {p.names && (
              <UnknownNames
                title={p.names.title}
                aside={p.names.aside?.(preview.more, (matches) => set({ matches: { ...v.matches, ...matches } }))}
                unknown={preview.unknown}
                matches={v.matches}
                options={(name) => p.names!.options(name, preview.more)}
                say={(matches) => set({ matches })}
              />
            )}
            <NotIn preview={preview} />
            {preview.fresh > 0 && (
              <Part title={`To add: ${counted(preview.fresh, ...p.words)}`}>
                {preview.above > 0 && (
                  <p className="mb-1 text-pine-soft">
                    {counted(preview.above, "row")} with an empty cell {preview.above === 1 ? "has" : "have"} what is above it.
                  </p>
                )}
                <Rows tone="text-honey" of={preview.remarks} />
                <Table
                  rows={preview.shown}
                  by={(l) => l.row}
                  columns={[{ head: "Row", as: "figure", className: "w-16", cell: (l: L) => l.row }, ...p.columns]}
                />
                {preview.fresh > preview.shown.length && (
                  <p className="pt-2 text-pine-soft">And {preview.fresh - preview.shown.length} more.</p>
                )}
              </Part>
            )}
          </>
        )}
      </Sheet>
    </>
  );
}

interface WhichProps<F extends string, L, M> {
  spec: ListSpec<F>;
  preview: ListPreview<F, L, M>;
  columns: Texts;
  set: (change: { columns?: Texts; numbers?: string; dates?: string }) => void;
  children: ReactNode;
}

function Which<F extends string, L, M>({ spec, preview, columns, set, children }: WhichProps<F, L, M>) {
  const written = [
    ...(spec.figures.length > 0 ? [["numbers", "Numbers are written", NUMBER_STYLES] as const] : []),
    ...(Object.keys(spec.days).length > 0 ? [["dates", "Dates are written", DATE_ORDERS] as const] : []),
  ];
  return (
    <Part title="Which column is which" aside={<span className="text-pine-soft">{counted(preview.rows, "row")}</span>}>
      <div className="grid gap-3 sm:grid-cols-4">
        {fieldsOf(spec).map((f) => (
          <Choice
            key={f}
            label={spec.fields[f]}
            value={preview.columns[f] === null ? "none" : String(preview.columns[f])}
            onChange={(e) => set({ columns: { ...columns, [f]: e.target.value } })}
            options={[
              ["none", spec.needed.includes(f) && !spec.carried.includes(f) ? "— choose —" : "not in it"],
              ...preview.header.map(
                (h, i) => [String(i), preview.sample[i] ? `${h} · ${preview.sample[i].slice(0, SHOWN_SAMPLE)}` : h] as const,
              ),
            ]}
          />
        ))}
        {written.map(([field, label, of]) => (
          <Choice
            key={field}
            label={label}
            problem={preview.asked[field] || undefined}
            value={preview[field]}
            onChange={(e) => set({ [field]: e.target.value })}
            options={[...(preview[field] === "" ? [["", "— choose —"] as const] : []), ...Object.entries(of)]}
          />
        ))}
        {children}
      </div>
      <Problem
        say={preview.say !== null && [preview.asked.numbers, preview.asked.dates, preview.first].includes(preview.say) ? null : preview.say}
      />
    </Part>
  );
}

const Rows = ({ of, tone, more = 0 }: { of: readonly RowProblem[]; tone: string; more?: number }) =>
  of.length === 0 ? null : (
    <ul className={`mb-2 max-h-52 space-y-0.5 overflow-y-auto text-small ${tone}`}>
      {of.map((r, i) => (
        <li key={i}>
          Row {r.row}: {r.say}
        </li>
      ))}
      {more > 0 && <li>And {more} more.</li>}
    </ul>
  );

/** What of a list doesn't go in, and why. */
function NotIn<F extends string, L, M>({ preview: p }: { preview: ListPreview<F, L, M> }) {
  return (
    <>
      {p.problemCount > 0 && (
        <Part title={`${counted(p.problemCount, "row")} can’t go in yet`}>
          <Rows of={p.problems} more={p.problemCount - p.problems.length} tone="text-berry" />
        </Part>
      )}
      {p.thereCount > 0 && (
        <Part title={`${counted(p.thereCount, "line")} in the books already`}>
          <p className="text-pine-soft">
            Nothing of {p.thereCount === 1 ? "it" : "them"} is changed: {p.there.join("; ")}
            {p.thereCount > p.there.length && " …"}.
          </p>
        </Part>
      )}
      {p.leftCount > 0 && (
        <Part title={`${counted(p.leftCount, "row")} left out`}>
          <Rows
            of={p.left.map((l) => ({ row: l.at, say: `“${l.text}”: ${LEFT_OUT[l.why]}` }))}
            more={p.leftCount - p.left.length}
            tone="text-pine-soft"
          />
        </Part>
      )}
    </>
  );
}
