/** Sheets of the shelf as a browser posts them, on the demo workshop: what is right is kept, what is wrong is said beside its field. */
import { listHarvests } from "#db/shelf/harvests";
import { listMaterials } from "#db/shelf/materials";
import { listReceipts, readReceipt, stillToCome } from "#db/shelf/receipts";
import { notedSoFar, walkShelf } from "#db/shelf/stocktake";
import { expectLedgerTrue } from "#db/test/fresh";
import { takeBack } from "#db/act/takeBack";
import { act, lot } from "#db/schema";
import { and, eq, gt, like, sql } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import { action as fromFile } from "../shelf/receipts/file.tsx";
import { action as openingFile } from "../shelf/opening/file.tsx";
import { action as harvest } from "../shelf/harvests/harvest.tsx";
import { action as material } from "../shelf/materials/material.tsx";
import { action as pick } from "../shelf/harvests/pick.tsx";
import { action as receipt } from "../shelf/receipts/receipt.tsx";
import { action as receive } from "../shelf/receipts/receive.tsx";
import { action as correct } from "../shelf/receipts/correct.tsx";
import { action as stockTake } from "../shelf/counting/stockTake.tsx";
import { action as noted } from "../shelf/counting/noted.ts";
import { action as fill } from "../jars/fill.tsx";
import { loader as readFile } from "../files/file.ts";
import type { Preview } from "../shelf/intake/intake.server.ts";
import { post, type Action } from "./posting.ts";
import { db, theDemo } from "./demo.ts";

theDemo();

const idOf = async (name: string): Promise<number> => (await listMaterials(db)).find((m) => m.name === name)!.id;

describe("receipts", () => {
  const line = { material: "Castor oil", packs: "2", packSize: "250 mL", price: "10.00", supplierLot: "", bestBefore: "" };
  const sheet = (over: object = {}) => ({ supplier: "Far Shore", day: "2026-11-20", postage: "5", lines: [line], ...over });
  it.each<[string, object, string]>([
    ["a foreign receipt without a rate", { currency: "USD" }, "rate"],
    ["a currency nobody knows", { currency: "XXX", rate: "1" }, "currency"],
    ["a rate of nothing", { currency: "USD", rate: "0" }, "rate"],
    ["more discount than goods", { discount: "10.01" }, "discount"],
    [
      "shared by weight with pieces nobody weighed",
      { spreadBy: "weight", lines: [line, { ...line, material: "Lip tube with cap", packSize: "10" }] },
      "spreadBy",
    ],
    ["shared by the moon", { spreadBy: "moon" }, "spreadBy"],
    ["more come than ordered", { lines: [{ ...line, arrived: "3" }] }, "lines.0.arrived"],
    ["half a pack come", { lines: [{ ...line, arrived: "0.5" }] }, "lines.0.arrived"],
    ["tax below zero", { tax: "-1" }, "tax"],
  ])("%s", async (_, over, field) => {
    const before = await listReceipts(db);
    expect(await post(receive, sheet(over))).toMatchObject({ status: 422, fields: [field] });
    expect(await listReceipts(db)).toEqual(before);
  });
  it("a foreign receipt, partly come, is kept in both currencies; what was to come arrives from its sheet", async () => {
    const { to } = await post(receive, sheet({ currency: "USD", rate: "0.9", tax: "1", lines: [{ ...line, arrived: "1" }] }));
    const id = /receipts\/(\d+)/.exec(to)![1]!;
    const found = (await readReceipt(db, Number(id)))!;
    expect(found.receipt).toMatchObject({ currency: "USD", rate: 900_000, tax: 1_000_000 });
    expect(found.lines.reduce((a, l) => a + l.line.landed, 0)).toBe(14_400_000);
    const waiting = found.lines.find((l) => l.line.lotId === null)!.line.id;
    expect(await post(receipt, { intent: "arrive", lineId: waiting, packs: "2", supplierLot: "", bestBefore: "" }, id)).toMatchObject({
      fields: ["packs"],
    });
    expect(await post(receipt, { intent: "arrive", lineId: waiting, packs: "1", supplierLot: "", bestBefore: "soon" }, id)).toMatchObject({
      fields: ["bestBefore"],
    });
    expect(await post(receipt, { intent: "arrive", lineId: waiting, packs: "1", supplierLot: "", bestBefore: "" }, id)).toMatchObject({
      status: 302,
    });
    expect((await stillToCome(db)).size).toBe(0);
    const again = { ...sheet({ lines: found.lines.map((l) => ({ ...line, id: String(l.line.id), packs: "1", price: "6" })) }) };
    expect((await post(correct, again, id)).status).toBe(302);
    expect((await readReceipt(db, Number(id)))!.receipt).toMatchObject({ currency: "", rate: 1_000_000 });
    await expectLedgerTrue(db);
  });
  it("a scan that isn't one is refused beside the file, a real one is shown as it was", async () => {
    const form = (bytes: BlobPart, name: string): FormData => {
      const f = new FormData();
      f.set("file", new File([bytes], name));
      return f;
    };
    expect(await post(receipt, form("hello", "scan.pdf"), "3")).toMatchObject({ status: 422, fields: ["file"] });
    expect(await post(receipt, new FormData(), "3")).toMatchObject({ status: 422, fields: ["file"], say: "Choose a file first." });
    const pdf = "%PDF-1.4\n1 0 obj<<>>endobj\ntrailer<<>>\n%%EOF";
    expect((await post(receipt, form(pdf, "März.pdf"), "3")).status).toBe(302);
    const [scan] = (await readReceipt(db, 3))!.scans;
    const file = (await (readFile as unknown as Action)({
      request: new Request("http://127.0.0.1/"),
      params: { id: String(scan!.id) },
      context: {},
    })) as Response;
    expect([file.headers.get("content-type"), file.headers.get("x-content-type-options"), await file.text()]).toEqual([
      "application/pdf",
      "nosniff",
      pdf,
    ]);
    expect((await post(receipt, { intent: "dropScan", scan: String(scan!.id) }, "3")).status).toBe(302);
    expect((await readReceipt(db, 3))!.scans).toEqual([]);
  });
});

