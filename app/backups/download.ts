/** Gives a backup's file away, to be put on a stick or opened elsewhere. */
import { createReadStream } from "node:fs";
import { stat } from "node:fs/promises";
import { Readable } from "node:stream";
import { isRefusal } from "#core/refused";
import { serving } from "../server/workshop.server.ts";
import type { Route } from "./+types/download";

export async function loader({ params }: Route.LoaderArgs) {
  const path = await serving()
    .backups?.pathOf(params.name)
    .catch((e: unknown) => {
      if (isRefusal(e)) return undefined;
      throw e;
    });
  if (path === undefined) throw new Response("Not found", { status: 404 });
  const { size } = await stat(path);
  return new Response(Readable.toWeb(createReadStream(path)) as ReadableStream, {
    headers: {
      "content-type": "application/zip",
      "content-length": String(size),
      "content-disposition": `attachment; filename="${params.name}"`,
    },
  });
}
