/** A material's page, its facts, its offers and its name in a field, as a browser opens and posts them, on the demo workshop. */
import { listCabinet } from "#db/cabinet/cabinet";
import { offersOf, monthlyUse } from "#db/shelf/buying";
import { materialMovements, listMaterials, materialRow, readMaterial } from "#db/shelf/materials";
import { costRecipes } from "#db/recipe/costs";
import { cachedSettings } from "#db/settings/settings";
import { LIBRARY } from "#core/material/library";
import { euro } from "#test/db/fresh";
import { usedPerDay } from "#core/stock/reorder";
import { describe, expect, it } from "vitest";
import { action as act, loader as open } from "#app/shelf/materials/material.tsx";
import { action as add, loader as openNew } from "#app/shelf/materials/add.tsx";
import { action as change, loader as openFacts } from "#app/shelf/materials/facts.tsx";
import { action as offer, loader as buying } from "#app/shelf/buying/buying.tsx";
import { action as addNamed, loader as names } from "#app/names/names.ts";
import { loader as ask } from "#app/names/ask.ts";
import { walkShelf } from "#db/shelf/counting/stocktake";
import { factsText } from "#app/shelf/materials/factsText.ts";
import { DAY, db, idOf, newestAct, newestMovements, takeBackNewest, theDemo } from "../demo.ts";
import { load, post, statusOf } from "../posting.ts";

theDemo();

const page = (id: number) => load(open, `/shelf/${id}`, { id: String(id) });

describe("a material's page", () => {
  it("has its lots on hand, best before first, then the last used up; what moved, what it is used, and its facts", async () => {
    for (const name of ["Beeswax, yellow", "Sunflower oil, high oleic", "Screw tin, 80 mL"]) {
      const id = await idOf(name);
      const [found, moved] = [(await readMaterial(db, id))!, await materialMovements(db, id, 1000)];
      const p = await page(id);
      const live = p.lots.filter((l) => l.onHand > 0);
      expect(live.length, name).toBe(found.lots.filter((l) => l.onHand > 0).length);
      expect(p.lots.slice(0, live.length)).toEqual(live);
      const dates = live.map((l) => l.bestBefore ?? "9999");
      expect(dates).toEqual([...dates].sort());
      const gone = p.lots.slice(live.length).map((l) => l.arrived);
      expect(gone).toEqual([...gone].sort().reverse());
      expect(p.lots.length + p.older).toBe(found.lots.length);
      expect(p.movements.map((m) => m.id)).toEqual(moved.slice(0, 8).map((m) => m.id));
      expect(p.more).toBe(moved.length > 8);
      expect(p.reorder.perDay).toBe(usedPerDay((await monthlyUse(db, DAY, [id])).get(id) ?? [], DAY));
    }
    const tin = await page(await idOf("Screw tin, 80 mL"));
    const lidId = (await materialRow(db, tin.material.id))!.lidId;
    expect(tin.lid).toBe(lidId === null ? null : (await materialRow(db, lidId))!.name);
    expect(await statusOf(page(99_999))).toBe(404);
    expect(await statusOf(post(act, { intent: "open", lotId: 1 }, "99999"))).toBe(404);
  });

  it("a lot is opened, taken out of, counted; each moves what it says, and no other material's lot", async () => {
    const [id, wax] = [await idOf("Castor oil"), await idOf("Beeswax, yellow")];
    const [lot] = (await page(id)).lots;
    const lotId = lot!.id;
    expect(await post(act, { intent: "open", lotId }, String(wax))).toMatchObject({
      fields: [""],
      say: "That lot isn't of this material.",
    });
    expect((await post(act, { intent: "open", lotId }, String(id))).status).toBe(302);
    expect((await page(id)).lots.find((l) => l.id === lotId)!.opened).toBe(DAY);
    await takeBackNewest();
    const out = { intent: "takeOut", lotId, amount: "2 g", why: "wasted", note: "spilt" };
    expect(await post(act, { ...out, amount: "0 g" }, String(id))).toMatchObject({ fields: ["amount"], say: "Enter more than zero." });
    expect(await post(act, { ...out, amount: "some" }, String(id))).toMatchObject({ fields: ["amount"] });
    expect((await post(act, out, String(id))).status).toBe(302);
    expect(await newestMovements()).toMatchObject([{ lotId, qty: -2_000, reason: "wasted", note: "spilt" }]);
    const count = { intent: "count", lotId, expected: String(lot!.onHand - 2_000), counted: "1 g", reason: "misread" };
    expect(await post(act, { ...count, counted: "few" }, String(id))).toMatchObject({ status: 422, fields: ["counted"] });
    expect(await post(act, count, String(wax))).toMatchObject({ fields: ["counted"], say: "That lot isn't of this material." });
    expect(await post(act, { ...count, expected: String(lot!.onHand) }, String(id))).toMatchObject({ fields: ["counted"] });
    expect((await post(act, count, String(id))).status).toBe(302);
    expect((await page(id)).lots.find((l) => l.id === lotId)!.onHand).toBe(1_000);
    await takeBackNewest();
    // What came with a receipt costs what that says.
    const cost = { intent: "cost", lotId, cost: "9", known: "paid" };
    expect(await post(act, { ...cost, cost: "" }, String(id))).toMatchObject({ fields: ["cost"] });
    expect(await post(act, cost, String(wax))).toMatchObject({ fields: ["cost"], say: "That lot isn't of this material." });
    expect(await post(act, cost, String(id))).toMatchObject({
      fields: ["cost"],
      say: "Its cost is on its receipt. Correct the receipt instead.",
    });
  });
});