describe("a file of receipts", () => {
  const look = async (text: string, over: object = {}): Promise<Preview> =>
    (
      (
        await post(fromFile, {
          text,
          numbers: "",
          dates: "",
          supplier: "Mill",
          day: "2026-11-20",
          columns: {},
          matches: {},
          ...over,
          intent: "look",
        })
      ).data as { preview: Preview }
    ).preview;
  /** Puts on the shelf what was looked at; `over` is changed after that. */
  const putShown = async (sheet: { text: string }, over: object = {}) =>
    post(fromFile, { ...sheet, ...over, intent: "receive", shown: (await look(sheet.text, sheet)).digest });
  const csv = "item;qty;size;total\nCastor oil;1;250 mL;5,40\nMoon dust;1;1 kg;1.234,00\n";
  it("is looked at first: columns and styles found, unknown names told, nothing kept", async () => {
    const before = await listReceipts(db);
    const p = await look(csv);
    expect(p).toMatchObject({ rows: 2, numbers: "comma", priceOf: "all", asked: { numbers: "", dates: "" }, twice: null, say: null });
    expect(p.intake.problems).toMatchObject([{ row: 3, field: "material", heading: "item" }]);
    expect(p.intake).toMatchObject({ lines: 1, problemCount: 1, unknown: [{ name: "Moon dust", rows: 1 }] });
    expect(await listReceipts(db)).toEqual(before);
  });
  it("dates that could be two days are asked about, and nothing is received by a guess", async () => {
    const dated = "item;qty;size;total;date\nCastor oil;1;250 mL;5,40;26-03-05\n";
    const p = await look(dated);
    expect(p).toMatchObject({ dates: "", intake: { lines: 0 } });
    expect(p.asked.dates).toContain("Thursday 5 March 2026 or Saturday 26 March 2005");
    const sheet = { intent: "receive", text: dated, numbers: "", dates: "", supplier: "Mill", columns: {}, matches: {} };
    expect(await post(fromFile, sheet)).toMatchObject({ status: 422, fields: [""] });
    expect((await look(dated, { dates: "ymd" })).intake.shown[0]).toMatchObject({ day: "2026-03-05" });
  });
  it("a name can be taken for a material or added as one; a column can be said to be another, or none", async () => {
    expect((await look(csv, { matches: { "Moon dust": "Arrowroot starch" } })).intake).toMatchObject({ lines: 2, unknown: [] });
    expect((await look(csv, { matches: { "Moon dust": "kind:powder" } })).intake.shown[1]).toMatchObject({
      material: "Moon dust",
      price: 1_234_000_000,
    });
    expect((await look(csv, { matches: { "Moon dust": "kind:spell" } })).intake.lines).toBe(1);
    expect((await look(csv, { columns: { price: "none" } })).say).toContain("is price.");
    expect((await look(csv, { columns: { price: "99" } })).say).toContain("is price.");
    // A comma before two digits is no thousands mark, whatever is said: 5.40 it is.
    expect((await look(csv, { numbers: "point" })).intake.shown.map((l) => l.price)).toEqual([5_400_000]);
  });
  it("two spellings of one entry of the library are one material", async () => {
    const text = "item;size;total\nSal buter;1 kg;9,00\nSal fat;500 g;5,50";
    const sheet = {
      intent: "receive",
      text,
      numbers: "",
      dates: "",
      supplier: "Mill",
      day: "2026-11-20",
      columns: {},
      matches: { "Sal buter": "library:sal", "Sal fat": "library:sal" },
    };
    expect(await putShown(sheet)).toMatchObject({ status: 302 });
  });
  it.each([
    ["", "There is nothing in it."],
    ["\u0000\u0001", "isn't a table as text"],
    ["one\ntwo", "only one column"],
  ])("%j is refused in words", async (text, say) => {
    const a = await post(fromFile, { intent: "receive", text });
    expect(a).toMatchObject({ status: 422, fields: ["text"] });
    expect(a.say).toContain(say);
  });
  it("nothing that can be received is said so, and a day after today is no receipt's", async () => {
    expect(await post(fromFile, { intent: "receive", text: "item;size;total\nGhost;1 kg;1", supplier: "Mill" })).toMatchObject({
      status: 422,
      fields: [""],
    });
    const future = await look("item;size;total;date\nCastor oil;1 L;9;2026-11-26");
    expect(future.intake.problems[0]!.say).toContain("hasn't come yet");
    const undated = await look("item;size;total\nCastor oil;1 L;9", { day: "" });
    expect(undated.intake).toMatchObject({ lines: 0, problems: [{ row: 2, field: "day", say: "Say when it was bought." }] });
  });
  it("what can be read goes on the shelf as one act, new materials and all", async () => {
    const asked = { intent: "receive", text: csv, supplier: "Mill", day: "2026-11-19", matches: { "Moon dust": "kind:powder" } };
    const a = await putShown(asked);
    expect(a.status).toBe(302);
    const id = Number(/receipts\/(\d+)/.exec(a.to)![1]);
    expect((await readReceipt(db, id))!.lines.map((l) => [l.material, l.line.qty])).toEqual([
      ["Castor oil", 240_000],
      ["Moon dust", 1_000_000],
    ]);
    // A price changed after it was shown, as long as before: what was shown is kept, or nothing.
    const again = { ...asked, twice: "again" };
    const other = await putShown(again, { text: csv.replace("1.234,00", "1.235,00") });
    expect(other).toMatchObject({ status: 422, say: expect.stringContaining("isn't what was shown") as string });
    expect(await post(fromFile, again)).toMatchObject({ status: 422, say: expect.stringContaining("isn't what was shown") as string });
  });
  it("the same file again is noticed, in whole or in part, and is what one says it is", async () => {
    const sheet = {
      text: "item;size;total;date;shop\nCastor oil;1 L;9;2026-11-02;Twice Mill\nCastor oil;1 L;9;2026-11-02;Twice Mill\n",
      day: "",
    };
    const lots = async () => (await walkShelf(db)).length;
    expect(await putShown(sheet)).toMatchObject({ status: 302 });
    const before = await lots();
    expect((await look(sheet.text)).twice).toEqual({
      say: "All of these lines are in the books already, on receipts of the same supplier and day. Say what to do with them.",
      asked: true,
    });
    expect(await putShown(sheet)).toMatchObject({ status: 422, say: expect.stringContaining("in the books already") as string });
    expect(await putShown(sheet, { twice: "out" })).toMatchObject({ status: 422 });
    // This month's file has last month's lines in it: only the new one comes.
    const more = { text: `${sheet.text}Castor oil;1 L;9;2026-11-02;twice mill\nCastor oil;500 mL;5;2026-11-03;Twice Mill\n`, day: "" };
    expect((await look(more.text)).twice!.say).toContain("2 lines of 4 are in the books already");
    expect(await putShown({ ...more, twice: "out" } as typeof more)).toMatchObject({ status: 302 });
    expect(await lots()).toBe(before + 2);
    expect(await putShown({ ...more, twice: "again" } as typeof more)).toMatchObject({ status: 302 });
    expect(await lots()).toBe(before + 6);
  });
  it("opening stock is known again by material, amount and lot", async () => {
    const text = "item;amount;lot\nCastor oil;313 g;OP-1\n";
    const first = await post(openingFile, { text, intent: "look" });
    const { digest } = (first.data as { preview: Preview }).preview;
    expect(await post(openingFile, { text, intent: "receive", shown: digest })).toMatchObject({ status: 302 });
    const again = (await post(openingFile, { text, intent: "look" })).data as { preview: Preview };
    expect(again.preview.twice?.say).toContain("This line is in the books already, as opening stock.");
    const other = (await post(openingFile, { text: text.replace("OP-1", "OP-2"), intent: "look" })).data as { preview: Preview };
    expect(other.preview.twice).toBeNull();
  });
  it("money of another sign is asked about, and its receipt keeps its currency and rate", async () => {
    const text = "item;size;total;date;shop\nCastor oil;1 L;$20;2026-11-04;Far Mill\n";
    const asked = await look(text);
    expect(asked).toMatchObject({
      intake: { lines: 0 },
      foreign: [{ sign: "$", currencies: expect.arrayContaining(["USD", "EUR"]) as string[] }],
    });
    expect((await look(text, { money: { $: "USD" }, rates: { $: "dear" } })).asked.money).toHaveLength(1);
    const sheet = { text, money: { $: "USD" }, rates: { $: "0.9" } };
    const done = await putShown(sheet);
    const id = Number(/receipts\/(\d+)/.exec(done.to)![1]);
    expect(await readReceipt(db, id)).toMatchObject({
      receipt: { currency: "USD", rate: 900_000 },
      lines: [{ line: { price: 20_000_000, landed: 18_000_000 } }],
    });
  });
  it("what went back is taken out of what came from there, newest first, and comes back with the act", async () => {
    const castor = await idOf("Castor oil");
    const mine = () =>
      db
        .select({ lot: lot.supplierLot, onHand: lot.onHand })
        .from(lot)
        .where(and(eq(lot.materialId, castor), like(lot.supplierLot, "BK-%"), gt(lot.onHand, 0)));
    const head = "date;shop;item;size;qty;line total;lot";
    const text = [
      head,
      "2026-11-05;Back Mill;Castor oil;1 kg;1;9;BK-1",
      "2026-11-06;Back Mill;Castor oil;1 kg;1;9;BK-2",
      "2026-11-07;back mill;Castor oil;500 g;-3;-13,50;",
    ].join("\n");
    const done = await putShown({ text });
    expect(done.status).toBe(302);
    expect(await mine()).toEqual([{ lot: "BK-1", onHand: 500_000 }]);
    await expectLedgerTrue(db);
    expect((await look(text)).twice!.say).toContain("All of these lines");
    const [{ id }] = (await db.select({ id: sql<number>`max(id)::int` }).from(act)) as [{ id: number }];
    // More than came from there, and of a lot that isn't theirs.
    const late = (row: string) => putShown({ text: [head, row].join("\n") });
    expect((await late("2026-11-08;Back Mill;Castor oil;1 kg;-1;-9;")).say).toContain(
      "Row 2: 1 kg of Castor oil can't have gone back to Back Mill",
    );
    expect((await late("2026-11-04;Back Mill;Castor oil;100 g;-1;-1;")).say).toContain("0 g is left");
    expect((await late("2026-11-08;Back Mill;Castor oil;100 g;-1;-1;BK-2")).say).toContain("0 g is left");
    await takeBack(db, id, { day: "2026-11-25" });
    expect(await mine()).toEqual([]);
    await expectLedgerTrue(db);
  });
});

