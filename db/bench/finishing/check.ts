/** The check of a poured batch once it is cold: what was found, and its lots let go or held back, in one act. */
import { amiss, type Findings, type VERDICTS } from "#core/batch/finishing/check";
import { Refused } from "#core/refused";
import { wordList } from "#core/words";
import { and, asc, desc, eq, gt, inArray } from "drizzle-orm";
import { array, object, string } from "yup";
import { defineAct } from "../../act/define.ts";
import { undoId } from "../../act/left.ts";
import { requireNoLaterActs, isEffective } from "../../ledger/effective.ts";
import type { Reads, Tx } from "../../client.ts";
import { runPrepared } from "../../prepared.ts";
import { act, batch, batchCheck, batchSize, lot, lotHold, recipeVersion } from "../../schema.ts";
import { bare } from "../../schema/ours.ts";
import { freeLots, holdLots, recallsOver } from "../../ledger/holds.ts";
import { endSetting } from "../weighing/events.ts";

export interface CheckIn extends Findings {
  batchId: number;
  verdict: keyof typeof VERDICTS;
  note: string;
}

/** The lots of what was poured, held while they are let go or held back. */
const lotsOfBatch = (tx: Tx, batchId: number) =>
  tx
    .select({ id: lot.id, number: lot.number, holdReason: lot.holdReason, units: batchSize.units, productId: batchSize.productId })
    .from(batchSize)
    .innerJoin(lot, eq(lot.id, batchSize.lotId))
    .where(and(eq(batchSize.batchId, batchId), gt(batchSize.units, 0)))
    .orderBy(asc(lot.id))
    .for("no key update", { of: bare(lot) });

/** The holds that checks of a batch have on its lots. */
const heldBy = (batchId: number) => and(eq(lotHold.by, "check"), eq(lotHold.source, batchId));

/**
 * Writes down what was found. Let go, its lots are off the hold a check put them on; held back, they are on hold for what was found. What is on
 * hold for another reason, a recall above all, stays so.
 * @throws Refused while it isn't poured; where it is let go with something amiss and nobody says why, or held back for nothing
 */
export const checkBatch = defineAct({
  kind: "checkBatch",
  run: async (tx, { batchId, verdict, note, ...found }: CheckIn, { actId }) => {
    const [made] = await tx
      .select({ id: batch.id, recipeId: batch.recipeId, pouredActId: batch.pouredActId, name: recipeVersion.name })
      .from(batch)
      .innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
      .where(eq(batch.id, batchId))
      .for("no key update", { of: bare(batch) });
    if (made?.pouredActId == null) throw Refused.one("", "This batch isn't poured any more.");
    const lots = await lotsOfBatch(tx, batchId);
    const units = lots.reduce((a, l) => a + (l.units ?? 0), 0);
    if (found.labelled > units) throw Refused.one("labelled", `Only ${units} were filled.`);
    const against = amiss(found, units);
    if (note === "" && verdict === "release" && against.length > 0)
      throw Refused.one("note", `Found: ${wordList(against)}. Say why it goes all the same.`);
    if (note === "" && verdict === "hold" && against.length === 0) throw Refused.one("note", "Say why it is held back.");
    const [over] =
      verdict === "release"
        ? await recallsOver(
            tx,
            lots.map((l) => l.id),
          )
        : [];
    if (over)
      throw Refused.one(
        "",
        `It is in a recall (${over.reason}). Hold it back meanwhile; once that is settled, each lot is released on its own page.`,
        [{ to: `/lots/recalls/${over.id}`, name: "The recall" }],
      );
    const heldAs = verdict === "hold" ? `Check: ${[...against, note].filter(Boolean).join(", ")}` : null;
    const byIt = { by: "check", source: batchId } as const;
    const ids = lots.map((l) => l.id);
    const was = await tx.select({ id: lotHold.lotId, was: lotHold.reason }).from(lotHold).where(heldBy(batchId));
    await tx.insert(batchCheck).values({ batchId, actId, ...found, verdict, note, heldAs });
    await freeLots(tx, ids, byIt);
    if (heldAs !== null) await holdLots(tx, ids, { ...byIt, reason: heldAs });
    await endSetting(tx, batchId);
    const numbers = wordList(lots.map((l) => l.number));
    const left = await tx.select({ id: lotHold.lotId }).from(lotHold).where(inArray(lotHold.lotId, ids));
    const still = heldAs === null ? lots.filter((l) => left.some((h) => h.id === l.id)) : [];
    return {
      path: `/bench/${batchId}`,
      summary:
        heldAs !== null
          ? `Held back ${made.name}, ${numbers}: ${heldAs.slice("Check: ".length)}`
          : `Released ${made.name}, ${numbers}${still.length > 0 ? `; ${wordList(still.map((l) => l.number))} is on hold for another reason` : ""}`,
      about: [
        { kind: "batch", id: batchId, changes: true },
        { kind: "recipe", id: made.recipeId },
        ...lots.map((l) => ({ kind: "lot" as const, id: l.id, changes: true })),
      ],
      // Those that a check had, or has now, on hold.
      leaves: {
        lots: lots.flatMap((l) => {
          const before = was.find((w) => w.id === l.id)?.was ?? null;
          return before === null && heldAs === null ? [] : [{ id: l.id, was: before }];
        }),
      },
    };
  },
  leaves: object({
    lots: array()
      .of(object({ id: undoId(), was: string().nullable().defined() }))
      .required(),
  }),
  back: async (tx, { lots }, { undoes }) => {
    const [check] = await tx.select({ batchId: batchCheck.batchId }).from(batchCheck).where(eq(batchCheck.actId, undoes));
    const byIt = { by: "check", source: check!.batchId } as const;
    for (const { id, was } of lots) {
      await requireNoLaterActs(tx, { kind: "lot", id }, undoes, ["checkBatch"], "It was checked again since.");
      await freeLots(tx, [id], byIt);
      if (was !== null) await holdLots(tx, [id], { ...byIt, reason: was });
    }
  },
});

/** Checks of a batch, newest first. Its pouring isn't taken back under them. */
export const checksOf = (db: Reads, batchId: number) =>
  runPrepared(db, "batch_checks", { batchId }, (at) =>
    db
      .select({
        id: batchCheck.id,
        day: act.day,
        at: act.at,
        who: act.who,
        face: batchCheck.face,
        scent: batchCheck.scent,
        closes: batchCheck.closes,
        labelled: batchCheck.labelled,
        firm: batchCheck.firm,
        verdict: batchCheck.verdict,
        note: batchCheck.note,
      })
      .from(batchCheck)
      .innerJoin(act, eq(act.id, batchCheck.actId))
      .where(and(eq(batchCheck.batchId, at.batchId), isEffective(batchCheck.actId)))
      .orderBy(desc(batchCheck.id)),
  );
export type Check = Awaited<ReturnType<typeof checksOf>>[number];
