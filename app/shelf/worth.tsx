/** The shelf's worth by the three costing schools, opened when wanted. */
import { money } from "#core/measure/money";
import { SCHOOLS, SCHOOL_IDS } from "#core/stock/schools";
import { useFetcher } from "react-router";
import { Table } from "../ui/lists/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { loader } from "./worthBySchool.ts";

export function Worth() {
  const { currency } = useWorkshop();
  const worth = useFetcher<typeof loader>();
  return (
    <details
      className="no-print"
      onToggle={(e) => e.currentTarget.open && worth.state === "idle" && !worth.data && void worth.load("/shelf/worth")}
    >
      <summary className="pressable list-none">Worth by each school</summary>
      {worth.data && (
        <Table
          className="mt-2 w-auto!"
          rows={SCHOOL_IDS}
          by={(s) => s}
          columns={[
            { head: "On hand, by", cell: (s) => SCHOOLS[s] },
            { head: "Ingredients", as: "figure", cell: (s) => money(worth.data!.ingredient[s], currency) },
            { head: "Packaging", as: "figure", cell: (s) => money(worth.data!.packaging[s], currency) },
          ]}
        />
      )}
    </details>
  );
}
