/** A lot's trace as PDF: what it came from, where it went, and what it went into, down to market days and orders. */
import type { HistoryRow, NamedLot } from "#db/lots/trace";
import type { Cell, Part } from "../paper/paper.ts";
import { pdfFile, type Said } from "../paper/pdf.server.ts";
import { showBase, showInColumn } from "../ui/figures/amounts.tsx";
import { loader as page } from "./lot.tsx";
import { nameOf } from "./lotColumns.tsx";
import { measureOf } from "./lotHistory.tsx";
import { cameToBe, went } from "./went.ts";
import type { Route } from "./+types/lotPdf";

/** A lot's comings and goings. */
const history = (rows: readonly HistoryRow[], lot: NamedLot, { day, money }: Said): Part => ({
  columns: [{ head: "Day" }, { head: "What" }, { head: "Amount", as: "weight" }],
  groups: [
    {
      rows: rows.map((r): Cell[] => {
        const { say, note } = went(r);
        const amount = r.qty === 0 ? money(r.value) : `${r.qty < 0 ? "−" : "+"}${showInColumn(Math.abs(r.qty), measureOf(lot))}`;
        return [day(r.day), { text: say, note }, amount];
      }),
    },
  ],
});

export async function loader(at: Route.LoaderArgs) {
  const { lot, back, forward, history: all, contents, made } = await page(at as never);
  const inIt = new Map(contents.map((c) => [c.of, c.qty]));
  return pdfFile((said) => ({
    title: `Lot ${lot.number}`,
    file: `lot-${lot.number}`,
    about: [
      [
        nameOf(lot),
        lot.supplier && `from ${lot.supplier}`,
        lot.supplierLot && `${lot.productId === null ? "their lot" : "marked"} ${lot.supplierLot}`,
      ]
        .filter(Boolean)
        .join(", "),
      [
        `${lot.productId === null ? "Arrived" : "Poured"} ${said.day(lot.arrived)}`,
        lot.bestBefore && `best before ${said.day(lot.bestBefore)}`,
        `${showBase(lot.onHand, measureOf(lot))} left`,
      ]
        .filter(Boolean)
        .join(", "),
      lot.hold && `On hold: ${lot.holdReason}`,
      lot.productId !== null && !made.some((m) => m.lotId === lot.id) && "Made before the books began: what is in it isn’t known here.",
    ]
      .filter(Boolean)
      .join("\n"),
    parts: [
      ...(back.length > 0
        ? [
            { heading: "Came from" },
            {
              columns: [
                { head: "Lot", as: "lot" as const },
                { head: "Of" },
                { head: "Supplier" },
                { head: "Best before" },
                { head: "In it", as: "weight" as const },
              ],
              groups: [
                {
                  rows: back.map(({ lot: l }): Cell[] => [
                    l.number,
                    nameOf(l),
                    { text: l.supplier ?? "", note: l.supplierLot },
                    said.day(l.bestBefore),
                    inIt.has(l.id) ? showInColumn(inIt.get(l.id)!, measureOf(l)) : "",
                  ]),
                },
              ],
            },
          ]
        : []),
      { heading: lot.productId === null ? "In and out" : "Where it went" },
      history(
        all.filter((r) => r.lotId === lot.id),
        lot,
        said,
      ),
      ...forward.flatMap(({ lot: l }, i): Part[] => [
        ...(i === 0 ? [{ heading: "Went into" }] : []),
        {
          text: `${l.number}  ${nameOf(l)}, ${l.productId === null ? "made" : "poured"} ${said.day(l.arrived)}, ${showBase(l.onHand, measureOf(l))} still here`,
          as: "strong",
        },
        history(
          all.filter((r) => r.lotId === l.id && !cameToBe(r)),
          l,
          said,
        ),
      ]),
    ],
  }));
}
