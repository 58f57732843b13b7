/** Serves a saved scan or photo, byte for byte. */
import { readAttachment } from "#db/attachments/attachments";
import { db } from "../server/workshop.server.ts";
import { idOf } from "../forms/ids.ts";
import type { Route } from "./+types/file";

export async function loader({ params }: Route.LoaderArgs) {
  const file = await readAttachment(db(), idOf(params.id));
  if (!file) throw new Response("Not found", { status: 404 });
  return new Response(new Uint8Array(file.bytes), {
    headers: {
      "content-type": file.mime,
      "content-disposition": `inline; filename*=UTF-8''${encodeURIComponent(file.name)}`,
      "x-content-type-options": "nosniff",
      "cache-control": "private, max-age=86400",
    },
  });
}
