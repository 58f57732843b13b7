/**
 * Resolves a name on a sheet to a thing once, when it is typed: as long as the name is on the sheet it means that thing, whatever it or
 * another is called by the time the sheet is saved.
 */

/** How names are compared. @example normalizeName(" Olive Oil ") // "olive oil" */
export const normalizeName = (name: string): string => name.trim().toLowerCase();

/** The number of what a name meant when it was typed; null where it was never found. */
export type Meant = (name: string) => number | null;

const asTyped: Meant = () => null;

/** Things by how they are called. */
export const byCalled = <T extends { name: string }>(things: readonly T[]): ReadonlyMap<string, T> =>
  new Map(things.map((t) => [normalizeName(t.name), t]));

/**
 * Finds things by the names that are on a sheet: what a name meant, else what is called so now.
 * @example finderBy([{ id: 5, name: "Olive oil, virgin" }, { id: 9, name: "Olive oil" }], () => 5)("olive oil")?.id // 5
 */
export function finderBy<T extends { id: number; name: string }>(things: readonly T[], meant: Meant = asTyped): (name: string) => T | null {
  const byId = new Map(things.map((t) => [t.id, t]));
  const byName = byCalled(things);
  return (name) => byId.get(meant(name) ?? NaN) ?? byName.get(normalizeName(name)) ?? null;
}

/**
 * What a row of a sheet records beside a name that several things may have: which it meant, and by which name.
 * @example meaning({ id: 7, name: "Hand balm, 60 g" }) // "7 Hand balm, 60 g"
 */
export const meaning = (thing: { id: number; name: string }): string => `${thing.id} ${thing.name}`;

/** The thing a row meant; null where something else was typed since. @example idMeant("Hand balm, 60 g", "7 Hand balm, 60 g") // 7 */
export function idMeant(name: string, means: string): number | null {
  const at = means.indexOf(" ");
  return at > 0 && normalizeName(means.slice(at + 1)) === normalizeName(name) ? Number(means.slice(0, at)) : null;
}
