/** Keeping a photo with a batch. */
import { keepBatchPhoto } from "#db/attachments/attachments";
import { db } from "../server/workshop.server.ts";
import { postedFile } from "../forms/files.server.ts";
import { idOf } from "../forms/ids.ts";
import { runAct } from "../forms/sheet.server.ts";
import type { Route } from "./+types/photo";

export async function action({ request, params }: Route.ActionArgs) {
  const batchId = idOf(params.id);
  return runAct(async () => {
    const { file, doing } = await postedFile(request);
    return keepBatchPhoto(db(), { batchId, file }, doing);
  });
}
