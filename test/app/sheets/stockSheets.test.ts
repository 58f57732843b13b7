/** Receipts, opening stock, stock-takes, jars and what is put away, as a browser opens and posts them, on the demo workshop. */
import { readAct } from "#db/acts/book";
import { jarStuffOf } from "#db/jars/jarStuff";
import { oilLots, readJar, steepingJars, pastJars } from "#db/jars/read";
import { listMaterials, materialRow, readMaterial } from "#db/shelf/materials";
import { listReceipts, readReceipt } from "#db/shelf/receipts/receipts";
import { notedSoFar, walkShelf } from "#db/shelf/counting/stocktake";
import { lotsOfMaterials } from "#db/ledger/lots";
import { contactsOf } from "#db/contacts/contacts";
import { readRecipes } from "#db/recipe/read";
import { LIBRARY } from "#core/material/library";
import { KIND_IDS } from "#core/material/kinds";
import { euro, expectLedgerTrue } from "#test/db/fresh";
import { describe, expect, it } from "vitest";
import { action as receive, loader as openReceive } from "#app/shelf/receipts/receive.tsx";
import { action as correct, loader as openCorrect } from "#app/shelf/receipts/correct.tsx";
import { loader as openReceipt } from "#app/shelf/receipts/receipt.tsx";
import { loader as fileOf } from "#app/shelf/receipts/file.tsx";
import { action as opening, loader as openOpening } from "#app/shelf/opening/opening.tsx";
import { action as stockTake, loader as openTake } from "#app/shelf/counting/stockTake.tsx";
import { action as noted } from "#app/shelf/counting/noted.ts";
import { action as blend } from "#app/jars/blend.tsx";
import { action as fill, loader as openFill } from "#app/jars/fill.tsx";
import { action as tend, loader as openJar } from "#app/jars/jar.tsx";
import { loader as label } from "#app/jars/label.tsx";
import { action as jarPhoto } from "#app/jars/photo.ts";
import { action as batchPhoto } from "#app/bench/photo.ts";
import { action as away } from "#app/away/away.ts";
import { action as takeBack } from "#app/book/takeBack.ts";
import { loader as openAct } from "#app/book/act.tsx";
import { action as contact, loader as openContact } from "#app/people/contact.tsx";
import { DAY, db, idOf, newestAct, newestMovements, takeBackNewest, theDemo } from "../demo.ts";
import { load, post, statusOf } from "../posting.ts";

theDemo();

const numberIn = (to: string): number => Number(/\d+/.exec(to)![0]);

