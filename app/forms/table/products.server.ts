/** Products, for lists that name them. */
import { productFinder, type ProductFinder } from "#core/listsIn/products";
import { productNames } from "#core/recipe/productNames";
import { listProducts } from "#db/recipe/read";
import { db } from "../../server/workshop.server.ts";

/** Every product by its number and what it is called, those still made first. */
export async function productChoices(): Promise<[string, string][]> {
  const all = await listProducts(db());
  const names = productNames(all);
  return [...all].sort((a, b) => Number(a.retired) - Number(b.retired)).map((p) => [String(p.id), names.get(p.id)!]);
}

/** @param matches answers to names, by name in small letters */
export const productsMeant = async (matches: Readonly<Partial<Record<string, string>>>): Promise<ProductFinder> =>
  productFinder(await listProducts(db()), matches);
