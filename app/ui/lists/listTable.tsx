/**
 * A list of any length in one shape: found in while typing, sorted by the headings that can be pressed, a hundred rows at a time. What was
 * typed, the order and how far it was opened are there again when the list is come back to.
 *
 * A table of a handful of rows has no field to find in; it would only stand in the way.
 *
 * @example <ListTable what="orders" rows={orders} by={(o) => o.id} finds={(o) => o.customer} columns={[{ head: "For", sorts: (o) => o.customer, cell: … }]} />
 */
import { finder } from "#core/find";
import { useEffect, useId, useMemo, useRef, useState, type Key, type ReactNode } from "react";
import { useHref, useLocation } from "react-router";
import { Button } from "../fields/form.tsx";
import { Table, type Column, type Sorted } from "./table.tsx";

/** From so many rows on there is a field to find in. */
const FINDS_FROM = 9;
const AT_ONCE = 100;

interface Kept {
  typed: string;
  sorted: Sorted | null;
  shown: number;
}
const FRESH: Kept = { typed: "", sorted: null, shown: AT_ONCE };

/** Where a list was left, for as long as the tab is open. */
function usePlace(what: string): [Kept, (change: Partial<Kept>) => void] {
  const key = `list ${useHref(useLocation().pathname)} ${what}`;
  const [at, set] = useState(FRESH);
  useEffect(() => {
    const text = sessionStorage.getItem(key);
    if (text !== null) set({ ...FRESH, ...(JSON.parse(text) as Partial<Kept>) });
  }, [key]);
  return [
    at,
    (change) => {
      const next = { ...at, ...change };
      sessionStorage.setItem(key, JSON.stringify(next));
      set(next);
    },
  ];
}

/** Words by their letters and numbers by their size; what is nothing comes last either way. */
function inOrder<R>(rows: readonly R[], of: (row: R) => string | number | null, down: boolean): R[] {
  const way = down ? -1 : 1;
  return [...rows].sort((x, y) => {
    const a = of(x);
    const b = of(y);
    if (a === null || b === null || a === "" || b === "") return Number(a === null || a === "") - Number(b === null || b === "");
    return way * (typeof a === "number" && typeof b === "number" ? a - b : String(a).localeCompare(String(b), "en", { numeric: true }));
  });
}

interface Props<R> {
  /** What they are, together: "orders". */
  what: string;
  rows: readonly R[];
  by: (row: R, n: number) => Key;
  /** The words a row is found by. */
  finds: (row: R) => string;
  columns: readonly (Column<R> | false)[];
  /** Shown under the list, given all its rows as they are found and sorted: the press that saves them. */
  under?: (rows: readonly R[]) => ReactNode;
  /** There are more rows than these, which `ask` reads (`useFullList`). */
  more?: boolean;
  ask?: () => void;
}

export function ListTable<R>({ what, rows, by, finds, columns, under, more: unread = false, ask }: Props<R>) {
  const id = useId();
  const [{ typed, sorted, shown }, keep] = usePlace(what);
  const all = useRef(ask);
  all.current = ask;
  const wanted = typed.trim() !== "" || sorted !== null || shown > AT_ONCE;
  useEffect(() => {
    if (wanted) all.current?.();
  }, [wanted]);
  const words = useRef(finds);
  words.current = finds;
  const find = useMemo(() => finder(rows, (r) => ({ name: words.current(r) })), [rows]);
  const found = typed.trim() === "" ? rows : find(typed, rows.length);
  const sorts = sorted && columns.find((c) => c !== false && c.head === sorted.head);
  const ordered = sorts && sorts.sorts ? inOrder(found, sorts.sorts, sorted.down) : found;
  const more = ordered.length - shown;
  const long = rows.length >= FINDS_FROM;
  return (
    <>
      {long && (
        <div className="no-print mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
          <input
            type="search"
            className="field w-60!"
            aria-label={`Find among the ${what}`}
            aria-describedby={id}
            placeholder={unread ? `Find among all ${what}` : `Find among ${rows.length} ${what}`}
            onFocus={ask}
            autoComplete="off"
            value={typed}
            onChange={(e) => keep({ typed: e.target.value, shown: AT_ONCE })}
          />
          <span id={id} className="text-small text-pine-soft" aria-live="polite">
            {typed.trim() !== "" && `${ordered.length} of ${rows.length}`}
          </span>
        </div>
      )}
      <Table
        rows={ordered.slice(0, shown)}
        by={by}
        columns={columns}
        sorted={sorted}
        onSort={rows.length > 1 ? (next) => keep({ sorted: next, shown: AT_ONCE }) : undefined}
      />
      {ordered.length === 0 && (
        <p className="py-5 text-center text-pine-soft">
          None of the {what} matches “{typed.trim()}”.
        </p>
      )}
      {(more > 0 || unread) && (
        <p className="no-print flex flex-wrap items-baseline gap-4 pt-3 text-small text-pine-soft">
          {unread ? `The newest ${Math.min(shown, ordered.length)} are shown.` : `The first ${shown} of ${ordered.length} are shown.`}
          <Button small onClick={() => keep({ shown: shown + AT_ONCE })}>
            Show {unread ? AT_ONCE : Math.min(more, AT_ONCE)} more
          </Button>
        </p>
      )}
      {under?.(ordered)}
    </>
  );
}
