/** What a poured batch teaches for the next: how those before it went, what to change in the recipe, and writing its next version so. */
import { changedLines, nextTime, type Change, type Went } from "#core/batch/finishing/nextTime";
import { mg } from "#core/measure/exact";
import { FINE } from "#core/batch/weighing/weighingFixes";
import { usualForm } from "#core/material/facts";
import { Refused } from "#core/refused";
import { and, asc, eq, gt, inArray, sql } from "drizzle-orm";
import { object } from "yup";
import { defineAct } from "../../act/define.ts";
import { undoId } from "../../act/left.ts";
import type { Reads } from "../../client.ts";
import { readNumber, rowsOf } from "../../columnsOf.ts";
import { anyOf } from "../../pieces.ts";
import { readWhole, type WrittenRecipe } from "../../recipe/read.ts";
import { rewrite } from "../../recipe/reweigh.ts";
import { leftSizes, sizeRows, restoreSizes } from "../../recipe/sizesBack.ts";
import { setCurrentVersion } from "../../recipe/versions.ts";
import { batch, batchSize, batchTake, lot, material, recipe } from "../../schema.ts";
import type { BatchSheet } from "../read.ts";

/** How many batches say what a recipe usually loses and takes. */
const PAST = 5;

/** How this batch went, and those of its recipe poured before it, newest first. */
async function pastOf(db: Reads, { id, recipeId, day }: typeof batch.$inferSelect): Promise<Went[]> {
  const rows = await rowsOf(
    db,
    { weighed: readNumber, filled: readNumber, leftover: readNumber, minutes: readNumber, each: readNumber },
    sql`select coalesce((select sum(t.weighed) from ${batchTake} t where t.batch_id = b.id), 0)::float8 as weighed,
      coalesce(sum(s.units::bigint * s.fill), 0)::float8 as filled, coalesce(b.leftover, 0)::float8 as leftover,
      coalesce(b.minutes, 0)::float8 as minutes, coalesce(sum(s.units * s.unit_minutes_hundredths), 0)::float8 / 100 as each
    from (select * from ${batch} where recipe_id = ${recipeId} and poured_act_id is not null and (day, id) <= (${day}, ${id})
      order by day desc, id desc limit ${PAST}) b join ${batchSize} s on s.batch_id = b.id
    group by b.id, b.day, b.leftover, b.minutes order by b.day desc, b.id desc`,
  );
  return rows.flatMap((r) =>
    r.weighed > 0 ? [{ lostShare: (r.weighed - r.leftover - r.filled) / r.weighed, minutes: Math.max(0, r.minutes - r.each) }] : [],
  );
}

export interface Taught {
  changes: Change[];
  /** Some of it was melted in again: it had its own proportions, and says nothing of the recipe's. */
  melted: boolean;
  /** The recipe as it is written, which is what was made. */
  recipe: WrittenRecipe;
}

/** What of a poured batch is learned from. */
type Learnt = Pick<BatchSheet, "batch"> & {
  takes: readonly Pick<BatchSheet["takes"][number], "materialId" | "material" | "weighed" | "sizeId">[];
};

/** What a poured batch teaches for the version it was made by; null where that is no longer the newest. */
export async function lessonsOf(db: Reads, sheet: Learnt): Promise<Taught | null> {
  // One after the other: an act asks in its own transaction.
  const written = await readWhole(db, sheet.batch.recipeId);
  const past = await pastOf(db, sheet.batch);
  if (written?.recipe.versionId !== sheet.batch.versionId || written.recipe.retired) return null;
  const { lossBp, batchMinutes } = written.recipe;
  // What was stirred into a part is the variant's, not the recipe's.
  const base = sheet.takes.filter((t) => t.sizeId === null);
  const again = await db
    .select({ id: material.id })
    .from(material)
    .where(
      and(
        eq(material.kind, "base"),
        anyOf(
          material.id,
          base.map((t) => t.materialId).filter((id) => written.lines.every((l) => l.materialId !== id)),
        ),
      ),
    );
  if (again.length > 0) return { changes: [], melted: true, recipe: written };
  const wentIn = base.map((t) => ({ materialId: t.materialId, name: t.material, weighed: t.weighed ?? mg(0) }));
  return {
    changes: nextTime({ lines: written.lines, lossBp, batchMinutes }, wentIn, past, sheet.batch.scaleStep ?? FINE),
    melted: false,
    recipe: written,
  };
}

