/** Correcting a receipt, used lots and all: what was made of them is restated, visibly. */
import { moneyField } from "#core/measure/money";
import { RATE_1 } from "#core/stock/receipt";
import { correctReceipt } from "#db/shelf/receipts/correct";
import { readReceipt } from "#db/shelf/receipts/receipts";
import { cachedSettings } from "#db/settings/settings";
import { db } from "../../server/workshop.server.ts";
import { idOf } from "../../forms/ids.ts";
import { openSheet } from "../../forms/openSheet.server.ts";
import { runAct, readSheet } from "../../forms/sheet.server.ts";
import { readReceiptSheet, receiptSchema } from "./receipt.server.ts";
import { ReceiptSheet } from "./receiptSheet.tsx";
import { boughtOf } from "#db/shelf/sheetMaterials";
import type { Route } from "./+types/correct";

export const meta: Route.MetaFunction = () => [{ title: "Correct a receipt · Zelbin" }];

export async function loader({ params }: Route.LoaderArgs) {
  const found = await readReceipt(db(), idOf(params.id));
  if (!found) throw new Response("Not found", { status: 404 });
  return {
    start: correctionTexts(found),
    id: found.receipt.id,
    stuff: await boughtOf(
      db(),
      found.lines.map((l) => l.line.materialId),
    ),
    opened: await openSheet({ kind: "receipt", id: found.receipt.id }),
  };
}

export async function action({ request, params }: Route.ActionArgs) {
  const sheet = await readSheet(request, receiptSchema);
  if (!sheet.ok) return sheet.reply;
  const read = await readReceiptSheet(sheet.value, (await cachedSettings(db())).currency, sheet.meant("bought"));
  if (!read.ok) return read.reply;
  const id = idOf(params.id);
  return runAct(() => correctReceipt(db(), { id, ...read.value }, sheet.doing), {
    theirs: async () => correctionTexts((await readReceipt(db(), id))!),
  });
}

const orNone = (n: number): string => (n === 0 ? "" : moneyField(n));

/** A receipt as its sheet says it. */
const correctionTexts = ({ receipt: r, lines }: NonNullable<Awaited<ReturnType<typeof readReceipt>>>) => ({
  supplier: r.supplier,
  day: r.day,
  postage: orNone(r.postage),
  tax: orNone(r.tax),
  discount: orNone(r.discount),
  spreadBy: r.spreadBy,
  currency: r.currency,
  rate: r.rate === RATE_1 ? "" : String(r.rate / RATE_1),
  note: r.note,
  lines: lines.map(({ line, material, lot }) => ({
    id: String(line.id),
    material,
    packs: String(line.packs),
    packSize: line.packSize,
    price: moneyField(line.price),
    arrived: "",
    supplierLot: lot?.supplierLot ?? "",
    bestBefore: lot?.printed ?? "",
  })),
});

export default function Correct({ loaderData: { start, id, stuff, opened: sheet } }: Route.ComponentProps) {
  return (
    <ReceiptSheet
      title="Correct a receipt"
      about="What was used of its lots stays used. Where a cost changes, the difference follows into jars, batches, market days, orders and what is left, as lines of its own."
      start={start}
      stuff={stuff}
      opened={sheet}
      back={`/shelf/receipts/${id}`}
      button="Save the correction"
      partial={false}
    />
  );
}
