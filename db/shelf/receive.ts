/**
 * Receiving: each line of a receipt becomes a lot with its own landed cost. Packs that haven't come yet stay on the receipt without
 * a lot until they arrive.
 */
import { numberer, numberHead } from "#core/lot/number";
import { factsIn } from "#core/material/facts";
import { libraryEntry } from "#core/material/library";
import { KINDS, type KindId } from "#core/material/kinds";
import { micros, type Base, type Micros } from "#core/measure/exact";
import type { CostKnown } from "#core/stock/costKnown";
import { stockWeight } from "#core/stock/packs";
import { landReceipt, RATE_1, splitLanded, type SpreadBy } from "#core/stock/receipt";
import { Refused } from "#core/refused";
import { counted } from "#core/words";
import type { Day } from "#core/when";
import { and, eq, gt, inArray, isNull, ne } from "drizzle-orm";
import { defineAct, type About } from "../act/define.ts";
import { nothingLater } from "../act/standing.ts";
import type { Tx } from "../client.ts";
import { takenNumbers } from "../ledger/numbers.ts";
import { lot, material, movement, purchase, purchaseLine } from "../schema.ts";
import { readSettings } from "../settings.ts";
import { keepBestBefore } from "./bestBy.ts";
import { materialFromLibrary } from "./keepMaterial.ts";
import type { MaterialRow } from "./materials.ts";

export interface ReceiptLineIn {
  materialId: number;
  supplierLot: string;
  packs: number;
  /** Packs that have come; all of them when absent. */
  arrived?: number;
  packSize: string;
  /** All packs together, in the material's base unit. */
  qty: Base;
  /** For all packs, in the receipt's currency, without postage. */
  price: Micros;
  bestBefore: Day | null;
}

export interface ReceiveIn {
  supplier: string;
  day: Day;
  postage: Micros;
  tax?: Micros;
  discount?: Micros;
  spreadBy?: SpreadBy;
  /** ISO code; empty for the workshop's own. */
  currency?: string;
  /** One of the receipt's currency in the workshop's, in millionths. */
  rate?: number;
  note?: string;
  lines: readonly ReceiptLineIn[];
}

/** What goes into a lot, by line of a receipt. */
export interface NewLot {
  material: MaterialRow;
  supplierLot: string;
  bestBefore: Day | null;
  /** When it was bought, where that was another day; and how its cost is known. */
  bought?: Day | null;
  costKnown?: CostKnown;
}

/** PostgreSQL takes 65 535 values at most in one statement. */
const ROWS_AT_ONCE = 3000;
export const inPieces = <T>(rows: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(rows.length / ROWS_AT_ONCE) }, (_, i) => rows.slice(i * ROWS_AT_ONCE, (i + 1) * ROWS_AT_ONCE));

/** Materials by id. @throws Refused beside the line of each that has gone */
export async function materialsOfLines(tx: Tx, lines: readonly { materialId: number }[]): Promise<Map<number, MaterialRow>> {
  const ids = [...new Set(lines.map((l) => l.materialId))];
  const known = new Map((ids.length ? await tx.select().from(material).where(inArray(material.id, ids)) : []).map((m) => [m.id, m]));
  const missing = lines.flatMap((l, i) =>
    known.has(l.materialId) ? [] : [{ field: `lines.${i}.material`, say: "That material isn't on the shelf any more." }],
  );
  if (missing.length > 0) throw new Refused(missing);
  return known;
}

/** Makes empty lots with the next numbers of the receipt scheme. */
export async function makeLots(tx: Tx, day: Day, rows: readonly NewLot[]): Promise<{ id: number; number: string }[]> {
  const { receiptScheme } = await readSettings(tx);
  const next = numberer(receiptScheme, day, await takenNumbers(tx, numberHead(receiptScheme, { day })));
  const made: { id: number; number: string }[] = [];
  for (const piece of inPieces(rows))
    made.push(
      ...(await tx
        .insert(lot)
        .values(
          piece.map((r) => ({
            number: next(KINDS[r.material.kind].label.slice(0, 2).toUpperCase()),
            materialId: r.material.id,
            name: r.material.name,
            supplierLot: r.supplierLot,
            arrived: r.bought ?? day,
            printed: r.bestBefore,
            costKnown: r.costKnown,
          })),
        )
        .returning({ id: lot.id, number: lot.number })),
    );
  await keepBestBefore(
    tx,
    made.map((l) => l.id),
  );
  return made;
}

