/** Suppliers' packs side by side: per gram delivered, and per gram used once what would expire unused is counted in. */
import { factsIn, type MaterialFacts } from "#core/material/facts";
import { kind } from "#core/material/kinds";
import { byDelivered, delivered, forAYear, forOnce, type PackPlan } from "#core/stock/offers";
import { money, perWeight } from "#core/measure/money";
import { readStock } from "#core/stock/packs";
import type { SeenOffer } from "#db/shelf/buying";
import { useState } from "react";
import { useFetcher } from "react-router";
import { useSheet } from "../../forms/useSheet.ts";
import { FindText } from "../../names/combo.tsx";
import { SUPPLIERS } from "../../names/finds.ts";
import { PerUnit, showBase, When } from "../../ui/figures/amounts.tsx";
import { Button, Choice, Text } from "../../ui/fields/form.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";
import { SheetSays } from "../../forms/sheetSays.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";

interface Props {
  offers: readonly SeenOffer[];
  /** As learnt from what was used; null when none was. */
  perDay: number | null;
  material: MaterialFacts & { keepsSealed: number | null };
  products: readonly { recipeId: number; name: string; need: number }[];
}

/** Average days in a month. */
const MONTH = 30.4;

export function Offers({ offers, perDay: learnt, material, products }: Props) {
  const { currency } = useWorkshop();
  const drop = useFetcher();
  const { measured } = kind(material.kind);
  const keepsMonths = material.keepsSealed;
  const [monthly, setMonthly] = useState("");
  const typed = monthly.trim() === "" ? null : readStock(monthly, factsIn(material));
  const perDay = typed === null ? learnt : typed.ok ? typed.value / MONTH : null;
  const [wanted, setWanted] = useState(learnt || !products[0] ? "year" : String(products[0].recipeId));
  const keepsDays = keepsMonths === null ? null : Math.round(keepsMonths * MONTH);
  const recipe = products.find((p) => String(p.recipeId) === wanted);
  const amount = wanted === "year" ? Math.round((perDay ?? 0) * 365) : (recipe?.need ?? 0);
  const plans: PackPlan[] = amount > 0 ? (wanted === "year" ? forAYear : forOnce)(offers, { amount, perDay, keepsDays }) : [];
  const planOf = new Map(plans.map((p) => [p.offer, p]));
  const rows = plans.length > 0 ? plans.map((p) => p.offer as SeenOffer) : [...offers].sort(byDelivered);
  const per = perWeight([...offers.map(delivered), ...plans.map((p) => p.perUsed)]);
  const need = (
    <span className="flex flex-wrap items-start gap-3">
      <Text
        data-amount
        label="Used in a month"
        className="w-40"
        value={monthly}
        onChange={(e) => {
          setMonthly(e.target.value);
          setWanted("year");
        }}
        placeholder={`such as ${learnt ? showBase(Math.round(learnt * MONTH), measured) : measured === "weight" ? "250 g" : "40"}`}
        unread={typed && !typed.ok ? typed.problem.say : undefined}
      />
      <Choice
        label="Cheapest for"
        className="w-72"
        value={wanted}
        onChange={(e) => setWanted(e.target.value)}
        options={[
          ["year", perDay ? `a year's use, ${showBase(Math.round(perDay * 365), measured)}` : "what is delivered"],
          ...products.map((p) => [String(p.recipeId), `a batch of ${p.name}, ${showBase(p.need, measured)}`] as const),
        ]}
      />
    </span>
  );
  return (
    <Part title="Offers and packs" aside={offers.length > 0 && need}>
      {offers.length === 0 ? (
        <p className="text-pine-soft">Nobody is known to sell it. Note an offer below, or receive a purchase.</p>
      ) : (
        <Table
          rows={rows.map((o) => ({ ...o, plan: planOf.get(o) }))}
          by={(o) => `${o.id ?? "b"}${o.supplier}${o.packSize}${o.seen}`}
          columns={[
            {
              head: "Supplier",
              cell: (o, i) => (
                <>
                  <span className="font-semibold">{o.supplier}</span>{" "}
                  <span className="text-part text-pine-soft">
                    {o.id === null ? "bought" : "seen"} <When day={o.seen} />
                  </span>
                  {i === 0 && rows.length > 1 && (
                    <span className="ml-2 rounded-sm bg-sage-wash px-1.5 text-fine font-semibold text-sage">cheapest</span>
                  )}
                </>
              ),
            },
            {
              head: "Pack",
              className: "whitespace-nowrap",
              cell: (o) => o.packSize,
            },
            {
              head: "Price",
              as: "figure",
              cell: (o) => (
                <span>
                  {money(o.price, currency)}
                  {o.postage > 0 && <span className="text-part text-pine-soft"> + {money(o.postage, currency)}</span>}
                </span>
              ),
            },
            {
              head: "Delivered",
              as: "figure",
              cell: (o) => <PerUnit cost={delivered(o)} measured={measured} per={per} />,
            },
            {
              head: "Packs needed",
              as: "figure",
              cell: (o) => (o.plan ? `${o.plan.packs}, ${money(o.plan.paid, currency)}` : "—"),
            },
            {
              head: "Would go off",
              as: "weight",
              className: (o) => (o.plan && o.plan.wasted > 0 ? "text-honey" : ""),
              cell: (o) => (o.plan ? (o.plan.wasted > 0 ? showBase(o.plan.wasted, measured) : "none") : "—"),
            },
            {
              head: "Once used",
              as: "figure",
              className: "font-semibold",
              cell: (o) => <PerUnit cost={o.plan?.perUsed ?? null} measured={measured} per={per} />,
            },
            {
              head: "Forget",
              as: "press",
              cell: (o) =>
                o.id !== null && (
                  <button
                    type="button"
                    className="pressable"
                    aria-label={`Forget ${o.packSize} at ${o.supplier}`}
                    onClick={() =>
                      void drop.submit(
                        { intent: "drop", offer: String(o.id) },
                        {
                          method: "post",
                          encType: "application/json",
                        },
                      )
                    }
                  >
                    Forget
                  </button>
                ),
            },
          ]}
        />
      )}
      {offers.length > 0 && (
        <p className="mt-2 text-small text-pine-soft">
          {plans.length === 0 &&
            "Nothing of it has been used yet, so they are compared as delivered. Say how much is used in a month to count in what would go off. "}
          {keepsMonths === null
            ? "It has no keeping time under its facts, so nothing is taken to go off."
            : `It keeps ${keepsMonths} months unopened; what isn't used by then counts as gone.`}
        </p>
      )}
    </Part>
  );
}

