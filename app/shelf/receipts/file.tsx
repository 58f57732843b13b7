/** Receipts from a spreadsheet's file or a paste. */
import { Link } from "react-router";
import { groupBy } from "#core/collect";
import type { IntakeLine } from "#core/intake/read";
import { micros } from "#core/measure/exact";
import { listMaterials } from "#db/shelf/materials";
import { receiveMany } from "#db/shelf/receipts/receive";
import type { ReceiveIn } from "#db/shelf/receipts/writeReceipts";
import { db } from "../../server/workshop.server.ts";
import { withProgress } from "../../forms/progress.server.ts";
import { runAct } from "../../forms/sheet.server.ts";
import { FileSheet } from "../intake/fileSheet.tsx";
import { readPostedFile } from "../intake/posted.server.ts";
import type { Route } from "./+types/file";

export const meta: Route.MetaFunction = () => [{ title: "Receipts from a file · Zelbin" }];

export const loader = async () => ({ names: (await listMaterials(db())).map((m) => m.name), token: crypto.randomUUID() });

export async function action({ request }: Route.ActionArgs) {
  const read = await readPostedFile(request, "receipt");
  if (!read.ok) return read.reply;
  const { add } = read;
  const receipts = receiptsOf(dated(read.lines));
  const back = dated(read.back);
  return runAct(() =>
    withProgress(read.doing.token, (progress) => receiveMany(db(), { add, receipts, back }, { ...read.doing, progress })),
  );
}

/** A receipt's lines have a day and a price, or they aren't read. */
const dated = (lines: readonly IntakeLine[]) =>
  lines.flatMap((l) => (l.price === null || l.day === null ? [] : [{ ...l, price: l.price, day: l.day }]));

/** Lines of one supplier on one day, in one currency, are one receipt. */
function receiptsOf(lines: ReturnType<typeof dated>): ReceiveIn[] {
  return [...groupBy(lines, (l) => `${l.day}\n${l.currency}\n${l.supplier}`).values()].map((of) => ({
    supplier: of[0]!.supplier,
    day: of[0]!.day,
    currency: of[0]!.currency,
    rate: of[0]!.rate,
    postage: micros(0),
    lines: of,
  }));
}

export default function FromFile({ loaderData: { names, token } }: Route.ComponentProps) {
  return (
    <FileSheet
      purpose="receipt"
      names={names}
      token={token}
      title="Receipts from a file"
      about="A spreadsheet’s file (CSV or .xlsx), a shop’s CSV, or rows pasted from one. Lines of one supplier on one day become one receipt; nothing is saved before you have looked."
      placeholder={"material;packs;size;price;date\nShea butter, unrefined;1;2,5 kg;33,20;14 April 2026"}
      links={
        <Link to="/shelf/receive" className="act">
          Type one instead
        </Link>
      }
    />
  );
}
