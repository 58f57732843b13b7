/**
 * Writes a calendar as iCalendar (RFC 5545). ical-generator writes the format; this module decides the properties of each entry. The same books
 * give the same bytes, so that a reader of the feed sees at once that nothing changed.
 */
import ical, { ICalAlarmRelatesTo, ICalAlarmType, ICalCalendarMethod, ICalEventStatus, ICalEventTransparency } from "ical-generator";
import { CALENDAR_KINDS, type Entry } from "./entries.ts";

interface Calendar {
  /** What it is called where it is read. */
  name: string;
  /** What tells these books' entries from those of others: the same for as long as there are these books. */
  books: string;
  /** Where the workshop's pages are, for an entry's own: "http://127.0.0.1:4000/own". */
  home: string;
}

/** A feed is asked for again after so long. */
const EVERY_SECONDS = 3600;

/**
 * Days are all-day entries without a time of day, so that no zone moves them; timers have their moments. An entry that is no longer so is
 * sent as cancelled, and each change counts its sequence up: calendars that have it already take it out, or change it.
 * @returns a text with CRLF and folded lines
 */
export function writeCalendar(entries: readonly Entry[], { name, books, home }: Calendar): string {
  const calendar = ical({
    name,
    prodId: { company: "Zelbin", product: "Zelbin", language: "EN" },
    method: ICalCalendarMethod.PUBLISH,
    ttl: EVERY_SECONDS,
  });
  for (const e of entries) {
    const timed = e.from !== null;
    const start = e.from ?? new Date(`${e.day}T00:00:00Z`);
    const event = calendar.createEvent({
      // For good: who has read it once finds it again, however it has changed since.
      id: `${e.key}@${books}.zelbin`,
      start,
      allDay: !timed,
      ...(timed ? { end: new Date(start.getTime() + (e.minutes ?? 0) * 60_000) } : {}),
      summary: e.title,
      description: e.note,
      url: home + e.path,
      categories: [{ name: CALENDAR_KINDS[e.kind] }],
      sequence: Math.max(0, e.changes - 1),
      stamp: e.changed,
      lastModified: e.changed,
      status: e.state === "off" ? ICalEventStatus.CANCELLED : ICalEventStatus.CONFIRMED,
      // Only a market day and a timer take the maker's time.
      transparency: e.kind === "market" || e.kind === "timer" ? ICalEventTransparency.OPAQUE : ICalEventTransparency.TRANSPARENT,
    });
    if (timed && e.state === "stands")
      event.createAlarm({ type: ICalAlarmType.display, trigger: 0, description: e.title }).relatesTo(ICalAlarmRelatesTo.end);
  }
  return calendar.toString();
}
