/** Two versions of a recipe side by side, and the batches made of each with how they turned out. */
import { gramsIn } from "#core/measure/write";
import { batchesOf, versionsOf } from "#db/recipe/history";
import { materialsOf } from "#db/recipe/costs";
import { firmnessLearned } from "#db/recipe/firmness";
import { readVersion } from "#db/recipe/read";
import { cachedSettings } from "#db/settings/settings";
import { counted } from "#core/words";
import { Form, Link, useSubmit } from "react-router";
import { db } from "../../server/workshop.server.ts";
import { idOf } from "../../forms/ids.ts";
import { stuffOf } from "#db/shelf/sheetMaterials";
import { percent, When } from "../../ui/figures/amounts.tsx";
import { Choice } from "../../ui/fields/form.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { Heading, Part, Sheet } from "../../ui/sheet/sheet.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { recipeTexts } from "../recipeTexts.ts";
import { figuresOf, pairLines, type LineOf } from "./sideBySide.ts";
import type { Route } from "./+types/compare";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Versions of ${(loaderData as { b?: { recipe: { name: string } } } | undefined)?.b?.recipe.name ?? "a recipe"} · Zelbin` },
];

export async function loader({ request, params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  const asked = new URL(request.url).searchParams;
  const [versions, batches, settings, learned] = await Promise.all([
    versionsOf(db(), id),
    batchesOf(db(), id),
    cachedSettings(db()),
    firmnessLearned(db()),
  ]);
  const has = (n: number): boolean => versions.some((v) => v.n === n);
  const [newest, before] = versions;
  if (!newest) throw new Response("Not Found", { status: 404 });
  const [n, m] = [Number(asked.get("a")), Number(asked.get("b"))];
  const [a, b] = await Promise.all([
    readVersion(db(), id, has(n) ? n : (before ?? newest).n),
    readVersion(db(), id, has(m) ? m : newest.n),
  ]);
  if (!a || !b) throw new Response("Not Found", { status: 404 });
  return {
    a,
    b,
    versions,
    batches,
    stuff: await stuffOf(db(), materialsOf([a, b])),
    rates: { hourly: settings.hourly, overheadHourly: settings.overheadHourly },
    scale: settings.scale,
    constants: learned.constants,
  };
}

export default function Compare({ loaderData, params: { id } }: Route.ComponentProps) {
  const { a, b, versions, batches, stuff, rates, scale, constants } = loaderData;
  const { currency, school, today } = useWorkshop();
  const submit = useSubmit();
  const names = new Map(stuff.map((m) => [m.id, m.name]));
  const [ta, tb] = [recipeTexts(a, names), recipeTexts(b, names)];
  const by = { stuff, rates, scale, constants, today, school, currency };
  const [fa, fb] = [figuresOf(a, ta, by), figuresOf(b, tb, by)];
  const figures = [...new Set([...fb.keys(), ...fa.keys()])].map((name) => ({ name, a: fa.get(name) ?? "—", b: fb.get(name) ?? "—" }));
  const says = (l: LineOf | null) =>
    l ? (
      <>
        <span className="text-pine-soft">{l.entered} </span>
        {gramsIn(2)(l.weight)}
      </>
    ) : (
      "—"
    );
  const options = versions.map((v) => [String(v.n), `Version ${v.n}${v.note ? `: ${v.note.slice(0, 60)}` : ""}`] as const);
  const [na, nb] = [a.recipe.n, b.recipe.n];
  const method = ta.method !== tb.method;
  return (
    <>
      <Heading title={`${b.recipe.name}: versions side by side`}>
        <Link to={`/recipes/${id}`} className="act">
          Back to the recipe
        </Link>
      </Heading>
      <Sheet>
        <Form className="mb-4 grid gap-4 sm:grid-cols-2" onChange={(e) => void submit(e.currentTarget, { preventScrollReset: true })}>
          <Choice key={`a ${na}`} label="One" name="a" options={options} defaultValue={String(na)} />
          <Choice key={`b ${nb}`} label="The other" name="b" options={options} defaultValue={String(nb)} />
        </Form>
        <Part title="Line by line">
          <Table
            rows={pairLines(a, b, names)}
            by={(p, i) => `${p.material} ${i}`}
            columns={[
              { head: "Ingredient", cell: (p) => p.material },
              { head: `Version ${na}`, as: "weight", cell: (p) => says(p.a) },
              { head: `Share in ${na}`, as: "figure", cell: (p) => p.a && percent(p.a.share) },
              { head: na === nb ? `Version ${nb} again` : `Version ${nb}`, as: "weight", cell: (p) => says(p.b) },
              {
                head: `Share in ${nb}${na === nb ? " again" : ""}`,
                as: "figure",
                cell: (p) => p.b && percent(p.b.share),
                className: (p) => (Math.abs((p.a?.share ?? 0) - (p.b?.share ?? 0)) > 0.0005 ? "bg-honey-wash font-semibold" : ""),
              },
            ]}
          />
        </Part>
        <Part title="What each comes to, on today's shelf">
          <Table
            rows={figures}
            by={(f) => f.name}
            columns={[
              { head: "Figure", width: "20%", cell: (f) => f.name },
              { head: `Version ${na}`, width: "40%", cell: (f) => f.a },
              {
                head: na === nb ? `Version ${nb} again` : `Version ${nb}`,
                cell: (f) => f.b,
                className: (f) => (f.a === f.b ? "" : "bg-honey-wash font-semibold"),
              },
            ]}
          />
        </Part>
        {method && (
          <Part title="Method">
            <div className="grid gap-6 sm:grid-cols-2">
              {[ta, tb].map((t, i) => (
                <div key={i}>
                  <h3 className="font-semibold">Version {i === 0 ? na : nb}</h3>
                  <p className="whitespace-pre-line">{t.method || "None was written."}</p>
                </div>
              ))}
            </div>
          </Part>
        )}
        <p className="no-print mt-4 flex flex-wrap gap-2">
          {[...new Set([na, nb])].map((n) => (
            <span key={n} className="flex flex-wrap gap-2">
              {n !== versions[0]!.n && (
                <Link to={`/recipes/${id}?version=${n}`} className="act act-small">
                  Go back to version {n}
                </Link>
              )}
              <Link to={`/bench/set-out?recipe=${id}&version=${n}`} className="act act-small">
                Set out a batch by version {n}
              </Link>
              <Link to={`/recipes/new?like=${id}&version=${n}`} className="act act-small">
                A new recipe from version {n}
              </Link>
            </span>
          ))}
        </p>
        <Part title="Batches, and how they turned out">
          {batches.length === 0 ? (
            <p className="text-pine-soft">
              None was set out yet. What is noted of a batch as it is poured is shown here beside its version.
            </p>
          ) : (
            <Table
              rows={batches}
              by={(x) => x.id}
              columns={[
                {
                  head: "Batch",
                  cell: (x) => (
                    <Link to={`/bench/${x.id}`} className="underline underline-offset-4">
                      <When day={x.day} />
                    </Link>
                  ),
                },
                { head: "Version", as: "figure", cell: (x) => x.n, className: (x) => (x.n === na || x.n === nb ? "font-semibold" : "") },
                {
                  head: "Came of it",
                  cell: (x) =>
                    x.poured
                      ? x.sizes.flatMap((s) => (s.units ? [`${s.units} × ${s.label}${s.number ? ` (${s.number})` : ""}`] : [])).join(", ")
                      : "on the bench",
                },
                { head: "Left over", as: "weight", cell: (x) => x.leftover !== null && gramsIn(1)(x.leftover) },
                { head: "Noted", cell: (x) => x.note, plain: true },
              ]}
            />
          )}
          <p className="mt-1 text-small text-pine-soft">{counted(batches.length, "batch", "batches")}, newest first.</p>
        </Part>
      </Sheet>
    </>
  );
}
