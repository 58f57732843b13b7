/** The starter library: common materials with their figures, to be taken onto the shelf. */
import { libraryByKind, LIBRARY } from "#core/material/library";
import { SOURCES } from "#core/material/library/entry";
import { CAUTIONS } from "#core/material/cautions";
import { KINDS, kind } from "#core/material/kinds";
import { FORMS, type Form } from "#core/measure/mass";
import { addFromLibrary } from "#db/shelf/keepMaterial";
import { listMaterials } from "#db/shelf/materials";
import { useState } from "react";
import { Link } from "react-router";
import { array, object } from "yup";
import { db } from "../../db.server.ts";
import { note } from "../../forms/fields.ts";
import { act, readSheet } from "../../forms/sheet.server.ts";
import { useSheet } from "../../forms/useSheet.ts";
import { Button, Problem } from "../../ui/form.tsx";
import { Heading, Sheet } from "../../ui/sheet.tsx";
import type { Route } from "./+types/library";

export const meta: Route.MetaFunction = () => [{ title: "Library of materials · Zelbin" }];

export async function loader() {
  const have = (await listMaterials(db())).flatMap((m) => [m.libraryKey ?? "", m.name.toLowerCase()]);
  return { have, token: crypto.randomUUID() };
}

const schema = object({ take: array().of(note(60)).min(1, "Tick what you want on your shelf.").required() });

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  return act(() => addFromLibrary(db(), { keys: sheet.value.take }, sheet.doing));
}

const range = (a: number, b: number): string => (a === b ? `${a}` : `${a}–${b}`);

export default function Library({ loaderData: { have, token } }: Route.ComponentProps) {
  const sheet = useSheet<{ take: string[] }>({ take: [] }, { token });
  const [find, setFind] = useState("");
  const mine = new Set(have);
  const wanted = find.trim().toLowerCase();
  const taken = sheet.values.take;
  return (
    <form onSubmit={sheet.send()}>
      <Heading
        title="Library"
        about={`${LIBRARY.length} common materials with the figures the other stations need. Most figures are from memory, as each says; weigh a level cup of yours and write your own over them.`}
      >
        <input
          type="search"
          aria-label="Find in the library"
          placeholder="Find  ( / )"
          className="field w-48!"
          value={find}
          onChange={(e) => setFind(e.target.value)}
        />
        <Link to="/shelf" className="act">
          Leave
        </Link>
        <Button type="submit" main disabled={sheet.busy}>
          Take {taken.length > 0 ? taken.length : ""} onto the shelf
        </Button>
      </Heading>
      <Sheet>
        <Problem say={sheet.problem ?? sheet.formState.errors.take?.message} />
        <table className="ruled stack">
          <thead>
            <tr>
              <th scope="col">Material</th>
              <th scope="col">INCI name</th>
              <th scope="col">Density, g/mL</th>
              <th scope="col">Melts</th>
              <th scope="col">Keeps, months</th>
              <th scope="col">Mind</th>
            </tr>
          </thead>
          {[...libraryByKind()].map(([k, all]) => {
            const entries = all.filter((e) => `${e.name} ${e.inci} ${e.botanical}`.toLowerCase().includes(wanted));
            if (entries.length === 0) return null;
            return (
              <tbody key={k}>
                <tr className="group">
                  <th colSpan={6} scope="rowgroup" className="font-display text-[1.1rem]! font-normal text-pine!">
                    {KINDS[k].plural}
                  </th>
                </tr>
                {entries.map((e) => {
                  const there = mine.has(e.key) || mine.has(e.name.toLowerCase());
                  const source = SOURCES[e.densitySource];
                  return (
                    <tr key={e.key}>
                      <td>
                        <label className="flex items-baseline gap-2">
                          <input
                            type="checkbox"
                            value={e.key}
                            disabled={there}
                            className="h-4 w-4 flex-none accent-amber"
                            {...sheet.register("take")}
                          />
                          <span>
                            <span className="font-semibold">{e.name}</span>
                            {there && <span className="ml-2 text-[0.85rem] text-sage">on your shelf</span>}
                            {e.botanical && <span className="block text-[0.85rem] text-pine-soft italic">{e.botanical}</span>}
                          </span>
                        </label>
                      </td>
                      <td className="text-[0.92rem]">{e.inci}</td>
                      <td data-label="Density, g/mL" className="text-[0.92rem]">
                        <span className="block min-w-0">
                          {(Object.entries(e.densities) as [Form, number][])
                            .filter(([f]) => kind(e.kind).forms.includes(f))
                            .map(([f, d]) => (
                              <span key={f} className="mr-2 inline-block">
                                {Object.keys(e.densities).length > 1 && `${FORMS[f]} `}
                                <span className="tabular-nums">{(d / 1000).toFixed(2)}</span>
                              </span>
                            ))}
                          <span className="block text-[0.8rem] text-pine-soft" title={source}>
                            {e.densitySource === "memory" ? source : source.split(" (")[0]}
                          </span>
                        </span>
                      </td>
                      <td data-label="Melts" className="text-[0.92rem] whitespace-nowrap tabular-nums">
                        {e.melts ? `${range(...e.melts)} °C` : ""}
                      </td>
                      <td data-label="Keeps, months" className="text-[0.92rem] whitespace-nowrap tabular-nums">
                        {e.keepsSealed ?? "—"}
                        {e.keepsOpened !== null && e.keepsOpened !== e.keepsSealed && `, open ${e.keepsOpened}`}
                      </td>
                      <td className="text-[0.92rem]">
                        {[e.allergen, ...e.cautions.map((c) => CAUTIONS[c].label)].filter(Boolean).join(", ")}
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            );
          })}
        </table>
        <p className="mt-4 text-[0.9rem] text-pine-soft">
          Sources of densities: {SOURCES.codex210}; {SOURCES.codex33}; everything else from memory. Melting ranges, keeping times and drops
          are from memory.
        </p>
      </Sheet>
    </form>
  );
}
