/**
 * Looks up by name, on the server, the things a sheet names: those it named when it was opened came with the page, others are fetched as they
 * are typed.
 */
import { useEffect, useMemo, useRef, useState } from "react";
import { useHref } from "react-router";
import { normalizeName, finderBy, type Meant } from "#core/meant";
import type { Means } from "../forms/meanings.ts";
import { MOST_NAMES, type Named, type NamedKind } from "./named.ts";
import { useRememberMeaning, useMeaningOf } from "./useMeaning.ts";

/** How soon it is asked again where nobody answered. */
const AGAIN_MS = 2000;
/** Long enough that a name being typed isn't asked for letter by letter. */
const PAUSE_MS = 120;

interface Found<T> {
  /** What came with the page when it was found. */
  with: readonly T[];
  more: readonly T[];
  answered: ReadonlySet<string>;
}

/** Both, what came later in front. */
function joined<T extends { id: number }>(later: readonly T[], before: readonly T[]): readonly T[] {
  const there = new Set(later.map((t) => t.id));
  return [...later, ...before.filter((t) => !there.has(t.id))];
}

export interface Knows<T> {
  known: readonly T[];
  /** What is known by that name, in whatever case: what it meant when it was typed. */
  find: (name: string) => T | undefined;
  meant: Meant;
  /** Whether a name is still being asked about. */
  asking: boolean;
  /** Whether nobody answers. */
  lost: boolean;
  /** Does something with a thing once it is known; only the last of what is asked for in one place. */
  once: (name: string, place: string, then: (thing: T) => void) => void;
}

/** Said where nobody answers. */
export const LOOKUP_FAILED = "a name can't be looked up, as the server doesn't answer. What you typed is still here.";

/**
 * @param given what came with the page; read again, everything else is asked for again
 * @param names all that are on the sheet
 * @param means what they mean, as the sheet keeps it; without it a name means what is called so
 */
export function useLookup<K extends NamedKind>(
  of: K,
  given: readonly Named[K][],
  names: readonly string[],
  means?: Means,
): Knows<Named[K]> {
  type T = Named[K];
  const to = useHref(`/named/${of}`);
  const [found, keep] = useState<Found<T>>();
  // What was found with an older page may have been used up since, but serves until it is answered again.
  const known = useMemo(
    () => (found ? (found.with === given ? joined(found.more, given) : joined(given, found.more)) : given),
    [given, found],
  );
  const answered = found?.with === given ? found.answered : undefined;
  const here = useMemo(() => new Set<string | number>(given.flatMap((t) => [normalizeName(t.name), t.id])), [given]);
  const meant = useMeaningOf(of, means);
  const open = [...new Set(names.map(normalizeName))]
    .filter((n) => n !== "" && !here.has(meant(n) ?? n) && !answered?.has(n))
    .slice(0, MOST_NAMES);
  const asked = open.join("\n");
  // How often nobody answered, since somebody did.
  const [lost, lose] = useState(0);
  const latest = useRef(found);
  latest.current = found;
  useEffect(() => {
    if (asked === "") return;
    const gone = new AbortController();
    let again = 0;
    const timer = window.setTimeout(() => {
      const wanted = asked.split("\n");
      const answer = (more: readonly T[] | null): void => {
        if (gone.signal.aborted) return;
        if (!more) {
          again = window.setTimeout(() => lose((n) => n + 1), AGAIN_MS);
          return;
        }
        lose(0);
        const was = latest.current;
        keep({
          with: given,
          more: was ? joined(more, was.more) : more,
          answered: new Set([...(was?.with === given ? was.answered : []), ...wanted]),
        });
      };
      const asks = wanted.map((n) => (meant(n) === null ? ["name", n] : ["id", String(meant(n))]));
      fetch(`${to}?${new URLSearchParams(asks).toString()}`, { signal: gone.signal })
        .then((r) => (r.ok ? (r.json() as Promise<T[]>) : null))
        .then(answer, () => answer(null));
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      clearTimeout(again);
      gone.abort();
    };
  }, [asked, given, to, lost, meant]);
  const waiting = useRef(new Map<string, { name: string; then: (thing: T) => void }>());
  const finds = useMemo(() => finderBy<T>(known, meant), [known, meant]);
  const find = (name: string): T | undefined => finds(name) ?? undefined;
  useEffect(() => {
    for (const [place, { name, then }] of waiting.current) {
      const thing = finds(name);
      if (!thing) continue;
      waiting.current.delete(place);
      then(thing);
    }
  }, [finds]);
  // From now on the name means what was found, for as long as it is on the sheet.
  useRememberMeaning(of, names, finds, means);
  const asking = open.some((n) => !finds(n));
  return {
    known,
    find,
    meant,
    asking,
    lost: asking && lost > 0,
    once: (name, place, then) => {
      const there = find(name);
      if (there) then(there);
      else waiting.current.set(place, { name, then });
    },
  };
}

/** The last value from before a lookup began: while a name is being looked up the figures don't change. */
export function useLastKnown<T>(now: T, asking: boolean): T {
  const stood = useRef(now);
  if (!asking) stood.current = now;
  return stood.current;
}
