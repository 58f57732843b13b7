/** Opening stock from a spreadsheet's file or a paste. */
import { Link } from "react-router";
import { micros } from "#core/measure/exact";
import type { CostKnown } from "#core/stock/costKnown";
import { listMaterials } from "#db/shelf/materials";
import { openingStock } from "#db/shelf/counting/opening";
import { db } from "../../server/workshop.server.ts";
import { withProgress } from "../../forms/progress.server.ts";
import { runAct } from "../../forms/sheet.server.ts";
import { FileSheet } from "../intake/fileSheet.tsx";
import { readPostedFile } from "../intake/posted.server.ts";
import type { Route } from "./+types/file";

export const meta: Route.MetaFunction = () => [{ title: "Opening stock, from a file · Zelbin" }];

export const loader = async () => ({ names: (await listMaterials(db())).map((m) => m.name), token: crypto.randomUUID() });

export async function action({ request }: Route.ActionArgs) {
  const read = await readPostedFile(request, "opening");
  if (!read.ok) return read.reply;
  const known: CostKnown = read.posted.known === "guessed" ? "guessed" : "paid";
  const lines = read.lines.map((l) => ({
    materialId: l.materialId,
    qty: l.qty,
    cost: l.price ?? micros(0),
    costKnown: l.price === null ? ("none" as const) : known,
    supplierLot: l.supplierLot,
    bestBefore: l.bestBefore,
    bought: l.day,
  }));
  return runAct(() =>
    withProgress(read.doing.token, (progress) => openingStock(db(), { add: read.add, lines }, { ...read.doing, progress })),
  );
}

export default function OpeningFile({ loaderData: { names, token } }: Route.ComponentProps) {
  return (
    <FileSheet
      purpose="opening"
      names={names}
      token={token}
      title="Opening stock, from a file"
      about="A spreadsheet’s file (CSV or .xlsx), or rows pasted from one: what it is and how much there is; what it cost, its lot and its dates where you have them."
      placeholder={"material;amount;cost;lot;best before\nBeeswax, yellow;1,2 kg;21,60;;\nSunflower oil;3 L;;L-88;2027-04-30"}
      guesses
      links={
        <Link to="/shelf/opening" className="act">
          Type it instead
        </Link>
      }
    />
  );
}
