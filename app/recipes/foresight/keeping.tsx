/** How long it keeps: what in it is the first to turn, what it would keep without that, and what an antioxidant can and can't do. */
import { sayShare } from "#core/measure/write";
import { isWet } from "#core/recipe/judge/keeping";
import { lengthened, putIn } from "#core/recipe/instead/replace";
import { takesAmounts } from "#core/recipe/instead/instead";
import type { Judged } from "#core/recipe/judge/judgement";
import { keepingOf, monthsUntil, OPENED_MONTHS, type Weak } from "#core/recipe/keeping";
import { addMonths } from "#core/when";
import { micros, type Micros } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { counted } from "#core/words";
import { useMemo } from "react";
import { When } from "../../ui/figures/amounts.tsx";
import { Button } from "../../ui/fields/form.tsx";
import { Caution } from "../../ui/sheet/sheet.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { useStandIns } from "../instead/useStandIns.ts";
import type { AppliedFix } from "./suggestedFix.ts";

const costs = (dearer: Micros | null, currency: string): string =>
  dearer === null
    ? "What the batch costs then nobody knows yet"
    : dearer === 0
      ? "The batch costs the same"
      : `The batch costs ${money(micros(Math.abs(dearer)), currency)} ${dearer > 0 ? "more" : "less"}`;

/** What would lengthen it most, what that costs, and the press that does it. */
function Longer({ judged, mending }: { judged: Judged; mending: AppliedFix }) {
  const { currency } = useWorkshop();
  const known = useStandIns(judged.lines.map((l) => l.of));
  const longer = useMemo(() => (known ? lengthened(judged, known) : null), [judged, known]);
  if (!known || !takesAmounts(judged)) return null;
  if (!longer)
    return <p className="text-pine-soft">Nothing on the shelf or in the library that could stand in for the first keeps longer.</p>;
  const { line, instead } = longer;
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <p>
        Most is gained with <strong>{instead.by.name}</strong> for {line.name}: <strong>{counted(instead.months, "month")}</strong>.{" "}
        {costs(instead.dearer, currency)}; {instead.reasons.join(", ")}.
      </p>
      <Button small onClick={() => mending.press(putIn(judged, line, instead))}>
        Put it in the recipe
      </Button>
    </div>
  );
}

export function Keeps({ judged, mending }: { judged: Judged; mending: AppliedFix }) {
  const { today, keepsMonths } = judged;
  const keeping = keepingOf(judged.lines, today, keepsMonths);
  const usual = addMonths(today, keepsMonths);
  const against = judged.lines.filter((l) => l.kind === "antioxidant");
  const delicate = judged.lines.filter((l) => l.cautions.includes("delicate"));
  const wet = judged.lines.filter(isWet);
  const without = (w: Weak): string => keeping.weak[keeping.weak.indexOf(w) + 1]?.day ?? usual;
  return (
    <div className="space-y-4">
      <p>
        Made today it keeps <strong>{counted(keeping.months, "month")}</strong>, until <When day={keeping.day} />
        {keeping.weak.length === 0 ? ", as long as is written below: nothing in it turns before." : "."} Once it is opened,{" "}
        {counted(Math.min(OPENED_MONTHS, keeping.months), "month")} at most.
      </p>
      {keeping.weak.length > 0 && (
        <Table
          rows={keeping.weak}
          by={(w) => w.name}
          columns={[
            { head: "Turns before it", cell: (w) => w.name },
            { head: "Lot", cell: (w) => (w.number === null ? "to be bought new" : <span className="weight">{w.number}</span>) },
            { head: "Good until", cell: (w) => <When day={w.day} /> },
            {
              head: "Without it and those above",
              as: "figure",
              cell: (w) => counted(monthsUntil(today, without(w)), "month"),
            },
          ]}
        />
      )}
      {keeping.weak.length > 0 && <Longer judged={judged} mending={mending} />}
      <p className="text-pine-soft">
        {against.length > 0
          ? `${against.map((l) => `${sayShare(l.share)} ${l.name}`).join(", ")} slows rancidity; it is no preservative, and a lot past its day stays past its day.`
          : delicate.length > 0
            ? `${delicate.map((l) => l.name).join(" and ")} turns soon, and nothing here slows it: 0.2 to 2 % vitamin E does, for little money. A steadier oil does more.`
            : "No antioxidant in it. 0.2 to 2 % vitamin E slows rancidity; it is no preservative."}
      </p>
      {wet.length > 0 && (
        <Caution>
          {wet.map((l) => l.name).join(" and ")} brings water. None of the months above holds for it: without a preservative made for it,
          and testing, it is for the fridge and a few days.
        </Caution>
      )}
    </div>
  );
}
