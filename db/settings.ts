/** Reading and changing the workshop's own choices. */
import { STARTING_SETTINGS, type Settings } from "#core/settings";
import { eq } from "drizzle-orm";
import type { Reads } from "./client.ts";
import { prepared } from "./prepared.ts";
import { settings } from "./schema.ts";

export async function readSettings(db: Reads): Promise<Settings> {
  const [row] = await prepared(db, "settings", () => db.select().from(settings).where(eq(settings.id, 1))).execute();
  // Choices that came later start from the house's own.
  return { ...STARTING_SETTINGS, ...row?.data };
}

export async function saveSettings(db: Reads, data: Settings): Promise<void> {
  await db.insert(settings).values({ id: 1, data }).onConflictDoUpdate({ target: settings.id, set: { data } });
}
