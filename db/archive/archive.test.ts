/**
 * A workshop as one file: what goes out comes back in, to the byte, and can be worked on; and a file that isn't what was written is refused by part
 * and line, with its digests made again or not.
 */
import { ARCHIVE_FORMAT, recordsPart, rowsByKind, type Manifest } from "#core/archive/manifest";
import { Refused } from "#core/refused";
import { loadDemo } from "#demo/load";
import { sql } from "drizzle-orm";
import fc from "fast-check";
import Papa from "papaparse";
import { createWriteStream, existsSync, readdirSync, readFileSync } from "node:fs";
import { Writable } from "node:stream";
import { setTimeout as pause } from "node:timers/promises";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { archiveOf, eachFileHasAFolder, fileOf, inFolder, loaded, partsOf, resealed, sha256, zipOf, type Parts } from "#test/db/archives";
import { expectLedgerTrue, freshDb } from "#test/db/fresh";
import { readBook } from "../acts/book.ts";
import { reverseAct } from "../acts/reverse.ts";
import { keepScan, readAttachment } from "../attachments/attachments.ts";
import type { OpenDb } from "../client.ts";
import { saveMaterial } from "../shelf/keepMaterial.ts";
import { listReceipts } from "../shelf/receipts/receipts.ts";
import { workshop } from "../schema.ts";
import { recordKinds, tableOf } from "./kinds.ts";
import { openArchive } from "./unzip.ts";
import { writeArchive } from "./write.ts";

const DAY = "2026-11-25";
/** The smallest picture: one clear pixel. */
const PIXEL = Buffer.from("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==", "base64");

eachFileHasAFolder();
let db: OpenDb;
let drop: () => Promise<void>;
let path: string;
let receipt: number;

beforeAll(async () => {
  ({ db, drop } = await freshDb());
  await loadDemo(db, DAY);
  await db.insert(workshop).values({ kind: "demo" });
  // What ends a line somewhere, but not in JSON Lines.
  await saveMaterial(db, { name: "Odd\u2028oil", kind: "oil", note: "one\u2029two\u0085three\r\nfour\rfive 🫙" }, { day: DAY });
  receipt = (await listReceipts(db))[0]!.id;
  await keepScan(db, { purchaseId: receipt, file: { name: "mill.png", bytes: PIXEL } }, { day: DAY });
  path = await archiveOf(db);
});
afterAll(() => drop());

/** Every row of every kind, by what it says. */
async function contents(of: OpenDb): Promise<Map<string, string>> {
  const found = new Map<string, string>();
  for (const { name } of await recordKinds(of)) {
    const { rows } = await of.execute(
      sql`select md5(coalesce(string_agg(t::text, ' ' order by t::text collate "C"), '')) as sum from ${tableOf(name)} t`,
    );
    found.set(name, String(rows[0]!.sum));
  }
  return found;
}

const whyRefused = async (work: Promise<unknown>): Promise<string> => {
  try {
    await work;
  } catch (e) {
    if (e instanceof Refused) return e.message;
    throw e;
  }
  throw new Error("it was taken");
};
const opened = async (at: string): Promise<void> => (await openArchive(at)).close();

