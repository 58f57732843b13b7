/**
 * Receiving: each line of a receipt becomes a lot with its own landed cost. Packs that haven't come yet stay on the receipt without
 * a lot until they arrive.
 */
import { libraryEntry } from "#core/material/library";
import { KINDS, type KindId } from "#core/material/kinds";
import { micros } from "#core/measure/exact";
import { splitLanded } from "#core/stock/receipt";
import { Refused } from "#core/refused";
import { counted } from "#core/words";
import type { Day } from "#core/when";
import { and, eq, isNull } from "drizzle-orm";
import { object } from "yup";
import { defineAct, type About } from "../../act/define.ts";
import { undoIdOrNull } from "../../act/left.ts";
import { requireNoLaterActs } from "../../ledger/effective.ts";
import type { Tx } from "../../client.ts";
import { material, movement, purchase, purchaseLine } from "../../schema.ts";
import { materialFromLibrary } from "../keepMaterial.ts";
import { makeLots, materialsOfLines } from "../makeLots.ts";
import { sendBack, type SentBackIn } from "./sentBack.ts";
import { writeReceipts, type ReceiveIn } from "./writeReceipts.ts";

const fromTo = (numbers: readonly string[]): string =>
  numbers.length === 0 ? "" : numbers.length === 1 ? ` (${numbers[0]})` : ` (${numbers[0]} … ${numbers.at(-1)})`;

const REST_ON_RECEIPT = ["arrive", "correct"] as const;
const aboutReceipt = (purchaseId: number, lines: readonly { materialId: number }[], changes = true): About[] => [
  { kind: "receipt", id: purchaseId, changes },
  ...lines.map((l) => ({ kind: "material" as const, id: l.materialId })),
];

/** Receives a purchase as one act. @throws Refused by field; then nothing is saved */
export const receive = defineAct({
  kind: "receive",
  dayOf: (input: ReceiveIn) => input.day,
  run: async (tx, input, { actId }) => {
    const [written] = await writeReceipts(tx, actId, [input]);
    const { purchaseId, numbers } = written!;
    return {
      path: `/shelf/receipts/${purchaseId}`,
      summary: `Received ${counted(numbers.length, "lot")} from ${input.supplier}${fromTo(numbers)}`,
      about: aboutReceipt(purchaseId, input.lines),
      leaves: null,
    };
  },
  leaves: null,
  back: (tx, _left, { undoes }) => receiptsBack(tx, undoes),
});

/** @throws Refused when more of a receipt arrived, or it was corrected, since */
async function receiptsBack(tx: Tx, actId: number): Promise<string> {
  const own = tx.select({ id: purchase.id }).from(purchase).where(eq(purchase.actId, actId));
  await requireNoLaterActs(
    tx,
    { kind: "receipt", among: own },
    actId,
    REST_ON_RECEIPT,
    "More of that receipt has arrived, or it was corrected, since.",
  );
  return "/shelf/receipts";
}

/** A material to put on the shelf first: by name and kind, or an entry of the library. */
export type NewMaterial = { name: string; kind: KindId } | { libraryKey: string };

/** Puts materials on the shelf inside an act. @throws Refused for a name that is taken */
export async function addNamed(tx: Tx, add: readonly NewMaterial[]): Promise<number[]> {
  const ids: number[] = [];
  for (const m of add) {
    const values = "libraryKey" in m ? materialFromLibrary(libraryEntry(m.libraryKey)!) : { ...m, densities: KINDS[m.kind].start };
    const [row] = await tx.insert(material).values(values).onConflictDoNothing().returning({ id: material.id });
    if (!row) throw Refused.one("", `There is already a material called ${values.name}.`);
    ids.push(row.id);
  }
  return ids;
}

/** A line's material: −1 means the first that was added, −2 for the second, and so on. */
export const materialIdOf = (materialId: number, added: readonly number[]): number =>
  materialId < 0 ? (added[-materialId - 1] ?? 0) : materialId;

/** Receipts as they come out of a file, with the materials that are new. */
export interface ReceiveManyIn {
  /** Materials to put on the shelf first; lines name them by numbers below zero. */
  add: readonly NewMaterial[];
  receipts: readonly ReceiveIn[];
  /** What went back to its supplier, after all of it has come. */
  back?: readonly SentBackIn[];
}

