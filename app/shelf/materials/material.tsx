/** One material: its lots, what it costs by each costing method, what is known of it, and what went in and out. */
import { Link } from "react-router";
import { inciText } from "#core/label/inci";
import { CAUTIONS } from "#core/material/cautions";
import { DRYNESS } from "#core/material/dryness";
import { kind } from "#core/material/kinds";
import { lookThrough } from "#core/material/lookThrough";
import { COST_KNOWN } from "#core/stock/costKnown";
import { BEST_BY } from "#core/stock/bestBy";
import { perWeight, type UnitCost } from "#core/measure/money";
import { lotState, firstExpiredFirst, whyFirst } from "#core/stock/lots";
import { reorderPoint, usedPerDay } from "#core/stock/reorder";
import { replacementCosts } from "#db/ledger/lots";
import { monthlyUse } from "#db/shelf/buying";
import { materialMovements, materialRow, readMaterial } from "#db/shelf/materials";
import { stillToCome } from "#db/shelf/receipts/receipts";
import { cachedSettings } from "#db/settings/settings";
import { today as now } from "#db/clock";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { Keeping } from "../../away/keeping.tsx";
import { ActsOf } from "../../book/actsOf.tsx";
import { actsOf } from "../../book/lines.server.ts";
import { db } from "../../server/workshop.server.ts";
import { useDraftOfDialog } from "../../forms/drafts/keptDrafts.ts";
import { idOf } from "../../forms/ids.ts";
import { LotTag, PerUnit, showInColumn, When } from "../../ui/figures/amounts.tsx";
import { Button } from "../../ui/fields/form.tsx";
import { Modal } from "../../ui/sheet/modal.tsx";
import { Caution, Empty, Heading, Part, Sheet, SideBySide } from "../../ui/sheet/sheet.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { CountForm, LotActs, type LotRow } from "./lotActs.tsx";
import { materialAct } from "./material.server.ts";
import { MaterialFactsPart } from "./materialFacts.tsx";
import { MaterialReckoner } from "./materialReckoner.tsx";
import { Print } from "../../ui/sheet/print.tsx";
import { Movements } from "./movements.tsx";
import type { Route } from "./+types/material";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${(loaderData as { material?: { name: string } } | undefined)?.material?.name ?? "Material"} · Zelbin` },
];

const RECENT = 8;
/** Lots shown, used-up ones filling up what those on hand leave. */
const SHOWN = 6;

export async function loader({ params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  const [found, movements, again, use, coming, rule, book] = await Promise.all([
    readMaterial(db(), id),
    materialMovements(db(), id, RECENT + 1),
    replacementCosts(db(), [id]),
    monthlyUse(db(), now(), [id]),
    stillToCome(db(), [id]),
    cachedSettings(db()),
    actsOf({ kind: "material", id }),
  ]);
  if (!found) throw new Response("Not found", { status: 404 });
  const lid = found.material.lidId === null ? null : await materialRow(db(), found.material.lidId);
  const perDay = usedPerDay(use.get(id) ?? [], now());
  const stock = {
    onHand: 0,
    coming: coming.get(id) ?? 0,
    perDay,
    reorderBy: found.material.reorderBy,
    reorderAt: found.material.reorderAt,
  };
  // Those on hand, and the last ones used up; a material bought for years has a long tail of empty lots.
  const live = found.lots.filter((l) => l.onHand > 0).sort(firstExpiredFirst);
  const gone = found.lots.filter((l) => l.onHand === 0).sort((a, b) => b.arrived.localeCompare(a.arrived));
  const lots = [...live, ...gone.slice(0, Math.max(2, SHOWN - live.length))];
  return {
    material: lookThrough(found.material),
    lots,
    older: found.lots.length - lots.length,
    movements: movements.slice(0, RECENT),
    more: movements.length > RECENT,
    again: again.get(id) ?? null,
    reorder: { perDay, point: reorderPoint(stock, rule), coming: stock.coming },
    lid: lid?.name ?? null,
    book,
    token: crypto.randomUUID(),
  };
}

export const action = ({ request, params }: Route.ActionArgs) => materialAct(request, idOf(params.id));

/** What a lot cost as delivered, or, made here, what is left of it is worth. */
const costOfLot = (l: LotRow): UnitCost | null =>
  l.landed !== null && l.bought !== null ? { value: l.landed, per: l.bought } : l.onHand > 0 ? { value: l.value, per: l.onHand } : null;

/** Where a lot came from. */
function From({ lot: l }: { lot: LotRow }) {
  return (
    <>
      {l.purchaseId !== null ? (
        <Link to={`/shelf/receipts/${l.purchaseId}`} className="hover:underline">
          {l.supplier}
        </Link>
      ) : (
        (l.grown && `own harvest, ${l.grown}`) || (l.opening ? "opening stock" : "made here")
      )}{" "}
      {l.supplierLot && <span className="weight text-part text-pine-soft">{l.supplierLot}</span>}
      {l.dryness && l.dryness !== "dry" && <span className="ml-1 font-semibold text-berry">{DRYNESS[l.dryness]}</span>}
      {l.opened && (
        <span className="block text-part text-pine-soft">
          opened <When day={l.opened} />
        </span>
      )}
    </>
  );
}

export default function Material({ loaderData }: Route.ComponentProps) {
  const { material, lots, older, movements, more, again, reorder, lid, book, token } = loaderData;
  // Tied to the token: an act that was taken brings a new one, and with it the sheet closes.
  // One that was left unfinished lies open again.
  const left = useDraftOfDialog("count ", "out ", "cost ");
  const [open, setOpen] = useState<{ lot: number; token: string; what: "count" | "more" } | null>(
    left && { lot: left.of, token, what: left.name === "count " ? "count" : "more" },
  );
  const { today } = useWorkshop();
  const { measured, group } = kind(material.kind);
  const live = lots.filter((l) => l.onHand > 0);
  const usable = live.filter((l) => ["good", "soon"].includes(lotState(l, today)));
  const why = whyFirst(usable);
  const per = perWeight(lots.map(costOfLot));
  const lot = open?.token === token ? lots.find((l) => l.id === open.lot) : undefined;
  return (
    <>
      <Heading
        title={material.name}
        about={[
          material.retired && "Put away",
          kind(material.kind).label,
          inciText(material.inci, material.libraryKey),
          material.allergen && `Allergen: ${material.allergen}`,
        ]
          .filter(Boolean)
          .join(" · ")}
      >
        <Link to={`/shelf/${material.id}/buying`} className="act">
          Buying
        </Link>
        <Link to={`/shelf/${material.id}/facts`} className="act">
          Change facts
        </Link>
        <Print />
        {(material.kind === "herb" || material.kind === "infusedOil") && (
          <Link to={`/jars/fill?${material.kind === "herb" ? "material" : "makes"}=${material.id}`} className="act">
            Fill a jar
          </Link>
        )}
        <Link to={`/shelf/receive?material=${material.id}`} className="act act-main">
          Receive more
        </Link>
      </Heading>
      <SideBySide reckoner={<MaterialReckoner material={material} live={live} again={again} reorder={reorder} />}>
        {material.kind === "essentialOil" && (
          <Caution>
            Measure by weight or mL. Keep off children, pets and broken skin, and mind its own ceiling on skin; the supplier's certificate
            for the lot goes before any general figure.
          </Caution>
        )}
        {group === "ingredient" &&
          material.cautions
            .filter((c) => c !== "flammable" && c !== "dust" && c !== "delicate")
            .map((c) => <Caution key={c}>{CAUTIONS[c].say}</Caution>)}
        <Sheet>
          <Part title="Lots" aside={why && <span className="text-small text-pine-soft">{`Use ${usable[0]!.number} first: ${why}.`}</span>}>
            {lots.length === 0 ? (
              <Empty
                title="No lot of it yet"
                act={
                  <Link to={`/shelf/receive?material=${material.id}`} className="act act-main">
                    Receive some
                  </Link>
                }
              >
                Each purchase becomes a lot with its own cost and best-before.
              </Empty>
            ) : (
              <Table
                rows={lots}
                by={(l) => l.id}
                columns={[
                  { head: "Lot", cell: (l) => <LotTag lot={l} /> },
                  { head: "From", plain: true, cell: (l) => <From lot={l} /> },
                  { head: "Arrived", cell: (l) => <When day={l.arrived} /> },
                  {
                    head: "Best before",
                    cell: (l) => (
                      <span>
                        <When day={l.bestBefore} />
                        {(l.bestBy === "keeping" || l.bestBy === "opened") && (
                          <span className="block text-part text-pine-soft">{BEST_BY[l.bestBy]}</span>
                        )}
                      </span>
                    ),
                  },
                  { head: "On hand", as: "weight", cell: (l) => showInColumn(l.onHand, measured) },
                  {
                    head: "Cost",
                    as: "figure",
                    cell: (l) => (
                      <>
                        {l.costKnown !== "none" && <PerUnit cost={costOfLot(l)} measured={measured} per={per} />}
                        {l.costKnown !== "paid" && <span className="block text-part text-honey">{COST_KNOWN[l.costKnown]}</span>}
                      </>
                    ),
                  },
                  {
                    head: "Count, open, take out",
                    as: "press",
                    cell: (l) => (
                      <>
                        <Button small onClick={() => setOpen({ lot: l.id, token, what: "count" })} aria-label={`Count ${l.number}`}>
                          Count
                        </Button>
                        {l.onHand > 0 && (
                          <Button
                            small
                            className="ml-1"
                            onClick={() => setOpen({ lot: l.id, token, what: "more" })}
                            aria-label={`Open or take out ${l.number}`}
                          >
                            …
                          </Button>
                        )}
                      </>
                    ),
                  },
                ]}
              />
            )}
            {older > 0 && (
              <p className="pt-2 text-small text-pine-soft">
                {older} older lots are used up:{" "}
                <Link to={`/lots?number=${encodeURIComponent(material.name)}`} className="text-amber underline underline-offset-4">
                  find them under Lots
                </Link>
              </p>
            )}
          </Part>
          {movements.length > 0 && (
            <Part
              title="In and out"
              aside={
                more && (
                  <Link to={`/shelf/${material.id}/history`} className="pressable text-small">
                    All of it
                  </Link>
                )
              }
            >
              <Movements rows={movements} measured={measured} />
            </Part>
          )}
          <MaterialFactsPart material={material} lid={lid} />
          <ActsOf {...book} />
          <Keeping of="material" id={material.id} retired={material.retired} copy={`/shelf/new?like=${material.id}`} />
        </Sheet>
      </SideBySide>
      <Dialog.Root open={lot !== undefined} onOpenChange={(o) => !o && setOpen(null)}>
        {lot && (
          <Modal title={open!.what === "count" ? "Correct a count" : `Lot ${lot.number}`}>
            {open!.what === "count" ? (
              <CountForm key={`${lot.id}-${lot.onHand}`} lot={lot} measured={measured} token={token} />
            ) : (
              <LotActs
                key={`${lot.id}-${lot.onHand}`}
                lot={lot}
                measured={measured}
                token={token}
                keepsOpened={material.keepsOpened}
                herb={material.kind === "herb"}
                pours={kind(material.kind).forms.includes("liquid")}
              />
            )}
          </Modal>
        )}
      </Dialog.Root>
    </>
  );
}
