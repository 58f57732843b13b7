/** Ticking entries of the starter library: found while typing, by kind, and what is ticked stays ticked whatever is looked for. */
import { groupBy } from "#core/collect";
import { finder } from "#core/find";
import { LIBRARY, type LibraryEntry } from "#core/material/library";
import { KINDS, type KindId } from "#core/material/kinds";
import { useMemo, useState } from "react";
import type { UseFormReturn } from "react-hook-form";

interface Picked {
  taken: readonly string[];
  tick: (key: string, on: boolean) => void;
  /** Keys and lower-case names of what is on the shelf. */
  have: readonly string[];
}

type Taking = { take: string[] };

/** What is ticked on a sheet of the library. */
export const pickedOn = (sheet: UseFormReturn<Taking> & { values: Taking }, have: readonly string[]): Picked => ({
  taken: sheet.values.take,
  have,
  tick: (key, on) => {
    const others = sheet.getValues("take").filter((k) => k !== key);
    sheet.setValue("take", on ? [...others, key] : others, { shouldDirty: true });
  },
});

/** The library's entries of some kinds, and a question to find among them. */
export function useLibraryFind(kinds?: readonly KindId[]) {
  const [question, ask] = useState("");
  const find = useMemo(() => {
    const entries = kinds ? LIBRARY.filter((e) => kinds.includes(e.kind)) : LIBRARY;
    return finder(entries, (e) => ({ name: e.name, also: `${e.inci} ${e.botanical} ${KINDS[e.kind].label}` }));
  }, [kinds]);
  const found = useMemo(() => groupBy(find(question), (e) => e.kind), [find, question]);
  return { question, ask, found };
}

export function LibraryFind({ question, ask }: { question: string; ask: (q: string) => void }) {
  return (
    <input
      type="search"
      aria-label="Find in the library"
      placeholder="Find  ( / )"
      className="field w-48!"
      value={question}
      onChange={(e) => ask(e.target.value)}
      // Enter looks, it doesn't send the sheet.
      onKeyDown={(e) => e.key === "Enter" && e.preventDefault()}
    />
  );
}

/** What is ticked so far, each to be taken off again. */
export function Ticked({ taken, tick }: Pick<Picked, "taken" | "tick">) {
  const entries = taken.flatMap((k) => LIBRARY.find((e) => e.key === k) ?? []);
  if (entries.length === 0) return null;
  return (
    <ul aria-label="Ticked" className="mb-4 flex flex-wrap gap-1.5">
      {entries.map((e) => (
        <li key={e.key}>
          <button
            type="button"
            className="inline-flex min-h-8 cursor-pointer items-center gap-1.5 rounded bg-sage-wash px-2.5 text-small text-sage hover:bg-berry-wash hover:text-berry"
            aria-label={`Take ${e.name} off`}
            onClick={() => tick(e.key, false)}
          >
            {e.name} <span aria-hidden="true">×</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

/** One entry's box. */
export function Tick({ of: e, taken, tick, have, children }: Picked & { of: LibraryEntry; children?: React.ReactNode }) {
  const there = have.includes(e.key) || have.includes(e.name.toLowerCase());
  return (
    <label className="flex min-h-7 items-baseline gap-2">
      <input
        type="checkbox"
        disabled={there}
        checked={there || taken.includes(e.key)}
        className="h-4 w-4 flex-none accent-amber"
        onChange={(x) => tick(e.key, x.target.checked)}
      />
      <span>
        <span className={there ? "text-pine-soft" : "font-semibold"}>{e.name}</span>
        {there && <span className="ml-2 text-fine text-sage">on your shelf</span>}
        {children}
      </span>
    </label>
  );
}

/** Entries by kind, names only: for ticking many at once. */
export function LibraryColumns({ found, ...picked }: Picked & { found: ReadonlyMap<KindId, readonly LibraryEntry[]> }) {
  if (found.size === 0)
    return <p className="text-pine-soft">The library has nothing like it. What it lacks can be added by hand, here or on any sheet.</p>;
  return (
    <div className="gap-x-8 sm:columns-2 lg:columns-3">
      {[...found].map(([kind, entries]) => (
        <fieldset key={kind} className="mb-4 break-inside-avoid-column">
          <legend className="mb-1 font-display text-lead">{KINDS[kind].plural}</legend>
          {entries.map((e) => (
            <Tick key={e.key} of={e} {...picked} />
          ))}
        </fieldset>
      ))}
    </div>
  );
}
