/**
 * One base poured in parts: some of a size made otherwise, with a colour, a scent or a mineral stirred in. A part fills a size of its own, that
 * is priced, ordered and sold by its own name; it is written down on the batch and is no act until it is poured.
 */
import { calledPart, MOST_STIRRED_IN, partPlan } from "#core/batch/parts";
import { Refused } from "#core/refused";
import type { Day } from "#core/when";
import { and, asc, eq, inArray, isNull, sql } from "drizzle-orm";
import type { Db, Reads, Tx } from "../client.ts";
import { ask } from "../prepared.ts";
import { everUsed } from "../recipe/sizesBack.ts";
import {
  batch,
  batchSample,
  batchSize,
  batchTake,
  material,
  product,
  productAddition,
  productPackaging,
  recipeVersion,
} from "../schema.ts";
import { takeMore } from "./match.ts";
import { standing } from "./standing.ts";

export interface PartIn {
  batchId: number;
  /** The size some of it is taken from. */
  sizeId: number;
  /** What tells it apart: "rose clay". */
  name: string;
  units: number;
  /** What is stirred in, in millionths of the part. */
  additions: readonly { materialId: number; ppm: number }[];
}

type Size = typeof batchSize.$inferSelect;

/** The size some of a batch is taken from. @throws Refused where it isn't there, or hasn't so many */
async function partedFrom(tx: Tx, { batchId, sizeId, units, name }: PartIn): Promise<Size> {
  const sizes = await tx.select().from(batchSize).where(eq(batchSize.batchId, batchId));
  const size = sizes.find((s) => s.id === sizeId && s.partOf === null);
  if (!size) throw Refused.one("size", "That size isn't planned of this batch any more.");
  if (units > size.planned) throw Refused.one("units", `Only ${size.planned} of ${size.label} are planned to be poured as they are.`);
  const label = calledPart(size.label, name).toLowerCase();
  if (sizes.some((s) => s.partOf === sizeId && s.label.toLowerCase() === label))
    throw Refused.one("name", `There is a part called ${name} already. Take that one back first.`);
  return size;
}

/** The product a part is sold as: the one of before, or a new one packed like the size it is taken from. */
async function soldAs(tx: Tx, size: Size, { name, additions }: PartIn): Promise<typeof product.$inferSelect> {
  const [base] = await tx.select().from(product).where(eq(product.id, size.productId)).for("no key update");
  const label = calledPart(size.label, name);
  const [known] = await tx
    .select()
    .from(product)
    .where(
      and(
        eq(product.recipeId, base!.recipeId),
        sql`lower(${product.label}) = lower(${label})`,
        eq(product.fill, size.fill),
        sql`${product.variant} <> ''`,
        sql`${product.containerId} is not distinct from ${base!.containerId}`,
      ),
    );
  const { id: _, ownPrice: _own, ...like } = base!;
  const [row] = known
    ? await tx.update(product).set({ retired: false }).where(eq(product.id, known.id)).returning()
    : await tx
        .insert(product)
        .values({ ...like, fill: size.fill, label, variant: name, retired: false })
        .returning();
  if (!known) {
    const packed = await tx
      .select()
      .from(productPackaging)
      .where(eq(productPackaging.productId, base!.id))
      .orderBy(asc(productPackaging.id));
    if (packed.length > 0)
      await tx.insert(productPackaging).values(packed.map(({ materialId, pieces }) => ({ productId: row!.id, materialId, pieces })));
  }
  await tx.delete(productAddition).where(eq(productAddition.productId, row!.id));
  await tx.insert(productAddition).values(additions.map((a) => ({ ...a, productId: row!.id })));
  return row!;
}

/**
 * Plans to pour some of a size otherwise: its share of the base, and what is stirred in out of which lots.
 * @throws Refused by field: for more than is planned, a name that is taken, and naming what the shelf is short of; then nothing is kept
 */
