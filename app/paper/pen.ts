/** What a paper is drawn with: text in the house's faces, rules, pages, and the tags that say what is drawn. */
import type PDFKit from "pdfkit";
import { drawable, faceFor, FACES, type Face } from "./faces.ts";

type Doc = InstanceType<typeof PDFKit>;
type Tagged = ReturnType<Doc["struct"]>;
export type SheetSize = "a4" | "letter";

/** All in points. */
export const BODY = 10;
export const GRID = 14;
const INK = "#16301f";
const SOFT = "#43574a";
const RULES = { fine: ["#c9bd9f", 0.6], strong: ["#767262", 0.8] } as const;
/** 16 mm, and room for the foot. */
const MARGINS = { top: 46, left: 46, right: 46, bottom: 64 };
const FOOT = 44;
const FOOT_SIZE = 7.5;
/** Between lines, beyond what the face has. */
const LEADING = 1.5;

export interface Ink {
  face?: Face;
  size?: number;
  soft?: boolean;
}
interface Put extends Ink {
  x: number;
  y: number;
  width: number;
  align?: "left" | "right";
}

export class Pen {
  static readonly margins = MARGINS;
  readonly #doc: Doc;
  readonly #root: Tagged;
  /** What is drawn now is part of this. */
  #within: Tagged;
  y: number;
  pages = 1;

  constructor(doc: Doc) {
    this.#doc = doc;
    this.#root = doc.struct("Document");
    this.#within = this.#root;
    doc.addStructure(this.#root);
    doc.on("pageAdded", () => this.pages++);
    this.y = MARGINS.top;
  }

  readonly left = MARGINS.left;
  get right(): number {
    return this.#doc.page.width - MARGINS.right;
  }
  get room(): number {
    return this.right - this.left;
  }
  get #bottom(): number {
    return this.#doc.page.height - MARGINS.bottom;
  }
  /** Of a page's height. */
  get #high(): number {
    return this.#bottom - MARGINS.top;
  }

  page(): void {
    this.#doc.continueOnNewPage();
    this.y = MARGINS.top;
  }
  /** Whether so much more fits on this page. */
  fits = (height: number): boolean => this.y + height <= this.#bottom;
  /** More than half a page high: it has to flow. */
  tooHigh = (height: number): boolean => height > this.#high / 2;
  /** Goes on overleaf where so much doesn't fit. */
  need(height: number): void {
    if (!this.fits(height) && this.y > MARGINS.top) this.page();
  }

  /** What `draw` draws is tagged as what it is: "P", "TH". @param columns how many it spans, as a cell */
  tagged(as: string, draw: () => void, { scope, columns }: { scope?: "Column" | "Row"; columns?: number } = {}): void {
    const own = this.#doc.struct(as, (scope ? { scope } : {}) as object, [draw]);
    // The library has no option for this one.
    if (columns) Object.assign((own as unknown as { dictionary: { data: { A?: object } } }).dictionary.data.A!, { ColSpan: columns });
    this.#within.add(own);
  }
  /** What is tagged from now on is part of this, until what is returned is called. */
  open(as: string): () => void {
    const around = this.#within;
    const own = this.#doc.struct(as);
    around.add(own);
    this.#within = own;
    return () => {
      own.end();
      this.#within = around;
    };
  }
  /** What is drawn says nothing: a rule, the foot of a page, a heading said again. */
  untagged(draw: () => void): void {
    this.#doc.markContent("Artifact", { type: "Layout" });
    draw();
    this.#doc.endMarkedContent();
  }

  #set(text: string, { face = "text", size = BODY, soft = false }: Ink): string {
    const drawn = drawable(text);
    this.#doc
      .font(FACES[faceFor(drawn, face)])
      .fontSize(size)
      .fillColor(soft ? SOFT : INK);
    return drawn;
  }
  widthOf(text: string, ink: Ink = {}): number {
    const drawn = this.#set(text, ink);
    return Math.max(0, ...drawn.split("\n").map((line) => this.#doc.widthOfString(line)));
  }
  heightOf(text: string, ink: Ink & { width: number }): number {
    return this.#doc.heightOfString(this.#set(text, ink), { width: ink.width, lineGap: LEADING });
  }
  /** Text in a place for which there is room. @returns its height */
  write(text: string, { x, y, width, align = "left", ...ink }: Put): number {
    const drawn = this.#set(text, ink);
    this.#doc.text(drawn, x, y, { width, align, lineGap: LEADING });
    return this.#doc.y - y;
  }
  /** Text from here down, over as many pages as it takes. */
  flow(text: string, { indent = 0, ...ink }: Ink & { indent?: number } = {}): void {
    const drawn = this.#set(text, ink);
    this.#doc.text(drawn, this.left + indent, this.y, { width: this.room - indent, lineGap: LEADING });
    this.y = this.#doc.y;
  }

  rule(from: number, y: number, to: number, as: keyof typeof RULES): void {
    const [colour, width] = RULES[as];
    this.untagged(() => this.#doc.moveTo(from, y).lineTo(to, y).lineWidth(width).strokeColor(colour).stroke());
  }
  /** A stroke down the side of what is to be minded. */
  stroke(x: number, from: number, to: number): void {
    this.untagged(() => this.#doc.moveTo(x, from).lineTo(x, to).lineWidth(2.5).strokeColor(INK).stroke());
  }

  /** Writes the foot of every page, once it is known how many there are. @param said at its left, and at its right */
  finish(said: (page: number, of: number) => readonly [string, string]): void {
    this.#root.end();
    const { count } = this.#doc.bufferedPageRange();
    for (let n = 0; n < count; n++) {
      this.#doc.switchToPage(n);
      const y = this.#doc.page.height - FOOT;
      const [left, right] = said(n + 1, count);
      this.#doc.markContent("Artifact", { type: "Pagination" });
      const ink = { size: FOOT_SIZE, soft: true };
      const wide = this.widthOf(right, ink);
      this.#one(left, this.left, y, this.room - wide - GRID, ink);
      this.#one(right, this.right - wide, y, wide + 1, ink);
      this.#doc.endMarkedContent();
    }
  }
  /** One line, under the margin; what doesn't fit ends in dots. */
  #one(text: string, x: number, y: number, width: number, ink: Ink): void {
    const drawn = this.#set(text, ink);
    this.#doc.text(drawn, x, y, { width, height: FOOT_SIZE * 1.6, ellipsis: true });
  }
}
