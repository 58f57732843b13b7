/** Setting out, a batch's pages, the cabinet and Today as a browser opens and posts them, on the demo workshop. */
import { allocatedUnits } from "#db/cabinet/allocations";
import { listCabinet } from "#db/cabinet/cabinet";
import { readBatch } from "#db/bench/read";
import { listGiftOrders, saveGiftOrder } from "#db/gifts/gifts";
import { steepingJars } from "#db/jars/read";
import { findLot } from "#db/lots/trace";
import { readRecipes, type WrittenRecipe } from "#db/recipe/read";
import { retireRecipe } from "#db/recipe/keep";
import { workItems } from "#db/today/today";
import { batch, lot } from "#db/schema";
import { euro, expectLedgerTrue } from "#test/db/fresh";
import { addDays } from "#core/when";
import { desc, eq, gt } from "drizzle-orm";
import { beforeAll, describe, expect, it } from "vitest";
import { action as setOut, loader as openSetOut } from "#app/bench/settingOut/setOut.tsx";
import { action as sheet, loader as openSheet } from "#app/bench/batch.tsx";
import { loader as openAt } from "#app/bench/at/at.tsx";
import { action as takeOut, loader as cabinet } from "#app/cabinet/cabinet.tsx";
import { action as press, loader as today } from "#app/today/today.tsx";
import { loader as order } from "#app/gifts/order.tsx";
import { loader as orders } from "#app/gifts/gifts.tsx";
import { action as lotPage } from "#app/lots/lot.tsx";
import { DAY, db, newestAct, newestMovements, takeBackNewest, theDemo } from "../demo.ts";
import { load, post } from "../posting.ts";

theDemo();

let recipes: WrittenRecipe[];
const named = (name: string): WrittenRecipe => recipes.find((w) => w.recipe.name === name)!;
const answerOf = (page: Promise<unknown>) => page.catch((r: unknown) => r as Response) as Promise<Response>;
beforeAll(async () => {
  recipes = await readRecipes(db);
});

