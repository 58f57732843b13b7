/** Keeping a photo with a batch. */
import { keepBatchPhoto } from "#db/attachments";
import { db } from "../db.server.ts";
import { postedFile } from "../forms/files.server.ts";
import { idOf } from "../forms/ids.ts";
import { act } from "../forms/sheet.server.ts";
import type { Route } from "./+types/photo";

export async function action({ request, params }: Route.ActionArgs) {
  const batchId = idOf(params.id);
  return act(async () => {
    const { file, doing } = await postedFile(request);
    return keepBatchPhoto(db(), { batchId, file }, doing);
  });
}