describe("receiving", () => {
  it("opens for the materials asked for in the pack they were bought in, or like another receipt", async () => {
    const [wax, oil] = [await idOf("Beeswax, yellow"), await idOf("Castor oil")];
    const page = await load(openReceive, `/shelf/receive?material=${wax}&material=${oil}&material=9999&supplier=Far+Shore`);
    expect(page.lines.map((l) => l.material)).toEqual(["Beeswax, yellow", "Castor oil"]);
    expect(page.lines.every((l) => l.packs === "1" || l.packs === "")).toBe(true);
    expect(page).toMatchObject({ supplier: "Far Shore", today: DAY });
    const { receipts } = await listReceipts(db).then((r) => ({ receipts: r }));
    const id = receipts.find((r) => r.lines > 1)!.id;
    const like = (await readReceipt(db, id))!;
    const again = await load(openReceive, `/shelf/receive?like=${id}`);
    expect(again.supplier).toBe(like.receipt.supplier);
    expect(again.lines.map((l) => [l.material, l.packs, l.packSize, l.price])).toEqual(
      like.lines.map((l) => [l.material, String(l.line.packs), l.line.packSize, ""]),
    );
    expect((await load(openReceive, "/shelf/receive?like=9999")).lines).toEqual([]);
    expect((await load(openReceive, `/shelf/receive?supplier=${"x".repeat(200)}`)).supplier.length).toBe(120);
    expect((await load(fileOf, "/shelf/receive/file")).names).toEqual((await listMaterials(db)).map((m) => m.name));
  });

  it("a receipt that is corrected opens as it was typed, and shows what another window has corrected meanwhile", async () => {
    const line = { material: "Castor oil", packs: "2", packSize: "250 mL", price: "10.00", supplierLot: "K9", bestBefore: "2027-10-01" };
    const body = {
      supplier: "Far Shore",
      day: "2026-11-20",
      postage: "5",
      tax: "1.20",
      discount: "0.5",
      spreadBy: "value",
      currency: "USD",
      rate: "0.9",
      note: "late",
      lines: [line],
    };
    const { to } = await post(receive, body);
    const id = numberIn(to.replace("/shelf/receipts/", ""));
    const open = () => load(openCorrect, `/shelf/receipts/${id}/correct`, { id: String(id) });
    const { start, opened, stuff } = await open();
    expect(start).toMatchObject({
      supplier: "Far Shore",
      day: "2026-11-20",
      postage: "5.00",
      tax: "1.20",
      discount: "0.50",
      spreadBy: "value",
      currency: "USD",
      rate: "0.9",
      note: "late",
    });
    expect(start.lines).toMatchObject([
      { material: "Castor oil", packs: "2", packSize: "250 mL", price: "10.00", supplierLot: "K9", bestBefore: "2027-10-01", arrived: "" },
    ]);
    expect(stuff.map((s) => s.name)).toEqual(["Castor oil"]);
    // Without postage, tax and discount their fields are empty, and so is the rate of one's own money.
    const plain = { ...start, postage: "", tax: "", discount: "", currency: "EUR", rate: "", seen: opened.seen };
    expect((await post(correct, plain, String(id))).status).toBe(302);
    expect((await open()).start).toMatchObject({ postage: "", tax: "", discount: "", rate: "" });
    const late = await post(correct, { ...plain, note: "later" }, String(id));
    expect(late).toMatchObject({ status: 409, data: { changed: { theirs: { postage: "", note: "late", lines: [{ packs: "2" }] } } } });
    expect(await post(correct, { ...plain, lines: [{ ...start.lines[0], packSize: "a jug" }] }, String(id))).toMatchObject({
      status: 422,
      fields: ["lines.0.packSize"],
    });
    const record = await load(openReceipt, "/x", { id: String(id) });
    expect(record.receipt).toMatchObject({ id, supplier: "Far Shore", currency: "" });
    for (const gone of [openCorrect, openReceipt]) expect(await statusOf(load(gone as typeof openReceipt, "/x", { id: "9999" }))).toBe(404);
    await expectLedgerTrue(db);
  });

  it("opening stock: entries of the library are added once each, lines that say nothing are passed over", async () => {
    const { materials, prepared } = await load(openOpening, "/shelf/opening");
    expect(materials.map((m) => m.name).sort()).toEqual((await listMaterials(db)).map((m) => m.name).sort());
    const withLots = new Set((await walkShelf(db)).map((l) => l.materialId));
    for (const name of prepared) expect(withLots.has(materials.find((m) => m.name === name)!.id)).toBe(false);
    const line = { material: "", amount: "", cost: "", known: "guessed", supplierLot: "", bestBefore: "", bought: "" };
    const key = LIBRARY.find((e) => e.kind === "wax" && !materials.some((m) => m.name === e.name))!.name;
    const answer = await post(opening, {
      lines: [{ ...line, material: key, amount: "100 g", cost: "3" }, line, { ...line, material: key, amount: "50 g" }],
    });
    expect(answer, answer.say).toMatchObject({ status: 302 });
    const of = await lotsOfMaterials(db, [await idOf(key)]);
    expect(of.map((l) => [l.onHand, l.value]).sort()).toEqual([
      [100_000, euro(3)],
      [50_000, 0],
    ]);
    expect(await post(opening, { lines: [{ ...line, material: "Moon dust", amount: "1 g" }] })).toMatchObject({
      status: 422,
      fields: ["lines.0.material"],
    });
    await takeBackNewest();
  });
});

