/** Recipes and sizes put away, taken out, copied and deleted; and sheets that are only tried. */
import { Refused } from "#core/refused";
import { sql } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import { DryRunPassed } from "../act/define.ts";
import { reverseAct } from "../acts/reverse.ts";
import { listCabinet } from "../cabinet/cabinet.ts";
import { choosePrices } from "../prices/prices.ts";
import { moveOut } from "../shelf/lots.ts";
import { euro } from "#test/db/fresh";
import { balm, DAY, db, eachTestHasAWorkshop, idIn, ids, lotsOf, make, onHand, put, refused, size, token } from "#test/db/workshop";
import { workItems } from "../today/today.ts";
import { deleteProduct, deleteRecipe, retireProduct, retireRecipe } from "./keep.ts";
import { firmnessLearned, firmnessTestsOf, noteFirmness } from "./firmness.ts";
import { batchesOf, versionsOf } from "./history.ts";
import { listProducts, readRecipes, readVersion, readWhole, recipesAway } from "./read.ts";
import { saveRecipe } from "./save.ts";

eachTestHasAWorkshop();

const doing = { day: DAY };
const names = async () => (await readRecipes(db)).map((w) => w.recipe.name);

describe("recipes", () => {
  it("put away are offered nowhere and can't be set out; what there is of them is still there; brought back, all is as before", async () => {
    const before = await readRecipes(db);
    const away = await retireRecipe(db, { id: ids.recipe, retired: true }, doing);
    expect([await names(), (await recipesAway(db)).map((r) => r.name)]).toEqual([[], ["Test balm"]]);
    expect((await listProducts(db)).map((p) => [p.retired, p.away])).toEqual([[true, false]]);
    expect((await workItems(db, DAY)).map((w) => w.kind)).not.toContain("unpriced");
    expect((await refused(put(2)))[0]!.say).toMatch(/put away/);
    expect((await listCabinet(db)).map((l) => [l.name, l.onHand, l.retired])).toEqual([["Test balm", 5, true]]);
    await reverseAct(db, away.actId, doing);
    expect(await readRecipes(db)).toEqual(before);
    await make(1);
  });

  it("never made are deleted whole and come back whole; made, priced or ordered they stay", async () => {
    const [why] = await refused(deleteRecipe(db, { id: ids.recipe }, doing));
    expect(why!.say).toMatch(/can't be deleted: it is in .*finished lot.* and .*batch/);
    const made = idIn(await saveRecipe(db, balm({ name: "Draft", code: "DR", sizes: [size(30), size(60)] }), doing));
    await saveRecipe(db, balm({ id: made, name: "Draft", code: "DR", lossBp: 100, sizes: [size(30), size(60)] }), doing);
    const was = await readWhole(db, made);
    const gone = await deleteRecipe(db, { id: made }, doing);
    expect(await readWhole(db, made)).toBeNull();
    await reverseAct(db, gone.actId, doing);
    expect(await readWhole(db, made)).toEqual(was);
    // Another has its letters by then.
    const again = await deleteRecipe(db, { id: made }, doing);
    await saveRecipe(db, balm({ name: "Other", code: "DR" }), doing);
    expect((await refused(reverseAct(db, again.actId, doing)))[0]!.say).toMatch(/lot letters/);
  });

  it("sizes: the unused goes and comes back, the used is put away, the only one stays", async () => {
    await saveRecipe(db, balm({ id: ids.recipe, sizes: [{ ...size(50), id: ids.product }, size(100)] }), doing);
    const large = (await readRecipes(db, [ids.recipe]))[0]!.sizes.find((s) => s.fill === 100_000)!.id;
    expect((await refused(deleteProduct(db, { id: ids.product }, doing)))[0]!.say).toMatch(/finished lot/);
    const gone = await deleteProduct(db, { id: large }, doing);
    expect((await readRecipes(db, [ids.recipe]))[0]!.sizes).toHaveLength(1);
    await reverseAct(db, gone.actId, doing);
    expect((await readRecipes(db, [ids.recipe]))[0]!.sizes.map((s) => s.id)).toEqual([ids.product, large]);
    await choosePrices(db, { productId: large, own: null, prices: { market: euro(12) } }, doing);
    expect((await refused(deleteProduct(db, { id: large }, doing)))[0]!.say).toMatch(/1 price/);
    const away = await retireProduct(db, { id: large, retired: true }, doing);
    expect((await readRecipes(db, [ids.recipe]))[0]!.sizes.map((s) => s.id)).toEqual([ids.product]);
    await reverseAct(db, away.actId, doing);
    const only = idIn(await saveRecipe(db, balm({ name: "One", code: "ON" }), doing));
    const [one] = (await readRecipes(db, [only]))[0]!.sizes;
    expect((await refused(deleteProduct(db, { id: one!.id }, doing)))[0]!.say).toMatch(/only size/);
  });
});

describe("versions", () => {
  const save = (over: Parameters<typeof balm>[0]) =>
    saveRecipe(db, balm({ id: ids.recipe, sizes: [{ ...size(50), id: ids.product }], ...over }), doing);
  const now = async () => (await readWhole(db, ids.recipe))!.recipe;
  it("an answer stays with its version and makes no other; taken back, it is as it was; who it is for does make one", async () => {
    const known = await save({ answers: { "set.soft": "for my mother" } });
    expect([(await now()).n, (await now()).answers]).toEqual([1, { "set.soft": "for my mother" }]);
    await reverseAct(db, known.actId, doing);
    expect((await now()).answers).toEqual({});
    await save({ answers: { "set.soft": "again" } });
    const children = await save({ forWhom: "children", usedOn: "spot", answers: {} });
    expect([(await now()).n, (await now()).forWhom, (await now()).answers]).toEqual([2, "children", {}]);
    expect((await readVersion(db, ids.recipe, 1))!.recipe).toMatchObject({ n: 1, forWhom: "anyone", answers: { "set.soft": "again" } });
    await reverseAct(db, children.actId, doing);
    expect([(await now()).n, await readVersion(db, ids.recipe, 2), (await versionsOf(db, ids.recipe)).map((v) => v.n)]).toEqual([
      1,
      null,
      [1],
    ]);
  });
  it("what a finger said teaches the workshop, holds its recipe, and is taken back", async () => {
    const felt = (feel: "firm" | "scoops") =>
      noteFirmness(db, { recipeId: ids.recipe, n: 1, day: DAY, celsius: 20, feel, note: "" }, doing);
    expect((await firmnessLearned(db)).tests).toBe(0);
    const first = await felt("scoops");
    await felt("scoops");
    // A fifth of it is wax: the trade's figures call that firm, this workshop's hands don't.
    const learned = await firmnessLearned(db);
    expect([learned.tests, learned.rightBefore, learned.constants.wax < 1]).toEqual([2, 0, true]);
    expect((await firmnessTestsOf(db, ids.recipe)).map((t) => [t.n, t.feel, t.celsius])).toEqual([
      [1, "scoops", 20],
      [1, "scoops", 20],
    ]);
    expect(
      (await refused(noteFirmness(db, { recipeId: ids.recipe, n: 9, day: DAY, celsius: 20, feel: "firm", note: "" }, doing)))[0]!.say,
    ).toMatch(/version/);
    await reverseAct(db, first.actId, doing);
    expect((await firmnessLearned(db)).tests).toBe(1);
    const fresh = idIn(await saveRecipe(db, balm({ name: "Felt", code: "FE" }), doing));
    const only = await noteFirmness(db, { recipeId: fresh, n: 1, day: DAY, celsius: 20, feel: "firm", note: "" }, doing);
    expect((await refused(deleteRecipe(db, { id: fresh }, doing)))[0]!.say).toMatch(/1 note of its firmness/);
    await reverseAct(db, only.actId, doing);
    await deleteRecipe(db, { id: fresh }, doing);
  });
  it("a row that was left before a column was there is put back with what that starts from", async () => {
    const made = idIn(await saveRecipe(db, balm({ name: "Old", code: "OL" }), doing));
    const gone = await deleteRecipe(db, { id: made }, doing);
    await db.execute(sql`alter table act disable trigger all`);
    await db.execute(
      sql`update act set leaves = jsonb_set(leaves, '{left,versions}', (select jsonb_agg(v - 'usedOn' - 'forWhom' - 'answers') from jsonb_array_elements(leaves->'left'->'versions') v)) where id = ${gone.actId}`,
    );
    await db.execute(sql`alter table act enable trigger all`);
    await reverseAct(db, gone.actId, doing);
    expect((await readWhole(db, made))!.recipe).toMatchObject({ usedOn: "", forWhom: "anyone", answers: {} });
  });
  it("each batch is told with the version it was made from and what came of it", async () => {
    await save({ lossBp: 300, note: "more stays in the pot" });
    const second = await make(3);
    const found = await batchesOf(db, ids.recipe);
    expect(found.map((b) => [b.n, b.poured, b.sizes.map((s) => s.units)])).toEqual([
      [2, true, [3]],
      [1, true, [5]],
    ]);
    expect(found[0]!.id).toBe(idIn(second));
    expect((await versionsOf(db, ids.recipe)).map((v) => [v.n, v.note, v.batches])).toEqual([
      [2, "more stays in the pot", 1],
      [1, "", 1],
    ]);
  });
});

describe("a sheet that is only tried", () => {
  const state = async () =>
    (
      await db.execute(
        sql`select (select count(*) from act) a, (select count(*) from movement) m, (select count(*) from recipe) r, (select sum(on_hand) from lot) q`,
      )
    ).rows[0];
  it("says what would be refused or that it could be done, keeps nothing, and can be done afterwards with the same token", async () => {
    const [lot] = await lotsOf(ids.oil);
    const out = (amount: number) => ({ lotId: lot!.id, amount, reason: "wasted" as const, note: "" });
    const once = token();
    const before = await state();
    await expect(moveOut(db, out(9e9), { ...doing, token: once, dryRun: true })).rejects.toThrow(Refused);
    await expect(moveOut(db, out(1000), { ...doing, token: once, dryRun: true })).rejects.toThrow(DryRunPassed);
    await expect(saveRecipe(db, balm({ name: "New", code: "NW" }), { ...doing, dryRun: true })).rejects.toThrow(DryRunPassed);
    expect(await state()).toEqual(before);
    const there = await onHand(ids.oil);
    await moveOut(db, out(1000), { ...doing, token: once });
    expect(await onHand(ids.oil)).toBe(there - 1000);
    // Done already: trying says nothing else and does nothing again.
    await expect(moveOut(db, out(5), { ...doing, token: once, dryRun: true })).rejects.toThrow(DryRunPassed);
    expect(await onHand(ids.oil)).toBe(there - 1000);
  });
});
