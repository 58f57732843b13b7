/** The cabinet: finished units by product, size and lot, and taking some out other than by selling. */
import { finishedCost } from "#core/batch/result";
import { groupBy } from "#core/collect";
import { money } from "#core/measure/money";
import { RECIPE_TYPES } from "#core/recipe/types";
import { REASONS, TAKE_OUT_REASONS } from "#core/stock/reasons";
import { daysBetween } from "#core/when";
import { today } from "#db/clock";
import { listCabinet, takeOut, type CabinetLot } from "#db/cabinet/cabinet";
import { unitsStand } from "#db/cabinet/promised";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { Link } from "react-router";
import { object } from "yup";
import { db } from "../db.server.ts";
import { idField, note, oneOf, wholeNumber } from "../forms/fields.ts";
import { act, readSheet } from "../forms/sheet.server.ts";
import { useSheet } from "../forms/useSheet.ts";
import { LotTag, When } from "../ui/amounts.tsx";
import { Button, Choice, Problem, Text } from "../ui/form.tsx";
import { Modal } from "../ui/modal.tsx";
import { Empty, Heading, Sheet } from "../ui/sheet.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { Route } from "./+types/cabinet";

export const meta: Route.MetaFunction = () => [{ title: "Cabinet · Zelbin" }];
export async function loader() {
  const [lots, stand] = await Promise.all([listCabinet(db()), unitsStand(db(), today())]);
  return {
    lots,
    stand: [...stand].map(
      ([of, s]) => [of, { held: s.held, expired: s.expired, onTheWay: s.onTheWay, free: s.free, promised: s.promised }] as const,
    ),
    token: crypto.randomUUID(),
  };
}

const schema = object({
  lotId: idField(),
  units: wholeNumber(1, 10_000, "units"),
  reason: oneOf(TAKE_OUT_REASONS),
  note: note(200),
});

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  return act(() => takeOut(db(), sheet.value, sheet.doing));
}

interface Stand {
  held: number;
  expired: number;
  onTheWay: number;
  free: number;
  promised: readonly { customer: string; units: number }[];
}

/** What of a product is spoken for, and what is free; nothing where all of it is. */
function spokenFor(s: Stand | undefined): string[] {
  if (!s) return [];
  const promised = s.promised.reduce((a, p) => a + p.units, 0);
  const said = [
    ...(promised > 0 ? [`${promised} promised`] : []),
    ...(s.onTheWay > 0 ? [`${s.onTheWay} on the way to a market`] : []),
    ...(s.held > 0 ? [`${s.held} on hold`] : []),
    ...(s.expired > 0 ? [`${s.expired} past their day`] : []),
  ];
  return said.length > 0 ? [...said, `${s.free} free`] : [];
}

function TakeOutForm({ lot, token }: { lot: CabinetLot; token: string }) {
  const sheet = useSheet({ lotId: lot.id, units: "1", reason: "tester", note: "" }, { token });
  const { errors } = sheet.formState;
  return (
    <form onSubmit={sheet.send()} className="space-y-4">
      <Problem say={sheet.problem} see={sheet.see} />
      <p>
        {lot.name}, {lot.label}: {lot.onHand} of <LotTag lot={lot} plain /> are here.
      </p>
      <div className="grid grid-cols-2 gap-4">
        <Text label="Units" autoFocus {...sheet.register("units")} problem={errors.units?.message} />
        <Choice
          label="What for"
          options={TAKE_OUT_REASONS.map((r) => [r, REASONS[r][0]!.toUpperCase() + REASONS[r].slice(1)] as const)}
          {...sheet.register("reason")}
        />
      </div>
      <Text label="Note" {...sheet.register("note")} problem={errors.note?.message} />
      <Button type="submit" main disabled={sheet.busy}>
        Take out
      </Button>
    </form>
  );
}

export default function Cabinet({ loaderData: { lots, stand, token } }: Route.ComponentProps) {
  const { currency, today: day } = useWorkshop();
  const [taking, setTaking] = useState<{ lot: number; token: string } | null>(null);
  const lot = taking?.token === token ? lots.find((l) => l.id === taking.lot) : undefined;
  const products = [...groupBy(lots, (l) => l.of).values()];
  const standOf = new Map(stand);
  return (
    <>
      <Heading
        title="Cabinet"
        about={
          lots.length > 0
            ? `${lots.reduce((a, l) => a + l.onHand, 0)} finished units, worth ${money(
                lots.reduce((a, l) => a + l.value, 0),
                currency,
              )} in materials.`
            : undefined
        }
      />
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
          <table className="ruled stack">
            <thead>
              <tr>
                <th scope="col">Lot</th>
                <th scope="col">Poured</th>
                <th scope="col" className="text-right!">
                  Age
                </th>
                <th scope="col">Best before</th>
                <th scope="col" className="text-right!">
                  Here
                </th>
                <th scope="col" className="text-right!">
                  Materials, one
                </th>
                <th scope="col" className="text-right!">
                  All costs, one
                </th>
                <th scope="col" aria-label="Take out" />
              </tr>
            </thead>
            {products.map((rows) => (
              <tbody key={rows[0]!.of}>
                <tr className="group">
                  <th colSpan={8} scope="rowgroup" className="text-pine!">
                    <span className="font-display text-[1.15rem] font-normal">{rows[0]!.name}</span>{" "}
                    <span className="font-normal text-pine-soft">
                      {[
                        rows[0]!.label,
                        ...(rows[0]!.type ? [RECIPE_TYPES[rows[0]!.type].label] : []),
                        `${rows.reduce((a, l) => a + l.onHand, 0)} here`,
                        ...spokenFor(standOf.get(rows[0]!.of)),
                        ...(rows[0]!.retired ? ["no longer made"] : []),
                      ].join(" · ")}
                    </span>
                  </th>
                </tr>
                {rows.map((l) => {
                  const cost = finishedCost(l, l);
                  return (
                    <tr key={l.id}>
                      <td>
                        <LotTag lot={l} />
                      </td>
                      <td data-label="Poured">
                        <When day={l.arrived} />
                      </td>
                      <td data-label="Age" className="num">
                        {daysBetween(l.arrived, day)} days
                      </td>
                      <td data-label="Best before">
                        <When day={l.bestBefore} />
                      </td>
                      <td data-label="Here" className="num weight font-semibold">
                        {l.onHand}
                      </td>
                      <td data-label="Materials, one" className="num">
                        {money(cost.materials, currency)}
                      </td>
                      <td data-label="All costs, one" className="num">
                        {money(cost.full, currency)}
                      </td>
                      <td className="text-right">
                        <Button small onClick={() => setTaking({ lot: l.id, token })} aria-label={`Take out of ${l.number}`}>
                          Take out
                        </Button>
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            ))}
          </table>
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
