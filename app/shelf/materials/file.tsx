/** Materials and containers from a spreadsheet's file or a paste, without how much there is of them: shown first, added as one act. */
import { MATERIALS, readMaterials, type MaterialField, type MaterialLine } from "#core/listsIn/materials";
import { KINDS } from "#core/material/kinds";
import { addMaterials } from "#db/listsIn/materials";
import { listMaterials } from "#db/shelf/materials";
import { Link } from "react-router";
import { listAction } from "../../forms/table/listFile.server.ts";
import { ListFile } from "../../forms/table/listFile.tsx";
import { db } from "../../server/workshop.server.ts";
import { materialOptions } from "../intake/materialOptions.ts";
import { libraryMeant } from "../intake/names.server.ts";
import type { Route } from "./+types/file";

export const meta: Route.MetaFunction = () => [{ title: "Materials, from a file · Zelbin" }];

export const loader = async () => ({ names: (await listMaterials(db())).map((m) => m.name), token: crypto.randomUUID() });

const WORDS = ["material", "materials"] as const;

interface More {
  /** The library's entry that each unknown name seems to mean. */
  library: Record<string, { key: string; name: string }>;
}

export const action = ({ request }: Route.ActionArgs) =>
  listAction(request, {
    spec: MATERIALS,
    words: WORDS,
    read: async ({ rows, reading, matches }) => {
      const known = new Set((await listMaterials(db())).map((m) => m.name.toLowerCase()));
      const list = readMaterials(rows, known, matches, reading);
      const library = libraryMeant(list.unknown);
      return { list, more: { library } satisfies More, add: (doing) => addMaterials(db(), { materials: list.fresh }, doing) };
    },
  });

export default function MaterialsFile({ loaderData: { names, token } }: Route.ComponentProps) {
  return (
    <ListFile<MaterialField, MaterialLine, More>
      spec={MATERIALS}
      token={token}
      title="Materials, from a file"
      about="What you keep, containers too: a name, and its kind where the library doesn’t know it. How much there is of each comes in as opening stock."
      links={
        <Link to="/shelf/opening/file" className="act">
          With how much there is
        </Link>
      }
      placeholder={"name;kind;holds mL;note\nBeeswax, yellow;;;from the hill hives\nSquare tin, 25 mL;container;27;"}
      words={WORDS}
      names={{
        title: "Names neither the shelf nor the library knows",
        options: (name, more) => materialOptions(names, more.library[name]),
      }}
      columns={[
        { head: "Name", cell: (m) => <span className="font-display text-lead">{m.name}</span> },
        { head: "Kind", cell: (m) => KINDS[m.kind].label },
        { head: "Figures", cell: (m) => (m.libraryKey === null ? "usual ones of its kind" : "from the library") },
        { head: "Holds", as: "figure", cell: (m) => (m.brimMl === null ? "" : `${m.brimMl} mL`) },
        { head: "Noted", plain: true, cell: (m) => [m.allergen, m.note].filter(Boolean).join("; ") },
      ]}
    />
  );
}
