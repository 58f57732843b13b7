/** Gift orders: the ones to pack first, then the ones that went out. */
import { Link } from "react-router";
import { money } from "#core/measure/money";
import { orderResult } from "#core/gift/order";
import { micros } from "#core/measure/exact";
import { daysBetween } from "#core/when";
import { STANDINGS } from "#core/gift/standing";
import { openOrders } from "#db/gifts/begin";
import { listGiftOrders } from "#db/gifts/gifts";
import { today } from "#db/clock";
import { db } from "../server/workshop.server.ts";
import { When } from "../ui/figures/amounts.tsx";
import { Empty, Heading, Part, Sheet } from "../ui/sheet/sheet.tsx";
import { ListTable } from "../ui/lists/listTable.tsx";
import { SaveList } from "../ui/lists/saveList.tsx";
import { askedOf, partOf, useFullList } from "../ui/lists/useFullList.ts";
import { useWorkshop } from "../ui/workshop.ts";
import { ORDERS_FILE } from "./ordersFile.ts";
import { stepSentences } from "./stepSentences.server.ts";
import { OrderSteps } from "./orderSteps.tsx";
import type { Route } from "./+types/gifts";

export const meta: Route.MetaFunction = () => [{ title: "Gifts · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const { most } = askedOf(request);
  const [all, open] = await Promise.all([listGiftOrders(db(), undefined, most), openOrders(db(), today())]);
  const { rows, more } = partOf(all, most);
  const stands = new Map(open.map((o) => [o.orderId, o]));
  const orders = rows.map((o) => ({
    standing: stands.get(o.id)?.standing ?? null,
    steps: stepSentences(stands.get(o.id)?.steps ?? [], o.id),
    id: o.id,
    customer: o.customer,
    due: o.due,
    packed: o.packedActId !== null,
    note: o.note,
    discountBp: o.discountBp,
    items: o.items.map((i) => `${i.units} × ${i.name}`).join(", "),
    price: orderResult({
      items: o.items.map((i) => ({ ...i, cost: micros(0) })),
      wrapping: [],
      wrapMinutes: 0,
      hourly: micros(0),
      extra: o.extra,
      discountBp: o.discountBp,
    }).price,
  }));
  return { rows: orders, more };
}

const TO_PACK = "orders to pack";
const TONE = { ready: "text-sage", missing: "text-honey", late: "text-berry" } as const;
type Order = Route.ComponentProps["loaderData"]["rows"][number];

const Write = () => (
  <Link to="/gifts/new" className="act act-main">
    Write an order
  </Link>
);

export default function Gifts({ loaderData }: Route.ComponentProps) {
  const { rows: orders, more, ask } = useFullList(loaderData);
  const { currency, today } = useWorkshop();
  const inDays = (due: string): string => {
    const n = daysBetween(today, due);
    return n < 0 ? `${-n} days late` : n === 0 ? "today" : n === 1 ? "tomorrow" : `in ${n} days`;
  };
  const unread = (what: string): boolean => more && (what !== TO_PACK || orders.every((o) => !o.packed));
  const table = (what: string, rows: readonly (typeof orders)[number][]) => (
    <ListTable
      what={what}
      more={unread(what)}
      ask={ask}
      rows={rows}
      by={(o) => o.id}
      finds={(o) => `${o.customer} ${o.note} ${o.items}`}
      under={(found) => <SaveList what={what} rows={found} {...ORDERS_FILE} more={unread(what)} ask={ask} />}
      columns={[
        {
          head: "For",
          sorts: (o) => o.customer,
          cell: (o) => (
            <>
              <Link to={`/gifts/${o.id}`} className="font-display text-lead hover:underline">
                {o.customer}
              </Link>
              {o.note && <span className="block text-fine text-pine-soft">{o.note}</span>}
            </>
          ),
        },
        {
          head: "Due",
          sorts: (o) => o.due,
          className: "whitespace-nowrap",
          cell: (o) => (
            <>
              <When day={o.due} />
              {!o.packed && (
                <span className={`block text-fine font-semibold ${daysBetween(today, o.due) < 0 ? "text-berry" : "text-honey"}`}>
                  {inDays(o.due)}
                </span>
              )}
            </>
          ),
        },
        {
          head: "What",
          plain: true,
          cell: (o) => (
            <>
              {o.items}
              {o.steps.length > 0 && (
                <div className="mt-1">
                  <OrderSteps steps={o.steps} />
                </div>
              )}
            </>
          ),
        },
        ...(what === TO_PACK
          ? [
              {
                head: "State",
                sorts: (o: Order) => ["late", "missing", "ready"].indexOf(o.standing ?? "ready"),
                cell: (o: Order) => o.standing && <span className={`font-semibold ${TONE[o.standing]}`}>{STANDINGS[o.standing]}</span>,
              },
            ]
          : []),
        { head: "Price", as: "figure", sorts: (o) => o.price, className: "font-semibold", cell: (o) => money(o.price, currency) },
      ]}
    />
  );
  const open = orders.filter((o) => !o.packed);
  const packed = orders.filter((o) => o.packed);
  return (
    <>
      <Heading title="Gifts">
        <Link to="/people?of=customer" className="act">
          Customers
        </Link>
        <Link to="/gifts/file" className="act">
          From a file
        </Link>
        <Write />
      </Heading>
      {orders.length === 0 ? (
        <Empty title="No gift order yet" act={<Write />}>
          Who it is for, by when, what goes in and how it is wrapped. Packing it takes finished lots from the cabinet.
        </Empty>
      ) : (
        <Sheet>
          {open.length > 0 && <Part title="To pack">{table(TO_PACK, open)}</Part>}
          {packed.length > 0 && <Part title="Packed, or handed over">{table("packed orders", packed)}</Part>}
        </Sheet>
      )}
    </>
  );
}
