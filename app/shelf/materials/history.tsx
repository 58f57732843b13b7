/** Everything that went in and out of a material, a page at a time. */
import { Link } from "react-router";
import { kind } from "#core/material/kinds";
import { materialMovements, materialRow } from "#db/shelf/materials";
import { db } from "../../server/workshop.server.ts";
import { idOf } from "../../forms/ids.ts";
import { Empty, Heading, Sheet } from "../../ui/sheet/sheet.tsx";
import { SaveAs } from "../../ui/lists/saveAs.tsx";
import { Movements } from "./movements.tsx";
import type { Route } from "./+types/history";

export const meta: Route.MetaFunction = () => [{ title: "In and out · Zelbin" }];

const PAGE = 30;

export async function loader({ request, params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  const before = idOf(new URL(request.url).searchParams.get("before"));
  const [material, rows] = await Promise.all([materialRow(db(), id), materialMovements(db(), id, PAGE + 1, before || undefined)]);
  if (!material) throw new Response("Not found", { status: 404 });
  return {
    material: { id, name: material.name, kind: material.kind },
    rows: rows.slice(0, PAGE),
    more: rows.length > PAGE,
    first: !before,
  };
}

export default function History({ loaderData: { material, rows, more, first } }: Route.ComponentProps) {
  return (
    <>
      <Heading
        title={material.name}
        about="Everything that went in and out, newest first. Nothing here is ever changed: a correction is a line of its own."
      >
        <Link to={`/shelf/${material.id}`} className="act">
          Back to the material
        </Link>
      </Heading>
      {rows.length === 0 ? (
        <Empty title="Nothing has moved yet">Receive some, and each gram of it is accounted for here.</Empty>
      ) : (
        <Sheet>
          <Movements rows={rows} measured={kind(material.kind).measured} />
          <p className="mt-4 flex gap-6">
            {!first && (
              <Link to={`/shelf/${material.id}/history`} className="pressable">
                Newest
              </Link>
            )}
            {more && (
              <Link to={`/shelf/${material.id}/history?before=${rows.at(-1)!.id}`} className="pressable">
                Older
              </Link>
            )}
          </p>
          <SaveAs files={[[`/shelf/${material.id}/history.csv`, "Save as CSV"]]} />
        </Sheet>
      )}
    </>
  );
}
