/** The shelf as PDF: what is on hand of every material and its worth, with its lots, or that of a board or a search. */
import { groupBy } from "#core/collect";
import { KINDS, KIND_IDS, kind } from "#core/material/kinds";
import { sum } from "#core/measure/exact";
import { firstExpiredFirst, lotState } from "#core/stock/lots";
import { LISTED_AT_MOST } from "#db/lists";
import { lotsOfMaterials } from "#db/ledger/lots";
import { today } from "#db/clock";
import type { Cell } from "../paper/paper.ts";
import { pdfFile } from "../paper/pdf.server.ts";
import { db } from "../server/workshop.server.ts";
import { showInColumn, STATE_WORDS } from "../ui/figures/amounts.tsx";
import { askedForFile } from "./asked.server.ts";
import type { Route } from "./+types/shelfPdf";

export async function loader({ request }: Route.LoaderArgs) {
  const materials = await askedForFile(request, LISTED_AT_MOST);
  const lots = await lotsOfMaterials(
    db(),
    materials.map((m) => m.id),
  );
  const own = groupBy([...lots].sort(firstExpiredFirst), (l) => l.of);
  const boards = groupBy(materials, (m) => m.kind);
  return pdfFile(({ money, day }) => ({
    title: "Shelf",
    file: `shelf-${today()}`,
    about: `On hand ${day(today())}, worth ${money(sum(materials.map((m) => m.value)))}`,
    parts: [
      {
        columns: [
          { head: "Material" },
          { head: "Lot", as: "lot" },
          { head: "Best before" },
          { head: "On hand", as: "weight" },
          { head: "Worth", as: "figure" },
        ],
        groups: KIND_IDS.filter((k) => boards.has(k)).map((k) => ({
          head: KINDS[k].plural,
          rows: boards.get(k)!.flatMap((m): Cell[][] => {
            const { measured } = kind(m.kind);
            const all = own.get(m.id) ?? [];
            const whole: Cell[] = [
              {
                text: m.name,
                strong: true,
                note: [m.low && "low", m.coming > 0 && `${showInColumn(m.coming, measured)} to come`].filter(Boolean).join(", "),
              },
              "",
              "",
              m.onHand === 0 ? "none" : { text: showInColumn(m.onHand, measured), strong: true },
              money(m.value),
            ];
            // Of one lot all is in one line.
            const [only] = all;
            if (only && all.length === 1) return [[whole[0]!, tag(only), day(only.bestBefore), whole[3]!, whole[4]!]];
            return [whole, ...all.map((l): Cell[] => ["", tag(l), day(l.bestBefore), showInColumn(l.onHand, measured), ""])];
          }),
        })),
      },
    ],
  }));
}

/** A lot's number, and how it is where that isn't good. */
const tag = (l: Parameters<typeof lotState>[0] & { number: string }): Cell => ({ text: l.number, note: STATE_WORDS[lotState(l, today())] });
