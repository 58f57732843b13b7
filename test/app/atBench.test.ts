/** Acts at the bench and in a recall, as a browser posts them: each is saved at once, and impossible ones are refused in words. */
import { exactWeightText } from "#core/measure/read";
import { eventsOf } from "#db/bench/weighing/events";
import { readBatch } from "#db/bench/read";
import { samplesOf } from "#db/bench/weighing/samples";
import { readRecall } from "#db/lots/recalls";
import { batch, lot, material, stockCount } from "#db/schema";
import { and, asc, eq, isNull } from "drizzle-orm";
import { beforeAll, describe, expect, it } from "vitest";
import { loader as atLoader } from "#app/bench/at/at.tsx";
import { action as did } from "#app/bench/at/benchEvents.ts";
import { action as sheet } from "#app/bench/batch.tsx";
import { action as weighed } from "#app/bench/sheet/weighed.ts";
import { loader as setOutLoader } from "#app/bench/settingOut/setOut.tsx";
import { action as noted } from "#app/shelf/counting/noted.ts";
import { action as tell } from "#app/devices/tell.ts";
import { action as begin, loader as beginLoader } from "#app/lots/recall/begin.tsx";
import { loader as letters } from "#app/lots/recall/letters.tsx";
import { loader as list } from "#app/lots/recall/listCsv.ts";
import { action as recall } from "#app/lots/recall/recall.tsx";
import { db, theDemo } from "./demo.ts";
import { post } from "./posting.ts";

theDemo();

/** The batch that is on the demo's bench. */
let open: number;
beforeAll(async () => {
  const [row] = await db
    .select({ id: batch.id })
    .from(batch)
    .where(and(isNull(batch.pouredActId), isNull(batch.clearedActId)));
  open = row!.id;
});
const at = (path: string, params: Record<string, string> = {}) =>
  ({ request: new Request(`http://127.0.0.1${path}`), params, context: {} }) as never;
const atBench = (body: object) => post(did, body, String(open));
const takes = async () => (await readBatch(db, open))!.takes;

