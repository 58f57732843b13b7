/** The slip of a gift order: what goes in, how it is wrapped, and the Reckoner beside it. */
import { orderResult } from "#core/gift/order";
import { micros } from "#core/measure/exact";
import { money, moneyField, parseMoney } from "#core/measure/money";
import { forMinutes } from "#core/recipe/cost";
import { useFirst } from "#core/stock/lots";
import { costNeeds } from "#core/stock/schools";
import { useMemo } from "react";
import { Link } from "react-router";
import { ActsOf, PutRight } from "../book/actsOf.tsx";
import { useSheet } from "../forms/useSheet.ts";
import { LotTag, percent, showBase, When } from "../ui/amounts.tsx";
import { FindText } from "../names/combo.tsx";
import { CUSTOMERS, PACKAGING } from "../names/finds.ts";
import type { Finds } from "../names/name.ts";
import { DayText } from "../ui/dateField.tsx";
import { Area, Button, Choice, Problem, Text } from "../ui/form.tsx";
import { LineTable } from "../ui/lines.tsx";
import { Figure, Heading, HowLine, Part, Reckoner, Sheet, SideBySide } from "../ui/sheet.tsx";
import { HeldBack, Send, SheetSays } from "../ui/sheetSays.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { BLANK_ITEM, BLANK_WRAP, orderTexts } from "./orderTexts.ts";
import type { Route } from "./+types/order";

type OrderData = Route.ComponentProps["loaderData"];

const whole = (t: string): number => (/^\d+$/.test(t.trim()) ? Number(t) : 0);

const FIELD_NAMES = {
  customer: "For",
  due: "Due",
  extra: "Asked for wrapping",
  discount: "Discount, %",
  wrapMinutes: "Minutes of wrapping",
  note: "Notes",
  items: "What goes in",
  wrapping: "Wrapping",
};

/** What a packed order really cost: its lots with their work, its wrapping, and the hours at the pay of that day. */
function settledCosts(d: OrderData) {
  const of = (of: "productId" | "materialId", id: number) =>
    d.packed.filter((l) => l[of] === id).reduce((a, l) => ({ cost: a.cost + l.value + l.work, qty: a.qty + l.qty }), { cost: 0, qty: 0 });
  const each = (total: { cost: number; qty: number }) => micros(total.qty > 0 ? Math.round(total.cost / total.qty) : 0);
  return {
    item: (productId: number) => each(of("productId", productId)),
    wrap: (materialId: number, pieces: number) => {
      const t = of("materialId", materialId);
      return micros(t.qty > 0 ? Math.round((t.cost * pieces) / t.qty) : 0);
    },
  };
}

