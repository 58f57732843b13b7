/** Draws a table of a paper: columns as wide as what is in them, rows that stay whole, its heading again on every page. */
import type { Cell, Column, Table } from "./paper.ts";
import { BODY, GRID, Pen, type Ink } from "./pen.ts";
import { columnWidths } from "./widths.ts";

const GAP = 14;
const PAD = 3;
const HEAD: Ink = { size: 8.5, face: "strong", soft: true };
const NOTE: Ink = { size: 8, soft: true };
/** Rows that go on overleaf together at the end of a table, so that none is alone there. */
const TOGETHER = 3;
/** A line to write on, and the room above it for a hand. */
const LINE = { width: 74, above: 9 };
/** A longer note wraps rather than take room from other columns. */
const NOTE_WIDTH = 140;
/** Pairs of what something is and its value stand near each other. */
const PAIRS = 0.7;
/** Rows drawn before others get a turn. */
const TURN = 60;

const partsOf = (cell: Cell): Exclude<Cell, string> => (typeof cell === "string" ? { text: cell } : cell);

function inkOf(cell: Cell, { as }: Column): Ink {
  const { strong } = partsOf(cell);
  if (as === "lot" || as === "weight") return { size: BODY - 0.5, face: strong ? "strong" : "mono" };
  return { size: BODY, face: strong ? "strong" : "text" };
}
const right = ({ as }: Column): boolean => as === "figure" || as === "weight";

class Drawing {
  readonly #pen: Pen;
  readonly #columns: readonly Column[];
  readonly #headed: boolean;
  readonly #widths: number[];
  /** Room over the text of a row with lines to write on. */
  readonly #above: number;
  readonly #heights = new WeakMap<readonly Cell[], number>();

