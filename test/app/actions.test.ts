/**
 * Every action of the application, fed with rubbish: it answers with problems beside fields or a page that isn't there, never
 * with a crash, and nothing is stored.
 */
import { sql } from "drizzle-orm";
import fc from "fast-check";
import { beforeEach, describe, expect, it } from "vitest";
import { action as addMaterial } from "#app/shelf/materials/add.tsx";
import { action as changeFacts } from "#app/shelf/materials/facts.tsx";
import { action as count } from "#app/shelf/materials/material.tsx";
import { action as receive } from "#app/shelf/receipts/receive.tsx";
import { action as fromFile } from "#app/shelf/receipts/file.tsx";
import { action as receipt } from "#app/shelf/receipts/receipt.tsx";
import { action as correct } from "#app/shelf/receipts/correct.tsx";
import { action as stockTake } from "#app/shelf/counting/stockTake.tsx";
import { action as noted } from "#app/shelf/counting/noted.ts";
import { action as pick } from "#app/shelf/harvests/pick.tsx";
import { action as harvest } from "#app/shelf/harvests/harvest.tsx";
import { action as library } from "#app/shelf/materials/library.tsx";
import { action as buying } from "#app/shelf/buying/buying.tsx";
import { action as fill } from "#app/jars/fill.tsx";
import { action as wall } from "#app/jars/jars.tsx";
import { action as jar } from "#app/jars/jar.tsx";
import { action as blend } from "#app/jars/blend.tsx";
import { action as writeRecipe } from "#app/recipes/write.tsx";
import { action as felt } from "#app/recipes/felt/felt.ts";
import { action as scribble } from "#app/recipes/scribbled/scribbled.ts";
import { action as setOut } from "#app/bench/settingOut/setOut.tsx";
import { action as pour } from "#app/bench/batch.tsx";
import { action as weigh } from "#app/bench/sheet/weighed.ts";
import { action as takeOut } from "#app/cabinet/cabinet.tsx";
import { action as ladder } from "#app/prices/ladder.tsx";
import { action as prices } from "#app/prices/product.tsx";
import { action as market } from "#app/markets/day.tsx";
import { action as gift } from "#app/gifts/order.tsx";
import { action as settings } from "#app/settings/settings.tsx";
import { action as opening } from "#app/shelf/opening/opening.tsx";
import { action as openingFile } from "#app/shelf/opening/file.tsx";
import { action as addOnTheSpot } from "#app/names/names.ts";
import { action as keepDraft } from "#app/forms/drafts/drafts.ts";
import { action as nameStep } from "#app/begin/name.tsx";
import { action as workStep } from "#app/begin/work.tsx";
import { action as pickStep } from "#app/begin/pick.tsx";
import { action as firstSteps } from "#app/begin/begin.tsx";
import { action as workshops } from "#app/workshops/workshops.tsx";
import { action as onToday } from "#app/today/today.tsx";
import { action as away } from "#app/away/away.ts";
import { action as peopleFile } from "#app/people/file.tsx";
import { action as materialsFile } from "#app/shelf/materials/file.tsx";
import { action as recipesFile } from "#app/recipes/file.tsx";
import { action as finishedFile } from "#app/cabinet/file.tsx";
import { action as pricesFile } from "#app/prices/file.tsx";
import { action as daysFile } from "#app/markets/file.tsx";
import { action as ordersFile } from "#app/gifts/file.tsx";
import { action as contact } from "#app/people/contact.tsx";
import { action as takeBack } from "#app/book/takeBack.ts";
import { db, theDemo } from "./demo.ts";

