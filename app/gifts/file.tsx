/** Gift orders from a spreadsheet's file or a paste: shown first, written as one act. */
import { DUE_BEFORE, dueBeforeOf, ORDERS, readOrders, type OrderField, type OrderLine } from "#core/listsIn/orders";
import { money } from "#core/measure/money";
import { addOrders, ordersAlready } from "#db/listsIn/orders";
import { Link } from "react-router";
import { listAction } from "../forms/table/listFile.server.ts";
import { ListFile } from "../forms/table/listFile.tsx";
import { productChoices, productsMeant } from "../forms/table/products.server.ts";
import { unknownProducts } from "../forms/table/unknownNames.tsx";
import { db } from "../server/workshop.server.ts";
import { Choice } from "../ui/fields/form.tsx";
import { When } from "../ui/figures/amounts.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { Route } from "./+types/file";

export const meta: Route.MetaFunction = () => [{ title: "Orders, from a file · Zelbin" }];

export const loader = async () => ({ products: await productChoices(), token: crypto.randomUUID() });

const WORDS = ["order", "orders"] as const;
const ASK = "Some were due before today, and the list doesn’t say whether they went out.";

interface More {
  asksBefore: boolean;
}

export const action = ({ request }: Route.ActionArgs) =>
  listAction(request, {
    spec: ORDERS,
    words: WORDS,
    read: async ({ rows, reading, matches, extras }) => {
      const before = dueBeforeOf(extras.before ?? "");
      const [meant, there] = await Promise.all([productsMeant(matches), ordersAlready(db())]);
      const { asksBefore, ...list } = readOrders(rows, meant, there, before, reading);
      return {
        list,
        more: { asksBefore } satisfies More,
        first: asksBefore && before === null ? ASK : "",
        add: (doing) => addOrders(db(), { orders: list.fresh }, doing),
      };
    },
  });

export default function OrdersFile({ loaderData: { products, token } }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  const names = new Map(products);
  return (
    <ListFile<OrderField, OrderLine, More>
      spec={ORDERS}
      token={token}
      title="Orders, from a file"
      about="A row for each product of an order: who it is for, by when, how many, at what price. What was handed over before the books began takes nothing out of the cabinet."
      links={
        <Link to="/gifts" className="act">
          All orders
        </Link>
      }
      placeholder={"for;due;product;size;units;price;state\nThe choir;19.12.2026;Hand balm;60 g;12;11,00;open\n;;Lip balm;;12;4,00;"}
      words={WORDS}
      extras={{ before: "" }}
      beside={(more, extras, set) =>
        more.asksBefore && (
          <Choice
            label="Those due before today"
            problem={extras.before === "" ? ASK : undefined}
            value={extras.before ?? ""}
            onChange={(e) => set({ before: e.target.value })}
            options={[...(extras.before === "" ? [["", "— choose —"] as const] : []), ...Object.entries(DUE_BEFORE)]}
          />
        )
      }
      names={unknownProducts(products, "leave these orders out")}
      columns={[
        { head: "For", cell: (l) => <span className="font-display text-lead">{l.customer}</span> },
        { head: "Due", cell: (l) => <When day={l.due} /> },
        { head: "What", plain: true, cell: (l) => l.items.map((i) => `${i.units} × ${names.get(String(i.productId))}`).join(", ") },
        {
          head: "Price",
          as: "figure",
          className: "font-semibold",
          cell: (l) =>
            money(
              l.items.reduce((a, i) => a + i.units * i.price, 0),
              currency,
            ),
        },
        {
          head: "State",
          cell: (l) =>
            l.handedOver ? (
              <>
                handed over <When day={l.handedOver} />
              </>
            ) : (
              "to be packed"
            ),
        },
      ]}
    />
  );
}