export function OrderSheet({ d }: { d: OrderData }) {
  const { currency } = useWorkshop();
  const { order } = d;
  const isPacked = order?.packedActId != null;
  const settled = isPacked ? settledCosts(d) : null;
  const sheet = useSheet(orderTexts(order), d.opened, { draft: (v) => (v.customer ? `Order for ${v.customer}` : "An order") });
  const v = sheet.values;
  const { errors } = sheet.formState;
  const products = useMemo(
    (): Finds => ({
      of: "these",
      names: d.products.map((p) => ({ name: p.name, first: p.free > 0, aside: `${p.free} free`, about: p.spoken })),
    }),
    [d.products],
  );
  const byName = new Map(d.products.map((p) => [p.name.toLowerCase(), p]));
  const cash = (t: string) => {
    const m = parseMoney(t || "0");
    return m.ok ? m.value : micros(0);
  };
  const items = v.items.map((it, i) => {
    const kept = isPacked ? order.items[i] : undefined;
    const product = kept ? { ...kept, id: kept.productId, cost: null, free: 0, spoken: "" } : byName.get(it.product.trim().toLowerCase());
    return {
      product,
      units: whole(it.units),
      price: cash(it.price),
      cost: kept && settled ? settled.item(kept.productId) : (product?.cost ?? micros(0)),
      here: product ? product.free : null,
    };
  });
  const wraps = v.wrapping.flatMap((w, i) => {
    const kept = isPacked ? order.wrapping[i] : undefined;
    if (kept) return [{ of: kept.materialId, name: kept.name, amount: kept.pieces }];
    const m = d.wraps.find((x) => x.name.toLowerCase() === w.material.trim().toLowerCase());
    return m && whole(w.pieces) > 0 ? [{ of: m.id, name: m.name, amount: whole(w.pieces) }] : [];
  });
  const wrapCosts = costNeeds(wraps, d.papers, new Map(d.again), d.today);
  const wrapping = wraps.map((w, i) => ({
    name: w.name,
    pieces: w.amount,
    cost: settled ? settled.wrap(w.of, w.amount) : (wrapCosts[i]!.cost.lot ?? micros(0)),
    short: wrapCosts[i]!.plan.short,
  }));
  const result = orderResult({
    items,
    wrapping,
    wrapMinutes: whole(v.wrapMinutes),
    hourly: d.hourly,
    extra: cash(v.extra),
    discountBp: Math.round((Number(v.discount.replace(",", ".")) || 0) * 100),
  });
  const lotChoices = (productId: number | undefined) => [
    ["", "Use first"] as const,
    ...[...d.lots]
      .sort(useFirst)
      .filter((l) => l.of === productId)
      .map((l) => [String(l.id), `${l.number}, ${l.onHand} here`] as const),
  ];

  const onPicked = (row: number, key: string, value: string): void => {
    const p = key === "product" ? byName.get(value.trim().toLowerCase()) : undefined;
    if (p?.price != null && sheet.getValues(`items.${row}.price`) === "") sheet.setValue(`items.${row}.price`, moneyField(p.price));
  };

  return (
    <form onSubmit={sheet.send(order ? "pack" : "keep")}>
      <Heading
        title={order?.customer ?? "Write an order"}
        about={
          order ? (
            <>
              {isPacked ? "Packed. Was due " : "Due "}
              <When day={order.due} />.
            </>
          ) : (
            "What goes in, how it is wrapped, and what it comes to."
          )
        }
      >
        <Link to="/gifts" className="act">
          All orders
        </Link>
        {isPacked && <Button onClick={() => window.print()}>Print</Button>}
        {!isPacked && (
          <Button main={!order} disabled={sheet.busy} onClick={() => void sheet.send("keep")()}>
            Keep the order
          </Button>
        )}
        {order && !isPacked ? <Send sheet={sheet}>Pack it</Send> : <HeldBack sheet={sheet} />}
      </Heading>
      <SideBySide
        reckoner={
          <Reckoner>
            <Figure
              label="Goods"
              value={money(result.goods, currency)}
              how={items
                .filter((i) => i.product)
                .map((i, n) => (
                  <HowLine key={n} label={`${i.units} × ${i.product!.name}`} value={money(i.units * i.price, currency)} />
                ))}
            />
            <Figure label="Wrapping and card" value={money(cash(v.extra), currency)} />
            {result.goods + cash(v.extra) > result.price && (
              <Figure label="Discount" value={`− ${money(result.goods + cash(v.extra) - result.price, currency)}`} />
            )}
            <Figure label="Price" big value={money(result.price, currency)} />
            <Figure
              label="Costs"
              value={money(result.cost, currency)}
              how={
                <>
                  {items
                    .filter((i) => i.product)
                    .map((i, n) => (
                      <HowLine key={n} label={`${i.units} × ${i.product!.name}`} value={money(i.units * i.cost, currency)} />
                    ))}
                  {wrapping.map((w, n) => (
                    <HowLine key={n} label={`${w.pieces} × ${w.name}`} value={money(w.cost, currency)} />
                  ))}
                  <HowLine
                    label={`${whole(v.wrapMinutes)} min of wrapping`}
                    value={money(forMinutes(whole(v.wrapMinutes), d.hourly), currency)}
                  />
                </>
              }
            />
            <Figure
              label="Margin"
              tone={result.margin < 0 ? "bad" : "good"}
              value={`${money(result.margin, currency)}, ${percent(result.marginShare, 0)}`}
            />
            {!isPacked &&
              [
                ...items
                  .filter((i) => i.product && i.here !== null && i.here < i.units)
                  .map((i) => `${i.units - (i.here ?? 0)} × ${i.product!.name}${i.product!.spoken}`),
                ...wrapping.filter((w) => w.short > 0).map((w) => `${w.short} × ${w.name}`),
              ].map((s) => (
                <p key={s} className="py-1.5 font-semibold text-honey">
                  Still missing: {s}
                </p>
              ))}
          </Reckoner>
        }
      >
        <Sheet>
          <SheetSays sheet={sheet} names={FIELD_NAMES} />
          <Problem say={(errors as { pack?: { message?: string } }).pack?.message} />
          <fieldset disabled={isPacked} className="contents">
            <div className="mb-6 grid gap-4 sm:grid-cols-[1fr_11rem]">
              <FindText control={sheet.control} name="customer" finds={CUSTOMERS} label="For" problem={errors.customer?.message} />
              <DayText label="Due" control={sheet.control} name="due" leaning="future" problem={errors.due?.message} />
            </div>
            <Part title="What goes in">
              <LineTable
                form={sheet}
                name="items"
                blank={BLANK_ITEM}
                addLabel="Add a product"
                fixed={isPacked}
                onPicked={onPicked}
                columns={[
                  { key: "product", label: "Product", finds: products, width: "46%" },
                  { key: "units", label: "Units", right: true, width: "5rem" },
                  { key: "price", label: "Price of one", right: true, width: "7rem" },
                ]}
                derived={[
                  { label: "In all", cell: (i) => (items[i]?.units ? money(items[i].units * items[i].price, currency) : "") },
                  {
                    label: isPacked ? "" : "Free",
                    cell: (i) => {
                      const it = items[i];
                      return it?.product && !isPacked ? (
                        <span className={it.here! < it.units ? "font-semibold text-honey" : "text-pine-soft"} title={it.product.spoken}>
                          {it.here}
                        </span>
                      ) : (
                        ""
                      );
                    },
                  },
                ]}
              />
            </Part>
            <Part title="Wrapping">
              <LineTable
                form={sheet}
                name="wrapping"
                blank={BLANK_WRAP}
                addLabel="Add wrapping"
                fixed={isPacked}
                columns={[
                  { key: "material", label: "Box, ribbon, tissue …", finds: PACKAGING, width: "60%" },
                  { key: "pieces", label: "Pieces in all", right: true, width: "8rem" },
                ]}
              />
              <div className="mt-4 grid gap-4 sm:grid-cols-3">
                <Text label="Asked for wrapping" placeholder="0.00" {...sheet.register("extra")} problem={errors.extra?.message} />
                <Text label="Discount, %" placeholder="0" {...sheet.register("discount")} problem={errors.discount?.message} />
                <Text
                  label="Minutes of wrapping"
                  placeholder="0"
                  {...sheet.register("wrapMinutes")}
                  problem={errors.wrapMinutes?.message}
                />
              </div>
            </Part>
            <Area
              className="mt-5"
              label="Notes"
              hint="Names, colours, what to write on the card."
              {...sheet.register("note")}
              problem={errors.note?.message}
            />
          </fieldset>
          {order && !isPacked && items.some((i) => i.product) && (
            <Part title="Out of which lots">
              <div className="grid gap-4 sm:grid-cols-2">
                {v.items.map(
                  (_, i) =>
                    items[i]?.product && (
                      <Choice
                        key={i}
                        label={items[i].product.name}
                        options={lotChoices(items[i].product.id)}
                        {...sheet.register(`items.${i}.lot`)}
                        problem={(errors.items?.[i] as { lot?: { message?: string } } | undefined)?.lot?.message}
                      />
                    ),
                )}
              </div>
            </Part>
          )}
          {isPacked && (
            <Part title="Packed out of">
              <ul className="space-y-1.5">
                {d.packed.map((l) => (
                  <li key={l.lotId} className="flex items-baseline gap-3">
                    <LotTag lot={l} />
                    <span className="weight">{showBase(l.qty, "count").replace(" pcs", "")}</span>
                    <span>× {[l.name, ...(l.label ? [l.label] : [])].join(", ")}</span>
                  </li>
                ))}
              </ul>
              <p className="mt-3 text-pine-soft">
                Materials in it cost{" "}
                {money(
                  d.packed.reduce((a, l) => a + l.value, 0),
                  currency,
                )}
                .
              </p>
            </Part>
          )}
          <PutRight rows={d.righted} />
          {d.book && <ActsOf {...d.book} />}
        </Sheet>
      </SideBySide>
    </form>
  );
}