describe("facts", () => {
  it("a new material may be like another; what is typed is what is kept, and a changed one shows both windows", async () => {
    const castor = await idOf("Castor oil");
    const start = await load(openNew, `/shelf/new?like=${castor}`);
    expect(start.like).toMatchObject({ id: castor, name: "Castor oil" });
    expect((await load(openNew, "/shelf/new?like=99999")).like).toBeNull();
    expect((await load(openNew, "/shelf/new")).like).toBeNull();
    expect(start.lids.map((l) => l.name)).toContain("Lid for amber jar");
    const typed = {
      ...factsText(start.like, start.lids),
      name: "Castor oil, pale",
      keepsSealed: "24",
      keepsOpened: "9",
      refined: "refined",
    };
    expect(await post(add, { ...typed, keepsOpened: "25" })).toMatchObject({
      fields: ["keepsOpened"],
      say: "Opened, it can't keep longer than unopened.",
    });
    expect(await post(add, { ...typed, name: "castor oil" })).toMatchObject({ status: 422, fields: ["name"] });
    const { to } = await post(add, typed);
    const id = Number(/\d+/.exec(to)![0]);
    const facts = await load(openFacts, `/shelf/${id}/facts`, { id: String(id) });
    expect(factsText(facts.material, facts.lids)).toEqual(typed);
    expect(facts.locked).toBe(false);
    expect((await load(openFacts, "/x", { id: String(castor) })).locked).toBe(true);
    const { seen } = facts.opened;
    expect((await post(change, { ...typed, note: "thick", seen }, String(id))).status).toBe(302);
    const late = await post(change, { ...typed, note: "thin", seen }, String(id));
    expect(late).toMatchObject({ status: 409, data: { changed: { theirs: { note: "thick", name: "Castor oil, pale" } } } });
    expect(await statusOf(load(openFacts, "/x", { id: "99999" }))).toBe(404);
  });
});

