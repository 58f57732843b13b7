/** One material: its lots, what it costs by each school, and everything that went in and out. */
import { factsIn } from "#core/material/facts";
import { kind } from "#core/material/kinds";
import { FORMS, type Form } from "#core/measure/mass";
import { money } from "#core/measure/money";
import { useFirst } from "#core/stock/lots";
import { SCHOOLS, runningAverage } from "#core/stock/schools";
import { readStock } from "#core/stock/packs";
import { REASONS } from "#core/stock/reasons";
import { againCosts } from "#db/ledger";
import { correctCount } from "#db/shelf/count";
import { materialMovements, readMaterial } from "#db/shelf/materials";
import { today } from "#db/clock";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { Link } from "react-router";
import { object } from "yup";
import { db } from "../db.server.ts";
import { idOf } from "../forms/ids.ts";
import { idField, wholeNumber, words } from "../forms/fields.ts";
import { act, readSheet, refuseSheet } from "../forms/sheet.server.ts";
import { useSheet } from "../forms/useSheet.ts";
import { LotTag, PerUnit, showBase, showInColumn, When } from "../ui/amounts.tsx";
import { Button, Problem, Text } from "../ui/form.tsx";
import { Modal } from "../ui/modal.tsx";
import { Caution, Empty, Figure, Heading, HowLine, Part, Reckoner, Sheet, SideBySide } from "../ui/sheet.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { Route } from "./+types/material";

