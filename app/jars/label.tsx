/** Labels of a jar and of its bottles, to print and tie on. */
import { Link } from "react-router";
import { METHODS } from "#core/infusion/methods";
import { CAUTIONS, staysSaid } from "#core/material/cautions";
import { grams } from "#core/measure/write";
import { sayFullDay } from "#core/when";
import { wordList } from "#core/words";
import { readJar } from "#db/jars/read";
import { cachedSettings } from "#db/settings/settings";
import { db } from "../server/workshop.server.ts";
import { idOf } from "../forms/ids.ts";
import { Button } from "../ui/fields/form.tsx";
import { Heading } from "../ui/sheet/sheet.tsx";
import type { Route } from "./+types/label";

export const meta: Route.MetaFunction = () => [{ title: "Jar label · Zelbin" }];

export async function loader({ params }: Route.LoaderArgs) {
  const [found, settings] = await Promise.all([readJar(db(), idOf(params.id)), cachedSettings(db())]);
  if (!found) throw new Response("Not found", { status: 404 });
  return { ...found, workshop: settings.workshop };
}

function Line({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div className="flex gap-2">
      <dt className="w-21 flex-none text-pine-soft">{name}</dt>
      <dd className="min-w-0">{children}</dd>
    </div>
  );
}

export default function Label({ loaderData: { jar, parts, bottles, workshop } }: Route.ComponentProps) {
  const of = (role: "herb" | "carrier") => wordList([...new Set(parts.filter((p) => p.role === role).map((p) => p.name))]);
  const allergens = [...new Set(parts.map((p) => p.material.allergen).filter(Boolean))];
  const cautions = [...new Set(parts.flatMap((p) => p.material.cautions))].filter(staysSaid);
  const caution = [
    "For the skin only. Patch-test first.",
    ...cautions.map((c) => CAUTIONS[c].say),
    ...(allergens.length ? [`Contains: ${allergens.join(", ")}.`] : []),
  ].join(" ");
  const method = jar.method === "own" && jar.methodName ? jar.methodName : METHODS[jar.method].label;
  const labels: { number: string; rows: [name: string, text: string][] }[] =
    bottles.length > 0
      ? bottles.map((b) => ({
          number: b.number,
          rows: [
            ["Holds", grams(b.qty, 0)],
            ["Best before", b.bestBefore ? sayFullDay(b.bestBefore) : "—"],
          ],
        }))
      : [
          {
            number: jar.number,
            rows: [
              ["In", sayFullDay(jar.day)],
              ["Ready", sayFullDay(jar.best)],
              ["At latest", sayFullDay(jar.latest)],
            ],
          },
        ];
  return (
    <>
      <Heading
        title={bottles.length > 0 ? "Bottle labels" : "Jar label"}
        about="A jar without contents, date and lot on it is worthless a month later."
      >
        <Link to={`/jars/${jar.id}`} className="act">
          Back to the jar
        </Link>
        <Button main onClick={() => window.print()}>
          Print
        </Button>
      </Heading>
      <div className="flex flex-wrap gap-5">
        {labels.map((l) => (
          <section
            key={l.number}
            aria-label={`Label ${l.number}`}
            className="w-84 break-inside-avoid rounded-md border-[1.5px] border-pine bg-sheet px-5 py-4"
          >
            <h2 className="text-title leading-tight">{jar.name}</h2>
            <dl className="mt-2 space-y-0.5 text-small">
              <Line name="Herb">{of("herb")}</Line>
              <Line name="Oil">{of("carrier")}</Line>
              <Line name="Method">{method}</Line>
              {l.rows.map(([name, text]) => (
                <Line key={name} name={name}>
                  {text}
                </Line>
              ))}
            </dl>
            <p className="weight mt-2 text-heading font-semibold">{l.number}</p>
            <p className="mt-1 border-t border-rule pt-1.5 text-tiny">{caution}</p>
            <p className="mt-1 text-tiny text-pine-soft">{workshop}</p>
          </section>
        ))}
      </div>
    </>
  );
}
