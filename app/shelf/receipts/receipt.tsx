/** One receipt: its lines and lots, what is still to come, its scans. */
import { kind } from "#core/material/kinds";
import { sum } from "#core/measure/exact";
import { money, perWeight } from "#core/measure/money";
import { RATE_1, SPREADS } from "#core/stock/receipt";
import { counted } from "#core/words";
import { dropScan, keepScan } from "#db/attachments/attachments";
import { arrive } from "#db/shelf/receipts/receive";
import { readReceipt } from "#db/shelf/receipts/receipts";
import { Link, useFetcher } from "react-router";
import { object } from "yup";
import { db } from "../../server/workshop.server.ts";
import { idField, noteText, optionalDay, wholeNumber } from "../../forms/fields.ts";
import { postedFile } from "../../forms/files.server.ts";
import { idOf } from "../../forms/ids.ts";
import { runAct, pressedSheet } from "../../forms/sheet.server.ts";
import { tokenFor, useSheet } from "../../forms/useSheet.ts";
import { ActsOf } from "../../book/actsOf.tsx";
import { actsOf } from "../../book/lines.server.ts";
import type { Reply } from "../../forms/sheet.server.ts";
import { LotTag, PerUnit, showBase, When } from "../../ui/figures/amounts.tsx";
import { DayText } from "../../ui/fields/dateField.tsx";
import { Button, Text } from "../../ui/fields/form.tsx";
import { KeptFileLink, KeptPicture } from "../../files/keptFile.tsx";
import { KeepFile } from "../../files/keepFile.tsx";
import { Figure, Reckoner } from "../../ui/figures/reckoner.tsx";
import { Print } from "../../ui/sheet/print.tsx";
import { Heading, Part, Sheet, SideBySide } from "../../ui/sheet/sheet.tsx";
import { SheetSays } from "../../forms/sheetSays.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import type { Route } from "./+types/receipt";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${(loaderData as { receipt?: { supplier: string } } | undefined)?.receipt?.supplier ?? "Receipt"} · Zelbin` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  const [found, book] = await Promise.all([readReceipt(db(), id), actsOf({ kind: "receipt", id })]);
  if (!found) throw new Response("Not found", { status: 404 });
  return { ...found, token: crypto.randomUUID(), book };
}

const arriveSchema = object({
  lineId: idField(),
  packs: wholeNumber(1, 10_000, "packs"),
  supplierLot: noteText(60),
  bestBefore: optionalDay(),
});

export async function action({ request, params }: Route.ActionArgs) {
  const id = idOf(params.id);
  if (!(await readReceipt(db(), id))) throw new Response("Not found", { status: 404 });
  const type = request.headers.get("content-type") ?? "";
  if (type.startsWith("multipart/"))
    return runAct(async () => {
      const { file, doing } = await postedFile(request);
      return keepScan(db(), { purchaseId: id, file }, doing);
    });
  const pressed = await pressedSheet(request, ["dropScan", "arrive"]);
  if (!pressed.ok) return pressed.reply;
  if (pressed.intent === "dropScan") {
    const scan = await pressed.read(object({ scan: idField() }));
    if (!scan.ok) return scan.reply;
    return runAct(() => dropScan(db(), { purchaseId: id, id: scan.value.scan }, scan.doing));
  }
  const sheet = await pressed.read(arriveSchema);
  if (!sheet.ok) return sheet.reply;
  return runAct(() => arrive(db(), sheet.value, sheet.doing));
}

type Line = Route.ComponentProps["loaderData"]["lines"][number];

/** Packs that have come after all. */
function Arrive({ line, token }: { line: Line["line"]; token: string }) {
  const sheet = useSheet(
    { lineId: line.id, packs: String(line.packs), supplierLot: "", bestBefore: "" },
    { token: tokenFor(token, line.id) },
    { draft: `What came of ${line.name}`, sheet: `arrive ${line.id}` },
  );
  const { errors } = sheet.formState;
  return (
    <form onSubmit={sheet.send("arrive")} className="flex flex-wrap items-end gap-2">
      <Text
        data-amount
        label="Packs come"
        className="w-24 [&_input]:text-right"
        {...sheet.register("packs")}
        problem={errors.packs?.message}
      />
      <Text label="Supplier's lot" className="w-32" {...sheet.register("supplierLot")} problem={errors.supplierLot?.message} />
      <DayText
        label="Best before"
        control={sheet.control}
        name="bestBefore"
        leaning="future"
        className="w-40"
        problem={errors.bestBefore?.message}
      />
      <Button type="submit" disabled={sheet.busy}>
        Put on the shelf
      </Button>
      <SheetSays sheet={sheet} />
    </form>
  );
}

