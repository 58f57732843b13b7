/** Receiving a purchase of several lines at once. */
import type { UnitCost } from "#core/measure/money";
import { receive } from "#db/shelf/receive";
import { againCosts } from "#db/ledger/lots";
import { listMaterials } from "#db/shelf/materials";
import { readSettings } from "#db/settings";
import { today } from "#db/clock";
import { Link } from "react-router";
import { db } from "../../db.server.ts";
import { act, readSheet } from "../../forms/sheet.server.ts";
import { readReceiptSheet, receiptSchema } from "./receipt.server.ts";
import { ReceiptSheet } from "./receiptSheet.tsx";
import { BLANK_LINE, BLANK_RECEIPT, type ReceiptMaterial } from "./receiptTexts.ts";
import type { Route } from "./+types/receive";

export const meta: Route.MetaFunction = () => [{ title: "Receive a purchase · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const [all, again] = await Promise.all([listMaterials(db()), againCosts(db())]);
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
  const wanted = asked.getAll("material").map(Number);
  return {
    materials,
    again: [...again] as [number, UnitCost][],
    supplier: (asked.get("supplier") ?? "").slice(0, 120),
    first: wanted.flatMap((id) => materials.find((m) => m.id === id)?.name ?? []),
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

export default function Receive({ loaderData: { materials, again, supplier, first, token, today: day } }: Route.ComponentProps) {
  return (
    <ReceiptSheet
      title="Receive a purchase"
      about="Copy the receipt line by line. Each line becomes a lot with its own cost, postage included."
      start={{
        ...BLANK_RECEIPT,
        supplier,
        day,
        lines: first.length ? first.map((material) => ({ ...BLANK_LINE, material })) : [BLANK_LINE],
      }}
      materials={materials}
      again={again}
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
