/** Two people at one bench: the same batch poured twice at once, and two batches that need the same last of a lot. */
import { mg } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { sql } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import { reverseAct } from "../../acts/reverse.ts";
import { correctCount } from "../../shelf/counting/count.ts";
import { expectLedgerTrue } from "#test/db/fresh";
import { DAY, db, eachTestHasAWorkshop, finished, idIn, ids, lotsOf, onHand, refused, token, put, filled } from "#test/db/workshop";
import { pour, type PourIn } from "../finishing/pour.ts";
import { clearBatch } from "../planning/clear.ts";
import { spoilBatch, spoiledCost } from "../finishing/spoil.ts";
import { weighOne } from "./weigh.ts";
import { readBatch } from "../read.ts";

eachTestHasAWorkshop();

/** Sets out so many units and gives the pour that weighs them as planned. */
async function ready(units: number): Promise<PourIn> {
  const batchId = idIn(await put(units));
  const { takes } = (await readBatch(db, batchId))!;
  return { batchId, takes: takes.map((t) => ({ ...t, weighed: t.planned })), sizes: filled(units), leftover: mg(0), minutes: 20, note: "" };
}
const outcome = async (works: Promise<unknown>[]): Promise<{ done: number; said: string[] }> => {
  const results = await Promise.allSettled(works);
  const said = results.flatMap((r) => {
    if (r.status === "fulfilled") return [];
    expect(r.reason).toBeInstanceOf(Refused);
    return [(r.reason as Refused).message];
  });
  return { done: results.length - said.length, said };
};

describe("at the same moment", () => {
  it("one batch poured in two windows is poured once", async () => {
    const sheet = await ready(4);
    const oil = await onHand(ids.oil);
    const { done, said } = await outcome([pour(db, sheet, { day: DAY, token: token() }), pour(db, sheet, { day: DAY, token: token() })]);
    expect(done).toBe(1);
    expect(said[0]).toMatch(/isn't on the bench any more/);
    expect(await onHand(ids.oil)).toBe(oil - 160_000);
    expect((await finished()).map((l) => l.onHand)).toEqual([5, 4]);
    await expectLedgerTrue(db);
  });
  it("two batches that both count on the last wax: one is poured, the other says what is missing and keeps its weights", async () => {
    const [wax] = await lotsOf(ids.wax);
    const [a, b] = [await ready(4), await ready(4)];
    await correctCount(db, { lotId: wax!.id, expected: 450_000, counted: 50_000, reason: "used for candles" }, { day: DAY });
    const { done, said } = await outcome([pour(db, a, { day: DAY }), pour(db, b, { day: DAY })]);
    expect(done).toBe(1);
    expect(said).toEqual([`Lot ${wax!.number} has 10 g, 30 g less than this takes. Nothing was moved.`]);
    expect(await onHand(ids.wax)).toBe(10_000);
    const open = await db.execute<{ id: number }>(sql`select id from batch where poured_act_id is null`);
    expect(open.rows).toHaveLength(1);
    expect((await readBatch(db, open.rows[0]!.id))!.takes.length).toBe(2);
    await expectLedgerTrue(db);
  });
  it("no two are promised the same gram, nor the same tin: the second isn't set out, and says whose it is; cleared off, it is free again", async () => {
    await put(30);
    const [first] = (await db.execute<{ id: number }>(sql`select id from batch where poured_act_id is null`)).rows;
    const [short] = await refused(put(12));
    // 1.8 kg of oil, 450 g of wax and 35 tins are here; 1.2 kg, 300 g and 30 tins are promised.
    expect(short!.say).toBe(
      "The shelf is short of 7 pcs of Tin. What is reserved for Test balm on the bench doesn't count. Nothing was set out.",
    );
    expect(short!.see).toEqual([{ to: `/bench/${first!.id}`, name: "Test balm" }]);
    await put(5);
    expect(await refused(put(1))).toHaveLength(1);
    await clearBatch(db, { batchId: first!.id }, { day: DAY });
    await put(30);
    const [oil] = await lotsOf(ids.oil);
    expect(oil!.onHand).toBe(1_800_000);
  });
  it("a batch cleared off can't be brought back on what another was promised since", async () => {
    const cleared = await clearBatch(db, { batchId: idIn(await put(20)) }, { day: DAY });
    const other = idIn(await put(30));
    expect(await refused(reverseAct(db, cleared.actId, { day: DAY }))).toMatchObject([
      { say: expect.stringContaining("reserved for Test balm by now") as string, see: [{ to: `/bench/${other}`, name: "Test balm" }] },
    ]);
    await clearBatch(db, { batchId: other }, { day: DAY });
    await reverseAct(db, cleared.actId, { day: DAY });
  });
  it("a batch that failed is written off with what was weighed of it, and taken back it is on the bench again", async () => {
    const batchId = idIn(await put(4));
    expect(await refused(spoilBatch(db, { batchId, why: "burnt" }, { day: DAY }))).toMatchObject([{ field: "why" }]);
    const [oil] = (await readBatch(db, batchId))!.takes;
    await weighOne(db, { batchId, position: oil!.position, lotId: oil!.lotId, weighed: mg(150_000), was: null, by: "hand" });
    const done = await spoilBatch(db, { batchId, why: "burnt" }, { day: DAY });
    expect(await onHand(ids.oil)).toBe(1_650_000);
    const { batch } = (await readBatch(db, batchId))!;
    // 150 g of 2 kg that cost 21.01.
    expect([batch.spoiledWhy, await spoiledCost(db, batch)]).toEqual(["burnt", 1_575_750]);
    expect(await refused(spoilBatch(db, { batchId, why: "again" }, { day: DAY }))).toHaveLength(1);
    await expectLedgerTrue(db);
    await reverseAct(db, done.actId, { day: DAY });
    expect(await onHand(ids.oil)).toBe(1_800_000);
    expect((await readBatch(db, batchId))!.takes[0]!.weighed).toBe(150_000);
    await spoilBatch(db, { batchId, why: "burnt after all" }, { day: DAY });
    await expectLedgerTrue(db);
  });
  it("two ask for the last at once: one is set out", async () => {
    const { done, said } = await outcome([put(20), put(20), put(20)]);
    expect(done).toBe(1);
    expect(said[0]).toMatch(/short of 5 pcs of Tin/);
  });
  it("packaging runs out between setting out and pouring: the pour says so, and no ingredient has moved", async () => {
    const sheet = await ready(10);
    const [tins] = await lotsOf(ids.tin);
    await correctCount(db, { lotId: tins!.id, expected: 35, counted: 3, reason: "dented" }, { day: DAY });
    const oil = await onHand(ids.oil);
    expect(await refused(pour(db, sheet, { day: DAY }))).toEqual([
      { field: "sizes.0.units", say: "The shelf is short of 7 pcs of Tin. Nothing was moved." },
    ]);
    expect(await onHand(ids.oil)).toBe(oil);
    expect(await onHand(ids.tin)).toBe(3);
  });
});