export function OfferForm({ token, measured, last }: { token: string; measured: "weight" | "count"; last: string }) {
  // Offers are noted shop by shop: the one named last is named again.
  const sheet = useSheet({ supplier: last, packSize: "", price: "", postage: "" }, { token }, { draft: "An offer", sheet: "offer" });
  const { errors } = sheet.formState;
  return (
    <form onSubmit={sheet.send("offer")} className="mt-3 flex flex-wrap items-start gap-3">
      <FindText
        control={sheet.control}
        name="supplier"
        finds={SUPPLIERS}
        label="An offer seen at"
        placeholder="Supplier"
        className="w-56"
        problem={errors.supplier?.message}
      />
      <Text
        data-amount
        label="Pack"
        placeholder={measured === "weight" ? "such as 1 kg" : "such as 100"}
        className="w-28"
        {...sheet.register("packSize")}
        problem={errors.packSize?.message}
      />
      <Text
        data-amount
        label="Price"
        placeholder="such as 9.80"
        className="w-32"
        {...sheet.register("price")}
        problem={errors.price?.message}
      />
      <Text
        data-amount
        label="Its postage"
        placeholder="none"
        className="w-28"
        {...sheet.register("postage")}
        problem={errors.postage?.message}
      />
      <Button type="submit" className="mt-5.5" disabled={sheet.busy}>
        Note the offer
      </Button>
      <SheetSays sheet={sheet} />
    </form>
  );
}
