/**
 * One base poured in parts: some of a size made otherwise, with a colour, a scent or a mineral stirred in. A part fills its own size, that
 * is priced, ordered and sold by its own name; it is written down on the batch and is no act until it is poured.
 */
import { calledPart, MOST_STIRRED_IN, partTotal, shareOf, additionWeight, type Measure } from "#core/batch/planning/parts";
import type { Mg } from "#core/measure/exact";
import { kind } from "#core/material/kinds";
import { Refused, type FieldProblem } from "#core/refused";
import type { Day } from "#core/when";
import { and, asc, eq, isNull, sql } from "drizzle-orm";
import type { Db, Reads, Tx } from "../../client.ts";
import { runPrepared } from "../../prepared.ts";
import { materialsNamed } from "../../shelf/materials.ts";
import { everUsed } from "../../recipe/sizesBack.ts";
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
} from "../../schema.ts";
import { takeMore } from "../weighing/match.ts";
import { lockBatchOnBench } from "../planning/standing.ts";

export interface PartIn {
  batchId: number;
  /** The size some of it is taken from. */
  sizeId: number;
  /** What tells it apart: "rose clay". */
  name: string;
  units: number;
  /** What is stirred in, by its name on the shelf. */
  additions: readonly { material: string; measure: Measure }[];
}

type Size = typeof batchSize.$inferSelect;
interface Share {
  materialId: number;
  name: string;
  /** In millionths of the part. */
  ppm: number;
}

/** What was asked for, and what is wrong with it, beside the fields. */
interface Asked<T> {
  found: T;
  problems: FieldProblem[];
}

/** The size some of a batch is taken from, and the place of one more. @throws Refused where it isn't there */
async function partedFrom(tx: Tx, { batchId, sizeId, units, name }: PartIn): Promise<Asked<{ size: Size; position: number }>> {
  const sizes = await tx.select().from(batchSize).where(eq(batchSize.batchId, batchId));
  const size = sizes.find((s) => s.id === sizeId && s.partOf === null);
  if (!size) throw Refused.one("size", "That size isn't planned of this batch any more.");
  const problems: FieldProblem[] = [];
  if (units > size.planned)
    problems.push({ field: "units", say: `Only ${size.planned} of ${size.label} are planned to be poured as they are.` });
  const label = calledPart(size.label, name).toLowerCase();
  if (sizes.some((s) => s.partOf === sizeId && s.label.toLowerCase() === label))
    problems.push({ field: "name", say: `There is a part called ${name} already. Take that one back first.` });
  return { found: { size, position: Math.max(...sizes.map((s) => s.position)) + 1 }, problems };
}

/** What is stirred in, as shares of the part; wrong is what isn't on the shelf or isn't weighed, is too much, or is there twice. */
async function sharesOf(tx: Tx, additions: PartIn["additions"], total: Mg): Promise<Asked<Share[]>> {
  const found = await materialsNamed(
    tx,
    [],
    additions.map((a) => a.material),
  );
  const problems: FieldProblem[] = [];
  const shares: Share[] = [];
  for (const [i, { material: called, measure }] of additions.entries()) {
    const m = found.find((x) => x.name.toLowerCase() === called.toLowerCase());
    const share = shareOf(measure, total);
    const wrong = (field: "material" | "measure", say: string): unknown => problems.push({ field: `additions.${i}.${field}`, say });
    if (!m) wrong("material", `${called} isn't on the shelf.`);
    else if (kind(m.kind).measured !== "weight") wrong("material", `${m.name} isn't weighed.`);
    else if (shares.some((s) => s.materialId === m.id)) wrong("material", "That is there already.");
    if (!share.ok) wrong("measure", share.problem.say);
    if (m && share.ok) shares.push({ materialId: m.id, name: m.name, ppm: share.value });
  }
  if (problems.length === 0 && shares.reduce((a, s) => a + s.ppm, 0) > MOST_STIRRED_IN)
    problems.push({ field: "additions.0.measure", say: "That is more than a third of the part in all. Write it as a separate recipe." });
  return { found: shares, problems };
}

/** The product a part is sold as: the one of before, or a new one packed like the size it is taken from. */
async function soldAs(tx: Tx, size: Size, name: string, shares: readonly Share[]): Promise<typeof product.$inferSelect> {
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
  await tx.insert(productAddition).values(shares.map(({ materialId, ppm }) => ({ productId: row!.id, materialId, ppm })));
  return row!;
}

/** Writes down that so many of a size are filled as something else. @returns the part's row */
export async function insertPart(tx: Tx, size: Size, position: number, sold: { id: number; label: string }, units: number): Promise<Size> {
  const { batchId, fill, unitMinutesHundredths } = size;
  const [part] = await tx
    .insert(batchSize)
    .values({ batchId, position, productId: sold.id, planned: units, partOf: size.id, label: sold.label, fill, unitMinutesHundredths })
    .returning();
  await tx
    .update(batchSize)
    .set({ planned: sql`${batchSize.planned} - ${units}` })
    .where(eq(batchSize.id, size.id));
  return part!;
}

/**
 * Plans to pour some of a size otherwise: its share of the base, and what is stirred in out of which lots.
 * @throws Refused by field: for more than is planned, a name that is taken, and naming what the shelf is short of; then nothing is saved
 */
export async function splitPart(db: Db, input: PartIn, day: Day): Promise<void> {
  await db.transaction(async (tx) => {
    const open = await lockBatchOnBench(tx, input.batchId);
    const from = await partedFrom(tx, input);
    const { size, position } = from.found;
    const [version] = await tx.select({ lossBp: recipeVersion.lossBp }).from(recipeVersion).where(eq(recipeVersion.id, open.versionId));
    const total = partTotal(input.units, size.fill, version!.lossBp);
    const { found: shares, problems } = await sharesOf(tx, input.additions, total);
    if (from.problems.length + problems.length > 0) throw new Refused([...from.problems, ...problems]);
    const sold = await soldAs(tx, size, input.name, shares);
    const part = await insertPart(tx, size, position, sold, input.units);
    const takes = await tx.select().from(batchTake).where(eq(batchTake.batchId, input.batchId)).orderBy(asc(batchTake.position));
    const last = Math.max(...takes.map((t) => t.position));
    const wants = shares.map(({ materialId, name, ppm }, i) => ({
      like: { batchId: input.batchId, position: last + 1 + i, materialId, name, sizeId: part.id },
      amount: additionWeight(total, ppm),
    }));
    await takeMore(tx, takes, wants, day, "make fewer of it, or stir in less.");
  });
}

/** Takes a part back into the base. @throws Refused once something of it was weighed */
export async function rejoinPart(db: Db, batchId: number, sizeId: number): Promise<void> {
  await db.transaction(async (tx) => {
    await lockBatchOnBench(tx, batchId);
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
  runPrepared(db, "variants_of", { batchId }, (at) =>
    db
      .select({ productId: product.id, name: product.variant, material: material.name, ppm: productAddition.ppm })
      .from(product)
      .innerJoin(batch, and(eq(batch.id, at.batchId), eq(batch.recipeId, product.recipeId)))
      .innerJoin(productAddition, eq(productAddition.productId, product.id))
      .innerJoin(material, eq(material.id, productAddition.materialId))
      .where(and(eq(product.retired, false), sql`${product.variant} <> ''`))
      .orderBy(asc(product.id), asc(productAddition.id)),
  );
