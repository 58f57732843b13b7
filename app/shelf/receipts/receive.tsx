/** Receiving a purchase of several lines at once. */
import type { UnitCost } from "#core/measure/money";
import { receive } from "#db/shelf/receive";
import { againCosts } from "#db/ledger/lots";
import { listMaterials } from "#db/shelf/materials";
import { lastPacks, lastReceiptFrom } from "#db/shelf/buying";
import { readReceipt } from "#db/shelf/receipts";
import { readSettings } from "#db/settings";
import { today } from "#db/clock";
import { Link } from "react-router";
import { db } from "../../db.server.ts";
import { idOf } from "../../forms/ids.ts";
import { act, readSheet } from "../../forms/sheet.server.ts";
import { readReceiptSheet, receiptSchema } from "./receipt.server.ts";
import { ReceiptSheet } from "./receiptSheet.tsx";
import { BLANK_LINE, BLANK_RECEIPT, type ReceiptMaterial } from "./receiptTexts.ts";
import type { Route } from "./+types/receive";

export const meta: Route.MetaFunction = () => [{ title: "Receive a purchase · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const [all, again, packs, from] = await Promise.all([
    listMaterials(db()),
    againCosts(db()),
    lastPacks(db()),
    lastReceiptFrom(db(), today()),
  ]);
  const materials = all
    .filter((m) => !m.retired)
    .map(({ id, name, kind, densities, dropsPerMl, pieceMg, emptyMg }): ReceiptMaterial => ({
      id,
      name,
      kind,
      densities,
      dropsPerMl,
      pieceMg,
      emptyMg,
    }));
  const asked = new URL(request.url).searchParams;
  const like = asked.has("like") ? await readReceipt(db(), idOf(asked.get("like")!)) : null;
  const wanted = asked.getAll("material").map(Number);
  return {
    materials,
    again: [...again] as [number, UnitCost][],
    packs: [...packs],
    supplier: like?.receipt.supplier ?? (asked.get("supplier") ?? from).slice(0, 120),
    // The same packs as the last time; what they cost today is on the new receipt.
    lines: like
      ? like.lines.flatMap(({ line }) => {
          const m = materials.find((x) => x.id === line.materialId);
          return m ? [{ ...BLANK_LINE, material: m.name, packs: String(line.packs), packSize: line.packSize }] : [];
        })
      : wanted.flatMap((id) => {
          const m = materials.find((x) => x.id === id);
          return m ? [{ ...BLANK_LINE, material: m.name, packSize: packs.get(id) ?? "" }] : [];
        }),
    token: crypto.randomUUID(),
    today: today(),
  };
}

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, receiptSchema);
  if (!sheet.ok) return sheet.reply;
  const read = await readReceiptSheet(sheet.value, (await readSettings(db())).currency);
  return read.ok ? act(() => receive(db(), read.value, sheet.doing)) : read.reply;
}

export default function Receive({ loaderData: { materials, again, packs, supplier, lines, token, today: day } }: Route.ComponentProps) {
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
      materials={materials}
      again={again}
      packs={packs}
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
