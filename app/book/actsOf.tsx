/** A record's part of the book: the acts about it, each with a button that takes it back. */
import { Link } from "react-router";
import type { Restatements as Correction } from "#db/acts/book";
import { When } from "../ui/figures/amounts.tsx";
import { money } from "#core/measure/money";
import { TakeBack } from "./takeBackPress.tsx";
import { Part } from "../ui/sheet/sheet.tsx";
import { useWorkshop } from "../ui/workshop.ts";

export interface ActLine {
  id: number;
  day: string;
  summary: string;
  who: string;
  undoes: number | null;
  undoneBy: number | null;
  reversible: boolean;
}

/** One act in a list. */
export function ActRow({ act: a }: { act: ActLine }) {
  const gone = a.undoneBy !== null;
  return (
    <li className="flex flex-wrap items-baseline gap-x-4 gap-y-0.5 py-2">
      <span className="w-24 shrink-0 text-pine-soft">
        <When day={a.day} />
      </span>
      <Link
        to={`/book/${a.id}`}
        className={`min-w-0 flex-1 basis-60 hover:underline ${gone || a.undoes !== null ? "text-pine-soft" : ""} ${gone ? "line-through" : ""}`}
      >
        {a.summary}
      </Link>
      <span className="text-small text-pine-soft">{a.who}</span>
      <span className="no-print w-28 text-right max-sm:w-auto">
        {gone ? (
          <Link to={`/book/${a.undoneBy}`} className="text-small text-pine-soft underline underline-offset-4">
            taken back
          </Link>
        ) : (
          a.reversible && <TakeBack actId={a.id} label={`Take back: ${a.summary}`} />
        )}
      </span>
    </li>
  );
}

/** @param more where the whole of it is read */
export function ActsOf({ acts, more }: { acts: readonly ActLine[]; more: string }) {
  if (acts.length === 0) return null;
  return (
    <details className="no-print mt-7">
      <summary className="cursor-pointer font-display text-lead">What was done here</summary>
      <ul className="mt-1 divide-y divide-rule border-y border-rule">
        {acts.map((a) => (
          <ActRow key={a.id} act={a} />
        ))}
      </ul>
      <p className="mt-1.5 text-small">
        <Link to={more} className="text-amber underline underline-offset-4">
          All of it in the book
        </Link>
      </p>
    </details>
  );
}

/** By how much, when and why a settled cost was corrected; nothing where it never was. */
export function Restatements({ rows }: { rows: readonly Correction[] }) {
  const { currency } = useWorkshop();
  if (rows.length === 0) return null;
  return (
    <Part title="Corrected since">
      <ul className="space-y-1">
        {rows.map((r) => (
          <li key={r.actId} className="flex flex-wrap items-baseline gap-x-3">
            <span className="num font-semibold">
              {r.by > 0 ? "+" : "−"}
              {money(Math.abs(r.by), currency)}
            </span>
            <span className="text-pine-soft">
              <When day={r.day} />
            </span>
            <Link to={`/book/${r.actId}`} className="text-amber underline underline-offset-4">
              {r.summary}
            </Link>
          </li>
        ))}
      </ul>
    </Part>
  );
}
