/** Which kinds of entry a calendar is asked for: `?of=order&of=jar`; all of them where none is named. */
import { CALENDAR_KIND_IDS, entryOf, type CalendarKind, type Entry } from "#core/calendar/entries";
import { today } from "#db/clock";
import { datedOf } from "#db/calendar/calendar";
import { db } from "../server/workshop.server.ts";

export function kindsAsked(request: Request): CalendarKind[] {
  const asked = new URL(request.url).searchParams.getAll("of");
  const kinds = CALENDAR_KIND_IDS.filter((k) => asked.includes(k));
  return kinds.length > 0 ? kinds : CALENDAR_KIND_IDS;
}

export const entriesAsked = async (kinds: readonly CalendarKind[]): Promise<Entry[]> => (await datedOf(db(), today(), kinds)).map(entryOf);

/** @example addressOf(["order", "jar"]) // "?of=order&of=jar", and nothing for all of them */
export const addressOf = (kinds: readonly CalendarKind[]): string =>
  kinds.length === CALENDAR_KIND_IDS.length ? "" : `?${new URLSearchParams(kinds.map((k) => ["of", k])).toString()}`;
