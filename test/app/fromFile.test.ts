/** A file of receipts or of opening stock by its routes: looked at first, asked about, received as one act, and known again. */
import { reverseAct } from "#db/acts/reverse";
import { contactsOf } from "#db/contacts/contacts";
import { act, lot } from "#db/schema";
import { listReceipts, readReceipt } from "#db/shelf/receipts/receipts";
import { walkShelf } from "#db/shelf/counting/stocktake";
import { expectLedgerTrue } from "#test/db/fresh";
import { and, eq, gt, like, sql } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import type { Preview } from "#app/shelf/intake/intake.server.ts";
import { action as peopleFile } from "#app/people/file.tsx";
import { action as openingFile } from "#app/shelf/opening/file.tsx";
import { action as fromFile } from "#app/shelf/receipts/file.tsx";
import { db, idOf, theDemo } from "./demo.ts";
import { post } from "./posting.ts";

theDemo();

describe("a file of receipts", () => {
  /** The choices beside a file, as nobody has made them. */
  const SHEET = { numbers: "", dates: "", supplier: "Mill", day: "2026-11-20", columns: {}, matches: {} };
  const look = async (text: string, over: object = {}): Promise<Preview> =>
    ((await post(fromFile, { ...SHEET, text, ...over, intent: "look" })).data as { preview: Preview }).preview;
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
    expect(await post(fromFile, { ...SHEET, intent: "receive", text: dated })).toMatchObject({ status: 422, fields: [""] });
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
    // A comma before two digits is no thousands mark, whatever was chosen: 5.40 it is.
    expect((await look(csv, { numbers: "point" })).intake.shown.map((l) => l.price)).toEqual([5_400_000]);
  });
  it("two spellings of one entry of the library are one material", async () => {
    const text = "item;size;total\nSal buter;1 kg;9,00\nSal fat;500 g;5,50";
    const sheet = { ...SHEET, text, matches: { "Sal buter": "library:sal", "Sal fat": "library:sal" } };
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
    expect(other).toMatchObject({ status: 422, say: expect.stringContaining("has changed since it was shown") as string });
    expect(await post(fromFile, again)).toMatchObject({
      status: 422,
      say: expect.stringContaining("has changed since it was shown") as string,
    });
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
    await reverseAct(db, id, { day: "2026-11-25" });
    expect(await mine()).toEqual([]);
    await expectLedgerTrue(db);
  });
});

describe("names out of a file", () => {
  const text = "Customer;Phone;Remark\nFen school;0555 0133;no nuts\nnan next door;;changed\n;0555;\n";
  const SHEET = { extras: { kind: "customer" }, text, columns: {}, shown: "" };
  type Looked = {
    say: string | null;
    header: string[];
    columns: Record<string, number | null>;
    fresh: number;
    there: string[];
    problems: { row: number }[];
    digest: string;
  };
  const look = async (over: object = {}): Promise<Looked> =>
    ((await post(peopleFile, { ...SHEET, ...over, intent: "look" })).data as { preview: Looked }).preview;
  const customers = async () => (await contactsOf(db, "customer")).map((c) => c.name);

  it("are looked at first: who is new, who is known, and whose row says nobody", async () => {
    const before = await customers();
    expect(await look()).toMatchObject({
      header: ["Customer", "Phone", "Remark"],
      columns: { name: 0, address: null, telephone: 1, email: null, note: 2 },
      fresh: 1,
      there: ["nan next door"],
      problems: [{ row: 4 }],
    });
    // Another column is the one with the names; one that isn't there is as it was guessed.
    expect(await look({ columns: { name: "1", telephone: "none", note: "9" } })).toMatchObject({
      columns: { name: 1, telephone: null, note: 2 },
      fresh: 2,
    });
    // The same names may be new among suppliers.
    expect(await look({ extras: { kind: "supplier" } })).toMatchObject({ fresh: 2, there: [] });
    // Without a column of names it can still be chosen, and nobody is added.
    const nameless = await look({ columns: { name: "none" } });
    expect(nameless).toMatchObject({ columns: { name: null }, say: "Say which column has the name.", fresh: 0, there: [], problems: [] });
    expect(await post(peopleFile, { ...SHEET, columns: { name: "none" }, shown: nameless.digest, intent: "add" })).toMatchObject({
      status: 422,
      say: "Say which column has the name.",
    });
    expect(await customers()).toEqual(before);
  });

  it("are added as they were shown, once, and nobody else", async () => {
    const add = async (over: object) => post(peopleFile, { ...SHEET, intent: "add", ...over });
    const { digest } = await look();
    expect((await add({ shown: "another" })).say).toContain("has changed since it was shown");
    expect((await add({ shown: digest, text: `${text}Lock keeper;;\n` })).say).toContain("has changed since it was shown");
    const many = `Name\n${Array.from({ length: 5001 }, (_, i) => `Customer ${i}`).join("\n")}`;
    const tooMany = await look({ text: many });
    expect([tooMany.fresh, tooMany.say]).toEqual([5001, expect.stringContaining("up to 5000 at a time")]);
    expect((await add({ text: many, shown: tooMany.digest })).say).toBe(tooMany.say);
    expect(await customers()).not.toContain("Fen school");
    expect(await add({ shown: digest })).toMatchObject({ status: 302, to: "/people?of=customer" });
    const found = (await contactsOf(db, "customer")).find((c) => c.name === "Fen school");
    expect(found).toMatchObject({ reach: "0555 0133", note: "no nuts", times: 0 });
    expect((await contactsOf(db, "customer")).find((c) => c.name === "Nan next door")!.note).not.toBe("changed");
    expect((await add({ shown: (await look()).digest })).say).toBe("Nothing in it is new.");
  });
});