describe("at the bench", () => {
  it("a weight, a warmth, a step and a timer are kept at once; nonsense is refused beside what it is", async () => {
    const line = (await takes()).find((t) => t.weighed === null)!;
    const of = { intent: "weigh", position: line.position, lotId: line.lotId, nth: 0, by: "scale" };
    expect(await atBench({ ...of, weighed: "37.6 g", was: "" })).toMatchObject({ status: 200, fields: [] });
    expect((await takes()).find((t) => t.position === line.position && t.lotId === line.lotId)).toMatchObject({
      weighed: 37_600,
      weighedBy: "scale",
    });
    expect(await atBench({ ...of, weighed: "30 g", was: "" })).toMatchObject({
      status: 422,
      say: expect.stringContaining("weighed elsewhere") as string,
    });
    expect(await atBench({ ...of, weighed: "a pinch", was: "" })).toMatchObject({ status: 422, fields: ["weighed"] });
    expect(await atBench({ ...of, by: "magic", weighed: "1 g", was: "" })).toMatchObject({ status: 422, fields: ["by"] });
    for (const event of [
      { kind: "heat", celsius: 61.5 },
      { kind: "step", step: 0, note: "Melt it." },
      { kind: "timer", minutes: 20, note: "Hold it hot" },
    ])
      expect(await atBench({ intent: "event", ...event })).toMatchObject({ status: 200 });
    expect(await atBench({ intent: "event", kind: "heat", celsius: 4000 })).toMatchObject({ status: 422, fields: ["celsius"] });
    const events = await eventsOf(db, open);
    expect(events.map((e) => e.kind)).toEqual(["heat", "step", "timer"]);
    expect(await atBench({ intent: "settle", id: events[0]!.id, how: "strike" })).toMatchObject({ status: 200 });
    expect(await atBench({ intent: "settle", id: events[2]!.id, how: "burn" })).toMatchObject({ status: 422, fields: ["how"] });
    expect(await atBench({ intent: "vessel", vessel: "412.3 g" })).toMatchObject({ status: 200 });
    const page = await atLoader(at("/bench/1/at", { id: String(open) }));
    expect([page.batch.vessel, page.events[0]!.struckAt !== null]).toEqual([412_300, true]);
  });

  it("what is sent again under its key counts once, also of two that come at once; what was refused may be sent again under it", async () => {
    const notes = async (note: string) => (await eventsOf(db, open)).filter((e) => e.note === note).length;
    const [key, other] = [crypto.randomUUID(), crypto.randomUUID()];
    const said = { intent: "event", kind: "note", note: "Once" };
    const both = await Promise.all([1, 2].map(() => atBench({ ...said, key })));
    expect(both.map((b) => b.status)).toEqual([200, 200]);
    expect(await atBench({ ...said, key })).toMatchObject({ status: 200 });
    expect(await notes("Once")).toBe(1);
    expect(await atBench({ intent: "strikeSample", id: 999_999, key: other })).toMatchObject({ status: 422 });
    expect(await atBench({ ...said, note: "Then", key: other })).toMatchObject({ status: 200 });
    expect(await notes("Then")).toBe(1);
    expect(await atBench({ ...said, key: "no key" })).toMatchObject({ status: 422, fields: ["key"] });
    // The whole sheet and a count of the stock-take go by their keys too: repeated after another has changed it, nothing is overwritten.
    const [first, ...rest] = (await takes()).map(({ position, materialId, lotId, planned, weighed: w }) => ({
      ...{ position, materialId, lot: String(lotId), planned: exactWeightText(planned), weighed: w === null ? "" : exactWeightText(w) },
    }));
    const weighs = (grams: string, as: string) =>
      post(weighed, { key: as, takes: [{ ...first!, weighed: grams }, ...rest], kept: [first!, ...rest] }, String(open));
    const [sheetKey, countKey] = [crypto.randomUUID(), crypto.randomUUID()];
    for (const [grams, as] of [
      ["7 g", sheetKey],
      ["8 g", crypto.randomUUID()],
      ["7 g", sheetKey],
    ] as const)
      expect(await weighs(grams, as)).toMatchObject({ status: 200, say: "", fields: [] });
    expect((await takes())[0]!.weighed).toBe(8000);
    await weighs(first!.weighed, crypto.randomUUID());
    const count = (counted: string, as: string) => post(noted, { lotId: Number(first!.lot), counted, note: "", key: as });
    for (const [counted, as] of [
      ["5 g", countKey],
      ["6 g", crypto.randomUUID()],
      ["5 g", countKey],
    ] as const)
      expect(await count(counted, as)).toMatchObject({ status: 200 });
    expect(
      (
        await db
          .select()
          .from(stockCount)
          .where(eq(stockCount.lotId, Number(first!.lot)))
      )[0]!.counted,
    ).toBe(6000);
  });

  it("net weights are kept and struck out by size; what is off is matched or taken from the next lot, or said to be short", async () => {
    const [size] = (await readBatch(db, open))!.sizes;
    for (const net of ["10.2 g", "8 g"])
      expect(await atBench({ intent: "sample", sizeId: size!.id, net, by: "hand" })).toMatchObject({ status: 200 });
    expect(await atBench({ intent: "sample", sizeId: 0, net: "10 g", by: "hand" })).toMatchObject({ status: 422 });
    const [, light] = await samplesOf(db, open);
    expect(await atBench({ intent: "strikeSample", id: light!.id })).toMatchObject({ status: 200 });
    const line = (await takes()).findLast((t) => t.weighed === null)!;
    const of = { position: line.position, lotId: line.lotId, nth: 0, by: "hand" };
    expect(await atBench({ intent: "match", ...of, weighed: `${line.planned * 50} g` })).toMatchObject({ status: 422 });
    expect(await atBench({ intent: "match", ...of, weighed: `${(line.planned * 1.1) / 1000} g` })).toMatchObject({ status: 200 });
    expect(
      await atBench({
        intent: "mend",
        had: (await takes()).length,
        lines: [{ position: line.position, lotId: line.lotId, nth: 0, amount: "0" }],
      }),
    ).toMatchObject({
      status: 422,
    });
  });

  it("what the bench is promised isn't offered for the next batch; without a scale nothing is told to one", async () => {
    const { chosen } = await setOutLoader(at(`/bench/set-out?recipe=${(await readBatch(db, open))!.recipe.id}`));
    const own = new Map((await takes()).map((t) => [t.lotId, Math.max(t.planned, t.weighed ?? 0)]));
    const here = new Map((await db.select({ id: lot.id, onHand: lot.onHand }).from(lot)).map((l) => [l.id, l.onHand]));
    for (const l of chosen!.stuff.flatMap((s) => s.lots)) expect(l.onHand).toBeLessThanOrEqual(here.get(l.id)! - (own.get(l.id) ?? 0));
    expect(chosen!.holders.some((p) => p.batchId === open)).toBe(true);
    expect(
      await tell({
        request: new Request("http://127.0.0.1/x", { method: "POST", body: JSON.stringify({ device: "scale", line: "tare" }) }),
        params: {},
        context: {},
      } as never),
    ).toEqual({ done: false });
    expect(await post(tell, { device: "scale", line: "rm -rf /" })).toMatchObject({ status: 422, fields: ["line"] });
  });

  it("a batch that failed wants a reason, and is gone from the bench then", async () => {
    expect(await post(sheet, { intent: "spoil", why: " " }, String(open))).toMatchObject({ status: 422, fields: ["why"] });
    expect(await post(sheet, { intent: "spoil", why: "Water in the pot" }, String(open))).toMatchObject({
      status: 302,
      to: `/bench/${open}`,
    });
    expect(await atBench({ intent: "vessel", vessel: "400 g" })).toMatchObject({
      status: 422,
      say: expect.stringContaining("isn't on the bench") as string,
    });
    await expect(atLoader(at("/bench/1/at", { id: String(open) }))).rejects.toMatchObject({ status: 302 });
  });
});

