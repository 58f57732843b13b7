/** What pages answer that are asked for something: the reckon bar's ways to sheets, the book's filters, people, first steps, a recall's reach and file. */
import { readTable } from "#core/intake/table";
import { readBook } from "#db/acts/book";
import { findLot } from "#db/lots/trace";
import { retireRecipe } from "#db/recipe/keep";
import { listProducts } from "#db/recipe/read";
import { saveContact } from "#db/contacts/contacts";
import { cachedSettings } from "#db/settings/settings";
import { describe, expect, it } from "vitest";
import { serveOnly } from "#app/server/workshop.server.ts";
import { loader as begin, action as firstStep } from "#app/begin/begin.tsx";
import { loader as book } from "#app/book/book.tsx";
import { loader as beginRecall, action as recallLots } from "#app/lots/recall/begin.tsx";
import { loader as recallFile } from "#app/lots/recall/listCsv.ts";
import { loader as setOut } from "#app/bench/settingOut/setOut.tsx";
import { loader as contact, action as keepContact } from "#app/people/contact.tsx";
import { loader as reckon } from "#app/reckon/reckon.ts";
import { DAY, db, idOf, theDemo } from "./demo.ts";
import { load, post } from "./posting.ts";

theDemo();

describe("an act that is asked for leads to its sheet", () => {
  it.each<[string, string, RegExp, string]>([
    ["receive", "Receive a purchase", /^\/shelf\/receive$/, "Open the sheet"],
    ["receive castor oil", "Receive Castor oil", /^\/shelf\/receive\?material=\d+$/, "Open the sheet"],
    ["set out", "Set out a batch", /^\/bench\/set-out$/, "Open the sheet"],
    ["set out hand balm", "Set out Sea buckthorn hand balm", /^\/bench\/set-out\?recipe=\d+$/, "Open the sheet"],
    ["set out 12 hand balm", "Set out 12 × Sea buckthorn hand balm", /^\/bench\/set-out\?recipe=\d+&units=12$/, "Open the sheet"],
    ["count", "Count the shelf", /^\/shelf\/stock-take$/, "Open the stock-take"],
    ["count castor oil", "Count Castor oil", /^\/shelf\/\d+$/, "Open it and count its lots"],
    ["fill a jar", "Fill a jar", /^\/jars\/fill$/, "Open the sheet"],
    ["write a recipe", "Write a recipe", /^\/recipes\/new$/, "Open the sheet"],
    ["plan a market", "Plan a market day", /^\/markets\/new$/, "Open the sheet"],
  ])("%s", async (q, say, to, name) => {
    const [first] = await load(reckon, `/reckon?q=${encodeURIComponent(q)}`);
    expect(first).toMatchObject({ say, steps: [], places: [{ name }] });
    expect(first!.places[0]!.to).toMatch(to);
  });
});

describe("the book", () => {
  const rows = async (query: string) => (await load(book, `/book?${query}`)).rows;
  it("is read a page at a time, newest first, and each page goes on where the last one ended", async () => {
    const seen: number[] = [];
    for (let before = ""; ;) {
      const page = await load(book, `/book${before}`);
      seen.push(...page.rows.map((r) => r.id));
      if (page.more === null) break;
      expect(page.more).toBe(page.rows.at(-1)!.id);
      before = `?before=${page.more}`;
    }
    expect(seen).toEqual([...seen].sort((a, b) => b - a));
    expect(new Set(seen).size).toBe(seen.length);
    expect(seen.length).toBeGreaterThan(60);
  });
  it("is narrowed by days, both counted in, by kind, by station and by record", async () => {
    const days = await rows("from=2026-09-01&to=2026-09-30");
    expect(days.length).toBeGreaterThan(0);
    for (const r of days) expect(r.day >= "2026-09-01" && r.day <= "2026-09-30", r.day).toBe(true);
    expect((await rows(`from=${days[0]!.day}&to=${days[0]!.day}`)).map((r) => r.id)).toContain(days[0]!.id);
    const kinds = new Map((await readBook(db, {}, 5000)).map((r) => [r.id, r.kind]));
    for (const [query, one] of [
      ["kind=pour", "pour"],
      ["station=prices", "price"],
    ] as const) {
      const narrowed = await rows(query);
      expect(narrowed.length, query).toBeGreaterThan(0);
      expect(new Set(narrowed.map((r) => kinds.get(r.id))), query).toEqual(new Set([one]));
    }
    const id = await idOf("Castor oil");
    const about = await load(book, `/book?about=material-${id}`);
    expect(about.record).toMatchObject({ kind: "material", id, called: "Castor oil" });
    expect(await rows("kind=nonsense")).toHaveLength((await rows("")).length);
  });
});

