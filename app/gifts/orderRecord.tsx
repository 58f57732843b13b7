/**
 * A gift order that is packed, with what it really cost. On paper it is the customer's: who it is from, what is in it and what it comes to,
 * the lots by which it could be asked after, and nothing of what it cost. /
 */
import { Link } from "react-router";
import { orderResult } from "#core/gift/order";
import { micros } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { counted } from "#core/words";
import type { GiftOrderRead } from "#db/gifts/gifts";
import { ActsOf, Restatements } from "../book/actsOf.tsx";
import { LotTag, showBase, When } from "../ui/figures/amounts.tsx";
import { Facts } from "../ui/sheet/facts.tsx";
import { Print } from "../ui/sheet/print.tsx";
import { Heading, Part, Sheet, SideBySide } from "../ui/sheet/sheet.tsx";
import { Table } from "../ui/lists/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { Figure, Reckoner } from "../ui/figures/reckoner.tsx";
import { OrderReckoner } from "./orderReckoner.tsx";
import type { Route } from "./+types/order";

type OrderData = Route.ComponentProps["loaderData"];

/** What a packed order really cost: its lots with their work, its wrapping, and the hours at the pay of that day. */
function settledCosts({ packed }: OrderData) {
  const of = (of: "productId" | "materialId", id: number) =>
    packed.filter((l) => l[of] === id).reduce((a, l) => ({ cost: a.cost + l.value + l.work, qty: a.qty + l.qty }), { cost: 0, qty: 0 });
  const share = (t: { cost: number; qty: number }, pieces: number) => micros(t.qty > 0 ? Math.round((t.cost * pieces) / t.qty) : 0);
  return {
    item: (productId: number, units: number) => share(of("productId", productId), units),
    wrap: (materialId: number, pieces: number) => share(of("materialId", materialId), pieces),
  };
}

function Sum({ label, value, strong = false }: { label: string; value: string; strong?: boolean }) {
  return (
    <li className={`flex justify-between gap-4 border-b border-rule py-1.5 ${strong ? "font-semibold" : ""}`}>
      {label}
      <span className="num">{value}</span>
    </li>
  );
}

export function OrderRecord({ order, d }: { order: GiftOrderRead; d: OrderData }) {
  const { currency } = useWorkshop();
  const settled = settledCosts(d);
  const items = order.items.map((i) => ({ ...i, cost: settled.item(i.productId, i.units) }));
  const wrapping = order.wrapping.map((w) => ({ ...w, cost: settled.wrap(w.materialId, w.pieces) }));
  const result = orderResult({ ...order, items, wrapping, hourly: d.hourly });
  const materials = d.packed.reduce((a, l) => a + l.value, 0);
  return (
    <>
      <Heading
        title={order.customer}
        about={
          <>
            <span className="no-print">
              {order.handedOver ? (
                <>
                  Handed over <When day={order.handedOver} />, before the books began. Was due <When day={order.due} />.
                </>
              ) : (
                <>
                  Packed. Was due <When day={order.due} />.
                </>
              )}
            </span>
            <span className="hidden whitespace-pre-line text-pine print:block">
              From {[d.from.name, d.from.reachUs].filter(Boolean).join("\n")}
              {"\n"}For <When day={order.due} />
            </span>
          </>
        }
      >
        <Link to="/gifts" className="act">
          All orders
        </Link>
        <Link to={`/gifts/new?like=${order.id}`} className="act">
          Write another like it
        </Link>
        <Print pdf={`/gifts/${order.id}/pdf`} />
      </Heading>
      <SideBySide
        reckoner={
          order.handedOver ? (
            <Reckoner onPaper={false}>
              <Figure label="Price" big value={money(result.price, currency)} />
              <Figure
                label="Costs"
                value="not known"
                how={<p>It was handed over before the books began, so what went in is in no lot, and what it cost in none.</p>}
              />
            </Reckoner>
          ) : (
            <OrderReckoner
              {...order}
              result={result}
              items={items}
              wrapping={wrapping}
              hourly={d.hourly}
              costless={d.packed.reduce((a, l) => a + (l.productId !== null && l.costKnown === "none" ? l.qty : 0), 0)}
            />
          )
        }
      >
        <Sheet>
          <Part title="What went in">
            <Table
              rows={items}
              by={(i) => i.id}
              columns={[
                { head: "Product", cell: (i) => <span className="font-display text-lead">{i.name}</span>, foot: "Together" },
                { head: "Units", as: "figure", cell: (i) => i.units, foot: items.reduce((a, i) => a + i.units, 0) },
                { head: "Price of one", as: "figure", cell: (i) => money(i.price, currency) },
                { head: "In all", as: "figure", cell: (i) => money(i.units * i.price, currency), foot: money(result.goods, currency) },
              ]}
            />
          </Part>
          <ul className="hidden print:block">
            {order.extra > 0 && <Sum label="Wrapping and card" value={money(order.extra, currency)} />}
            {order.discountBp > 0 && (
              <Sum label={`${order.discountBp / 100} % off`} value={`−${money(result.goods + order.extra - result.price, currency)}`} />
            )}
            {result.price !== result.goods && <Sum label="In all" value={money(result.price, currency)} strong />}
          </ul>
          {(wrapping.length > 0 || order.wrapMinutes > 0 || order.extra > 0 || order.discountBp > 0) && (
            <Part title="Wrapping" screenOnly>
              <Facts
                rows={[
                  ...wrapping.map((w) => [w.name, counted(w.pieces, "piece")] as const),
                  ["Asked for wrapping", order.extra > 0 && money(order.extra, currency)] as const,
                  ["Discount", order.discountBp > 0 && `${order.discountBp / 100} %`] as const,
                  ["Wrapping took", order.wrapMinutes > 0 && counted(order.wrapMinutes, "minute")] as const,
                ]}
              />
            </Part>
          )}
          {order.note && <p className="no-print mt-5 max-w-prose whitespace-pre-line">{order.note}</p>}
          {!order.handedOver && (
            <Part title="Packed out of">
              <ul className="space-y-1.5 [&_.lot_em]:print:hidden">
                {d.packed.map((l) => (
                  <li key={l.lotId} className={`flex items-baseline gap-3 ${l.productId === null ? "no-print" : ""}`}>
                    <LotTag lot={l} />
                    <span className="weight">{showBase(l.qty, "count").replace(" pcs", "")}</span>
                    <span>
                      × {[l.name, ...(l.label ? [l.label] : [])].join(", ")}
                      {l.productId !== null && l.work === 0 && <span className="no-print text-pine-soft">, no work in its cost</span>}
                      {l.bestBefore && (
                        <>
                          , best before <When day={l.bestBefore} />
                        </>
                      )}
                    </span>
                  </li>
                ))}
              </ul>
              <p className="no-print mt-3 text-pine-soft">Materials in it cost {money(materials, currency)}.</p>
            </Part>
          )}
          <div className="no-print">
            <Restatements rows={d.righted} />
          </div>
          {d.book && <ActsOf {...d.book} />}
        </Sheet>
      </SideBySide>
    </>
  );
}
