/**
 * What products are called where one is chosen by its name: the recipe and the size, and where two would be called alike whatever tells them
 * apart, so that a name always means one of them.
 */
import { groupBy } from "../collect.ts";

export interface Sized {
  id: number;
  recipe: string;
  label: string;
  container: string | null;
  /** No longer made. */
  retired: boolean;
}

/** What a product is called, the shortest first, until it is told apart. */
const WAYS: readonly ((p: Sized) => string)[] = [
  (p) => `${p.recipe}, ${p.label}`,
  (p) => `${p.recipe}, ${p.label}, in ${p.container ?? "no container"}`,
  (p) => `${p.recipe}, ${p.label}, in ${p.container ?? "no container"}${p.retired ? ", no longer made" : ""}`,
  (p) => `${p.recipe}, ${p.label}, no. ${p.id}`,
];

/**
 * Names by product, no two alike in whatever case.
 * @param all every product there is, since each is told apart from all others
 * @example productNames([{ id: 1, recipe: "Balm", label: "60 g", container: "Tin", retired: false }]).get(1) // "Balm, 60 g"
 */
export function productNames(all: readonly Sized[]): Map<number, string> {
  const names = new Map<number, string>();
  let open = [...all];
  for (const way of WAYS) {
    const alike = groupBy(open, (p) => way(p).toLowerCase());
    open = [];
    for (const group of alike.values()) {
      // What is still made has the plain name before what isn't any more.
      const made = group.filter((p) => !p.retired);
      const one = group.length === 1 ? group[0] : made.length === 1 ? made[0] : undefined;
      if (one) names.set(one.id, way(one));
      open.push(...group.filter((p) => p !== one));
    }
  }
  return names;
}

/** The plain names that mean none of several products, with what those are called. @example alikeIn([]).size // 0 */
export function alikeIn(all: readonly Sized[]): Map<string, string[]> {
  const names = productNames(all);
  const groups = groupBy(all, (p) => WAYS[0]!(p).toLowerCase());
  const taken = new Set([...names.values()].map((n) => n.toLowerCase()));
  return new Map([...groups].filter(([plain]) => !taken.has(plain)).map(([plain, g]) => [plain, g.map((p) => names.get(p.id)!)]));
}