const MOVED_ON = "What this batch says has changed since this page was read: look again.";

/** Writes the next version of a recipe as a batch of it taught. @throws Refused where the recipe, or what is taught of it, has changed */
export const learnBatch = defineAct({
  kind: "learnBatch",
  run: async (tx, { batchId, keys }: { batchId: number; keys: readonly string[] }, { actId, day }) => {
    const [held] = await tx
      .select({ id: recipe.id })
      .from(recipe)
      .where(inArray(recipe.id, tx.select({ id: batch.recipeId }).from(batch).where(eq(batch.id, batchId))))
      .for("no key update");
    const [made] = await tx.select().from(batch).where(eq(batch.id, batchId));
    if (!held || !made || made.pouredActId === null) throw Refused.one("", "This batch isn't poured any more.");
    const takes = await tx
      .select({
        materialId: batchTake.materialId,
        material: batchTake.name,
        weighed: batchTake.weighed,
        sizeId: batchTake.sizeId,
        kind: material.kind,
      })
      .from(batchTake)
      .innerJoin(material, eq(material.id, batchTake.materialId))
      .where(eq(batchTake.batchId, batchId))
      .orderBy(batchTake.position, batchTake.id);
    const taught = await lessonsOf(tx, { batch: made, takes });
    if (!taught) throw Refused.one("", "The recipe has another version by now, or was put away. Look at it there.");
    const chosen = taught.changes.filter((c) => keys.includes(c.key));
    if (chosen.length === 0 || chosen.length !== new Set(keys).size)
      throw Refused.one("", keys.length === 0 ? "Tick what is to be written." : MOVED_ON);
    const before = await sizeRows(tx, held.id);
    const { lines, inGrams } = changedLines(taught.recipe.lines, chosen, (materialId) => {
      const { material: name, kind } = takes.find((t) => t.materialId === materialId)!;
      return { id: 0, materialId, name, form: usualForm(kind), entered: "", weight: mg(0) };
    });
    const now = (of: "loss" | "minutes"): number | undefined => chosen.find((c) => c.of === of)?.now;
    const { makes, lossBp, batchMinutes } = taught.recipe.recipe;
    const [first] = await tx
      .select({ number: lot.number })
      .from(batchSize)
      .innerJoin(lot, eq(lot.id, batchSize.lotId))
      .where(and(eq(batchSize.batchId, batchId), gt(batchSize.units, 0)))
      .orderBy(asc(batchSize.position))
      .limit(1);
    const after = `after lot ${first!.number}`;
    const n = await rewrite(
      tx,
      taught.recipe,
      { lines, makes: inGrams ? null : makes, lossBp: now("loss") ?? lossBp, batchMinutes: now("minutes") ?? batchMinutes },
      { actId, day, note: `A${after.slice(1)}: ${chosen.map((c) => c.say).join("; ")}` },
    );
    return {
      path: `/recipes/${held.id}`,
      summary: `Saved ${taught.recipe.recipe.name}, version ${n}, ${after}`,
      about: [
        { kind: "recipe", id: held.id, changes: true },
        { kind: "batch", id: batchId },
      ],
      leaves: { recipeId: held.id, ...before },
    };
  },
  leaves: object({ recipeId: undoId(), ...leftSizes }),
  back: async (tx, left, { undoes }) => {
    await restoreSizes(tx, left.recipeId, left, undoes);
    await setCurrentVersion(tx, left.recipeId);
  },
});
