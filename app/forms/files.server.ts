/** A file posted to be kept. */
import { Refused } from "#core/refused";
import { MOST_BYTES } from "#db/attachments";

/** Reads the posted file. @throws Refused beside `file` when there is none, or the post is too large to take in */
export async function postedFile(request: Request): Promise<{ name: string; bytes: Buffer }> {
  if (Number(request.headers.get("content-length") ?? 0) > MOST_BYTES + 10_000)
    throw Refused.one("file", "That file is over 12 MB. Make it smaller.");
  let file: FormDataEntryValue | null;
  try {
    file = (await request.formData()).get("file");
  } catch {
    throw Refused.one("file", "That file could not be read. Try again.");
  }
  if (!(file instanceof File) || file.name === "") throw Refused.one("file", "Choose a file first.");
  return { name: file.name, bytes: Buffer.from(await file.arrayBuffer()) };
}
