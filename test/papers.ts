/** A PDF as another library reads it: its pages with the boxes of their text, and what is wrong with how those lie. */
import { getDocument, type PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";

/** The library takes the bytes for itself: it gets a copy. */
export const openPdf = (pdf: Uint8Array): Promise<PDFDocumentProxy> =>
  getDocument({ data: new Uint8Array(pdf), useSystemFonts: true, verbosity: 0 }).promise;

export interface Box {
  text: string;
  left: number;
  right: number;
  top: number;
  bottom: number;
}
export interface Sheet {
  boxes: Box[];
  width: number;
  height: number;
}

/** The margins a browser is asked for, in points: 12 mm. */
const MARGIN = (12 / 25.4) * 72;
/** Letters lean out of their boxes a little. */
const LEAN = 1.5;

/** The pages of a PDF, each with its texts from the top. */
export async function sheetsOf(pdf: Uint8Array): Promise<Sheet[]> {
  const doc = await openPdf(pdf);
  const sheets: Sheet[] = [];
  for (let n = 1; n <= doc.numPages; n++) {
    const page = await doc.getPage(n);
    const { width, height } = page.getViewport({ scale: 1 });
    const { items } = await page.getTextContent();
    const boxes = items.flatMap((i): Box[] => {
      if (!("str" in i) || i.str.trim() === "") return [];
      const [, , , , x, y] = i.transform as [number, number, number, number, number, number];
      // From the foot of a letter without a tail to the head of a capital.
      return [{ text: i.str.trim(), left: x, right: x + i.width, top: height - y - 0.7 * i.height, bottom: height - y }];
    });
    sheets.push({ boxes, width, height });
  }
  await doc.destroy();
  return sheets;
}

const over = (a: Box, b: Box): boolean =>
  Math.min(a.right, b.right) - Math.max(a.left, b.left) > LEAN && Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > LEAN;

/** Lines of text: boxes that stand at one height. */
const lines = ({ boxes }: Sheet): number => new Set(boxes.map((b) => Math.round(b.bottom / 4))).size;

/** What is wrong with printed pages, in words. */
export function faults(sheets: readonly Sheet[]): string[] {
  return sheets.flatMap(({ boxes, width, height }, n) => {
    const at = `page ${n + 1} of ${sheets.length}`;
    const clashes = boxes.flatMap((a, i) => boxes.slice(i + 1).flatMap((b) => (over(a, b) ? [`${at}: “${a.text}” over “${b.text}”`] : [])));
    const outside = boxes
      .filter((b) => b.left < MARGIN - LEAN || b.right > width - MARGIN + LEAN || b.top < MARGIN - 4 || b.bottom > height - MARGIN + 4)
      .map((b) => `${at}: “${b.text}” is past the margin`);
    const alone = sheets.length > 1 && lines(sheets[n]!) < 2 ? [`${at}: has ${lines(sheets[n]!)} lines`] : [];
    return [...clashes, ...outside, ...alone];
  });
}

/** All text of the pages, in the order it was drawn. */
export const textOf = (sheets: readonly Sheet[]): string => sheets.flatMap((s) => s.boxes.map((b) => b.text)).join(" ");
