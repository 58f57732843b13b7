/**
 * Which orders lack something, given the shelf, the bench and the jars, and what Today says of them: five balms, 1.8 kg of oil, 35 tins.
 */
import { mg } from "#core/measure/exact";
import { addDays } from "#core/when";
import { beforeEach, describe, expect, it } from "vitest";
import { reverseAct } from "../acts/reverse.ts";
import { clearBatch } from "../bench/planning/clear.ts";
import { fillJar } from "../jars/fill.ts";
import { lastSteeped } from "../jars/giving.ts";
import { strainJar } from "../jars/strain.ts";
import { saveRecipe } from "../recipe/save.ts";
import { saveMaterial } from "../shelf/keepMaterial.ts";
import { receive } from "../shelf/receipts/receive.ts";
import { euro } from "#test/db/fresh";
import { balm, buy, DAY, db, eachTestHasAWorkshop, idIn, ids, jarOf, lotsOf, put, size } from "#test/db/workshop";
import { waitingCounts, workItems } from "../today/today.ts";
import { openOrders } from "./begin.ts";
import { saveGiftOrder } from "./gifts.ts";
import { packGiftOrder } from "./pack.ts";

eachTestHasAWorkshop();

const DUE = addDays(DAY, 30);
const ask = async (units: number, { customer = "Choir", due = DUE, boxes = 0 } = {}): Promise<number> =>
  idIn(
    await saveGiftOrder(
      db,
      {
        ...{ customer, due, extra: euro(0), discountBp: 0, wrapMinutes: 0, note: "" },
        items: [{ productId: ids.product, units, price: euro(9) }],
        wrapping: boxes > 0 ? [{ materialId: ids.box, pieces: boxes }] : [],
      },
      { day: DAY },
    ),
  );
/** Each order by whom it is for, its state, and what is to be begun. */
const stands = async (day = DAY): Promise<string[]> =>
  (await openOrders(db, day)).map((o) =>
    [`${o.customer} ${o.standing}`, ...o.steps.map((s) => `${s.does} ${s.amount} ${s.name} ${s.by}`)].join("; "),
  );
const made = addDays(DUE, -3);
const bought = addDays(made, -14);

describe("orders that lack something", () => {
  it("ready out of what is there; what an order lacks is made, until its batch is on the bench, then poured", async () => {
    const id = await ask(5);
    expect(await stands()).toEqual(["Choir ready"]);
    await ask(3, { customer: "School" });
    expect(await stands()).toEqual(["Choir ready", `School missing; make 3 Test balm, 50 g ${made}`]);
    const batch = idIn(await put(2));
    expect((await stands())[1]).toBe(`School missing; pour 2 Test balm, 50 g ${made}; make 1 Test balm, 50 g ${made}`);
    const cleared = await clearBatch(db, { batchId: batch }, { day: DAY });
    expect((await stands())[1]).toBe(`School missing; make 3 Test balm, 50 g ${made}`);
    await reverseAct(db, cleared.actId, { day: DAY });
    // Once the first is packed, the other lacks no less.
    await packGiftOrder(db, { id, only: [] }, { day: DAY });
    expect(await stands()).toEqual([`School missing; pour 2 Test balm, 50 g ${made}; make 1 Test balm, 50 g ${made}`]);
  });
  it("what runs short for it is bought; what was bought and hasn't come is waited for; wrapping too", async () => {
    await ask(45, { boxes: 12 });
    const make40 = `make 40 Test balm, 50 g ${made}`;
    expect(await stands()).toEqual([`Choir missing; buy 5 Tin ${bought}; buy 2 Box ${addDays(DUE, -15)}; ${make40}`]);
    await receive(
      db,
      {
        ...{ supplier: "Mill", day: DAY, postage: euro(0) },
        lines: [{ materialId: ids.tin, supplierLot: "", packs: 1, arrived: 0, packSize: "3", qty: 3, price: euro(2), bestBefore: null }],
      },
      { day: DAY },
    );
    expect(await stands()).toEqual([`Choir missing; buy 2 Tin ${bought}; buy 2 Box ${addDays(DUE, -15)}; ${make40}; await 3 Tin ${made}`]);
    await buy(ids.tin, 5, 2);
    await buy(ids.box, 2, 1);
    expect(await stands()).toEqual([`Choir missing; ${make40}`]);
    expect(await stands(addDays(made, 1))).toEqual([`Choir late; ${make40}`]);
  });
  it("Today: from three weeks before the first of it has to be begun, soonest what presses most; the station counts it", async () => {
    await ask(45, { due: addDays(DAY, 60) });
    const first = addDays(DAY, 60 - 3 - 14);
    const onDay = async (day: string) => (await workItems(db, day)).filter((w) => w.station === "gifts");
    const counted = async (day: string) => (await waitingCounts(db, day))["/gifts"] ?? 0;
    expect([await onDay(addDays(first, -22)), await counted(addDays(first, -22))]).toEqual([[], 0]);
    expect(await onDay(addDays(first, -21))).toMatchObject([{ kind: "toMake", name: "Choir", amount: 45, begin: first, total: 1 }]);
    expect(await counted(addDays(first, -21))).toBe(1);
    await buy(ids.tin, 50, 20);
    // Made three days before: more than three weeks are left.
    expect([await onDay(addDays(first, -21)), await counted(addDays(first, -21))]).toEqual([[], 0]);
  });
});

