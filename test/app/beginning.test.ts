/** A workshop of one's own from its first page on, as a browser opens and posts it: first steps, drafts, settings, the frame around all. */
import type { OpenDb } from "#db/client";
import { readBook } from "#db/acts/book";
import { listDrafts } from "#db/drafts";
import { LIBRARY } from "#core/material/library";
import { STARTING_SETTINGS } from "#core/settings/settings";
import { cachedSettings } from "#db/settings/settings";
import { listMaterials } from "#db/shelf/materials";
import { walkShelf } from "#db/shelf/counting/stocktake";
import { euro, freshDb } from "#test/db/fresh";
import { serveOnly } from "#app/server/workshop.server.ts";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { action as step, loader as steps } from "#app/begin/begin.tsx";
import { action as name, loader as openName } from "#app/begin/name.tsx";
import { action as work, loader as openWork } from "#app/begin/work.tsx";
import { action as pick, loader as openPick } from "#app/begin/pick.tsx";
import { action as opening, loader as openOpening } from "#app/begin/opening.tsx";
import { action as saveRecipe, loader as openRecipe } from "#app/recipes/write.tsx";
import { recipeTexts } from "#app/recipes/recipeTexts.ts";
import { action as settings, loader as openSettings } from "#app/settings/settings.tsx";
import { settingsTexts } from "#app/settings/settingsTexts.ts";
import { action as workshops, loader as openWorkshops } from "#app/workshops/workshops.tsx";
import { action as drafts } from "#app/forms/drafts/drafts.ts";
import { loader as frame } from "#app/shell/workroom.tsx";
import { goingOn, stop, withProgress } from "#app/forms/progress.server.ts";
import { action as stopRoute, loader as progressRoute } from "#app/forms/progress.ts";
import { load, post } from "./posting.ts";

const DAY = "2026-11-25";
let db: OpenDb;
let drop: () => Promise<void>;
/** What the house was asked to do. */
const asked: string[] = [];
const house = {
  where: "/home/maker/books",
  of: (kind: string) => Promise.resolve(kind === "own" ? db : null),
  begin: () => Promise.resolve(void asked.push("begin")),
  resetDemo: () => Promise.resolve(void asked.push("reset")),
};
const serve = (kind: "own" | "demo", over: object = {}) => serveOnly({ db, kind, house, ...over } as never);

beforeAll(async () => {
  ({ db, drop } = await freshDb());
  process.env.ZELBIN_TODAY = DAY;
  serve("own");
});
afterAll(async () => {
  serveOnly({});
  await drop();
});

const stateOf = async () => Object.fromEntries((await load(steps, "/begin")).steps.map((s) => [s.id, s.state]));
const token = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;

