/**
 * Recalling lots: everything some lots are in is put on hold in one act, people are told one after the other, and it is closed with what it
 * came to. A rehearsal goes the same way and holds nothing.
 */
import { accountAmong } from "#core/lot/reach";
import { sayCame } from "#core/lot/recall";
import { Refused } from "#core/refused";
import { counted, wordList } from "#core/words";
import type { Day } from "#core/when";
import { and, eq } from "drizzle-orm";
import { array, number, object } from "yup";
import { defineAct, type About } from "../act/define.ts";
import { undoDayOrNull, undoId, undoText } from "../act/left.ts";
import { requireNoLaterActs } from "../ledger/effective.ts";
import type { Tx } from "../client.ts";
import { freeLots, holdLots } from "../ledger/holds.ts";
import { lockLots } from "../ledger/lots.ts";
import { inChunks } from "../pieces.ts";
import { recall, recallLot, recallTold } from "../schema.ts";
import { finishedOf, reachOf } from "./reach.ts";
import { heldOf, peopleTold, startsOf } from "./recalls.ts";

export interface RecallIn {
  lotIds: readonly number[];
  reason: string;
  toDo: string;
  rehearsal: boolean;
}

const path = (id: number): string => `/lots/recalls/${id}`;
const called = (r: { id: number; rehearsal: boolean }): string => `${r.rehearsal ? "Rehearsal" : "Recall"} ${r.id}`;
/** What is on a lot that is held by it. */
const heldBy = (r: { reason: string }): string => `Recall: ${r.reason}`;
const about = (id: number): About => ({ kind: "recall", id, changes: true });

/** A recall that is going on, held for this act. @throws Refused once it is closed or taken back */
async function open(tx: Tx, id: number) {
  const [row] = await tx.select().from(recall).where(eq(recall.id, id)).for("no key update");
  if (!row || row.begunActId === null) throw Refused.one("", "That recall isn't here any more.");
  if (row.closedActId !== null) throw Refused.one("", `${called(row)} is closed. Take that back first.`);
  return row;
}

const byIt = (id: number) => ({ by: "recall", source: id }) as const;

/**
 * Begins a recall: holds the lots and everything they are in, all of it or nothing. A rehearsal holds nothing.
 * @throws Refused without a lot
 */
export const beginRecall = defineAct({
  kind: "recall",
  // Nothing may be made of them between finding out what they are in and holding it.
  exclusive: true,
  run: async (tx, input: RecallIn, { actId }) => {
    const reach = await reachOf(tx, [...new Set(input.lotIds)]);
    const starts = reach.lots.filter((l) => input.lotIds.includes(l.id));
    if (starts.length === 0) throw Refused.one("lots", "Choose a lot to begin with.");
    if (starts.length < new Set(input.lotIds).size) throw Refused.one("lots", "One of these lots isn't here any more.");
    const { reason, toDo, rehearsal } = input;
    const [row] = await tx.insert(recall).values({ reason, toDo, rehearsal, begunActId: actId }).returning({ id: recall.id });
    const { id } = row!;
    const ids = reach.lots.map((l) => l.id);
    await lockLots(tx, ids);
    const held = new Set(rehearsal ? [] : await holdLots(tx, ids, { ...byIt(id), reason: heldBy({ reason }) }));
    for (const piece of inChunks(ids))
      await tx
        .insert(recallLot)
        .values(piece.map((lotId) => ({ recallId: id, lotId, start: input.lotIds.includes(lotId), held: held.has(lotId) })));
    const units = accountAmong(reach, finishedOf(reach));
    const which = wordList(starts.map((l) => l.number));
    return {
      path: path(id),
      summary: rehearsal
        ? `Rehearsed recalling ${which}: ${counted(reach.lots.length, "lot")}, ${counted(units.came, "unit")}`
        : `Recalled ${which}: held ${counted(held.size, "lot")}, ${counted(units.came, "unit")}`,
      about: [
        about(id),
        ...reach.lots.map((l) => ({ kind: "lot" as const, id: l.id, changes: held.has(l.id) })),
        ...starts.flatMap((l) => (l.materialId === null ? [] : [{ kind: "material" as const, id: l.materialId }])),
      ],
      leaves: { recallId: id },
    };
  },
  leaves: object({ recallId: undoId() }),
  back: async (tx, { recallId }, { undoes }) => {
    const held = await heldOf(tx, recallId);
    await requireNoLaterActs(
      tx,
      { kind: "recall", id: recallId },
      undoes,
      ["tellRecall", "closeRecall"],
      "Somebody was told, or it was closed.",
    );
    await tx.update(recall).set({ begunActId: null }).where(eq(recall.id, recallId));
    await freeLots(tx, held, byIt(recallId));
    return "/lots/recalls";
  },
});

export interface TellIn {
  recallId: number;
  contactId: number;
  /** Null while only something came back. */
  toldOn: Day | null;
  back: number;
  note: string;
  /** What was on the sheet: changed by somebody else meanwhile, it is refused. */
  was: { toldOn: Day | null; back: number; note: string };
}