describe("somebody", () => {
  it("is of the kind that was asked for; a copy has no name; one that isn't there is not found", async () => {
    expect(await load(contact, "/people/new?of=customer")).toMatchObject({
      kind: "customer",
      contact: null,
      texts: { name: "" },
      book: null,
    });
    expect(await load(contact, "/people/new?of=moon")).toMatchObject({ kind: "supplier" });
    const { path } = await saveContact(db, { kind: "market", name: "Well green", reach: "0555 0199", note: "By the pump" }, { day: DAY });
    const id = /\d+$/.exec(path)![0];
    const found = await load(contact, `/people/${id}`, { id });
    expect(found).toMatchObject({ kind: "market", texts: { name: "Well green", reach: "0555 0199", note: "By the pump" } });
    expect(found.book!.acts.length).toBeGreaterThan(0);
    expect((await load(contact, `/people/new?like=${id}`)).texts).toEqual({ name: "", reach: "0555 0199", note: "By the pump" });
    await expect(load(contact, "/people/999999", { id: "999999" })).rejects.toMatchObject({ status: 404 });
    expect(await post(keepContact, { kind: "market", name: " ", reach: "", note: "" }, id)).toMatchObject({
      status: 422,
      fields: ["name"],
    });
    expect(await post(keepContact, { kind: "moon", name: "A", reach: "", note: "" }, id)).toMatchObject({ status: 422, fields: ["kind"] });
  });
});

describe("the first steps", () => {
  it("are one's own workshop's; one may be passed over, and all of them put away and brought back", async () => {
    serveOnly({ db, kind: "demo" });
    await expect(load(begin, "/begin")).rejects.toMatchObject({ status: 302 });
    serveOnly({ db, kind: "own" });
    expect(await post(firstStep, { intent: "skip", step: "nonsense" })).toMatchObject({ status: 422, say: "There is no such step." });
    for (const [intent, away] of [
      ["away", true],
      ["back", false],
    ] as const) {
      expect(await post(firstStep, { intent, step: "" })).toMatchObject({ status: 302, to: "/begin" });
      expect((await cachedSettings(db)).firstSteps.away).toBe(away);
      expect((await load(begin, "/begin")).away).toBe(away);
    }
    serveOnly({ db });
  });
});

describe("a recipe that is put away", () => {
  it("isn't offered to be set out, nor its sizes to be ordered, until it is brought back", async () => {
    const offered = async () => (await load(setOut, "/bench/set-out")).choices.map((c) => c.id);
    const [id] = await offered();
    for (const retired of [true, false]) {
      await retireRecipe(db, { id: id!, retired }, { day: DAY });
      expect((await offered()).includes(id!)).toBe(!retired);
      const own = (await listProducts(db)).filter((p) => p.recipeId === id);
      expect(own.some((p) => !p.retired)).toBe(!retired);
    }
  });
});

describe("a recall", () => {
  it("is begun from lots by their numbers, and counts each jar, batch and person once", async () => {
    const empty = await load(beginRecall, "/lots/recalls/new?find=R26");
    expect(empty).toMatchObject({ chosen: null, find: "R26", rehearse: false });
    expect(empty.found.length).toBeGreaterThan(1);
    const asked = async (number: string) => load(beginRecall, `/lots/recalls/new?lot=${number}&rehearse`);
    const found = (await load(beginRecall, "/lots/recalls/new?find=beeswax")).found.filter((l) => l.number.startsWith("R"));
    const reached = await Promise.all(found.map((l) => asked(l.number)));
    const used = reached.findIndex((r) => r.chosen!.reach.lots > 3);
    const wax = found[used]!;
    const { chosen, rehearse } = reached[used]!;
    expect(rehearse).toBe(true);
    expect(chosen!.ids).toEqual([(await findLot(db, wax.number))!.id]);
    expect(chosen!.meant[0]!.number).toBe(wax.number);
    expect(chosen!.reach.lots).toBeGreaterThan(1);
    expect(chosen!.reach.batches).toBeLessThan(chosen!.reach.lots);
    const body = { lots: chosen!.ids.map(String), reason: "Grit in it", toDo: "Don't use it", rehearsal: true };
    expect(await post(recallLots, { ...body, lots: [] })).toMatchObject({ status: 422, say: "Choose a lot to begin with." });
    expect(await post(recallLots, { ...body, reason: "" })).toMatchObject({ status: 422, fields: ["reason"] });
    const { to } = await post(recallLots, body);
    const id = /\d+$/.exec(to)![0];
    const file = await load(recallFile, `/lots/recalls/${id}/list.csv`, { id });
    expect(file.headers.get("content-disposition")).toMatch(new RegExp(`^attachment; filename="recall-${id}-\\d{4}-\\d\\d-\\d\\d\\.csv"$`));
    const table = readTable(await file.text());
    const { header, rows: lines } = table.ok ? table.value : { header: [], rows: [] };
    expect(lines.length).toBeGreaterThan(1);
    const at = (head: string): number => header.indexOf(head);
    expect(new Set(lines.map((l) => l[at("where")]))).toContain("here");
    for (const l of lines) {
      expect(["g", "pcs"]).toContain(l[at("unit")]);
      expect(Number(l[at("amount")]), l.join()).toBeGreaterThan(0);
    }
    // The wax itself is weighed: its line is in grams as the shelf has it.
    const here = lines.find((l) => l[at("where")] === "here" && l[at("lot")] === wax.number);
    const onHand = (await findLot(db, wax.number))!.onHand;
    if (onHand > 0) expect([here![at("amount")], here![at("unit")]]).toEqual([String(onHand / 1000), "g"]);
    else expect(here).toBeUndefined();
  });
});
