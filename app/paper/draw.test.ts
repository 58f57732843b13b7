/** Papers as another library opens them: their text, faces, tags, pages and sizes; and any paper at all is whole. */
import fc from "fast-check";
import { expect, it } from "vitest";
import { faults, openPdf, sheetsOf, textOf } from "../../test/papers.ts";
import { drawPaper } from "./draw.ts";
import type { Cell, Paper } from "./paper.ts";

const MADE = { size: "a4", workshop: "Fern & Fox", on: "Tue 1 Dec" } as const;
const plain = (parts: Paper["parts"]): Paper => ({ title: "A <paper> & more", file: "paper", about: "Of a workshop", parts });
const LONG: Paper = plain([
  { heading: "The shelf" },
  {
    columns: [{ head: "Material" }, { head: "Lot", as: "lot" }, { head: "On hand", as: "weight" }, { head: "Counted", as: "write" }],
    groups: ["Waxes", "Oils"].map((head) => ({
      head,
      rows: Array.from({ length: 60 }, (_, i): Cell[] => [
        { text: `${head} ${i}`, note: i % 7 ? "" : "use soon" },
        `R26${100 + i}-01`,
        `${i}.0 g`,
        "",
      ]),
    })),
    foot: ["Together", "", "3 540.0 g", ""],
  },
  { toWrite: [["Counted by", ""]] },
  { text: "Mind the hot wax.", as: "caution" },
]);

/** The marks of what is drawn on a document's pages, in order. */
async function tagsOf(pdf: Uint8Array): Promise<string[]> {
  const doc = await openPdf(pdf);
  // Each page has the whole tree, with only what is on that page in it.
  const drawn = (node: object): string[] => {
    if ("type" in node) return [""];
    const own = "role" in node ? [String(node.role)] : [];
    const within = "children" in node ? (node.children as object[]).flatMap(drawn) : [];
    return within.length > 0 ? [...own, ...within] : [];
  };
  const tags: string[] = [];
  for (let n = 1; n <= doc.numPages; n++) tags.push(...drawn(await (await doc.getPage(n)).getStructTree()));
  await doc.destroy();
  return tags;
}

it("is titled, tagged, in its own faces and of the size asked for, with its page and how many there are at each foot", async () => {
  const pdf = await drawPaper(LONG, MADE);
  const doc = await openPdf(pdf);
  const { info } = await doc.getMetadata();
  expect(info).toMatchObject({ Title: "A paper and more", Author: "Fern and Fox", Language: "en", PDFFormatVersion: "1.7" });
  expect(await doc.getMarkInfo()).toMatchObject({ Marked: true });
  expect(doc.numPages).toBeGreaterThan(3);
  // Faces are inside: their letters are drawn from the file, and none is another's.
  const raw = pdf.toString("latin1");
  expect(new Set(raw.match(/\/FontName \/[A-Z]+\+(\w+-\w+)/g)?.map((f) => f.split("+")[1]))).toEqual(
    new Set([
      "YoungSerif-Regular",
      "AtkinsonHyperlegibleNext-Regular",
      "AtkinsonHyperlegibleNext-Bold",
      "AtkinsonHyperlegibleMono-Regular",
    ]),
  );
  expect(raw.match(/\/FontFile2 /g)?.length).toBe(4);
  // A group's head spans its table; a reader of the file shows its title, not its name.
  expect(raw.match(/\/ColSpan 4/g)).toHaveLength(2);
  expect(raw).toContain("/DisplayDocTitle true");
  await doc.destroy();
  const sheets = await sheetsOf(pdf);
  expect(faults(sheets)).toEqual([]);
  for (const [n, sheet] of sheets.entries()) {
    const text = textOf([sheet]);
    expect([sheet.width, sheet.height].map(Math.round)).toEqual([595, 842]);
    expect(text).toContain("Fern & Fox · A <paper> & more");
    expect(text).toContain(`Tue 1 Dec · page ${n + 1} of ${sheets.length}`);
    // A table's heading is repeated where it goes on.
    expect(text).toContain("On hand");
  }
  const all = textOf(sheets);
  for (const head of ["Waxes", "Oils"]) for (let i = 0; i < 60; i++) expect(all).toContain(`${head} ${i}`);
  const tags = await tagsOf(pdf);
  expect(tags.filter((t) => t === "H1" || t === "H2" || t === "Table")).toEqual(expect.arrayContaining(["H1", "H2", "Table"]));
  // The heading once, two groups, 120 rows and the foot: said again on further pages, a heading isn't heard again.
  expect(tags.filter((t) => t === "TR")).toHaveLength(1 + 2 + 120 + 1);
  expect(tags.filter((t) => t === "TH")).toHaveLength(4 + 2);
  const letter = await sheetsOf(await drawPaper(LONG, { ...MADE, size: "letter" }));
  expect([letter[0]!.width, letter[0]!.height]).toEqual([612, 792]);
  expect(faults(letter)).toEqual([]);
});

it("letters that the faces lack are drawn in one that has them; spaces of any width stay spaces", async () => {
  const words = ["Łucja Šárka", "Ελένη", "Марина", "1\u202f000.5\u202fg", "⅓ jar", "tab\tand\u200bzero"];
  const text = textOf(await sheetsOf(await drawPaper(plain(words.map((w) => ({ text: w }))), MADE)));
  for (const said of ["Łucja Šárka", "Ελένη", "Марина", "⅓ jar", "tabandzero"]) expect(text).toContain(said);
  expect(text.replace(/\u00a0/g, " ")).toContain("1 000.5 g");
});