/** A receipt's landed costs. @throws Refused beside the field that stops it */
export function landed(input: ReceiveIn, known: ReadonlyMap<number, MaterialRow>): Micros[] {
  const r = landReceipt({
    lines: input.lines.map((l) => {
      const m = known.get(l.materialId)!;
      return { price: l.price, weight: stockWeight(l.qty, factsIn(m), m.emptyMg) };
    }),
    postage: input.postage,
    tax: input.tax ?? micros(0),
    discount: input.discount ?? micros(0),
    spreadBy: input.spreadBy ?? "value",
    rate: input.rate ?? RATE_1,
  });
  if (!r.ok) throw Refused.one(r.problem.code === "discount" ? "discount" : "spreadBy", r.problem.say);
  return r.value.lines.map((l) => l.landed);
}

export const headOf = (input: ReceiveIn) => ({
  supplier: input.supplier,
  day: input.day,
  postage: input.postage,
  tax: input.tax ?? micros(0),
  discount: input.discount ?? micros(0),
  spreadBy: input.spreadBy ?? ("value" as const),
  currency: input.currency ?? "",
  rate: input.rate ?? RATE_1,
  note: input.note ?? "",
});

/** Writes one receipt inside an act: its lines, and a lot for each that has come. */
export async function writeReceipt(tx: Tx, actId: number, input: ReceiveIn): Promise<{ purchaseId: number; numbers: string[] }> {
  const known = await materialsOfLines(tx, input.lines);
  const costs = landed(input, known);
  const [bought] = await tx
    .insert(purchase)
    .values({ actId, ...headOf(input) })
    .returning({ id: purchase.id });
  // Packs that have come, and, as a line without a lot, those still to come.
  const parts = input.lines.flatMap((l, i) => {
    const came = Math.min(l.arrived ?? l.packs, l.packs);
    const rest = l.packs - came;
    const one = l.qty / l.packs;
    const [now, later] = splitLanded(costs[i]!, came, rest);
    const [price, laterPrice] = splitLanded(l.price, came, rest);
    const part = (packs: number, cost: Micros, of: Micros, here: boolean) => ({
      ...l,
      packs,
      qty: Math.round(one * packs),
      landed: cost,
      price: of,
      here,
    });
    return [...(came ? [part(came, now, price, true)] : []), ...(rest ? [part(rest, later, laterPrice, false)] : [])];
  });
  const here = parts.filter((p) => p.here);
  const lots = await makeLots(
    tx,
    input.day,
    here.map((p) => ({ material: known.get(p.materialId)!, supplierLot: p.supplierLot, bestBefore: p.bestBefore })),
  );
  const lotOf = new Map(here.map((p, i) => [p, lots[i]!.id]));
  for (const piece of inPieces(parts))
    await tx.insert(purchaseLine).values(
      piece.map((p) => ({
        purchaseId: bought!.id,
        materialId: p.materialId,
        name: known.get(p.materialId)!.name,
        lotId: lotOf.get(p) ?? null,
        arrivedActId: p.here ? actId : null,
        packs: p.packs,
        packSize: p.packSize,
        qty: p.qty,
        price: p.price,
        landed: p.landed,
      })),
    );
  for (const piece of inPieces(here))
    await tx
      .insert(movement)
      .values(piece.map((p) => ({ actId, lotId: lotOf.get(p)!, qty: p.qty, value: p.landed, reason: "received" as const })));
  return { purchaseId: bought!.id, numbers: lots.map((l) => l.number) };
}

const fromTo = (numbers: readonly string[]): string =>
  numbers.length === 0 ? "" : numbers.length === 1 ? ` (${numbers[0]})` : ` (${numbers[0]} … ${numbers.at(-1)})`;