type Said = TellIn["was"];
const UNSAID: Said = { toldOn: null, back: 0, note: "" };
const sameSaid = (a: Said, b: Said): boolean => a.toldOn === b.toldOn && a.back === b.back && a.note === b.note;

async function write(tx: Tx, recallId: number, contactId: number, said: Said): Promise<void> {
  const set = { toldOn: said.toldOn, back: said.back, note: said.note };
  await tx
    .insert(recallTold)
    .values({ recallId, contactId, ...set })
    .onConflictDoUpdate({ target: [recallTold.recallId, recallTold.contactId], set });
}

const saidOf = async (tx: Tx, recallId: number, contactId: number): Promise<Said> =>
  (
    await tx
      .select({ toldOn: recallTold.toldOn, back: recallTold.back, note: recallTold.note })
      .from(recallTold)
      .where(and(eq(recallTold.recallId, recallId), eq(recallTold.contactId, contactId)))
  )[0] ?? UNSAID;

/** Writes down that somebody was told, and what came back from them. @throws Refused for more back than they have; for what was said meanwhile */
export const tellRecall = defineAct({
  kind: "tellRecall",
  run: async (tx, { recallId, contactId, was, ...said }: TellIn) => {
    const row = await open(tx, recallId);
    const reach = await reachOf(tx, await startsOf(tx, recallId));
    const holder = [...reach.people, ...reach.markets].find((h) => h.contactId === contactId);
    if (!holder) throw Refused.one("", "They have nothing of it any more. Reload the page.");
    const before = await saidOf(tx, recallId, contactId);
    if (!sameSaid(before, was))
      throw Refused.one("", `Something else was written of ${holder.name} meanwhile. Reload the page, and look at it first.`);
    if (said.back > holder.units)
      throw Refused.one("back", `${holder.name} had ${counted(holder.units, "unit")}: more can't have come back.`);
    if (sameSaid(before, said)) throw Refused.one("", "That is what is there already.");
    await write(tx, recallId, contactId, said);
    const what = [
      said.toldOn !== before.toldOn && (said.toldOn === null ? "not told after all" : "told"),
      said.back !== before.back && `${counted(said.back, "unit")} back`,
    ].filter(Boolean);
    return {
      path: path(recallId),
      summary: `${called(row)}: ${holder.name}${what.length > 0 ? ` ${what.join(", ")}` : ", noted"}`,
      about: [about(recallId), { kind: "contact", id: contactId }],
      leaves: { recallId, contactId, was: before, said },
    };
  },
  leaves: object({
    recallId: undoId(),
    contactId: undoId(),
    was: object({ toldOn: undoDayOrNull(), back: number().required(), note: undoText() }).required(),
    said: object({ toldOn: undoDayOrNull(), back: number().required(), note: undoText() }).required(),
  }),
  back: async (tx, { recallId, contactId, was, said }) => {
    await open(tx, recallId);
    if (!sameSaid(await saidOf(tx, recallId, contactId), said))
      throw Refused.one("", "Something else was written of them since. Take that back first.", [
        { to: path(recallId), name: "The recall" },
      ]);
    await write(tx, recallId, contactId, was);
  },
});

export interface CloseIn {
  recallId: number;
  /** A false alarm: what it holds is free again. */
  free: boolean;
}

/** Closes a recall with what it came to. What it holds stays on hold, unless it is freed. @throws Refused when it is closed already */
export const closeRecall = defineAct({
  kind: "closeRecall",
  run: async (tx, { recallId, free }: CloseIn, { actId }) => {
    const row = await open(tx, recallId);
    const reach = await reachOf(tx, await startsOf(tx, recallId));
    const told = await peopleTold(tx, recallId);
    const holders = [...reach.people, ...reach.markets].map((h) => told.find((t) => t.contactId === h.contactId));
    const came = sayCame(accountAmong(reach, finishedOf(reach)), {
      people: reach.people.length,
      markets: reach.markets.length,
      told: holders.filter((t) => t?.toldOn).length,
      back: holders.reduce((n, t) => n + (t?.back ?? 0), 0),
    });
    const held = await heldOf(tx, recallId);
    await lockLots(tx, held);
    // What another recall or a check holds as well stays on hold for that.
    const freed = free ? await freeLots(tx, held, byIt(row.id)) : [];
    await tx.update(recall).set({ closedActId: actId, came }).where(eq(recall.id, recallId));
    return {
      path: path(recallId),
      summary: `Closed ${called(row).toLowerCase()}${freed.length > 0 ? `, ${counted(freed.length, "lot")} free again` : ""}`,
      about: [about(recallId), ...freed.map((id) => ({ kind: "lot" as const, id, changes: true }))],
      leaves: { recallId, freed },
    };
  },
  leaves: object({ recallId: undoId(), freed: array().of(undoId()).required() }),
  back: async (tx, { recallId, freed }) => {
    const [row] = await tx.update(recall).set({ closedActId: null, came: "" }).where(eq(recall.id, recallId)).returning();
    await holdLots(tx, freed, { ...byIt(recallId), reason: heldBy(row!) });
  },
});
