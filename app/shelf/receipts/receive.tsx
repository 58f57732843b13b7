/** Receiving a purchase of several lines at once. */
import { Link } from "react-router";
import { receive } from "#db/shelf/receipts/receive";
import { lastReceiptFrom } from "#db/shelf/buying";
import { readReceipt } from "#db/shelf/receipts/receipts";
import { cachedSettings } from "#db/settings/settings";
import { today } from "#db/clock";
import { db } from "../../server/workshop.server.ts";
import { idOf } from "../../forms/ids.ts";
import { runAct, readSheet } from "../../forms/sheet.server.ts";
import { boughtOf } from "#db/shelf/sheetMaterials";
import { readReceiptSheet, receiptSchema } from "./receipt.server.ts";
import { ReceiptSheet } from "./receiptSheet.tsx";
import { BLANK_LINE, BLANK_RECEIPT } from "./receiptTexts.ts";
import type { Route } from "./+types/receive";

export const meta: Route.MetaFunction = () => [{ title: "Receive a purchase · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const asked = new URL(request.url).searchParams;
  const [like, from] = await Promise.all([
    asked.has("like") ? readReceipt(db(), idOf(asked.get("like")!)) : null,
    lastReceiptFrom(db(), today()),
  ]);
  const wanted = like ? like.lines.map((l) => l.line.materialId) : asked.getAll("material").map(idOf);
  const stuff = (await boughtOf(db(), wanted)).filter((m) => !m.retired);
  const byId = new Map(stuff.map((m) => [m.id, m]));
  return {
    stuff,
    supplier: like?.receipt.supplier ?? (asked.get("supplier") ?? from).slice(0, 120),
    // The same packs as the last time; what they cost today is on the new receipt.
    lines: wanted.flatMap((id, i) => {
      const m = byId.get(id);
      const line = like?.lines[i]?.line;
      return m
        ? [
            {
              ...BLANK_LINE,
              material: m.name,
              ...(line ? { packs: String(line.packs), packSize: line.packSize } : { packSize: m.pack ?? "" }),
            },
          ]
        : [];
    }),
    token: crypto.randomUUID(),
    today: today(),
  };
}

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, receiptSchema);
  if (!sheet.ok) return sheet.reply;
  const read = await readReceiptSheet(sheet.value, (await cachedSettings(db())).currency, sheet.meant("bought"));
  return read.ok ? runAct(() => receive(db(), read.value, sheet.doing)) : read.reply;
}

export default function Receive({ loaderData: { stuff, supplier, lines, token, today: day } }: Route.ComponentProps) {
  return (
    <ReceiptSheet
      title="Receive a purchase"
      about="Copy the receipt line by line. Each line becomes a lot with its own cost, postage included."
      start={{
        ...BLANK_RECEIPT,
        supplier,
        day,
        lines: lines.length > 0 ? lines : [BLANK_LINE],
      }}
      stuff={stuff}
      opened={{ token }}
      back="/shelf"
      button="Put on the shelf"
      partial
      links={
        <Link to="/shelf/receive/file" className="act">
          From a file
        </Link>
      }
    />
  );
}