describe("an oil made at home", () => {
  let infused: number;
  let herb: number;
  const jar = async (name = "Calendula oil") =>
    jarOf(
      [
        { role: "herb", materialId: herb, lotId: (await lotsOf(herb))[0]!.id, cut: "whole", qty: mg(10_000) },
        { role: "carrier", materialId: ids.oil, lotId: (await lotsOf(ids.oil))[0]!.id, cut: null, qty: mg(100_000) },
      ],
      { name, expected: mg(80_000) },
    );
  beforeEach(async () => {
    herb = idIn(await saveMaterial(db, { name: "Calendula", kind: "herb", densities: { dried: 60 } }, { day: DAY }));
    infused = idIn(await saveMaterial(db, { name: "Calendula oil", kind: "infusedOil", densities: {} }, { day: DAY }));
    await buy(herb, 500_000, 10);
    const lines = balm().lines.map((l) => (l.materialId === ids.oil ? { ...l, materialId: infused } : l));
    await saveRecipe(db, balm({ id: ids.recipe, lines, sizes: [size(50, { id: ids.product })] }), { day: DAY });
  });
  it("never steeped here it is bought; once there was a jar it is strained, and steeped again for the rest", async () => {
    await ask(15);
    const needs = 10 * 50_000;
    const [own] = await stands();
    const short = Number(/buy (\d+) Calendula oil/.exec(own!)![1]);
    expect(short).toBeGreaterThan(needs / 2);
    expect(own).toBe(`Choir missing; buy ${short} Calendula oil ${bought}; make 10 Test balm, 50 g ${made}`);
    expect(await lastSteeped(db, infused)).toMatchObject({ name: "Calendula oil", method: null, parts: [] });
    expect(await lastSteeped(db, ids.oil)).toBeNull();
    const filled = await fillJar(db, await jar(), { day: DAY });
    const steps = (await openOrders(db, DAY))[0]!.steps.map((s) => `${s.does} ${s.amount}`);
    expect(steps.sort()).toEqual([`fill ${short - 80_000}`, "make 10", "strain 80000"].sort());
    const last = (await lastSteeped(db, infused))!;
    expect([last.name, last.parts.map((p) => p.material.name).sort()]).toEqual(["Calendula oil", ["Calendula", "Oil"]]);
    await strainJar(
      db,
      { jarId: idIn(filled), back: mg(90_000), secondBack: null, sediment: mg(0), herbOut: null, pressed: false, bottles: [mg(90_000)] },
      { day: DAY },
    );
    expect((await openOrders(db, DAY))[0]!.steps.map((s) => `${s.does} ${s.amount}`).sort()).toEqual([`fill ${short - 90_000}`, "make 10"]);
    // A jar of something else gives none of it.
    await fillJar(db, await jar("Arnica oil"), { day: DAY });
    expect((await openOrders(db, DAY))[0]!.steps.map((s) => s.does).sort()).toEqual(["fill", "make"]);
  });
});
