/** One lot's whole history, back to every ingredient and forward to every market day and order. */
import { lotState } from "#core/stock/lots";
import { sayScentMost } from "#db/shelf/scentMost";
import { isScent } from "#core/scent/dilution";
import { FATE_IDS, unitsOut } from "#core/cabinet/out";
import { comeBack } from "#db/cabinet/comeBack";
import { listCabinet } from "#db/cabinet/cabinet";
import { finishedCost } from "#core/batch/finishing/result";
import { recipeOfBase } from "#db/bench/planning/base";
import { meltDown } from "#db/bench/finishing/meltDown";
import { correctCount, holdLot } from "#db/shelf/counting/count";
import { sayCost } from "#db/shelf/counting/opening";
import { findLot, traceLot } from "#db/lots/trace";
import { Link, redirect } from "react-router";
import { object } from "yup";
import { mg } from "#core/measure/exact";
import { done, refuse, type Outcome } from "#core/outcome";
import { outAt } from "#db/ledger/out";
import { between, readWeighed } from "#core/measure/read";
import { ActsOf } from "../book/actsOf.tsx";
import { actsOf } from "../book/lines.server.ts";
import { db } from "../server/workshop.server.ts";
import { oneOf, optional, reads, wholeNumber, requiredText } from "../forms/fields.ts";
import { idOf } from "../forms/ids.ts";
import { openSheet } from "../forms/openSheet.server.ts";
import { runAct, pressedSheet, refuseSheet } from "../forms/sheet.server.ts";
import { CameBack, CountUnits, Hold, MeltDown, percentText, ScentMost } from "./lotForms.tsx";
import { costSchema, SayCost } from "./sayCost.tsx";
import { LotTag, showBase, showInColumn, When } from "../ui/figures/amounts.tsx";
import { InShort } from "./inShort.tsx";
import { Print } from "../ui/sheet/print.tsx";
import { Heading, Part, Sheet, SideBySide } from "../ui/sheet/sheet.tsx";
import { Table } from "../ui/lists/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { History, measureOf } from "./lotHistory.tsx";
import { TraceDrawn } from "./traced.tsx";
import { cameToBe } from "./went.ts";
import { UsesUp } from "./usesUp.tsx";
import type { Route } from "./+types/lot";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Lot ${params.number} · Zelbin` }];

export async function loader({ params }: Route.LoaderArgs) {
  const lot = await findLot(db(), params.number);
  if (!lot) throw redirect(`/lots?number=${encodeURIComponent(params.number)}`);
  const record = { kind: "lot", id: lot.id } as const;
  const [traced, sheet, book, from, out, cabinet] = await Promise.all([
    traceLot(db(), lot.id),
    openSheet(record),
    actsOf(record),
    lot.kind === "base" && lot.onHand > 0 ? recipeOfBase(db(), lot.id) : null,
    lot.productId === null ? [] : outAt(db(), lot.id),
    lot.productId === null ? [] : listCabinet(db()),
  ]);
  const here = cabinet.find((l) => l.id === lot.id);
  const cost = here ? { ...finishedCost(here, here), worked: !!here.minutesHundredths } : null;
  return { ...traced, opened: sheet, book, from, outAt: out, cost };
}

const mostSchema = object({ most: optional(between(0, 100, "per cent", 10_000)) });
/** Whom it came back from, as its field has it: "order 5", "day 4", "hand". */
function readFrom(text: string): Outcome<{ orderId: number | null; dayId: number | null }> {
  const [what, id] = text.split(" ") as [string, string?];
  if (what === "hand") return done({ orderId: null, dayId: null });
  if ((what === "order" || what === "day") && idOf(id) > 0)
    return done({ orderId: what === "order" ? idOf(id) : null, dayId: what === "day" ? idOf(id) : null });
  return refuse("from", "Say whom it came back from.");
}

const backSchema = object({
  units: wholeNumber(1, 10_000, "units"),
  fate: oneOf(FATE_IDS),
  from: reads(readFrom),
  note: requiredText("who brought it back, and why", 200),
});
const countSchema = object({
  expected: wholeNumber(0, 1_000_000, "units"),
  counted: wholeNumber(0, 1_000_000, "units"),
  reason: requiredText("why it differs", 200),
});
const meltSchema = object({
  units: wholeNumber(1, 10_000, "units"),
  weight: optional(readWeighed),
  note: requiredText("why it is melted down", 200),
});
const holdSchema = object({ reason: requiredText("why it is on hold", 200) });

export async function action({ request, params }: Route.ActionArgs) {
  const lot = await findLot(db(), params.number);
  if (!lot) throw new Response("Not found", { status: 404 });
  const pressed = await pressedSheet(request, ["release", "scentMost", "cameBack", "cost", "count", "meltDown", "hold"]);
  if (!pressed.ok) return pressed.reply;
  if (pressed.intent === "release") return runAct(() => holdLot(db(), { lotId: lot.id, reason: null }, pressed.doing));
  if (pressed.intent === "scentMost") {
    const said = await pressed.read(mostSchema);
    const theirs = async () => ({ most: percentText((await findLot(db(), lot.number))?.scentMostPpm ?? null) });
    return said.ok ? runAct(() => sayScentMost(db(), { lotId: lot.id, ppm: said.value.most }, said.doing), { theirs }) : said.reply;
  }
  if (pressed.intent === "cameBack") {
    const back = await pressed.read(backSchema);
    return back.ok ? runAct(() => comeBack(db(), { lotId: lot.id, ...back.value }, back.doing)) : back.reply;
  }
  if (pressed.intent === "cost") {
    if (lot.productId === null) return refuseSheet([{ field: "cost", say: "A material’s cost is said on its own page." }]);
    const said = await pressed.read(costSchema);
    if (!said.ok) return said.reply;
    const { cost, known } = said.value;
    return runAct(() => sayCost(db(), { lotId: lot.id, cost, costKnown: known, ofOne: true }, said.doing));
  }
  if (pressed.intent === "count") {
    if (lot.productId === null)
      return refuseSheet([{ field: "counted", say: "A material is counted on its own page, or at a stock-take." }]);
    const count = await pressed.read(countSchema);
    return count.ok ? runAct(() => correctCount(db(), { lotId: lot.id, ...count.value }, count.doing)) : count.reply;
  }
  if (pressed.intent === "meltDown") {
    const melt = await pressed.read(meltSchema);
    if (!melt.ok) return melt.reply;
    const { units, weight, note } = melt.value;
    return runAct(() => meltDown(db(), { lotId: lot.id, units, weight: weight ?? mg(units * (lot.fill ?? 0)), note }, melt.doing));
  }
  const sheet = await pressed.read(holdSchema);
  return sheet.ok ? runAct(() => holdLot(db(), { lotId: lot.id, reason: sheet.value.reason }, sheet.doing)) : sheet.reply;
}

export default function Lot({ loaderData }: Route.ComponentProps) {
  const { lot, back, forward, history, contents, made, opened: sheetOpened, book, from, cost } = loaderData;
  const { today } = useWorkshop();
  const state = lotState(lot, today);
  const own = history.filter((r) => r.lotId === lot.id);
  const out = unitsOut(own);
  const poured = made.find((m) => m.lotId === lot.id);
  const beforeBooks = lot.productId !== null && !poured;
  const inIt = new Map(contents.map((c) => [c.of, c.qty]));
  return (
    <>
      <Heading
        title={<span className="font-mono tracking-tight">{lot.number}</span>}
        about={
          <>
            {lot.productId ? (
              <Link to={poured ? `/bench/${poured.batchId}` : `/prices/${lot.productId}`} className="underline underline-offset-4">
                {lot.name}, {lot.label}
              </Link>
            ) : (
              <Link to={`/shelf/${lot.materialId}`} className="underline underline-offset-4">
                {lot.name}
              </Link>
            )}
            {lot.supplier && ` from ${lot.supplier}`}
            {lot.supplierLot && (lot.productId ? `, marked ${lot.supplierLot}` : `, their lot ${lot.supplierLot}`)}
            {lot.calledNow && <span className="no-print">, now called {lot.calledNow}</span>}
            <span className="hidden print:block">
              {lot.productId ? "Poured" : "Arrived"} <When day={lot.arrived} />
              {lot.bestBefore && (
                <>
                  , best before <When day={lot.bestBefore} />
                </>
              )}
              , {showBase(lot.onHand, measureOf(lot))} left
            </span>
          </>
        }
      >
        <Print pdf={`/lots/${encodeURIComponent(lot.number)}/pdf`} />
        <Link to={`/lots/recalls/new?lot=${encodeURIComponent(lot.number)}`} className="act">
          Recall it
        </Link>
        <Hold key={`${lot.hold} ${sheetOpened.seen}`} held={lot.hold} opened={sheetOpened} />
      </Heading>
      {lot.hold && (
        <p className="mb-4 rounded bg-honey-wash px-4 py-2 font-semibold text-honey">
          On hold: {lot.holdReason}. It is used for nothing until it is free again.
        </p>
      )}
      {beforeBooks && (
        <p className="mb-4 rounded bg-honey-wash px-4 py-2 text-honey">
          It was made before the books began: what is in it isn’t known here, so the recall of an ingredient doesn’t find it. Its label says
          what it is made of.
        </p>
      )}
      <SideBySide reckoner={<InShort {...{ lot, cost, beforeBooks, back, forward, history }} />}>
        <Sheet>
          {from && (
            <p className="no-print mb-4">
              <Link to={`/bench/set-out?recipe=${from.id}&melt=${lot.id}`} className="act act-main">
                Pour it again as {from.name}
              </Link>
            </p>
          )}
          {lot.productId === null && lot.onHand > 0 && measureOf(lot) === "weight" && <UsesUp key={lot.id} lot={lot} />}
          {lot.kind && isScent({ kind: lot.kind }) && (
            <ScentMost key={`${lot.scentMostPpm} ${sheetOpened.seen}`} ppm={lot.scentMostPpm} opened={sheetOpened} />
          )}
          <TraceDrawn traced={loaderData} />
          {back.length > 0 && (
            <Part title="Came from">
              <Table
                rows={back}
                by={(s) => s.lot.id}
                columns={[
                  { head: "Lot", cell: (s) => <LotTag lot={s.lot} /> },
                  {
                    head: "Of",
                    plain: true,
                    cell: (s) => (
                      <>
                        {s.lot.name}
                        {s.lot.label && <span className="text-pine-soft">, {s.lot.label}</span>}
                      </>
                    ),
                  },
                  {
                    head: "Supplier",
                    plain: true,
                    cell: (s) => (
                      <>
                        {s.lot.supplier} <span className="weight text-fine text-pine-soft">{s.lot.supplierLot}</span>
                      </>
                    ),
                  },
                  { head: "Best before", cell: (s) => <When day={s.lot.bestBefore} /> },
                  {
                    head: "In it",
                    as: "weight",
                    cell: (s) => (inIt.has(s.lot.id) ? showInColumn(inIt.get(s.lot.id)!, measureOf(s.lot)) : ""),
                  },
                ]}
              />
            </Part>
          )}
          <Part title={lot.productId ? "Where it went" : "In and out"}>
            <History rows={own} lot={lot} />
          </Part>
          {lot.productId !== null && out > 0 && (
            <CameBack key={`${out} ${sheetOpened.seen}`} at={loaderData.outAt} out={out} opened={sheetOpened} />
          )}
          {lot.productId !== null && (
            <CountUnits key={`${lot.onHand} counted ${sheetOpened.seen}`} onHand={lot.onHand} opened={sheetOpened} />
          )}
          {beforeBooks && (
            <Part title="What it cost" screenOnly>
              <SayCost key={`cost ${sheetOpened.seen}`} lot={lot} opened={sheetOpened} of="One of them" />
            </Part>
          )}
          {lot.productId !== null && !beforeBooks && lot.onHand > 0 && state !== "expired" && lot.fill !== null && (
            <MeltDown key={`${lot.onHand} melts ${sheetOpened.seen}`} onHand={lot.onHand} fill={lot.fill} opened={sheetOpened} />
          )}
          {forward.length > 0 && (
            <Part title="Went into">
              {forward.map((s) => (
                <div key={s.lot.id} className="mb-5">
                  <p className="flex flex-wrap items-baseline gap-x-3">
                    <LotTag lot={s.lot} />
                    <span className="font-display text-lead">
                      {s.lot.name}
                      {s.lot.label && `, ${s.lot.label}`}
                    </span>
                    <span className="text-pine-soft">
                      {s.lot.productId ? "poured" : "made"} <When day={s.lot.arrived} />, {showBase(s.lot.onHand, measureOf(s.lot))} still
                      here
                    </span>
                  </p>
                  <History rows={history.filter((r) => r.lotId === s.lot.id && !cameToBe(r))} lot={s.lot} />
                </div>
              ))}
            </Part>
          )}
          <ActsOf {...book} />
        </Sheet>
      </SideBySide>
    </>
  );
}