export const meta: Route.MetaFunction = ({ data }) => [
  { title: `${(data as { material?: { name: string } } | undefined)?.material?.name ?? "Material"} · Zelbin` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  const [found, movements, again] = await Promise.all([readMaterial(db(), id), materialMovements(db(), id), againCosts(db(), [id])]);
  if (!found) throw new Response("Not found", { status: 404 });
  return { ...found, movements, again: again.get(id) ?? null, token: crypto.randomUUID() };
}

const countSchema = object({
  lotId: idField(),
  expected: wholeNumber(0, 1e12, "units"),
  counted: words("what you counted", 40),
  reason: words("why it differs", 200),
});

export async function action({ request, params }: Route.ActionArgs) {
  const sheet = await readSheet(request, countSchema);
  if (!sheet.ok) return sheet.reply;
  const found = await readMaterial(db(), idOf(params.id));
  if (!found) throw new Response("Not found", { status: 404 });
  const { lotId, expected, reason, counted } = sheet.value;
  const amount = readStock(counted, factsIn(found.material));
  if (!amount.ok) return refuseSheet([{ field: "counted", say: amount.problem.say }]);
  return act(() => correctCount(db(), { lotId, expected, reason, counted: amount.value }, { day: today(), token: sheet.token }));
}

type Lots = Route.ComponentProps["loaderData"]["lots"];

function CountForm({ lot, measured, token }: { lot: Lots[number]; measured: "weight" | "count"; token: string }) {
  const sheet = useSheet({ lotId: lot.id, expected: lot.onHand, counted: "", reason: "" }, token);
  const { errors } = sheet.formState;
  return (
    <form onSubmit={sheet.send()} className="space-y-4">
      <Problem say={sheet.problem} />
      <p>
        The shelf says <strong className="weight">{showBase(lot.onHand, measured)}</strong> of <LotTag lot={lot} plain />.
      </p>
      <Text
        label="Counted or weighed"
        placeholder={measured === "weight" ? "430 g" : "48"}
        autoFocus
        {...sheet.register("counted")}
        problem={errors.counted?.message}
      />
      <Text
        label="Why it differs"
        hint="Spilt, misread, found another bag …"
        {...sheet.register("reason")}
        problem={errors.reason?.message}
      />
      <Button type="submit" main disabled={sheet.busy}>
        Correct the count
      </Button>
    </form>
  );
}

export default function Material({ loaderData: { material, lots, movements, again, token } }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  // Tied to the token: a count that was taken brings a new one, and with it the sheet closes.
  const [counting, setCounting] = useState<{ lot: number; token: string } | null>(null);
  const { measured, forms, group } = kind(material.kind);
  const live = lots.filter((l) => l.onHand > 0).sort(useFirst);
  const gone = lots.filter((l) => l.onHand === 0).sort((a, b) => b.arrived.localeCompare(a.arrived));
  const onHand = live.reduce((a, l) => a + l.onHand, 0);
  const first = live[0];
  const lotToCount = counting?.token === token ? lots.find((l) => l.id === counting.lot) : undefined;
  return (
    <>
      <Heading
        title={material.name}
        about={[kind(material.kind).label, material.inci, material.allergen && `Allergen: ${material.allergen}`]
          .filter(Boolean)
          .join(" · ")}
      >
        <Link to={`/shelf/${material.id}/facts`} className="act">
          Change facts
        </Link>
        <Link to={`/shelf/receive?material=${material.id}`} className="act act-main">
          Receive more
        </Link>
      </Heading>
      <SideBySide
        reckoner={
          <Reckoner>
            <Figure
              label="On hand"
              big
              value={onHand === 0 ? "none" : showBase(onHand, measured)}
              how={live.map((l) => (
                <HowLine key={l.id} label={l.number} value={showBase(l.onHand, measured)} />
              ))}
            />
            <Figure
              label="Worth"
              value={money(
                live.reduce((a, l) => a + l.value, 0),
                currency,
              )}
              how={live.map((l) => (
                <HowLine key={l.id} label={l.number} value={money(l.value, currency)} />
              ))}
            />
            <Figure
              label={SCHOOLS.lot}
              value={<PerUnit cost={first ? { value: first.value, per: first.onHand } : null} measured={measured} />}
              how={
                first ? (
                  <p>
                    Lot {first.number} is used first: {money(first.value, currency)} left in {showBase(first.onHand, measured)}.
                  </p>
                ) : (
                  <p>No lot is on hand.</p>
                )
              }
            />
            <Figure
              label={SCHOOLS.average}
              value={<PerUnit cost={runningAverage(live)} measured={measured} />}
              how={<p>Everything on hand: its worth over its amount.</p>}
            />
            <Figure
              label={SCHOOLS.again}
              value={<PerUnit cost={again} measured={measured} />}
              how={<p>The newest purchase, with its share of the postage.</p>}
            />
            {forms.map((f: Form) => (
              <Figure
                key={f}
                label={`Density, ${FORMS[f]}`}
                value={material.densities[f] ? `${(material.densities[f] / 1000).toFixed(2)} g/mL` : "unknown"}
                how={
                  <p>
                    Turns cups, spoons and mL of it into grams.{" "}
                    {material.densities[f] ? "Change it under its facts." : "Until it has one, only weights can be used."}
                  </p>
                }
              />
            ))}
          </Reckoner>
        }
      >
        {group === "ingredient" && material.kind === "essentialOil" && (
          <Caution>
            Measure by weight or mL. Keep off children, pets and broken skin, and mind its own ceiling on skin; the supplier's certificate
            for the lot goes before any general figure.
          </Caution>
        )}
        <Sheet>
          <Part title="Lots">
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
              <table className="ruled stack">
                <thead>
                  <tr>
                    <th scope="col">Lot</th>
                    <th scope="col">From</th>
                    <th scope="col">Arrived</th>
                    <th scope="col">Best before</th>
                    <th scope="col" className="text-right!">
                      On hand
                    </th>
                    <th scope="col" className="text-right!">
                      Cost
                    </th>
                    <th scope="col" aria-label="Correct the count" />
                  </tr>
                </thead>
                <tbody>
                  {[...live, ...gone].map((l) => (
                    <tr key={l.id}>
                      <td>
                        <LotTag lot={l} />
                      </td>
                      <td>
                        {l.supplier} {l.supplierLot && <span className="weight text-[0.85em] text-pine-soft">{l.supplierLot}</span>}
                      </td>
                      <td data-label="Arrived">
                        <When day={l.arrived} />
                      </td>
                      <td data-label="Best before">
                        <When day={l.bestBefore} />
                      </td>
                      <td data-label="On hand" className="num weight">
                        {showInColumn(l.onHand, measured)}
                      </td>
                      <td data-label="Cost" className="num">
                        <PerUnit
                          cost={l.landed !== null && l.bought !== null ? { value: l.landed, per: l.bought } : null}
                          measured={measured}
                        />
                      </td>
                      <td className="text-right">
                        <Button small onClick={() => setCounting({ lot: l.id, token })} aria-label={`Count ${l.number}`}>
                          Count
                        </Button>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
          </Part>
          {movements.length > 0 && (
            <Part title="In and out">
              <table className="ruled stack">
                <thead>
                  <tr>
                    <th scope="col">Day</th>
                    <th scope="col">What</th>
                    <th scope="col">Lot</th>
                    <th scope="col" className="text-right!">
                      Amount
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {movements.map((m) => (
                    <tr key={m.id}>
                      <td>
                        <When day={m.day} />
                      </td>
                      <td>
                        <a href={m.path} className="hover:underline">
                          {m.summary || REASONS[m.reason]}
                        </a>
                        {m.note && <span className="text-pine-soft"> · {m.note}</span>}
                      </td>
                      <td className="weight text-[0.9em]">{m.number}</td>
                      <td data-label="Amount" className="num weight">
                        {m.qty < 0 ? "−" : "+"}
                        {showInColumn(Math.abs(m.qty), measured)}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </Part>
          )}
          {material.note && <p className="mt-5 text-pine-soft">{material.note}</p>}
        </Sheet>
      </SideBySide>
      <Dialog.Root open={lotToCount !== undefined} onOpenChange={(open) => !open && setCounting(null)}>
        {lotToCount && (
          <Modal title="Correct a count">
            <CountForm key={`${lotToCount.id}-${lotToCount.onHand}`} lot={lotToCount} measured={measured} token={token} />
          </Modal>
        )}
      </Dialog.Root>
    </>
  );
}
