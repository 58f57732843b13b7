/** Scans and photos, kept in the database beside what they belong to. */
import { Refused } from "#core/refused";
import { and, eq } from "drizzle-orm";
import { fileTypeFromBuffer } from "file-type";
import type { Db, Reads } from "./client.ts";
import { attachment, jarEvent } from "./schema.ts";

/** What a phone or a scanner makes. */
const TYPES = new Set(["image/jpeg", "image/png", "image/webp", "image/heic", "image/avif", "image/gif", "application/pdf"]);
/** Bigger than any scan of a receipt. */
export const MOST_BYTES = 12_000_000;

/** Checks a file by its bytes, whatever its name says. @throws Refused beside `file` */
async function typeOf(bytes: Buffer, name: string): Promise<string> {
  if (bytes.length === 0) throw Refused.one("file", "That file is empty.");
  if (bytes.length > MOST_BYTES) throw Refused.one("file", "That file is over 12 MB. Make the scan smaller.");
  const type = await fileTypeFromBuffer(bytes);
  if (!type || !TYPES.has(type.mime))
    throw Refused.one("file", `“${name}” isn't a picture or a PDF inside, whatever its name says. Nothing was kept.`);
  return type.mime;
}

/** Keeps a scan with a receipt. @throws Refused beside `file` */
export async function keepScan(db: Db, purchaseId: number, file: { name: string; bytes: Buffer }): Promise<void> {
  const mime = await typeOf(file.bytes, file.name);
  await db.insert(attachment).values({ purchaseId, name: file.name.slice(0, 200), mime, bytes: file.bytes });
}

/** Keeps a photo with a jar, as an event of its day. @throws Refused beside `file` */
export async function keepPhoto(db: Db, jarId: number, day: string, file: { name: string; bytes: Buffer }): Promise<void> {
  const mime = await typeOf(file.bytes, file.name);
  await db.transaction(async (tx) => {
    const [row] = await tx
      .insert(attachment)
      .values({ jarId, name: file.name.slice(0, 200), mime, bytes: file.bytes })
      .returning({ id: attachment.id });
    await tx.insert(jarEvent).values({ jarId, day, kind: "photo", attachmentId: row!.id });
  });
}

/** Takes a scan off its receipt. */
export async function dropScan(db: Db, purchaseId: number, id: number): Promise<void> {
  await db.delete(attachment).where(and(eq(attachment.id, id), eq(attachment.purchaseId, purchaseId)));
}

export async function readAttachment(db: Reads, id: number) {
  const [row] = await db.select().from(attachment).where(eq(attachment.id, id));
  return row ?? null;
}
