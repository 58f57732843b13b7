/** What was done to a record: its own page of the book, with the way to take each act back. */
import type { PutRight as Correction } from "#db/act/book";
import { useFetcher } from "react-router";
import { Link } from "../ui/link.tsx";
import type { Reply } from "../forms/sheet.server.ts";
import { When } from "../ui/figures/amounts.tsx";
import { money } from "#core/measure/money";
import { Problem } from "../ui/fields/form.tsx";
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

/**
 * The press that takes an act back, with what stands in the way when it can't be.
 * @param label says of which act, in a list of them, where it stands back behind the words
 */
export function TakeBack({ actId, label, main }: { actId: number; label?: string; main?: boolean }) {
  const back = useFetcher<Reply | null>();
  const problem = back.data?.problems[0];
  return (
    <>
      <button
        type="button"
        className={label ? "pressable text-[0.92rem]" : main ? "act" : "act act-small"}
        aria-label={label}
        disabled={back.state !== "idle"}
        onClick={() => void back.submit({ actId }, { method: "post", action: "/take-back", encType: "application/json" })}
      >
        Take it back
      </button>
      <Problem say={problem?.say} see={problem?.see} />
    </>
  );
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
      <span className="text-[0.9rem] text-pine-soft">{a.who}</span>
      <span className="no-print w-28 text-right max-sm:w-auto">
        {gone ? (
          <Link to={`/book/${a.undoneBy}`} className="text-[0.9rem] text-pine-soft underline underline-offset-4">
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
      <summary className="cursor-pointer font-display text-[1.15rem]">What was done here</summary>
      <ul className="mt-1 divide-y divide-rule border-y border-rule">
        {acts.map((a) => (
          <ActRow key={a.id} act={a} />
        ))}
      </ul>
      <p className="mt-1.5 text-[0.92rem]">
        <Link to={more} className="text-amber underline underline-offset-4">
          All of it in the book
        </Link>
      </p>
    </details>
  );
}

/** By how much, when and why a settled cost was put right; nothing where it never was. */
export function PutRight({ rows }: { rows: readonly Correction[] }) {
  const { currency } = useWorkshop();
  if (rows.length === 0) return null;
  return (
    <Part title="Put right since">
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
