/** Opening a sheet: a token for the one act it will do, and the version of the record that is on it. */
import type { Subject } from "#core/act/kinds";
import { versionOf } from "#db/act/seen";
import { db } from "../server/workshop.server.ts";
import type { Opened } from "./useSheet.ts";

/** @param record what is on the sheet; nothing for a new one */
export const openSheet = async (record?: Subject | null): Promise<Opened> => ({
  token: crypto.randomUUID(),
  seen: record ? await versionOf(db(), record) : null,
});
