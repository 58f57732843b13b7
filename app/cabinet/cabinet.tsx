/** The cabinet: finished units by product, size and lot, and taking some out other than by selling. */
import { Link } from "react-router";
import { finishedCost } from "#core/batch/finishing/result";
import { COST_KNOWN } from "#core/stock/costKnown";
import { lives } from "#core/cabinet/ages";
import { groupBy } from "#core/collect";
import { finder } from "#core/find";
import { money } from "#core/measure/money";
import { RECIPE_TYPES } from "#core/recipe/types";
import { REASONS, TAKE_OUT_REASONS } from "#core/ledger/reasons";
import { daysBetween } from "#core/when";
import { today } from "#db/clock";
import { listCabinet, takeOut, type CabinetLot } from "#db/cabinet/cabinet";
import { cabinetOutlook } from "#db/cabinet/outlook";
import { allocatedUnits } from "#db/cabinet/allocations";
import { Dialog } from "radix-ui";
import { useMemo, useState } from "react";
import { object } from "yup";
import { db } from "../server/workshop.server.ts";
import { idField, noteText, oneOf, wholeNumber } from "../forms/fields.ts";
import { runAct, readSheet } from "../forms/sheet.server.ts";
import { useDraftOfDialog } from "../forms/drafts/keptDrafts.ts";
import { useSheet } from "../forms/useSheet.ts";
import { LotTag, When } from "../ui/figures/amounts.tsx";
import { Button, Choice, Text } from "../ui/fields/form.tsx";
import { Modal } from "../ui/sheet/modal.tsx";
import { Empty, Heading, Part, Sheet } from "../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../forms/sheetSays.tsx";
import { SaveList } from "../ui/lists/saveList.tsx";
import { Table } from "../ui/lists/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { CABINET_FILE } from "./cabinetFile.ts";
import { Outlook } from "./outlook.tsx";
import { Ages } from "./ages.tsx";
import type { Route } from "./+types/cabinet";

export const meta: Route.MetaFunction = () => [{ title: "Cabinet · Zelbin" }];
export async function loader() {
  const [lots, stand, outlook] = await Promise.all([listCabinet(db()), allocatedUnits(db(), today()), cabinetOutlook(db(), today())]);
  return {
    lots,
    paces: [...outlook.paces],
    summers: [...outlook.summers],
    stand: [...stand].map(
      ([of, s]) => [of, { held: s.held, expired: s.expired, onTheWay: s.onTheWay, free: s.free, reserved: s.reserved }] as const,
    ),
    token: crypto.randomUUID(),
  };
}

/** From so many products on there is a field to find in. */
const FINDS_FROM = 8;

const schema = object({
  lotId: idField(),
  units: wholeNumber(1, 10_000, "units"),
  reason: oneOf(TAKE_OUT_REASONS),
  note: noteText(200),
});

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  return runAct(() => takeOut(db(), sheet.value, sheet.doing));
}

interface Stand {
  held: number;
  expired: number;
  onTheWay: number;
  free: number;
  reserved: readonly { customer: string; units: number }[];
}

/** What of a product is reserved, and what is free; nothing where all of it is. */
function spokenFor(s: Stand | undefined): string[] {
  if (!s) return [];
  const reserved = s.reserved.reduce((a, p) => a + p.units, 0);
  const said = [
    ...(reserved > 0 ? [`${reserved} reserved`] : []),
    ...(s.onTheWay > 0 ? [`${s.onTheWay} on the way to a market`] : []),
    ...(s.held > 0 ? [`${s.held} on hold`] : []),
    ...(s.expired > 0 ? [`${s.expired} past their day`] : []),
  ];
  return said.length > 0 ? [...said, `${s.free} free`] : [];
}

function TakeOutForm({ lot, token }: { lot: CabinetLot; token: string }) {
  const sheet = useSheet(
    { lotId: lot.id, units: "1", reason: "tester", note: "" },
    { token },
    { draft: `Taking out of ${lot.number}`, sheet: `out ${lot.id}` },
  );
  const { errors } = sheet.formState;
  return (
    <form onSubmit={sheet.send()} className="space-y-4">
      <SheetSays sheet={sheet} />
      <p>
        {lot.name}, {lot.label}: {lot.onHand} of <LotTag lot={lot} plain /> are here.
      </p>
      <div className="grid grid-cols-2 gap-4">
        <Text data-amount label="Units" autoFocus {...sheet.register("units")} problem={errors.units?.message} />
        <Choice
          label="What for"
          options={TAKE_OUT_REASONS.map((r) => [r, REASONS[r].say[0]!.toUpperCase() + REASONS[r].say.slice(1)] as const)}
          {...sheet.register("reason")}
        />
      </div>
      <Text label="Note" {...sheet.register("note")} problem={errors.note?.message} />
      <Send sheet={sheet}>Take out</Send>
    </form>
  );
}

