/** What filled sizes are packed in: so many of each, out of which lots. */
import { Refused } from "#core/refused";
import { planTakes, stockOnHand } from "#core/stock/shelf";
import type { Day } from "#core/when";
import { counted, wordList } from "#core/words";
import { asc, eq, inArray } from "drizzle-orm";
import type { Tx } from "../../client.ts";
import { draw, type LockedLot, type NewMovement } from "../../ledger/lots.ts";
import { material, productPackaging, type batchSize } from "../../schema.ts";

/** A size with what was filled of it, and its place on the sheet. */
export type Filled = typeof batchSize.$inferSelect & { units: number; at: number };
const pieces = (n: number): string => counted(n, "pc");

/** What each filled size is packed in, so many of it, and its place among the sizes. */
export async function packagingOf(tx: Tx, sizes: readonly Filled[]) {
  const rows = await tx
    .select({
      productId: productPackaging.productId,
      of: productPackaging.materialId,
      pieces: productPackaging.pieces,
      name: material.name,
    })
    .from(productPackaging)
    .innerJoin(material, eq(material.id, productPackaging.materialId))
    .where(
      inArray(
        productPackaging.productId,
        sizes.map((s) => s.productId),
      ),
    )
    .orderBy(asc(productPackaging.id));
  return sizes.flatMap((size, i) =>
    rows.flatMap((r) => (r.productId === size.productId ? [{ of: r.of, amount: r.pieces * size.units, name: r.name, size, i }] : [])),
  );
}
type Needed = Awaited<ReturnType<typeof packagingOf>>[number];

/** Packaging of each size, use-first, drawn from locked lots, first expired first; each goes into that size's own lot. @throws Refused naming what is short */
export function drawPackaging(
  locked: ReadonlyMap<number, LockedLot>,
  needs: readonly Needed[],
  sizes: readonly (Filled & { into: number })[],
  day: Day,
  base: Omit<NewMovement, "lotId" | "qty" | "value">,
): NewMovement[][] {
  const plan = planTakes(needs, stockOnHand([...locked.values()], day));
  const missing = plan.flatMap((p, i) => (p.short > 0 ? [{ at: needs[i]!.size.at, say: `${pieces(p.short)} of ${needs[i]!.name}` }] : []));
  if (missing.length > 0)
    throw Refused.one(`sizes.${missing[0]!.at}.units`, `The shelf is short of ${wordList(missing.map((m) => m.say))}. Nothing was moved.`);
  return sizes.map((size, i) =>
    plan.flatMap((p, n) =>
      needs[n]!.i !== i
        ? []
        : p.takes.map((t) => draw(locked, t.lotId, t.amount, `sizes.${size.at}.units`, pieces, { ...base, intoLotId: size.into })),
    ),
  );
}
