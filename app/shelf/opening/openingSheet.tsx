/** The sheet of opening stock, line by line, with what it comes to beside it. */
import { factsIn } from "#core/material/facts";
import { sum } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { firstMistake } from "#core/refused";
import { readOpening, type OpeningTexts } from "#core/stock/openingSheet";
import { counted } from "#core/words";
import { useMemo, useState, type ReactNode } from "react";
import { useSheet, type Opened } from "../../forms/useSheet.ts";
import { MATERIALS } from "../../names/finds.ts";
import { useRememberMeaning, useMeaningOf } from "../../names/useMeaning.ts";
import { showBase } from "../../ui/figures/amounts.tsx";

import { nameCell } from "../../names/combo.tsx";
import { LineTable, type Column } from "../../ui/fields/lines.tsx";
import { Figure, HowLine, Reckoner } from "../../ui/figures/reckoner.tsx";
import { Sheet, SideBySide } from "../../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../../forms/sheetSays.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { BLANK, finding, type Known } from "./openingTexts.ts";

const HOW_KNOWN = [
  ["paid", "paid"],
  ["guessed", "a guess"],
] as const;
const DETAILS: readonly Column[] = [
  { key: "supplierLot", label: "Lot on it", width: "6rem" },
  { key: "bestBefore", label: "Best before", day: "future", width: "8rem" },
  { key: "bought", label: "Bought on", day: "past", width: "8rem" },
];

interface Props {
  materials: readonly Known[];
  prepared: readonly string[];
  opened: Opened;
  heading: (button: ReactNode) => ReactNode;
}

/** The sheet itself, on either page. */
export function OpeningSheet({ materials, prepared, opened, heading }: Props) {
  const { currency, today: day } = useWorkshop();
  const lines = prepared.length > 0 ? prepared.map((material) => ({ ...BLANK, material })) : [BLANK];
  const sheet = useSheet<{ lines: OpeningTexts[] }>({ lines }, opened, { draft: "Opening stock" });
  const [more, setMore] = useState(false);
  const meant = useMeaningOf("material", sheet.means);
  const find = useMemo(() => finding(materials, meant), [materials, meant]);
  useRememberMeaning(
    "material",
    sheet.values.lines.map((l) => l.material),
    find,
    sheet.means,
  );
  const { lines: read, problems } = readOpening(sheet.values.lines, find, day);
  const there = read.flatMap((l) => l ?? []);
  const guessed = there.filter((l) => l.costKnown === "guessed");
  const open = there.filter((l) => l.costKnown === "none");
  return (
    <form onSubmit={sheet.send()}>
      {heading(<Send sheet={sheet}>Put {there.length > 0 ? counted(there.length, "lot") : "it"} on the shelf</Send>)}
      <SideBySide
        reckoner={
          <Reckoner unread={firstMistake(problems, sheet.values)}>
            <Figure label="Lots" value={there.length} />
            <Figure label="Worth" big value={money(sum(there.map((l) => l.cost)), currency)} />
            {guessed.length > 0 && (
              <Figure
                label="Of that guessed"
                tone="warn"
                value={money(sum(guessed.map((l) => l.cost)), currency)}
                how={guessed.map((l, i) => (
                  <HowLine key={i} label={l.material.name} value={money(l.cost, currency)} />
                ))}
              />
            )}
            {open.length > 0 && (
              <Figure
                label="Without a cost"
                tone="warn"
                value={counted(open.length, "lot")}
                how={
                  <>
                    {open.map((l, i) => (
                      <p key={i}>{l.material.name}</p>
                    ))}
                    <p>Their cost can be said later, on their own sheets; what was made of them follows.</p>
                  </>
                }
              />
            )}
          </Reckoner>
        }
      >
        <Sheet>
          <SheetSays sheet={sheet} />
          <LineTable
            form={sheet.form}
            name="lines"
            blank={BLANK}
            addLabel="Add a line"
            columns={[
              { key: "material", label: "Material", own: nameCell(MATERIALS), width: more ? "24%" : "40%" },
              { key: "amount", label: "On hand", right: true, placeholder: "g, mL, pcs", width: "6rem" },
              { key: "cost", label: "It cost", right: true, width: "6rem" },
              { key: "known", label: "which is", width: "6.5rem", options: HOW_KNOWN },
              ...(more ? DETAILS : []),
            ]}
            derived={[
              {
                label: "In all",
                cell: (i) => <span className="weight">{read[i] ? showBase(read[i].qty, factsIn(read[i].material).measured) : ""}</span>,
              },
            ]}
          />
          <p className="mt-4 text-small text-pine-soft">
            {!more && (
              <button type="button" className="pressable mb-1 block!" onClick={() => setMore(true)}>
                With lot numbers and dates
              </button>
            )}
            Leave the cost empty where nobody knows it. Empty lines are passed over. Rows paste in from a spreadsheet, in the order of the
            columns.
          </p>
        </Sheet>
      </SideBySide>
    </form>
  );
}
