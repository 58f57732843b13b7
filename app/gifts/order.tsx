/** One gift order: its sheet, saving and packing it. */
import { kind } from "#core/material/kinds";
import type { Micros } from "#core/measure/exact";
import { parseMoney } from "#core/measure/read";
import type { FieldProblem } from "#core/refused";
import { restatementsSince } from "#db/acts/book";
import { today } from "#db/clock";
import { alikeIn, productNames } from "#core/recipe/productNames";
import { wordList } from "#core/words";
import { listGiftOrders, saveGiftOrder, type GiftOrderRead } from "#db/gifts/gifts";
import { openOrders } from "#db/gifts/begin";
import { packedLots, packGiftOrder } from "#db/gifts/pack";
import { listProducts } from "#db/recipe/read";
import { cachedSettings } from "#db/settings/settings";
import { listMaterials } from "#db/shelf/materials";
import { array, object } from "yup";
import { db } from "../server/workshop.server.ts";
import { idOf } from "../forms/ids.ts";
import { dayField, moneyOr0, noteText, reads, scaled, wholeNumber, requiredText } from "../forms/fields.ts";
import { openSheet } from "../forms/openSheet.server.ts";
import { runAct, intentOf, readSheet, refuseSheet } from "../forms/sheet.server.ts";
import { actsOf } from "../book/lines.server.ts";
import { idMeant } from "#core/meant";
import { stuffOf } from "#db/shelf/sheetMaterials";
import { OrderRecord } from "./orderRecord.tsx";
import { OrderSheet } from "./orderSheet.tsx";
import { orderTexts } from "./orderTexts.ts";
import { stepSentences } from "./stepSentences.server.ts";
import { productsOf } from "#db/gifts/products";
import type { Route } from "./+types/order";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${(loaderData as { order?: { customer: string } } | undefined)?.order?.customer ?? "Write an order"} · Zelbin` },
];

export async function loader({ request, params }: Route.LoaderArgs) {
  const id = "id" in params ? idOf(params.id) : null;
  const asked = new URL(request.url).searchParams;
  const likeId = id === null && asked.has("like") ? idOf(asked.get("like")!) : null;
  const [orders, settings] = await Promise.all([
    id === null && likeId === null ? [] : listGiftOrders(db(), [id ?? likeId ?? 0]),
    cachedSettings(db()),
  ]);
  if (id !== null && orders.length === 0) throw new Response("Not found", { status: 404 });
  const order = id === null ? null : (orders[0] ?? null);
  const like = likeId === null ? null : (orders[0] ?? null);
  const packed = order?.packedActId ? await packedLots(db(), order.id) : [];
  // What is packed is told by what it was packed out of.
  const written = order?.packedActId ? null : (order ?? like);
  const record = id === null ? null : ({ kind: "order", id } as const);
  const [products, wraps, sheet, book, righted, open] = await Promise.all([
    written ? productsOf(db(), { ids: written.items.map((i) => i.productId), order: order && { id: order.id, due: order.due } }) : [],
    written
      ? stuffOf(
          db(),
          written.wrapping.map((w) => w.materialId),
        )
      : [],
    openSheet(record),
    record && actsOf(record),
    id === null ? [] : restatementsSince(db(), "giftOrderId", id),
    order && !order.packedActId ? openOrders(db(), today()) : [],
  ]);
  // What isn't packed has today's name, and a mark where another has the same name.
  const called = new Map(products.map((p) => [p.id, p.name]));
  // A copy is of what goes in and how it is wrapped; for whom and by when is another matter.
  const texts = like
    ? { ...orderTexts(withNames(like, called)), customer: "", due: "" }
    : { ...orderTexts(order && withNames(order, called)), ...(id === null ? { customer: (asked.get("for") ?? "").slice(0, 120) } : {}) };
  return {
    order,
    texts,
    products,
    wraps,
    steps: stepSentences(open.find((o) => o.orderId === id)?.steps ?? [], id ?? 0),
    hourly: order?.hourly ?? settings.hourly,
    from: { name: settings.workshop, reachUs: settings.reachUs },
    packed,
    today: today(),
    opened: sheet,
    book,
    righted,
  };
}

/** An order with what its products are called today. */
const withNames = (of: GiftOrderRead, called: ReadonlyMap<number, string>): GiftOrderRead => ({
  ...of,
  items: of.items.map((i) => ({ ...i, name: called.get(i.productId) ?? i.name })),
});

const schema = object({
  intent: intentOf(["keep", "pack"]),
  customer: requiredText("who it is for", 80),
  due: dayField(),
  extra: moneyOr0(),
  discount: scaled(0, 90, "per cent", 100, 0),
  wrapMinutes: wholeNumber(0, 6000, "minutes", 0),
  note: noteText(),
  items: array()
    .of(object({ product: noteText(200), means: noteText(220), units: noteText(12), price: noteText(20), lot: noteText(20) }))
    .required(),
  wrapping: array()
    .of(object({ material: noteText(120), means: noteText(140), pieces: noteText(12) }))
    .required(),
});
const itemSchema = object({ units: wholeNumber(1, 10_000, "units"), price: reads(parseMoney) });
const piecesField = wholeNumber(1, 100_000, "pieces");

export async function action({ request, params }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { intent, items, wrapping, discount, ...head } = sheet.value;
  const id = "id" in params ? idOf(params.id) : undefined;
  const products = await listProducts(db());
  const called = productNames(products);
  const byName = new Map([...called].map(([of, name]) => [name.toLowerCase(), of]));
  const alike = alikeIn(products);
  const materials = await listMaterials(db());
  const materialsByName = new Map(materials.map((m) => [m.name.toLowerCase(), m]));
  const problems: FieldProblem[] = [];
  const field = <T,>(path: string, read: () => T): T | null => {
    try {
      return read();
    } catch (e) {
      problems.push({ field: path, say: e instanceof Error ? e.message : "Check this." });
      return null;
    }
  };
  // By the place of a line among those that are written: empty rows are none.
  const only: { line: number; lotId: number }[] = [];
  let line = 0;
  const readItems = items.flatMap((it, i) => {
    if (it.product.trim() === "") return [];
    const typed = it.product.trim().toLowerCase();
    const means = idMeant(it.product, it.means);
    const product = means !== null && called.has(means) ? means : byName.get(typed);
    if (product === undefined)
      problems.push({
        field: `items.${i}.product`,
        say: alike.has(typed)
          ? `There are several: ${wordList(alike.get(typed)!)}. Choose one from the list.`
          : `“${it.product}” isn't a product. Choose one from the list.`,
      });
    const units = field(`items.${i}.units`, () => itemSchema.validateSyncAt("units", it) as number);
    const price = field(`items.${i}.price`, () => itemSchema.validateSyncAt("price", it) as Micros);
    const lotId = it.lot === "" ? null : idOf(it.lot);
    if (lotId !== null) only.push({ line, lotId });
    line++;
    return product !== undefined && units !== null && price !== null ? [{ productId: product, units, price }] : [];
  });
  const readWraps = wrapping.flatMap((w, i) => {
    if (w.material.trim() === "") return [];
    const means = idMeant(w.material, w.means);
    const m = materials.find((x) => x.id === means) ?? materialsByName.get(w.material.trim().toLowerCase());
    if (!m || kind(m.kind).measured !== "count")
      problems.push({ field: `wrapping.${i}.material`, say: `“${w.material}” isn't wrapping on the shelf.` });
    const pieces = field(`wrapping.${i}.pieces`, () => piecesField.validateSync(w.pieces));
    return m && pieces !== null ? [{ materialId: m.id, pieces }] : [];
  });
  if (problems.length === 0 && readItems.length === 0) problems.push({ field: "items.0.product", say: "Enter at least one product." });
  if (problems.length > 0) return refuseSheet(problems);
  const { customer, due, extra, wrapMinutes } = head;
  const input = { customer, due, extra, wrapMinutes, note: head.note, discountBp: discount, items: readItems, wrapping: readWraps };
  const theirs = async () => orderTexts((await listGiftOrders(db(), [id ?? 0])).map((o) => withNames(o, called))[0] ?? null);
  if (intent !== "pack") return runAct(() => saveGiftOrder(db(), { ...input, id }, sheet.doing), { theirs });
  if (id === undefined) return refuseSheet([{ field: "", say: "Save the order first, then pack it." }]);
  return runAct(() => packGiftOrder(db(), { id, only, sheet: input }, sheet.doing), { theirs });
}

export default function GiftOrder({ loaderData }: Route.ComponentProps) {
  const { order } = loaderData;
  if (order?.packedActId != null) return <OrderRecord order={order} d={loaderData} />;
  return <OrderSheet key={`${loaderData.order?.id ?? "new"} ${loaderData.opened.seen}`} d={loaderData} />;
}