type Action = (args: { request: Request; params: Record<string, string>; context: object }) => Promise<unknown>;
const ACTIONS: Record<string, { run: unknown; params: Record<string, string>; fields: readonly string[]; intent?: string }> = {
  "add a material": { run: addMaterial, params: {}, fields: ["name", "kind", "densities", "reorder", "dropsPerMl", "piece"] },
  "change facts": { run: changeFacts, params: { id: "1" }, fields: ["name", "kind", "densities", "reorder"] },
  count: { run: count, params: { id: "1" }, fields: ["lotId", "expected", "counted", "reason"], intent: "count" },
  receive: { run: receive, params: {}, fields: ["supplier", "day", "postage", "lines"] },
  "take out": { run: count, params: { id: "1" }, fields: ["lotId", "amount", "why", "note"], intent: "takeOut" },
  "say how dry a lot is": { run: count, params: { id: "1" }, fields: ["lotId", "dryness"], intent: "dryness" },
  "say how a bottle drips": { run: count, params: { id: "1" }, fields: ["lotId", "drips"], intent: "drips" },
  "receive what was to come": {
    run: receipt,
    params: { id: "3" },
    fields: ["lineId", "packs", "supplierLot", "bestBefore"],
    intent: "arrive",
  },
  "correct a receipt": {
    run: correct,
    params: { id: "3" },
    fields: ["supplier", "day", "postage", "tax", "discount", "rate", "currency", "lines"],
  },
  "receipts from a file": { run: fromFile, params: {}, fields: ["text", "columns", "matches", "numbers", "dates"], intent: "receive" },
  "count one lot of a stock-take": { run: noted, params: {}, fields: ["lotId", "counted", "note"] },
  "post an empty stock-take": { run: stockTake, params: {}, fields: ["lotId", "counted"], intent: "post" },
  "note a picking": { run: pick, params: {}, fields: ["herb", "picked", "fresh", "method", "celsius", "minutes"] },
  "weigh a harvest": { run: harvest, params: { id: "4" }, fields: ["day", "weight", "celsius"], intent: "weigh" },
  "dry a harvest": { run: harvest, params: { id: "4" }, fields: ["dry", "snaps", "minutes", "valuedBy", "market"], intent: "dry" },
  "take from the library": { run: library, params: {}, fields: ["take"] },
  "note an offer": { run: buying, params: { id: "1" }, fields: ["supplier", "packSize", "price", "postage"], intent: "offer" },
  "fill a jar": {
    run: fill,
    params: {},
    fields: ["method", "day", "wished", "by", "oil", "ratio", "herbCups", "share", "holds", "herbs", "carriers"],
  },
  "shake jars": { run: wall, params: {}, fields: ["jars"] },
  "strain a jar": {
    run: jar,
    params: { id: "12" },
    fields: ["back", "secondBack", "sediment", "herbOut", "pressed", "bottles"],
    intent: "strain",
  },
  "top up a jar": { run: jar, params: { id: "12" }, fields: ["qty"], intent: "topUp" },
  "blend oils": { run: blend, params: {}, fields: ["name", "takes"] },
  "write a recipe": { run: writeRecipe, params: {}, fields: ["name", "code", "type", "makes", "fill", "loss", "lines", "packaging"] },
  "change a recipe": { run: writeRecipe, params: { id: "1" }, fields: ["name", "code", "type", "makes", "fill", "lines", "packaging"] },
  "note firmness": { run: felt, params: { id: "1" }, fields: ["n", "celsius", "feel", "note"] },
  "read a scribble": { run: scribble, params: {}, fields: ["text"] },
  "set out": { run: setOut, params: {}, fields: ["recipe", "mode", "size", "lot"] },
  weigh: { run: weigh, params: { id: "16" }, fields: ["takes"] },
  pour: { run: pour, params: { id: "16" }, fields: ["takes", "units", "leftover", "minutes"], intent: "pour" },
  "take units out": { run: takeOut, params: {}, fields: ["lotId", "units", "reason", "note"] },
  prices: { run: prices, params: { id: "1" }, fields: ["market", "online"] },
  "price by the ladder": { run: ladder, params: {}, fields: ["id", "channel", "price", "was"] },
  "market day": { run: market, params: {}, fields: ["name", "day", "stallFee", "byCard", "lines"], intent: "close" },
  "gift order": { run: gift, params: { id: "5" }, fields: ["customer", "due", "items", "wrapping"], intent: "pack" },
  "opening stock": { run: opening, params: {}, fields: ["lines"] },
  "opening stock from a file": {
    run: openingFile,
    params: {},
    fields: ["text", "columns", "matches", "numbers", "dates"],
    intent: "receive",
  },
  "add on the spot": { run: addOnTheSpot, params: { of: "material" }, fields: ["key", "name", "kind", "brimMl", "emptyG"] },
  "keep a draft": { run: keepDraft, params: {}, fields: ["path", "sheet", "title", "token", "values"] },
  "first step": { run: nameStep, params: {}, fields: ["workshop", "maker", "currency"] },
  "second step": { run: workStep, params: {}, fields: ["hourly", "overheadHourly", "scale"] },
  "third step": { run: pickStep, params: { step: "materials" }, fields: ["take"] },
  "first steps": { run: firstSteps, params: {}, fields: ["intent", "step"] },
  workshops: { run: workshops, params: {}, fields: ["intent"] },
  "press on Today": { run: onToday, params: {}, fields: ["does", "id", "number", "jars"] },
  "put away, back or delete": { run: away, params: {}, fields: ["of", "id", "does"] },
  "materials from a list": { run: materialsFile, params: {}, fields: ["text", "shown", "columns", "matches", "numbers"], intent: "add" },
  "recipes from a list": {
    run: recipesFile,
    params: {},
    fields: ["text", "shown", "columns", "matches", "extras", "numbers"],
    intent: "add",
  },
  "finished goods from a list": { run: finishedFile, params: {}, fields: ["text", "shown", "columns", "matches", "dates"], intent: "add" },
  "prices from a list": { run: pricesFile, params: {}, fields: ["text", "shown", "columns", "matches", "numbers"], intent: "add" },
  "earlier market days from a list": { run: daysFile, params: {}, fields: ["text", "shown", "columns", "matches", "dates"], intent: "add" },
  "orders from a list": { run: ordersFile, params: {}, fields: ["text", "shown", "columns", "matches", "extras"], intent: "add" },
  "names from a list": { run: peopleFile, params: {}, fields: ["extras", "text", "shown", "columns"], intent: "add" },
  "supplier, customer or market": { run: contact, params: {}, fields: ["kind", "name", "reach", "note"] },
  settings: { run: settings, params: {}, fields: ["workshop", "currency", "school", "channels", "batchScheme"] },
};

