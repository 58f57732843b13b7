/**
 * An order's slip as PDF, for the customer: who it is from, what is in it and what it comes to, the lots by which it could be asked after, and
 * nothing of what it costs to make.
 */
import { orderResult } from "#core/gift/order";
import { micros } from "#core/measure/exact";
import type { Cell, Part } from "../paper/paper.ts";
import { pdfFile } from "../paper/pdf.server.ts";
import { loader as page } from "./order.tsx";
import type { Route } from "./+types/orderPdf";

export async function loader(at: Route.LoaderArgs) {
  const { order, packed, products, from, hourly } = await page(at as never);
  if (!order) throw new Response("Not found", { status: 404 });
  return pdfFile(({ money, day }) => {
    // What it costs says nothing here: only what is asked for it.
    const { goods, price } = orderResult({
      ...order,
      items: order.items.map((i) => ({ ...i, cost: micros(0) })),
      wrapping: order.wrapping.map((w) => ({ ...w, cost: micros(0) })),
      hourly,
    });
    const called = new Map(products.map((p) => [p.id, p.name]));
    const sums: [string, string | false][] = [
      ["Wrapping and card", order.extra > 0 && money(order.extra)],
      [`${order.discountBp / 100} % off`, order.discountBp > 0 && `−${money(goods + order.extra - price)}`],
      ["In all", price !== goods && money(price)],
    ];
    const lots: Part[] = [
      { heading: "Packed out of" },
      {
        columns: [{ head: "Lot", as: "lot" }, { head: "Product" }, { head: "Units", as: "figure" }, { head: "Best before" }],
        groups: [
          {
            rows: packed
              .filter((l) => l.productId !== null)
              .map((l): Cell[] => [l.number, [l.name, l.label].filter(Boolean).join(", "), String(l.qty), day(l.bestBefore)]),
          },
        ],
      },
    ];
    return {
      title: order.customer,
      file: `order-${order.id}`,
      about: [`From ${from.name}`, from.reachUs, `For ${day(order.due)}`, order.packedActId === null && "Not packed yet"]
        .filter(Boolean)
        .join("\n"),
      parts: [
        { heading: order.packedActId === null ? "What goes in" : "What went in" },
        {
          columns: [
            { head: "Product" },
            { head: "Units", as: "figure" },
            { head: "Price of one", as: "figure" },
            { head: "In all", as: "figure" },
          ],
          groups: [
            {
              rows: order.items.map((i): Cell[] => [
                called.get(i.productId) ?? i.name,
                String(i.units),
                money(i.price),
                money(i.units * i.price),
              ]),
            },
          ],
          foot: ["Together", String(order.items.reduce((a, i) => a + i.units, 0)), "", money(goods)],
        },
        { facts: sums, as: "figure" },
        ...(packed.length > 0 ? lots : []),
      ],
    };
  });
}
