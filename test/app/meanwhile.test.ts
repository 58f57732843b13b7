/**
 * Two windows on one record, one sheet posted twice, small acts taken back a week later, and the book that tells of all of it: on the
 * demo workshop, through the actions a browser posts to.
 */
import type { Subject } from "#core/act/kinds";
import { micros } from "#core/measure/exact";
import { EditedMeanwhile } from "#core/refused";
import { readBook, readAct } from "#db/acts/book";
import type { Done, ActOptions } from "#db/act/define";
import { versionOf } from "#db/act/seen";
import { reverseAct } from "#db/acts/reverse";
import { listGiftOrders } from "#db/gifts/gifts";
import { heat, tend } from "#db/jars/fill";
import { readJar, steepingJars } from "#db/jars/read";
import { listMarketDays } from "#db/markets/markets";
import { choosePrices, chosenPrices } from "#db/prices/prices";
import { readWhole } from "#db/recipe/read";
import { act as actTable, lot, material } from "#db/schema";
import { readSettings, saveSettings } from "#db/settings/settings";
import { dropOffer, noteOffer, offersOf } from "#db/shelf/buying";
import { holdLot } from "#db/shelf/counting/count";
import { retireMaterial, saveMaterial } from "#db/shelf/keepMaterial";
import { listMaterials, materialRow } from "#db/shelf/materials";
import { sayScentMost } from "#db/shelf/scentMost";
import { refused } from "#test/db/workshop";
import { count, eq } from "drizzle-orm";
import { beforeAll, describe, expect, it } from "vitest";
import { action as order } from "#app/gifts/order.tsx";
import { orderTexts } from "#app/gifts/orderTexts.ts";
import { action as day } from "#app/markets/day.tsx";
import { dayTexts } from "#app/markets/dayTexts.ts";
import { action as recipe } from "#app/recipes/write.tsx";
import { recipeTexts } from "#app/recipes/recipeTexts.ts";
import { DAY, db, theDemo } from "./demo.ts";

const LATER = "2026-12-02";
/** A lot of an essential oil. */
let scentLot: number;
theDemo();
beforeAll(async () => {
  const [scent] = await db
    .select({ id: lot.id })
    .from(lot)
    .innerJoin(material, eq(material.id, lot.materialId))
    .where(eq(material.kind, "essentialOil"));
  scentLot = scent!.id;
});

interface Answer {
  status: number;
  problems: { field: string; say: string }[];
  changed?: { actId: number; summary: string; theirs: Record<string, unknown> };
}
async function post(action: unknown, id: number, body: object): Promise<Answer> {
  const request = new Request("http://127.0.0.1/x", { method: "POST", body: JSON.stringify(body) });
  const answer = await (action as (args: object) => Promise<unknown>)({ request, params: { id: String(id) }, context: {} });
  if (answer instanceof Response) return { status: answer.status, problems: [] };
  const { data, init } = answer as { data: Omit<Answer, "status">; init: { status: number } };
  return { ...data, status: init.status };
}
const acts = async (): Promise<number> => (await db.select({ n: count() }).from(actTable))[0]!.n;