describe("a stock-take", () => {
  it("walks the whole shelf or what is found; a count posted is a movement, and dropped counts move nothing", async () => {
    const all = await load(openTake, "/shelf/stock-take");
    expect(all).toMatchObject({ whole: true, board: null, page: 0, find: "" });
    expect(all.rows.length).toBe(all.totals.reduce((a, t) => a + t.lots, 0));
    expect(all.boards).toEqual(KIND_IDS.filter((k) => all.rows.some((r) => r.kind === k)));
    const found = await load(openTake, "/shelf/stock-take?find=beeswax&board=oil&page=9");
    expect(found).toMatchObject({ find: "beeswax", board: null, page: 0 });
    expect(new Set(found.rows.map((r) => r.material))).toEqual(new Set(["Beeswax, yellow"]));
    const row = found.rows[0]!;
    const there = (await walkShelf(db)).find((l) => l.id === row.id)!.onHand;
    const count = { lotId: String(row.id), counted: "1 g", kept: "" };
    const done = await post(noted, count);
    expect(done.status, done.say).toBe(200);
    const marked = await notedSoFar(db);
    expect(await post(stockTake, { intent: "drop", noted: "" })).toMatchObject({ status: 302, to: "/shelf/stock-take" });
    expect(await notedSoFar(db)).not.toEqual(marked);
    expect((await readMaterial(db, row.materialId))!.lots.find((l) => l.id === row.id)!.onHand).toBe(there);
    expect(await post(stockTake, { intent: "sing", noted: "" })).toMatchObject({ status: 422 });
  });
});