export default function Cabinet({ loaderData: { lots, stand, paces, summers, token } }: Route.ComponentProps) {
  const { currency, today: day } = useWorkshop();
  const left = useDraftOfDialog("out ");
  const [taking, setTaking] = useState<{ lot: number; token: string } | null>(left && { lot: left.of, token });
  const lot = taking?.token === token ? lots.find((l) => l.id === taking.lot) : undefined;
  const [typed, setTyped] = useState("");
  const products = useMemo(() => [...groupBy(lots, (l) => l.of).values()], [lots]);
  const find = useMemo(
    () => finder(products, (p) => ({ name: `${p[0]!.name}, ${p[0]!.label}`, also: p.map((l) => l.number).join(" ") })),
    [products],
  );
  const found = find(typed);
  const costless = lots.reduce((a, l) => a + (l.costKnown === "none" ? l.onHand : 0), 0);
  const standOf = new Map(stand);
  const paceOf = new Map(paces);
  const summerOf = new Map(summers);
  return (
    <>
      <Heading
        title="Cabinet"
        about={
          lots.length > 0
            ? `${lots.reduce((a, l) => a + l.onHand, 0)} finished units, worth ${money(
                lots.reduce((a, l) => a + l.value, 0),
                currency,
              )} in materials${costless > 0 ? `, but for ${costless} whose cost isn’t known` : ""}.`
            : undefined
        }
      >
        <Link to="/cabinet/file" className="act">
          From a file
        </Link>
      </Heading>
      {products.length === 0 ? (
        <Empty
          title="The cabinet is empty"
          act={
            <Link to="/bench/set-out" className="act act-main">
              Set out a batch
            </Link>
          }
        >
          What you pour stands here by product and lot until it is sold, given or used.
        </Empty>
      ) : (
        <Sheet>
          <Ages lots={lives(lots, day)} />
          <Part
            title="Lot by lot"
            aside={
              products.length > FINDS_FROM && (
                <input
                  type="search"
                  className="field no-print w-60!"
                  aria-label="Find in the cabinet"
                  placeholder="Find in the cabinet"
                  autoComplete="off"
                  value={typed}
                  onChange={(e) => setTyped(e.target.value)}
                />
              )
            }
          >
            <Table
              groups={found.map((rows) => ({
                key: rows[0]!.of,
                head: (
                  <>
                    <Link to={`/prices/${rows[0]!.of}`} className="hover:underline">
                      {rows[0]!.name}
                    </Link>{" "}
                    <span className="font-sans text-fine text-pine-soft">
                      {[
                        rows[0]!.label,
                        ...(rows[0]!.type ? [RECIPE_TYPES[rows[0]!.type].label] : []),
                        `${rows.reduce((a, l) => a + l.onHand, 0)} here`,
                        ...spokenFor(standOf.get(rows[0]!.of)),
                        ...(rows[0]!.retired ? ["no longer made"] : []),
                      ].join(" · ")}
                    </span>
                    <Outlook lots={rows} pace={paceOf.get(rows[0]!.of) ?? null} summer={summerOf.get(rows[0]!.of) ?? null} today={day} />
                  </>
                ),
                rows: rows.map((l) => ({ ...l, cost: finishedCost(l, l) })),
              }))}
              by={(l) => l.id}
              columns={[
                { head: "Lot", cell: (l) => <LotTag lot={l} /> },
                { head: "Poured", cell: (l) => <When day={l.arrived} /> },
                { head: "Age", as: "figure", cell: (l) => `${daysBetween(l.arrived, day)} days` },
                { head: "Best before", cell: (l) => <When day={l.bestBefore} /> },
                { head: "Here", as: "weight", className: "font-semibold", cell: (l) => l.onHand },
                {
                  head: "Materials, one",
                  as: "figure",
                  cell: (l) => (l.costKnown === "none" ? COST_KNOWN.none : money(l.cost.materials, currency)),
                },
                {
                  head: "All costs, one",
                  as: "figure",
                  cell: (l) => (
                    <>
                      {l.costKnown === "none" ? COST_KNOWN.none : money(l.cost.full, currency)}
                      {l.costKnown !== "none" && !l.minutesHundredths && (
                        <span className="block font-sans text-part text-pine-soft">no work in it</span>
                      )}
                    </>
                  ),
                },
                {
                  head: "Take out",
                  as: "press",
                  cell: (l) => (
                    <Button small onClick={() => setTaking({ lot: l.id, token })} aria-label={`Take out of ${l.number}`}>
                      Take out
                    </Button>
                  ),
                },
              ]}
            />
            <SaveList what="cabinet" rows={found.flat()} columns={CABINET_FILE} />
            {found.length === 0 && <p className="py-5 text-center text-pine-soft">Nothing in the cabinet matches “{typed.trim()}”.</p>}
          </Part>
        </Sheet>
      )}
      <Dialog.Root open={lot !== undefined} onOpenChange={(open) => !open && setTaking(null)}>
        {lot && (
          <Modal title="Take out">
            <TakeOutForm key={`${lot.id}-${lot.onHand}`} lot={lot} token={token} />
          </Modal>
        )}
      </Dialog.Root>
    </>
  );
}
