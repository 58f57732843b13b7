/** The weigh sheet as a browser opens, saves and pours it, on the demo's batch that is still at the bench. */
import { exactWeightText } from "#core/measure/read";
import { mg } from "#core/measure/exact";
import { reverseAct } from "#db/acts/reverse";
import { basesOnShelf } from "#db/bench/planning/base";
import { readBatch } from "#db/bench/read";
import { listCabinet } from "#db/cabinet/cabinet";
import { batch, lot } from "#db/schema";
import { expectLedgerTrue } from "#test/db/fresh";
import { and, isNull } from "drizzle-orm";
import { expect, it } from "vitest";
import { action, loader } from "#app/bench/batch.tsx";
import { action as weighed } from "#app/bench/sheet/weighed.ts";
import { DAY, db, theDemo } from "./demo.ts";
import { load, post } from "./posting.ts";

theDemo();

const atBench = async (): Promise<number> =>
  (
    await db
      .select({ id: batch.id })
      .from(batch)
      .where(and(isNull(batch.pouredActId), isNull(batch.clearedActId)))
  )[0]!.id;
const open = async (id: number) => (await load(loader, `/bench/${id}`, { id: String(id) })).sheet;
type Sheet = Awaited<ReturnType<typeof open>>;

/** The lines as the sheet posts them. @param weight of each; empty where it isn't weighed */
const lines = (sheet: Sheet, weight: (t: Sheet["takes"][number], at: number) => string) =>
  sheet.takes.map((t, i) => ({
    position: String(t.position),
    materialId: String(t.materialId),
    lot: String(t.lotId),
    planned: exactWeightText(t.planned),
    weighed: weight(t, i),
  }));
const textOf = (weighed: Sheet["takes"][number]["weighed"]): string => (weighed === null ? "" : exactWeightText(weighed));
const asPlanned = (sheet: Sheet) => lines(sheet, (t) => exactWeightText(t.planned));
const pouring = (sheet: Sheet, over: object = {}) => ({
  intent: "pour",
  takes: asPlanned(sheet),
  sizes: sheet.sizes.map((s) => ({ productId: String(s.productId), units: "3" })),
  leftover: "12.5 g",
  leftoverTo: "kept",
  minutes: "45",
  note: "Poured warm",
  kept: sheet.takes.map((t) => ({ position: String(t.position), lot: String(t.lotId), weighed: textOf(t.weighed) })),
  ...over,
});

it("keeps what is weighed, a line at a time, and never over what another window has weighed since", async () => {
  const id = await atBench();
  const sheet = await open(id);
  const was = sheet.takes.map((t) => textOf(t.weighed));
  const kept = (texts: readonly string[]) =>
    sheet.takes.map((t, i) => ({ position: String(t.position), lot: String(t.lotId), weighed: texts[i]! }));
  const last = was.length - 1;
  const mine = was.map((w, i) => (i === last ? "1.5 g" : w));
  const save = (texts: readonly string[], before: readonly string[], key: string, late = false) =>
    post(weighed, { takes: lines(sheet, (_, i) => texts[i]!), kept: kept(before), key, late }, String(id));
  expect(await save(mine, was, crypto.randomUUID())).toMatchObject({ status: 200, fields: [] });
  expect((await open(id)).takes[last]!.weighed).toBe(mg(1500));
  // Another window that never touched the line saves the rest of the sheet: what was weighed stays.
  expect(await save(was, was, crypto.randomUUID())).toMatchObject({ fields: [] });
  expect((await open(id)).takes[last]!.weighed).toBe(mg(1500));
  // One that was typed on before, and sent only now, is told; one that is typed on now is the newer.
  const theirs = was.map((w, i) => (i === last ? "9 g" : w));
  expect(await save(theirs, was, crypto.randomUUID(), true)).toMatchObject({ fields: [`takes.${last}.weighed`] });
  expect((await open(id)).takes[last]!.weighed).toBe(mg(1500));
  expect(await save(theirs, mine, crypto.randomUUID())).toMatchObject({ fields: [] });
  expect((await open(id)).takes[last]!.weighed).toBe(mg(9000));
  // Struck out here, and typed on elsewhere before that: what was done to it is said.
  expect(await save(was, theirs, crypto.randomUUID())).toMatchObject({ fields: [] });
  const late = await save(mine, theirs, crypto.randomUUID(), true);
  expect(late).toMatchObject({
    fields: [`takes.${last}.weighed`],
    say: expect.stringMatching(/^It of .* was struck out elsewhere meanwhile/) as string,
  });
  expect((await open(id)).takes[last]!.weighed).toBeNull();
});

it("isn't poured before all is weighed, nor without its minutes; nothing moves", async () => {
  const id = await atBench();
  const sheet = await open(id);
  const before = await db.select().from(lot);
  const open1 = lines(sheet, (t, i) => (i === 1 ? " " : exactWeightText(t.planned)));
  for (const [over, fields] of [
    [{ takes: open1 }, ["takes.1.weighed"]],
    [{ takes: open1, minutes: "" }, ["minutes", "takes.1.weighed"]],
    [{ minutes: "6001" }, ["minutes"]],
    [{ leftover: "some" }, ["leftover"]],
    [{ leftoverTo: "moon" }, ["leftoverTo"]],
    [{ sizes: [{ productId: String(sheet.sizes[0]!.productId), units: "2.5" }] }, ["sizes.0.units"]],
  ] as const)
    expect(await post(action, pouring(sheet, over), String(id)), JSON.stringify(fields)).toMatchObject({ status: 422, fields });
  expect(await db.select().from(lot)).toEqual(before);
});

it.each([
  ["kept", 1],
  ["gone", 0],
  ["", 0],
] as const)(
  "poured with what is left over %s: its units, its draws and its leftover are in the books, and taken back they are not",
  async (leftoverTo, bases) => {
    const id = await atBench();
    const sheet = await open(id);
    const onHand = new Map((await db.select().from(lot)).map((l) => [l.id, l.onHand]));
    const had = (await basesOnShelf(db)).length;
    const { to, say } = await post(action, pouring(sheet, { leftoverTo }), String(id));
    expect(say).toBe("");
    expect(to).toMatch(/^\/bench\/|^\/cabinet/);
    const after = (await readBatch(db, id))!;
    expect(after.batch).toMatchObject({ leftover: mg(12_500), minutes: 45, note: "Poured warm" });
    const made = new Map((await listCabinet(db)).map((l) => [l.id, l.onHand]));
    for (const s of after.sizes.filter((one) => one.lotId !== null)) expect(made.get(s.lotId!)).toBe(3);
    const drawn = new Map<number, number>();
    for (const t of sheet.takes) drawn.set(t.lotId, (drawn.get(t.lotId) ?? 0) + t.planned);
    for (const l of (await db.select().from(lot)).filter((one) => drawn.has(one.id)))
      expect(l.onHand).toBe(onHand.get(l.id)! - drawn.get(l.id)!);
    const left = await basesOnShelf(db);
    expect(left.length - had).toBe(bases);
    if (bases) expect((await db.select().from(lot)).find((l) => l.id === left.at(-1)!.lotId)!.onHand).toBe(12_500);
    await expectLedgerTrue(db);
    await reverseAct(db, after.batch.pouredActId!, { day: DAY });
    expect(new Map((await db.select().from(lot)).filter((l) => onHand.has(l.id)).map((l) => [l.id, l.onHand]))).toEqual(onHand);
    await expectLedgerTrue(db);
  },
);
