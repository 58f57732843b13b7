/** Keeping a photo with a jar. */
import { keepPhoto } from "#db/attachments/attachments";
import { readJar } from "#db/jars/read";
import { db } from "../server/workshop.server.ts";
import { postedFile } from "../forms/files.server.ts";
import { idOf } from "../forms/ids.ts";
import { runAct } from "../forms/sheet.server.ts";
import type { Route } from "./+types/photo";

export async function action({ request, params }: Route.ActionArgs) {
  const id = idOf(params.id);
  if (!(await readJar(db(), id))) throw new Response("Not found", { status: 404 });
  return runAct(async () => {
    const { file, doing } = await postedFile(request);
    return keepPhoto(db(), { jarId: id, file }, doing);
  });
}
