/** Finished goods that were there before the books began, as lots in the cabinet without a batch. */
import { numberer, numberHead } from "#core/lot/number";
import { sameLot, type FinishedLine } from "#core/listsIn/finished";
import { micros } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { counted } from "#core/words";
import { and, eq, inArray, isNotNull } from "drizzle-orm";
import { defineAct } from "../act/define.ts";
import type { Reads } from "../client.ts";
import { isEffective, requireNoLaterActs } from "../ledger/effective.ts";
import { takenNumbers } from "../ledger/numbers.ts";
import { lotColumns } from "../ledger/lots.ts";
import { inChunks } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { lot, movement, product, recipe, recipeVersion } from "../schema.ts";
import { readSettings } from "../settings/settings.ts";

export type OpeningFinishedIn = { lots: readonly Omit<FinishedLine, "row">[] };

/** Lots that were put into the cabinet so, as `sameLot` tells them. */
export async function finishedAlready(db: Reads): Promise<Set<string>> {
  const rows = await db
    .select({ productId: lot.productId, lotOnIt: lot.supplierLot, arrived: lot.arrived, printed: lot.printed })
    .from(movement)
    .innerJoin(lot, and(eq(lot.id, movement.lotId), isNotNull(lot.productId)))
    .where(and(eq(movement.reason, "opening"), isEffective(movement.actId)));
  // A list may not say when a lot was made; then the day it was put in counts.
  return new Set(
    rows.flatMap(({ productId, lotOnIt, arrived, printed }) =>
      [arrived, null].map((made) => sameLot({ productId: productId!, lotOnIt, made, bestBefore: printed })),
    ),
  );
}

/** Finished lots that came so: what they are made of isn't in the books, so no trace of a material reaches them. */
export const untraced = (db: Reads) =>
  runPrepared(db, "untraced", {}, () =>
    db
      .selectDistinct({ ...lotColumns, name: lot.name, label: lot.label })
      .from(movement)
      .innerJoin(lot, and(eq(lot.id, movement.lotId), isNotNull(lot.productId)))
      .where(and(eq(movement.reason, "opening"), isEffective(movement.actId)))
      .orderBy(lot.id),
  );
export type Untraced = Awaited<ReturnType<typeof untraced>>;

/** How many months each product keeps, as its recipe is written now. */
export const keepsByProduct = async (db: Reads): Promise<Map<number, number>> =>
  new Map(
    (
      await db
        .select({ id: product.id, months: recipeVersion.keepsMonths })
        .from(product)
        .innerJoin(recipe, eq(recipe.id, product.recipeId))
        .innerJoin(recipeVersion, eq(recipeVersion.id, recipe.versionId))
    ).map((p) => [p.id, p.months]),
  );

/** Puts what was there into the cabinet, a lot for each line, as one act. @throws Refused by field; then nothing is saved */
export const openingFinished = defineAct({
  kind: "openingFinished",
  // Of two windows with one list the second finds it there.
  exclusive: true,
  run: async (tx, { lots: lines }: OpeningFinishedIn, { actId, day }) => {
    if (lines.length === 0) throw Refused.one("", "Enter at least one line.");
    const there = await finishedAlready(tx);
    if (lines.some((l) => there.has(sameLot({ ...l, bestBefore: l.worked ? null : l.bestBefore }))))
      throw Refused.one("", "One of these lots is in the books already. Look at the list again.");
    const ids = [...new Set(lines.map((l) => l.productId))];
    const rows = await tx
      .select({ id: product.id, label: product.label, fill: product.fill, name: recipe.name, code: recipe.code })
      .from(product)
      .innerJoin(recipe, eq(recipe.id, product.recipeId))
      .where(inArray(product.id, ids))
      .for("key share");
    const of = new Map(rows.map((r) => [r.id, r]));
    if (of.size < ids.length) throw Refused.one("", "One of these products isn't here any more. Look at the list again.");
    const { batchScheme } = await readSettings(tx);
    const next = numberer(batchScheme, day, await takenNumbers(tx, numberHead(batchScheme, { day })));
    for (const piece of inChunks(lines)) {
      const made = await tx
        .insert(lot)
        .values(
          piece.map((l) => {
            const { name, label, fill, code } = of.get(l.productId)!;
            return {
              ...{ number: next(code), productId: l.productId, name, label, fill },
              supplierLot: l.lotOnIt,
              arrived: l.made ?? day,
              printed: l.worked ? null : l.bestBefore,
              bestBefore: l.bestBefore,
              bestBy: l.bestBefore === null ? ("" as const) : l.worked ? ("keeping" as const) : ("printed" as const),
              costKnown: l.cost === null ? ("none" as const) : ("guessed" as const),
            };
          }),
        )
        .returning({ id: lot.id });
      await tx.insert(movement).values(
        piece.map((l, i) => ({
          actId,
          lotId: made[i]!.id,
          qty: l.units,
          value: micros((l.cost ?? 0) * l.units),
          reason: "opening" as const,
        })),
      );
    }
    return {
      path: "/cabinet",
      summary: `${counted(lines.length, "lot")} put into the cabinet that ${lines.length === 1 ? "was" : "were"} there before the books began`,
      about: ids.map((id) => ({ kind: "product" as const, id })),
      leaves: null,
    };
  },
  leaves: null,
  back: async (tx, _left, { undoes }) => {
    const came = tx.select({ id: movement.lotId }).from(movement).where(eq(movement.actId, undoes));
    await requireNoLaterActs(tx, { kind: "lot", among: came }, undoes, ["sayCost"], "What one of these lots cost was said since.");
    return "/cabinet";
  },
});