it("a number with thin spaces keeps its face; a workshop's name in other letters is at the foot too", async () => {
  const number = await drawPaper(plain([{ text: "1\u202f000.5\u202fg" }]), MADE);
  expect(number.toString("latin1")).not.toContain("NotoSans");
  const greek = await drawPaper(plain([{ text: "x" }]), { ...MADE, workshop: "Εργαστήρι" });
  expect(greek.toString("latin1")).toContain("NotoSans");
  expect(textOf(await sheetsOf(greek))).toContain("Εργαστήρι · A <paper> & more");
});

it("no heading is left at the foot of a page, and no row or two alone on the last", async () => {
  for (let n = 28; n < 44; n++) {
    const lines = Array.from({ length: n }, (_, i): Paper["parts"][number] => ({ text: `line ${i}.` }));
    const heads = await sheetsOf(await drawPaper(plain([...lines, { heading: "Of its own" }, { text: "What follows it" }]), MADE));
    const at = heads.findIndex((s) => textOf([s]).includes("Of its own"));
    expect([n, textOf([heads[at]!]).includes("What follows it")]).toEqual([n, true]);
    const rows = Array.from({ length: n }, (_, i): Cell[] => [`row ${i}.`]);
    const table = await sheetsOf(await drawPaper(plain([{ columns: [{ head: "Rows" }], groups: [{ rows }] }]), MADE));
    const last = textOf([table.at(-1)!]).match(/row \d+\./g)!.length;
    expect([n, table.length === 1 || last >= 3]).toEqual([n, true]);
  }
});

it("a row with more in two cells than a page holds has both, one beneath the other", async () => {
  const long = (of: string): string => Array.from({ length: 900 }, (_, i) => `${of}${i}`).join(" ");
  const columns = [{ head: "Left" }, { head: "Right" }];
  const sheets = await sheetsOf(
    await drawPaper(
      plain([
        {
          columns,
          groups: [
            {
              rows: [
                ["before", "it"],
                [long("a"), long("b")],
                ["after", "it"],
              ],
            },
          ],
        },
      ]),
      MADE,
    ),
  );
  expect(faults(sheets)).toEqual([]);
  const text = textOf(sheets);
  expect(
    [text.indexOf("Left: a0"), text.indexOf("a899"), text.indexOf("Right: b0"), text.indexOf("b899"), text.indexOf("after")].every(
      (at, i, all) => at > (all[i - 1] ?? 0),
    ),
  ).toBe(true);
});

it("any paper is whole: every word of it is there, nothing lies over anything else, past a margin or alone on a page", async () => {
  // Words apart from each other, so that each is found wherever it is.
  let n = 0;
  const word = fc.constant(null).map(() => `w${(n++).toString(36)}x`);
  const text = fc.array(word, { minLength: 1, maxLength: 40 }).map((ws) => ws.join(" "));
  const long = fc.array(word, { minLength: 900, maxLength: 1200 }).map((ws) => ws.join(" "));
  const cell: fc.Arbitrary<Cell> = fc.oneof(
    { weight: 6, arbitrary: fc.array(word, { maxLength: 4 }).map((ws) => ws.join(" ")) },
    { weight: 2, arbitrary: fc.record({ text, note: text }) },
    { weight: 1, arbitrary: long },
  );
  const table = fc.integer({ min: 1, max: 4 }).chain((columns) =>
    fc.record({
      columns: fc.constant(Array.from({ length: columns }, (_, i) => ({ head: `head${i}` }))),
      groups: fc.array(
        fc.record({ head: text, rows: fc.array(fc.array(cell, { minLength: columns, maxLength: columns }), { maxLength: 30 }) }),
        { maxLength: 3 },
      ),
    }),
  );
  const part: fc.Arbitrary<Paper["parts"][number]> = fc.oneof(
    table,
    text.map((heading) => ({ heading })),
    fc.oneof(text, long).map((t) => ({ text: t })),
    fc.record({ text, as: fc.constantFrom("soft", "strong", "title", "caution") }),
    fc.array(fc.tuple(text, text), { maxLength: 5 }).map((facts) => ({ facts })),
    fc.array(fc.tuple(word, fc.constantFrom("", "typed")), { maxLength: 5 }).map((toWrite) => ({ toWrite })),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(part, { minLength: 1, maxLength: 6 }), async (parts) => {
      const sheets = await sheetsOf(await drawPaper(plain(parts), MADE));
      expect(faults(sheets)).toEqual([]);
      // A word may be drawn in two runs, where letters are kerned.
      const found = textOf(sheets).replace(/\s/g, "");
      const empty = parts.filter((p) => "groups" in p).flatMap((p) => p.groups.filter((g) => g.rows.length === 0).map((g) => g.head!));
      const wanted = JSON.stringify(parts).match(/w[0-9a-z]+x/g) ?? [];
      const left = new Set(empty.flatMap((h) => h.split(" ")));
      expect(wanted.filter((w) => !found.includes(w) && !left.has(w))).toEqual([]);
    }),
    { numRuns: 25 },
  );
});