  constructor(pen: Pen, { columns, groups, foot }: Table, headed: boolean) {
    this.#pen = pen;
    this.#columns = columns;
    this.#headed = headed;
    this.#above = columns.some((c) => c.as === "write") ? LINE.above : 0;
    const all = [...groups.flatMap((g) => g.rows), ...(foot ? [foot] : [])];
    const of = (measure: (text: string, ink: Ink) => number, wrapped: boolean) =>
      columns.map((c, i) => {
        const cells = all.flatMap((row) => {
          const { text, note } = partsOf(row[i]!);
          const ink = inkOf(row[i]!, c);
          // A figure never wraps, its note may.
          const whole = wrapped && !right(c) && c.as !== "lot" ? measure(text, ink) : pen.widthOf(text, ink);
          return [whole, note ? Math.min(NOTE_WIDTH, measure(note, NOTE)) : 0];
        });
        const least = c.as === "write" ? LINE.width : 0;
        return Math.ceil(cells.reduce((a, n) => Math.max(a, n), Math.max(least, headed ? measure(c.head, HEAD) : 0))) + 1;
      });
    const longestWord = (text: string, ink: Ink): number =>
      text.split(/[\s]+/).reduce((a, word) => Math.max(a, word ? pen.widthOf(word, ink) : 0), 0);
    this.#widths = columnWidths(
      of((t, ink) => pen.widthOf(t, ink), false),
      of(longestWord, true),
      (headed ? pen.room : pen.room * PAIRS) - GAP * (columns.length - 1),
    );
  }

  /** Where its last column ends. */
  get #end(): number {
    const { x, width } = this.#places().at(-1)!;
    return x + width;
  }
  /** Each cell's place. */
  #places(): { x: number; width: number }[] {
    let x = this.#pen.left;
    return this.#widths.map((width) => {
      const place = { x, width };
      x += width + GAP;
      return place;
    });
  }

  #cellHeight(cell: Cell, i: number): number {
    const { text, note } = partsOf(cell);
    const width = this.#widths[i]!;
    return (
      (text ? this.#pen.heightOf(text, { ...inkOf(cell, this.#columns[i]!), width }) : 0) +
      (note ? this.#pen.heightOf(note, { ...NOTE, width }) : 0)
    );
  }
  heightOf(row: readonly Cell[]): number {
    const found = this.#heights.get(row);
    if (found !== undefined) return found;
    const height = row.reduce((a, cell, i) => Math.max(a, this.#cellHeight(cell, i)), BODY * 1.3) + this.#above + 2 * PAD;
    this.#heights.set(row, height);
    return height;
  }

  get headHeight(): number {
    if (!this.#headed) return 0;
    return (
      this.#columns.reduce((a, c, i) => Math.max(a, this.#pen.heightOf(c.head || " ", { ...HEAD, width: this.#widths[i]! })), 0) + 2 * PAD
    );
  }
  /** @param again on a further page: those who listen have heard it */
  head(again: boolean): void {
    if (!this.#headed) return;
    const pen = this.#pen;
    const places = this.#places();
    const height = this.headHeight;
    const y = pen.y + PAD;
    const cell = (c: Column, i: number): void => {
      if (c.head) pen.write(c.head, { ...HEAD, ...places[i]!, y, align: right(c) ? "right" : "left" });
    };
    if (again) pen.untagged(() => this.#columns.forEach(cell));
    else {
      const end = pen.open("TR");
      this.#columns.forEach((c, i) => pen.tagged("TH", () => cell(c, i), { scope: "Column" }));
      end();
    }
    pen.y += height;
    pen.rule(pen.left, pen.y, pen.right, "strong");
  }

  /** A new page where so much doesn't fit, with the heading again. */
  need(height: number): void {
    if (this.#pen.fits(height)) return;
    this.#pen.page();
    this.head(true);
  }

  group(head: string): void {
    const pen = this.#pen;
    pen.y += GRID / 2;
    const end = pen.open("TR");
    pen.tagged("TH", () => pen.write(head, { face: "display", size: 11, x: pen.left, y: pen.y, width: pen.room }), {
      scope: "Row",
      columns: this.#columns.length,
    });
    end();
    pen.y += GRID + 3;
  }

  row(row: readonly Cell[], { last = false, strong = false }: { last?: boolean; strong?: boolean } = {}): void {
    const pen = this.#pen;
    const height = this.heightOf(row);
    if (pen.tooHigh(height)) {
      this.#flowing(row);
      return;
    }
    const places = this.#places();
    const y = pen.y + PAD + this.#above;
    const end = pen.open("TR");
    row.forEach((cell, i) => {
      const column = this.#columns[i]!;
      const { text, note } = partsOf(cell);
      const align = right(column) ? "right" : "left";
      const ink = strong ? { ...inkOf(cell, column), face: "strong" as const } : inkOf(cell, column);
      // Without a heading, the first cell names the rest.
      pen.tagged(
        !this.#headed && i === 0 ? "TH" : "TD",
        () => {
          const below = text ? pen.write(text, { ...ink, soft: !this.#headed && i === 0, ...places[i]!, y, align }) : 0;
          if (note) pen.write(note, { ...NOTE, ...places[i]!, y: y + below, align });
        },
        !this.#headed && i === 0 ? { scope: "Row" } : {},
      );
    });
    end();
    row.forEach((cell, i) => {
      const { x, width } = places[i]!;
      if (this.#columns[i]!.as === "write" && cell === "" && !strong) pen.rule(x, y + BODY * 1.15, x + width, "strong");
    });
    pen.y += height;
    if (!last) pen.rule(pen.left, pen.y, this.#end, "fine");
  }

  /** A row with more text than half a page: cell by cell, each across the page. */
  #flowing(row: readonly Cell[]): void {
    row.forEach((cell, i) => {
      const { text, note } = partsOf(cell);
      const head = this.#columns[i]!.head;
      const said = [text, note].filter(Boolean).join("\n");
      if (!said) return;
      const end = this.#pen.open("TR");
      this.#pen.tagged("TD", () => this.#pen.flow(head ? `${head}: ${said}` : said));
      end();
    });
    this.#pen.y += PAD;
    this.#pen.rule(this.#pen.left, this.#pen.y, this.#end, "fine");
  }
}

/** @param headed whether its columns have headings; without, the first says what the others are */
export async function drawTable(pen: Pen, table: Table, { headed }: { headed: boolean }): Promise<void> {
  const drawing = new Drawing(pen, table, headed);
  const { groups, foot } = table;
  const first = groups.find((g) => g.rows.length > 0)?.rows[0];
  pen.need(drawing.headHeight + (first ? drawing.heightOf(first) : 0) + (groups[0]?.head ? GRID * 2 : 0));
  const end = pen.open("Table");
  drawing.head(false);
  let drawn = 0;
  for (const { head, rows } of groups) {
    if (head && rows.length > 0) {
      drawing.need(GRID * 2 + drawing.heightOf(rows[0]!));
      drawing.group(head);
    }
    for (const [i, row] of rows.entries()) {
      const left = rows.length - i;
      const together = left === TOGETHER && rows.length > TOGETHER ? rows.slice(i) : [row];
      const withFoot = foot && together.length === left ? drawing.heightOf(foot) : 0;
      const all = together.reduce((a, r) => a + drawing.heightOf(r), withFoot);
      drawing.need(pen.tooHigh(all) ? drawing.heightOf(row) : all);
      drawing.row(row, { last: left === 1 && !foot });
      // So that a long paper doesn't keep others waiting.
      if (++drawn % TURN === 0) await new Promise((go) => setImmediate(go));
    }
  }
  if (foot) drawing.row(foot, { last: true, strong: true });
  end();
  pen.y += GRID / 2;
}
