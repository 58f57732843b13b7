/** The shelf's worth by the three costing schools, opened when wanted. */
import { money } from "#core/measure/money";
import { SCHOOLS, SCHOOL_IDS } from "#core/stock/schools";
import { useFetcher } from "react-router";
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
        <table className="ruled mt-2 w-auto!">
          <thead>
            <tr>
              <th scope="col">On hand, by</th>
              <th scope="col" className="text-right!">
                Ingredients
              </th>
              <th scope="col" className="text-right!">
                Packaging
              </th>
            </tr>
          </thead>
          <tbody>
            {SCHOOL_IDS.map((s) => (
              <tr key={s}>
                <th scope="row" className="text-[1rem]! font-normal text-pine!">
                  {SCHOOLS[s]}
                </th>
                <td className="num">{money(worth.data!.ingredient[s], currency)}</td>
                <td className="num">{money(worth.data!.packaging[s], currency)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </details>
  );
}
