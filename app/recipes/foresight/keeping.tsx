/** How long it keeps: what in it is the first to turn, what it would keep without that, and what an antioxidant can and can't do. */
import { bearsWater } from "#core/recipe/judge/keeping";
import { sayShare, type Judged } from "#core/recipe/judge/judgement";
import { monthsUntil, OPENED_MONTHS, type Weak } from "#core/recipe/keeping";
import { addMonths } from "#core/when";
import { counted } from "#core/words";
import { When } from "../../ui/figures/amounts.tsx";
import { Caution } from "../../ui/sheet/sheet.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";

export function Keeps({ judged }: { judged: Judged }) {
  const { today } = useWorkshop();
  const { keeping, keepsMonths } = judged;
  const usual = addMonths(today, keepsMonths);
  const against = judged.lines.filter((l) => l.kind === "antioxidant");
  const delicate = judged.lines.filter((l) => l.cautions.includes("delicate"));
  const wet = judged.lines.filter(bearsWater);
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
