/**
 * Opening stock: what was on the shelf before the books began, as lots without a receipt, each with a cost that is remembered, guessed or
 * not known; and saying that cost later.
 */
import { micros, type Base, type Micros } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { COST_KNOWN, type CostKnown } from "#core/stock/costKnown";
import { counted } from "#core/words";
import type { Day } from "#core/when";
import { and, eq, sql } from "drizzle-orm";
import { object } from "yup";
import { defineAct } from "../../act/define.ts";
import { undoId, undoOneOf } from "../../act/left.ts";
import { requireUnchanged } from "../../act/seen.ts";
import { requireNoLaterActs, isEffective } from "../../ledger/effective.ts";
import type { Tx } from "../../client.ts";
import { inChunks } from "../../pieces.ts";
import { restate, sumsOf } from "../../ledger/restate.ts";
import { lot, material, movement } from "../../schema.ts";
import { sqlText } from "../../columnsOf.ts";
import { bare } from "../../schema/ours.ts";
import { addNamed, materialIdOf, type NewMaterial } from "../receipts/receive.ts";
import { makeBareLots, materialsOfLines, numberLots } from "../makeLots.ts";

export interface OpeningLineIn {
  materialId: number;
  qty: Base;
  /** Of all of it; nothing where it isn't known. */
  cost: Micros;
  costKnown: CostKnown;
  supplierLot: string;
  /** When it was bought, if anybody remembers. */
  bought: Day | null;
  bestBefore: Day | null;
}

export interface OpeningIn {
  /** Materials to put on the shelf first; lines name them by numbers below zero. */
  add: readonly NewMaterial[];
  lines: readonly OpeningLineIn[];
}

/** Puts what was there on the shelf, a lot for each line, as one act. @throws Refused by field; then nothing is saved */
export const openingStock = defineAct({
  kind: "opening",
  run: async (tx, { add, lines: asked }: OpeningIn, { actId, day, step }) => {
    if (asked.length === 0) throw Refused.one("", "Enter at least one line.");
    const added = await addNamed(tx, add);
    const lines = asked.map((l) => ({ ...l, materialId: materialIdOf(l.materialId, added) }));
    const known = await materialsOfLines(tx, lines);
    const late = lines.findIndex((l) => l.bought !== null && l.bought > day);
    if (late >= 0) throw Refused.one(`lines.${late}.bought`, "That day hasn't come yet.");
    const lots = await makeBareLots(
      tx,
      day,
      lines.map((l) => ({ ...l, material: known.get(l.materialId)! })),
    );
    const rows = lines.map((l, i) => ({ actId, lotId: lots[i]!.id, qty: l.qty, value: costOfLine(l), reason: "opening" as const }));
    await step(rows.length / 2, rows.length);
    let written = 0;
    for (const piece of inChunks(rows)) {
      await tx.insert(movement).values(piece);
      await step((rows.length + (written += piece.length)) / 2, rows.length);
    }
    await numberLots(tx, day, lots);
    const materials = [...new Set(lines.map((l) => l.materialId))];
    return {
      path: "/shelf",
      summary: `${counted(lots.length, "lot")} put on the shelf that ${lots.length === 1 ? "was" : "were"} there before the books began`,
      about: [
        ...materials.map((id) => ({ kind: "material" as const, id, changes: added.includes(id) })),
        ...lots.map((l) => ({ kind: "lot" as const, id: l.id })),
      ],
      leaves: null,
    };
  },
  leaves: null,
  back: async (tx, _left, { undoes }) => {
    const came = tx.select({ id: movement.lotId }).from(movement).where(eq(movement.actId, undoes));
    await requireNoLaterActs(tx, { kind: "lot", among: came }, undoes, ["sayCost"], "What one of these lots cost was said since.");
    return "/shelf";
  },
});

const costOfLine = (l: Pick<OpeningLineIn, "cost" | "costKnown">): Micros => (l.costKnown === "none" ? micros(0) : l.cost);

export interface SayCostIn {
  lotId: number;
  cost: Micros;
  costKnown: CostKnown;
  /** True where the cost is of one unit of what came. */
  ofOne?: boolean;
}

/** The movement a lot of opening stock came by, with what it comes to after everything that corrected it. */
async function broughtIn(tx: Tx, lotId: number): Promise<{ id: number; qty: number; value: Micros } | null> {
  const [came] = await tx
    .select({ id: movement.id, qty: movement.qty, value: movement.value })
    .from(movement)
    .where(and(eq(movement.lotId, lotId), eq(movement.reason, "opening"), isEffective(movement.actId)));
  if (!came) return null;
  const [sums] = await sumsOf(tx, [came.id]);
  return { id: came.id, qty: came.qty + (sums?.qty ?? 0), value: micros(came.value + (sums?.value ?? 0)) };
}

/**
 * Says what a lot of opening stock cost in all, once it is known: everything made of it follows, as after a corrected receipt, and every
 * sale of finished goods.
 * @throws Refused for a lot that came with a receipt; EditedMeanwhile
 */
export const sayCost = defineAct({
  kind: "sayCost",
  exclusive: true,
  run: async (tx, input: SayCostIn, { actId, seen }) => {
    const [found] = await tx
      .select({
        number: lot.number,
        name: sqlText(sql`coalesce(${material.name}, ${lot.name})`),
        materialId: lot.materialId,
        productId: lot.productId,
        was: lot.costKnown,
      })
      .from(lot)
      .leftJoin(material, eq(material.id, lot.materialId))
      .where(eq(lot.id, input.lotId))
      .for("no key update", { of: bare(lot) });
    if (!found) throw Refused.one("cost", "That lot isn't here any more.");
    await requireUnchanged(tx, { kind: "lot", id: input.lotId }, seen);
    const came = await broughtIn(tx, input.lotId);
    if (!came)
      throw Refused.one(
        "cost",
        found.materialId === null
          ? "Its cost is what went into its batch. Only of what was there before the books began can it be said."
          : "Its cost is on its receipt. Correct the receipt instead.",
      );
    await tx.update(lot).set({ costKnown: input.costKnown }).where(eq(lot.id, input.lotId));
    const value = micros(costOfLine(input) * (input.ofOne ? came.qty : 1) - came.value);
    if (value !== 0)
      await restate(tx, actId, [{ actId, lotId: input.lotId, qty: 0, value, reason: "corrected", restates: came.id }], {
        field: () => "cost",
        short: (number) => `More of lot ${number} was used than it had.`,
      });
    return {
      path: found.materialId === null ? `/lots/${found.number}` : `/shelf/${found.materialId}`,
      summary: `Cost of ${found.number} of ${found.name}: ${COST_KNOWN[input.costKnown]}`,
      about: [
        { kind: "lot", id: input.lotId, changes: true },
        found.materialId === null ? { kind: "product", id: found.productId! } : { kind: "material", id: found.materialId },
      ],
      leaves: { lotId: input.lotId, was: found.was },
    };
  },
  leaves: object({ lotId: undoId(), was: undoOneOf(Object.keys(COST_KNOWN) as CostKnown[]) }),
  back: async (tx, { lotId, was }, { undoes }) => {
    await requireNoLaterActs(tx, { kind: "lot", id: lotId }, undoes, ["sayCost"], "Its cost was said again since.");
    await tx.update(lot).set({ costKnown: was }).where(eq(lot.id, lotId));
  },
});
