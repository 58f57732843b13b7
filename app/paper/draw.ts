/**
 * Draws a paper as a PDF: set in the application's own faces, tagged for screen readers (heading, paragraph, table), with page numbers, no row
 * broken over two pages, and a table's heading again on each page it goes on.
 */
import PDFDocument from "pdfkit";
import type { Paper, Part, ToWrite } from "./paper.ts";
import { FACES } from "./faces.ts";
import { BODY, GRID, Pen, type SheetSize } from "./pen.ts";
import { drawTable } from "./table.ts";

export interface Made {
  size: SheetSize;
  /** Whose paper it is; at the foot of each page. */
  workshop: string;
  /** When it was made, in words. */
  on: string;
}

/** A heading isn't left alone at the foot of a page. */
const ROOM_UNDER_HEADING = 64;
const STYLES = {
  plain: { size: BODY },
  soft: { size: 8.5, soft: true },
  strong: { size: BODY, face: "strong" },
  title: { size: 15, face: "display" },
  caution: { size: BODY, face: "strong" },
} as const;

/** Lines to write on: what it is at the left, and its unit after the line. */
function drawToWrite(pen: Pen, lines: readonly ToWrite[]): void {
  for (const [label, value, unit = ""] of lines) {
    pen.need(GRID * 2);
    const top = pen.y + 4;
    pen.tagged("P", () => {
      pen.write(label, { x: pen.left, y: top, width: pen.room / 2 });
      if (value) pen.write(value, { x: pen.left + pen.room / 2, y: top, width: pen.room / 2 });
      else if (unit) pen.write(unit, { x: pen.right - 70, y: top, width: 70 });
    });
    if (!value) pen.rule(pen.left + pen.room / 2, top + BODY * 1.25, pen.right - (unit ? 78 : 0), "strong");
    pen.y = top + Math.max(GRID + 4, pen.heightOf(label, { width: pen.room / 2 }));
  }
  pen.y += GRID;
}

function drawPart(pen: Pen, part: Part): Promise<void> | void {
  if ("page" in part) {
    pen.page();
    return;
  }
  if ("heading" in part) {
    pen.need(ROOM_UNDER_HEADING);
    pen.y += GRID;
    pen.tagged("H2", () => pen.flow(part.heading, { face: "display", size: 13 }));
    pen.y += 4;
  } else if ("text" in part) {
    if (part.as === "title" || part.as === "strong") pen.need(ROOM_UNDER_HEADING);
    const from = { y: pen.y, page: pen.pages };
    pen.tagged(part.as === "title" ? "H2" : "P", () =>
      pen.flow(part.text, { ...STYLES[part.as ?? "plain"], indent: part.as === "caution" ? 10 : 0 }),
    );
    // A stroke beside a caution; of one that goes on overleaf the words are enough.
    if (part.as === "caution" && pen.pages === from.page) pen.stroke(pen.left, from.y, pen.y);
    pen.y += GRID / 2;
  } else if ("facts" in part) {
    const rows = part.facts.flatMap(([label, value]) => (value ? [[label, value]] : []));
    if (rows.length > 0)
      return drawTable(
        pen,
        { columns: [{ head: "" }, { head: "", ...(part.as && { as: part.as }) }], groups: [{ rows }] },
        { headed: false },
      );
  } else if ("toWrite" in part) drawToWrite(pen, part.toWrite);
  else return drawTable(pen, part, { headed: true });
}

/** A name for the document's own description, where "&" and "<" would have to be written otherwise. */
const described = (name: string): string => name.replace(/&/g, "and").replace(/[<>]/g, "");

/** @returns the PDF's bytes */
export async function drawPaper({ title, headed, about, parts }: Paper, { size, workshop, on }: Made): Promise<Buffer> {
  const doc = new PDFDocument({
    size: size === "letter" ? "LETTER" : "A4",
    margins: Pen.margins,
    pdfVersion: "1.7",
    tagged: true,
    displayTitle: true,
    lang: "en",
    bufferPages: true,
    font: FACES.text,
    info: { Title: described(title), Author: described(workshop), Creator: "Zelbin" },
  });
  const bytes: Buffer[] = [];
  const ended = new Promise<void>((done, fail) =>
    doc
      .on("data", (b: Buffer) => bytes.push(b))
      .on("end", done)
      .on("error", fail),
  );
  const pen = new Pen(doc);
  if (headed !== false) pen.tagged("H1", () => pen.flow(title, { face: "display", size: 20 }));
  if (about) {
    pen.y += 4;
    pen.tagged("P", () => pen.flow(about, { soft: true }));
  }
  if (headed !== false) pen.y += GRID;
  for (const part of parts) await drawPart(pen, part);
  pen.finish((page, of) => [`${workshop} · ${title}`, `${on} · page ${page} of ${of}`]);
  doc.end();
  await ended;
  return Buffer.concat(bytes);
}
