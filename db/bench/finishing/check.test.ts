/** The check of a poured batch: what it holds and lets go, what it leaves alone, and how it is taken back. */
import { WAITS } from "#core/batch/finishing/check";
import { mg } from "#core/measure/exact";
import { eq } from "drizzle-orm";
import { expect, it } from "vitest";
import { reverseAct } from "../../acts/reverse.ts";
import { beginRecall, closeRecall } from "../../lots/recall.ts";
import { firmnessLearned } from "../../recipe/firmness.ts";
import { act, batchSize } from "../../schema.ts";
import { saveSettings } from "../../settings/settings.ts";
import { holdLot } from "../../shelf/counting/count.ts";
import { DAY, db, eachTestHasAWorkshop, filled, finished, idIn, make, put, refused } from "#test/db/workshop";
import { today } from "../../clock.ts";
import { checkBatch, checksOf, type CheckIn } from "./check.ts";
import { endSetting, eventsOf, runningTimers } from "../weighing/events.ts";
import { pour } from "./pour.ts";
import { readBatch } from "../read.ts";

eachTestHasAWorkshop();

const doing = { day: DAY };
const RIGHT = { face: "smooth", scent: "right", closes: "right", labelled: 4, firm: null, note: "" } as const;
const batchOf = async (lotId: number) => (await db.select().from(batchSize)).find((s) => s.lotId === lotId)!.batchId;
/** Pours four, and knows their batch and lot. */
async function poured() {
  await make(4);
  const lot = (await finished()).at(-1)!;
  return { batchId: await batchOf(lot.id), lotId: lot.id };
}
const reason = async (lotId: number) => (await finished()).find((l) => l.id === lotId)!.holdReason;
const check = (batchId: number, over: Partial<CheckIn> = {}) => checkBatch(db, { batchId, ...RIGHT, verdict: "release", ...over }, doing);
const says = async (work: Promise<unknown>) => (await refused(work))[0]!.say;

it("what waits for its check is on hold from the start; released it is free, held back it says why, and each is taken back to what it was", async () => {
  await saveSettings(db, { checkFirst: true }, doing);
  const { batchId, lotId } = await poured();
  expect(await reason(lotId)).toBe(WAITS);
  const released = await check(batchId);
  expect(await reason(lotId)).toBeNull();
  const held = await check(batchId, { verdict: "hold", face: "grainy" });
  expect(await reason(lotId)).toBe("Check: grainy");
  // A second look lets it go, and takes the first's hold off.
  await check(batchId, { note: "A week on it is smooth enough." });
  expect(await reason(lotId)).toBeNull();
  expect((await checksOf(db, batchId)).map((c) => [c.verdict, c.face])).toEqual([
    ["release", "smooth"],
    ["hold", "grainy"],
    ["release", "smooth"],
  ]);
  expect(await says(reverseAct(db, held.actId, doing))).toMatch(/checked again since/);
  await reverseAct(db, (await checkActs()).at(-1)!, doing);
  expect(await reason(lotId)).toBe("Check: grainy");
  await reverseAct(db, held.actId, doing);
  await reverseAct(db, released.actId, doing);
  expect(await reason(lotId)).toBe(WAITS);
  expect(await checksOf(db, batchId)).toEqual([]);
});
const checkActs = async () =>
  (await db.select({ id: act.id }).from(act).where(eq(act.kind, "checkBatch")).orderBy(act.id)).map((a) => a.id);

it("released with something amiss it asks why, held back for nothing too, and no more labels than units", async () => {
  const { batchId, lotId } = await poured();
  expect(await says(check(batchId, { face: "sweating" }))).toBe("Found: sweating. Say why it goes all the same.");
  expect(await says(check(batchId, { verdict: "hold" }))).toBe("Say why it is held back.");
  expect(await says(check(batchId, { labelled: 5 }))).toBe("Only 4 were filled.");
  expect(await checksOf(db, batchId)).toEqual([]);
  await check(batchId, { face: "sweating", note: "Wiped." });
  expect(await reason(lotId)).toBeNull();
});

it("what somebody held, or a recall, stays on hold whatever a check says; and a checked pouring isn't taken back under it", async () => {
  const { batchId, lotId } = await poured();
  await holdLot(db, { lotId, reason: "Smells of smoke" }, doing);
  const done = await check(batchId);
  expect(await reason(lotId)).toBe("Smells of smoke");
  await holdLot(db, { lotId, reason: null }, doing);
  const pourAct = (await readBatch(db, batchId))!.batch.pouredActId!;
  expect(await says(reverseAct(db, pourAct, doing))).toMatch(/has been checked since/);
  await reverseAct(db, done.actId, doing);

  await saveSettings(db, { checkFirst: true }, doing);
  const other = await poured();
  const recallId = idIn(
    await beginRecall(db, { lotIds: [other.lotId], reason: "Rancid", toDo: "Bring it back.", rehearsal: false }, doing),
  );
  expect(await says(check(other.batchId))).toMatch(/in a recall \(Rancid\)/);
  expect(await reason(other.lotId)).toBe(`${WAITS}; Recall: Rancid`);
  const closed = await closeRecall(db, { recallId, free: false }, doing);
  expect(await says(check(other.batchId))).toMatch(/in a recall \(Rancid\)/);
  await reverseAct(db, closed.actId, doing);
  await check(other.batchId, { verdict: "hold", scent: "off" });
  expect(await reason(other.lotId)).toBe("Recall: Rancid; Check: smells off");
});

it("what is poured today sets, seen from everywhere until it is capped, checked, or its pouring is taken back", async () => {
  const running = async () => (await runningTimers(db)).map((t) => t.note);
  const pouredOn = async (day: string) => {
    const batchId = idIn(await put(2));
    const takes = (await readBatch(db, batchId))!.takes.map((t) => ({ ...t, weighed: t.planned }));
    const done = await pour(db, { batchId, takes, sizes: filled(2), leftover: mg(0), minutes: 9, note: "" }, { day });
    return { batchId, actId: done.actId };
  };
  await pouredOn(DAY);
  expect(await running()).toEqual([]);
  const first = await pouredOn(today());
  const second = await pouredOn(today());
  const third = await pouredOn(today());
  expect(await running()).toEqual(["cap once cold", "cap once cold", "cap once cold"]);
  await endSetting(db, first.batchId);
  await check(second.batchId, { labelled: 2 });
  await reverseAct(db, third.actId, { day: today() });
  expect(await running()).toEqual([]);
  expect((await eventsOf(db, third.batchId)).map((e) => [e.kind, e.struckAt !== null])).toEqual([["set", true]]);
});

it("how firm it was felt to be teaches the model of firmness, of the whole pot; taken back, or nobody having felt, it says nothing", async () => {
  const learned = async () => firmnessLearned(db);
  const { batchId } = await poured();
  await check(batchId);
  expect((await learned()).tests).toBe(0);
  const felt = await check(batchId, { verdict: "hold", firm: "muchSoft" });
  expect([(await learned()).tests, (await learned()).constants.wax < 1]).toEqual([1, true]);
  expect((await checksOf(db, batchId))[0]!.firm).toBe("muchSoft");
  await reverseAct(db, felt.actId, doing);
  expect((await learned()).tests).toBe(0);
});
