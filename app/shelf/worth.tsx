/** The shelf's worth by the three costing methods, opened when wanted. */
import { money } from "#core/measure/money";
import { COSTING_METHODS, COSTING_METHOD_IDS } from "#core/stock/costingMethods";
import { useFetcher } from "react-router";
import { Table } from "../ui/lists/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { loader } from "./worthByCostingMethod.ts";

export function Worth() {
  const { currency } = useWorkshop();
  const worth = useFetcher<typeof loader>();
  return (
    <details
      className="no-print"
      onToggle={(e) => e.currentTarget.open && worth.state === "idle" && !worth.data && void worth.load("/shelf/worth")}
    >
      <summary className="pressable list-none">Value by costing method</summary>
      {worth.data && (
        <Table
          className="mt-2 w-auto!"
          rows={COSTING_METHOD_IDS}
          by={(s) => s}
          columns={[
            { head: "On hand, by", cell: (s) => COSTING_METHODS[s] },
            { head: "Ingredients", as: "figure", cell: (s) => money(worth.data!.ingredient[s], currency) },
            { head: "Packaging", as: "figure", cell: (s) => money(worth.data!.packaging[s], currency) },
          ]}
        />
      )}
    </details>
  );
}
