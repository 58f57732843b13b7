/** Sheets of the shelf as a browser posts them, on the demo workshop: valid ones are saved, errors appear beside their fields. */
import { readBook } from "#db/acts/book";
import { reverseAct } from "#db/acts/reverse";
import { listHarvests } from "#db/shelf/harvests";
import { listReceipts, readReceipt, stillToCome } from "#db/shelf/receipts/receipts";
import { notedSoFar, walkShelf } from "#db/shelf/counting/stocktake";
import { expectLedgerTrue } from "#test/db/fresh";
import { describe, expect, it } from "vitest";
import { action as harvest } from "#app/shelf/harvests/harvest.tsx";
import { stuffOf } from "#db/shelf/sheetMaterials";
import { action as material } from "#app/shelf/materials/material.tsx";
import { action as pick } from "#app/shelf/harvests/pick.tsx";
import { action as receipt } from "#app/shelf/receipts/receipt.tsx";
import { action as receive } from "#app/shelf/receipts/receive.tsx";
import { action as correct } from "#app/shelf/receipts/correct.tsx";
import { action as stockTake } from "#app/shelf/counting/stockTake.tsx";
import { action as noted } from "#app/shelf/counting/noted.ts";
import { action as fill } from "#app/jars/fill.tsx";
import { loader as readFile } from "#app/files/file.ts";
import { post, type Action } from "./posting.ts";
import { db, idOf, theDemo } from "./demo.ts";

theDemo();

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
    ["a best-before the day before it came", { lines: [{ ...line, bestBefore: "2026-11-19" }] }, "lines.0.bestBefore"],
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
  it("a bottle is asked once how it drips: recipes and the bench know it, until it is taken back; a herb has no drops", async () => {
    const drips = async (name: string) => (await stuffOf(db, [await idOf(name)]))[0]!.lots.map((l) => l.dropsPerMl);
    const lotOf = async (id: number) => (await walkShelf(db)).find((l) => l.materialId === id)!.id;
    const [scent, herb] = [await idOf("Lavender essential oil"), await idOf("Elderflower, dried")];
    const said = { intent: "drips", lotId: await lotOf(scent), drips: "27,5" };
    for (const wrong of ["", "4.9", "61", "many", "-20"])
      expect(await post(material, { ...said, drips: wrong }, String(scent)), wrong).toMatchObject({ status: 422, fields: ["drips"] });
    const oils = await lotOf(await idOf("Castor oil"));
    expect(await post(material, { ...said, lotId: oils }, String(scent))).toMatchObject({ status: 422, fields: ["drips"] });
    expect(await post(material, { ...said, lotId: await lotOf(herb) }, String(herb))).toMatchObject({ status: 422, fields: ["drips"] });
    expect(await drips("Lavender essential oil")).not.toContain(28);
    expect((await post(material, said, String(scent))).status).toBe(302);
    expect(await drips("Lavender essential oil")).toContain(28);
    const [first] = await readBook(db, {});
    expect((await post(material, { ...said, drips: "30" }, String(scent))).status).toBe(302);
    await expect(reverseAct(db, first!.id, { day: "2026-11-25" })).rejects.toThrow(/said again since/);
    const [second] = await readBook(db, {});
    await reverseAct(db, second!.id, { day: "2026-11-25" });
    expect(await drips("Lavender essential oil")).toContain(28);
    await reverseAct(db, first!.id, { day: "2026-11-25" });
    expect(await drips("Lavender essential oil")).not.toContain(28);
  });
  it("a count knows what its window had: another's isn't overwritten unseen, and what wasn't seen isn't posted", async () => {
    const [oil, wax] = (await walkShelf(db)).filter((l) => l.kind === "oil");
    const note = (lotId: number, counted: string, was: number | null, sent: string[] = []) =>
      post(noted, { lotId, counted, was, sent, note: "" });
    expect(await note(oil!.id, "20 g", null)).toMatchObject({ status: 200 });
    expect(await note(oil!.id, "30 g", null)).toMatchObject({
      status: 422,
      fields: [`lot.${oil!.id}`],
      say: "Counted 20 g in another window. Look again.",
    });
    // The same by both is no quarrel, and one's own is changed.
    expect(await note(oil!.id, "20 g", null)).toMatchObject({ status: 200 });
    expect(await note(oil!.id, "30 g", 20_000)).toMatchObject({ status: 200 });
    // By the milligram, not as it is shown; and what this window sent a moment ago is its own, answered or not.
    expect(await note(oil!.id, "1 oz", 30_000)).toMatchObject({ status: 200 });
    expect(await note(oil!.id, "31 g", 28_350)).toMatchObject({ status: 200 });
    expect(await note(oil!.id, "32 g", 28_350, ["31 g"])).toMatchObject({ status: 200 });
    expect(await note(oil!.id, "33 g", 28_350, ["31 g", "many"])).toMatchObject({ status: 422 });
    const seen = await notedSoFar(db);
    expect(await note(wax!.id, "40 g", null)).toMatchObject({ status: 200 });
    expect(await post(stockTake, { intent: "post", noted: seen })).toMatchObject({
      status: 422,
      say: expect.stringContaining("other counts were noted") as string,
    });
    expect(await note(wax!.id, "", null)).toMatchObject({ status: 422, say: "Counted 40 g in another window. Look again." });
    expect(await note(wax!.id, "", 40_000)).toMatchObject({ status: 200 });
    expect(await note(wax!.id, "7 g", 40_000)).toMatchObject({
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