describe("setting out", () => {
  const salve = () => named("Meadowsweet garden salve");
  const asked = (over: object = {}) => ({
    recipe: String(salve().recipe.id),
    version: "",
    mode: "pots",
    weight: "",
    lot: "",
    units: ["5"],
    ...over,
  });
  const batches = async () => (await db.select({ id: batch.id }).from(batch)).length;

  it("opens with the recipe asked for, by the version asked for, and what else its address says", async () => {
    const id = salve().recipe.id;
    const page = await load(openSetOut, `/bench/set-out?recipe=${id}&size=${salve().sizes[0]!.id}&units=12&lot=31`);
    expect(page.chosen!.written.recipe).toMatchObject({ id, n: salve().recipe.n });
    expect(page).toMatchObject({ size: salve().sizes[0]!.id, units: "12", lot: "31", melt: null });
    expect(page.choices.map((c) => c.id).sort()).toEqual(recipes.map((w) => w.recipe.id).sort());
    const odd = await load(openSetOut, "/bench/set-out?recipe=9999&size=x&units=123456&lot=1e3&melt=4");
    expect(odd).toMatchObject({ size: 0, units: "", lot: "", melt: null });
    expect(odd.chosen!.written.recipe.id).toBe(odd.choices[0]!.id);
    const balm = named("Sea buckthorn hand balm");
    const versions = (await load(openSetOut, `/bench/set-out?recipe=${balm.recipe.id}`)).chosen!.versions;
    const older = await load(openSetOut, `/bench/set-out?recipe=${balm.recipe.id}&version=${versions.at(-1)!.n}`);
    expect(older.chosen!.written.recipe.n).toBe(versions.at(-1)!.n);
    // The newest one by its number is the newest one.
    expect((await load(openSetOut, `/bench/set-out?recipe=${balm.recipe.id}&version=${versions[0]!.n}`)).chosen!.written.recipe.n).toBe(
      versions[0]!.n,
    );
  });

  it.each<[string, object, string, string | RegExp]>([
    ["no recipe", { recipe: "" }, "recipe", "Enter how many recipes."],
    ["a recipe nobody has", { recipe: "9999" }, "recipe", "Choose a recipe."],
    ["a version there never was", { version: "77" }, "version", "Choose a version that still exists."],
    ["no units", { units: [""] }, "units.0", /./],
    ["half a unit", { units: ["1.5"] }, "units.0", /whole/],
    ["no weight", { mode: "grams", weight: "" }, "weight", /./],
    ["a weight that is none", { mode: "grams", weight: "a lot" }, "weight", /./],
    ["all of no lot", { mode: "lot", lot: "" }, "lot", /./],
    ["a size by the moon", { mode: "moon" }, "mode", /./],
    ["more than the shelf has", { units: ["900"] }, "units.0", /./],
  ])("%s is refused beside it, and nothing is set out", async (_, over, field, say) => {
    const before = await batches();
    const answer = await post(setOut, asked(over));
    expect(answer).toMatchObject({ status: 422 });
    if (field !== "units.0" || typeof say === "string") expect(answer.fields).toContain(field);
    if (typeof say === "string") expect(answer.say).toBe(say);
    else expect(answer.say).toMatch(say);
    expect(await batches()).toBe(before);
  });

  it("so many units, so many grams, or all of a lot: each is on its weigh sheet, out of the lots to use first", async () => {
    const { to } = await post(setOut, asked());
    const id = Number(/\d+/.exec(to)![0]);
    const b = (await readBatch(db, id))!;
    expect(b.sizes.map((s) => [s.productId, s.planned])).toEqual([[salve().sizes[0]!.id, 5]]);
    expect(b.takes.map((t) => t.materialId)).toEqual(expect.arrayContaining(salve().lines.map((l) => l.materialId)));
    expect((await load(openSheet, `/bench/${id}`, { id: String(id) })).sheet.batch.id).toBe(id);
    expect((await post(sheet, { intent: "clear" }, String(id))).status).toBe(302);
    // Cleared off the bench it has no sheet, and nothing to weigh.
    for (const page of [openSheet, openAt])
      expect((await answerOf(load(page as typeof openSheet, "/x", { id: String(id) }))).headers.get("location")).toBe("/bench");
    const grams = await post(setOut, asked({ mode: "grams", weight: "400 g" }));
    const weighed = (await readBatch(db, Number(/\d+/.exec(grams.to)![0])))!;
    expect(weighed.batch.plannedMg).toBe(400_000);
    expect(weighed.takes.reduce((a, t) => a + t.planned, 0)).toBe(400_000);
    await post(sheet, { intent: "clear" }, String(weighed.batch.id));
    for (const page of [openSheet, openAt]) expect((await answerOf(load(page as typeof openSheet, "/x", { id: "9999" }))).status).toBe(404);
  });

  it("melts a base in first: the recipe makes up the rest, and only the base that was asked for is ticked", async () => {
    const one = (await listCabinet(db)).find((l) => l.name === salve().recipe.name && l.onHand >= 2 && !l.hold)!;
    const melted = await post(lotPage, { intent: "meltDown", units: "2", weight: "", note: "grainy" }, { number: one.number });
    const base = (await findLot(db, melted.to.replace("/lots/", "")))!;
    const page = await load(openSetOut, `/bench/set-out?recipe=${salve().recipe.id}&melt=${base.id}`);
    expect(page.melt).toBe(base.id);
    expect(page.bases.map((b) => b.lotId)).toEqual([base.id]);
    const { to } = await post(setOut, asked({ melted: [{ lot: String(base.id), amount: "100 g" }] }));
    const b = (await readBatch(db, Number(/\d+/.exec(to)![0])))!;
    expect(b.takes.find((t) => t.lotId === base.id)!.planned).toBe(100_000);
    // At the bench it may be corrected with any of its recipe's materials that isn't in the pot.
    const bench = await load(openAt, "/x", { id: String(b.batch.id) });
    expect(bench.batch.id).toBe(b.batch.id);
    expect(await post(setOut, asked({ melted: [{ lot: String(base.id), amount: "much" }] }))).toMatchObject({
      fields: ["melted.0.amount"],
    });
    await post(sheet, { intent: "clear" }, String(b.batch.id));
  });
});

describe("the cabinet", () => {
  it("says of each product what is held, past its day, on its way, reserved and free; together they are all there is", async () => {
    const page = await load(cabinet, "/cabinet");
    const stands = await allocatedUnits(db, DAY);
    for (const [of, s] of page.stand) {
      const here = page.lots.filter((l) => l.of === of).reduce((a, l) => a + l.onHand, 0);
      const reserved = s.reserved.reduce((a, p) => a + p.units, 0);
      expect(s.held + s.expired + s.onTheWay + reserved + s.free, String(of)).toBe(here);
      expect([s.free, s.held, s.expired]).toEqual([stands.get(of)!.free, stands.get(of)!.held, stands.get(of)!.expired]);
    }
    expect(page.stand.some(([, s]) => s.reserved.length > 0)).toBe(true);
  });

  it("units are taken out for a reason of the list, and no more than there are", async () => {
    const one = (await listCabinet(db)).find((l) => !l.hold && l.onHand >= 2)!;
    const out = { lotId: String(one.id), units: "2", reason: "gift", note: "for the doctor" };
    expect(await post(takeOut, { ...out, reason: "magic" })).toMatchObject({ status: 422, fields: ["reason"] });
    expect(await post(takeOut, { ...out, units: "0" })).toMatchObject({ fields: ["units"], say: "Enter at least 1." });
    expect(await post(takeOut, { ...out, units: String(one.onHand + 1) })).toMatchObject({ status: 422, fields: ["units"] });
    const reason = "tester";
    const done = await post(takeOut, { ...out, reason });
    expect(done.status, done.say).toBe(302);
    expect(await newestMovements()).toMatchObject([{ lotId: one.id, qty: -2, reason, note: "for the doctor" }]);
    await takeBackNewest();
  });
});

