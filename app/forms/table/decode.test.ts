/** Files as programs save them: whatever the alphabet, the names come out as they were typed. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { textOf } from "./decode.ts";

const TABLE = "matière;taille;prix\nBeurre de karité, «brut»;1 kg;12,50\nCire d'abeille, jaune pâle;500 g;9,90\n";
// Letters alone: Node 20 leaves out the quotes and signs of this code page, which browsers have (seen through the interface instead).
const in1252 = (text: string): Uint8Array => Uint8Array.from(text, (c) => c.charCodeAt(0));
const utf16 = (text: string, big: boolean, mark: boolean): Uint8Array => {
  const out = new DataView(new ArrayBuffer(2 * (text.length + (mark ? 1 : 0))));
  Array.from(mark ? `\ufeff${text}` : text, (c, i) => out.setUint16(2 * i, c.charCodeAt(0), !big));
  return new Uint8Array(out.buffer);
};
const read = (bytes: Uint8Array): string => {
  const r = textOf(bytes);
  return r.ok ? r.value.replace(/^\ufeff/, "") : r.problem.code;
};

describe("a list saved by another program", () => {
  it.each<[string, Uint8Array]>([
    ["UTF-8", new TextEncoder().encode(TABLE)],
    ["UTF-8 with a mark", new TextEncoder().encode(`\ufeff${TABLE}`)],
    ["Windows-1252", in1252(TABLE)],
    ["UTF-16, small end first, marked", utf16(TABLE, false, true)],
    ["UTF-16, big end first, marked", utf16(TABLE, true, true)],
    ["UTF-16, small end first", utf16(TABLE, false, false)],
    ["UTF-16, big end first", utf16(TABLE, true, false)],
  ])("in %s", (_name, bytes) => expect(read(bytes)).toBe(TABLE));
  it("one accent in a short list is enough", () =>
    expect(read(in1252("name;size;price\nShéa;1 kg;9\n"))).toBe("name;size;price\nShéa;1 kg;9\n"));
  it("a file that is no text is refused, and nothing ever comes out with a hole in it", () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), (bytes) => {
        const r = textOf(bytes);
        if (r.ok) expect(r.value).not.toContain("\ufffd");
        else expect(r.problem.code).toBe("notText");
      }),
    );
    expect(read(new Uint8Array(20_000_001))).toBe("tooLarge");
  });
});
