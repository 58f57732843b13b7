/**
 * A table, written as its columns: the heading of each, and what it shows of a row. How figures align, which cell is a card's headline at
 * the stall and which are named beside it, how groups and sums are ruled off: all that is the table's, so that every table reads alike.
 *
 * For what is read. Lines to fill in, that grow on Enter and take a spreadsheet's paste, are `Lines`.
 *
 * @example
 * <Table
 *   rows={days}
 *   by={(d) => d.id}
 *   columns={[
 *     { head: "Market", cell: (d) => d.name },
 *     { head: "Profit", as: "figure", cell: (d) => money(d.profit, currency) },
 *   ]}
 * />
 */
import type { Key, ReactNode } from "react";

/** How a column's cells are aligned: words, a figure on its decimal, a weight (a figure in the monospaced face), or something to press. */
type Kind = "words" | "figure" | "weight" | "press";

export interface Column<R> {
  /** Its heading; on a phone, beside each of its cells. */
  head: string;
  cell: (row: R, n: number) => ReactNode;
  as?: Kind;
  /** Needs no name on a phone: what it says speaks for itself. The first column never has one, since it heads the card. */
  plain?: boolean;
  /** What makes one cell differ. */
  className?: string | ((row: R, n: number) => string);
  headClass?: string;
  width?: string;
  /** Under the column: a sum. */
  foot?: ReactNode;
  /** What the rows can be sorted by here, where people compare. */
  sorts?: (row: R) => string | number | null;
}

/** The heading the rows are sorted by, and which way. */
export interface Sorted {
  head: string;
  down: boolean;
}

/** Rows that belong together, under a line that says what they are. */
export interface Group<R> {
  key: Key;
  head: ReactNode;
  rows: readonly R[];
}

type Rows<R> = { rows: readonly R[]; groups?: undefined } | { groups: readonly Group<R>[]; rows?: undefined };

const CELL: Record<Kind, string> = { words: "", figure: "num", weight: "num weight", press: "text-right whitespace-nowrap" };
const FIGURES: ReadonlySet<Kind | undefined> = new Set(["figure", "weight"]);
const classes = (...all: (string | false | undefined)[]): string | undefined => all.filter(Boolean).join(" ") || undefined;

/** One row's cells; the first is what the row is called, also to a screen reader. Plain functions: a long table is mostly cells. */
function cellsOf<R>(columns: readonly Column<R>[], row: R, n: number): ReactNode[] {
  return columns.map((c, i) => {
    const own = typeof c.className === "function" ? c.className(row, n) : c.className;
    const kind = CELL[c.as ?? "words"];
    const looks = own ? (kind ? `${kind} ${own}` : own) : kind || undefined;
    const content = c.cell(row, n);
    if (i === 0)
      return (
        <th key={c.head} scope="row" className={looks}>
          {content}
        </th>
      );
    if (c.plain || c.as === "press")
      return (
        <td key={c.head} className={looks}>
          {content}
        </td>
      );
    return (
      <td key={c.head} data-label={c.head} className={looks}>
        {/* On a phone its name stands at the left and all of this at the right. */}
        <div>{content}</div>
      </td>
    );
  });
}

interface Sorting {
  sorted?: Sorted | null;
  onSort?: (sorted: Sorted | null) => void;
}

/** A heading that sorts: up, down, and as it was. Figures begin with the largest. */
function SortHead<R>({ column: { head, as }, sorted, onSort }: { column: Column<R> } & Required<Pick<Sorting, "onSort">> & Sorting) {
  const first = FIGURES.has(as);
  const now = sorted?.head === head ? sorted.down : null;
  const next = now === null ? { head, down: first } : now === first ? { head, down: !first } : null;
  return (
    <button type="button" className="sorts" onClick={() => onSort(next)}>
      {head}
      <svg aria-hidden="true" viewBox="0 0 8 12" className="h-3 w-2 flex-none">
        <path d="M4 0 7.5 5h-7z" fill="currentColor" opacity={now === false ? 1 : 0.3} />
        <path d="M4 12 .5 7h7z" fill="currentColor" opacity={now === true ? 1 : 0.3} />
      </svg>
    </button>
  );
}

function Heads<R>({ columns, quiet, sorted, onSort }: { columns: readonly Column<R>[]; quiet: boolean } & Sorting) {
  return (
    <thead className={quiet ? "sr-only" : undefined}>
      <tr>
        {columns.map((c) =>
          c.as === "press" ? (
            <th key={c.head} scope="col" aria-label={c.head} />
          ) : (
            <th
              key={c.head}
              scope="col"
              style={{ width: c.width }}
              className={classes(FIGURES.has(c.as) && "text-right!", c.headClass)}
              aria-sort={sorted?.head === c.head ? (sorted.down ? "descending" : "ascending") : undefined}
            >
              {c.sorts && onSort ? <SortHead column={c} sorted={sorted} onSort={onSort} /> : c.head}
            </th>
          ),
        )}
      </tr>
    </thead>
  );
}

function Feet<R>({ columns }: { columns: readonly Column<R>[] }) {
  return (
    <tfoot>
      <tr>
        {columns.map((c, i) =>
          i === 0 ? (
            <th key={c.head} scope="row" className="font-semibold">
              {c.foot}
            </th>
          ) : (
            <td
              key={c.head}
              data-label={c.foot === undefined ? undefined : c.head}
              className={classes(CELL[c.as ?? "words"], "font-semibold")}
            >
              <div>{c.foot}</div>
            </td>
          ),
        )}
      </tr>
    </tfoot>
  );
}

interface Looks<R> {
  /** A column that doesn't apply today is left out by being false. */
  columns: readonly (Column<R> | false)[];
  /** What tells a row from the others. */
  by: (row: R, n: number) => Key;
  /** Columns whose names go without saying are told to a screen reader only. */
  quiet?: boolean;
  className?: string;
}

export function Table<R>({ columns: all, by, quiet = false, className, sorted, onSort, ...of }: Rows<R> & Looks<R> & Sorting) {
  const columns = all.filter((c) => c !== false);
  const lines = (rows: readonly R[]) => rows.map((row, n) => <tr key={by(row, n)}>{cellsOf(columns, row, n)}</tr>);
  return (
    <table className={classes("ruled stack", className)}>
      <Heads columns={columns} quiet={quiet} sorted={sorted} onSort={onSort} />
      {of.groups ? (
        of.groups.map((g) => (
          <tbody key={g.key}>
            <tr className="group">
              <th colSpan={columns.length} scope="rowgroup">
                {g.head}
              </th>
            </tr>
            {lines(g.rows)}
          </tbody>
        ))
      ) : (
        <tbody>{lines(of.rows)}</tbody>
      )}
      {columns.some((c) => c.foot !== undefined) && <Feet columns={columns} />}
    </table>
  );
}