describe("two windows on one sheet", () => {
  const texts = {
    recipe: async () => recipeTexts(await readWhole(db, 1), new Map((await listMaterials(db)).map((m) => [m.id, m.name]))),
    market: async () => dayTexts((await listMarketDays(db, [5]))[0]!, { today: DAY, cardFeeBp: 175 }),
    order: async () => orderTexts((await listGiftOrders(db, [5]))[0]!),
  };
  it.each([
    ["recipe", 1, recipe, "method", "keepsMonths", "11"],
    ["market", 5, day, "note", "travel", "21.00"],
    ["order", 5, order, "note", "customer", "Marrowfield allotment club"],
  ] as const)("%s: the later one is shown both and loses neither", async (kind, id, action, theirs, mine, value) => {
    const seen = await versionOf(db, { kind, id });
    const open = await texts[kind]();
    const sheet = (over: object) => ({ ...open, ...over, intent: "keep" });
    expect((await post(action, id, sheet({ [theirs]: "Theirs, first.", seen }))).status).toBe(302);
    const before = await acts();
    const second = await post(action, id, sheet({ [theirs]: "Mine.", [mine]: value, seen }));
    expect(second).toMatchObject({ status: 409, changed: { theirs: { [theirs]: "Theirs, first." } } });
    expect(second.problems[0]!.say).toContain("Nothing is lost");
    expect(await acts()).toBe(before);
    const settled = { ...second.changed!.theirs, [mine]: value, seen: second.changed!.actId, intent: "keep" };
    expect((await post(action, id, settled)).status).toBe(302);
    expect(await texts[kind]()).toMatchObject({ [theirs]: "Theirs, first.", [mine]: value });
  });

  let most = 0;
  const commands: [string, () => Subject, (doing: ActOptions) => Promise<Done>][] = [
    [
      "settings",
      () => ({ kind: "settings", id: 1 }),
      async (doing) => saveSettings(db, { ...(await readSettings(db)), leadDays: 20 }, doing),
    ],
    [
      "material",
      () => ({ kind: "material", id: 8 }),
      async (doing) => saveMaterial(db, { ...(await materialRow(db, 8))!, inci: "Oil" }, doing),
    ],
    [
      "prices",
      () => ({ kind: "product", id: 1 }),
      (doing) => choosePrices(db, { productId: 1, own: null, prices: { online: micros(9_900_000) } }, doing),
    ],
    [
      "what a lot of scent may be",
      () => ({ kind: "lot", id: scentLot }),
      (doing) => sayScentMost(db, { lotId: scentLot, ppm: ++most }, doing),
    ],
  ];
  it.each(commands)("%s kept over a newer one is refused, and names it", async (_, subject, keep) => {
    const seen = await versionOf(db, subject());
    const first = await keep({ day: DAY, seen });
    const late = keep({ day: DAY, seen });
    await expect(late).rejects.toThrow(EditedMeanwhile);
    await late.catch((e: unknown) => expect((e as EditedMeanwhile).meanwhile.actId).toBe(first.actId));
    await expect(keep({ day: DAY, seen: first.actId })).resolves.toBeDefined();
  });
});

describe("a token belongs to one act", () => {
  const token = "0b0e7e6e-6d1c-4a53-9b1e-3b6f8f0a1c2d";
  const hold = (reason: string, doing: ActOptions) => holdLot(db, { lotId: 1, reason }, doing);
  it("the same sheet twice counts once; another content, or another act, is refused and changes nothing", async () => {
    const first = await hold("Smells", { day: DAY, token });
    const before = await acts();
    expect((await hold("Smells", { day: DAY, token })).actId).toBe(first.actId);
    expect(await refused(hold("Leaks", { day: DAY, token }))).toHaveLength(1);
    expect(await refused(retireMaterial(db, { id: 8, retired: true }, { day: DAY, token }))).toHaveLength(1);
    expect(await acts()).toBe(before);
    expect((await db.select().from(lot).where(eq(lot.id, 1)))[0]!.holdReason).toBe("Smells");
    await reverseAct(db, first.actId, { day: LATER });
  });
});