describe("out and in again", () => {
  it("gives the same workshop, row for row, and writes the same file again, byte for byte", async () => {
    const was = await contents(db);
    expect(sha256(readFileSync(await archiveOf(db)))).toBe(sha256(readFileSync(path)));
    await loaded(path, async (again) => {
      expect(await contents(again)).toEqual(was);
      await expectLedgerTrue(again);
      expect(await again.select({ kind: workshop.kind }).from(workshop)).toEqual([{ kind: "own" }]);
      expect(sha256(readFileSync(await archiveOf(again)))).toBe(sha256(readFileSync(path)));
    });
  });

  it("can be worked on: what was done is taken back, the next rows have the next numbers, and the ledger still can't be changed", async () => {
    await loaded(path, async (again) => {
      const [scan] = await readBook(again, {}, 1);
      const file = await readAttachment(again, 1);
      expect(file).toMatchObject({ name: "mill.png", mime: "image/png" });
      expect(Buffer.compare(file!.bytes, PIXEL)).toBe(0);
      await reverseAct(again, scan!.id, { day: DAY });
      expect(await readAttachment(again, 1)).toBeNull();
      for (const one of [db, again]) await saveMaterial(one, { name: "Hemp oil", kind: "oil" }, { day: DAY });
      const idIn = async (one: OpenDb) => (await one.execute(sql`select id from material where name = 'Hemp oil'`)).rows[0]!.id;
      expect(await idIn(again)).toBe(await idIn(db));
      await expect(again.execute(sql`update movement set qty = 1 where id = 1`)).rejects.toThrow();
      await expect(again.execute(sql`update lot set on_hand = on_hand + 1 where id = 1`)).rejects.toThrow();
      await expect(again.execute(sql`update movement set lot_id = 1 where false`)).resolves.toBeDefined();
      await expectLedgerTrue(again);
    });
  });

  it("says in its manifest what it is, and its tables say what its records do", async () => {
    const parts = await partsOf(path);
    const manifest = JSON.parse(parts.get("manifest.json")!.toString()) as Manifest;
    expect(manifest).toMatchObject({
      archive: "Zelbin",
      format: 1,
      workshop: "Aldermoss Workroom",
      newest: [{ what: "Added a scan: mill.png" }, {}, {}, {}, {}],
    });
    expect(parts.get("files/attachment-1.png")!.equals(PIXEL)).toBe(true);
    expect(parts.get("manifest.sha256")!.toString()).toBe(`${sha256(parts.get("manifest.json")!)}  manifest.json\n`);
    const { rows } = await db.execute(sql`select count(*)::int as n from lot`);
    expect(rowsByKind(manifest).get("lot")).toBe(rows[0]!.n);
    const [first] = parts.get("records/material.jsonl")!.toString().split("\n");
    const row = JSON.parse(first!) as Record<string, unknown>;
    const table = Papa.parse<string[]>(parts.get("tables/material.csv")!.toString().replace("\ufeff", "")).data;
    expect(table[0]).toEqual(Object.keys(row));
    expect(table[1]!.slice(0, 3)).toEqual([String(row.id), row.name, row.kind]);
  });

  it("is written of one moment, whatever is done meanwhile", async () => {
    const was = sha256(readFileSync(await archiveOf(db)));
    let n = 0;
    const slow = new Writable({
      highWaterMark: 1,
      write(_chunk, _enc, next) {
        // In the middle of it, something is done.
        if (n++ !== 3) next();
        else void saveMaterial(db, { name: "Meanwhile", kind: "oil" }, { day: DAY }).then(() => next(), next);
      },
    });
    const before = await writeArchive(db, slow);
    const after = await writeArchive(db, createWriteStream(inFolder("after.zip")));
    expect(before.newest[0]!.what).not.toContain("Meanwhile");
    expect(after.newest[0]!.what).toContain("Meanwhile");
    expect(rowsByKind(after).get("material")! - rowsByKind(before).get("material")!).toBe(1);
    await reverseAct(db, after.newest[0]!.id, { day: DAY });
    expect(was).not.toBe(sha256(readFileSync(await archiveOf(db))));
  });

  it("can be stopped at any moment, and says how far it is", async () => {
    const stop = new AbortController();
    const seen: number[] = [];
    const writing = writeArchive(db, createWriteStream(inFolder("stopped.zip")), {
      signal: stop.signal,
      onProgress: ({ done, of }) => {
        seen.push(done / of);
        if (done > of / 2) stop.abort(new Error("enough"));
      },
    });
    await expect(writing).rejects.toThrow();
    await pause(20);
    expect(seen).toEqual(seen.toSorted((a, b) => a - b));
    expect(seen.at(-1)!).toBeLessThan(1);
    expect(existsSync(inFolder("stopped.zip")) && (await whyRefused(opened(inFolder("stopped.zip"))))).toContain("isn't a whole zip file");
    // The connection is as it was.
    await expectLedgerTrue(db);
  });
});

describe("archives of every format there was", () => {
  const FORMATS = "test/db/formats";
  it("has one of each", () => expect(readdirSync(FORMATS)).toContain(`${ARCHIVE_FORMAT}.zip`));

  it.each(readdirSync(FORMATS))("reads %s, written by the Zelbin of its time", async (file) => {
    await loaded(`${FORMATS}/${file}`, async (again) => {
      await expectLedgerTrue(again);
      const { rows } = await again.execute(
        sql`select (select string_agg(name, ', ' order by name) from material) as materials, (select sum(on_hand)::int from lot) as amounts, (select length(bytes) from attachment) as scan`,
      );
      expect(rows).toEqual([{ materials: "Box, Herb, Oil, Scent, Tin, Wax", amounts: 3_610_050, scan: PIXEL.length }]);
    });
  });
});