describe("a recall", () => {
  it("is begun with what was ticked, told, listed as a file and in letters, and closed", async () => {
    const [wax] = await db
      .select({ id: lot.id, number: lot.number })
      .from(lot)
      .innerJoin(material, eq(material.id, lot.materialId))
      .where(eq(material.kind, "wax"))
      .orderBy(asc(lot.id));
    const { chosen } = await beginLoader(at(`/lots/recalls/new?lot=${wax!.number}`));
    expect(chosen!.reach.units.came).toBeGreaterThan(20);
    const said = { lots: [wax!.id], reason: "A solvent was found, by “the mill”.", toDo: "Bring it back.", rehearsal: false };
    expect(await post(begin, { ...said, lots: [] })).toMatchObject({ status: 422, fields: ["lots"] });
    expect(await post(begin, { ...said, reason: "" })).toMatchObject({ status: 422, fields: ["reason"] });
    const begun = await post(begin, said);
    expect(begun).toMatchObject({ status: 302, to: "/lots/recalls/1" });
    const { reach } = (await readRecall(db, 1))!;
    const person = reach.people[0]!;
    const tells = { intent: "tell", contactId: person.contactId, note: "", was: { toldOn: "", back: "", note: "" } };
    expect(await post(recall, { ...tells, toldOn: "", back: "9999" }, "1")).toMatchObject({ status: 422, fields: ["back"] });
    expect(await post(recall, { ...tells, toldOn: "2026-11-25", back: "1" }, "1")).toMatchObject({ status: 302 });
    const csv = await (await list(at("/lots/recalls/1/list.csv", { id: "1" }))).text();
    const rows = csv.trim().split(/\r?\n/);
    expect(rows.filter((r) => r.startsWith("order,")).some((r) => r.includes("2026-11-25,1,"))).toBe(true);
    // Every unit that went out by name or at a stall is in the file, and in one letter or notice.
    const texts = (await letters(at("/lots/recalls/1/letters", { id: "1" }))).letters;
    expect(texts).toHaveLength(reach.people.length + reach.markets.length);
    for (const t of texts) expect(t.text).toContain("A solvent was found, by “the mill”.");
    expect(await post(recall, { intent: "close", free: true }, "1")).toMatchObject({ status: 302 });
    expect(await post(recall, { intent: "close", free: true }, "1")).toMatchObject({ status: 422 });
    expect((await readRecall(db, 1))!.recall.came).toContain("1 unit back");
  });
});
