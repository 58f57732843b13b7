/** Gift orders: the ones to pack first, then the ones that went out. */
import { money } from "#core/measure/money";
import { orderResult } from "#core/gift/order";
import { micros } from "#core/measure/exact";
import { daysBetween } from "#core/when";
import { listGiftOrders } from "#db/gifts/gifts";
import { Link } from "react-router";
import { db } from "../db.server.ts";
import { When } from "../ui/amounts.tsx";
import { Empty, Heading, Part, Sheet } from "../ui/sheet.tsx";
import { Table } from "../ui/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { Route } from "./+types/gifts";

export const meta: Route.MetaFunction = () => [{ title: "Gifts · Zelbin" }];

export async function loader() {
  const orders = await listGiftOrders(db());
  return orders.map((o) => ({
    id: o.id,
    customer: o.customer,
    due: o.due,
    packed: o.packedActId !== null,
    note: o.note,
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
}

const Write = () => (
  <Link to="/gifts/new" className="act act-main">
    Write an order
  </Link>
);

export default function Gifts({ loaderData: orders }: Route.ComponentProps) {
  const { currency, today } = useWorkshop();
  const inDays = (due: string): string => {
    const n = daysBetween(today, due);
    return n < 0 ? `${-n} days late` : n === 0 ? "today" : n === 1 ? "tomorrow" : `in ${n} days`;
  };
  const table = (rows: typeof orders) => (
    <Table
      rows={rows}
      by={(o) => o.id}
      columns={[
        {
          head: "For",
          cell: (o) => (
            <>
              <Link to={`/gifts/${o.id}`} className="font-display text-[1.1rem] hover:underline">
                {o.customer}
              </Link>
              {o.note && <span className="block text-[0.88rem] text-pine-soft">{o.note}</span>}
            </>
          ),
        },
        {
          head: "Due",
          className: "whitespace-nowrap",
          cell: (o) => (
            <>
              <When day={o.due} />
              {!o.packed && (
                <span className={`block text-[0.88rem] font-semibold ${daysBetween(today, o.due) < 0 ? "text-berry" : "text-honey"}`}>
                  {inDays(o.due)}
                </span>
              )}
            </>
          ),
        },
        { head: "What", plain: true, cell: (o) => o.items },
        { head: "Price", as: "figure", className: "font-semibold", cell: (o) => money(o.price, currency) },
      ]}
    />
  );
  const open = orders.filter((o) => !o.packed);
  const packed = orders.filter((o) => o.packed);
  return (
    <>
      <Heading title="Gifts">
        <Write />
      </Heading>
      {orders.length === 0 ? (
        <Empty title="No gift order yet" act={<Write />}>
          Who it is for, by when, what goes in and how it is wrapped. Packing it takes finished lots from the cabinet.
        </Empty>
      ) : (
        <Sheet>
          {open.length > 0 && <Part title="To pack">{table(open)}</Part>}
          {packed.length > 0 && <Part title="Packed">{table(packed)}</Part>}
        </Sheet>
      )}
    </>
  );
}
