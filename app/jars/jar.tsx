/** One jar: what is in it, tending it, straining it, and the bottles that came of it. */
import { Link } from "react-router";
import { METHODS } from "#core/infusion/methods";
import { isHeated } from "#core/infusion/warmth";
import { JAR_STATES, jarProgress, jarState } from "#core/infusion/tend";
import { CAUTIONS, staysSaid } from "#core/material/cautions";
import { sum } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { grams } from "#core/measure/write";
import { restatementsSince } from "#db/acts/book";
import { readJar } from "#db/jars/read";
import { lotsOfMaterials } from "#db/ledger/lots";
import { today } from "#db/clock";
import { db } from "../server/workshop.server.ts";
import { idOf } from "../forms/ids.ts";
import { LotTag, PerUnit, percent, When } from "../ui/figures/amounts.tsx";
import { Jar as JarDrawing } from "../ui/figures/drawings.tsx";
import { Figure, HowLine, Reckoner } from "../ui/figures/reckoner.tsx";
import { Caution, Heading, Part, Sheet, SideBySide } from "../ui/sheet/sheet.tsx";
import { Table } from "../ui/lists/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { ActsOf, Restatements } from "../book/actsOf.tsx";
import { actsOf } from "../book/lines.server.ts";
import { jarAct } from "./jar.server.ts";
import { JarLog } from "./jarLog.tsx";
import { StrainForm } from "./strainForm.tsx";
import { Print } from "../ui/sheet/print.tsx";
import { Tending } from "./tending.tsx";
import type { Route } from "./+types/jar";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${(loaderData as { jar?: { number: string } } | undefined)?.jar?.number ?? "Jar"} · Zelbin` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  const [found, book, righted] = await Promise.all([readJar(db(), id), actsOf({ kind: "jar", id }), restatementsSince(db(), "jarId", id)]);
  if (!found) throw new Response("Not found", { status: 404 });
  const carriers = [...new Set(found.parts.filter((p) => p.role === "carrier").map((p) => p.material.id))];
  const lots = found.jar.strainedActId === null && found.jar.spoiledActId === null ? await lotsOfMaterials(db(), carriers) : [];
  return {
    ...found,
    lots,
    today: today(),
    token: crypto.randomUUID(),
    book,
    righted,
  };
}

export const action = ({ request, params }: Route.ActionArgs) => jarAct(request, idOf(params.id));

export default function JarSheet({ loaderData }: Route.ComponentProps) {
  const { jar, parts, events, bottles, value, oil, herb, lots, token, book, righted } = loaderData;
  const { currency, today: day } = useWorkshop();
  const open = jar.strainedActId === null && jar.spoiledActId === null;
  const state = jarState(jar, day);
  const cautions = [...new Set(parts.flatMap((p) => p.material.cautions))].filter((c) => staysSaid(c) || c === "foodPlant");
  const reading = events.find((e) => e.celsius !== null)?.celsius ?? null;
  const names = new Map(parts.map((p) => [p.material.id, p.material.name]));
  return (
    <>
      <Heading
        title={jar.name}
        about={
          <>
            Jar <span className="weight">{jar.number}</span> ·{" "}
            {jar.method === "own" && jar.methodName ? jar.methodName : METHODS[jar.method].label}, filled <When day={jar.day} />
            {jar.vessel && ` · ${jar.vessel}`}
          </>
        }
      >
        <Link to={`/jars/${jar.id}/label`} className="act">
          Label
        </Link>
        <Print />
        {open && (
          <a href="#strain" className="act act-main">
            Strain it
          </a>
        )}
      </Heading>
      {jar.spoiledActId !== null && (
        <p className="mb-4 rounded bg-berry-wash px-4 py-2 font-semibold text-berry">
          Written off: {money(value, currency)} of herb and oil was lost with it.
        </p>
      )}
      <SideBySide
        reckoner={
          <Reckoner title={open ? "Reckoner" : "In short"}>
            {open && (
              <div className="flex items-center gap-4 py-2">
                <JarDrawing share={jarProgress(jar, day)} done={state !== "steeping"} label={JAR_STATES[state]} />
                <p className="font-display text-large">{JAR_STATES[state][0]!.toUpperCase() + JAR_STATES[state].slice(1)}</p>
              </div>
            )}
            <Figure
              label={open ? "At its best" : jar.best > day ? "Would be at its best" : "Was at its best"}
              value={<When day={jar.best} />}
              how={
                <>
                  <HowLine label="At the earliest" value={<When day={jar.earliest} />} />
                  <HowLine label="No later than" value={<When day={jar.latest} />} />
                </>
              }
            />
            <Figure label="Herb in" value={grams(herb)} />
            <Figure label="Oil in" value={grams(oil)} />
            {open && <Figure label="Oil expected back" big value={grams(jar.expected, 0)} />}
            {jar.back !== null && !open && jar.spoiledActId === null && (
              <>
                <Figure label="Oil back" big value={grams(jar.back, 0)} />
                {jar.secondBack !== null && <Figure label="After the second straining" value={grams(jar.secondBack, 0)} />}
                <Figure label="Against expected" value={jar.expected > 0 ? percent(jar.back / jar.expected, 0) : "—"} />
                <Figure
                  label="Held back by the herb"
                  value={grams(oil - jar.back, 0)}
                  how={
                    <>
                      <HowLine label="A gram of herb held back" value={herb > 0 ? `${((oil - jar.back) / herb).toFixed(2)} g` : "—"} />
                      <HowLine label="Pressed" value={jar.pressed ? "yes" : "no"} />
                      {jar.herbOut !== null && <HowLine label="Herb thrown out, wet" value={grams(jar.herbOut)} />}
                      {jar.sediment ? <HowLine label="Sediment" value={grams(jar.sediment)} /> : null}
                    </>
                  }
                />
              </>
            )}
            <Figure label="All that went in cost" value={money(value, currency)} />
            {bottles.length > 0 && (
              <Figure label="The oil costs" value={<PerUnit cost={{ value, per: sum(bottles.map((b) => b.qty)) }} measured="weight" />} />
            )}
          </Reckoner>
        }
      >
        {cautions.map((c) => (
          <Caution key={c}>{CAUTIONS[c].say}</Caution>
        ))}
        {jar.why && (
          <p className="rounded border-l-4 border-rule-strong bg-paper-deep/60 px-3 py-2">Filled all the same, because: {jar.why}</p>
        )}
        <Sheet>
          <Part title="In the jar">
            <Table
              rows={parts}
              by={(p) => p.id}
              columns={[
                {
                  head: "What",
                  cell: (p) => (
                    <>
                      <Link to={`/shelf/${p.material.id}`} className="hover:underline">
                        {p.name}
                      </Link>
                      {p.lot.grown && <span className="text-pine-soft"> · grown {p.lot.grown}</span>}
                    </>
                  ),
                },
                { head: "Lot", plain: true, cell: (p) => <LotTag lot={p.lot} /> },
                { head: "Best before", cell: (p) => <When day={p.lot.bestBefore} /> },
                { head: "Weighed in", as: "weight", cell: (p) => grams(p.qty) },
              ]}
            />
            {jar.note && <p className="mt-3 whitespace-pre-line text-pine-soft">{jar.note}</p>}
          </Part>
          {bottles.length > 0 && (
            <Part title="Bottles">
              <Table
                rows={bottles}
                by={(b) => b.id}
                columns={[
                  { head: "Lot", cell: (b) => <LotTag lot={b} /> },
                  { head: "Best before", cell: (b) => <When day={b.bestBefore} /> },
                  { head: "Bottled", as: "weight", cell: (b) => grams(b.qty) },
                  { head: "Left", as: "weight", cell: (b) => grams(b.onHand) },
                  { head: "Cost", as: "figure", cell: (b) => money(b.value, currency) },
                  {
                    head: "Steep it again",
                    as: "press",
                    cell: (b) =>
                      b.onHand > 0 && (
                        <Link to={`/jars/fill?lot=${b.id}`} className="pressable">
                          Over new herb
                        </Link>
                      ),
                  },
                ]}
              />
              {bottles[0]?.materialId && (
                <p className="mt-2 text-small text-pine-soft">
                  On the shelf as{" "}
                  <Link to={`/shelf/${bottles[0].materialId}`} className="text-amber underline underline-offset-4">
                    {jar.name}
                  </Link>
                  , for any recipe.
                </p>
              )}
            </Part>
          )}
          {open && <Tending jar={jar} lots={lots} names={names} token={token} reading={reading} />}
          <Restatements rows={righted} />
          <ActsOf {...book} />
        </Sheet>
        {open && <StrainForm jar={jar} oil={oil} herb={herb} value={value} token={token} />}
        {events.length > 0 && (
          <Sheet>
            <JarLog events={events} heated={isHeated(jar.method, jar.heatMinutes !== null)} />
          </Sheet>
        )}
      </SideBySide>
    </>
  );
}
