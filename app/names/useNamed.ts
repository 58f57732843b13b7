/**
 * What a sheet knows of the things it names: what it named when it was opened came with the page, what it is given while it is typed is asked
 * for by name.
 */
import { useEffect, useMemo, useRef, useState } from "react";
import { useHref } from "react-router";
import { called, finderOf, type Meant } from "#core/meant";
import type { Means } from "../forms/means.ts";
import { MOST_NAMES, type Named, type NamedKind } from "./named.ts";
import { useKeepMeant, useMeantBy } from "./useMeant.ts";

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
export const LOST = "a name can't be looked up, as the server doesn't answer. What you typed is still here.";

/**
 * @param given what came with the page; read anew, everything else is asked for anew
 * @param names all that stand on the sheet
 * @param means what they mean, as the sheet keeps it; without it a name means what is called so
 */
export function useNamed<K extends NamedKind>(of: K, given: readonly Named[K][], names: readonly string[], means?: Means): Knows<Named[K]> {
  type T = Named[K];
  const to = useHref(`/named/${of}`);
  const [found, keep] = useState<Found<T>>();
  // What was found with an older page may have been used up since, but serves until it is answered anew.
  const known = useMemo(
    () => (found ? (found.with === given ? joined(found.more, given) : joined(given, found.more)) : given),
    [given, found],
  );
  const answered = found?.with === given ? found.answered : undefined;
  const here = useMemo(() => new Set<string | number>(given.flatMap((t) => [called(t.name), t.id])), [given]);
  const meant = useMeantBy(of, means);
  const open = [...new Set(names.map(called))]
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
  const finds = useMemo(() => finderOf<T>(known, meant), [known, meant]);
  const find = (name: string): T | undefined => finds(name) ?? undefined;
  useEffect(() => {
    for (const [place, { name, then }] of waiting.current) {
      const thing = finds(name);
      if (!thing) continue;
      waiting.current.delete(place);
      then(thing);
    }
  }, [finds]);
  // What is found is meant from now on, for as long as its name stands there.
  useKeepMeant(of, names, finds, means);
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

/** While a name is being looked up the figures stand as they were: that it isn't there is said once it is known. */
export function useStood<T>(now: T, asking: boolean): T {
  const stood = useRef(now);
  if (!asking) stood.current = now;
  return stood.current;
}
