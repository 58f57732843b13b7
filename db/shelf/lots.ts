/** Acts on one lot by hand: opening it, saying how dry it is or how it drips, and taking some of it out for a reason. */
import { DRYNESS, type Dryness } from "#core/material/dryness";
import { kind } from "#core/material/kinds";
import type { Base } from "#core/measure/exact";
import { showStock } from "#core/measure/write";
import { Refused } from "#core/refused";
import { REASONS, type MoveOutReason } from "#core/ledger/reasons";
import { sayFullDay } from "#core/when";
import { eq } from "drizzle-orm";
import { object } from "yup";
import { defineAct } from "../act/define.ts";
import { undoNumberOrNull, undoId, undoOneOf } from "../act/left.ts";
import { requireNoLaterActs } from "../ledger/effective.ts";
import type { Tx } from "../client.ts";
import { draw, lockLots } from "../ledger/lots.ts";
import { lot, material, movement } from "../schema.ts";
import { bare } from "../schema/ours.ts";
import { keepBestBefore } from "./bestBy.ts";

/** A lot of a material with what it is measured in, held for this act. @throws Refused beside `field` when it isn't there */
async function lotOfMaterial(tx: Tx, id: number, field: string) {
  const [row] = await tx
    .select({ lot, name: material.name, kind: material.kind, materialId: material.id })
    .from(lot)
    .innerJoin(material, eq(material.id, lot.materialId))
    .where(eq(lot.id, id))
    .for("no key update", { of: bare(lot) });
  if (!row) throw Refused.one(field, "That lot isn't here any more.");
  return row;
}

const aboutLot = (l: { lot: { id: number }; materialId: number }) => [
  { kind: "lot" as const, id: l.lot.id, changes: true },
  { kind: "material" as const, id: l.materialId },
];

/**
 * Notes that a lot was opened: from now on it keeps as long as its material does once opened, and never longer than it would have.
 * @throws Refused when it is open already
 */
export const openLot = defineAct({
  kind: "open",
  run: async (tx, { lotId }: { lotId: number }, { day }) => {
    const found = await lotOfMaterial(tx, lotId, "");
    if (found.lot.opened !== null) throw Refused.one("", "That lot is open already.");
    await tx.update(lot).set({ opened: day }).where(eq(lot.id, lotId));
    await keepBestBefore(tx, [lotId]);
    const { lot: now } = await lotOfMaterial(tx, lotId, "");
    const until = now.bestBefore ? `, best before ${sayFullDay(now.bestBefore)}` : "";
    return {
      path: `/shelf/${found.materialId}`,
      summary: `Opened ${now.number} of ${found.name}${until}`,
      about: aboutLot(found),
      leaves: { lotId },
    };
  },
  leaves: object({ lotId: undoId() }),
  back: async (tx, { lotId }) => {
    await tx.update(lot).set({ opened: null }).where(eq(lot.id, lotId));
    await keepBestBefore(tx, [lotId]);
  },
});

export interface MoveOutIn {
  lotId: number;
  amount: Base;
  reason: MoveOutReason;
  note: string;
}

/** Takes some of a lot off the shelf, to be thrown away, given, sent back or used oneself. @throws Refused when it hasn't got that much */
export const moveOut = defineAct({
  kind: "moveOut",
  run: async (tx, input: MoveOutIn, { actId }) => {
    const found = await lotOfMaterial(tx, input.lotId, "amount");
    const show = (n: Base): string => showStock(n, kind(found.kind).measured);
    const locked = await lockLots(tx, [input.lotId]);
    const { reason, note } = input;
    await tx.insert(movement).values(draw(locked, input.lotId, input.amount, "amount", show, { actId, reason, note }));
    return {
      path: `/shelf/${found.materialId}`,
      summary: `${show(input.amount)} of ${found.name}, ${found.lot.number}: ${REASONS[reason].say}`,
      about: [{ kind: "material", id: found.materialId }],
      leaves: null,
    };
  },
  leaves: null,
  back: async () => {},
});

const DRYNESSES = Object.keys(DRYNESS) as Dryness[];

/** Says how dry a herb lot is; what is in jars already is not asked again. @throws Refused for anything but a herb */
export const sayDryness = defineAct({
  kind: "dryness",
  run: async (tx, input: { lotId: number; dryness: Dryness }) => {
    const found = await lotOfMaterial(tx, input.lotId, "dryness");
    if (found.kind !== "herb") throw Refused.one("dryness", `${found.name} isn't a herb.`);
    await tx.update(lot).set({ dryness: input.dryness }).where(eq(lot.id, input.lotId));
    return {
      path: `/shelf/${found.materialId}`,
      summary: `${found.lot.number} of ${found.name}: ${DRYNESS[input.dryness]}`,
      about: aboutLot(found),
      leaves: { lotId: input.lotId, was: found.lot.dryness },
    };
  },
  leaves: object({ lotId: undoId(), was: undoOneOf(DRYNESSES) }),
  back: async (tx, { lotId, was }, { undoes }) => {
    await requireNoLaterActs(tx, { kind: "lot", id: lotId }, undoes, ["dryness"], "How dry it is was said again since.");
    await tx.update(lot).set({ dryness: was }).where(eq(lot.id, lotId));
  },
});

/** Says how many drops to the millilitre fall from a bottle; what was made with it is not counted again. @throws Refused for what doesn't pour */
export const sayDrips = defineAct({
  kind: "drips",
  run: async (tx, input: { lotId: number; perMl: number }) => {
    const found = await lotOfMaterial(tx, input.lotId, "drips");
    if (!kind(found.kind).forms.includes("liquid")) throw Refused.one("drips", `${found.name} doesn’t come in drops.`);
    await tx.update(lot).set({ dropsPerMl: input.perMl }).where(eq(lot.id, input.lotId));
    return {
      path: `/shelf/${found.materialId}`,
      summary: `${found.lot.number} of ${found.name}: ${input.perMl} drops to the mL`,
      about: aboutLot(found),
      leaves: { lotId: input.lotId, was: found.lot.dropsPerMl },
    };
  },
  leaves: object({ lotId: undoId(), was: undoNumberOrNull() }),
  back: async (tx, { lotId, was }, { undoes }) => {
    await requireNoLaterActs(tx, { kind: "lot", id: lotId }, undoes, ["drips"], "How it drips was said again since.");
    await tx.update(lot).set({ dropsPerMl: was }).where(eq(lot.id, lotId));
  },
});
