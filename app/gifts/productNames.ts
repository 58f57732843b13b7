/** Products by one plain name each, its size included. */
import { grams } from "#core/measure/write";

/** @example productNames([{ name: "Hand balm", fill: 60_000 }])[0].name // "Hand balm, 60 g" */
export const productNames = <P extends { name: string; fill: number }>(products: readonly P[]): { product: P; name: string }[] =>
  products.map((product) => ({ product, name: `${product.name}, ${grams(product.fill)}` }));