export async function partOff(db: Db, input: PartIn, day: Day): Promise<void> {
  await db.transaction(async (tx) => {
    const open = await standing(tx, input.batchId);
    const size = await partedFrom(tx, input);
    const [version] = await tx.select({ lossBp: recipeVersion.lossBp }).from(recipeVersion).where(eq(recipeVersion.id, open.versionId));
    const ids = input.additions.map((a) => a.materialId);
    if (new Set(ids).size < ids.length) throw Refused.one("additions.1.material", "That stands there already.");
    if (input.additions.reduce((a, d) => a + d.ppm, 0) > MOST_STIRRED_IN)
      throw Refused.one("additions.0.amount", "That is more than a third of the part in all. Write it as a recipe of its own.");
    const names = new Map((await tx.select().from(material).where(inArray(material.id, ids))).map((m) => [m.id, m.name]));
    const sold = await soldAs(tx, size, input);
    const positions = await tx
      .select({ size: sql`max(${batchSize.position})`.mapWith(Number) })
      .from(batchSize)
      .where(eq(batchSize.batchId, input.batchId));
    const [part] = await tx
      .insert(batchSize)
      .values({
        batchId: input.batchId,
        position: positions[0]!.size + 1,
        productId: sold.id,
        planned: input.units,
        partOf: size.id,
        label: sold.label,
        fill: size.fill,
        unitMinutesHundredths: size.unitMinutesHundredths,
      })
      .returning();
    await tx
      .update(batchSize)
      .set({ planned: size.planned - input.units })
      .where(eq(batchSize.id, size.id));
    const takes = await tx.select().from(batchTake).where(eq(batchTake.batchId, input.batchId)).orderBy(asc(batchTake.position));
    const last = Math.max(...takes.map((t) => t.position));
    const plan = partPlan({ units: input.units, fill: size.fill, lossBp: version!.lossBp, shares: input.additions.map((a) => a.ppm) });
    const wants = input.additions.map(({ materialId }, i) => ({
      like: { batchId: input.batchId, position: last + 1 + i, materialId, name: names.get(materialId)!, sizeId: part!.id },
      amount: plan.additions[i]!,
    }));
    await takeMore(tx, takes, wants, day, "make fewer of it, or stir in less.");
  });
}

/** Takes a part back into the base. @throws Refused once something of it was weighed */
export async function joinBack(db: Db, batchId: number, sizeId: number): Promise<void> {
  await db.transaction(async (tx) => {
    await standing(tx, batchId);
    const [part] = await tx
      .select()
      .from(batchSize)
      .where(and(eq(batchSize.id, sizeId), eq(batchSize.batchId, batchId)));
    if (!part || part.partOf === null) throw Refused.one("", "That part isn't here any more.");
    const lines = await tx.select().from(batchTake).where(eq(batchTake.sizeId, sizeId));
    const [weighed] = lines.filter((l) => l.weighed !== null);
    if (weighed) throw Refused.one("", `${weighed.name} is in it already: strike its weight out first, if it isn't.`);
    const samples = await tx
      .select({ id: batchSample.id })
      .from(batchSample)
      .where(and(eq(batchSample.sizeId, sizeId), isNull(batchSample.struckAt)));
    if (samples.length > 0) throw Refused.one("", "Some of it are weighed already: strike those out first.");
    await tx.delete(batchTake).where(eq(batchTake.sizeId, sizeId));
    await tx.delete(batchSample).where(eq(batchSample.sizeId, sizeId));
    await tx.delete(batchSize).where(eq(batchSize.id, sizeId));
    await tx
      .update(batchSize)
      .set({ planned: sql`${batchSize.planned} + ${part.planned}` })
      .where(eq(batchSize.id, part.partOf));
    if ((await everUsed(tx, [part.productId])).size > 0) return;
    await tx.delete(productAddition).where(eq(productAddition.productId, part.productId));
    await tx.delete(productPackaging).where(eq(productPackaging.productId, part.productId));
    await tx.delete(product).where(eq(product.id, part.productId));
  });
}

/** What was stirred into parts of the same recipe before, to be poured so again; by a batch of it. */
export const variantsOf = (db: Reads, batchId: number) =>
  ask(db, "variants_of", { batchId }, (at) =>
    db
      .select({ productId: product.id, name: product.variant, material: material.name, ppm: productAddition.ppm })
      .from(product)
      .innerJoin(batch, and(eq(batch.id, at.batchId), eq(batch.recipeId, product.recipeId)))
      .innerJoin(productAddition, eq(productAddition.productId, product.id))
      .innerJoin(material, eq(material.id, productAddition.materialId))
      .where(and(eq(product.retired, false), sql`${product.variant} <> ''`))
      .orderBy(asc(product.id), asc(productAddition.id)),
  );
