/** The faces papers are set in: the same as on screen, and one for letters those lack. */
import { createRequire } from "node:module";
import { openSync, type Font } from "fontkit";

const { resolve } = createRequire(import.meta.url);
const OF = "@expo-google-fonts";

/** Each by what it is for, with the file that ships with the application. */
export const FACES = {
  text: resolve(`${OF}/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf`),
  strong: resolve(`${OF}/atkinson-hyperlegible-next/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf`),
  mono: resolve(`${OF}/atkinson-hyperlegible-mono/400Regular/AtkinsonHyperlegibleMono_400Regular.ttf`),
  display: resolve(`${OF}/young-serif/400Regular/YoungSerif_400Regular.ttf`),
  /** Greek and Cyrillic letters, and signs the others lack. */
  others: resolve(`${OF}/noto-sans/400Regular/NotoSans_400Regular.ttf`),
} as const;
export type Face = keyof typeof FACES;

const opened = new Map<Face, Font>();
function glyphsOf(face: Face): Font {
  const found = opened.get(face) ?? (openSync(FACES[face]) as Font);
  opened.set(face, found);
  return found;
}

/** Thin spaces of any width as the one all faces have, and nothing that can't be drawn. */
export const drawable = (text: string): string =>
  text
    .replace(/[\u2007\u2009\u202f]/g, "\u00a0")
    .replace(/\r\n?/g, "\n")
    .replace(/[\p{Cc}\u200b-\u200f\u2028-\u202e\u2060-\u2069\ufe0f\ufeff]/gu, (c) => (c === "\n" ? c : ""));

/**
 * The face for a text: the one wanted where it has all its letters, otherwise the one that has most.
 * @param text drawable
 */
export const faceFor = (text: string, wanted: Face): Face =>
  Array.from(text).every((c) => c === "\n" || glyphsOf(wanted).hasGlyphForCodePoint(c.codePointAt(0)!)) ? wanted : "others";