describe("lots, counts and harvests", () => {
  it.each<[string, object, string]>([
    ["nothing", { amount: "" }, "amount"],
    ["zero", { amount: "0 g" }, "amount"],
    ["more than there is", { amount: "900 kg" }, "amount"],
    ["for no reason of the list", { amount: "1 g", why: "magic" }, "why"],
    ["another material's lot", { amount: "1 g", lotId: 1 }, "amount"],
  ])("taking out %s is refused", async (_, over, field) => {
    const id = await idOf("Castor oil");
    const lot = (await walkShelf(db)).find((l) => l.materialId === id)!;
    expect(await post(material, { intent: "takeOut", lotId: lot.id, why: "wasted", note: "", ...over }, String(id))).toMatchObject({
      status: 422,
      fields: [field],
    });
  });
  it("a herb lot is said to be wilted, and then a shelf jar wants a reason; an oil has no dryness", async () => {
    const lotOf = async (id: number) => (await walkShelf(db)).find((l) => l.materialId === id)!.id;
    const [herb, oil] = [await idOf("Elderflower, dried"), await idOf("Castor oil")];
    const said = { intent: "dryness", lotId: await lotOf(herb), dryness: "wilted" };
    expect(await post(material, { ...said, lotId: await lotOf(oil) }, String(oil))).toMatchObject({ status: 422, fields: ["dryness"] });
    expect(await post(material, { ...said, lotId: await lotOf(oil) }, String(herb))).toMatchObject({ status: 422, fields: ["dryness"] });
    expect(await post(material, { ...said, dryness: "soggy" }, String(herb))).toMatchObject({ status: 422, fields: ["dryness"] });
    expect((await post(material, said, String(herb))).status).toBe(302);
    const wet = { material: "Elderflower, dried", lot: String(said.lotId), cut: "whole", parts: "1" };
    const jarOf = {
      name: "",
      method: "shelf",
      ownDays: "",
      ownHours: "",
      day: "2026-11-25",
      wished: "",
      by: "ratio",
      oil: "50 g",
      ratio: "10",
      holds: "",
      herbs: [wet],
      carriers: [{ material: "Castor oil", lot: "", parts: "1" }],
    };
    expect(await post(fill, jarOf)).toMatchObject({ status: 422, fields: ["why"] });
    expect((await post(material, { ...said, dryness: "dry" }, String(herb))).status).toBe(302);
  });
  it("a count knows what its window had: another's isn't overwritten unseen, and what wasn't seen isn't posted", async () => {
    const [oil, wax] = (await walkShelf(db)).filter((l) => l.kind === "oil");
    const note = (lotId: number, counted: string, was: string) => post(noted, { lotId, counted, was, note: "" });
    expect(await note(oil!.id, "20 g", "")).toMatchObject({ status: 200 });
    expect(await note(oil!.id, "30 g", "")).toMatchObject({
      status: 422,
      fields: [`lot.${oil!.id}`],
      say: "Counted 20 g in another window. Look again.",
    });
    // The same by both is no quarrel, and one's own is changed.
    expect(await note(oil!.id, "20 g", "")).toMatchObject({ status: 200 });
    expect(await note(oil!.id, "30 g", "20 g")).toMatchObject({ status: 200 });
    const seen = await notedSoFar(db);
    expect(await note(wax!.id, "40 g", "")).toMatchObject({ status: 200 });
    expect(await post(stockTake, { intent: "post", noted: seen })).toMatchObject({
      status: 422,
      say: expect.stringContaining("other counts were noted") as string,
    });
    expect(await note(wax!.id, "", "")).toMatchObject({ status: 422, say: "Counted 40 g in another window. Look again." });
    expect(await note(wax!.id, "", "40 g")).toMatchObject({ status: 200 });
    expect(await note(wax!.id, "7 g", "40 g")).toMatchObject({
      status: 422,
      say: "Its count was taken out in another window. Look again.",
    });
    expect(await notedSoFar(db)).toBe(seen);
    expect(await post(stockTake, { intent: "post", noted: seen })).toMatchObject({ status: 302 });
  });
  it("a count of a stock-take is kept in any unit, taken back empty, and refused in words", async () => {
    const lot = (await walkShelf(db)).find((l) => l.material === "Castor oil")!;
    const counted = async () => (await walkShelf(db)).find((l) => l.id === lot.id)!.counted;
    expect((await post(noted, { lotId: lot.id, counted: "100 mL", note: "" })).status).toBe(200);
    expect(await counted()).toBe(96_000);
    expect(await post(noted, { lotId: lot.id, counted: "lots", note: "" })).toMatchObject({
      status: 422,
      fields: [`lot.${lot.id}`],
    });
    expect(await counted()).toBe(96_000);
    expect((await post(noted, { lotId: lot.id, counted: " ", note: "" })).status).toBe(200);
    expect(await counted()).toBeNull();
    await post(noted, { lotId: lot.id, counted: "0", note: "" });
    expect((await post(stockTake, { intent: "drop", lotId: 0 })).status).toBe(302);
    expect(await counted()).toBeNull();
  });
  it("a picking of what is no herb, or of tomorrow, is refused; a harvest at the market price wants the price", async () => {
    const sheet = {
      herb: "Rosemary leaf, dried",
      picked: "2026-11-25",
      place: "",
      fresh: "200 g",
      method: "air",
      celsius: "",
      minutes: "",
      note: "",
    };
    expect(await post(pick, { ...sheet, herb: "Castor oil" })).toMatchObject({ fields: ["herb"] });
    expect(await post(pick, { ...sheet, picked: "2026-11-26" })).toMatchObject({ fields: ["picked"] });
    expect(await post(pick, { ...sheet, fresh: "2 cups" })).toMatchObject({ fields: ["fresh"] });
    expect(await post(pick, { ...sheet, method: "magic" })).toMatchObject({ fields: ["method"] });
    const { to } = await post(pick, sheet);
    const id = /harvests\/(\d+)/.exec(to)![1]!;
    const dry = { intent: "dry", dry: "50 g", snaps: true, minutes: "40", valuedBy: "market", market: "" };
    expect(await post(harvest, dry, id)).toMatchObject({ fields: ["market"] });
    expect((await post(harvest, { ...dry, market: "30" }, id)).status).toBe(302);
    expect((await listHarvests(db, { id: Number(id) }))[0]!.harvest).toMatchObject({ value: 1_500_000, valuedBy: "market" });
  });
});