describe("jars", () => {
  it("a plan opens from a herb, from a bottle, or as the oil was steeped last", async () => {
    const herb = await idOf("Elderflower, dried");
    const from = await load(openFill, `/jars/fill?material=${herb}`);
    expect(from).toMatchObject({
      bare: false,
      today: DAY,
      start: { name: "", method: "shelf", rows: [{ role: "herb", material: "Elderflower, dried", lot: "", cut: "cut" }] },
    });
    const [bottle] = await oilLots(db);
    const again = await load(openFill, `/jars/fill?lot=${bottle!.id}`);
    expect(again.start.rows).toMatchObject([{ role: "carrier", lot: String(bottle!.id) }]);
    const past = (await pastJars(db)).find((j) => j.jar.strainedActId !== null && j.jar.method !== "own")!.jar;
    const whole = (await readJar(db, past.id))!;
    const last = await load(openFill, `/jars/fill?makes=${whole.bottles[0]!.materialId}`);
    expect(last.start.name).not.toBe("");
    expect(last.start.rows.map((r) => r.role).sort()).toContain("herb");
    expect(last.start.rows.every((r) => r.lot === "")).toBe(true);
    const none = await load(openFill, "/jars/fill?lot=9999&makes=9999");
    expect(none.start).toEqual({ name: "", method: "shelf", rows: [] });
  });

  it("one's own way has its name and its days; a dangerous one wants a reason, and is filled with it", async () => {
    const sunflower = (await jarStuffOf(db, [], ["Sunflower oil, high oleic"]))[0]!;
    const herb = (await jarStuffOf(db, [], ["Elderflower, dried"]))[0]!;
    const plan = {
      ...{ name: "Elder oil", method: "own", methodName: "on the sill", ownDays: "20", ownHours: "", day: DAY, wished: "", by: "ratio" },
      ...{ oil: "200 g", ratio: "8", herbCups: "", share: "", vessel: "tall jar", holds: "500 mL", why: "", note: "" },
      herbs: [{ material: herb.name, lot: String(herb.lots[0]!.id), cut: "cut", parts: "" }],
      carriers: [{ material: sunflower.name, lot: String(sunflower.lots[0]!.id), parts: "" }],
    };
    expect(await post(fill, { ...plan, oil: "" })).toMatchObject({ status: 422 });
    expect(await post(fill, { ...plan, herbs: [] })).toMatchObject({ status: 422 });
    const why = await post(fill, { ...plan, day: "2026-12-24" });
    expect(why.status).toBe(422);
    const answer = await post(fill, plan);
    expect(answer, answer.say).toMatchObject({ status: 302 });
    const jar = (await readJar(db, numberIn(answer.to)))!;
    expect(jar.jar).toMatchObject({
      name: "Elder oil",
      method: "own",
      methodName: "on the sill",
      vessel: "tall jar",
      vesselMl: 500,
      heatMinutes: null,
      day: DAY,
    });
    expect(jar.parts.map((p) => [p.role, p.material.name]).sort()).toEqual([
      ["carrier", sunflower.name],
      ["herb", herb.name],
    ]);
    expect((await newestMovements()).map((m) => m.qty).reduce((a, q) => a + q, 0)).toBe(-225_000);
    const page = await load(openJar, "/x", { id: String(jar.jar.id) });
    expect(page.lots.every((l) => l.of === sunflower.id)).toBe(true);
    expect(page.lots.length).toBeGreaterThan(0);
    expect((await load(label, "/x", { id: String(jar.jar.id) })).workshop).toBe("Aldermoss Workroom");
    expect(await post(tend, { intent: "spoil", why: "" }, String(jar.jar.id))).toMatchObject({
      fields: ["why"],
      say: "Enter what happened.",
    });
    expect((await post(tend, { intent: "spoil", why: "mould" }, String(jar.jar.id))).status).toBe(302);
    // Nothing is topped up into a jar that is over.
    expect((await load(openJar, "/x", { id: String(jar.jar.id) })).lots).toEqual([]);
    await takeBackNewest();
    for (const gone of [openJar, label]) expect(await statusOf(load(gone as typeof openJar, "/x", { id: "9999" }))).toBe(404);
  });

  it("a temperature in either scale, gentle heat in whole minutes", async () => {
    const id = String((await steepingJars(db))[0]!.jar.id);
    for (const [celsius, say] of [
      ["", "Enter the temperature."],
      ["151", "Enter a temperature between 0 and 150 °C, or write °F after it."],
      ["20 F", "Enter a temperature between 0 and 150 °C, or write °F after it."],
    ])
      expect(await post(tend, { intent: "temperature", celsius }, id)).toMatchObject({ status: 422, fields: ["celsius"], say });
    for (const [celsius, kept] of [
      ["42,5 °C", 42.5],
      ["104 °F", 40],
      ["0", 0],
      ["150", 150],
    ] as const) {
      expect((await post(tend, { intent: "temperature", celsius }, id)).status).toBe(302);
      expect((await readJar(db, Number(id)))!.events.filter((e) => e.celsius !== null).map((e) => e.celsius)).toContain(kept);
      await takeBackNewest();
    }
    expect(await post(tend, { intent: "heatOn", minutes: "10081" }, id)).toMatchObject({ status: 422, fields: ["minutes"] });
  });

  it("oils of two lots are blended into one, of these weights and no others", async () => {
    const [a, b] = await oilLots(db);
    const body = {
      name: "Two oils",
      note: "",
      takes: [
        { lot: a!.name, qty: "20 g" },
        { lot: b!.name.toUpperCase(), qty: "30 g" },
      ],
    };
    expect(await post(blend, { ...body, takes: [] })).toMatchObject({ status: 422, say: "Enter at least two lots." });
    expect(await post(blend, { ...body, takes: [body.takes[0], { lot: "Moon", qty: "1 g" }] })).toMatchObject({
      fields: ["takes.1.lot"],
      say: "Choose a lot from the list.",
    });
    expect(await post(blend, { ...body, takes: [body.takes[0], { lot: "", qty: "1 g" }] })).toMatchObject({
      fields: ["takes.1.lot"],
      say: "Enter a lot.",
    });
    const answer = await post(blend, body);
    expect(answer, answer.say).toMatchObject({ status: 302 });
    const moved = await newestMovements();
    expect(
      moved
        .map((m) => [m.lotId, m.qty])
        .slice(0, 2)
        .sort(),
    ).toEqual(
      [
        [a!.id, -20_000],
        [b!.id, -30_000],
      ].sort(),
    );
    expect(moved.at(-1)).toMatchObject({ qty: 50_000, reason: "blended" });
    expect(moved.reduce((s, m) => s + m.value, 0)).toBe(0);
    await takeBackNewest();
  });

  it("a photo is kept with its jar or its batch, and a jar that isn't there has none", async () => {
    const form = (name = "jar.png", type = "image/png"): FormData => {
      const f = new FormData();
      const png = Buffer.from("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==", "base64");
      f.set("file", new File([png], name, { type }));
      return f;
    };
    const id = (await steepingJars(db))[0]!.jar.id;
    expect((await post(jarPhoto, form("\u0007 Jar one.png "), String(id))).status).toBe(302);
    expect((await newestAct()).summary).toBe("Added a photo of the jar");
    await takeBackNewest();
    expect(await statusOf(post(jarPhoto, form(), "9999"))).toBe(404);
    expect((await post(batchPhoto, form(), "1")).status).toBe(302);
    await takeBackNewest();
    expect(await post(batchPhoto, new FormData(), "1")).toMatchObject({ status: 422, fields: ["file"], say: "Choose a file first." });
  });
});

