/** A lot's page as a browser opens and posts it, on the demo workshop: hold, count, returns, melting down, the supplier's limit. */
import { listCabinet } from "#db/cabinet/cabinet";
import { outAt } from "#db/ledger/out";
import { findLot } from "#db/lots/trace";
import { listMaterials } from "#db/shelf/materials";
import { walkShelf } from "#db/shelf/counting/stocktake";
import { expectLedgerTrue } from "#test/db/fresh";
import { describe, expect, it } from "vitest";
import { action, loader } from "#app/lots/lot.tsx";
import { loader as uses } from "#app/lots/uses.ts";
import { DAY, db, newestMovements, takeBackNewest, theDemo } from "../demo.ts";
import { load, post } from "../posting.ts";

theDemo();

/** Posts to the page of the lot of that number. */
const postTo = (number: string, body: object) => post(action, body, { number });
const open = (number: string) => load(loader, `/lots/${number}`, { number });
const finished = async () => (await listCabinet(db)).find((l) => !l.hold && l.onHand >= 4 && l.bestBefore! > DAY)!;
const lotOf = async (name: string) => {
  const of = (await listMaterials(db)).find((m) => m.name === name)!;
  return (await walkShelf(db)).find((l) => l.materialId === of.id)!;
};

describe("opened", () => {
  it("a finished lot has its cost, its whole trace and where it went; a number typed small leads there too", async () => {
    const { number, id, onHand } = await finished();
    const page = await open(number.toLowerCase());
    expect(page.lot).toMatchObject({ id, number, onHand });
    expect(page.cost).toMatchObject({ worked: true });
    expect(page.cost!.materials).toBeGreaterThan(0);
    expect(page.outAt).toEqual(await outAt(db, id));
    expect(page.from).toBeNull();
  });

  it("a material's lot has no cost of a unit, and nobody has units of it", async () => {
    const { number } = await lotOf("Beeswax, yellow");
    expect(await open(number)).toMatchObject({ cost: null, outAt: [], from: null });
  });

  it("a number that is no lot's leads to looking it up, with what was typed", async () => {
    const answer = await open("ZZ 9").catch((r: unknown) => r as Response);
    expect((answer as Response).headers.get("location")).toBe("/lots?number=ZZ%209");
    for (const page of [uses, action]) {
      const gone = await load(page as typeof uses, "/x", { number: "ZZ9" }).catch((r: unknown) => r as Response);
      expect((gone as Response).status).toBe(404);
    }
  });
});

describe("hold", () => {
  it("is put with its reason, is there when the page is opened again, and is lifted", async () => {
    const { number } = await finished();
    expect(await postTo(number, { intent: "hold", reason: " " })).toMatchObject({ fields: ["reason"], say: "Enter why it is on hold." });
    expect(await postTo(number, { intent: "hold", reason: "smells of paint" })).toMatchObject({ status: 302, to: `/lots/${number}` });
    expect((await open(number)).lot.holdReason).toBe("smells of paint");
    expect(await postTo(number, { intent: "hold", reason: "smells of paint" })).toMatchObject({
      status: 422,
      fields: ["reason"],
      say: "It is on hold for that already.",
    });
    expect((await postTo(number, { intent: "release" })).status).toBe(302);
    expect((await open(number)).lot.holdReason).toBeNull();
    expect(await postTo(number, { intent: "release" })).toMatchObject({ fields: ["reason"], say: "That lot isn't on hold." });
  });
});

describe("a count in the cabinet", () => {
  it("writes what was counted with its reason; the same number, a stale one and a material's lot are refused", async () => {
    const { number, id, onHand } = await finished();
    const count = { intent: "count", expected: String(onHand), counted: String(onHand - 1), reason: "one behind the others" };
    expect(await postTo(number, { ...count, reason: "" })).toMatchObject({ fields: ["reason"], say: "Enter why it differs." });
    expect(await postTo(number, { ...count, counted: "" })).toMatchObject({ fields: ["counted"], say: "Enter how many units." });
    expect(await postTo(number, { ...count, counted: String(onHand) })).toMatchObject({
      fields: ["counted"],
      say: "That is what the shelf says already.",
    });
    expect(await postTo(number, { ...count, expected: "0" })).toMatchObject({ fields: ["counted"] });
    expect((await postTo(number, count)).status).toBe(302);
    expect((await open(number)).lot.onHand).toBe(onHand - 1);
    expect(await newestMovements()).toMatchObject([
      { lotId: id, qty: -1, reason: "counted", note: "one behind the others", countedTo: onHand - 1 },
    ]);
    const wax = await lotOf("Beeswax, yellow");
    expect(await postTo(wax.number, { ...count, expected: "0", counted: "1" })).toMatchObject({
      fields: ["counted"],
      say: "A material is counted on its own page, or at a stock-take.",
    });
    await takeBackNewest();
    expect((await open(number)).lot.onHand).toBe(onHand);
  });
});