/** How many rows every table has, and what is on hand: nothing may change it. */
const state = async (): Promise<unknown> => {
  const tables = [
    "act",
    "movement",
    "lot",
    "batch",
    "batch_take",
    "material",
    "recipe",
    "recipe_line",
    "firmness_test",
    "product",
    "price",
    "market_day",
    "gift_order",
    "gift_item",
    "past_sale",
    "purchase",
    "purchase_line",
    "stock_count",
    "harvest",
    "harvest_check",
    "offer",
    "jar",
    "jar_part",
    "jar_event",
    "draft",
    "contact",
    "contact_name",
  ];
  const counts = await db.execute(
    sql.raw(
      `select ${tables.map((t) => `(select count(*) from ${t}) ${t}`).join(", ")}, (select sum(on_hand) from lot) on_hand, (select md5(string_agg(m::text, '' order by id)) from material m) facts`,
    ),
  );
  return counts.rows[0];
};
let before: unknown;

theDemo();
beforeEach(async () => {
  before = await state();
});

/** Posts a body to an action; gives the status it would answer with. */
async function post(name: string, body: string): Promise<{ status: number; problems: { field: string; say: string }[] }> {
  const { run, params } = ACTIONS[name]!;
  const request = new Request("http://127.0.0.1/x", { method: "POST", body });
  try {
    const answer = await (run as Action)({ request, params, context: {} });
    if (answer instanceof Response) return { status: answer.status, problems: [] };
    const { data, init } = answer as { data: { problems: { field: string; say: string }[] }; init?: { status?: number } };
    return { status: init?.status ?? 200, problems: data.problems };
  } catch (e) {
    if (e instanceof Response) return { status: e.status, problems: [] };
    throw e;
  }
}

const rubbish = fc.oneof(
  fc.string({ maxLength: 12 }),
  fc.constantFrom(
    "-1",
    "0",
    "1e9",
    "999999999999",
    "½",
    "1,234",
    "NaN",
    "null",
    "'; drop table lot; --",
    "<b>",
    "2026-02-30",
    "%",
    "\u0000",
  ),
  fc.integer(),
  fc.boolean(),
  fc.constant(null),
  fc.array(
    fc.oneof(
      fc.string({ maxLength: 5 }),
      fc.dictionary(
        fc.constantFrom("material", "entered", "lot", "sold", "units", "price", "packs", "weighed", "planned"),
        fc.string({ maxLength: 6 }),
      ),
    ),
    { maxLength: 3 },
  ),
  fc.dictionary(fc.string({ maxLength: 4 }), fc.string({ maxLength: 4 }), { maxKeys: 2 }),
);

