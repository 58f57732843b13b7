/** Scans and photos, stored in the database beside what they belong to. */
import { Refused } from "#core/refused";
import { and, eq, isNull } from "drizzle-orm";
import { fileTypeFromBuffer } from "file-type";
import { object } from "yup";
import { defineAct } from "../act/define.ts";
import { undoId } from "../act/left.ts";
import type { Reads, Tx } from "../client.ts";
import { actorName } from "../act/maker.ts";
import { attachment, batch, batchEvent, jarEvent } from "../schema.ts";

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
    throw Refused.one("file", `“${name}” isn't a picture or a PDF inside, whatever its name says. Nothing was saved.`);
  return type.mime;
}

interface FileIn {
  name: string;
  bytes: Buffer;
}

const kept = async (tx: Tx, of: { purchaseId: number } | { jarId: number } | { batchId: number }, file: FileIn): Promise<number> => {
  const mime = await typeOf(file.bytes, file.name);
  const [row] = await tx
    .insert(attachment)
    .values({ ...of, name: file.name.slice(0, 200), mime, bytes: file.bytes })
    .returning({ id: attachment.id });
  return row!.id;
};

/** Keeps a scan with a receipt. @throws Refused beside `file` */
export const keepScan = defineAct({
  kind: "keepScan",
  run: async (tx, { purchaseId, file }: { purchaseId: number; file: FileIn }) => ({
    leaves: { id: await kept(tx, { purchaseId }, file) },
    path: `/shelf/receipts/${purchaseId}`,
    summary: `Added a scan: ${file.name.slice(0, 80)}`,
    about: [{ kind: "receipt", id: purchaseId }],
  }),
  leaves: object({ id: undoId() }),
  back: async (tx, { id }) => {
    await tx.delete(attachment).where(eq(attachment.id, id));
  },
});

/** Keeps a photo with a jar, as an event of its day. @throws Refused beside `file` */
export const keepPhoto = defineAct({
  kind: "keepPhoto",
  run: async (tx, { jarId, file }: { jarId: number; file: FileIn }, { actId, day }) => {
    const id = await kept(tx, { jarId }, file);
    await tx.insert(jarEvent).values({ jarId, day, kind: "photo", attachmentId: id, actId });
    return { leaves: { id }, path: `/jars/${jarId}`, summary: "Added a photo of the jar", about: [{ kind: "jar", id: jarId }] };
  },
  leaves: object({ id: undoId() }),
  back: async (tx, { id }, { undoes }) => {
    await tx.delete(jarEvent).where(eq(jarEvent.actId, undoes));
    await tx.delete(attachment).where(eq(attachment.id, id));
  },
});

/** Keeps a photo with a batch, as something that happened: of a drop on a cold spoon, a grainy face. @throws Refused beside `file`, and once it is cleared off */
export const keepBatchPhoto = defineAct({
  kind: "keepBatchPhoto",
  run: async (tx, { batchId, file }: { batchId: number; file: FileIn }) => {
    const [of] = await tx.select().from(batch).where(eq(batch.id, batchId)).for("no key update");
    if (!of || (of.clearedActId !== null && of.spoiledActId === null)) throw Refused.one("file", "This batch isn't on the bench any more.");
    const id = await kept(tx, { batchId }, file);
    await tx.insert(batchEvent).values({ batchId, kind: "photo", attachmentId: id, who: actorName });
    const open = of.pouredActId === null && of.clearedActId === null;
    return {
      leaves: { id },
      path: `/bench/${batchId}${open ? "/at" : ""}`,
      summary: "Added a photo of the batch",
      about: [{ kind: "batch", id: batchId }],
    };
  },
  leaves: object({ id: undoId() }),
  back: async (tx, { id }) => {
    await tx.delete(batchEvent).where(eq(batchEvent.attachmentId, id));
    await tx.delete(attachment).where(eq(attachment.id, id));
  },
});

/** Takes a scan off its receipt; its bytes stay, so that it can be put back. @throws Refused when it isn't there */
export const dropScan = defineAct({
  kind: "dropScan",
  run: async (tx, { purchaseId, id }: { purchaseId: number; id: number }, { actId }) => {
    const [row] = await tx
      .update(attachment)
      .set({ droppedActId: actId })
      .where(and(eq(attachment.id, id), eq(attachment.purchaseId, purchaseId), isNull(attachment.droppedActId)))
      .returning({ name: attachment.name });
    if (!row) throw Refused.one("", "That scan isn't on the receipt any more.");
    return {
      path: `/shelf/receipts/${purchaseId}`,
      summary: `Took a scan off: ${row.name.slice(0, 80)}`,
      about: [{ kind: "receipt", id: purchaseId }],
      leaves: null,
    };
  },
  leaves: null,
  back: async (tx, _left, { undoes }) => {
    await tx.update(attachment).set({ droppedActId: null }).where(eq(attachment.droppedActId, undoes));
  },
});

export async function readAttachment(db: Reads, id: number) {
  const [row] = await db.select().from(attachment).where(eq(attachment.id, id));
  return row ?? null;
}
