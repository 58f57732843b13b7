/** The slip of a gift order that isn't packed: what goes in, how it is wrapped, and the Reckoner beside it. */
import { Link } from "react-router";
import { orderResult } from "#core/gift/order";
import { planPacking } from "#core/gift/packing";
import { kind } from "#core/material/kinds";
import { micros, sum, type Micros } from "#core/measure/exact";
import { money, moneyField } from "#core/measure/money";
import { firstUnread, orNothing, readCount, readPlain, parseMoney } from "#core/measure/read";
import { done, refuse } from "#core/outcome";
import { firstExpiredFirst, type Lot } from "#core/stock/lots";
import { costNeeds } from "#core/stock/costingMethods";
import type { NeedPlan } from "#core/stock/shelf";
import { readDay } from "#core/when";
import { ActsOf, Restatements } from "../book/actsOf.tsx";
import { fillEmptyField } from "../forms/fillEmptyField.ts";
import { useSubmitWhenReady } from "../forms/useSubmitWhenReady.ts";
import { useSheet } from "../forms/useSheet.ts";
import { When, useSayDay } from "../ui/figures/amounts.tsx";
import { FindText, nameCell } from "../names/combo.tsx";
import { CUSTOMERS, PACKAGING, PRODUCTS } from "../names/finds.ts";
import { normalizeName, idMeant, meaning } from "#core/meant";
import { shelfOfStuff } from "../names/named.ts";
import type { Product } from "#db/gifts/products";
import type { SheetMaterial } from "#db/shelf/sheetMaterials";
import { LOOKUP_FAILED, useLookup, useLastKnown } from "../names/useLookup.ts";
import { DayText } from "../ui/fields/dateField.tsx";
import { Area, Button, Problem, Text } from "../ui/fields/form.tsx";
import { LineTable } from "../ui/fields/lines.tsx";
import { Pick, type Choosable } from "../ui/fields/pick.tsx";
import { Print } from "../ui/sheet/print.tsx";
import { Heading, Part, Sheet, SideBySide } from "../ui/sheet/sheet.tsx";
import { HeldBack, Send, SheetSays } from "../forms/sheetSays.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { Tip } from "../ui/sheet/tip.tsx";
import { OrderSteps } from "./orderSteps.tsx";
import { OrderReckoner, type Out } from "./orderReckoner.tsx";
import { BLANK_ITEM, BLANK_WRAP } from "./orderTexts.ts";
import type { Route } from "./+types/order";

type OrderData = Route.ComponentProps["loaderData"];

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

/** All a line costs: its lots with the work in them, and the rest as the recipe costs today; how much of it is which. */
function costOfLine(product: Product | undefined, units: number, plan: NeedPlan): { cost: Micros; out: readonly Out[] } {
  const lots = new Map(product?.lots.map((l) => [l.id, l]));
  const taken = plan.takes.map((t) => ({
    lot: lots.get(t.lotId)!,
    units: t.amount,
    cost: micros(t.value + t.amount * lots.get(t.lotId)!.work),
  }));
  const rest = { lot: null, units: plan.short, cost: micros(plan.short * (product?.cost ?? 0)) };
  const out: Out[] = plan.short > 0 ? [...taken, rest] : taken;
  return { cost: sum(out.map((o) => o.cost)), out: units > 0 ? out : [] };
}

const costlessOf = (items: readonly { out: readonly Out[] }[]): number =>
  items.flatMap((i) => i.out).reduce((a, o) => a + (o.lot?.costKnown === "none" ? o.units : 0), 0);