function Scans({ scans, token }: { scans: Route.ComponentProps["loaderData"]["scans"]; token: string }) {
  const drop = useFetcher<Reply | null>();
  return (
    <ul className="mb-3 flex flex-wrap gap-4">
      {scans.map((s) => (
        <li key={s.id} className="w-40 text-small">
          <KeptFileLink id={s.id} className="block">
            {s.mime.startsWith("image/") && s.mime !== "image/heic" ? (
              <KeptPicture id={s.id} alt={s.name} className="mb-1 h-28 w-40" />
            ) : (
              <span className="mb-1 grid h-28 place-items-center rounded border border-rule bg-paper-deep font-display">PDF</span>
            )}
            <span className="block truncate text-amber underline underline-offset-4">{s.name}</span>
          </KeptFileLink>
          <button
            type="button"
            className="pressable"
            onClick={() =>
              void drop.submit(
                { intent: "dropScan", scan: String(s.id), token: tokenFor(token, s.id) },
                {
                  method: "post",
                  encType: "application/json",
                },
              )
            }
          >
            Take off
          </button>
        </li>
      ))}
    </ul>
  );
}

export default function Receipt({ loaderData: { receipt: r, lines, scans, token, book } }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  const paidIn = r.currency || currency;
  const per = perWeight(lines.filter((l) => kind(l.kind).measured === "weight").map(({ line }) => ({ value: line.landed, per: line.qty })));
  const goods = sum(lines.map((l) => l.line.price));
  const waiting = lines.filter((l) => l.line.lotId === null);
  return (
    <>
      <Heading
        title={r.supplier}
        about={
          <>
            Receipt of <When day={r.day} />. Write each lot's number on its bag or bottle.
          </>
        }
      >
        <Link to="/shelf/receipts" className="act">
          All receipts
        </Link>
        <Link to={`/shelf/receive?like=${r.id}`} className="act">
          Buy the same again
        </Link>
        <Link to={`/shelf/receipts/${r.id}/correct`} className="act">
          Correct it
        </Link>
        <Print />
        <KeepFile to={`/shelf/receipts/${r.id}`} accept="image/*,application/pdf" label="Add a scan" />
      </Heading>
      <SideBySide
        reckoner={
          <Reckoner title="In short">
            <Figure label="Goods" value={money(goods, paidIn)} />
            <Figure label="Postage" value={money(r.postage, paidIn)} how={<p>Shared {SPREADS[r.spreadBy]}, to the last cent.</p>} />
            {r.tax > 0 && <Figure label="Tax" value={money(r.tax, paidIn)} />}
            {r.discount > 0 && <Figure label="Discount" value={`− ${money(r.discount, paidIn)}`} />}
            {r.rate !== RATE_1 && <Figure label={`One ${paidIn}`} value={money((r.rate / RATE_1) * 1e6, currency)} />}
            <Figure label="Paid in all" big value={money(sum(lines.map((l) => l.line.landed)), currency)} />
          </Reckoner>
        }
      >
        <Sheet>
          <Part title="Lines">
            <Table
              rows={lines}
              by={(l) => l.line.id}
              columns={[
                {
                  head: "Material",
                  cell: (l) => (
                    <Link to={`/shelf/${l.line.materialId}`} className="font-semibold hover:underline">
                      {l.material}
                    </Link>
                  ),
                },
                {
                  head: "Lot",
                  plain: true,
                  cell: (l) => (
                    <>
                      {l.lot ? (
                        <LotTag lot={{ ...l.lot, hold: l.lot.holdReason !== null }} />
                      ) : (
                        <span className="font-semibold text-honey">to come</span>
                      )}{" "}
                      {l.lot?.supplierLot && <span className="weight text-part text-pine-soft">{l.lot.supplierLot}</span>}
                    </>
                  ),
                },
                {
                  head: "Packs",
                  className: "whitespace-nowrap",
                  cell: (l) => (
                    <>
                      {l.line.packs} × {l.line.packSize}
                      {showBase(l.line.qty, kind(l.kind).measured) !== l.line.packSize && (
                        <span className="text-part text-pine-soft"> {showBase(l.line.qty, kind(l.kind).measured)}</span>
                      )}
                    </>
                  ),
                },
                {
                  head: "Best before",
                  className: "whitespace-nowrap",
                  cell: (l) => <When day={l.lot?.bestBefore ?? null} />,
                },
                { head: "Price", as: "figure", cell: (l) => money(l.line.price, paidIn) },
                {
                  head: "Cost",
                  as: "figure",
                  cell: (l) => <PerUnit cost={{ value: l.line.landed, per: l.line.qty }} measured={kind(l.kind).measured} per={per} />,
                },
              ]}
            />
            {r.note && <p className="mt-3 text-pine-soft">{r.note}</p>}
          </Part>
          {waiting.length > 0 && (
            <Part title="Still to come">
              <ul className="space-y-4">
                {waiting.map(({ line, material }) => (
                  <li key={`${line.id}-${line.packs}`}>
                    <p className="mb-1">
                      {counted(line.packs, "pack")} of {line.packSize} {material}, paid for already
                    </p>
                    <Arrive line={line} token={token} />
                  </li>
                ))}
              </ul>
            </Part>
          )}
          {scans.length > 0 && (
            <Part title="Scans">
              <Scans scans={scans} token={token} />
            </Part>
          )}
          <ActsOf {...book} />
        </Sheet>
      </SideBySide>
    </>
  );
}