/** Receives many receipts as one act. @throws Refused by field; then nothing is saved */
export const receiveMany = defineAct({
  kind: "receiveFile",
  run: async (tx, { add, receipts, back = [] }: ReceiveManyIn, { actId, step }) => {
    const ids = await addNamed(tx, add);
    const named = receipts.map((r) => ({ ...r, lines: r.lines.map((l) => ({ ...l, materialId: materialIdOf(l.materialId, ids) })) }));
    const all = named.reduce((a, r) => a + r.lines.length, 0);
    const written = await writeReceipts(tx, actId, named, (done) => step(done, all));
    const lots = written.reduce((a, w) => a + w.numbers.length, 0);
    const returned = back.map((b) => ({ ...b, materialId: materialIdOf(b.materialId, ids) }));
    await sendBack(tx, actId, returned);
    return {
      path: written.length === 1 ? `/shelf/receipts/${written[0]!.purchaseId}` : "/shelf/receipts",
      summary: [
        ...(lots > 0 ? [`Received ${counted(lots, "lot")} on ${counted(receipts.length, "receipt")} from a file`] : []),
        ...(back.length > 0 ? [`${counted(back.length, "line")} of a file sent back`] : []),
      ].join("; "),
      about: [
        ...ids.map((id) => ({ kind: "material" as const, id, changes: true })),
        ...written.flatMap((w, i) => aboutReceipt(w.purchaseId, named[i]!.lines)),
        ...[...new Set(returned.map((b) => b.materialId))].map((id) => ({ kind: "material" as const, id })),
      ],
      leaves: null,
    };
  },
  leaves: null,
  back: (tx, _left, { undoes }) => receiptsBack(tx, undoes),
});

export interface ArriveIn {
  lineId: number;
  packs: number;
  supplierLot: string;
  bestBefore: Day | null;
}

/**
 * Packs that were still to come have arrived: they become a lot at their share of the receipt's cost.
 * @throws Refused when the line isn't waiting, or more packs came than were still to come
 */
export const arrive = defineAct({
  kind: "arrive",
  run: async (tx, input: ArriveIn, { actId, day }) => {
    const [line] = await tx.select().from(purchaseLine).where(eq(purchaseLine.id, input.lineId)).for("no key update");
    if (!line || line.lotId !== null) throw Refused.one("packs", "Those packs aren't waiting any more.");
    if (input.bestBefore !== null && input.bestBefore < day) throw Refused.one("bestBefore", "That is before the day it arrived.");
    if (input.packs > line.packs) throw Refused.one("packs", `Only ${counted(line.packs, "pack")} of it are still to come.`);
    const known = await materialsOfLines(tx, [line]);
    const [made] = await makeLots(tx, day, [{ material: known.get(line.materialId)!, ...input }]);
    const rest = line.packs - input.packs;
    const qty = Math.round((line.qty / line.packs) * input.packs);
    const [now, later] = splitLanded(line.landed, input.packs, rest);
    const [price, laterPrice] = splitLanded(line.price, input.packs, rest);
    const { id, ...same } = line;
    await tx
      .update(purchaseLine)
      .set({ packs: input.packs, qty, price, landed: now, lotId: made!.id, arrivedActId: actId })
      .where(eq(purchaseLine.id, id));
    const [waits] =
      rest === 0
        ? []
        : await tx
            .insert(purchaseLine)
            .values({ ...same, packs: rest, qty: line.qty - qty, price: laterPrice, landed: later })
            .returning({ id: purchaseLine.id });
    await tx.insert(movement).values({ actId, lotId: made!.id, qty, value: now, reason: "received" });
    return {
      path: `/shelf/receipts/${line.purchaseId}`,
      summary: `${counted(input.packs, "more pack")} of ${line.name} arrived (${made!.number})`,
      about: aboutReceipt(line.purchaseId, [line]),
      leaves: { restId: waits?.id ?? null },
    };
  },
  leaves: object({ restId: undoIdOrNull() }),
  back: async (tx, { restId }, { undoes }) => {
    const [line] = await tx.select().from(purchaseLine).where(eq(purchaseLine.arrivedActId, undoes)).for("no key update");
    if (!line) throw Refused.one("", "That line isn't on the receipt any more.");
    const { purchaseId, id: lineId } = line;
    await requireNoLaterActs(tx, { kind: "receipt", id: purchaseId }, undoes, ["correct"], "That receipt has been corrected since.");
    // What came waits again, on one line with the rest it was parted from, as long as all of that waits still. A line that only looks alike
    // may have been bought at another price.
    const [waiting] =
      restId === null
        ? []
        : await tx
            .select()
            .from(purchaseLine)
            .where(and(eq(purchaseLine.id, restId), isNull(purchaseLine.lotId)))
            .for("no key update");
    if (waiting) await tx.delete(purchaseLine).where(eq(purchaseLine.id, waiting.id));
    await tx
      .update(purchaseLine)
      .set({
        lotId: null,
        arrivedActId: null,
        packs: line.packs + (waiting?.packs ?? 0),
        qty: line.qty + (waiting?.qty ?? 0),
        price: micros(line.price + (waiting?.price ?? 0)),
        landed: micros(line.landed + (waiting?.landed ?? 0)),
      })
      .where(eq(purchaseLine.id, lineId));
  },
});