describe("what comes back", () => {
  const soldAt = async () => {
    for (const l of await listCabinet(db)) {
      const there = (await outAt(db, l.id)).find((o) => o.dayId !== null && o.units >= 2);
      if (there) return { ...there, number: l.number, id: l.id, onHand: l.onHand };
    }
    throw new Error("nothing of the demo was sold");
  };

  it("is on the shelf again by its market day, at what it cost, and no more of it than went", async () => {
    const { number, id, dayId, units, onHand } = await soldAt();
    const back = { intent: "cameBack", units: "2", fate: "kept", from: `day ${dayId}`, note: "a dent" };
    for (const from of ["", "moon 1", "day 0", "day", "order x"])
      expect(await postTo(number, { ...back, from }), from).toMatchObject({ fields: ["from"], say: "Say whom it came back from." });
    expect(await postTo(number, { ...back, fate: "eaten" })).toMatchObject({ fields: ["fate"] });
    expect(await postTo(number, { ...back, units: "0" })).toMatchObject({ fields: ["units"], say: "Enter at least 1." });
    expect(await postTo(number, { ...back, note: "" })).toMatchObject({ fields: ["note"] });
    expect(await postTo(number, { ...back, units: String(units + 1) })).toMatchObject({ status: 422 });
    expect((await postTo(number, back)).status).toBe(302);
    expect(await newestMovements()).toMatchObject([
      { lotId: id, qty: 2, reason: "cameBack", note: "a dent", backFromDayId: dayId, backFromOrderId: null },
    ]);
    const page = await open(number);
    expect(page.lot.onHand).toBe(onHand + 2);
    expect(page.outAt.find((o) => o.dayId === dayId)?.units ?? 0).toBe(units - 2);
    await takeBackNewest();
  });

  it("by an order it is the order's, thrown away it isn't on the shelf, and what nobody was given can't come back", async () => {
    let of: { number: string; orderId: number; id: number } | undefined;
    for (const l of await listCabinet(db)) {
      const there = (await outAt(db, l.id)).find((o) => o.orderId !== null);
      if (there) of ??= { number: l.number, orderId: there.orderId!, id: l.id };
    }
    const { number, orderId, id } = of!;
    const before = (await open(number)).lot.onHand;
    const back = { intent: "cameBack", units: "1", fate: "thrown", from: `order ${orderId}`, note: "leaked" };
    expect(await postTo(number, { ...back, from: "hand" })).toMatchObject({ fields: ["from"], say: "None of it is out there." });
    expect((await postTo(number, back)).status).toBe(302);
    expect(await newestMovements()).toMatchObject([
      { lotId: id, qty: 1, reason: "cameBack", backFromOrderId: orderId, backFromDayId: null },
      { lotId: id, qty: -1, reason: "damaged", note: "leaked" },
    ]);
    expect((await open(number)).lot.onHand).toBe(before);
    await expectLedgerTrue(db);
  });
});

describe("melting down", () => {
  it("an empty weight is as filled; more than they held is refused; the base knows its recipe", async () => {
    const { number, id } = await finished();
    const { fill } = (await findLot(db, number))!;
    const melt = { intent: "meltDown", units: "2", weight: "", note: "grainy" };
    expect(await postTo(number, { ...melt, note: "" })).toMatchObject({ fields: ["note"], say: "Enter why it is melted down." });
    expect(await postTo(number, { ...melt, units: "" })).toMatchObject({ fields: ["units"] });
    expect(await postTo(number, { ...melt, weight: "9 kg" })).toMatchObject({ fields: ["weight"] });
    expect(await postTo(number, { ...melt, weight: "much" })).toMatchObject({ fields: ["weight"] });
    const { to } = await postTo(number, melt);
    const base = await open(to.replace("/lots/", ""));
    expect(base.lot).toMatchObject({ kind: "base", onHand: 2 * fill! });
    expect(base.from).not.toBeNull();
    expect(await newestMovements()).toMatchObject([{ lotId: id, qty: -2 }, { qty: 2 * fill! }]);
    await takeBackNewest();
    expect((await postTo(number, { ...melt, weight: "50 g" })).status).toBe(302);
    expect((await newestMovements())[1]).toMatchObject({ qty: 50_000 });
  });
});

describe("the supplier's limit of a scent", () => {
  it("is kept in per cent, 0 is none at all, empty strikes it out; two windows are told of each other", async () => {
    const { number } = await lotOf("Lavender essential oil");
    const limit = { intent: "scentMost", most: "0.5" };
    expect(await postTo(number, { ...limit, most: "101" })).toMatchObject({ fields: ["most"], say: "Enter 0 to 100 per cent." });
    expect(await postTo(number, { ...limit, most: "" })).toMatchObject({ fields: ["most"], say: "Enter the per cent its paper allows." });
    const seen = (await open(number)).opened.seen;
    expect((await postTo(number, { ...limit, seen })).status).toBe(302);
    expect((await findLot(db, number))!.scentMostPpm).toBe(5_000);
    const late = await postTo(number, { ...limit, most: "0.7", seen });
    expect(late).toMatchObject({ status: 409, data: { changed: { theirs: { most: "0.5" } } } });
    const now = (await open(number)).opened.seen;
    expect((await postTo(number, { ...limit, most: "0", seen: now })).status).toBe(302);
    expect((await findLot(db, number))!.scentMostPpm).toBe(0);
    expect((await postTo(number, { ...limit, most: "", seen: (await open(number)).opened.seen })).status).toBe(302);
    expect((await findLot(db, number))!.scentMostPpm).toBeNull();
    const wax = await lotOf("Beeswax, yellow");
    expect(await postTo(wax.number, limit)).toMatchObject({
      fields: ["most"],
      say: "Only an essential oil or a fragrance has such a limit.",
    });
  });
});