describe("the first steps", () => {
  it("name: nobody's placeholders aren't offered; what is saved is there, and leads to the next step", async () => {
    expect(await load(openName, "/begin/name")).toMatchObject({
      workshop: "",
      maker: "",
      currency: STARTING_SETTINGS.currency,
      fixed: false,
    });
    const body = { workshop: "Fen House", maker: "", currency: "GBP", dates: "dmy", numbers: STARTING_SETTINGS.numbers };
    expect(await post(name, { ...body, workshop: " " })).toMatchObject({ fields: ["workshop"], say: "Enter a name." });
    expect(await post(name, { ...body, currency: "XXX" })).toMatchObject({ fields: ["currency"] });
    expect(await post(name, body)).toMatchObject({ status: 302, to: "/begin/work" });
    expect(await cachedSettings(db)).toMatchObject({ workshop: "Fen House", currency: "GBP", maker: STARTING_SETTINGS.maker });
    expect(await post(name, { ...body, maker: "Ines" })).toMatchObject({ status: 302 });
    expect(await load(openName, "/begin/name")).toMatchObject({ workshop: "Fen House", maker: "Ines", currency: "GBP" });
    expect((await cachedSettings(db)).firstSteps.passed).toEqual(["name"]);
    expect((await stateOf()).name).toBe("done");
  });

  it("work: the hour, the overhead and the scale", async () => {
    const before = await load(openWork, "/begin/work");
    expect(await post(work, { ...before, hourly: "" })).toMatchObject({ status: 422, fields: ["hourly"] });
    expect(await post(work, { ...before, scale: "moon" })).toMatchObject({ fields: ["scale"] });
    expect(await post(work, { hourly: "18.50", overheadHourly: "2", scale: "g 100" })).toMatchObject({
      status: 302,
      to: "/begin/materials",
    });
    expect(await cachedSettings(db)).toMatchObject({ hourly: euro(18.5), overheadHourly: euro(2), scale: { unit: "g", step: 100 } });
    expect(await load(openWork, "/begin/work")).toMatchObject({ hourly: "18.50", overheadHourly: "2.00", scale: "g 100" });
  });

  it("materials and containers are ticked in the library; what is there can't be ticked again", async () => {
    const open = (which: string) => load(openPick, `/begin/${which}`, { step: which });
    expect((await open("materials")).have).toEqual([]);
    const [wax, oil] = ["wax", "oil"].map((k) => LIBRARY.find((e) => e.kind === k)!);
    const tin = LIBRARY.find((e) => e.kind === "container")!;
    expect(await post(pick, { take: [] }, { step: "materials" })).toMatchObject({
      fields: ["take"],
      say: "Tick what you have, or skip this for now.",
    });
    expect(await post(pick, { take: [wax!.key, oil!.key] }, { step: "materials" })).toMatchObject({ status: 302, to: "/begin/containers" });
    expect((await listMaterials(db)).map((m) => m.libraryKey).sort()).toEqual([wax!.key, oil!.key].sort());
    expect((await open("materials")).have).toEqual(expect.arrayContaining([wax!.key, wax!.name.toLowerCase()]));
    expect(await post(pick, { take: [tin.key] }, { step: "containers" })).toMatchObject({ status: 302, to: "/begin/opening" });
    for (const other of ["moon", ""]) await expect(open(other)).rejects.toMatchObject({ status: 404 });
    expect((await load(steps, "/begin")).come).toBeNull();
  });

  it("opening stock: one line a lot, each with what its cost rests on; then the first recipe leads on to the first batch", async () => {
    const page = await load(openOpening, "/begin/opening");
    expect(page.prepared.sort()).toEqual((await listMaterials(db)).map((m) => m.name).sort());
    const [wax, oil] = page.materials;
    const line = { material: "", amount: "", cost: "", known: "paid", supplierLot: "", bestBefore: "", bought: "" };
    expect(await post(opening, { lines: [line] })).toMatchObject({ status: 422, say: "Say of at least one how much there is." });
    expect(await post(opening, { lines: [{ ...line, material: wax!.name, amount: "some" }] })).toMatchObject({
      fields: ["lines.0.amount"],
    });
    const lines = [
      { ...line, material: wax!.name, amount: "1 kg", cost: "20" },
      line,
      { ...line, material: oil!.name, amount: "500 g", known: "guessed", cost: "4", supplierLot: "L7" },
      { ...line, material: LIBRARY.find((e) => e.kind === "softButter")!.name, amount: "200 g" },
    ];
    expect(await post(opening, { lines })).toMatchObject({ status: 302, to: "/recipes/new" });
    const there = await walkShelf(db);
    expect(there.length).toBe(3);
    expect(there.find((l) => l.materialId === wax!.id)).toMatchObject({ onHand: 1_000_000 });
    expect((await stateOf()).opening).toBe("done");
    const first = await load(openRecipe, "/recipes/new");
    expect(first).toMatchObject({ leadsOn: true, bare: false });
    const recipe = {
      ...recipeTexts(null, new Map()),
      name: "First salve",
      code: "FS",
      lines: [wax!, oil!].map((m, i) => ({ material: m.name, entered: i === 0 ? "20 g" : "80 g", form: "" })),
      sizes: [{ id: "", container: "", fill: "50 g", minutes: "2", away: "", packaging: [{ material: "", pieces: "1" }] }],
    };
    expect(await post(saveRecipe, recipe)).toMatchObject({ status: 302, to: "/bench/set-out" });
    expect((await stateOf()).recipe).toBe("done");
    // The second one leads to its own sheet.
    expect((await post(saveRecipe, { ...recipe, name: "Second", code: "SE" })).to).toMatch(/^\/recipes\/\d+$/);
    expect((await load(openRecipe, "/recipes/new")).leadsOn).toBe(false);
  });

  it("a step may be skipped: it leads to the one after, and the last to all of them", async () => {
    expect(await post(step, { intent: "skip", step: "batch" })).toMatchObject({ status: 302, to: expect.stringMatching(/^\//) as string });
    expect((await stateOf()).batch).toBe("passed");
    for (const id of ["price", "trace", "batch"]) await post(step, { intent: "skip", step: id });
    // One that is done leads on all the same.
    expect(await post(step, { intent: "skip", step: "name" })).toMatchObject({ to: "/begin" });
  });
});

describe("the frame", () => {
  const framed = async (path: string) => (await load(frame, path)).data;

  it("of one's own leads through the first steps until they are put away; the demo's never does", async () => {
    const own = await framed("/shelf");
    expect(own.workshop).toMatchObject({ name: "Fen House", currency: "GBP", school: STARTING_SETTINGS.school, today: DAY });
    expect(own.led).not.toBeNull();
    await post(step, { intent: "away", step: "" });
    expect((await framed("/shelf")).led).toBeNull();
    await post(step, { intent: "back", step: "" });
    serve("demo");
    expect((await framed("/demo/shelf")).led).toBeNull();
    serve("own");
  });

  it("has what is unfinished on the page at hand, and on no other", async () => {
    const draft = {
      path: "/shelf/receive",
      sheet: "",
      title: "A receipt",
      values: { mine: { day: "1" }, base: {} },
      token: token(1),
      seen: null,
    };
    expect(await post(drafts, draft)).toMatchObject({ status: 200, data: { kept: true } });
    expect((await framed("/shelf/receive")).unfinished.drafts).toMatchObject([
      { sheet: "", token: token(1), values: draft.values, ago: expect.any(String) as string },
    ]);
    expect((await framed("/shelf")).unfinished.drafts).toEqual([]);
    for (const bad of [{ path: "shelf" }, { values: "text" }, { values: { mine: "x".repeat(600_000) } }, { token: "nonsense" }])
      expect(await post(drafts, { ...draft, ...bad }), JSON.stringify(bad).slice(0, 40)).toMatchObject({
        status: 422,
        say: "That can't be saved as a draft.",
      });
    expect(await post(drafts, { ...draft, path: "" })).toMatchObject({ status: 422, fields: ["path"] });
    expect((await listDrafts(db)).length).toBe(1);
    expect(await post(drafts, { ...draft, values: null })).toMatchObject({ data: { kept: false } });
    expect(await listDrafts(db)).toEqual([]);
  });
});

describe("the workshops", () => {
  it("are begun and reset by the house that was started; without one that is said", async () => {
    expect(await load(openWorkshops, "/workshops")).toEqual({ own: "Fen House", booksIn: "/home/maker/books" });
    expect((await post(workshops, { intent: "begin" })).to).toBe("http://127.0.0.1/own/begin/name");
    expect((await post(workshops, { intent: "reset" })).to).toBe("http://127.0.0.1/demo");
    expect(asked).toEqual(["begin", "reset"]);
    expect(await post(workshops, { intent: "sell" })).toMatchObject({ status: 422, fields: [""] });
    serve("own", { house: undefined });
    expect(await post(workshops, { intent: "begin" })).toMatchObject({ status: 422, say: expect.stringContaining("npm start") as string });
    expect(await load(openWorkshops, "/workshops")).toEqual({ own: null, booksIn: null });
    serve("own");
    expect(asked.length).toBe(2);
  });
});

describe("settings", () => {
  it("every choice is kept as it was made, shows where the books are, and two windows see each other's", async () => {
    const page = await load(openSettings, "/settings");
    expect(page).toMatchObject({ fixed: true, booksIn: "/home/maker/books" });
    const texts = settingsTexts(page.settings);
    const typed = {
      ...texts,
      ...{ cardFee: "1.9", multiple: "3.5", margin: "55", checkFirst: "first", leadDays: "9", coverDays: "80", reachUs: "at the fen" },
      ...{ netRule: texts.netRule, school: "average", herbValue: texts.herbValue, scale: "g 1000" },
      channels: { ...texts.channels, online: { ...texts.channels.online, share: "105", fee: "8.5" } },
      seen: page.opened.seen,
    };
    for (const [over, field, say] of [
      [{ maker: "" }, "maker", "Enter who does the work."],
      [{ margin: "91" }, "margin", "Enter 0 to 90 per cent."],
      [{ multiple: "0.5" }, "multiple", "Enter 1 to 20 times."],
      [{ coverDays: "0" }, "coverDays", "Enter at least 1."],
      [{ leadDays: "181" }, "leadDays", "181 days can't be right; the most here is 180."],
      [{ jarScheme: "J{YY}-{NN}{C}" }, "jarScheme", "Bottles add a letter to the jar's number, so that it takes no check character."],
      [
        { channels: { ...typed.channels, gift: { ...typed.channels.gift, share: "0" } } },
        "channels.gift.share",
        "Enter 1 to 300 per cent.",
      ],
    ] as const)
      expect(await post(settings, { ...typed, ...over }), field).toMatchObject({ status: 422, fields: [field], say });
    expect((await post(settings, typed)).status).toBe(302);
    expect(await cachedSettings(db)).toMatchObject({
      ...{
        cardFeeBp: 190,
        checkFirst: true,
        leadDays: 9,
        coverDays: 80,
        reachUs: "at the fen",
        school: "average",
        scale: { unit: "g", step: 1000 },
      },
      pricing: { multipleHundredths: 350, marginBp: 5500, channels: { online: { shareBp: 10_500, feeBp: 850 } } },
    });
    const { seen: _, ...left } = typed;
    expect(settingsTexts((await load(openSettings, "/settings")).settings)).toMatchObject(left);
    expect(await post(settings, { ...typed, leadDays: "10" })).toMatchObject({
      status: 409,
      data: { changed: { theirs: { leadDays: "9", checkFirst: "first" } } },
    });
    // The demo's books are thrown away with a press.
    serve("demo");
    expect((await load(openSettings, "/settings")).booksIn).toBeNull();
    serve("own");
    expect((await readBook(db, {}, 1))[0]!.kind).toBe("settings");
  });
});

describe("a long act", () => {
  it("says how far it is, ends when it is stopped, and is forgotten when it is over, however it ends", async () => {
    const at = token(7);
    expect([goingOn(at), stop(at)]).toEqual([null, false]);
    const seen: unknown[] = [];
    const answer = await withProgress(at, async (progress) => {
      progress(3, 10);
      seen.push(await (await load(progressRoute, "/x", { token: at })).json());
      return "done";
    });
    expect([answer, seen, goingOn(at)]).toEqual(["done", [{ done: 3, of: 10, stopped: false }], null]);
    const stopped = withProgress(at, async (progress) => {
      progress(1, 2);
      expect(await (await load(stopRoute, "/x", { token: at })).json()).toEqual({ stopped: true });
      progress(2, 2);
    });
    await expect(stopped).rejects.toMatchObject({ problems: [{ say: "Stopped. Nothing of it was kept." }] });
    expect(goingOn(at)).toBeNull();
    // Without a token nobody can ask for it.
    const quiet = await withProgress(undefined, (progress) => {
      progress(1, 1);
      return Promise.resolve("done");
    });
    expect(quiet).toBe("done");
  });
});