describe("what is put away", () => {
  it("of each kind it is offered no more, comes back, and what was used can't be deleted", async () => {
    const recipe = (await readRecipes(db))[0]!;
    const material = await idOf("Castor oil");
    const supplier = (await contactsOf(db, "supplier"))[0]!;
    const isAway: Record<string, () => Promise<boolean>> = {
      material: async () => (await materialRow(db, material))!.retired,
      recipe: async () => !(await readRecipes(db)).some((w) => w.recipe.id === recipe.recipe.id),
      contact: async () => (await contactsOf(db, "supplier")).find((c) => c.id === supplier.id)!.retired,
      product: async () => !(await readRecipes(db))[0]!.sizes.some((s) => s.id === recipe.sizes[0]!.id),
    };
    const ids: Record<string, number> = { material, recipe: recipe.recipe.id, contact: supplier.id, product: recipe.sizes[0]!.id };
    for (const of of Object.keys(ids)) {
      const body = { of, id: String(ids[of]) };
      if (of === "product" && recipe.sizes.length === 1) continue;
      expect(await post(away, { ...body, does: "away" }), of).toMatchObject({ status: 302 });
      expect(await isAway[of]!(), of).toBe(true);
      expect(await post(away, { ...body, does: "back" }), of).toMatchObject({ status: 302 });
      expect(await isAway[of]!(), of).toBe(false);
      expect(await post(away, { ...body, does: "delete" }), of).toMatchObject({ status: 422 });
    }
    expect(await post(away, { of: "moon", id: "1", does: "away" })).toMatchObject({ status: 422, fields: ["of"] });
    expect(await post(away, { of: "material", id: "1", does: "sell" })).toMatchObject({ fields: ["does"] });
  });

  it("somebody's sheet is saved under a new name, and both windows see it", async () => {
    const c = (await contactsOf(db, "customer"))[0]!;
    const { opened, texts } = await load(openContact, "/x", { id: String(c.id) });
    expect(texts).toMatchObject({ name: c.name, reach: c.reach });
    const body = { kind: "customer", ...texts, note: "no nuts", seen: opened.seen };
    expect((await post(contact, body, { id: String(c.id) })).status).toBe(302);
    expect(await post(contact, { ...body, note: "nuts" }, { id: String(c.id) })).toMatchObject({
      status: 409,
      data: { changed: { theirs: { name: c.name, note: "no nuts" } } },
    });
    await takeBackNewest();
  });
});

describe("the book", () => {
  it("opens an act, takes it back once, and says why one can't be", async () => {
    const { id } = await newestAct();
    expect((await load(openAct, "/x", { id: String(id) })).act.id).toBe(id);
    expect(await statusOf(load(openAct, "/x", { id: "99999" }))).toBe(404);
    await post(away, { of: "material", id: String(await idOf("Castor oil")), does: "away" });
    const act = await newestAct();
    expect(await post(takeBack, { actId: String(act.id) })).toMatchObject({ status: 302 });
    expect((await readAct(db, act.id))!.act.undoneBy).toBe((await newestAct()).id);
    expect(await post(takeBack, { actId: String(act.id) })).toMatchObject({ status: 422 });
  });
});
