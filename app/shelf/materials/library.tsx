/** The starter library: common materials with their figures, to be taken onto the shelf. */
import { Link } from "react-router";
import { inciText } from "#core/label/inci";
import { LIBRARY } from "#core/material/library";
import { SOURCES, type LibraryEntry } from "#core/material/library/entry";
import { CAUTIONS } from "#core/material/cautions";
import { KINDS, kind } from "#core/material/kinds";
import { FORMS, type Form } from "#core/measure/mass";
import { addFromLibrary } from "#db/shelf/keepMaterial";
import { listMaterials } from "#db/shelf/materials";
import { array, object } from "yup";
import { db } from "../../server/workshop.server.ts";
import { noteText } from "../../forms/fields.ts";
import { runAct, readSheet } from "../../forms/sheet.server.ts";
import { useSheet } from "../../forms/useSheet.ts";
import { Problem } from "../../ui/fields/form.tsx";
import { Heading, Sheet } from "../../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../../forms/sheetSays.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { LibraryFind, Tick, Ticked, pickedOn, useLibraryFind } from "./libraryPick.tsx";
import type { Route } from "./+types/library";

export const meta: Route.MetaFunction = () => [{ title: "Library of materials · Zelbin" }];

export async function loader() {
  const have = (await listMaterials(db())).flatMap((m) => [m.libraryKey ?? "", m.name.toLowerCase()]);
  return { have, token: crypto.randomUUID() };
}

const schema = object({ take: array().of(noteText(60)).min(1, "Tick what you want on your shelf.").required() });

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  return runAct(() => addFromLibrary(db(), { keys: sheet.value.take }, sheet.doing));
}

const range = (a: number, b: number): string => (a === b ? `${a}` : `${a}–${b}`);

const SMALL = "text-small";
const FIGURES = "text-small whitespace-nowrap tabular-nums";

/** What a material weighs in each form it is measured in, and who says so. */
function Densities({ of: e }: { of: LibraryEntry }) {
  if (Object.keys(e.densities).length === 0) return null;
  const source = SOURCES[e.densitySource];
  return (
    <>
      {(Object.entries(e.densities) as [Form, number][])
        .filter(([f]) => kind(e.kind).forms.includes(f))
        .map(([f, d]) => (
          <span key={f} className="mr-2 inline-block">
            {Object.keys(e.densities).length > 1 && `${FORMS[f]} `}
            <span className="tabular-nums">{(d / 1000).toFixed(2)}</span>
          </span>
        ))}
      <span className="block text-tiny text-pine-soft" title={source}>
        {e.densitySource === "memory" ? source : source.split(" (")[0]}
      </span>
    </>
  );
}

export default function Library({ loaderData: { have, token } }: Route.ComponentProps) {
  const sheet = useSheet<{ take: string[] }>({ take: [] }, { token }, { draft: "Ticks in the library" });
  const { question, ask, found } = useLibraryFind();
  const taken = sheet.values.take;
  const picked = pickedOn(sheet, have);
  return (
    <form onSubmit={sheet.send()}>
      <Heading
        title="Library"
        about={`${LIBRARY.length} common materials with the figures the other stations need. Most figures are from memory, as each says; weigh a level cup of yours and write your own over them.`}
      >
        <LibraryFind question={question} ask={ask} />
        <Link to="/shelf" className="act">
          Leave
        </Link>
        <Link to="/shelf/file" className="act">
          From a file
        </Link>
        <Send sheet={sheet}>Take {taken.length > 0 ? taken.length : ""} onto the shelf</Send>
      </Heading>
      <Sheet>
        <SheetSays sheet={sheet} />
        <Problem say={sheet.formState.errors.take?.message} />
        <Ticked {...picked} />
        <Table
          groups={[...found].map(([k, rows]) => ({ key: k, head: KINDS[k].plural, rows }))}
          by={(e) => e.key}
          columns={[
            {
              head: "Material",
              cell: (e) => (
                <Tick of={e} {...picked}>
                  {e.botanical && <span className="block text-fine text-pine-soft italic">{e.botanical}</span>}
                </Tick>
              ),
            },
            { head: "INCI name", plain: true, className: SMALL, cell: (e) => inciText(e.inci, e.key) },
            { head: "Density, g/mL", className: SMALL, cell: (e) => <Densities of={e} /> },
            { head: "Melts", className: FIGURES, cell: (e) => e.melts && `${range(...e.melts)} °C` },
            {
              head: "Keeps, months",
              className: FIGURES,
              cell: (e) =>
                e.keepsSealed !== null &&
                `${e.keepsSealed}${e.keepsOpened !== null && e.keepsOpened !== e.keepsSealed ? `, open ${e.keepsOpened}` : ""}`,
            },
            {
              head: "Holds, empty",
              className: FIGURES,
              cell: (e) => e.brimMl !== null && `${e.brimMl} mL, ${e.emptyG} g`,
            },
            {
              head: "Mind",
              plain: true,
              className: SMALL,
              cell: (e) => [e.allergen, ...e.cautions.map((c) => CAUTIONS[c].label)].filter(Boolean).join(", "),
            },
          ]}
        />
        <p className="mt-4 text-small text-pine-soft">
          Sources of densities: {SOURCES.codex210}; {SOURCES.codex33}; everything else from memory. Melting ranges, keeping times, drops,
          and what containers hold and weigh are from memory.
        </p>
      </Sheet>
    </form>
  );
}
