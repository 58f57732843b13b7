/** What is weighed at the bench and on the sheet, in several windows; and what is written down meanwhile. */
import { mg } from "#core/measure/exact";
import { describe, expect, it } from "vitest";
import { saveSettings } from "../../settings/settings.ts";
import { DAY, db, eachTestHasAWorkshop, filled, idIn, lotsOf, ids, put, buy, refused } from "#test/db/workshop";
import { eventsOf, noteEvent, runningTimers, settleEvent } from "./events.ts";
import { fixPot } from "./match.ts";
import { pour } from "../finishing/pour.ts";
import { readBatch } from "../read.ts";
import { addSample, samplesOf, strikeSample } from "./samples.ts";
import { clearBatch } from "../planning/clear.ts";
import { saveWeighed, countFilled, weighOne, weighVessel } from "./weigh.ts";

eachTestHasAWorkshop();

const sheetOf = async (batchId: number) => (await readBatch(db, batchId))!;
const weights = async (batchId: number) => (await sheetOf(batchId)).takes.map((t) => t.weighed);

describe("weighing", () => {
  it("a weighing at the bench isn't lost to a sheet another window keeps, nor the sheet's to it", async () => {
    const batchId = idIn(await put(4));
    const { takes } = await sheetOf(batchId);
    const [oil, wax] = takes;
    const opened = takes.map((t) => ({ ...t }));
    await weighOne(db, { batchId, position: oil!.position, lotId: oil!.lotId, weighed: mg(160_100), was: null, by: "scale" });
    // The sheet was opened before, and has only the wax filled in.
    await saveWeighed(db, batchId, [{ ...oil! }, { ...wax!, weighed: mg(40_000) }], opened);
    expect(await weights(batchId)).toEqual([160_100, 40_000]);
    expect((await sheetOf(batchId)).takes.map((t) => t.weighedBy)).toEqual(["scale", "hand"]);
    // What this window did change is saved.
    await saveWeighed(
      db,
      batchId,
      [
        { ...oil!, weighed: mg(161_000) },
        { ...wax!, weighed: mg(40_000) },
      ],
      [
        { ...oil!, weighed: mg(160_100) },
        { ...wax!, weighed: mg(40_000) },
      ],
    );
    expect(await weights(batchId)).toEqual([161_000, 40_000]);
  });

  it("a sheet that arrives late, from a page before, loses to what was weighed elsewhere since; the rest of it is kept", async () => {
    const batchId = idIn(await put(4));
    const { takes } = await sheetOf(batchId);
    const [oil, wax] = takes;
    const typed = [
      { ...oil!, weighed: mg(160_100) },
      { ...wax!, weighed: mg(40_000) },
    ];
    await weighOne(db, { batchId, position: oil!.position, lotId: oil!.lotId, weighed: mg(160_300), was: null, by: "scale" });
    expect(await saveWeighed(db, batchId, typed, takes, true)).toEqual([
      { field: "takes.0.weighed", say: "160.3 g of Oil was weighed elsewhere meanwhile. Look again." },
    ]);
    expect(await weights(batchId)).toEqual([160_300, 40_000]);
    // The same by a page that is open wins, as what was typed last; and what nobody changed elsewhere comes late as well.
    expect(await saveWeighed(db, batchId, typed, takes)).toEqual([]);
    expect(await weights(batchId)).toEqual([160_100, 40_000]);
    expect(await saveWeighed(db, batchId, [typed[0]!, { ...wax!, weighed: mg(41_000) }], typed, true)).toEqual([]);
    expect(await weights(batchId)).toEqual([160_100, 41_000]);
  });

  it("a lot added in one window stays when another keeps the sheet it had before", async () => {
    await buy(ids.oil, 500_000, 5);
    const batchId = idIn(await put(4));
    const { takes } = await sheetOf(batchId);
    const other = (await lotsOf(ids.oil)).find((l) => l.id !== takes[0]!.lotId)!;
    await saveWeighed(db, batchId, [takes[0]!, { ...takes[0]!, lotId: other.id, planned: mg(0), weighed: mg(20_000) }, takes[1]!], takes);
    await saveWeighed(db, batchId, [takes[0]!, { ...takes[1]!, weighed: mg(39_000) }], takes);
    expect(await weights(batchId)).toEqual([null, 20_000, 39_000]);
  });

  it("two lines of one lot keep their own weights, whoever keeps the sheet", async () => {
    const batchId = idIn(await put(4));
    const [oil, wax] = (await sheetOf(batchId)).takes;
    const twice = [oil!, { ...oil!, planned: mg(16_000) }, wax!];
    await saveWeighed(db, batchId, twice, [oil!, wax!]);
    const at = { batchId, position: oil!.position, lotId: oil!.lotId, was: null, by: "scale" as const };
    await weighOne(db, { ...at, nth: 1, weighed: mg(16_100) });
    await saveWeighed(db, batchId, [twice[0]!, twice[1]!, { ...wax!, weighed: mg(40_000) }], twice);
    await weighOne(db, { ...at, nth: 0, weighed: mg(160_000) });
    expect(await weights(batchId)).toEqual([160_000, 16_100, 40_000]);
    expect(await refused(weighOne(db, { ...at, nth: 2, weighed: mg(1) }))).toHaveLength(1);
  });

  it("a sheet that was opened before something was weighed at the bench isn't poured over it", async () => {
    const batchId = idIn(await put(4));
    const { takes } = await sheetOf(batchId);
    const [oil, wax] = takes;
    const whole = takes.map((t) => ({ ...t, weighed: t.planned }));
    const pouring = { batchId, takes: whole, sizes: filled(4), leftover: mg(0), minutes: 9, note: "", kept: takes };
    await weighOne(db, { batchId, position: wax!.position, lotId: wax!.lotId, weighed: mg(41_000), was: null, by: "scale" });
    expect(await refused(pour(db, pouring, { day: DAY }))).toMatchObject([
      { field: "takes.1.weighed", say: expect.stringContaining("41 g of Wax was weighed in another window") as string },
    ]);
    const own = { batchId, position: oil!.position, lotId: oil!.lotId, was: null, by: "hand" as const };
    await weighOne(db, { ...own, weighed: mg(160_000) });
    const lines = [{ position: own.position, lotId: own.lotId, amount: mg(5000) }];
    await fixPot(db, { batchId, had: 2, lines, others: [], said: "", verdict: null }, DAY);
    await weighOne(db, { ...own, nth: 1, weighed: mg(5000) });
    const mine = [whole[0]!, { ...wax!, weighed: mg(41_000) }];
    expect(await refused(pour(db, { ...pouring, takes: mine, kept: mine }, { day: DAY }))).toMatchObject([
      { field: "", say: expect.stringContaining("5 g of Oil was added in another window") as string },
    ]);
    // Read again, it has all of it.
    const now = (await sheetOf(batchId)).takes;
    await pour(db, { ...pouring, takes: now.map((t) => ({ ...t, weighed: t.weighed! })), kept: now }, { day: DAY });
    expect(await weights(batchId)).toEqual(now.map((t) => t.weighed));
  });

  it("what is filled is counted as it is filled: once however often it is sent, and not over what another window counted", async () => {
    const batchId = idIn(await put(4));
    const [size] = (await sheetOf(batchId)).sizes;
    const at = { batchId, sizeId: size!.id };
    await countFilled(db, { ...at, units: 1, was: 0 });
    await countFilled(db, { ...at, units: 1, was: 0 });
    await countFilled(db, { ...at, units: 3, was: 1 });
    expect(await refused(countFilled(db, { ...at, units: 2, was: 1 }))).toMatchObject([
      { say: expect.stringContaining("Counted elsewhere just now: 3 × 50 g") as string },
    ]);
    expect((await sheetOf(batchId)).sizes[0]!.units).toBe(3);
    const other = idIn(await put(1));
    expect(await refused(countFilled(db, { ...at, batchId: other, units: 4, was: 3 }))).toHaveLength(1);
  });

  it("what was weighed elsewhere meanwhile is said, and nothing weighed twice over", async () => {
    const batchId = idIn(await put(4));
    const [oil] = (await sheetOf(batchId)).takes;
    const at = { batchId, position: oil!.position, lotId: oil!.lotId, by: "scale" as const };
    await weighOne(db, { ...at, weighed: mg(160_000), was: null });
    await weighOne(db, { ...at, weighed: mg(160_000), was: null });
    expect(await refused(weighOne(db, { ...at, weighed: mg(155_000), was: null }))).toMatchObject([
      { say: expect.stringContaining("just been weighed elsewhere: 160 g") as string },
    ]);
    await weighOne(db, { ...at, weighed: null, was: mg(160_000) });
    expect((await sheetOf(batchId)).takes[0]).toMatchObject({ weighed: null, weighedAt: null, weighedBy: null });
    expect(await refused(weighOne(db, { ...at, lotId: 9999, weighed: mg(1), was: null }))).toHaveLength(1);
  });

  it("net weights are kept by size, struck out but never gone, and with the rule of the day the batch was poured", async () => {
    const batchId = idIn(await put(4));
    const { sizes, takes } = await sheetOf(batchId);
    const sizeId = sizes[0]!.id;
    for (const net of [50_200, 44_000]) await addSample(db, { batchId, sizeId, net: mg(net), by: "scale" });
    expect(await refused(addSample(db, { batchId, sizeId, net: mg(0), by: "hand" }))).toHaveLength(1);
    expect(await refused(addSample(db, { batchId: idIn(await put(1)), sizeId, net: mg(50_000), by: "hand" }))).toHaveLength(1);
    const [, light] = await samplesOf(db, batchId);
    await strikeSample(db, batchId, light!.id);
    expect((await samplesOf(db, batchId)).map((s) => [s.net, s.struckAt !== null])).toEqual([
      [50_200, false],
      [44_000, true],
    ]);
    await saveSettings(db, { netRule: "us" }, { day: DAY });
    const whole = takes.map((t) => ({ ...t, weighed: t.planned }));
    await pour(db, { batchId, takes: whole, sizes: filled(4), leftover: mg(0), minutes: 9, note: "" }, { day: DAY });
    await saveSettings(db, { netRule: "eu" }, { day: DAY });
    expect((await sheetOf(batchId)).batch.netRule).toBe("us");
    expect(await refused(strikeSample(db, batchId, light!.id))).toHaveLength(1);
  });

  it("what happened is kept in order, struck out but never gone; a timer shows everywhere until it is ended, poured or cleared", async () => {
    const batchId = idIn(await put(4));
    await weighVessel(db, batchId, mg(412_300));
    await Promise.all([0, 0, 0].map(() => noteEvent(db, { batchId, kind: "step", step: 2, note: "Melt the wax." })));
    await noteEvent(db, { batchId, kind: "heat", celsius: 71.5 });
    await noteEvent(db, { batchId, kind: "timer", minutes: 30, note: "Hold it hot" });
    const [step, heat, timer] = await eventsOf(db, batchId);
    expect([step!.kind, heat!.celsius, timer!.minutes, (await eventsOf(db, batchId)).length]).toEqual(["step", 71.5, 30, 3]);
    expect(await runningTimers(db)).toMatchObject([{ id: timer!.id, batchId, note: "Hold it hot" }]);
    await settleEvent(db, batchId, heat!.id, "strike");
    await settleEvent(db, batchId, step!.id, "strike");
    // Struck out, it can be done again.
    await noteEvent(db, { batchId, kind: "step", step: 2, note: "Melt the wax." });
    await settleEvent(db, batchId, timer!.id, "end");
    expect(await runningTimers(db)).toEqual([]);
    expect((await eventsOf(db, batchId)).map((e) => e.struckAt !== null)).toEqual([true, true, false, false]);
    await noteEvent(db, { batchId, kind: "timer", minutes: 5 });
    const { takes, batch } = await sheetOf(batchId);
    expect(batch.vessel).toBe(412_300);
    await pour(
      db,
      { batchId, takes: takes.map((t) => ({ ...t, weighed: t.planned })), sizes: filled(4), leftover: mg(0), minutes: 9, note: "" },
      { day: DAY },
    );
    expect(await runningTimers(db)).toEqual([]);
    for (const late of [
      () => noteEvent(db, { batchId, kind: "note", note: "x" }),
      () => settleEvent(db, batchId, heat!.id, "strike"),
      () => weighVessel(db, batchId, null),
    ])
      expect(await refused(late())).toHaveLength(1);
    const other = idIn(await put(1));
    await noteEvent(db, { batchId: other, kind: "timer", minutes: 5 });
    expect(await refused(settleEvent(db, other, timer!.id, "end"))).toHaveLength(1);
    await clearBatch(db, { batchId: other }, { day: DAY });
    expect(await runningTimers(db)).toEqual([]);
  });
});