const REST_ON_RECEIPT = ["arrive", "correct"] as const;
const aboutReceipt = (purchaseId: number, lines: readonly { materialId: number }[], changes = true): About[] => [
  { kind: "receipt", id: purchaseId, changes },
  ...lines.map((l) => ({ kind: "material" as const, id: l.materialId })),
];

/** Receives a purchase as one act. @throws Refused by field; then nothing is kept */
export const receive = defineAct({
  kind: "receive",
  dayOf: (input: ReceiveIn) => input.day,
  run: async (tx, input, { actId }) => {
    const { purchaseId, numbers } = await writeReceipt(tx, actId, input);
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
  for (const { id } of await tx.select({ id: purchase.id }).from(purchase).where(eq(purchase.actId, actId)))
    await nothingLater(
      tx,
      { kind: "receipt", id },
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

/** A line's material: −1 stands for the first that was added, −2 for the second, and so on. */
export const standsFor = (materialId: number, added: readonly number[]): number =>
  materialId < 0 ? (added[-materialId - 1] ?? 0) : materialId;

/** Receipts as they come out of a file, with the materials that are new. */
export interface ReceiveManyIn {
  /** Materials to put on the shelf first; lines name them by numbers below zero. */
  add: readonly NewMaterial[];
  receipts: readonly ReceiveIn[];
}

/** Receives many receipts as one act. @throws Refused by field; then nothing is kept */
export const receiveMany = defineAct({
  kind: "receiveFile",
  run: async (tx, { add, receipts }: ReceiveManyIn, { actId }) => {
    const ids = await addNamed(tx, add);
    let lots = 0;
    let path = "/shelf/receipts";
    const about: About[] = ids.map((id) => ({ kind: "material", id, changes: true }));
    for (const r of receipts) {
      const lines = r.lines.map((l) => ({ ...l, materialId: standsFor(l.materialId, ids) }));
      const { purchaseId, numbers } = await writeReceipt(tx, actId, { ...r, lines });
      about.push(...aboutReceipt(purchaseId, lines));
      lots += numbers.length;
      if (receipts.length === 1) path = `/shelf/receipts/${purchaseId}`;
    }
    return {
      path,
      summary: `Received ${counted(lots, "lot")} on ${counted(receipts.length, "receipt")} from a file`,
      about,
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
 * @throws Refused when the line isn't waiting, or more packs are said than are to come
 */
export const arrive = defineAct({
  kind: "arrive",
  run: async (tx, input: ArriveIn, { actId, day }) => {
    const [line] = await tx.select().from(purchaseLine).where(eq(purchaseLine.id, input.lineId)).for("update");
    if (!line || line.lotId !== null) throw Refused.one("packs", "Those packs aren't waiting any more.");
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
    if (rest > 0) await tx.insert(purchaseLine).values({ ...same, packs: rest, qty: line.qty - qty, price: laterPrice, landed: later });
    await tx.insert(movement).values({ actId, lotId: made!.id, qty, value: now, reason: "received" });
    return {
      path: `/shelf/receipts/${line.purchaseId}`,
      summary: `${counted(input.packs, "more pack")} of ${line.name} arrived (${made!.number})`,
      about: aboutReceipt(line.purchaseId, [line]),
      leaves: null,
    };
  },
  leaves: null,
  back: async (tx, _left, { undoes }) => {
    const [line] = await tx.select().from(purchaseLine).where(eq(purchaseLine.arrivedActId, undoes)).for("update");
    if (!line) throw Refused.one("", "That line isn't on the receipt any more.");
    const { purchaseId, id: lineId } = line;
    await nothingLater(tx, { kind: "receipt", id: purchaseId }, undoes, ["correct"], "That receipt has been corrected since.");
    // What came waits again, on one line with whatever of the same packs is waiting still.
    const [waiting] = await tx
      .select()
      .from(purchaseLine)
      .where(
        and(
          eq(purchaseLine.purchaseId, purchaseId),
          eq(purchaseLine.materialId, line.materialId),
          eq(purchaseLine.packSize, line.packSize),
          ne(purchaseLine.id, lineId),
          gt(purchaseLine.id, lineId),
          isNull(purchaseLine.lotId),
        ),
      )
      .orderBy(purchaseLine.id)
      .limit(1)
      .for("update");
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
