/**
 * The materials a recipe's sheet knows, with their lots: those of the recipe as it is written come with the page, those it is given while it is
 * typed are asked for by name.
 */
import type { UnitCost } from "#core/measure/money";
import type { MaterialChoice } from "#core/recipe/written";
import type { Lot } from "#core/stock/lots";
import { useEffect, useMemo, useRef, useState } from "react";
import { useHref } from "react-router";

export interface Stuff {
  materials: MaterialChoice[];
  lots: Lot[];
  again: [number, UnitCost][];
}

/** As many names are asked for at once, so that the address stays short however long they are. */
export const MOST_NAMES = 20;
/** How soon it is asked again where nobody answered. */
const AGAIN_MS = 2000;
/** Long enough that a name being typed isn't asked for letter by letter. */
const PAUSE_MS = 120;

const known = (name: string): string => name.trim().toLowerCase();

/** Both, what came later in front. */
const joined = (later: Stuff, before: Stuff): Stuff => {
  const there = new Set(later.materials.map((m) => m.id));
  return {
    materials: [...later.materials, ...before.materials.filter((m) => !there.has(m.id))],
    lots: [...later.lots, ...before.lots.filter((l) => !there.has(l.of))],
    again: [...later.again, ...before.again.filter(([of]) => !there.has(of))],
  };
};

/**
 * @param given what came with the page; read anew, everything else is asked for anew
 * @param names all that stand on the sheet
 * @returns what is known, whether a name is still being asked about, and whether nobody answers
 */
export function useStuff(given: Stuff, names: readonly string[]): { stuff: Stuff; asking: boolean; lost: boolean } {
  const to = useHref("/recipes/stuff");
  const [found, find] = useState<{ with: Stuff; more: Stuff; answered: ReadonlySet<string> }>();
  // What was found with an older page may have been used up since, but serves until it is answered anew.
  const stuff = useMemo(
    () => (found ? (found.with === given ? joined(found.more, given) : joined(given, found.more)) : given),
    [given, found],
  );
  const answered = found?.with === given ? found.answered : undefined;
  const here = useMemo(() => new Set(given.materials.map((m) => known(m.name))), [given]);
  const open = [...new Set(names.map(known))].filter((n) => n !== "" && !here.has(n) && !answered?.has(n)).slice(0, MOST_NAMES);
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
      const answer = (more: Stuff | null): void => {
        if (gone.signal.aborted) return;
        if (!more) {
          again = window.setTimeout(() => lose((n) => n + 1), AGAIN_MS);
          return;
        }
        lose(0);
        const was = latest.current;
        find({
          with: given,
          more: was ? joined(more, was.more) : more,
          answered: new Set([...(was?.with === given ? was.answered : []), ...wanted]),
        });
      };
      fetch(`${to}?${new URLSearchParams(wanted.map((n) => ["name", n])).toString()}`, { signal: gone.signal })
        .then((r) => (r.ok ? (r.json() as Promise<Stuff>) : null))
        .then(answer, () => answer(null));
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      clearTimeout(again);
      gone.abort();
    };
  }, [asked, given, to, lost]);
  const asking = open.some((n) => !stuff.materials.some((m) => known(m.name) === n));
  return { stuff, asking, lost: asking && lost > 0 };
}