describe("rubbish", () => {
  it.each(Object.keys(ACTIONS))("%s: an unreadable body", async (name) => {
    const deep = `{"a":${"[".repeat(200_000)}${"]".repeat(200_000)}}`;
    const wide = JSON.stringify({ lines: Array.from({ length: 60_000 }, () => ({})) });
    const reaching = `{"__proto__":{"intent":"x"},"constructor":{"prototype":{}},"toString":"x","intent":"toString","own":"x"}`;
    for (const body of ["", "[", "7", '"text"', "null", "[]", deep, wide, reaching]) {
      const { status, problems } = await post(name, body);
      expect(status, body.slice(0, 60)).toBe(422);
      expect(problems.map((p) => p.say).join(" ")).not.toMatch(/must be|type|undefined|\$\{/);
    }
    expect(await state()).toEqual(before);
  });
  it.each(Object.keys(ACTIONS))("%s: nothing at all names what is missing", async (name) => {
    const { status, problems } = await post(name, JSON.stringify({ intent: ACTIONS[name]!.intent }));
    if (name === "prices") return;
    expect(status).toBe(422);
    expect(problems.length).toBeGreaterThan(0);
    for (const p of problems) expect(p.say).not.toMatch(/^$|must be a|required field/);
    expect(await state()).toEqual(before);
  });
  it.each(Object.keys(ACTIONS))("%s: any rubbish in any field is answered, and nothing is stored", async (name) => {
    const { fields } = ACTIONS[name]!;
    await fc.assert(
      fc.asyncProperty(fc.record(Object.fromEntries(fields.map((f) => [f, rubbish])), { requiredKeys: [] }), async (body) => {
        const { status } = await post(
          name,
          JSON.stringify({ ...body, intent: ACTIONS[name]!.intent, ...(name === "prices" ? { own: "x" } : {}) }),
        );
        // Any text can be read as a scribble; nothing is saved of it.
        expect(name === "read a scribble" ? [200, 422] : [404, 422]).toContain(status);
      }),
      { numRuns: 25, endOnFailure: true },
    );
    expect(await state()).toEqual(before);
  });
  it("a button that isn't there does nothing, whatever else is on the sheet", async () => {
    const lot = { lotId: "1", expected: "0", counted: "1", reason: "counted", units: "1", note: "x", amount: "1 g", why: "own" };
    for (const [name, { intent }] of Object.entries(ACTIONS)) {
      if (intent === undefined) continue;
      for (const other of ["sing", "", `${intent} `, intent.toUpperCase(), "toString", null])
        expect([name, other, await post(name, JSON.stringify({ ...lot, intent: other }))]).toMatchObject([
          name,
          other,
          { status: 422, problems: expect.arrayContaining([expect.objectContaining({ field: "" })]) as unknown },
        ]);
    }
    expect(await state()).toEqual(before);
  });
  it.each(["", "0", "-1", "999999", "abc", "1; drop table act"])("taking back act %j is refused", async (actId) => {
    const body = new FormData();
    body.set("actId", actId);
    const answer = await takeBack({
      request: new Request("http://127.0.0.1/x", { method: "POST", body }),
      params: {},
      context: {},
    } as never);
    expect((answer as { init: { status: number } }).init.status).toBe(422);
    expect(await state()).toEqual(before);
  });
});

describe("a sheet that is right but for one thing", () => {
  const line = { material: "Jojoba oil", supplierLot: "", packs: "1", packSize: "100 g", price: "5", bestBefore: "" };
  const good = { supplier: "Mill", day: "2026-11-20", postage: "1", lines: [line] };
  it.each<[object, string]>([
    [{ day: "2026-11-26" }, "day"],
    [{ postage: "-1" }, "postage"],
    [{ lines: [] }, "lines"],
    [{ lines: [{ ...line, packs: "0" }] }, "lines.0.packs"],
    [{ lines: [line, { ...line, material: "Nothing" }] }, "lines.1.material"],
    [{ lines: [line, line, { ...line, packSize: "1 bushel" }] }, "lines.2.packSize"],
    [{ lines: [{ ...line, packSize: "0 g" }] }, "lines.0.packSize"],
    [{ lines: [{ ...line, bestBefore: "2026-11-19" }] }, "lines.0.bestBefore"],
    [{ lines: [{ ...line, price: "" }] }, "lines.0.price"],
  ])("receive with %j: beside %s", async (over, field) => {
    const { status, problems } = await post("receive", JSON.stringify({ ...good, ...over }));
    expect(status).toBe(422);
    expect(problems.map((p) => p.field)).toEqual([field]);
    expect(await state()).toEqual(before);
  });
  it("and the right one is received", async () => {
    expect((await post("receive", JSON.stringify(good))).status).toBe(302);
    expect(await state()).not.toEqual(before);
  });
});
