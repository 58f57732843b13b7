/** Buying a material: offers compared per gram delivered and per gram used, what was paid over time, what a rise would do. */
import { Link } from "react-router";
import { factsIn } from "#core/material/facts";
import { kind } from "#core/material/kinds";
import { micros } from "#core/measure/exact";
import { parseMoney } from "#core/measure/read";
import { packAmount } from "#core/stock/packs";
import { usedPerDay } from "#core/stock/reorder";
import { dropOffer, monthlyUse, noteOffer, offersOf, priceHistory, lastOfferAt } from "#db/shelf/buying";
import { materialRow } from "#db/shelf/materials";
import { costRecipes } from "#db/recipe/costs";
import { recipesWith } from "#db/recipe/read";
import { cachedSettings } from "#db/settings/settings";
import { today } from "#db/clock";
import { object } from "yup";
import { db } from "../../server/workshop.server.ts";
import { idField, moneyOr0, reads, requiredText } from "../../forms/fields.ts";
import { idOf } from "../../forms/ids.ts";
import { runAct, pressedSheet, refuseSheet } from "../../forms/sheet.server.ts";
import { Heading, Sheet } from "../../ui/sheet/sheet.tsx";
import { OfferForm, Offers } from "./offers.tsx";
import { PriceHistory } from "./priceHistory.tsx";
import { PriceRise } from "./priceRise.tsx";
import type { Route } from "./+types/buying";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Buying ${(loaderData as { material?: { name: string } } | undefined)?.material?.name ?? ""} · Zelbin` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  const material = await materialRow(db(), id);
  if (!material) throw new Response("Not found", { status: 404 });
  const settings = await cachedSettings(db());
  const [offers, history, use, users] = await Promise.all([
    offersOf(db(), [id]),
    priceHistory(db(), id),
    monthlyUse(db(), today(), [id]),
    recipesWith(db(), id),
  ]);
  const costed = users.length ? await costRecipes(db(), settings, today(), users) : [];
  // What one unit of each product has of it, by the workshop's costing method.
  const products = costed.flatMap((c) =>
    c.sizes.map(({ cost, packaging, ...size }) => {
      const inLines = c.lines.reduce((a, l, i) => a + (l.materialId === id ? (cost.lines[i]!.cost[settings.school] ?? 0) : 0), 0);
      const inPacks = packaging.reduce((a, p, i) => a + (p.materialId === id ? (cost.packaging[i]!.cost[settings.school] ?? 0) : 0), 0);
      return {
        id: size.id,
        recipeId: c.recipe.id,
        name: `${c.recipe.name}, ${size.label}`,
        need:
          c.lines.reduce((a, l) => a + (l.materialId === id ? l.weight : 0), 0) +
          packaging.reduce((a, p) => a + (p.materialId === id ? p.pieces * cost.units : 0), 0),
        share: cost.units > 0 ? micros(Math.round((inLines + inPacks) / cost.units)) : micros(0),
        unit: cost.perUnit[settings.school]?.total ?? null,
      };
    }),
  );
  return {
    material,
    offers,
    history,
    perDay: usedPerDay(use.get(id) ?? [], today()),
    products,
    last: await lastOfferAt(db()),
    token: crypto.randomUUID(),
  };
}

const schema = object({
  supplier: requiredText("who sells it", 120),
  packSize: requiredText("what is in a pack", 40),
  price: reads(parseMoney),
  postage: moneyOr0(),
});

export async function action({ request, params }: Route.ActionArgs) {
  const id = idOf(params.id);
  const material = await materialRow(db(), id);
  if (!material) throw new Response("Not found", { status: 404 });
  const pressed = await pressedSheet(request, ["drop", "offer"]);
  if (!pressed.ok) return pressed.reply;
  if (pressed.intent === "drop") {
    const offer = await pressed.read(object({ offer: idField() }));
    if (!offer.ok) return offer.reply;
    return runAct(() => dropOffer(db(), { materialId: id, id: offer.value.offer }, offer.doing));
  }
  const sheet = await pressed.read(schema);
  if (!sheet.ok) return sheet.reply;
  const qty = packAmount(1, sheet.value.packSize, factsIn(material));
  if (!qty.ok) return refuseSheet([{ field: "packSize", say: qty.problem.say }]);
  return runAct(() => noteOffer(db(), { materialId: id, ...sheet.value, qty: qty.value, seen: today() }, sheet.doing));
}

export default function Buying({ loaderData: { material, offers, history, perDay, products, token, last } }: Route.ComponentProps) {
  const { measured } = kind(material.kind);
  return (
    <>
      <Heading title={`Buying ${material.name}`} about="Who sells it in which packs, what it cost before, and what a rise would do.">
        <Link to={`/shelf/${material.id}`} className="act">
          Back to the material
        </Link>
        <Link to={`/shelf/receive?material=${material.id}`} className="act act-main">
          Receive more
        </Link>
      </Heading>
      <Sheet>
        <Offers offers={offers} perDay={perDay} material={material} products={products} />
        <OfferForm key={token} token={token} measured={measured} last={last} />
        <PriceHistory rows={history} measured={measured} />
        <PriceRise products={products} history={history} />
      </Sheet>
    </>
  );
}
