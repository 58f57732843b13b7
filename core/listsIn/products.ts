/**
 * Which product a list means by a name and a size: one that is called so, whatever the spaces and marks; never one that merely resembles it.
 * A name that means none, or two, is asked about, and the answer counts.
 */
import { groupBy } from "../collect.ts";
import { plain } from "../find.ts";
import { productNames, type Sized } from "../recipe/productNames.ts";
import type { Cells } from "./cells.ts";

/** Answers by name: a product's number. */
export type ProductMatches = Readonly<Partial<Record<string, string>>>;

/** "Hand  Balm – 60 g" is "hand balm 60g". */
const norm = (text: string): string =>
  plain(text)
    .replace(/[^\p{L}\d.]+|\.(?!\d)/gu, " ")
    .replace(/\s+/g, " ")
    .replace(/(\d) (?=\p{L})/gu, "$1")
    .trim();

/** @example calledIn("Balm", "60 g") // "Balm, 60 g" */
export const calledIn = (product: string, size: string): string => [product, size].filter(Boolean).join(", ");

export interface ProductFinder {
  /** A product's number; null where the name means none, or more than one, and nobody has said which. */
  find: (product: string, size: string) => number | null;
  /** The answer to a name; empty where there is none. */
  said: (product: string, size: string) => string;
}

/**
 * @param matches by the name as `calledIn` has it, in small letters
 * @example productFinder([{ id: 1, recipe: "Balm", label: "60 g", container: "Tin", retired: false }], {}).find("balm", "60g") // 1
 */
export function productFinder(all: readonly Sized[], matches: ProductMatches): ProductFinder {
  const own = productNames(all);
  const by = (name: (p: Sized) => string): ReadonlyMap<string, Sized[]> => groupBy(all, (p) => norm(name(p)));
  const plainly = by((p) => `${p.recipe} ${p.label}`);
  const whole = by((p) => own.get(p.id)!);
  const recipes = by((p) => p.recipe);
  const one = (found: readonly Sized[] = []): number | null => {
    // What is still made is meant before what isn't any more.
    const made = found.filter((p) => !p.retired);
    return found.length === 1 ? found[0]!.id : made.length === 1 ? made[0]!.id : null;
  };
  const saidOf = (product: string, size: string): string => matches[calledIn(product, size).toLowerCase()] ?? "";
  return {
    said: saidOf,
    find: (product, size) => {
      const said = saidOf(product, size);
      if (said !== "") return all.find((p) => String(p.id) === said)?.id ?? null;
      const name = norm(`${product} ${size}`);
      return one(whole.get(name)) ?? one(plainly.get(name)) ?? (size === "" ? one(recipes.get(name)) : null);
    },
  };
}

/** Names that mean no product, each with how many rows have it. */
export interface UnknownNames {
  add: (name: string) => void;
  all: () => { name: string; rows: number }[];
}

/** @example unknownNames().all() // [] */
export function unknownNames(): UnknownNames {
  const found = new Map<string, { name: string; rows: number }>();
  return {
    add: (name) => {
      const key = name.toLowerCase();
      const there = found.get(key);
      if (there) there.rows++;
      else found.set(key, { name, rows: 1 });
    },
    all: () => [...found.values()],
  };
}

/**
 * The product that a row names; where it is none, the row says so and its name is asked about.
 * @example productIn(cellsOf(listRow({ product: "Moon balm" }), reading, PRICES.fields), noProducts, unknownNames()) // { name: "Moon balm", productId: null }
 */
export function productIn(
  cells: Cells<"product" | "size">,
  products: ProductFinder,
  unknown: UnknownNames,
): { name: string; productId: number | null } {
  const [product, size] = [cells.text("product", 120), cells.text("size", 60)];
  const name = calledIn(product, size);
  if (product === "") return { name, productId: cells.fail("No product is named.") };
  const productId = products.find(product, size);
  if (productId !== null) return { name, productId };
  unknown.add(name);
  return { name, productId: cells.fail(`“${name}” is no product of yours, or more than one.`) };
}
