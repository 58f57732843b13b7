/** Whether a batch stands on the bench: set out, and neither poured nor cleared off. Asked and held in one way. */
import { Refused } from "#core/refused";
import { and, eq, isNull } from "drizzle-orm";
import type { Tx } from "../client.ts";
import { batch } from "../schema.ts";

export const onTheBench = and(isNull(batch.pouredActId), isNull(batch.clearedActId));

/** The batch, held, while it stands on the bench. @throws Refused once it is poured or cleared */
export async function standing(tx: Tx, batchId: number): Promise<typeof batch.$inferSelect> {
  const [row] = await tx
    .select()
    .from(batch)
    .where(and(eq(batch.id, batchId), onTheBench))
    .for("no key update");
  if (!row) throw Refused.one("", "This batch isn't on the bench any more.");
  return row;
}
