/** A gift order as its sheet says it. */
import { moneyField } from "#core/measure/money";
import type { GiftOrderRead } from "#db/gifts/gifts";
import { meaning } from "#core/meant";

export const BLANK_ITEM = { product: "", means: "", units: "", price: "", lot: "" };
export const BLANK_WRAP = { material: "", means: "", pieces: "" };

export const orderTexts = (order: GiftOrderRead | null) => ({
  customer: order?.customer ?? "",
  due: order?.due ?? "",
  extra: order ? moneyField(order.extra) : "",
  discount: order ? String(order.discountBp / 100) : "",
  wrapMinutes: order ? String(order.wrapMinutes) : "",
  note: order?.note ?? "",
  items: order?.items.map((i) => ({
    product: i.name,
    means: meaning({ id: i.productId, name: i.name }),
    units: String(i.units),
    price: moneyField(i.price),
    lot: "",
  })) ?? [BLANK_ITEM],
  wrapping: order?.wrapping.map((w) => ({
    material: w.name,
    means: meaning({ id: w.materialId, name: w.name }),
    pieces: String(w.pieces),
  })) ?? [BLANK_WRAP],
});