describe("small acts, taken back a week later, leave what was", () => {
  const jarId = async () => (await steepingJars(db))[0]!.jar.id;
  const offerSeen = {
    materialId: 8,
    supplier: "Wether Mill",
    packSize: "1 L",
    price: micros(9_000_000),
    postage: micros(0),
    qty: 913_000,
    seen: DAY,
  };
  const jarNow = async () => {
    const { jar, events } = (await readJar(db, await jarId()))!;
    return { heatOn: jar.heatOn, events: events.length };
  };
  const cases: [string, () => Promise<Done>, () => Promise<unknown>][] = [
    [
      "a hold",
      () => holdLot(db, { lotId: 2, reason: "Cloudy" }, { day: DAY }),
      async () => (await db.select().from(lot).where(eq(lot.id, 2)))[0],
    ],
    ["settings", async () => saveSettings(db, { ...(await readSettings(db)), school: "again" }, { day: DAY }), () => readSettings(db)],
    ["a material put away", () => retireMaterial(db, { id: 9, retired: true }, { day: DAY }), () => materialRow(db, 9)],
    [
      "prices",
      () => choosePrices(db, { productId: 2, own: micros(1), prices: { gift: micros(7_000_000) } }, { day: DAY }),
      () => chosenPrices(db),
    ],
    ["an offer", () => noteOffer(db, offerSeen, { day: DAY }), () => offersOf(db, [8])],
    ["a note on a jar", async () => tend(db, { jarIds: [await jarId()], kind: "note", note: "Bubbles" }, { day: DAY }), jarNow],
    ["a jar put on the heat", async () => heat(db, { jarId: await jarId(), minutes: 120 }, { day: DAY }), jarNow],
  ];
  it.each(cases)("%s", async (_, work, read) => {
    const before = await read();
    const done = await work();
    expect(await read()).not.toEqual(before);
    await reverseAct(db, done.actId, { day: LATER });
    expect(await read()).toEqual(before);
    expect(await refused(reverseAct(db, done.actId, { day: LATER }))).toHaveLength(1);
  });
  it("an offer forgotten is there again", async () => {
    await noteOffer(db, offerSeen, { day: DAY });
    const [mine] = (await offersOf(db, [8])).filter((o) => o.id !== null);
    const before = await offersOf(db, [8]);
    const done = await dropOffer(db, { materialId: 8, id: mine!.id! }, { day: DAY });
    await reverseAct(db, done.actId, { day: LATER });
    expect(await offersOf(db, [8])).toEqual(before);
  });
});

describe("the book", () => {
  it("is searched by words in any order, station, kind, day and record; a page follows a page", async () => {
    const found = await readBook(db, { find: "balm poured" });
    expect(found.length).toBeGreaterThan(2);
    for (const a of found) expect(a.summary).toMatch(/poured.*balm/i);
    expect(await readBook(db, { find: "100%_" })).toEqual([]);
    const bench = await readBook(db, { station: "bench" });
    expect(new Set(bench.map((a) => a.kind))).toEqual(new Set(["pour", "setOut"]));
    const autumn = await readBook(db, { kind: "pour", from: "2026-10-01", to: "2026-10-31" }, 100);
    expect(autumn.length).toBeGreaterThan(0);
    for (const a of autumn) expect([a.kind, a.day.slice(0, 7)]).toEqual(["pour", "2026-10"]);
    const first = await readBook(db, {}, 10);
    const next = await readBook(db, { before: first.at(-1)!.id }, 10);
    expect(next[0]!.id).toBeLessThan(first.at(-1)!.id);
    const jars = await readBook(db, { about: { kind: "jar", id: 1 } });
    expect(jars.map((a) => a.kind)).toEqual(expect.arrayContaining(["fillJar", "strain"]));
  });
  it("what was taken back stays in it, struck out with what took it back, and can be left out", async () => {
    const done = await retireMaterial(db, { id: 10, retired: true }, { day: DAY });
    const back = await reverseAct(db, done.actId, { day: LATER });
    const about = { kind: "material", id: 10 } as const;
    const [newest, older] = await readBook(db, { about }, 2);
    expect([newest!.undoes, older!.undoneBy]).toEqual([done.actId, back.actId]);
    const standing = (await readBook(db, { about, standing: true }, 100)).map((a) => a.id);
    expect(standing).not.toContain(done.actId);
    expect(standing).not.toContain(back.actId);
    const opened = (await readAct(db, done.actId))!;
    expect(opened.about).toEqual([{ ...about, changes: true, called: (await materialRow(db, 10))!.name }]);
    expect(opened.act.who).toBe((await readSettings(db)).maker);
  });
});
