/** Keeping a photo with a jar. */
import { keepPhoto } from "#db/attachments";
import { readJar } from "#db/jars/read";
import { db } from "../db.server.ts";
import { postedFile } from "../forms/files.server.ts";
import { idOf } from "../forms/ids.ts";
import { act } from "../forms/sheet.server.ts";
import type { Route } from "./+types/photo";

export async function action({ request, params }: Route.ActionArgs) {
  const id = idOf(params.id);
  if (!(await readJar(db(), id))) throw new Response("Not found", { status: 404 });
  return act(async () => {
    const { file, doing } = await postedFile(request);
    return keepPhoto(db(), { jarId: id, file }, doing);
  });
}