describe("offers", () => {
  it("are noted in the material's own measure, are there beside what was paid, and are forgotten", async () => {
    const id = await idOf("Castor oil");
    const noted = { intent: "offer", supplier: "Far Shore", packSize: "1 L", price: "14.50", postage: "" };
    expect(await post(offer, { ...noted, packSize: "a jug" }, String(id))).toMatchObject({ status: 422, fields: ["packSize"] });
    expect(await post(offer, { ...noted, price: "" }, String(id))).toMatchObject({ fields: ["price"] });
    const before = (await offersOf(db, [id])).length;
    expect((await post(offer, noted, String(id))).status).toBe(302);
    const density = (await materialRow(db, id))!.densities.liquid!;
    const seen = (await load(buying, `/shelf/${id}/buying`, { id: String(id) })).offers;
    const ours = seen.find((o) => o.supplier === "Far Shore")!;
    expect(ours).toMatchObject({ packSize: "1 L", price: euro(14.5), postage: 0, qty: density * 1000, seen: DAY });
    expect(await post(offer, { intent: "drop", offer: "99999" }, String(id))).toMatchObject({ status: 422 });
    expect((await post(offer, { intent: "drop", offer: String(ours.id) }, String(id))).status).toBe(302);
    expect((await offersOf(db, [id])).length).toBe(before);
    expect(await statusOf(load(buying, "/x", { id: "99999" }))).toBe(404);
    expect(await statusOf(post(offer, noted, "99999"))).toBe(404);
  });

  it("what one unit of a product has of it is its part of the batch, in grams and in money", async () => {
    const settings = await cachedSettings(db);
    const all = await costRecipes(db, settings, DAY);
    for (const name of ["Beeswax, yellow", "Screw tin, 80 mL"]) {
      const id = await idOf(name);
      const { products, perDay } = await load(buying, `/shelf/${id}/buying`, { id: String(id) });
      expect(perDay).toBe(usedPerDay((await monthlyUse(db, DAY, [id])).get(id) ?? [], DAY));
      const having = all.flatMap((c) =>
        c.sizes.filter((s) => [...c.lines, ...s.packaging].some((l) => l.materialId === id)).map((s) => s.id),
      );
      // A recipe that takes it shows all its sizes, also one that isn't packed in it.
      expect(
        products
          .filter((p) => p.need > 0)
          .map((p) => p.id)
          .sort(),
      ).toEqual(having.sort());
      for (const p of products) {
        const c = all.find((x) => x.recipe.id === p.recipeId)!;
        const size = c.sizes.find((s) => s.id === p.id)!;
        const weighed = c.lines.reduce((a, l) => a + (l.materialId === id ? l.weight : 0), 0);
        const pieces = size.packaging.reduce((a, l) => a + (l.materialId === id ? l.pieces : 0), 0);
        expect(p.need, p.name).toBe(weighed + pieces * size.cost.units);
        const parts = [...size.cost.lines, ...size.cost.packaging].filter((_, i) => [...c.lines, ...size.packaging][i]!.materialId === id);
        const whole = parts.reduce((a, x) => a + x.cost[settings.school]!, 0);
        expect(Math.abs(p.share - whole / size.cost.units)).toBeLessThanOrEqual(0.5);
        expect(p.unit).toBe(size.cost.perUnit[settings.school]!.total);
      }
    }
  });
});