describe("what isn't as it was written", () => {
  const bytes = (): Buffer => readFileSync(path);

  it("refuses a thousand archives with one byte turned, or reads the very same books out of them", async () => {
    const whole = bytes();
    const archive = await openArchive(path);
    archive.close();
    let refused = 0;
    await fc.assert(
      fc.asyncProperty(fc.nat(whole.length - 1), fc.integer({ min: 1, max: 255 }), async (at, by) => {
        const turned = Buffer.from(whole);
        turned[at]! ^= by;
        try {
          const other = await openArchive(fileOf(turned));
          other.close();
          expect(other.manifest).toEqual(archive.manifest);
        } catch (e) {
          expect(e).toBeInstanceOf(Refused);
          refused++;
        }
      }),
      { numRuns: 1000 },
    );
    // What a zip says twice, of dates and of rights, is read by nobody; short tries are mostly there.
    expect(refused).toBeGreaterThan(600);
  });

  it("refuses one that is cut off anywhere", async () => {
    const whole = bytes();
    for (let tenth = 0; tenth < 10; tenth++)
      expect(await whyRefused(opened(fileOf(whole.subarray(0, Math.floor((whole.length * tenth) / 10)))))).toContain(
        "isn't a whole zip file",
      );
    expect(await whyRefused(opened(fileOf(whole.subarray(0, -1))))).toContain("isn't a whole zip file");
  });

  const changes: [what: string, change: (p: Parts) => Parts, why: string][] = [
    [
      "a dropped line",
      (p) => p.set(recordsPart("lot"), Buffer.from(p.get(recordsPart("lot"))!.toString().replace(/^.*\n/, ""))),
      "records/lot.jsonl isn't as it was written: it has",
    ],
    [
      "two parts swapped",
      (p) => new Map([...p, ["records/lot.jsonl", p.get("records/price.jsonl")!], ["records/price.jsonl", p.get("records/lot.jsonl")!]]),
      "isn't as it was written",
    ],
    ["a part left away", (p) => (p.delete("tables/act.csv"), p), "tables/act.csv isn't as it was written: it isn't in the file"],
    ["a part added", (p) => p.set("notes.txt", Buffer.from("hello")), "notes.txt isn't as it was written: the manifest doesn't name it"],
    [
      "a torn line",
      (p) => p.set(recordsPart("price"), Buffer.from(p.get(recordsPart("price"))!.toString().replace("}\n{", "\n{"))),
      "records/price.jsonl isn't as it was written: line 1 is no row",
    ],
    [
      "another manifest",
      (p) => p.set("manifest.json", Buffer.from(p.get("manifest.json")!.toString().replace("Aldermoss", "Other"))),
      "manifest.json isn't as it was written: its digest is another",
    ],
    ["no manifest", (p) => (p.delete("manifest.json"), p), "no archive of Zelbin's"],
    ["a newer format", (p) => resealed(p, (m) => ({ ...m, format: 2 })), "written by a newer Zelbin"],
    ["a newer step", (p) => resealed(p, (m) => ({ ...m, step: "9999_later" })), "written by a newer Zelbin"],
    ["a manifest that is none", (p) => resealed(p, (m) => ({ ...m, begun: 7 })), "manifest.json can't be read"],
    ["a part named twice", (p) => resealed(p, (m) => ({ ...m, parts: [...m.parts, m.parts[0]] })), "it names a part twice"],
    ["a bomb", (p) => resealed(p.set("README.txt", Buffer.alloc(400_000_000)), (m) => m), "would unpack to far more"],
  ];
  it.each(changes)("refuses %s", async (_, change, why) => {
    expect(await whyRefused(opened(await zipOf(change(await partsOf(path)))))).toContain(why);
  });

  /** A row of a kind by its place, said otherwise. */
  const otherRow = (parts: Parts, kind: string, at: number, change: (row: Record<string, unknown>) => Record<string, unknown>): Parts => {
    const lines = parts.get(recordsPart(kind))!.toString().trimEnd().split("\n");
    lines[at] = JSON.stringify(change(JSON.parse(lines[at]!) as Record<string, unknown>));
    return resealed(parts.set(recordsPart(kind), Buffer.from(`${lines.join("\n")}\n`)));
  };
  const edits: [what: string, change: (p: Parts) => Parts, why: string][] = [
    [
      "a column it doesn't know",
      (p) => otherRow(p, "lot", 4, (r) => ({ ...r, colour: "red" })),
      "records/lot.jsonl, line 5: colour is missing, or isn't known",
    ],
    ["a column left away", (p) => otherRow(p, "lot", 0, ({ number, ...r }) => r), "records/lot.jsonl, line 1: number is missing"],
    [
      "a weight that is none",
      (p) => otherRow(p, "movement", 70, (r) => ({ ...r, qty: "much" })),
      "records/movement.jsonl, line 71: invalid input syntax",
    ],
    ["a number that is there already", (p) => otherRow(p, "lot", 6, (r) => ({ ...r, id: 1 })), "records/lot.jsonl, line 7: duplicate key"],
    ["a lot that isn't in it", (p) => otherRow(p, "movement", 3, (r) => ({ ...r, lot_id: 99_999 })), "names what isn't in the archive"],
    ["stock below nothing", (p) => otherRow(p, "lot", 2, (r) => ({ ...r, on_hand: -1 })), "records/lot.jsonl, line 3: "],
    [
      "a ledger that doesn't add up",
      (p) => otherRow(p, "movement", 3, (r) => ({ ...r, qty: Number(r.qty) + 1 })),
      "The books in this archive don't hold",
    ],
    [
      "a next number that is taken",
      (p) => resealed(p, (m) => ({ ...m, nextIds: { ...m.nextIds, lot: 1 } })),
      "next number of lot is missing or taken",
    ],
    [
      "a picture that isn't there",
      (p) => otherRow(p, "attachment", 0, (r) => ({ ...r, bytes: "files/other.png" })),
      "the file files/other.png isn't in the archive",
    ],
  ];
  it.each(edits)("refuses what somebody wrote into it, though its digests are right: %s", async (_, change, why) => {
    expect(await whyRefused(loaded(await zipOf(change(await partsOf(path))), () => Promise.resolve()))).toContain(why);
  });
});
