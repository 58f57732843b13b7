/** The cabinet by age, so that what has to be sold first is seen from across the room; its table beneath has the same figures. */
import { AGE_IDS, AGES, type AgedProduct } from "#core/cabinet/ages";
import { lazy } from "react";
import { Link } from "../ui/link.tsx";
import { AsTable, Drawn } from "../ui/figures/drawn.tsx";
import { Part } from "../ui/sheet/sheet.tsx";
import { Table } from "../ui/lists/table.tsx";

const AgeChart = lazy(() => import("./ageChart.tsx"));
/** The picture shows so many; the table has all of them. */
const DRAWN = 14;
const ROW_PX = 26;

export function Ages({ products }: { products: readonly AgedProduct[] }) {
  const shown = products.slice(0, DRAWN);
  const any = (a: (typeof AGE_IDS)[number]) => products.some((p) => p.units[a] > 0);
  return (
    <Part title="By age" aside={<span className="text-[0.92rem] text-pine-soft">What should be sold first stands on top.</span>}>
      <Drawn height={shown.length * ROW_PX + 64}>
        <AgeChart products={shown} />
      </Drawn>
      <AsTable>
        <Table
          rows={products}
          by={(p) => p.of}
          columns={[
            {
              head: "Product",
              cell: (p) => (
                <Link to={`/prices/${p.of}`} className="hover:underline">
                  {p.name}
                </Link>
              ),
            },
            ...AGE_IDS.filter(any).map((a) => ({
              head: AGES[a].charAt(0).toUpperCase() + AGES[a].slice(1),
              as: "figure" as const,
              cell: (p: AgedProduct) => p.units[a] || "",
            })),
          ]}
        />
      </AsTable>
    </Part>
  );
}
