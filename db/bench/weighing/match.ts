/** Off target, and mended: the rest of the batch made to match, or what is short taken out of the next lot; each as one step. */
import type { WeighedBy } from "#core/batch/weighing/events";
import { matchRatio } from "#core/batch/weighing/weighingFixes";
import type { SpoonVerdict } from "#core/batch/finishing/spoon";
import { mg, mulDiv, sum, type Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { Refused } from "#core/refused";
import { passedOver } from "#core/stock/lots";
import { planTakes, stockOnHand } from "#core/stock/shelf";
import { unreserved } from "#core/stock/reservations";
import type { Day } from "#core/when";
import { wordList } from "#core/words";
import { eq } from "drizzle-orm";
import type { Db, Tx } from "../../client.ts";
import { lotsOfMaterials } from "../../ledger/lots.ts";
import { actorName } from "../../act/maker.ts";
import { batch, batchEvent, batchTake, material } from "../../schema.ts";
import { materialsOfLines } from "../../shelf/makeLots.ts";
import { lockReservations, readReservations } from "../planning/reservations.ts";
import { lockBatchOnBench } from "../planning/standing.ts";
import { lineIn, lineOf, takesOf, type LineOf } from "./weigh.ts";

export interface OffIn extends LineOf {
  /** What went in. */
  weighed: Mg;
  by: WeighedBy;
}

type Take = typeof batchTake.$inferSelect;

/** Keeps what went in as all that is taken of its lot. */
const keep = (tx: Tx, off: Take, { weighed, by }: OffIn): Promise<unknown> =>
  tx.update(batchTake).set({ planned: weighed, weighed, weighedAt: new Date(), weighedBy: by }).where(eq(batchTake.id, off.id));

/** A line of a batch that more is wanted of. */
type Like = Pick<Take, "batchId" | "position" | "materialId" | "name" | "sizeId">;

/**
 * So much more of each line, out of what isn't reserved by this batch.
 * @param takes all lines of the batch @param instead what could be done where there is too little
 * @throws Refused naming all that is short
 */
export async function takeMore(
  tx: Tx,
  takes: readonly Take[],
  wants: readonly { like: Like; amount: number }[],
  day: Day,
  instead: string,
): Promise<void> {
  await lockReservations(tx);
  const all = await lotsOfMaterials(
    tx,
    wants.map((w) => w.like.materialId),
  );
  const lots = unreserved(all, await readReservations(tx, takes[0]!.batchId), day);
  const spoken = new Map<number, number>();
  for (const t of takes) spoken.set(t.lotId, (spoken.get(t.lotId) ?? 0) + Math.max(t.planned, t.weighed ?? 0));
  const left = lots.map((l) => ({ ...l, onHand: Math.max(0, l.onHand - (spoken.get(l.id) ?? 0)) })).filter((l) => l.onHand > 0);
  const plan = planTakes(
    wants.map((w) => ({ of: w.like.materialId, amount: w.amount })),
    stockOnHand(left, day),
  );
  const short = wants.flatMap(({ like }, i) => (plan[i]!.short > 0 ? [{ like, by: plan[i]!.short }] : []));
  if (short.length > 0) {
    const missing = wordList(short.map((s) => `${grams(s.by)} of ${s.like.name}`));
    const over = passedOver(
      all.filter((l) => short.some((s) => s.like.materialId === l.of)),
      day,
    );
    throw Refused.one("", `The shelf is short of ${missing}.${over} Nothing was saved: ${instead}`);
  }
  for (const [i, { like }] of wants.entries())
    for (const t of plan[i]!.takes) {
      // What is in the pot already gets a separate line for what is still to be added.
      const own = takes.find((x) => x.position === like.position && x.lotId === t.lotId && x.weighed === null);
      if (own)
        await tx
          .update(batchTake)
          .set({ planned: mg(own.planned + t.amount) })
          .where(eq(batchTake.id, own.id));
      else {
        const { batchId, position, materialId, name, sizeId } = like;
        await tx.insert(batchTake).values({ batchId, position, materialId, name, sizeId, lotId: t.lotId, planned: mg(t.amount) });
      }
    }
}

/**
 * Keeps a weighing that is off, and plans everything else to match: more of it, out of the next lot where its own is short, or less.
 * @throws Refused naming everything there is too little of, or what is in the pot already and would be too much; then nothing is saved
 */
export async function matchBatch(db: Db, input: OffIn, day: Day): Promise<void> {
  await db.transaction(async (tx) => {
    const open = await lockBatchOnBench(tx, input.batchId);
    const { takes, found: off } = await lineOf(tx, input);
    if (off.sizeId !== null)
      throw Refused.one("", "It goes into a part of the pot: make that part again in another size, or leave it as it is.");
    const base = takes.filter((t) => t.sizeId === null);
    const [n, d] = matchRatio(base, base.indexOf(off), input.weighed);
    if (n <= 0 || n === d) throw Refused.one("", "That is what was planned.");
    const others = base.filter((t) => t.position !== off.position);
    const wanted = (t: Take): Mg => mg(mulDiv(t.planned, n, d));
    if (n > d) {
      const spoken = takes.map((t) => (t === off ? { ...t, planned: input.weighed } : t));
      await takeMore(
        tx,
        spoken,
        others.map((t) => ({ like: t, amount: wanted(t) - t.planned })),
        day,
        "scoop some back, or leave it as it is.",
      );
    } else {
      const in_ = others.filter((t) => t.weighed !== null && t.weighed > wanted(t));
      if (in_.length > 0)
        throw Refused.one(
          "",
          `${wordList(in_.map((t) => t.name))} ${in_.length === 1 ? "is" : "are"} in the pot already: a smaller batch would have too much of it. Nothing was saved.`,
        );
      for (const t of others)
        await tx
          .update(batchTake)
          .set({ planned: wanted(t) })
          .where(eq(batchTake.id, t.id));
    }
    await keep(tx, off, input);
    await tx
      .update(batch)
      .set({ plannedMg: mg(mulDiv(open.plannedMg, n, d)) })
      .where(eq(batch.id, input.batchId));
  });
}

/** Its lot ran out: what went in is saved, and the rest is planned out of the next. @throws Refused when there is no more of it */
export async function nextLot(db: Db, input: OffIn, day: Day): Promise<void> {
  await db.transaction(async (tx) => {
    await lockBatchOnBench(tx, input.batchId);
    const { takes, found: off } = await lineOf(tx, input);
    const amount = off.planned - input.weighed;
    if (amount <= 0) throw Refused.one("", "Nothing is missing of it.");
    // All of this lot is reserved: it is empty, whatever the books say.
    const spoken = takes.map((t) => (t === off ? { ...t, planned: mg(Number.MAX_SAFE_INTEGER) } : t));
    await takeMore(tx, spoken, [{ like: off, amount }], day, "make the rest to match, or leave it as it is.");
    await keep(tx, off, input);
  });
}

/**
 * Its material ran out: what went in is saved, and something else is planned in the place of the rest. It is written down.
 * @throws Refused where there is too little of it
 */
export async function standInFor(db: Db, input: OffIn & { by: WeighedBy; materialId: number; amount: Mg }, day: Day): Promise<void> {
  await db.transaction(async (tx) => {
    await lockBatchOnBench(tx, input.batchId);
    const { takes, found: off } = await lineOf(tx, input);
    const [other] = await tx.select({ name: material.name }).from(material).where(eq(material.id, input.materialId));
    if (!other) throw Refused.one("", "That material isn't here any more.");
    if (input.amount <= 0 || input.materialId === off.materialId) throw Refused.one("", "Choose something else for it.");
    const { batchId, position, sizeId } = off;
    const like = { batchId, position, materialId: input.materialId, name: other.name, sizeId };
    await takeMore(tx, takes, [{ like, amount: input.amount }], day, "take the rest from the next lot, or make less.");
    await keep(tx, off, input);
    const note = `${grams(input.amount)} of ${other.name} in the place of ${grams(off.planned - input.weighed)} of ${off.name}`;
    await tx.insert(batchEvent).values({ batchId, kind: "note", note, who: actorName });
  });
}

export interface FixInput {
  batchId: number;
  /** How many lines the sheet had when that was worked out: sent again it adds nothing twice, nor beside what another window added. */
  had: number;
  /** So much more of lines there are. */
  lines: readonly (Omit<LineOf, "batchId"> & { amount: Mg })[];
  /** So much of what isn't on the sheet yet. */
  others: readonly { materialId: number; amount: Mg }[];
  /** What was tested, and what it said. */
  said: string;
  verdict: SpoonVerdict | null;
}

/** What puts a pot right, planned as more of it and written down with why. @throws Refused when there is too little of one of them; then nothing is saved */
export async function fixPot(db: Db, { batchId, had, lines, others, said, verdict }: FixInput, day: Day): Promise<void> {
  await db.transaction(async (tx) => {
    const open = await lockBatchOnBench(tx, batchId);
    const takes = await takesOf(tx, batchId);
    if (takes.length !== had) throw Refused.one("", "Something was added to the sheet meanwhile. Look again.");
    const last = Math.max(-1, ...takes.map((t) => t.position));
    const names = await materialsOfLines(tx, others);
    const wants: { like: Like; amount: Mg }[] = [
      ...lines.map(({ amount, ...at }) => ({ like: lineIn(takes, at), amount })),
      ...others.map(({ materialId, amount }, i) => ({
        like: { batchId, position: last + 1 + i, materialId, name: names.get(materialId)!.name, sizeId: null },
        amount,
      })),
    ];
    if (wants.length === 0 || wants.some((w) => w.amount <= 0)) throw Refused.one("", "Nothing is to be added.");
    await takeMore(tx, takes, wants, day, "leave it as it is.");
    // What goes into a part isn't the base's.
    const more = sum(wants.flatMap((w) => (w.like.sizeId === null ? [w.amount] : [])));
    await tx
      .update(batch)
      .set({ plannedMg: mg(open.plannedMg + more) })
      .where(eq(batch.id, batchId));
    await tx.insert(batchEvent).values({ batchId, kind: "test", verdict, note: said, who: actorName });
  });
}
