/** What the supplier's paper for one lot of a scent allows of it in a product: it overrides what is usual for the oil. */
import { isScent } from "#core/scent/dilution";
import { Refused } from "#core/refused";
import { eq } from "drizzle-orm";
import { number, object } from "yup";
import { defineAct } from "../act/define.ts";
import { undoId } from "../act/left.ts";
import { requireUnchanged } from "../act/seen.ts";
import { requireNoLaterActs } from "../ledger/effective.ts";
import { lot, material } from "../schema.ts";
import { bare } from "../schema/ours.ts";

const said = (ppm: number): string => `${ppm / 10_000} %`;

/** Writes down, or strikes out (null), the most of it by the paper, in millionths; 0 is none at all. @throws Refused for what is no scent, or says so already; EditedMeanwhile */
export const sayScentMost = defineAct({
  kind: "scentMost",
  run: async (tx, input: { lotId: number; ppm: number | null }, { seen }) => {
    const [before] = await tx
      .select({ id: lot.id, number: lot.number, materialId: lot.materialId, kind: material.kind, ppm: lot.scentMostPpm })
      .from(lot)
      .innerJoin(material, eq(material.id, lot.materialId))
      .where(eq(lot.id, input.lotId))
      .for("no key update", { of: bare(lot) });
    if (!before) throw Refused.one("", "That lot isn't here any more.");
    await requireUnchanged(tx, { kind: "lot", id: before.id }, seen);
    if (!isScent(before)) throw Refused.one("most", "Only an essential oil or a fragrance has such a limit.");
    if (before.ppm === input.ppm)
      throw Refused.one("most", input.ppm === null ? "Enter the per cent its paper allows." : "That is what is there already.");
    await tx.update(lot).set({ scentMostPpm: input.ppm }).where(eq(lot.id, before.id));
    return {
      path: `/lots/${encodeURIComponent(before.number)}`,
      summary: input.ppm === null ? `Struck out what ${before.number} may be` : `${before.number} may be ${said(input.ppm)} of a product`,
      about: [
        { kind: "lot" as const, id: before.id, changes: true },
        { kind: "material" as const, id: before.materialId! },
      ],
      leaves: { lotId: before.id, was: before.ppm },
    };
  },
  leaves: object({ lotId: undoId(), was: number().nullable().defined() }),
  back: async (tx, { lotId, was }, { undoes }) => {
    await requireNoLaterActs(tx, { kind: "lot", id: lotId }, undoes, ["scentMost"], "Another figure was written down since.");
    await tx.update(lot).set({ scentMostPpm: was }).where(eq(lot.id, lotId));
  },
});