describe("the field for names", () => {
  const named = (of: string) => load(names, `/names/${of}`, { of });

  it("materials: what is on hand first, with its lots and cost; the library's are those the shelf hasn't", async () => {
    const all = await listMaterials(db);
    const { names: found, library } = await named("material");
    expect(found.map((n) => n.name).sort()).toEqual(all.map((m) => m.name).sort());
    const onHand = new Map<number, number>();
    for (const l of await walkShelf(db)) onHand.set(l.materialId, (onHand.get(l.materialId) ?? 0) + l.onHand);
    for (const n of found) {
      const m = all.find((x) => x.name === n.name)!;
      expect([n.name, n.first, n.kind]).toEqual([m.name, onHand.has(m.id), m.kind]);
      if (!onHand.has(m.id)) expect([n.aside, n.about]).toEqual(["none here", expect.not.stringContaining("lot")]);
    }
    expect(found.find((n) => n.name === "Beeswax, yellow")).toMatchObject({
      also: expect.stringMatching(/\S/) as string,
      aside: expect.stringMatching(/^[\d.,]+ k?g$/) as string,
      about: expect.stringMatching(/^\d lots?, €[\d.]+\/kg$/) as string,
    });
    const there = new Set(all.map((m) => m.name.toLowerCase()));
    expect(library.map((l) => l.key)).toEqual(LIBRARY.filter((e) => !there.has(e.name.toLowerCase())).map((e) => e.key));
  });

  it("products with what is free, oils with their best-before, people with how often, and nothing else", async () => {
    const free = new Map<number, number>();
    for (const l of await listCabinet(db)) free.set(l.of, (free.get(l.of) ?? 0) + l.onHand);
    const products = (await named("product")).names;
    expect(products.length).toBeGreaterThan(7);
    for (const p of products) expect(p.first, p.name).toBe(!p.aside!.startsWith("0 "));
    const oils = (await named("oilLot")).names;
    expect(oils.length).toBeGreaterThan(2);
    expect(oils.every((o) => / g$|kg$/.test(o.aside!))).toBe(true);
    expect(oils[0]!.about).toMatch(/^best before \d+ \w+/);
    const suppliers = (await named("supplier")).names;
    expect(suppliers.every((s) => /^\d+ times?/.test(s.about!))).toBe(true);
    for (const s of suppliers) expect(s.aside === "new", s.name).toBe(s.about!.startsWith("0 times"));
    for (const of of ["jar", "toString", ""]) {
      expect(await statusOf(Promise.resolve().then(() => named(of)))).toBe(404);
      expect(await statusOf(load(ask, "/named/x?name=a", { of: of || "x" }).then(() => 0))).toBe(of === "jar" ? 200 : 404);
    }
  });

  it("a missing one is added from the library, several at once, or by its name and kind; the answer is its name", async () => {
    const of = { of: "material" };
    const [one, two, three] = (await named("material")).library;
    expect(await post(addNamed, { key: one!.key }, of)).toMatchObject({ status: 200, data: { added: one!.name } });
    expect(await post(addNamed, { keys: [two!.key, three!.key] }, of)).toMatchObject({ data: { added: two!.name } });
    expect(await idOf(three!.name)).toBeGreaterThan(0);
    expect(await post(addNamed, { keys: [two!.key, "no such"] }, of)).toMatchObject({
      status: 422,
      say: "The library hasn't got that any more.",
    });
    expect(await post(addNamed, { name: "", kind: "oil" }, of)).toMatchObject({ fields: ["name"], say: "Enter a name." });
    expect(await post(addNamed, { name: "Sloe oil", kind: "moon" }, of)).toMatchObject({ fields: ["kind"] });
    const tin = { name: "Tall tin", kind: "container", brimMl: "62.5", emptyG: "11.2" };
    expect(await post(addNamed, { ...tin, brimMl: "20001" }, of)).toMatchObject({
      fields: ["brimMl"],
      say: "Enter 0 to 20000 millilitres.",
    });
    expect(await post(addNamed, tin, of)).toMatchObject({ status: 200, data: { added: "Tall tin" } });
    expect(await materialRow(db, await idOf("Tall tin"))).toMatchObject({ kind: "container", brimMl: 62.5, emptyMg: 11_200 });
    expect(await post(addNamed, tin, of)).toMatchObject({ status: 422 });
    await post(addNamed, { name: "Sloe oil", kind: "oil" }, of);
    expect(await materialRow(db, await idOf("Sloe oil"))).toMatchObject({
      brimMl: null,
      emptyMg: null,
      densities: { liquid: expect.any(Number) as number },
    });
    expect((await newestAct()).kind).toBe("saveMaterial");
    expect(await statusOf(post(addNamed, tin, { of: "product" }))).toBe(404);
  });
});
