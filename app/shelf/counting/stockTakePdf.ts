/** The stock-take's list as PDF: every lot on the shelf in the order it is walked, with a line for what is counted. */
import { groupBy } from "#core/collect";
import { kind, KIND_IDS, KINDS } from "#core/material/kinds";
import { today } from "#db/clock";
import { walkShelf, WALK_PAGE, type WalkRow } from "#db/shelf/counting/stocktake";
import type { Cell } from "../../paper/paper.ts";
import { pdfFile } from "../../paper/pdf.server.ts";
import { db } from "../../server/workshop.server.ts";
import { showInColumn } from "../../ui/figures/amounts.tsx";

/** The whole shelf, whatever board is open. */
async function walkAll(): Promise<WalkRow[]> {
  const all: WalkRow[] = [];
  for (let page = 0; ; page++) {
    const rows = await walkShelf(db(), { page });
    all.push(...rows);
    if (rows.length < WALK_PAGE) return all;
  }
}

export async function loader() {
  const boards = groupBy(await walkAll(), (r) => r.kind);
  return pdfFile(({ day }) => ({
    title: "Stock-take",
    file: `stock-take-${today()}`,
    about: `As expected on ${day(today())}`,
    parts: [
      { toWrite: [["Counted by", ""]] },
      {
        columns: [
          { head: "Material" },
          { head: "Lot", as: "lot" },
          { head: "Best before" },
          { head: "Expected", as: "weight" },
          { head: "Counted", as: "write" },
          { head: "Why it differs", as: "write" },
        ],
        groups: KIND_IDS.filter((k) => boards.has(k)).map((k) => ({
          head: KINDS[k].plural,
          rows: boards
            .get(k)!
            .map((r): Cell[] => [
              r.material,
              r.number,
              day(r.bestBefore),
              showInColumn(r.onHand, kind(r.kind).measured),
              r.counted === null ? "" : showInColumn(r.counted, kind(r.kind).measured),
              r.note ?? "",
            ]),
        })),
      },
    ],
  }));
}