export function OrderSheet({ d }: { d: OrderData }) {
  const { currency } = useWorkshop();
  const { order } = d;
  const sheet = useSheet(d.texts, d.opened, { draft: (v) => (v.customer ? `Order for ${v.customer}` : "An order") });
  const { errors } = sheet.formState;
  const sayIt = useSayDay();
  const goods = useLookup(
    "product",
    d.products,
    sheet.values.items.map((i) => i.product),
  );
  const papers = useLookup(
    "material",
    d.wraps,
    sheet.values.wrapping.map((w) => w.material),
  );
  const asking = goods.asking || papers.asking;
  const lost = goods.lost || papers.lost;
  const sending = useSubmitWhenReady(sheet, asking && !lost);
  const v = useLastKnown(sheet.values, asking);
  const paper = (name: string, means: string): SheetMaterial | undefined => {
    const id = idMeant(name, means);
    const m = papers.known.find((p) => p.id === id) ?? papers.find(name);
    return m && kind(m.kind).measured === "count" ? m : undefined;
  };
  const due = readDay(v.due);
  const cash = (t: string) => orNothing(t, parseMoney, micros(0));
  const whole = (t: string): number => orNothing(t, readCount, 0);
  const products = v.items.map((it) => {
    const means = idMeant(it.product, it.means);
    return goods.known.find((p) => p.id === means) ?? goods.find(it.product);
  });
  // What a line costs is what its lots cost, the very ones it would be packed out of; what isn't there yet as its recipe costs today.
  const lotsThere = [...new Map(products.flatMap((p) => p?.lots ?? []).map((l) => [l.id, l])).values()];
  const planned = planPacking(
    v.items.map((it, i) => ({ of: products[i]?.id ?? 0, units: whole(it.units), lotId: it.lot === "" ? null : Number(it.lot) })),
    lotsThere,
    due.ok && due.value > d.today ? due.value : d.today,
  );
  const items = v.items.map((it, i) => {
    const product = products[i];
    const units = whole(it.units);
    const price = cash(it.price);
    return { product, name: product?.name ?? "", units, price, ...costOfLine(product, units, planned[i]!) };
  });
  const wraps = v.wrapping.flatMap((w) => {
    const m = paper(w.material, w.means);
    return m && whole(w.pieces) > 0 ? [{ of: m.id, name: m.name, amount: whole(w.pieces) }] : [];
  });
  const wrapCosts = costNeeds(wraps, shelfOfStuff(papers.known, d.today));
  const wrapping = wraps.map((w, i) => ({
    name: w.name,
    pieces: w.amount,
    cost: wrapCosts[i]!.cost.lot ?? micros(0),
    short: wrapCosts[i]!.plan.short,
  }));
  const asked = { extra: cash(v.extra), wrapMinutes: whole(v.wrapMinutes), hourly: d.hourly };
  const result = orderResult({ items, wrapping, ...asked, discountBp: Math.round(orNothing(v.discount, readPlain, 0) * 100) });
  const known = (there: boolean, say: string) => (t: string) => (there ? done(t) : refuse("unknown", say));
  const row = (what: string, i: number): string => `${what}, row ${i + 1}`;
  const mistake = firstUnread([
    ...v.items.flatMap((it, i) => [
      [row("Product", i), it.product, known(items[i]!.product !== undefined, "It isn't one of the products.")] as const,
      [row("Units", i), it.units, readCount] as const,
      [row("Price", i), it.price, parseMoney] as const,
    ]),
    ...v.wrapping.flatMap((w, i) => [
      [row("Wrapping", i), w.material, known(paper(w.material, w.means) !== undefined, "It isn't wrapping on the shelf.")] as const,
      [row("Pieces", i), w.pieces, readCount] as const,
    ]),
    ["Asked for wrapping", v.extra, parseMoney],
    ["Discount", v.discount, readPlain],
    ["Minutes of wrapping", v.wrapMinutes, readCount],
  ]);
  const unread = lost ? LOOKUP_FAILED : mistake;
  const there = items.filter((i) => i.product);
  const taken = new Set(planned.flatMap((p) => p.takes.map((t) => t.lotId)));
  const waiting = lotsThere.filter((l) => l.waits !== null && taken.has(l.id));
  const lotChoices = (lots: readonly Lot[]): Choosable[] => [
    { value: "", name: "Use first" },
    ...[...lots].sort(firstExpiredFirst).map((l) => ({
      value: String(l.id),
      name: l.number,
      aside: `${l.onHand} here`,
      about: l.bestBefore ? `best before ${sayIt(l.bestBefore)}` : undefined,
    })),
  ];

  const onWrapPicked = (row: number, key: string, value: string): void => {
    if (key === "material") papers.once(value, `wrapping.${row}`, (m) => sheet.setValue(`wrapping.${row}.means`, meaning(m)));
  };
  const onPicked = (row: number, key: string, value: string): void => {
    if (key !== "product") return;
    // Another product has other lots.
    sheet.setValue(`items.${row}.lot`, "");
    const price = `items.${row}.price` as const;
    goods.once(value, price, (p) => {
      if (normalizeName(p.name) === normalizeName(value)) sheet.setValue(`items.${row}.means`, meaning(p));
      if (p.price !== null && normalizeName(sheet.getValues(`items.${row}.product`)) === normalizeName(value))
        fillEmptyField(sheet, price, moneyField(p.price));
    });
  };

  return (
    <form onSubmit={sending.send("keep")}>
      <Heading
        title={order?.customer ?? "Write an order"}
        about={
          order ? (
            <>
              Due <When day={order.due} />.
            </>
          ) : (
            "What goes in, how it is wrapped, and what it comes to."
          )
        }
      >
        <Link to="/gifts" className="act">
          All orders
        </Link>
        {order && <Print pdf={sheet.formState.isDirty ? undefined : `/gifts/${order.id}/pdf`} />}
        <Button type="submit" main={!order} disabled={sending.busy}>
          Save the order
        </Button>
        {order ? (
          <Send sheet={sending} press={() => void sending.send("pack")()}>
            Pack it
          </Send>
        ) : (
          <HeldBack sheet={sheet} />
        )}
      </Heading>
      <SideBySide
        reckoner={
          <OrderReckoner result={result} items={there} wrapping={wrapping} {...asked} costless={costlessOf(there)} unread={unread}>
            {[
              ...there.filter((i) => i.product!.free < i.units).map((i) => `${i.units - i.product!.free} × ${i.name}${i.product!.spoken}`),
              ...wrapping.filter((w) => w.short > 0).map((w) => `${w.short} × ${w.name}`),
            ].map((s, i) => (
              <p key={i} className="py-1.5 font-semibold text-honey">
                Still missing: {s}
              </p>
            ))}
            {order && d.steps.length > 0 && (
              <div className="no-print py-2">
                <p className="font-semibold">To begin</p>
                <OrderSteps steps={d.steps} />
              </div>
            )}
            {waiting.map((l) => (
              <p key={l.number} className="py-1.5 font-semibold text-honey">
                Lot {l.number} {l.waits}: pack it once that is done.
              </p>
            ))}
          </OrderReckoner>
        }
      >
        <Sheet>
          <SheetSays sheet={sheet} names={FIELD_NAMES} />
          <Problem say={(errors as { pack?: { message?: string } }).pack?.message} />
          <div className="mb-6 grid gap-4 sm:grid-cols-[1fr_11rem]">
            <FindText control={sheet.control} name="customer" finds={CUSTOMERS} label="For" problem={errors.customer?.message} />
            <DayText label="Due" control={sheet.control} name="due" leaning="future" problem={errors.due?.message} />
          </div>
          <Part title="What goes in">
            <LineTable
              form={sheet.form}
              name="items"
              blank={BLANK_ITEM}
              addLabel="Add a product"
              onPicked={onPicked}
              columns={[
                { key: "product", label: "Product", own: nameCell(PRODUCTS), width: "46%" },
                { key: "units", label: "Units", right: true, width: "5rem" },
                { key: "price", label: "Price of one", right: true, width: "7rem" },
              ]}
              derived={[
                { label: "In all", cell: (i) => (items[i]?.units ? money(items[i].units * items[i].price, currency) : "") },
                {
                  label: "Free",
                  cell: (i) => {
                    const it = items[i];
                    return (
                      it?.product && (
                        <Tip says={it.product.spoken}>
                          <span className={it.product.free < it.units ? "font-semibold text-honey" : "text-pine-soft"}>
                            {it.product.free}
                          </span>
                        </Tip>
                      )
                    );
                  },
                },
              ]}
            />
          </Part>
          <Part title="Wrapping">
            <LineTable
              form={sheet.form}
              name="wrapping"
              blank={BLANK_WRAP}
              onPicked={onWrapPicked}
              addLabel="Add wrapping"
              columns={[
                { key: "material", label: "Box, ribbon, tissue …", own: nameCell(PACKAGING), width: "60%" },
                { key: "pieces", label: "Pieces in all", right: true, width: "8rem" },
              ]}
            />
            <div className="mt-4 grid gap-4 sm:grid-cols-3">
              <Text
                data-amount
                label="Asked for wrapping"
                placeholder="none"
                {...sheet.register("extra")}
                problem={errors.extra?.message}
              />
              <Text
                data-amount="decimal"
                label="Discount, %"
                placeholder="none"
                {...sheet.register("discount")}
                problem={errors.discount?.message}
              />
              <Text
                data-amount
                label="Minutes of wrapping"
                placeholder="none"
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
          {order && items.some((i) => i.product) && (
            <Part title="Out of which lots">
              <div className="grid gap-4 sm:grid-cols-2">
                {v.items.map(
                  (_, i) =>
                    items[i]?.product && (
                      <Pick
                        key={i}
                        label={
                          v.items.filter((x) => x.product === v.items[i]!.product).length > 1
                            ? `${items[i].product.name} (row ${i + 1})`
                            : items[i].product.name
                        }
                        control={sheet.control}
                        name={`items.${i}.lot`}
                        options={lotChoices(items[i].product.lots)}
                        problem={(errors.items?.[i] as { lot?: { message?: string } } | undefined)?.lot?.message}
                      />
                    ),
                )}
              </div>
            </Part>
          )}
          <Restatements rows={d.righted} />
          {d.book && <ActsOf {...d.book} />}
        </Sheet>
      </SideBySide>
    </form>
  );
}
