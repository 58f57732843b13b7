/** Finished goods from before the books, from a spreadsheet's file or a paste: shown first, put into the cabinet as one act. */
import { FINISHED, readFinished, type FinishedField, type FinishedLine } from "#core/listsIn/finished";
import { money } from "#core/measure/money";
import { finishedAlready, keepsByProduct, openingFinished } from "#db/listsIn/finished";
import { Link } from "react-router";
import { listAction } from "../forms/table/listFile.server.ts";
import { ListFile } from "../forms/table/listFile.tsx";
import { productChoices, productsMeant } from "../forms/table/products.server.ts";
import { unknownProducts } from "../forms/table/unknownNames.tsx";
import { db } from "../server/workshop.server.ts";
import { When } from "../ui/figures/amounts.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { Route } from "./+types/file";

export const meta: Route.MetaFunction = () => [{ title: "Finished goods, from a file · Zelbin" }];

export const loader = async () => ({ products: await productChoices(), token: crypto.randomUUID() });

const WORDS = ["lot", "lots"] as const;

export const action = ({ request }: Route.ActionArgs) =>
  listAction(request, {
    spec: FINISHED,
    words: WORDS,
    read: async ({ rows, reading, matches }) => {
      const [meant, keeps, there] = await Promise.all([productsMeant(matches), keepsByProduct(db()), finishedAlready(db())]);
      const list = readFinished(rows, meant, keeps, there, reading);
      return { list, more: null, add: (doing) => openingFinished(db(), { lots: list.fresh }, doing) };
    },
  });

export default function FinishedFile({ loaderData: { products, token } }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  const names = new Map(products);
  return (
    <ListFile<FinishedField, FinishedLine, null>
      spec={FINISHED}
      token={token}
      title="Finished goods, from a file"
      about="What was in the cabinet before the books began: what it is and how many; its lot, its days and what one cost where you have them. What is in it can’t be traced, since it was made elsewhere."
      links={
        <Link to="/cabinet" className="act">
          The cabinet
        </Link>
      }
      placeholder={"product;size;units;made on;best before;lot\nHand balm;60 g;24;12.10.2026;12.10.2027;H-17"}
      words={WORDS}
      names={unknownProducts(products, "leave these rows out")}
      columns={[
        { head: "Product", cell: (l) => <span className="font-display text-lead">{names.get(String(l.productId))}</span> },
        { head: "Units", as: "figure", cell: (l) => l.units },
        { head: "Lot on it", plain: true, cell: (l) => l.lotOnIt },
        { head: "Made on", cell: (l) => (l.made ? <When day={l.made} /> : "not known") },
        {
          head: "Best before",
          cell: (l) => (
            <>
              {l.bestBefore ? <When day={l.bestBefore} /> : "not known"}
              {l.worked && <span className="block text-fine text-pine-soft">by how long the recipe keeps</span>}
            </>
          ),
        },
        { head: "Cost of one", as: "figure", cell: (l) => (l.cost === null ? "not known" : money(l.cost, currency)) },
      ]}
    />
  );
}
