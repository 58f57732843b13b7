/**
 * The starter library: common materials with the figures later stations need, each with where it comes from.
 *
 * A material taken from it records the entry's key, so that any figure a maker changes shows as their own.
 */
import { groupBy } from "../collect.ts";
import type { MaterialFacts } from "./facts.ts";
import { FORMS, type Form } from "../measure/mass.ts";
import { SOURCES, type LibraryEntry } from "./library/entry.ts";
import { HERBS } from "./library/herbs.ts";
import { OILS } from "./library/oils.ts";
import { PACKAGING } from "./library/packaging.ts";
import { REST } from "./library/rest.ts";
import { SOLIDS } from "./library/solids.ts";

export type { LibraryEntry } from "./library/entry.ts";

export const LIBRARY: readonly LibraryEntry[] = [...SOLIDS, ...OILS, ...HERBS, ...REST, ...PACKAGING];

const byKey = new Map(LIBRARY.map((e) => [e.key, e]));

/** @example libraryEntry("jojoba")?.densities.liquid // 866 */
export const libraryEntry = (key: string | null): LibraryEntry | null => (key === null ? null : (byKey.get(key) ?? null));

const byName = new Map(LIBRARY.map((e) => [e.name.toLowerCase(), e]));

/** An entry as the material it would be, by its whole name. @example libraryByName("jojoba OIL")?.kind // "oil" */
export function libraryByName(name: string): (MaterialFacts & { key: string }) | null {
  const e = byName.get(name.trim().toLowerCase());
  return e ? { ...e, pieceMg: null } : null;
}

/** An entry as a sheet would know it, were it on the shelf under that number. @example libraryChoice(libraryEntry("jojoba"), 7).libraryKey // "jojoba" */
export const libraryChoice = ({ key, melts, ...e }: LibraryEntry, id: number) => ({
  ...{ id, name: e.name, kind: e.kind, densities: e.densities, dropsPerMl: e.dropsPerMl, pieceMg: null },
  ...{
    libraryKey: key,
    meltFrom: melts?.[0] ?? null,
    meltTo: melts?.[1] ?? null,
    makeup: [],
    cautions: e.cautions,
    allergen: e.allergen,
    keepsSealed: e.keepsSealed,
    scentNote: e.scentNote,
  },
  ...{ brimMl: e.brimMl, usableMl: null, innerMm: null, fillMm: null },
});

/** Those that are named, each once, and the lid of each container that has one. @example withLids(["jar-60"]).map((e) => e.key) // ["jar-60", "lid-53"] */
export function withLids(keys: readonly string[]): LibraryEntry[] {
  const named = keys.flatMap((k) => libraryEntry(k) ?? []);
  return [...new Set([...named, ...named.flatMap((e) => libraryEntry(e.lid) ?? [])])];
}

/** Entries by kind, in the library's order. */
export const libraryByKind = (): Map<LibraryEntry["kind"], LibraryEntry[]> => groupBy(LIBRARY, (e) => e.kind);

/** The figures whose origin is shown beside them. */
export interface Figures {
  densities: Partial<Record<Form, number>>;
  meltFrom: number | null;
  meltTo: number | null;
  keepsSealed: number | null;
  keepsOpened: number | null;
  dropsPerMl: number | null;
  brimMl: number | null;
  emptyMg: number | null;
}

export interface Origin {
  figure: string;
  /** "yours", or the source of the library's figure. */
  source: string;
}

/**
 * Where each figure of a material comes from: the library's source while it is the library's figure, else "yours".
 * @example originsOf({ ...libraryEntry("jojoba"), densities: { liquid: 900 } }, libraryEntry("jojoba"))[0] // { figure: "density, liquid", source: "yours" }
 */
export function originsOf(m: Figures, from: LibraryEntry | null): Origin[] {
  const origins: Origin[] = [];
  const say = (figure: string, own: number | null | undefined, given: number | null | undefined, source: string): void => {
    if (own != null) origins.push({ figure, source: own === given ? source : "yours" });
  };
  for (const form of Object.keys(m.densities) as Form[])
    say(
      `density, ${FORMS[form]}`,
      m.densities[form],
      from?.densities[form],
      // The table gives the liquid state; what a kitchen form weighs is from memory in any case.
      SOURCES[form === "liquid" || form === "melted" ? (from?.densitySource ?? "memory") : "memory"],
    );
  if (m.meltFrom !== null || m.meltTo !== null) {
    const same = m.meltFrom === (from?.melts?.[0] ?? null) && m.meltTo === (from?.melts?.[1] ?? null);
    origins.push({ figure: "melting range", source: same ? SOURCES.memory : "yours" });
  }
  say("keeps unopened", m.keepsSealed, from?.keepsSealed, SOURCES.memory);
  say("keeps once opened", m.keepsOpened, from?.keepsOpened, SOURCES.memory);
  say("drops per mL", m.dropsPerMl, from?.dropsPerMl, SOURCES.memory);
  say("holds, to the brim", m.brimMl, from?.brimMl, SOURCES.memory);
  say("weighs empty", m.emptyMg, from && from.emptyG !== null ? from.emptyG * 1000 : null, SOURCES.memory);
  return origins;
}
