/** A file posted to be saved. */
import { Refused } from "#core/refused";
import type { ActOptions } from "#db/act/define";
import { MOST_BYTES } from "#db/attachments/attachments";
import { today } from "#db/clock";
import { tokenIn } from "./sheet.server.ts";

/** Reads the posted file, with the token that makes it count once. @throws Refused beside `file` when there is none, or the post is too large to take in */
export async function postedFile(request: Request): Promise<{ file: { name: string; bytes: Buffer }; doing: ActOptions }> {
  if (Number(request.headers.get("content-length") ?? 0) > MOST_BYTES + 10_000)
    throw Refused.one("file", "That file is over 12 MB. Make it smaller.");
  let form: FormData;
  try {
    form = await request.formData();
  } catch {
    throw Refused.one("file", "That file could not be read. Try again.");
  }
  const file = form.get("file");
  if (!(file instanceof File) || file.name === "") throw Refused.one("file", "Choose a file first.");
  const name = tidied(file.name);
  return { file: { name, bytes: Buffer.from(await file.arrayBuffer()) }, doing: { day: today(), token: tokenIn(form.get("token")) } };
}

/** A file's name as it may be in the book. */
const tidied = (name: string): string => name.replace(/[\p{Cc}\p{Surrogate}]/gu, "").trim() || "A file";