describe("Today", () => {
  it("has what waits in its order, and a press does what the record's own sheet does", async () => {
    const page = await load(today, "/");
    const waits = await workItems(db, DAY);
    expect(page.waiting.map((w) => [w.kind, w.id])).toEqual(waits.map((w) => [w.kind, w.id]));
    const jars = (await steepingJars(db)).map((j) => j.jar.id);
    expect(await post(press, { does: "shake", id: "0", number: "", jars: jars.map(String) })).toMatchObject({ status: 302, to: "/" });
    expect((await newestAct()).kind).toBe("tend");
    expect(await post(press, { does: "sing", id: "0", number: "" })).toMatchObject({ status: 422, fields: ["does"] });
    await takeBackNewest();
  });

  it("takes all of a lot off the shelf: a material is wasted, a finished one damaged; what is gone can't be", async () => {
    const off = (number: string) => post(press, { does: "takeOff", id: "0", number });
    const unit = (await listCabinet(db)).find((l) => !l.hold && l.onHand > 0)!;
    expect(await off(unit.number)).toMatchObject({ status: 302, to: "/" });
    expect(await newestMovements()).toMatchObject([{ lotId: unit.id, qty: -unit.onHand, reason: "damaged", note: "past its day" }]);
    expect(await off(unit.number)).toMatchObject({ status: 422, say: `There is nothing left of ${unit.number}.` });
    await takeBackNewest();
    const [material] = await db
      .select()
      .from(lot)
      .where(gt(lot.onHand, 0 as never))
      .orderBy(lot.id)
      .limit(1);
    expect(await off(material!.number)).toMatchObject({ status: 302, to: "/" });
    expect(await newestMovements()).toMatchObject([
      { lotId: material!.id, qty: -material!.onHand, reason: "wasted", note: "past its day" },
    ]);
    await takeBackNewest();
    expect(await off("ZZ9")).toMatchObject({ status: 422, say: "There is nothing left of ZZ9." });
  });

  it("packs an order that could be packed, out of the lots to use first", async () => {
    const stands = await allocatedUnits(db, DAY);
    const [productId] = [...stands].find(([, s]) => s.free >= 2)!;
    const body = { customer: "Choir", due: addDays(DAY, 1), note: "", extra: euro(0), discountBp: 0, wrapMinutes: 0, wrapping: [] };
    const made = await saveGiftOrder(db, { ...body, items: [{ productId, units: 2, price: euro(9) }] }, { day: DAY });
    const id = Number(/\d+/.exec(made.path)![0]);
    const ready = await load(orders, "/gifts");
    expect(ready.rows.find((r) => r.id === id)).toMatchObject({
      standing: "ready",
      steps: [],
      packed: false,
      price: euro(18),
      items: expect.stringMatching(/^2 × /) as string,
    });
    expect(await post(press, { does: "pack", id: String(id), number: "" })).toMatchObject({ status: 302, to: "/" });
    expect((await listGiftOrders(db, [id]))[0]!.packedActId).toBe((await newestAct()).id);
    expect((await load(orders, "/gifts")).rows.find((r) => r.id === id)).toMatchObject({ standing: null, packed: true });
    expect(await post(press, { does: "pack", id: String(id), number: "" })).toMatchObject({ status: 422 });
    await takeBackNewest();
    await expectLedgerTrue(db);
  });

  it("an order that lacks something says on its sheet and in its list what is to be begun, and of a recipe put away that another is chosen", async () => {
    const w = named("Birch and juniper foot balm");
    const [size] = w.sizes;
    const body = { customer: "Band", due: addDays(DAY, 20), note: "", extra: euro(0), discountBp: 0, wrapMinutes: 0, wrapping: [] };
    const made = await saveGiftOrder(db, { ...body, items: [{ productId: size!.id, units: 60, price: euro(9) }] }, { day: DAY });
    const id = Number(/\d+/.exec(made.path)![0]);
    const steps = (await load(order, `/gifts/${id}`, { id: String(id) })).steps;
    expect(steps.map((s) => s.to)).toContainEqual(
      expect.stringMatching(`^/bench/set-out\\?recipe=${w.recipe.id}&size=${size!.id}&units=\\d+$`),
    );
    expect((await load(orders, "/gifts")).rows.find((r) => r.id === id)!.steps).toEqual(steps);
    expect((await load(today, "/")).waiting.find((x) => x.station === "gifts" && x.id === id)!.steps).toEqual(steps);
    await retireRecipe(db, { id: w.recipe.id, retired: true }, { day: DAY });
    expect((await load(order, `/gifts/${id}`, { id: String(id) })).steps[0]).toMatchObject({
      to: `/gifts/${id}`,
      what: expect.stringContaining("no longer made") as string,
    });
    const [last] = await db.select().from(batch).where(eq(batch.versionId, w.recipe.versionId)).orderBy(desc(batch.id)).limit(1);
    expect(last).toBeDefined();
  });
});
